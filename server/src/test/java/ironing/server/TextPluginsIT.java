package ironing.server;

import static ironing.core.testkit.Trees.write;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.demo.TextGamesLoader;
import ironing.server.testkit.Api;
import ironing.server.testkit.DemoWorld;
import ironing.server.testkit.Patience;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Games whose plugins are folders of open text, over HTTP. */
@ExtendWith(SharedServer.class)
class TextPluginsIT {
  @TempDir Path temp;
  private Api api;
  private String base;
  private DemoWorld world;

  @BeforeEach
  void take(Api api) {
    this.api = api;
  }

  private void bringIn(String game) {
    world = DemoWorld.ofText(temp.resolve(game), game);
    List<String> order = new ArrayList<>(TextGamesLoader.GAMES.get(game));
    order.remove("distant-carillon-0.2.zip");
    order.remove("lighter-marl-1.0.zip");
    base = "/api/workspaces/" + world.bringIn(api, order);
  }

  private JsonNode play() {
    long run = api.send("POST", base + "/runs", Map.of(), Map.of()).body().path("run").asLong();
    Patience.until(() -> !api.get(base + "/runs/" + run).path("state").asText().equals("RUNNING"));
    return api.get(base + "/runs/" + run);
  }

  private void deploy() {
    assertThat(api.job(base + "/deploy", Map.of()).body().path("state").asText()).isEqualTo("DONE");
  }

  private List<String> names() {
    return api.get(base + "/load-order").path("plugins").findValuesAsText("name").stream()
        .filter(n -> !n.equals("base") && !n.equals("street"))
        .distinct()
        .toList();
  }

  private static String value(JsonNode run, String name) {
    for (String line : run.path("output").asText().split("\n")) {
      if (!line.contains("\"report\"")) continue;
      try {
        JsonNode said = Api.JSON.readTree(line);
        if (said.path("name").asText().equals(name)) return said.path("value").asText();
      } catch (IOException e) {
        throw new IllegalStateException(e);
      }
    }
    return "";
  }

  @Test
  void the_whole_way_and_back() throws IOException {
    bringIn("bells");
    Map<String, String> before = Trees.of(world.game());
    JsonNode records = api.get(base + "/records");
    assertThat(records.path("records").asInt()).isEqualTo(18);
    assertThat(records.path("states").path("needYou").asInt()).isEqualTo(1);
    JsonNode board = api.get(base + "/records/alloy/=78=22");
    assertThat(board.path("label").asText()).isEqualTo("78 / 22");
    Map<String, Object> decision =
        Map.of("place", "price", "decision", Map.of("take", "cheap-tin"));
    api.change("PUT", base + "/records/alloy/=78=22/decisions", decision);
    assertThat(api.get(base + "/records").path("states").path("needYou").asInt()).isZero();

    api.job(base + "/mends/patch", null).result();
    JsonNode mend = api.get(base + "/mends").get(0);
    assertThat(mend.path("plugin").asText()).isEqualTo("Everyday-patch");
    assertThat(mend.path("stale").asBoolean()).isFalse();
    assertThat(names()).last().isEqualTo("Everyday-patch");
    deploy();
    Path patch = world.game().resolve("bells/Everyday-patch");
    assertThat(patch.resolve("foundry.json")).content().contains("\"id\" : \"heavier-tenors\"");
    assertThat(patch.resolve("alloys.csv"))
        .content()
        .isEqualTo("copper,tin,price,tone\n78,22,2.6,warm\n");
    assertThat(world.game().resolve("enabled.json"))
        .content()
        .contains("{\"id\":\"Everyday-patch\",\"on\":true}]")
        .startsWith("{\n  \"volume\": 7,\n  \"order\": [{\"id\":")
        .endsWith("],\n  \"seen\": [ \"welcome\" ]\n}\n");

    JsonNode run = play();
    assertThat(run.path("state").asText()).isEqualTo("PLAYED");
    assertThat(value(run, "Marl the Elder, weight")).isEqualTo("2950.0");
    assertThat(value(run, "alloy 78/22, price")).isEqualTo("2.6");
    for (JsonNode p : api.get(base + "/load-order").path("plugins"))
      assertThat(p.path("journey").path("reached").asText())
          .as(p.path("name").asText())
          .isEqualTo("READ");
    assertThat(api.get(base + "/drift").path("inAll").asInt()).isZero();

    assertThat(api.job(base + "/deploy/undeploy", null).body().path("state").asText())
        .isEqualTo("DONE");
    Map<String, String> after = Trees.of(world.game());
    after.keySet().removeIf(p -> p.startsWith("logs"));
    Map<String, String> expected = new TreeMap<>(before);
    // the game counts in it how often it was started
    after.remove("tower.json");
    expected.remove("tower.json");
    assertThat(after).isEqualTo(expected);
  }

