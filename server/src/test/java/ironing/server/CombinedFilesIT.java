package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Files of several mods made one, on a small game of our own. */
@ExtendWith(SharedServer.class)
class CombinedFilesIT {
  private static final String GAME =
      """
      format: ironing/game@1
      id: with-scripts
      title: Small Fleet
      pathCase: insensitive
      mounts:
        - { id: data, at: "data", holds: [ "scripts/", "ui/", "tables/" ] }
      combine:
        - { match: "scripts/**/*.sks", as: text, once: "^routine\\\\s+(\\\\S+)" }
        - { match: "tables/**/*.csv", as: table, key: [ id ] }
        - { match: "ui/**/*.json", as: json, arrays: { "/widgets": { key: id }, "/tags": set } }
      """;
  private static final String DAY = "routine day\n  ring bell\n  light lamp\n  sail\nend\n";

  @TempDir Path temp;
  private Api api;
  private Path game;
  private long workspace;
  private String base;
  private final Map<String, Long> mods = new HashMap<>();

  @BeforeEach
  void fleet(Api api) throws IOException {
    this.api = api;
    game = temp.resolve("game");
    Trees.write(game.resolve("game.yaml"), GAME);
    Trees.write(game.resolve("data/scripts/day.sks"), DAY);
    Trees.write(game.resolve("data/ui/bridge.json"), "{\n  \"title\": \"Bridge\"\n}\n");
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    install(
        "Loud",
        "1.0",
        Map.of(
            "scripts/day.sks", DAY.replace("ring bell", "ring bell twice"),
            "ui/bridge.json", "{\"title\":\"Bridge\",\"bell\":2}",
            "tables/loads.csv", "id,tonnes\n1,5\n"));
    install(
        "Bright",
        "1.0",
        Map.of(
            "scripts/day.sks", DAY.replace("  sail", "  sail slowly"),
            "ui/bridge.json", "{\"title\":\"The bridge\"}",
            "tables/loads.csv", "id,tonnes\n1,6\n"));
    install("Dim", "1.0", Map.of("tables/loads.csv", "id,tonnes\n1,5\n2,7\n"));
  }

  private void install(String name, String version, Map<String, String> content) {
    install(name, version, "", content);
  }

  private void install(String name, String version, String card, Map<String, String> content) {
    Map<String, byte[]> files = new LinkedHashMap<>();
    String id = name.toLowerCase(Locale.ROOT);
    files.put(
        "mod-card.yaml",
        ("format: ironing/mod@1\nid: "
                + id
                + "\nname: "
                + name
                + "\nversion: "
                + version
                + "\n"
                + card)
            .getBytes(StandardCharsets.UTF_8));
    content.forEach((p, text) -> files.put("data/" + p, text.getBytes(StandardCharsets.UTF_8)));
    byte[] zip = Archives.zipOf(files);
    String file = name + " " + version + ".zip";
    if (!mods.containsKey(name)) {
      mods.put(name, api.install(workspace, file, zip).result());
      return;
    }
    mods.put(name, api.update(workspace, mods.get(name), file, zip));
  }

  private JsonNode candidate(String path) {
    for (JsonNode f : api.get(base + "/combined-files").path("files"))
      if (f.path("path").asText().equals(path)) return f;
    throw new AssertionError(path);
  }

  private JsonNode board(String path) {
    return api.get(base + "/combined-files/board?path=" + path);
  }

  private JsonNode choose(String path, Map<String, Object> body) {
    return api.change("PUT", base + "/combined-files/choices?path=" + path, body);
  }

  private Map<String, String> revision() {
    return Map.of("If-Match", "\"" + api.get(base).path("revision").asLong() + "\"");
  }

  private String deployed(String path) throws IOException {
    api.job(base + "/deploy", null);
    return Files.readString(game.resolve("data").resolve(path));
  }

