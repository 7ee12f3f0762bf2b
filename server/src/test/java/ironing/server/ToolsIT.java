package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.Patience;
import ironing.server.testkit.SharedServer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Tools that work on the deployed game. Each is a small shell script beside the game. */
@ExtendWith(SharedServer.class)
class ToolsIT {
  @TempDir Path temp;
  private Api api;
  private Path game;
  private long workspace;
  private String base;

  @BeforeEach
  void deployed(Api api) {
    this.api = api;
    game = Games.plain(temp.resolve("game"));
    Trees.write(game.resolve("add-ons/tide.txt"), "the game's\n");
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    api.install(
        workspace, "Reefs 1.0.zip", Games.mod(Map.of("add-ons/reef.txt", "a reef of a mod\n")));
    api.job(base + "/deploy", null);
  }

  private Map<String, Object> wish(String script, List<String> writes) {
    Path file = temp.resolve("tool.sh");
    Trees.write(file, script);
    Map<String, Object> wish = new HashMap<>();
    wish.put("name", "Indexer");
    wish.put("command", List.of("sh", file.toString(), "{game}", "{output}"));
    wish.put("environment", Map.of("PLACE", "{game}/add-ons"));
    wish.put("reads", List.of("add-ons/*.txt"));
    wish.put("writes", writes);
    return wish;
  }

  private long add(String script, String... writes) {
    return api.send("POST", base + "/tools", wish(script, List.of(writes)), Map.of())
        .body()
        .path("tool")
        .asLong();
  }

  private JsonNode job(long tool) {
    return api.ask("POST", base + "/tools/" + tool + "/run", null, Map.of("Prefer", "wait=60"))
        .body();
  }

  private JsonNode run(long tool) {
    JsonNode job = job(tool);
    assertThat(job.path("state").asText()).as(job.toString()).isEqualTo("DONE");
    return api.get(base + "/tools/runs/" + job.path("result").asLong());
  }

  private JsonNode tool() {
    return api.get(base + "/tools").get(0);
  }

  private JsonNode drift() {
    return api.get(base + "/drift?thorough=true").path("groups");
  }

  @Test
  void what_a_tool_wrote_is_a_mod_that_is_deployed_and_goes_stale_with_what_it_read()
      throws Exception {
    long tool =
        add(
            "cd \"$PLACE\"; echo indexing; ls *.txt | grep -v index > index.txt",
            "add-ons/index.txt");
    JsonNode run = run(tool);
    assertThat(run.path("output").asText()).isEqualTo("indexing\n");
    assertThat(run.path("exitCode").asInt()).isZero();
    assertThat(run.path("taken").toString()).isEqualTo("[\"add-ons/index.txt\"]");
    assertThat(run.path("beside")).isEmpty();
    assertThat(game.resolve("add-ons/index.txt")).hasContent("reef.txt\ntide.txt\n");
    assertThat(drift()).as("it lies there as a deployed file").isEmpty();
    JsonNode mend = api.get(base + "/mends").get(0);
    assertThat(mend.path("kind").asText()).isEqualTo("TOOL");
    assertThat(mend.path("name").asText()).isEqualTo("Output of Indexer");
    assertThat(mend.path("stale").asBoolean()).isFalse();
    assertThat(mend.path("ingredients").findValuesAsText("plugin"))
        .containsExactly("add-ons/reef.txt", "add-ons/tide.txt");

    api.install(workspace, "Shoals.zip", Games.mod(Map.of("add-ons/shoal.txt", "a shoal\n")));
    assertThat(api.get(base + "/mends").get(0).path("reasons").toString())
        .contains("add-ons/shoal.txt is read too now.");
    assertThat(tool().path("stale").toString()).contains("shoal");
    assertThat(api.get(base + "/wrinkles").path("open").findValuesAsText("code"))
        .containsExactly("tool-stale");
    assertThat(api.refusal("POST", base + "/mends/" + mend.path("mod").asLong() + "/rebuild", null))
        .isEqualTo("needs-tool");
    Api.Answer early = api.ask("POST", base + "/tools/" + tool + "/run", null, Map.of());
    assertThat(early.status()).isEqualTo(422);
    assertThat(early.body().path("code").asText()).isEqualTo("tool-not-ready");
    assertThat(early.body().toString()).contains("Deploy first");
    api.job(base + "/deploy", null);
    run(tool);
    assertThat(game.resolve("add-ons/index.txt")).hasContent("reef.txt\nshoal.txt\ntide.txt\n");
    run(tool);
    assertThat(game.resolve("add-ons/index.txt")).as("the same again").exists();
    assertThat(drift()).as("nothing was set aside").isEmpty();
    assertThat(api.get(base + "/mends").get(0).path("version").asText()).isEqualTo("3");
    assertThat(api.get(base + "/mends").get(0).path("stale").asBoolean()).isFalse();
    api.job(base + "/deploy/undeploy", null);
    assertThat(game.resolve("add-ons/index.txt")).doesNotExist();
  }

