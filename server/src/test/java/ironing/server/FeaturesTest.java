package ironing.server;

import static com.tngtech.archunit.base.DescribedPredicate.not;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.belongToAnyOf;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAPackage;
import static com.tngtech.archunit.core.domain.JavaClass.Predicates.resideInAnyPackage;
import static com.tngtech.archunit.core.domain.properties.CanBeAnnotated.Predicates.annotatedWith;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import ironing.core.combinedfiles.FileCombiner;
import ironing.core.records.Collisions;
import ironing.core.records.Combiner;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.apache.ibatis.annotations.Mapper;
import org.springframework.web.bind.annotation.RestController;

/** How the server's packages may know one another. docs/architecture.md draws it. */
@AnalyzeClasses(packages = "ironing.server", importOptions = ImportOption.DoNotIncludeTests.class)
class FeaturesTest {
  @ArchTest
  static final ArchRule features_know_one_another_in_one_direction =
      slices().matching("ironing.server.(*)..").should().beFreeOfCycles();

  /** Which features a feature may know, beside the ground that all stand on. */
  private static final Map<String, Set<String>> ARROWS =
      new TreeMap<>(
          Map.ofEntries(
              Map.entry("catalogue", Set.of("fetch")),
              Map.entry(
                  "choice",
                  Set.of(
                      "catalogue",
                      "downloads",
                      "fetch",
                      "layerrules",
                      "layers",
                      "library",
                      "wrinkles")),
              Map.entry("deploy", Set.of()),
              Map.entry("downloads", Set.of("catalogue", "fetch", "library")),
              Map.entry("drift", Set.of("deploy", "library", "tools")),
              Map.entry("fetch", Set.of()),
              Map.entry("findings", Set.of("catalogue")),
              Map.entry("formats", Set.of()),
              Map.entry(
                  "game",
                  Set.of(
                      "deploy",
                      "library",
                      "loadorder",
                      "process",
                      "progress",
                      "testrun",
                      "wrinkles")),
              Map.entry(
                  "gameversion",
                  Set.of("catalogue", "deploy", "findings", "mends", "tools", "updates")),
              Map.entry("layerrules", Set.of("layers", "mends")),
              Map.entry("layers", Set.of("overlaps", "progress")),
              Map.entry("library", Set.of("deploy", "layers", "progress")),
              Map.entry("lists", Set.of("layers", "loadorder")),
              Map.entry("loadorder", Set.of("deploy", "library", "progress")),
              Map.entry("mends", Set.of("layers", "library")),
              Map.entry("overlaps", Set.of()),
              Map.entry("profiles", Set.of("layers")),
              Map.entry("progress", Set.of("deploy", "testrun")),
              Map.entry("records", Set.of()),
              Map.entry("rulings", Set.of("layerrules", "layers")),
              Map.entry("testrun", Set.of("deploy", "process")),
              Map.entry("timeline", Set.of("layers")),
              Map.entry("tools", Set.of("deploy", "library", "mends", "process")),
              Map.entry(
                  "trouble",
                  Set.of(
                      "catalogue", "deploy", "findings", "lists", "mends", "testrun", "wrinkles")),
              Map.entry("updates", Set.of("catalogue")),
              Map.entry("wrinkles", Set.of("layerrules", "library", "loadorder", "mends"))));

  private static final Set<String> GROUND = Set.of("platform", "job", "workspace");

  @ArchTest
  static void a_feature_knows_only_the_features_that_it_stands_on(JavaClasses all) {
    ARROWS.forEach(
        (feature, known) -> {
          Set<String> others = new TreeSet<>(ARROWS.keySet());
          others.add("process");
          others.removeAll(known);
          others.remove(feature);
          String[] packages =
              others.stream().map(o -> "ironing.server." + o + "..").toArray(String[]::new);
          noClasses()
              .that()
              .resideInAPackage("ironing.server." + feature + "..")
              .should()
              .dependOnClassesThat()
              .resideInAnyPackage(packages)
              .check(all);
        });
    noClasses()
        .that()
        .resideInAnyPackage("ironing.server.platform..", "ironing.server.process..")
        .should()
        .dependOnClassesThat(
            resideInAPackage("ironing.server..")
                .and(
                    not(
                        resideInAnyPackage(
                            "ironing.server.platform..", "ironing.server.process.."))))
        .check(all);
    Set<String> named = new TreeSet<>(ARROWS.keySet());
    named.addAll(GROUND);
    named.add("process");
    Set<String> there = new TreeSet<>();
    for (JavaClass c : all)
      if (c.getPackageName().startsWith("ironing.server."))
        there.add(c.getPackageName().split("\\.")[2]);
    assertThat(named).as("each package is named here, and none that is gone").isEqualTo(there);
  }

  @ArchTest
  static final ArchRule the_workspace_knows_only_the_platform =
      classes()
          .that()
          .resideInAPackage("..server.workspace..")
          .should()
          .onlyDependOnClassesThat()
          .resideInAnyPackage(
              "..server.workspace..",
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
                      annotatedWith(RestController.class))));

  @ArchTest
  static final ArchRule controllers_ask_and_do_not_decide =
      noClasses()
          .that()
          .areAnnotatedWith(RestController.class)
          .should()
          .dependOnClassesThat(
              belongToAnyOf(Combiner.class, Collisions.class, FileCombiner.class)
                  .or(annotatedWith(Mapper.class)));

  /** A longer one does more than translate. */
  @ArchTest
  static void no_controller_is_longer_than_250_lines(JavaClasses all) throws IOException {
    Path sources = Path.of("src/main/java");
    List<String> longer = new ArrayList<>();
    for (JavaClass c : all) {
      if (!c.isAnnotatedWith(RestController.class)) continue;
      Path file = sources.resolve(c.getName().replace('.', '/') + ".java");
      int lines = Files.readAllLines(file).size();
      if (lines > 250) longer.add(c.getSimpleName() + " has " + lines);
    }
    assertThat(longer).isEmpty();
  }
}