  @Test
  void every_file_that_can_be_combined_says_what_it_comes_to() {
    assertThat(candidate("data/scripts/day.sks").path("state").asText()).isEqualTo("COMBINES");
    assertThat(candidate("data/ui/bridge.json").path("state").asText()).isEqualTo("COMBINES");
    JsonNode loads = candidate("data/tables/loads.csv");
    assertThat(loads.path("state").asText()).as("the game has none").isEqualTo("PROPOSED");
    assertThat(loads.path("base").path("name").asText()).isEqualTo("Loud");
    assertThat(loads.path("contenders").findValuesAsText("name")).containsExactly("Bright", "Dim");
    JsonNode day = board("data/scripts/day.sks");
    assertThat(day.path("pieces").findValuesAsText("text").toString())
        .isEqualTo("[routine day\n,   ring bell twice\n,   light lamp\n,   sail slowly\n, end\n]");
    assertThat(day.path("pieces").get(1).path("of").get(0).asText()).isEqualTo("loud");
  }

  @Test
  void all_without_a_question_are_combined_and_reach_the_game() throws IOException {
    long mend = api.job(base + "/combined-files", Map.of()).result();
    assertThat(deployed("scripts/day.sks"))
        .isEqualTo("routine day\n  ring bell twice\n  light lamp\n  sail slowly\nend\n");
    assertThat(deployed("ui/bridge.json"))
        .isEqualTo("{\n  \"title\": \"The bridge\",\n  \"bell\":2\n}\n");
    assertThat(deployed("tables/loads.csv")).as("never without a look").contains("1,5");
    JsonNode m = api.get(base + "/mends").get(0);
    assertThat(m.path("kind").asText()).isEqualTo("COMBINED");
    assertThat(m.path("mod").asLong()).isEqualTo(mend);
    assertThat(m.path("stale").asBoolean()).isFalse();
    assertThat(m.path("ingredients")).hasSize(6);
  }

  @Test
  void what_two_change_differently_is_settled_by_hand_and_stays_settled() throws IOException {
    install("Bright", "1.1", Map.of("scripts/day.sks", DAY.replace("ring bell", "ring horn")));
    JsonNode day = candidate("data/scripts/day.sks");
    assertThat(day.path("state").asText()).isEqualTo("NEEDS_YOU");
    assertThat(day.path("asked").asInt()).isOne();
    String path = "data/scripts/day.sks";
    JsonNode place = board(path).path("places").get(0);
    assertThat(place.path("how").asText()).isEqualTo("ASKED");
    assertThat(place.path("where").asText()).isEqualTo("line 2");
    Api.Answer refused =
        api.ask(
            "PUT",
            base + "/combined-files/choices?path=" + path,
            Map.of("place", place.path("key").asText(), "take", List.of("nobody")),
            revision());
    assertThat(refused.body().path("code").asText()).isEqualTo("not-a-side");
    String key = place.path("key").asText();
    Map<String, Object> nowhere = Map.of("place", "/base", "take", List.of("bright"));
    assertThat(api.refusal("PUT", base + "/combined-files/choices?path=" + path, nowhere))
        .as("a place that the file does not have")
        .isEqualTo("not-found");
    JsonNode after = choose(path, Map.of("place", key, "take", List.of("bright", "loud")));
    assertThat(after.path("file").path("state").asText()).isEqualTo("COMBINES");
    api.job(base + "/combined-files", Map.of("paths", List.of(path)));
    assertThat(deployed("scripts/day.sks")).contains("  ring horn\n  ring bell twice\n");
    // another change elsewhere asks nothing again
    install(
        "Bright",
        "1.2",
        Map.of(
            "scripts/day.sks",
            DAY.replace("ring bell", "ring horn").replace("  sail", "  sail far")));
    JsonNode stale = api.get(base + "/mends").get(0);
    assertThat(stale.path("reasons").toString()).contains("Bright has another");
    JsonNode d = api.get(base + "/mends/" + stale.path("mod").asLong() + "/difference");
    assertThat(d.path("records").get(0).path("after").asText()).isEqualTo("  sail far");
    api.job(base + "/mends/rebuild", null);
    assertThat(api.get(base + "/mends").get(0).path("stale").asBoolean()).isFalse();
    assertThat(deployed("scripts/day.sks"))
        .contains("  ring horn\n  ring bell twice\n  light lamp\n  sail far");
    choose(path, Map.of("place", key, "forget", true));
    assertThat(candidate(path).path("state").asText()).isEqualTo("NEEDS_YOU");
    stale = api.get(base + "/mends").get(0);
    assertThat(stale.path("wrong").toString()).contains("waits for you");
  }