  @Test
  void it_never_writes_through_a_link_into_the_library_nor_over_the_only_copy_of_the_game()
      throws Exception {
    long tool = add("cd \"$PLACE\"; echo new > tide.txt; echo more >> reef.txt", "add-ons/*.txt");
    assertThat(tool().path("waitsFor").toString()).contains("not as you arranged it");
    api.job(base + "/deploy", null);
    JsonNode run = run(tool);
    assertThat(run.path("taken")).hasSize(2);
    assertThat(game.resolve("add-ons/tide.txt")).hasContent("new\n");
    assertThat(game.resolve("add-ons/reef.txt")).hasContent("a reef of a mod\nmore\n");
    assertThat(drift()).isEmpty();
    long output = tool().path("output").asLong();
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(output), "on", false));
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).hasContent("a reef of a mod\n");
    assertThat(game.resolve("add-ons/tide.txt")).hasContent("the game's\n");
    api.job(base + "/deploy/undeploy", null);
    assertThat(game.resolve("add-ons/tide.txt")).hasContent("the game's\n");
  }

  @Test
  void with_no_mod_deployed_the_only_copy_of_a_file_of_the_game_is_not_written_to() {
    long reefs = api.get(base + "/layers").path("layers").get(0).path("mod").asLong();
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(reefs), "on", false));
    api.job(base + "/deploy", null);
    long tool = add("echo new > \"$PLACE/tide.txt\"", "add-ons/*.txt");
    assertThat(tool().path("waitsFor").toString()).contains("add-ons/tide.txt of the game’s own");
    assertThat(api.ask("POST", base + "/tools/" + tool + "/run", null, Map.of()).status())
        .isEqualTo(422);
    assertThat(game.resolve("add-ons/tide.txt")).hasContent("the game's\n");
  }

  @Test
  void files_in_its_own_folder_count_and_what_else_it_wrote_is_told() {
    long tool =
        add(
            "mkdir -p \"$2/add-ons/maps\"; echo m > \"$2/add-ons/maps/new.map\"; echo x > \"$1/notes.log\"; rm \"$1/add-ons/maps/north.map\"");
    JsonNode run = run(tool);
    assertThat(run.path("taken").toString()).isEqualTo("[\"add-ons/maps/new.map\"]");
    assertThat(run.path("beside").toString()).isEqualTo("[\"notes.log\"]");
    assertThat(run.path("removed").toString()).isEqualTo("[\"add-ons/maps/north.map\"]");
    assertThat(game.resolve("add-ons/maps/new.map")).hasContent("m\n");
  }

  @Test
  void what_a_known_tool_left_there_when_it_was_started_elsewhere_goes_to_its_mod() {
    add("true", "add-ons/index.txt");
    Trees.write(game.resolve("add-ons/index.txt"), "by hand\n");
    Trees.write(game.resolve("add-ons/other.log"), "mine\n");
    assertThat(drift().toString()).contains("\"from\":\"Indexer\"");
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/index.txt")).hasContent("by hand\n");
    assertThat(tool().path("output").isNumber()).isTrue();
    assertThat(drift().findValuesAsText("path")).containsExactly("add-ons/other.log");
  }

  @Test
  void what_the_user_leaves_as_it_is_goes_to_no_tool_until_it_changes() {
    add("true", "add-ons/index.txt");
    Trees.write(game.resolve("add-ons/index.txt"), "by hand\n");
    Map<String, Object> leave = Map.of("cause", "NEW", "paths", List.of("add-ons/index.txt"));
    api.send("POST", base + "/drift/left", leave, Map.of());
    api.job(base + "/deploy", null);
    assertThat(tool().path("output").isNumber()).isFalse();
    assertThat(game.resolve("add-ons/index.txt")).hasContent("by hand\n");
    Trees.write(game.resolve("add-ons/index.txt"), "by the tool\n");
    api.job(base + "/deploy", null);
    assertThat(tool().path("output").isNumber()).isTrue();
    assertThat(game.resolve("add-ons/index.txt")).hasContent("by the tool\n");
  }

  @Test
  void one_that_fails_is_told_and_nothing_of_it_is_taken_in() {
    long tool = add("echo broken; echo half > \"$PLACE/index.txt\"; exit 3", "add-ons/index.txt");
    JsonNode run = run(tool);
    assertThat(run.path("state").asText()).isEqualTo("FAILED");
    assertThat(run.path("exitCode").asInt()).isEqualTo(3);
    assertThat(run.path("why").asText()).contains("exit code 3");
    assertThat(run.path("beside").toString()).contains("add-ons/index.txt");
    assertThat(api.get(base + "/mends")).isEmpty();
    assertThat(drift().toString()).contains("add-ons/index.txt", "NEW");
    api.job(base + "/deploy", null);
    assertThat(api.get(base + "/mends")).as("half a file is no output").isEmpty();
  }

  @Test
  void cancelling_stops_it_with_all_that_it_started() throws Exception {
    long tool = add("echo begun; sleep 600 & wait", "add-ons/index.txt");
    long job =
        api.send("POST", base + "/tools/" + tool + "/run", null, Map.of())
            .body()
            .path("id")
            .asLong();
    lastState("RUNNING");
    String run = base + "/tools/runs/" + tool().path("last").path("id").asLong();
    Patience.until(() -> api.get(run).path("output").asText(), o -> o.contains("begun"));
    assertThat(api.ask("POST", base + "/runs", null, Map.of()).status()).isIn(409, 422);
    assertThat(api.ask("POST", base + "/deploy", null, Map.of()).status()).isEqualTo(409);
    api.send("DELETE", "/api/jobs/" + job, null, Map.of());
    lastState("STOPPED");
    api.job(base + "/deploy", null);
  }

  private void lastState(String state) {
    Patience.until(() -> tool().path("last").path("state").asText(), state::equals);
  }

  @Test
  void a_wrong_wish_is_refused_with_all_that_is_wrong() {
    Map<String, Object> wish = wish("", List.of("../outside"));
    wish.put("name", " ");
    wish.put("command", List.of("", "{nowhere}"));
    wish.put("environment", Map.of("1X", "y", "IRONING_DB_URL", "z"));
    Api.Answer a = api.ask("POST", base + "/tools", wish, Map.of());
    assertThat(a.status()).isEqualTo(422);
    assertThat(a.body().toString())
        .contains(
            "tool-name", "tool-command", "tool-placeholder", "tool-environment", "tool-pattern");
    add("true");
    assertThat(api.ask("POST", base + "/tools", wish("", List.of()), Map.of()).body().toString())
        .contains("Another tool has this name");
    assertThat(Files.exists(temp.resolve("outside"))).isFalse();
  }

  @Test
  void a_program_that_is_not_there_is_told_before_the_start() {
    Map<String, Object> wish = wish("", List.of());
    wish.put("command", List.of("no-such-program"));
    long tool = api.send("POST", base + "/tools", wish, Map.of()).body().path("tool").asLong();
    assertThat(tool().path("waitsFor").toString()).contains("no-such-program is not there");
    assertThat(api.ask("POST", base + "/tools/" + tool + "/run", null, Map.of()).status())
        .isEqualTo(422);
    api.send("DELETE", base + "/tools/" + tool, null, Map.of());
    assertThat(api.get(base + "/tools")).isEmpty();
  }

  /** Between the end of the tool and its output being deployed, the files are off the folder. */
  @Test
  void a_game_that_is_started_as_soon_as_it_can_be_misses_nothing_that_the_tool_wrote()
      throws Exception {
    Path folder = Games.plain(temp.resolve("played"));
    Trees.write(
        folder.resolve("game.yaml"), Games.PLAIN + "run: { command: [ \"sh\", \"play.sh\" ] }\n");
    Trees.write(
        folder.resolve("play.sh"),
        "for i in 1 2 3 4 5 6 7 8; do cat add-ons/index.txt || echo gone; sleep 0.02; done\n");
    workspace = api.workspace(folder);
    base = "/api/workspaces/" + workspace;
    api.install(workspace, "Reefs.zip", Games.mod(Map.of("add-ons/reef.txt", "a reef\n")));
    api.job(base + "/deploy", null);
    long tool = add("cd \"$PLACE\"; rm -f index.txt; date +%N > index.txt", "add-ons/index.txt");
    run(tool);
    int played = 0;
    for (int round = 0; round < 3; round++) {
      CompletableFuture<JsonNode> job = CompletableFuture.supplyAsync(() -> job(tool));
      Patience.until(
          () -> api.ask("GET", base + "/deploy", null, Map.of()).body().path("use").asText(),
          use -> !use.isEmpty() || job.isDone());
      boolean ended;
      do {
        ended = job.isDone();
        Api.Answer start = api.ask("POST", base + "/runs", null, Map.of());
        if (start.status() != 201) continue;
        played++;
        JsonNode over =
            Patience.until(
                () -> api.get(base + "/runs/" + start.body().path("run").asLong()),
                r -> !r.path("state").asText().equals("RUNNING"));
        assertThat(over.path("output").asText()).doesNotContain("gone");
      } while (!ended);
      JsonNode over = job.join();
      assertThat(over.path("state").asText()).as(over.toString()).isEqualTo("DONE");
    }
    assertThat(played).isGreaterThanOrEqualTo(3);
  }
}
