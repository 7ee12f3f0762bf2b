package ironing.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import org.apache.ibatis.annotations.Mapper;
import org.springframework.web.bind.annotation.RestController;

/** How the server's packages may know one another. docs/architecture.md draws it. */
@AnalyzeClasses(packages = "ironing.server", importOptions = ImportOption.DoNotIncludeTests.class)
class FeaturesTest {
  @ArchTest
  static final ArchRule features_know_one_another_in_one_direction =
      slices().matching("ironing.server.(*)..").should().beFreeOfCycles();

  @ArchTest
  static final ArchRule the_platform_knows_no_feature =
      noClasses()
          .that()
          .resideInAPackage("..server.platform..")
          .should()
          .dependOnClassesThat()
          .resideInAnyPackage(
              "..server.job..",
              "..server.workbench..",
              "..server.game..",
              "..server.library..",
              "..server.layers..",
              "..server.overlaps..",
              "..server.loadorder..",
              "..server.records..",
              "..server.mends..",
              "..server.deploy..",
              "..server.run..",
              "..server.journey..",
              "..server.wrinkles..",
              "..server.placement..",
              "..server.profiles..",
              "..server.timeline..");

  @ArchTest
  static final ArchRule the_workbench_knows_only_the_platform =
      classes()
          .that()
          .resideInAPackage("..server.workbench..")
          .should()
          .onlyDependOnClassesThat()
          .resideInAnyPackage(
              "..server.workbench..",
              "..server.platform..",
              "ironing.core..",
              "java..",
              "org.springframework..",
              "org.apache.ibatis..",
              "org.slf4j..",
              "com.fasterxml.jackson..",
              "com.google.common.cache..");

  @ArchTest
  static final ArchRule tables_are_reached_from_their_own_feature_only =
      classes().that().areAnnotatedWith(Mapper.class).should().bePackagePrivate();

  @ArchTest
  static final ArchRule nobody_calls_a_controller_but_the_web =
      noClasses()
          .that()
          .areNotAnnotatedWith(RestController.class)
          .and()
          .resideOutsideOfPackage("..server.job..")
          .should()
          .callMethodWhere(
              com.tngtech.archunit.core.domain.JavaCall.Predicates.target(
                  com.tngtech.archunit.core.domain.properties.HasOwner.Predicates.With.owner(
                      com.tngtech.archunit.core.domain.properties.CanBeAnnotated.Predicates
                          .annotatedWith(RestController.class))));
}