  @Test
  void the_change_of_one_mod_is_carried_into_what_would_be_in_play_without_it() throws IOException {
    install("Third", "1.0", Map.of("scripts/day.sks", DAY.replace("ring bell", "ring gong")));
    assertThat(candidate("data/scripts/day.sks").path("state").asText()).isEqualTo("NEEDS_YOU");
    JsonNode carried = api.get(base + "/combined-files?carry=bright").path("files");
    assertThat(carried.findValuesAsText("path")).contains("data/scripts/day.sks");
    JsonNode day = null;
    for (JsonNode f : carried) if (f.path("way").asText().equals("text")) day = f;
    assertThat(day.path("state").asText()).as("only Bright and Third").isEqualTo("COMBINES");
    assertThat(day.path("contenders").findValuesAsText("id")).containsExactly("bright", "third");
    List<String> paths = List.of("data/scripts/day.sks");
    api.job(base + "/combined-files", Map.of("paths", paths, "carry", "bright"));
    assertThat(deployed("scripts/day.sks")).contains("ring gong").contains("sail slowly");
    assertThat(api.get(base + "/mends").get(0).path("stale").asBoolean()).isFalse();
    install("Third", "1.1", Map.of("scripts/day.sks", DAY.replace("ring bell", "ring drum")));
    assertThat(api.get(base + "/mends").get(0).path("stale").asBoolean()).isTrue();
    api.job(base + "/mends/rebuild", null);
    assertThat(deployed("scripts/day.sks")).contains("ring drum").contains("sail slowly");
  }

  @Test
  void a_file_that_is_away_hides_none_of_the_others() throws IOException {
    // what came of the same contents before is remembered
    install("Third", "1.0", Map.of("ui/bridge.json", "{\"title\":\"Bridge\",\"away\":1}"));
    Files.delete(game.resolve("data/ui/bridge.json"));
    JsonNode bridge = candidate("data/ui/bridge.json");
    assertThat(bridge.path("state").asText()).isEqualTo("IMPOSSIBLE");
    assertThat(bridge.path("reasons").toString()).contains("cannot be read");
    assertThat(candidate("data/tables/loads.csv").path("state").asText()).isEqualTo("PROPOSED");
    Api.Answer board =
        api.ask("GET", base + "/combined-files/board?path=data/ui/bridge.json", null, Map.of());
    assertThat(board.body().path("code").asText()).isEqualTo("file-unreadable");
  }

  @Test
  void another_base_may_be_chosen_and_is_shown() {
    String path = "data/tables/loads.csv";
    assertThat(candidate(path).path("bases").findValuesAsText("id"))
        .containsExactly("loud", "bright", "dim");
    assertThat(board(path).path("file").path("state").asText()).isEqualTo("PROPOSED");
    JsonNode other = choose(path, Map.of("take", List.of("dim")));
    assertThat(other.path("file").path("base").path("id").asText()).isEqualTo("dim");
    assertThat(other.path("file").path("contenders").findValuesAsText("id"))
        .containsExactly("loud", "bright");
    assertThat(other.path("places").findValuesAsText("where")).contains("2");
    JsonNode back = choose(path, Map.of("forget", true));
    assertThat(back.path("file").path("base").path("id").asText()).isEqualTo("loud");
  }

  @Test
  void a_request_with_what_nobody_knows_is_refused_whole() {
    Api.Answer refused =
        api.ask("POST", base + "/combined-files", Map.of("pahts", List.of()), Map.of());
    assertThat(refused.status()).isEqualTo(400);
    assertThat(refused.body().path("detail").asText()).contains("nothing is called “pahts” there");
    assertThat(api.get(base + "/mends")).isEmpty();
  }

