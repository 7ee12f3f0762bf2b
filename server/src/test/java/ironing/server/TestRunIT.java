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
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Starting games of every kind of behaviour. Each is a small shell script in the game folder. */
@ExtendWith(SharedServer.class)
class TestRunIT {
  private static final String OWN_SAVES =
      "protect: [ \"saves/**\" ]\nperProfile: [ \"saves/**\" ]\n";
  @TempDir Path temp;
  private Api api;

  @BeforeEach
  void take(Api api) {
    this.api = api;
  }

  private String workspace(String script) {
    return workspace("game", "[ \"sh\", \"play.sh\", \"{game}\" ]", script);
  }

  private String workspace(String folderName, String command, String script) {
    Path folder = Games.plain(temp.resolve(folderName));
    String run = "run: { command: " + command + ", log: \"logs/run.jsonl\" }\n";
    Trees.write(folder.resolve("game.yaml"), Games.PLAIN + run);
    Trees.write(folder.resolve("play.sh"), script);
    return "/api/workspaces/" + api.workspace(folder);
  }

  /** The folder of a game that is started by its {@code play.sh}. */
  private Path gameWith(String more) {
    Path folder = Games.plain(temp.resolve("game"));
    String run = "run: { command: [ \"sh\", \"play.sh\" ], log: \"logs/run.jsonl\" }\n";
    Trees.write(folder.resolve("game.yaml"), Games.PLAIN + run + more);
    return folder;
  }

  private long start(String base) {
    return api.send("POST", base + "/runs", null, Map.of()).body().path("run").asLong();
  }

  private JsonNode until(String base, long run, Predicate<JsonNode> wanted) {
    return Patience.until(() -> api.get(base + "/runs/" + run), wanted);
  }

  private JsonNode ended(String base, long run) throws Exception {
    return until(base, run, d -> !d.path("state").asText().equals("RUNNING"));
  }

  @Test
  void output_is_seen_while_it_plays_and_a_game_that_does_not_end_is_stopped() throws Exception {
    String base = workspace("echo casting off\nexec sleep 600\n");
    long run = start(base);
    until(base, run, d -> d.path("output").asText().contains("casting off"));
    Api.Answer second = api.ask("POST", base + "/runs", null, Map.of());
    assertThat(second.status()).isEqualTo(409);
    assertThat(second.body().path("detail").asText()).contains("running");
    assertThat(second.body().path("code").asText()).isEqualTo("busy");
    Api.Answer deploy = api.ask("POST", base + "/deploy", null, Map.of());
    assertThat(deploy.status()).as("no deploying under a game that runs").isEqualTo(409);
    assertThat(api.get(base + "/deploy").path("use").asText()).isEqualTo("RUNNING");
    api.send("DELETE", base + "/runs", null, Map.of());
    JsonNode over = ended(base, run);
    assertThat(over.path("state").asText()).isEqualTo("STOPPED");
    assertThat(over.path("output").asText()).contains("casting off");
    assertThat(api.get(base + "/deploy").has("use")).isFalse();
    assertThat(api.ask("POST", base + "/deploy", null, Map.of()).status()).isEqualTo(202);
  }

