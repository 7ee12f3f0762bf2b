package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.OfferedMods;
import ironing.server.testkit.Patience;
import ironing.server.testkit.SharedServer;
import ironing.standins.catalogue.CatalogueFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** What is newer, whether it is worth it, what findings say, and how mods stand with the game. */
@ExtendWith(SharedServer.class)
class UpdatesIT {
  @TempDir Path temp;
  private Api api;
  private Path game;
  private long workspace;
  private String base;
  private CatalogueFolder catalogue;
  private OfferedMods mods;
  private long sequence;

  @BeforeEach
  void world(Api api) throws IOException {
    this.api = api;
    game = Games.plain(temp.resolve("game"));
    Trees.write(
        game.resolve("game.yaml"),
        Games.PLAIN + "version: { file: \"tides.json\", pointer: \"/version\" }\n");
    Trees.write(game.resolve("tides.json"), "{ \"version\": \"1.4\" }");
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    Path folder = Files.createDirectories(temp.resolve("catalogue"));
    catalogue = new CatalogueFolder(folder, "board", "Harbour Board", "plain");
    mods = new OfferedMods(catalogue);
    sequence = 0;
  }

  private void offer() throws IOException {
    catalogue.write(++sequence);
    if (sequence == 1) {
      String folder = temp.resolve("catalogue").toString();
      api.job(base + "/catalogues", Map.of("address", folder)).result();
      return;
    }
    long id = api.get(base + "/catalogues").get(0).path("id").asLong();
    api.job(base + "/catalogues/" + id + "/look", null);
  }

  private long install(String mod, String version, String... needs) {
    return install(OfferedMods.archive(mod, version, needs), mod + ".zip");
  }

  private long install(byte[] archive, String name) {
    return api.install(workspace, name, archive).result();
  }

  private JsonNode update(String name) {
    for (JsonNode u : api.get(base + "/updates"))
      if (u.path("name").asText().equals(name)) return u;
    throw new AssertionError(name + " is not told of");
  }

  private static Map<String, Object> choice(String mod, String release) {
    return Map.of("wishes", List.of(Map.of("mod", mod, "release", release)));
  }

  @Test
  void what_is_newer_is_told_with_all_that_changed_since() throws IOException {
    install("fog", "1.0");
    install("rope", "1.0");
    mods.release("fog", "1.0")
        .release("fog", "1.1", Map.of("change", "fix", "changes", "*mended*"))
        .release("fog", "2.0", Map.of("change", "feature", "changes", "new", "game", ">=1.5"))
        .release("fog", "3.0", Map.of("withdrawn", "it sinks"))
        .release("fog", "4.0", Map.of("kind", "old"))
        .release("fog", "5.0", Map.of("variant", "thick"));
    offer();
    JsonNode fog = update("Fog");
    assertThat(fog.path("how").asText()).isEqualTo("CARD");
    assertThat(fog.path("offered").asBoolean()).isTrue();
    assertThat(fog.path("newest").path("version").asText()).isEqualTo("2.0");
    assertThat(fog.path("newest").path("coversGame").asBoolean()).isFalse();
    assertThat(fog.path("since").findValuesAsText("version")).containsExactly("2.0", "1.1");
    assertThat(fog.path("change").asText()).isEqualTo("FEATURE");
    assertThat(fog.path("otherVariants").get(0).asText()).isEqualTo("thick");
    JsonNode rope = update("Rope");
    assertThat(rope.path("how").asText()).isEqualTo("NONE");
    assertThat(rope.has("newest")).isFalse();
  }