  @Test
  void a_file_that_is_not_contested_is_refused_with_the_reason() {
    Api.Answer refused =
        api.ask("GET", base + "/combined-files/board?path=data/no.sks", null, Map.of());
    assertThat(refused.status()).isEqualTo(404);
    assertThat(refused.body().path("detail").asText()).contains("Choose one from the list");
  }

  @Test
  void a_mod_that_comes_later_makes_it_stale_and_does_not_stand_above_it() throws IOException {
    api.job(base + "/combined-files", Map.of());
    install("Late", "1.0", Map.of("scripts/day.sks", DAY + "rest\n"));
    assertThat(api.get(base + "/mends").get(0).path("reasons").toString())
        .contains("Late changes data/scripts/day.sks too now");
    assertThat(api.get(base + "/wrinkles").path("open").findValuesAsText("code"))
        .contains("mend-stale");
    api.job(base + "/mends/rebuild", null);
    assertThat(api.get(base + "/mends").get(0).path("stale").asBoolean()).isFalse();
    assertThat(deployed("scripts/day.sks")).contains("ring bell twice").endsWith("end\nrest\n");
  }

  @Test
  void a_mod_made_for_an_older_version_of_another_is_measured_against_that() throws IOException {
    install(
        "Bright",
        "1.0",
        "needs:\n  - { mod: loud }\n",
        Map.of(
            "scripts/day.sks",
            DAY.replace("ring bell", "ring bell twice").replace("  sail", "  sail on")));
    assertThat(api.get(base + "/combined-files").path("files").findValuesAsText("path"))
        .as("what is in use is what it was made for: the game’s file stays the base")
        .contains("data/scripts/day.sks");
    assertThat(candidate("data/scripts/day.sks").path("madeFrom").asBoolean()).isFalse();
    install("Loud", "2.0", Map.of("scripts/day.sks", DAY.replace("ring bell", "ring bell thrice")));
    JsonNode day = candidate("data/scripts/day.sks");
    assertThat(day.path("state").asText()).isEqualTo("COMBINES");
    assertThat(day.path("madeFrom").asBoolean()).isTrue();
    assertThat(day.path("base").path("name").asText()).isEqualTo("Loud 1.0");
    assertThat(day.path("contenders").findValuesAsText("id")).containsExactly("loud", "bright");
    api.job(base + "/combined-files", Map.of());
    assertThat(deployed("scripts/day.sks"))
        .isEqualTo(DAY.replace("ring bell", "ring bell thrice").replace("  sail", "  sail on"));
    JsonNode mend = api.get(base + "/mends").get(0);
    assertThat(mend.path("stale").asBoolean()).isFalse();
    assertThat(mend.path("ingredients").findValuesAsText("state")).containsOnly("SAME");
    JsonNode game = choose("data/scripts/day.sks", Map.of("take", List.of("")));
    assertThat(game.path("file").path("state").asText()).isEqualTo("NEEDS_YOU");
    assertThat(api.get(base + "/mends").get(0).path("reasons").toString())
        .contains("measured against another version");
  }

  private JsonNode wrinkle(String code) {
    for (JsonNode w : api.get(base).path("wrinkles"))
      if (w.path("code").asText().equals(code)) return w;
    return MissingNode.getInstance();
  }

  @Test
  void what_waits_for_the_user_is_a_wrinkle_until_it_is_settled() {
    assertThat(wrinkle("files-asked").isMissingNode()).isTrue();
    install("Bright", "1.1", Map.of("scripts/day.sks", DAY.replace("ring bell", "ring horn")));
    JsonNode asked = wrinkle("files-asked");
    assertThat(asked.path("title").asText()).isEqualTo("data/scripts/day.sks needs a decision");
    assertThat(asked.path("place").asText()).isEqualTo("COMBINE_FILES");
    String key = board("data/scripts/day.sks").path("places").get(0).path("key").asText();
    choose("data/scripts/day.sks", Map.of("place", key, "take", List.of("loud")));
    assertThat(wrinkle("files-asked").isMissingNode()).isTrue();
  }