  @Test
  void a_save_is_known_by_the_plugins_of_the_run_that_wrote_it() throws Exception {
    Path folder = gameWith("protect: [ \"saves/**\" ]\n");
    Trees.write(folder.resolve("saves/old.sav"), "old");
    Files.setLastModifiedTime(
        folder.resolve("saves/old.sav"), FileTime.from(Instant.parse("2020-01-01T00:00:00Z")));
    Trees.write(
        folder.resolve("play.sh"),
        """
        mkdir -p logs
        echo '{"at":"2026-01-01T00:00:00Z","event":"read","plugin":"Tide.plug","slot":1}' > logs/run.jsonl
        echo '{"at":"2026-01-01T00:00:00Z","event":"end","code":0}' >> logs/run.jsonl
        echo saved > saves/day-1.sav
        """);
    String base = "/api/workspaces/" + api.workspace(folder);
    long id = start(base);
    ended(base, id);
    JsonNode all = api.get(base + "/saves");
    assertThat(all.findValuesAsText("path")).containsExactly("saves/day-1.sav", "saves/old.sav");
    assertThat(all.get(0).path("run").asLong()).isEqualTo(id);
    assertThat(all.get(0).path("plugins").toString()).isEqualTo("[\"Tide.plug\"]");
    assertThat(all.get(0).path("lost").get(0).path("plugin").asText()).isEqualTo("Tide.plug");
    assertThat(all.get(0).path("lost").get(0).path("loss").asText()).isEqualTo("GONE");
    assertThat(all.get(1).path("run").asLong()).as("nobody knows").isZero();
    assertThat(all.get(1).path("lost")).isEmpty();
    assertThat(api.get(base + "/saves?plugin=tide.PLUG").findValuesAsText("path"))
        .containsExactly("saves/day-1.sav");
    assertThat(api.get(base + "/saves?plugin=Other.plug")).isEmpty();
  }

  /** A new profile, taken into use. */
  private long useTrial(String base) {
    Api.Answer made = api.send("POST", base + "/profiles", Map.of("name", "Trial"), Map.of());
    long trial = made.body().path("id").asLong();
    api.send("POST", base + "/profiles/" + trial + "/use", null, Map.of());
    return trial;
  }

  private JsonNode savesOf(String base, String profile) {
    for (JsonNode p : api.get(base + "/saves/profiles").path("profiles"))
      if (p.path("name").asText().equals(profile)) return p;
    throw new AssertionError(profile + " is not among them");
  }

  @Test
  void the_game_is_started_with_the_saves_of_the_profile_in_use() throws Exception {
    Path folder = gameWith(OWN_SAVES);
    Trees.write(folder.resolve("saves/old.sav"), "of before");
    // it takes up the last save, and writes the next
    Trees.write(
        folder.resolve("play.sh"), "ls saves\nexpr $(ls saves | wc -l) + 1 > saves/next.sav\n");
    String base = "/api/workspaces/" + api.workspace(folder);
    JsonNode first = api.get(base + "/profiles").get(0);
    String everyday = first.path("name").asText();
    assertThat(ended(base, start(base)).path("output").asText()).contains("old.sav");
    assertThat(savesOf(base, everyday).path("count").asInt()).isEqualTo(2);
    assertThat(savesOf(base, everyday).path("inFolder").asBoolean()).isTrue();

    long trial = useTrial(base);
    assertThat(api.get(base + "/saves")).as("those of Trial, which has none").isEmpty();
    assertThat(savesOf(base, "Trial").path("inFolder").asBoolean()).isFalse();
    JsonNode alone = ended(base, start(base));
    assertThat(alone.path("output").asText()).as("nothing to take up").isBlank();
    assertThat(folder.resolve("saves/old.sav")).doesNotExist();
    assertThat(folder.resolve("saves/next.sav")).hasContent("1");
    assertThat(api.get(base + "/saves").findValuesAsText("path")).containsExactly("saves/next.sav");
    assertThat(savesOf(base, everyday).path("count").asInt()).isEqualTo(2);

    long from = first.path("id").asLong();
    Api.Answer copied = api.send("POST", base + "/saves/copies", Map.of("from", from), Map.of());
    assertThat(copied.body().path("copied").asInt()).as("its own next.sav stays").isEqualTo(1);
    assertThat(folder.resolve("saves/next.sav")).hasContent("1");
    assertThat(folder.resolve("saves/old.sav")).hasContent("of before");
    assertThat(api.ask("POST", base + "/saves/copies", Map.of("from", trial), Map.of()).status())
        .isEqualTo(404);

    api.send("POST", base + "/profiles/" + from + "/use", null, Map.of());
    ended(base, start(base));
    assertThat(folder.resolve("saves/next.sav"))
        .as("Everyday goes on with its own")
        .hasContent("3");
    assertThat(savesOf(base, "Trial").path("count").asInt()).isEqualTo(2);
    assertThat(api.get(base + "/saves")).hasSize(2);
  }

