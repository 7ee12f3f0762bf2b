package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/**
 * scripts/features.txt, by which {@code ./ironing test --changed} finds the tests of a change,
 * names every part of the product and every test of it, and nothing else.
 */
class FeatureListTest {
  private static final Path ROOT = Path.of("..");
  // what everything stands on is tested as a whole, by name or not
  private static final Set<String> WHOLE = Set.of("WholeWayIT", "FeatureListTest", "FeaturesTest");

  @Test
  void every_package_of_the_core_belongs_to_a_feature() throws IOException {
    assertThat(named("core")).isEqualTo(folders("core/src/main/java/ironing/core"));
  }

  @Test
  void every_package_of_the_server_belongs_to_a_feature() throws IOException {
    assertThat(named("server")).isEqualTo(folders("server/src/main/java/ironing/server"));
  }

  @Test
  void every_folder_of_the_page_belongs_to_a_feature() throws IOException {
    assertThat(named("web")).isEqualTo(folders("web/src"));
  }

  @Test
  void every_test_of_the_server_belongs_to_a_feature() throws IOException {
    Set<String> there = files("src/test/java", n -> n.matches(".*(Test|IT)\\.java"), ".java");
    there.removeAll(WHOLE);
    Set<String> named = named("tests");
    named.removeAll(WHOLE);
    assertThat(named).isEqualTo(there);
  }

  @Test
  void every_test_in_the_browser_belongs_to_a_feature() throws IOException {
    assertThat(named("specs"))
        .isEqualTo(files("../e2e/tests", n -> n.endsWith(".spec.ts"), ".spec.ts"));
  }

  /** All parts of a kind that the list names. */
  private static Set<String> named(String kind) throws IOException {
    Set<String> parts = new TreeSet<>();
    for (String line : Files.readAllLines(ROOT.resolve("scripts/features.txt"))) {
      if (line.startsWith("#")) continue;
      for (String column : line.split("\\s+"))
        if (column.startsWith(kind + "="))
          parts.addAll(Set.of(column.substring(kind.length() + 1).split(",")));
    }
    parts.remove("-");
    return parts;
  }

  private static Set<String> folders(String of) throws IOException {
    Set<String> names = new TreeSet<>();
    try (Stream<Path> all = Files.list(ROOT.resolve(of))) {
      all.filter(Files::isDirectory).forEach(p -> names.add(p.getFileName().toString()));
    }
    return names;
  }

  private static Set<String> files(String below, Predicate<String> wanted, String ending)
      throws IOException {
    Set<String> names = new TreeSet<>();
    try (Stream<Path> all = Files.walk(Path.of(below))) {
      all.map(p -> p.getFileName().toString())
          .filter(wanted)
          .forEach(n -> names.add(n.substring(0, n.length() - ending.length())));
    }
    return names;
  }
}