  @Test
  void a_name_that_may_stand_once_is_told_when_two_files_in_play_have_it() throws IOException {
    assertThat(wrinkle("name-twice").isMissingNode()).isTrue();
    install("Again", "1.0", Map.of("scripts/more/day.sks", "routine day\n  rest\nend\n"));
    JsonNode twice = wrinkle("name-twice");
    assertThat(twice.path("title").asText()).isEqualTo("“day” stands more than once");
    assertThat(twice.path("reason").asText())
        .contains("scripts/**/*.sks")
        .contains("data/scripts/day.sks (Bright)")
        .contains("data/scripts/more/day.sks (Again)");
    install("Again", "1.1", Map.of("scripts/more/day.sks", "routine rest\n  rest\nend\n"));
    assertThat(wrinkle("name-twice").isMissingNode()).isTrue();
  }

  @Test
  void what_cannot_be_carried_over_is_listed_with_the_reason() {
    install("Bright", "1.1", Map.of("ui/lamp.png", "bright", "scripts/day.sks", DAY + "one\n"));
    install("Third", "1.0", Map.of("ui/lamp.png", "third"));
    JsonNode all = api.get(base + "/combined-files?carry=bright");
    assertThat(all.path("leftInAll").asInt()).isOne();
    JsonNode left = all.path("left").get(0);
    assertThat(left.path("path").asText()).isEqualTo("data/ui/lamp.png");
    assertThat(left.path("reason").asText()).contains("does not say how such files combine");
    assertThat(left.path("others").get(0).asText()).isEqualTo("Third");
    assertThat(api.get(base + "/combined-files").path("leftInAll").asInt()).isZero();
  }

  private static final String VERSIONED =
      GAME.replace("mounts:", "version: { file: \"fleet.json\", pointer: \"/version\" }\nmounts:");

  private static String lines(int changed, String to) {
    StringBuilder out = new StringBuilder();
    for (int i = 1; i <= 9; i++) out.append(i == changed ? to : "line " + i).append('\n');
    return out.toString();
  }

  /** Two mods made on version 1.0 of a game that is at 1.1 now; they change other lines than it. */
  private void twoOfBefore(boolean deployed) throws IOException {
    game = temp.resolve("versioned");
    Trees.write(game.resolve("game.yaml"), VERSIONED);
    Trees.write(game.resolve("fleet.json"), "{ \"version\": \"1.0\" }");
    Trees.write(game.resolve("data/scripts/way.sks"), lines(0, ""));
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    mods.clear();
    install("Early", "1.0", Map.of("scripts/way.sks", lines(1, "early")));
    install("Late", "1.0", Map.of("scripts/way.sks", lines(9, "late")));
    if (deployed) api.job(base + "/deploy", null);
    for (Map.Entry<String, String> f :
        Map.of(
                "fleet.json",
                "{ \"version\": \"1.1\" }",
                "data/scripts/way.sks",
                lines(5, "updated"))
            .entrySet()) {
      Files.delete(game.resolve(f.getKey()));
      Trees.write(game.resolve(f.getKey()), f.getValue());
    }
    api.job(base + "/game-version", null);
  }

  @Test
  void what_an_update_changed_is_one_more_change_beside_those_of_mods_made_before_it()
      throws IOException {
    twoOfBefore(true);
    String path = "data/scripts/way.sks";
    JsonNode file = candidate(path);
    assertThat(file.path("beforeUpdate").asBoolean()).isTrue();
    assertThat(file.path("base").path("name").asText()).isEqualTo("Small Fleet 1.0");
    assertThat(file.path("contenders").findValuesAsText("name"))
        .containsExactly("Small Fleet 1.1", "Early", "Late");
    assertThat(file.path("state").asText()).isEqualTo("COMBINES");
    api.job(base + "/combined-files", Map.of("paths", List.of(path)));
    String wanted = lines(1, "early").replace("line 5", "updated").replace("line 9", "late");
    assertThat(deployed("scripts/way.sks")).isEqualTo(wanted);
    // against the game as it is now all else would be what the mods changed: it can be wanted
    JsonNode chosen = choose(path, Map.of("take", List.of("")));
    assertThat(chosen.path("shown").asText()).contains("line 5").doesNotContain("updated");
    JsonNode again = choose(path, Map.of("take", List.of("@1.0")));
    assertThat(again.path("shown").asText()).isEqualTo(wanted);
  }

