package ironing.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;

/** The arrows of docs/architecture.md. */
@AnalyzeClasses(packages = "ironing.core", importOptions = ImportOption.DoNotIncludeTests.class)
class ArchitectureTest {
  @ArchTest
  static final ArchRule the_core_knows_no_framework =
      noClasses()
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage(
              "org.springframework..",
              "org.apache.ibatis..",
              "jakarta..",
              "java.sql..",
              "javax.sql..",
              "java.net.http..",
              "ironing.server..",
              "ironing.standins..",
              "ironing.demo..");

  @ArchTest
  static final ArchRule packages_form_no_rings =
      slices().matching("ironing.core.(*)..").should().beFreeOfCycles();

  @ArchTest
  static final ArchRule data_flows_one_way =
      layeredArchitecture()
          .consideringOnlyDependenciesInAnyPackage("ironing.core..")
          .layer("ground")
          .definedBy(
              "ironing.core",
              "ironing.core.arrayfile",
              "ironing.core.path",
              "ironing.core.version",
              "ironing.core.yaml",
              "ironing.core.order",
              "ironing.core.query",
              "ironing.core.plugin",
              "ironing.core.archive",
              "ironing.core.disk",
              "ironing.core.testrun",
              "ironing.core.catalogue",
              "ironing.core.choice")
          .layer("game")
          .definedBy("ironing.core.game")
          .layer("library")
          .definedBy("ironing.core.library")
          .layer("layers")
          .definedBy("ironing.core.layers")
          .layer("loadorder")
          .definedBy("ironing.core.loadorder")
          .layer("picture")
          .definedBy("ironing.core.picture")
          .layer("records")
          .definedBy("ironing.core.records")
          .layer("mends")
          .definedBy("ironing.core.mends")
          .layer("deploy")
          .definedBy("ironing.core.deploy")
          .layer("drift")
          .definedBy("ironing.core.drift")
          .layer("gameversion")
          .definedBy("ironing.core.gameversion")
          .layer("progress")
          .definedBy("ironing.core.progress")
          .layer("workspace")
          .definedBy("ironing.core.workspace")
          .layer("trouble")
          .definedBy("ironing.core.trouble")
          .layer("documents")
          .definedBy("ironing.core.documents")
          .layer("format")
          .definedBy("ironing.core.format")
          .layer("limits")
          .definedBy("ironing.core.limits")
          .whereLayer("documents")
          .mayOnlyBeAccessedByLayers("workspace", "format")
          .whereLayer("format")
          .mayOnlyBeAccessedByLayers("workspace")
          .whereLayer("limits")
          .mayNotBeAccessedByAnyLayer()
          .whereLayer("trouble")
          .mayNotBeAccessedByAnyLayer()
          .whereLayer("workspace")
          .mayOnlyBeAccessedByLayers("mends", "trouble")
          .whereLayer("progress")
          .mayNotBeAccessedByAnyLayer()
          .whereLayer("gameversion")
          .mayNotBeAccessedByAnyLayer()
          .whereLayer("drift")
          .mayOnlyBeAccessedByLayers("gameversion")
          .whereLayer("deploy")
          .mayOnlyBeAccessedByLayers("progress", "workspace", "drift", "gameversion")
          .whereLayer("mends")
          .mayNotBeAccessedByAnyLayer()
          .whereLayer("records")
          .mayOnlyBeAccessedByLayers("mends", "picture", "workspace", "trouble")
          .whereLayer("picture")
          .mayOnlyBeAccessedByLayers(
              "deploy", "progress", "workspace", "mends", "trouble", "limits")
          .whereLayer("loadorder")
          .mayOnlyBeAccessedByLayers(
              "picture", "deploy", "progress", "workspace", "trouble", "limits")
          .whereLayer("library")
          .mayOnlyBeAccessedByLayers("workspace", "mends", "trouble");
}