  @Test
  void a_patch_tells_what_would_change_in_it_and_is_stale_once_a_file_of_a_plugin_is_another()
      throws IOException {
    bringIn("bells");
    api.job(base + "/mends/patch", null).result();
    long patch = api.get(base + "/mends").get(0).path("mod").asLong();
    byte[] heavier =
        Archives.zip(
            Map.of(
                "mod-card.yaml",
                    "format: ironing/mod@1\nid: heavier-tenors\nname: Heavier Tenors\nversion: \"1.2\"\n",
                "heavier-tenors/foundry.json",
                    "{\"id\":\"heavier-tenors\",\"needs\":[{\"id\":\"base\"}]}",
                "heavier-tenors/casts/heavy.json",
                    "{\"casts\":[{\"id\":\"great\",\"name\":\"Old Marl\",\"note\":\"c\",\"weight\":3001,"
                        + "\"alloy\":\"78/22\",\"tones\":[\"hum\",\"prime\",\"tierce\"]}]}"));
    long mod = modOf("Heavier Tenors");
    api.update(number(base), mod, "heavier-tenors-1.2.zip", heavier);
    JsonNode mend = api.get(base + "/mends").get(0);
    assertThat(mend.path("stale").asBoolean()).isTrue();
    assertThat(mend.path("reasons").toString()).contains("heavier-tenors has changed.");
    JsonNode difference = api.get(base + "/mends/" + patch + "/difference");
    assertThat(difference.path("inAll").asInt()).isEqualTo(1);
    assertThat(difference.path("records").get(0).path("key").asText()).isEqualTo("cast/=great");
    assertThat(difference.path("records").get(0).path("after").asText())
        .contains("\"weight\":3001");
  }

  @Test
  void what_the_game_has_no_word_for_is_not_decided_and_what_is_only_read_not_patched() {
    bringIn("bells");
    Map<String, Object> gone =
        Map.of("place", "(record)", "decision", Map.of("outcome", "REMOVED"));
    assertThat(api.refusal("PUT", base + "/records/rule/=morning/decisions", gone))
        .isEqualTo("choice-unknown");
    api.change("PUT", base + "/records/cast/=great/decisions", gone);
    api.job(base + "/mends/patch", null).result();
    deploy();
    assertThat(world.game().resolve("bells/Everyday-patch/casts/Everyday-patch.json"))
        .content()
        .contains("\"id\" : \"great\",\n      \"melted\" : true");
    assertThat(world.game().resolve("bells/Everyday-patch/words")).doesNotExist();
  }

  private static long number(String base) {
    return Long.parseLong(base.substring(base.lastIndexOf('/') + 1));
  }

  private long modOf(String name) {
    for (JsonNode m : api.get(base + "/library").path("mods"))
      if (m.path("name").asText().equals(name)) return m.path("mod").asLong(m.path("id").asLong());
    throw new AssertionError("no mod is called " + name);
  }

  @Test
  void a_list_that_somebody_edited_is_taken_over_or_put_back() throws IOException {
    bringIn("bells");
    deploy();
    Path list = world.game().resolve("enabled.json");
    String ours = Files.readString(list);
    String edited =
        ours.replace("{\"id\":\"true-names\",\"on\":true},", "")
            .replace(
                "\"order\": [",
                "\"order\": [{\"id\":\"true-names\",\"on\":false},{\"id\":\"nobody\",\"on\":true},7,")
            .replace("\"volume\": 7", "\"volume\": 11");
    Files.writeString(list, edited);
    JsonNode told = api.get(base + "/load-order/list-file");
    assertThat(told.path("state").asText()).isEqualTo("CHANGED");
    assertThat(told.path("unknown")).hasSize(1);
    assertThat(told.path("remarks").toString()).contains("Entry 3 is not of its form: 7.");
    assertThat(told.path("switches").get(0).path("name").asText()).isEqualTo("true-names");
    api.change("POST", base + "/load-order/list-file/take", Map.of());
    assertThat(names()).first().isEqualTo("true-names");
    assertThat(api.job(base + "/load-order/list-file/put-back", null).body().path("state").asText())
        .isEqualTo("DONE");
    assertThat(Files.readString(list))
        .startsWith("{\n  \"volume\": 7,\n  \"order\": [{\"id\":\"true-names\",\"on\":false},");
  }