  @Test
  void an_update_is_left_until_there_is_a_newer_one_or_for_good() throws IOException {
    long fog = install("fog", "1.0");
    mods.release("fog", "1.1");
    offer();
    String left = base + "/updates/" + fog + "/left";
    put(left, Map.of("kind", "VERSION", "reason", "it breaks my fog"));
    assertThat(update("Fog").path("offered").asBoolean()).isFalse();
    assertThat(update("Fog").path("left").path("reason").asText()).isEqualTo("it breaks my fog");
    mods.release("fog", "1.2");
    offer();
    assertThat(update("Fog").path("offered").asBoolean()).isTrue();
    put(left, Map.of("kind", "MOD", "reason", ""));
    mods.release("fog", "1.3");
    offer();
    assertThat(update("Fog").path("offered").asBoolean()).isFalse();
    put(left, Map.of("kind", "VARIANT", "reason", "mine is the thin one"));
    assertThat(update("Fog").path("offered").asBoolean()).isFalse();
    api.send("DELETE", left, null, Map.of());
    assertThat(update("Fog").path("offered").asBoolean()).isTrue();
    assertThat(api.refusal("PUT", left, Map.of("kind", "MOD", "reason", "x".repeat(401))))
        .isEqualTo("bad-reason");
    long rope = install("rope", "1.0");
    String none = base + "/updates/" + rope + "/left";
    assertThat(api.refusal("PUT", none, Map.of("kind", "MOD", "reason", "")))
        .isEqualTo("update-none");
  }

  private void put(String address, Object body) {
    assertThat(api.send("PUT", address, body, Map.of()).status()).isEqualTo(204);
  }

  @Test
  void a_mod_is_known_by_its_card_its_archive_or_the_users_word() throws IOException {
    byte[] bare = Games.mod(Map.of("bare.txt", "no card\n"));
    long mod = install(bare, "something-2.zip");
    catalogue.mod(
        Map.of(
            "mod", "bare-boards",
            "name", "Bare Boards",
            "game", "plain",
            "releases",
                List.of(
                    Map.of("version", "7.1", "file", catalogue.file("bare.zip", bare)),
                    Map.of(
                        "version",
                        "7.2",
                        "file",
                        catalogue.file("b2.zip", OfferedMods.archive("bare-boards", "7.2"))))));
    mods.release("fog", "9.0");
    offer();
    JsonNode told = api.get(base + "/updates").get(0);
    assertThat(told.path("how").asText()).isEqualTo("ARCHIVE");
    assertThat(told.path("catalogueMod").asText()).isEqualTo("bare-boards");
    assertThat(told.path("version").asText()).as("the catalogue knows it").isEqualTo("7.1");
    assertThat(told.path("newest").path("version").asText()).isEqualTo("7.2");
    String identity = base + "/updates/" + mod + "/identity";
    put(identity, Map.of("catalogueMod", "fog"));
    told = api.get(base + "/updates").get(0);
    assertThat(told.path("how").asText()).isEqualTo("SAID");
    assertThat(told.path("newest").path("version").asText()).isEqualTo("9.0");
    put(identity, Map.of("catalogueMod", ""));
    assertThat(api.get(base + "/updates").get(0).has("newest")).isFalse();
    assertThat(api.get(base + "/updates").get(0).path("how").asText()).isEqualTo("SAID_NONE");
    long fog = install("fog", "1.0");
    put(base + "/updates/" + fog + "/identity", Map.of("catalogueMod", ""));
    assertThat(update("Fog").has("newest")).as("its card says another thing").isFalse();
    api.send("DELETE", identity, null, Map.of());
    assertThat(api.get(base + "/updates").get(0).path("how").asText()).isEqualTo("ARCHIVE");
    assertThat(api.refusal("PUT", identity, Map.of("catalogueMod", "No id!")))
        .isEqualTo("identity-invalid");
    JsonNode brought =
        api.send(
                "POST",
                base + "/choice",
                Map.of("wishes", List.of(Map.of("mod", "bare-boards"))),
                Map.of())
            .body();
    assertThat(brought.path("members").get(0).path("becomes").asText()).isEqualTo("CHANGED");
    assertThat(brought.path("members").get(0).path("from").asText()).isEqualTo("7.1");
  }