  @Test
  void where_no_file_of_before_is_kept_what_all_have_alike_is_asked() throws IOException {
    twoOfBefore(false);
    String path = "data/scripts/way.sks";
    JsonNode file = candidate(path);
    assertThat(file.path("beforeUpdate").asBoolean()).isFalse();
    assertThat(file.path("state").asText()).isEqualTo("NEEDS_YOU");
    JsonNode asked = null;
    for (JsonNode p : board(path).path("places"))
      if (p.path("how").asText().equals("ASKED")) asked = p;
    assertThat(asked).isNotNull();
    assertThat(asked.path("base").asText()).isEqualTo("updated\n");
    JsonNode kept = choose(path, Map.of("place", asked.path("key").asText(), "take", List.of()));
    assertThat(kept.path("file").path("state").asText()).isEqualTo("COMBINES");
    assertThat(kept.path("shown").asText())
        .isEqualTo(lines(1, "early").replace("line 5", "updated").replace("line 9", "late"));
  }

  /**
   * Of several packs of the game that have a file, the base is what the game reads without mods.
   */
  @Test
  void the_base_is_what_the_unmodded_game_reads_of_its_packs() throws IOException {
    game = temp.resolve("packed");
    Trees.write(
        game.resolve("game.yaml"),
        GAME.replace(
            "\"tables/\" ] }\n",
            "\"tables/\", \"*.box\" ] }\npacks: { match: \"*.box\", mount: data }\n"));
    Files.createDirectories(game.resolve("data"));
    String path = "data/scripts/way.sks";
    Files.write(
        game.resolve("data/a.box"), Archives.zip(Map.of("scripts/way.sks", lines(5, "of a"))));
    Files.write(
        game.resolve("data/b.box"), Archives.zip(Map.of("scripts/way.sks", lines(5, "of b"))));
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    assertThat(api.get(base + "/overlaps").path("total").asInt())
        .as("only the game has it")
        .isZero();
    mods.clear();
    String read = lines(5, "of b");
    install("Early", "1.0", Map.of("scripts/way.sks", read.replace("line 1", "early")));
    install("Late", "1.0", Map.of("scripts/way.sks", read.replace("of b", "of a")));
    JsonNode file = candidate(path);
    assertThat(file.path("bases").findValuesAsText("id")).containsExactly("", "early", "late");
    assertThat(file.path("contenders").findValuesAsText("name")).containsExactly("Early", "Late");
    api.job(base + "/combined-files", Map.of("paths", List.of(path)));
    assertThat(deployed("scripts/way.sks")).isEqualTo(lines(5, "of a").replace("line 1", "early"));
  }

  /** Its lines reach the game in the combined file: to switch it off would make that stale. */
  @Test
  void a_mod_whose_files_went_into_a_combined_one_contributes() {
    api.job(
        base + "/combined-files",
        Map.of("paths", List.of("data/scripts/day.sks", "data/ui/bridge.json")));
    JsonNode loud = MissingNode.getInstance();
    for (JsonNode l : api.get(base + "/layers").path("layers"))
      if (l.path("name").asText().equals("Loud")) loud = l;
    assertThat(loud.at("/bar/contributing").asInt()).isEqualTo(2);
    assertThat(loud.at("/bar/covered").asInt()).isEqualTo(1);
    assertThat(api.get(base + "/wrinkles").path("open").findValuesAsText("code"))
        .doesNotContain("adds-nothing");
  }

  @Test
  void a_name_that_the_game_itself_repeats_is_no_wrinkle_until_a_mod_brings_one_more()
      throws IOException {
    game = temp.resolve("repeating");
    Trees.write(game.resolve("game.yaml"), GAME);
    Trees.write(game.resolve("data/scripts/a.sks"), "routine same\n  one\nend\n");
    Trees.write(game.resolve("data/scripts/b.sks"), "routine same\n  two\nend\n");
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    mods.clear();
    install("Other", "1.0", Map.of("scripts/a.sks", "routine same\n  another\nend\n"));
    assertThat(codes()).doesNotContain("name-twice");
    install("More", "1.0", Map.of("scripts/c.sks", "routine same\n  three\nend\n"));
    assertThat(codes()).containsOnlyOnce("name-twice");
  }