  @Test
  void saves_that_cannot_be_brought_keep_the_game_from_starting() throws Exception {
    Path folder = gameWith(OWN_SAVES);
    Trees.write(folder.resolve("play.sh"), "echo played > here\n");
    Trees.write(temp.resolve("cloud/one.sav"), "elsewhere");
    Files.createSymbolicLink(folder.resolve("saves"), temp.resolve("cloud"));
    String base = "/api/workspaces/" + api.workspace(folder);
    useTrial(base);
    Api.Answer refused = api.ask("POST", base + "/runs", null, Map.of());
    assertThat(refused.body().toString()).contains("game-folder-leads-outside");
    assertThat(folder.resolve("here")).doesNotExist();
    assertThat(api.get(base + "/deploy").has("use")).as("the folder is free again").isFalse();
  }

  @Test
  void a_game_that_writes_no_log_tells_its_exit_code_and_nothing_else() throws Exception {
    String base = workspace("echo aground >&2\nexit 3\n");
    JsonNode over = ended(base, start(base));
    assertThat(over.path("exitCode").asInt()).isEqualTo(3);
    assertThat(over.path("told").asBoolean()).as("cannot be told").isFalse();
    assertThat(over.path("output").asText()).contains("aground");
    assertThat(api.get(base).path("counts").has("read")).isFalse();
  }

  @Test
  void a_log_of_an_earlier_run_says_nothing_of_this_one() throws Exception {
    String base =
        workspace(
            """
            test -e logs/run.jsonl && exit 0
            mkdir -p logs
            echo '{"at":"2026-01-01T00:00:00Z","event":"report","name":"tide","value":"high","from":"x"}' > logs/run.jsonl
            """);
    JsonNode first = ended(base, start(base));
    assertThat(first.path("told").asBoolean()).isTrue();
    assertThat(first.path("reports").get(0).path("value").asText()).isEqualTo("high");
    assertThat(ended(base, start(base)).path("told").asBoolean()).isFalse();
  }

  @Test
  void what_a_game_prints_is_kept_whatever_it_is() throws Exception {
    String base = workspace("printf 'a\\000b\\377c\\n'\nprintf 'no line end'\n");
    JsonNode over = ended(base, start(base));
    assertThat(over.path("output").asText()).startsWith("a\uFFFDb").contains("no line end");
  }

  @Test
  void a_folder_with_shell_characters_in_its_name_is_an_argument_and_nothing_else()
      throws Exception {
    String name = "game; touch $(echo evil) `echo evil` & 'x' \"y\"";
    String base = workspace(name, "[ \"sh\", \"play.sh\", \"{game}\" ]", "printf '%s\\n' \"$1\"\n");
    JsonNode over = ended(base, start(base));
    assertThat(over.path("output").asText().strip()).endsWith(name);
    try (var all = Files.walk(temp)) {
      assertThat(all.map(p -> p.getFileName().toString())).doesNotContain("evil");
    }
  }

  @Test
  void a_game_learns_nothing_of_the_database() throws Exception {
    String base = workspace("env\n");
    assertThat(ended(base, start(base)).path("output").asText())
        .contains("PATH=")
        .doesNotContain("IRONING_");
  }