  @Test
  void an_update_is_judged_before_it_is_taken_and_the_profile_stays_as_it_is() throws IOException {
    install("fog", "1.0");
    install(
        Games.mod(
            Map.of(
                "mod-card.yaml",
                "format: ironing/mod@1\nid: rope\nname: Rope\nversion: \"1\"\n",
                "rope.txt",
                "of rope\n",
                "fog.txt",
                "rope's fog\n")),
        "rope.zip");
    mods.release("fog", "1.0");
    byte[] two =
        Games.mod(
            Map.of(
                "mod-card.yaml",
                "format: ironing/mod@1\nid: fog\nname: Fog\nversion: \"2.0\"\n"
                    + "needs:\n  - { mod: gone, versions: \"*\" }\n",
                "rope.txt",
                "fog's rope\n",
                "new.txt",
                "new\n"));
    mods.release("fog", "2.0", Map.of("file", catalogue.file("fog2.zip", two)));
    offer();
    String release = update("Fog").path("newest").path("release").asText();
    Map<String, Object> wish = choice("fog", release);
    assertThat(api.refusal("POST", base + "/choice/ahead", wish)).isEqualTo("choice-not-fetched");
    JsonNode before = api.get(base + "/layers").path("layers");
    api.job(base + "/choice/get", Map.of("choice", wish, "fetchOnly", true)).result();
    assertThat(api.get(base + "/layers").path("layers")).isEqualTo(before);
    // its card says more than the line: what it needs is nowhere
    assertThat(api.refusal("POST", base + "/choice/ahead", wish)).isEqualTo("choice-impossible");
    JsonNode none = api.send("POST", base + "/choice", wish, Map.of()).body();
    Map<String, Object> all =
        Map.of("wishes", wish.get("wishes"), "givenUp", none.path("waysOut").get(1));
    JsonNode ahead = api.send("POST", base + "/choice/ahead", all, Map.of()).body();
    assertThat(ahead.path("filesNew").asInt()).isEqualTo(1);
    assertThat(ahead.path("filesGone").asInt()).isZero();
    assertThat(
            List.of(
                ahead.path("meetings").get(0).path("come").asInt(),
                ahead.path("meetings").get(0).path("gone").asInt()))
        .as("they meet at fog.txt now, and would at rope.txt")
        .containsExactly(1, 1);
    assertThat(ahead.path("wrinklesNew").findValuesAsText("code")).containsExactly("need-unmet");
    assertThat(api.get(base + "/layers").path("layers").toString()).contains("\"1.0\"");
    api.job(base + "/choice/get", Map.of("choice", all)).result();
    assertThat(api.get(base + "/wrinkles").findValuesAsText("code")).contains("need-unmet");
    api.change("POST", base + "/undo", null);
    assertThat(api.get(base + "/layers").path("layers").findValuesAsText("version"))
        .as("one step back")
        .isEqualTo(before.findValuesAsText("version"));
  }

  @Test
  void bridges_are_called_for_have_lost_a_side_or_wait() throws IOException {
    install("fog", "1.0");
    long rope = install("rope", "1.0");
    Map<String, Object> between =
        Map.of("for", List.of(Map.of("mod", "fog"), Map.of("mod", "rope", "versions", ">=1")));
    mods.release("fog-and-rope", "1.0", between);
    mods.release("fog-and-gulls", "1.0", Map.of("for", List.of(Map.of("mod", "gulls"))));
    byte[] own =
        Games.mod(
            Map.of(
                "mod-card.yaml",
                "format: ironing/mod@1\nid: own-bridge\nname: Own\nversion: \"1\"\n"
                    + "for:\n  - { mod: rope, versions: \"*\" }\n",
                "own.txt",
                "x\n"));
    long bridge = install(own, "own.zip");
    offer();
    JsonNode told = api.get(base + "/bridges");
    assertThat(states(told)).containsExactly("CALLED_FOR fog-and-rope");
    assertThat(told.get(0).path("sides").findValuesAsText("met")).containsOnly("true");
    switchOff(rope);
    assertThat(states(api.get(base + "/bridges"))).containsExactly("LOST_SIDE own-bridge");
    switchOff(bridge);
    assertThat(states(api.get(base + "/bridges"))).containsExactly("WAITING own-bridge");
  }

