package ironing.core.documents;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Documents that nobody here has made, from the registries, judged by other programs. */
class RealDocumentsTest {
  private static final GameDefinition PACKAGES =
      GameDefinitionReader.read(
              "game.yaml",
              """
              format: ironing/game@1
              id: packages
              title: Packages
              mounts: [ { id: all, at: ".", holds: [ "**" ] } ]
              plugins:
                match: "**/package.json"
                is: folder
                header: { as: json, name: "$.name", version: "$.version" }
                records:
                  - { files: "package.json", as: json, each: "$.dependencies.*", id: key, type: dependency, into: "package.json" }
              """)
          .value();

  private static final GameDefinition PROJECTS =
      GameDefinitionReader.read(
              "game.yaml",
              """
              format: ironing/game@1
              id: projects
              title: Projects
              mounts: [ { id: all, at: ".", holds: [ "**" ] } ]
              plugins:
                match: "*.pom"
                is: file
                header: { as: xml, names: { m: "http://maven.apache.org/POM/4.0.0" }, name: "/m:project/m:artifactId" }
                records:
                  - files: "*.pom"
                    as: xml
                    names: { m: "http://maven.apache.org/POM/4.0.0" }
                    each: "/m:project/m:dependencies/m:dependency"
                    id: [ "m:groupId", "m:artifactId", "m:type", "m:classifier" ]
                    type: whole
                  - files: "*.pom"
                    as: xml
                    names: { m: "http://maven.apache.org/POM/4.0.0" }
                    each: "/m:project/m:dependencies/m:dependency"
                    id: [ "m:groupId", "m:artifactId" ]
                    type: dependency
              """)
          .value();

  private static RecordTable read(GameDefinition game, Path file) throws IOException {
    String name = file.getFileName().toString();
    PluginFiles files =
        new PluginFiles(name, List.of(new PluginFiles.Part(name, 1, file.toString(), "")));
    return new DocumentReader(game, Shapes.of(game)).read(files, p -> Files.readAllBytes(file));
  }

  private static String said(String... command) throws IOException {
    Process p = new ProcessBuilder(command).start();
    return new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
  }

  private static List<Path> files(Path folder, int deep, String ending, int most)
      throws IOException {
    try (Stream<Path> all = Files.walk(folder, deep)) {
      return all.filter(p -> p.toString().endsWith(ending)).sorted().limit(most).toList();
    }
  }

  /** The manifests of npm's packages, against jq. */
  @Test
  void manifests_of_packages() throws IOException {
    List<Path> all = files(Path.of("../node_modules"), 3, "package.json", 150);
    assertThat(all).hasSizeGreaterThan(100);
    int named = 0;
    for (Path p : all) {
      String expected =
          said(
              "jq",
              "-r",
              ".name // \"\", .version // \"\", (.dependencies // {} | length)",
              p.toString());
      if (expected.startsWith("\n")) continue;
      RecordTable t = read(PACKAGES, p);
      assertThat(t.name() + "\n" + t.header().version().orElse("") + "\n" + t.size())
          .as(p.toString())
          .isEqualTo(expected);
      named++;
    }
    assertThat(named).isGreaterThan(100);
  }

  /** The projects of Maven's libraries, against xmllint. */
  @Test
  void projects_of_libraries() throws IOException {
    Path home = Path.of(System.getProperty("user.home"), ".m2", "repository");
    String given = System.getProperty("maven.repo.local");
    List<Path> all = files(given == null ? home : Path.of(given), 12, ".pom", 120);
    assertThat(all).hasSizeGreaterThan(50);
    String local = "*[local-name()='%s']";
    String dependencies =
        "/%s/%s/%s"
            .formatted(
                local.formatted("project"),
                local.formatted("dependencies"),
                local.formatted("dependency"));
    int found = 0, twice = 0;
    for (Path p : all) {
      if (Files.readString(p, StandardCharsets.ISO_8859_1).contains("<!DOCTYPE")) continue;
      boolean meant =
          Files.readString(p, StandardCharsets.ISO_8859_1)
              .contains("http://maven.apache.org/POM/4.0.0");
      if (!meant) continue;
      int expected =
          Integer.parseInt(said("xmllint", "--xpath", "count(" + dependencies + ")", p.toString()));
      RecordTable t = read(PROJECTS, p);
      int rows = 0;
      for (int row = 0; row < t.size(); row++) if (t.type(row).equals("dependency")) rows++;
      List<String> again = new ArrayList<>(t.warnings());
      again.removeIf(w -> !w.contains("stands twice"));
      again.removeIf(w -> !w.toLowerCase(Locale.ROOT).contains("the dependency"));
      assertThat(rows + again.size()).as("%s %s", p, t.warnings()).isEqualTo(expected);
      found += rows;
      twice += again.size();
    }
    assertThat(found).isGreaterThan(100);
    assertThat(twice).isLessThan(found);
  }
}
