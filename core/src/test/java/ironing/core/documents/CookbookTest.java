package ironing.core.documents;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordSearch;
import ironing.core.testkit.Schemas;
import ironing.core.testkit.TestWorld;
import ironing.core.workspace.Stages;
import ironing.core.workspace.Workspace;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Every recipe of docs/cookbook.md is read as it says. */
class CookbookTest {
  private static final Pattern BLOCK = Pattern.compile("(?ms)^```\\w+ (\\S+)\\n(.*?)^```$");
  private static final Pattern SHOWS = Pattern.compile("\\*\\*Shows\\*\\*: (.*); (.*)\\.");

  record Recipe(String title, Map<String, String> files, String plugins, String records) {
    @Override
    public String toString() {
      return title;
    }
  }

  static Stream<Recipe> recipes() throws IOException {
    String page = Files.readString(Path.of("../docs/cookbook.md"));
    return Stream.of(page.split("(?m)^## "))
        .skip(1)
        .map(
            section -> {
              Map<String, String> files = new LinkedHashMap<>();
              for (Matcher m = BLOCK.matcher(section); m.find(); )
                files.put(m.group(1), m.group(2));
              Matcher shows = SHOWS.matcher(section);
              assertThat(shows.find()).as(section).isTrue();
              return new Recipe(
                  section.lines().findFirst().orElseThrow(), files, shows.group(1), shows.group(2));
            });
  }

  @ParameterizedTest
  @MethodSource("recipes")
  void a_recipe_shows_what_it_says(Recipe recipe, @TempDir Path temp) throws IOException {
    String definition = recipe.files().remove("game.yaml");
    assertThat(Schemas.errorsInYaml("game", definition)).isEmpty();
    var read = GameDefinitionReader.read("game.yaml", definition);
    assertThat(read.warnings()).isEmpty();
    GameDefinition game = read.value();
    TestWorld world = new TestWorld(game);
    String own =
        game.plugins().orElseThrow().own().isEmpty()
            ? "\0"
            : "/" + game.plugins().orElseThrow().own().get(0) + "/";
    recipe
        .files()
        .forEach(
            (path, text) ->
                world.file(
                    path.contains(own) || !path.contains("/") ? Holdings.GAME : 1, path, text));
    Workspace w = world.workspace(temp, null, world.arrangement(1));
    assertThat(
            w.picture().loadOrder().entries().stream()
                .map(Entry::name)
                .collect(Collectors.joining(", ")))
        .isEqualTo(recipe.plugins());
    RecordIndex index = w.get(Stages.RECORDS).index();
    Map<String, Integer> counts = new TreeMap<>(new RecordSearch(game, index).types());
    Map<String, Integer> said = new TreeMap<>();
    for (String part : recipe.records().split(", ")) {
      String[] words = part.split(" ");
      said.put(words[0], Integer.parseInt(words[1]));
    }
    assertThat(counts).isEqualTo(said);
    for (int p = 0; p < index.pluginCount(); p++) assertThat(index.table(p).warnings()).isEmpty();
    assertThat(index.pluginCount()).isEqualTo(recipe.plugins().split(", ").length);
  }

  @org.junit.jupiter.api.Test
  void there_are_six_kinds() throws IOException {
    assertThat(recipes()).hasSize(6);
  }
}