  @Test
  void a_game_that_goes_by_numbers_gets_them_in_copies_and_what_is_off_stays_away()
      throws IOException {
    bringIn("lanterns");
    deploy();
    assertThat(rank("blue-hour")).isEqualTo(100);
    assertThat(rank("tall-posts")).isEqualTo(110);
    assertThat(rank("red-quay")).isEqualTo(120);
    assertThat(value(play(), "quay")).isEqualTo("red at 4");
    for (JsonNode p : api.get(base + "/load-order").path("plugins"))
      assertThat(p.path("journey").path("reached").asText()).isEqualTo("READ");
    assertThat(api.get(base + "/drift").path("inAll").asInt()).isZero();

    api.change("POST", base + "/load-order/move", Map.of("name", "red-quay", "to", 1));
    api.change(
        "POST", base + "/load-order/switch", Map.of("names", List.of("tall-posts"), "on", false));
    deploy();
    assertThat(rank("red-quay")).isEqualTo(100);
    assertThat(rank("blue-hour")).isEqualTo(110);
    assertThat(world.game().resolveSibling("user/shades/tall-posts")).doesNotExist();
    JsonNode run = play();
    assertThat(value(run, "quay")).isEqualTo("blue at 4");
    assertThat(value(run, "corner")).isEqualTo("amber at 4");
  }

  private int rank(String shade) throws IOException {
    return Api.JSON
        .readTree(
            world
                .game()
                .resolveSibling("user/shades")
                .resolve(shade)
                .resolve("shade.json")
                .toFile())
        .path("rank")
        .asInt();
  }

  @Test
  void what_is_past_a_limit_is_not_deployed_and_who_takes_most_is_said() {
    Path game = temp.resolve("limited");
    write(
        game.resolve("game.yaml"),
        """
        format: ironing/game@1
        id: limited
        title: Limited
        mounts: [ { id: all, at: add-ons, holds: [ "**" ] } ]
        limits:
          - { count: files, match: "add-ons/*.chime", max: 4, says: "The game does not start with more" }
        """);
    write(game.resolve("add-ons/own.chime"), "own");
    long workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    api.install(workspace, "Two 1.zip", Archives.zip(Map.of("a.chime", "1", "b.chime", "2")));
    assertThat(codes()).doesNotContain("limit-near");
    api.install(workspace, "One 1.zip", Archives.zip(Map.of("c.chime", "3")));
    assertThat(codes()).contains("limit-near");
    deploy();
    api.install(workspace, "Three 1.zip", Archives.zip(Map.of("d.chime", "4", "e.chime", "5")));
    assertThat(codes()).contains("limit-passed");
    JsonNode refused = api.ask("POST", base + "/deploy", Map.of(), Map.of()).body();
    assertThat(refused.path("code").asText()).isEqualTo("limit-passed");
    assertThat(refused.toString())
        .contains("6 files of “add-ons/*.chime” of 4 that the game can take")
        .contains("The game does not start with more")
        .contains("Two");
    assertThat(api.job(base + "/deploy/undeploy", null).body().path("state").asText())
        .as("taking out is never refused")
        .isEqualTo("DONE");
  }

  private List<String> codes() {
    return api.get(base + "/wrinkles").findValuesAsText("code");
  }

  @Test
  void a_plugin_of_text_is_shown_as_text_and_none_is_made_of_it() {
    bringIn("bells");
    String text = api.send("GET", base + "/plugins/true-names/text", null, Map.of()).raw().body();
    assertThat(text).contains("word/=tower").contains("Wren of the North Stair");
    Map<String, Object> body = Map.of("name", "x", "text", text);
    assertThat(api.refusal("POST", base + "/plugins/text", body)).isEqualTo("name-unfit");
  }
}
