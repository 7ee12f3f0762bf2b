package ironing.standins.game;

import static ironing.standins.game.TestGame.record;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.standins.game.TestGame.Played;
import ironing.standins.game.TestGame.Ref;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SkerryLineTest {
  private static final List<String> SKERRY = List.of("Skerry.plug");

  @TempDir Path folder;
  private TestGame game;

  @BeforeEach
  void aGame() throws IOException {
    game = new TestGame(folder);
  }

  private static void stopped(Played p, String code, String plugin) {
    assertThat(p.code()).isEqualTo(3);
    assertThat(p.fault().path("code").asText()).isEqualTo(code);
    assertThat(p.fault().path("plugin").asText()).isEqualTo(plugin);
    assertThat(p.fault().path("text").asText()).isNotBlank();
    JsonNode last = p.events().get(p.events().size() - 1);
    assertThat(last.path("event").asText() + last.path("code").asInt()).isEqualTo("end3");
  }

  @Test
  void an_unmodded_day_is_played_to_its_end_and_leaves_a_save_a_log_and_a_setting()
      throws IOException {
    game.file("settings/skerry.ini", "[bridge]\nunits = metres\n");
    Played p = game.play();
    assertThat(p.code()).isZero();
    assertThat(p.events().get(0).path("version").asText()).isEqualTo("1.4.2");
    assertThat(p.events()).allSatisfy(e -> assertThat(e.path("at").asText()).matches("\\d{4}-.*Z"));
    assertThat(p.report("Lyngholm, harbour dues")).isEqualTo("3.0");
    assertThat(folder.resolve("saves/day-001.json")).exists();
    game.play();
    assertThat(folder.resolve("settings/skerry.ini"))
        .hasContent("[bridge]\nunits = metres\nstarts = 2\n");
    assertThat(folder.resolve("saves/day-002.json")).exists();
  }

  @Test
  void the_last_version_of_a_record_wins_whole() throws IOException {
    game.plugin(
        "A.plug",
        SKERRY,
        Map.of(),
        record("harbour", 0, 1, Map.of("name", "Lyngholm", "dues", 9, "depth", 7)));
    game.plugin(
        "B.plug", SKERRY, Map.of(), record("harbour", 0, 1, Map.of("name", "Lyngholm", "dues", 5)));
    Played ab = game.roster("use A.plug", "use B.plug").play();
    assertThat(List.of(ab.report("Lyngholm, harbour dues"), ab.report("Lyngholm, depth")))
        .containsExactly("5.0", "0.0");
    assertThat(game.roster("use B.plug", "use A.plug").play().report("Lyngholm, depth"))
        .isEqualTo("7.0");
    assertThat(game.roster("skip B.plug", "use A.plug").play().report("Lyngholm, harbour dues"))
        .isEqualTo("9.0");
  }

  @Test
  void lower_stages_load_first_whatever_the_list_says() throws IOException {
    game.plugin(
        "Late.plug",
        SKERRY,
        Map.of("stage", 7),
        record("harbour", 0, 1, Map.of("name", "Lyngholm", "dues", 7)));
    game.plugin(
        "Early.plug",
        SKERRY,
        Map.of("stage", 2),
        record("harbour", 0, 1, Map.of("name", "Lyngholm", "dues", 2)));
    assertThat(
            game.roster("use Late.plug", "use Early.plug").play().report("Lyngholm, harbour dues"))
        .isEqualTo("7.0");
  }

  @Test
  void a_removed_record_is_gone_and_what_refers_to_it_stops_the_game() throws IOException {
    game.plugin("A.plug", SKERRY, Map.of(), record("harbour", 0, 1, null));
    assertThat(game.roster("use A.plug").play().report("Lyngholm, depth")).isEqualTo("nothing");
    game.plugin(
        "B.plug",
        SKERRY,
        Map.of(),
        record("vessel", 1, 1, Map.of("name", "Aud", "berth", new Ref(0, 1))));
    Played p = game.roster("use A.plug", "use B.plug").play();
    stopped(p, "reference-dangling", "B.plug");
    assertThat(p.fault().path("record").asText()).isEqualTo("B.plug/1");
  }

  @Test
  void a_missing_master_and_one_that_loads_later_stop_the_game() throws IOException {
    game.plugin("A.plug", List.of("Gone.plug"), Map.of());
    stopped(game.roster("use A.plug").play(), "master-missing", "A.plug");
    game.plugin("Gone.plug", List.of(), Map.of());
    stopped(game.roster("use A.plug", "use Gone.plug").play(), "master-late", "A.plug");
    assertThat(game.roster("use gone.PLUG", "use A.plug").play().code()).isZero();
  }

  @Test
  void ninety_four_plugins_of_mods_are_one_too_many() throws IOException {
    StringBuilder roster = new StringBuilder();
    for (int i = 1; i <= 93; i++) {
      game.plugin("P" + i + ".plug", List.of(), Map.of());
      roster.append("use P").append(i).append(".plug\n");
    }
    assertThat(game.file("settings/roster.txt", roster.toString()).play().code()).isZero();
    game.plugin("P94.plug", List.of(), Map.of());
    stopped(
        game.file("settings/roster.txt", roster + "use P94.plug\n").play(), "no-slot", "P94.plug");
  }

  @ParameterizedTest
  @CsvSource({">=1.4 <2, 0", ">=1.5, 3", "1.4.2, 0", "<1.4, 3", "*, 0"})
  void a_plugin_for_another_version_of_the_game_stops_it(String range, int code)
      throws IOException {
    game.plugin("A.plug", SKERRY, Map.of("game", range));
    assertThat(game.roster("use A.plug").play().code()).isEqualTo(code);
  }

  @Test
  void scripts_that_call_nobody_or_are_defined_twice_stop_the_game() throws IOException {
    game.file(
        "data/scripts/day.sks", "# first\nroutine day\n  say Morning.\n  call evening\nend\n");
    Played missing = game.play();
    stopped(missing, "routine-missing", "");
    assertThat(missing.fault().path("path").asText()).isEqualTo("data/scripts/day.sks");
    game.file("data/scripts/lib/a.sks", "routine evening\n say Night.\nend\n");
    assertThat(game.play().report("Said on the quay")).isEqualTo("Morning.");
    game.file("data/scripts/lib/b.sks", "routine evening\nend\n");
    Played twice = game.play();
    stopped(twice, "routine-twice", "");
    assertThat(twice.fault().path("text").asText()).contains("lib/a.sks").contains("lib/b.sks");
    game.file("data/scripts/lib/b.sks", "routine night\n");
    stopped(game.play(), "script-broken", "");
    game.file("data/scripts/lib/b.sks", "routine a\n call a\nend\n")
        .file("data/scripts/day.sks", "routine day\n call a\nend\n");
    stopped(game.play(), "script-endless", "");
  }

  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = '|',
      value = {
        "data/tables/tariffs.csv | id,surcharge~night,lots",
        "data/tables/tariffs.csv | id~night",
        "data/ui/bridge.json | {\"widgets\":",
        "data/ui/weather.xml | <weather>",
        "settings/skerry.ini | [bridge]~units metres",
        "settings/roster.txt | perhaps A.plug"
      })
  void data_that_does_not_parse_stops_the_game_and_is_named(String path, String text)
      throws IOException {
    Played p = game.file(path, text.replace('~', '\n')).play();
    assertThat(p.code()).isEqualTo(3);
    assertThat(p.fault().path("code").asText()).isIn("data-broken", "list-broken");
  }

  @Test
  void a_record_with_a_word_for_a_number_and_a_broken_plugin_are_named() throws IOException {
    game.plugin(
        "A.plug",
        SKERRY,
        Map.of(),
        record("harbour", 0, 1, Map.of("name", "Lyngholm", "dues", "many")));
    stopped(game.roster("use A.plug").play(), "data-broken", "A.plug");
    game.file("data/A.plug", "not CBOR at all");
    stopped(game.play(), "plugin-broken", "A.plug");
    stopped(game.roster("use Nobody.plug").play(), "plugin-missing", "Nobody.plug");
  }

  @Test
  void a_loose_file_stands_before_a_packed_one_and_a_later_crate_before_an_earlier()
      throws IOException {
    game.crate("base.crate", Map.of("textures/a.png", "base", "textures/b.png", "base"));
    game.crate("A.crate", Map.of("textures/a.png", "crate A"))
        .crate("B.crate", Map.of("textures/a.png", "crate BB"));
    game.plugin("A.plug", List.of(), Map.of("packs", List.of("A.crate")))
        .plugin("B.plug", List.of(), Map.of("packs", List.of("B.crate")));
    assertThat(game.roster("use A.plug", "use B.plug").play().report("Texture, a.png"))
        .isEqualTo("8");
    assertThat(game.roster("use B.plug", "use A.plug").play().report("Texture, a.png"))
        .isEqualTo("7");
    assertThat(game.roster("skip B.plug", "skip A.plug").play().report("Texture, a.png"))
        .as("crates of plugins that are off stay closed")
        .isEqualTo("4");
    game.file("data/Textures/A.PNG", "loose one");
    Played p = game.play();
    assertThat(p.events())
        .anySatisfy(e -> assertThat(e.path("from").asText()).isEqualTo("data/Textures/A.PNG"));
    assertThat(p.report("Texture, b.png")).isEqualTo("4");
  }

  @Test
  void what_is_odd_but_playable_is_a_warning() throws IOException {
    game.plugin(
        "A.plug",
        SKERRY,
        Map.of("packs", List.of("gone.crate")),
        record("harbour", 0, 77, Map.of("name", "Nowhere")),
        record("vessel", 1, 2, Map.of("name", "Aud", "mesh", "hulls/x.obj")));
    assertThat(game.roster("use A.plug").play().warnings())
        .containsExactly("crate-missing", "record-unknown", "texture-missing");
    Files.delete(folder.resolve("settings/roster.txt"));
    assertThat(game.play().warnings()).isEmpty();
  }
}