  private void switchOff(long mod) {
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(mod), "on", false));
  }

  private static List<String> states(JsonNode bridges) {
    List<String> out = new ArrayList<>();
    bridges.forEach(b -> out.add(b.path("state").asText() + " " + b.path("mod").asText()));
    return out;
  }

  private static String finding(String mod, String verdict, String by) {
    return "{\"mod\":\"%s\",\"verdict\":\"%s\",\"at\":\"2026-11-29\",\"by\":\"%s\"}"
        .formatted(mod, verdict, by);
  }

  @Test
  void findings_are_written_brought_in_and_taken_from_a_catalogue() throws IOException {
    long fog = install("fog", "1.0");
    mods.release("fog", "1.0");
    catalogue.findings(
        List.of(
            finding("fog", "broken", "Ask"),
            "no finding",
            finding("fog", "works", "Ask"),
            finding("elsewhere", "works", "Ask")));
    offer();
    JsonNode known = api.get(base + "/catalogues").get(0);
    assertThat(known.path("findings").asInt()).isEqualTo(3);
    assertThat(known.path("mistakes").get(0).path("line").asInt()).isEqualTo(2);
    Map<String, Object> own =
        Map.of("mod", "fog", "verdict", "WORKS_WITH_CARE", "says", "Mind the reef.");
    assertThat(api.send("POST", base + "/findings", own, Map.of()).status()).isEqualTo(204);
    JsonNode all = api.get(base + "/findings");
    assertThat(all.findValuesAsText("verdict"))
        .as("of Ask's two the later counts")
        .containsExactly("WORKS_WITH_CARE", "WORKS");
    assertThat(all.findValuesAsText("own")).containsExactly("true", "false");
    switchOff(fog);
    assertThat(api.get(base + "/findings?mod=fog").findValuesAsText("verdict"))
        .as("of a mod that is off too")
        .containsExactly("WORKS_WITH_CARE", "WORKS");
    assertThat(api.get(base + "/findings")).as("of all that are on, and one's own").hasSize(1);
    api.change("POST", base + "/undo", null);
    String text = api.ask("GET", base + "/findings/text", null, Map.of()).raw().body();
    assertThat(text).contains("\"says\":\"Mind the reef.\"").doesNotContain("Ask");
    String many = finding("fog", "broken", "Tove") + "\n" + finding("fog", "broken", "Una");
    assertThat(
            api.send("POST", base + "/findings/text", Map.of("text", many), Map.of())
                .body()
                .path("count")
                .asInt())
        .isEqualTo(2);
    String amiss = many + "\n{\"mod\":\"fog\"}";
    assertThat(api.refusal("POST", base + "/findings/text", Map.of("text", amiss)))
        .isEqualTo("finding-invalid");
    assertThat(api.get(base + "/findings?mod=fog")).as("all or none").hasSize(4);
    api.send("DELETE", base + "/findings", null, Map.of());
    assertThat(api.get(base + "/findings?mod=fog")).hasSize(2);
    long id = api.get(base + "/findings").get(0).path("id").asLong();
    api.send("DELETE", base + "/findings/" + id, null, Map.of());
    assertThat(api.refusal("DELETE", base + "/findings/" + id, null)).isEqualTo("not-found");
    Map<String, Object> odd =
        Map.of(
            "mod",
            "fog",
            "verdict",
            "WORKS",
            "says",
            "",
            "with",
            List.of(Map.of("mod", "A b", "versions", "*")));
    assertThat(api.refusal("POST", base + "/findings", odd)).isEqualTo("finding-invalid");
    catalogue.findings(List.of(finding("fog", "broken", "Ask")));
    offer();
    assertThat(api.get(base + "/findings").findValuesAsText("verdict")).containsExactly("BROKEN");
  }

  @Test
  void a_game_update_leaves_those_waiting_that_nothing_covers() throws IOException {
    long fog = install(card("fog", "<1.5"), "fog.zip");
    long rope = install(card("rope", "<1.5"), "rope.zip");
    install(card("gulls", "*"), "gulls.zip");
    install(card("tide", "<1.5"), "tide.zip");
    mods.release("fog", "1.0", Map.of("game", "<1.5"))
        .release("fog", "1.1", Map.of("game", ">=1.5"))
        .release("tide", "1.0", Map.of("game", ">=1.4"))
        .release("rope", "1.0");
    offer();
    assertThat(states()).containsOnly("WORKS");
    Trees.write(game.resolve("tides.json"), "{ \"version\": \"1.5\" }");
    api.job(base + "/game-version", null);
    assertThat(states())
        .as("the catalogue says by now that the tide is for 1.5")
        .containsExactly("WAITING", "WAITING", "WORKS", "WORKS");
    JsonNode all = api.get(base + "/game-version/mods");
    assertThat(all.has("since")).isTrue();
    assertThat(all.path("mods").get(0).path("comes").asText()).isEqualTo("1.1");
    assertThat(all.path("mods").get(1).has("comes")).isFalse();
    String words = base + "/game-version/mods/";
    put(words + rope, Map.of("essential", true, "said", "WORKS", "waitsFor", ""));
    put(words + fog, Map.of("essential", true, "said", "BROKEN", "waitsFor", "after the ferry"));
    assertThat(states()).containsExactly("SAID_BROKEN", "SAID_WORKS", "WORKS", "WORKS");
    assertThat(api.get(base + "/game-version/mods").path("mods").get(0).path("waitsFor").asText())
        .isEqualTo("after the ferry");
    Map<String, Object> broken = Map.of("mod", "gulls", "verdict", "BROKEN", "says", "They sing.");
    api.send("POST", base + "/findings", broken, Map.of());
    assertThat(states().get(2)).isEqualTo("BROKEN");
    Trees.write(game.resolve("tides.json"), "{ \"version\": \"1.6\" }");
    api.job(base + "/game-version", null);
    assertThat(states())
        .as("what was said of 1.5 says nothing of 1.6")
        .containsExactly("WAITING", "WAITING", "BROKEN", "WORKS");
    assertThat(
            api.refusal(
                "PUT",
                words + fog,
                Map.of("essential", true, "said", "NOTHING", "waitsFor", "x".repeat(401))))
        .isEqualTo("bad-reason");
  }

  @Test
  void what_an_archive_lacks_is_told_before_it_is_installed() {
    long rope = install("rope", "1.0");
    switchOff(rope);
    byte[] fog = OfferedMods.archive("fog", "1.0", "rope", "gulls >=2");
    long archive = api.bringIn(workspace, "fog.zip", fog);
    JsonNode intake =
        api.send("POST", base + "/archives/" + archive + "/intake", Map.of(), Map.of()).body();
    assertThat(intake.path("needs").findValuesAsText("state")).containsExactly("OFF", "MISSING");
    assertThat(intake.path("gameVersions").asText()).isEqualTo("*");
    Patience.until(() -> api.get(base + "/inbox").path("waiting").get(0).has("look"));
    assertThat(lacks()).containsExactly("rope", "gulls");
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(rope), "on", true));
    assertThat(lacks()).containsExactly("gulls");
  }

  private List<String> lacks() {
    return api.get(base + "/inbox")
        .path("waiting")
        .get(0)
        .path("look")
        .path("lacks")
        .findValuesAsText("mod");
  }

  @Test
  void a_game_that_is_not_ready_is_told_before_any_mod() throws IOException {
    Path folder = Games.withPlugins(temp.resolve("unready"));
    Trees.write(
        folder.resolve("game.yaml"),
        Games.WITH_PLUGINS
            + "ready: [ { plugins: true }, { firstRun: settings/own.ini, says: never started } ]\n");
    long unready = api.workspace(folder);
    JsonNode first = api.get("/api/workspaces/" + unready + "/wrinkles").path("open").get(0);
    assertThat(first.path("code").asText()).isEqualTo("game-not-ready");
    assertThat(first.path("title").asText())
        .isEqualTo("The game itself is not ready: never started");
    assertThat(first.path("reason").asText())
        .startsWith("Expected: settings/own.ini is there")
        .endsWith("Found: it is not.");
    Trees.write(folder.resolve("settings/own.ini"), "");
    assertThat(api.get("/api/workspaces/" + unready + "/wrinkles").findValuesAsText("code"))
        .doesNotContain("game-not-ready");
    Files.delete(folder.resolve("data/Base.plug"));
    assertThat(api.get("/api/workspaces/" + unready + "/wrinkles").findValuesAsText("reason"))
        .as("it was there when the game was taken in")
        .contains("Expected: the game’s own plugins are all there. Found: Base.plug is not.");
  }

  private List<String> states() {
    return api.get(base + "/game-version/mods").path("mods").findValuesAsText("state");
  }

  private static byte[] card(String mod, String range) {
    String card =
        "format: ironing/mod@1\nid: %s\nname: %s\nversion: \"1.0\"\ngame: { id: plain, versions: \"%s\" }\n"
            .formatted(mod, OfferedMods.nameOf(mod), range);
    return Games.mod(Map.of("mod-card.yaml", card, mod + ".txt", mod + "\n"));
  }
}