  private List<String> codes() {
    return api.get(base + "/wrinkles").path("open").findValuesAsText("code");
  }

  @Test
  void what_needs_a_word_first_is_not_combined() {
    Map<String, Object> wish = Map.of("paths", List.of("data/ui/bridge.json"));
    install("Third", "1.0", Map.of("ui/bridge.json", "{\"title\":\"Third bridge\"}"));
    assertThat(api.refusal("POST", base + "/combined-files", wish)).isEqualTo("nothing-to-combine");
  }

  @Test
  void a_combined_file_that_the_library_lost_too_cannot_be_put_back() throws IOException {
    api.job(base + "/combined-files", Map.of("paths", List.of("data/scripts/day.sks")));
    api.job(base + "/deploy", null);
    // written through the link: the library’s copy is the same file
    Files.writeString(game.resolve("data/scripts/day.sks"), "lost\n");
    Map<String, Object> wish =
        Map.of("cause", "THROUGH_LINK", "paths", List.of("data/scripts/day.sks"));
    assertThat(api.refusal("POST", base + "/drift/put-back", wish)).isEqualTo("library-damaged");
  }

  @Test
  void mods_of_two_versions_whose_places_the_game_has_changed_ask_for_a_base() throws IOException {
    twoOfBefore(true);
    // made on 1.1, and changes the line that 1.2 changes
    String card = "game: { id: with-scripts, versions: \"1.1\" }\n";
    install("Third", "1.0", card, Map.of("scripts/way.sks", lines(5, "third")));
    api.job(base + "/deploy", null);
    for (Map.Entry<String, String> f :
        Map.of(
                "fleet.json",
                "{ \"version\": \"1.2\" }",
                "data/scripts/way.sks",
                lines(5, "updated again"))
            .entrySet()) {
      Files.delete(game.resolve(f.getKey()));
      Trees.write(game.resolve(f.getKey()), f.getValue());
    }
    api.job(base + "/game-version", null);
    JsonNode board = board("data/scripts/way.sks");
    assertThat(board.at("/file/state").asText()).isEqualTo("IMPOSSIBLE");
    assertThat(board.path("remarks").toString())
        .contains("made on version 1.1 of the game, another’s on 1.0");
  }

  @Test
  void one_answer_settles_all_that_is_asked_below_a_folder() {
    install("Red", "1.0", Map.of("ui/bridge.json", "{\"title\":\"Red bridge\",\"bell\":3}"));
    String path = "data/ui/bridge.json";
    assertThat(candidate(path).path("asked").asInt()).isEqualTo(2);
    Map<String, Object> sweep = Map.of("take", "red", "below", "data/ui");
    JsonNode would = api.change("POST", base + "/combined-files/settle?dryRun=true", sweep);
    assertThat(would.path("places").asInt()).isEqualTo(2);
    assertThat(candidate(path).path("asked").asInt()).as("nothing is done yet").isEqualTo(2);
    JsonNode added =
        api.change(
            "POST",
            base + "/combined-files/settle?dryRun=true",
            Map.of("take", "red", "path", path, "kinds", List.of("ADDED")));
    assertThat(added.path("places").asInt()).as("bell is new in both").isEqualTo(1);
    assertThat(added.path("left").asInt()).isEqualTo(1);
    api.change("POST", base + "/combined-files/settle", sweep);
    assertThat(candidate(path).path("asked").asInt()).isZero();
    assertThat(board(path).path("shown").asText()).contains("Red bridge").contains("3");
    api.send("POST", base + "/undo", null, Map.of());
    assertThat(candidate(path).path("asked").asInt()).as("it is one step").isEqualTo(2);
    assertThat(api.refusal("POST", base + "/combined-files/settle", Map.of("take", "nobody")))
        .isEqualTo("not-a-side");
  }
}