  @Test
  void with_what_a_run_was_played_is_kept_and_gone_back_to() throws Exception {
    String script =
        """
        mkdir -p logs
        for f in add-ons/*.txt; do
          printf '{"event":"read","path":"%s","sha256":"%s"}\\n' "$f" "$(sha256sum < "$f" | cut -c1-64)"
        done > logs/run.jsonl
        """;
    String base = workspace(script);
    long workspace = Long.parseLong(base.substring(base.lastIndexOf('/') + 1));
    long reef =
        api.install(workspace, "Reefs 1.0.zip", Games.mod(Map.of("add-ons/reef.txt", "a reef\n")))
            .result();
    api.job(base + "/deploy", null);
    long first = start(base);
    JsonNode one = ended(base, first);
    assertThat(one.path("picture").asText()).hasSize(64);
    assertThat(one.path("sameSet").asBoolean()).isTrue();
    assertThat(one.path("mods").get(0).path("read").asInt()).isOne();

    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(reef), "on", false));
    api.install(workspace, "Tides.zip", Games.mod(Map.of("add-ons/tide.txt", "another tide\n")));
    api.job(base + "/deploy", null);
    assertThat(api.get(base + "/runs/" + first).path("sameSet").asBoolean()).isFalse();
    JsonNode two = ended(base, start(base));
    assertThat(two.path("picture").asText()).isNotEqualTo(one.path("picture").asText());
    assertThat(two.path("files").toString())
        .contains("{\"path\":\"add-ons/reef.txt\",\"kind\":\"GONE\"}")
        .contains("{\"path\":\"add-ons/tide.txt\",\"kind\":\"OTHER\"}");

    api.change("POST", base + "/runs/" + first + "/return", null);
    assertThat(api.get(base + "/runs/" + first).path("sameSet").asBoolean()).isTrue();
    JsonNode notAsArranged = ended(base, start(base));
    assertThat(notAsArranged.has("picture")).as("what lies there is not known").isFalse();
  }

  @Test
  void a_program_that_is_not_there_is_named() {
    String base = workspace("game", "[ \"no-such-program\" ]", "");
    Api.Answer answer = api.ask("POST", base + "/runs", null, Map.of());
    assertThat(answer.status()).isEqualTo(422);
    assertThat(answer.body().path("title").asText()).isEqualTo("no-such-program");
    assertThat(answer.body().path("code").asText()).isEqualTo("will-not-start");
    assertThat(api.get(base + "/runs").path("runs")).isEmpty();
  }

  /** Without a log nobody can tell what it read, and a line may say that something went wrong. */
  @Test
  void a_game_that_ends_with_code_0_is_only_said_to_have_ended_where_it_wrote_no_log()
      throws Exception {
    Path folder = Games.plain(temp.resolve("game"));
    Trees.write(
        folder.resolve("game.yaml"),
        Games.PLAIN
            + """
            run:
              command: [ "sh", "play.sh" ]
              folder: "add-ons"
              log: "logs/run.jsonl"
              environment: { WIND: "from {game}" }
              faults: [ "^ERROR", "could not load" ]
            """);
    Trees.write(
        folder.resolve("add-ons/play.sh"), "pwd; echo wind $WIND; cat more 2>/dev/null; true\n");
    String base = "/api/workspaces/" + api.workspace(folder);
    JsonNode silent = ended(base, start(base));
    assertThat(silent.path("state").asText()).isEqualTo("ENDED");
    assertThat(silent.path("exitCode").asInt()).isZero();
    Path real = folder.toRealPath();
    assertThat(silent.path("output").asText())
        .isEqualTo(real.resolve("add-ons") + "\nwind from " + real + "\n");
    assertThat(api.get(base + "/runs").at("/runs/0/state").asText()).isEqualTo("ENDED");
    assertThat(api.get(base).toString()).contains("what it read cannot be told");

    Trees.write(folder.resolve("add-ons/more"), "all well\nthe mast could not load\n");
    JsonNode faulty = ended(base, start(base));
    assertThat(faulty.path("state").asText()).isEqualTo("STOPPED");
    assertThat(faulty.at("/fault/text").asText()).isEqualTo("the mast could not load");

    Files.delete(folder.resolve("add-ons/play.sh"));
    Trees.write(
        folder.resolve("add-ons/play.sh"),
        "mkdir -p ../logs; echo '{\"at\":\"2026-01-01T00:00:00Z\",\"event\":\"start\"}' > ../logs/run.jsonl\n");
    assertThat(ended(base, start(base)).path("state").asText()).isEqualTo("PLAYED");
  }
}
