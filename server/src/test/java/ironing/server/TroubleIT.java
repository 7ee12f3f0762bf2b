package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Plugin.Record;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.core.testkit.Tries;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.Patience;
import ironing.server.testkit.ServerProcess;
import ironing.server.testkit.SharedServer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Searches for what is behind a fault, with games that are small shell scripts. */
@ExtendWith(SharedServer.class)
class TroubleIT {
  private static final int MODS = 14;
  private static final String RUN =
      """
      protect: [ "saves/**" ]
      perProfile: [ "saves/**", "settings.ini" ]
      run: { command: [ "sh", "play.sh" ], log: "logs/run.jsonl" }
      """;
  private static final Map<String, Object> BOTH_MAPS =
      Map.of("kind", "STOPS", "name", "two-maps", "place", "add-ons/maps/7-b.map");
  // it stops where two files are there together
  private static final String TWO_MAPS =
      """
      mkdir -p logs saves
      echo played >> saves/day.sav
      echo "[played]" >> settings.ini
      say() { echo "{\\"at\\":\\"2026-01-01T00:00:00Z\\",$1}" >> logs/run.jsonl; }
      rm -f logs/run.jsonl
      say '"event":"start","version":"1"'
      if [ -f add-ons/maps/3-a.map ] && [ -f add-ons/maps/7-b.map ]; then
        say '"event":"fault","code":"two-maps","text":"Two maps.","path":"add-ons/maps/7-b.map"'
        say '"event":"end","code":3'
        exit 3
      fi
      say '"event":"end","code":0'
      """;

  @TempDir Path temp;
  private Api api;

  @BeforeEach
  void take(Api api) {
    this.api = api;
  }

  private Path game(String script) throws Exception {
    Path folder = Games.plain(temp.resolve("game")).toRealPath();
    Trees.write(folder.resolve("game.yaml"), Games.PLAIN + RUN);
    Trees.write(folder.resolve("play.sh"), script);
    Trees.write(folder.resolve("settings.ini"), "[mine]\n");
    Trees.write(folder.resolve("saves/day.sav"), "mine\n");
    return folder;
  }

  /** A workspace with its mods deployed; mod 7 needs mod 5. */
  private String workspace(Api api, Path folder) {
    long workspace = api.workspace(folder);
    for (int i = 0; i < MODS; i++) {
      Map<String, String> files = new LinkedHashMap<>();
      String needs = i == 7 ? "needs: [ { mod: mod-5 } ]\n" : "";
      files.put(
          "mod-card.yaml",
          "format: ironing/mod@1\nid: mod-%d\nname: Mod %d\nversion: 1\n%s".formatted(i, i, needs));
      for (String part : List.of("a", "b", "c"))
        files.put("maps/" + i + "-" + part + ".map", "mod " + i + part);
      api.install(workspace, "Mod " + i + ".zip", Archives.zip(files));
    }
    String base = "/api/workspaces/" + workspace;
    api.job(base + "/deploy", null);
    return base;
  }

  private static Map<String, Object> search(Map<String, Object> fault, boolean automatic) {
    return Map.of("fault", fault, "automatic", automatic, "limitSeconds", 20, "mends", "KEPT");
  }

  private static String begun(Api api, String base, Map<String, Object> request) {
    JsonNode made = api.send("POST", base + "/searches", request, Map.of()).body();
    return base + "/searches/" + made.path("search").path("id").asLong();
  }

  private static JsonNode over(Api api, String search) {
    return Patience.until(
        () -> api.get(search), s -> !s.path("search").path("state").asText().equals("SEARCHING"));
  }

  private static void idle(Api api, String base) {
    Patience.until(
        () -> api.get(base + "/jobs"), all -> !all.findValuesAsText("state").contains("RUNNING"));
  }

  private static List<String> found(JsonNode search, String what) {
    List<String> out = new ArrayList<>();
    for (JsonNode p : search.path("parts"))
      if (p.path("standing").asText().equals("FOUND")) out.add(p.path(what).asText());
    return out;
  }

  // what the game writes by itself is not ours to put back
  private static Map<String, String> lying(Path game) {
    Map<String, String> out = new TreeMap<>(Trees.of(game));
    out.keySet().removeIf(p -> p.startsWith(".ironing") || p.startsWith("logs"));
    return out;
  }

  @Test
  void a_search_by_itself_ends_with_two_mods_and_goes_on_to_their_files() throws Exception {
    Path game = game(TWO_MAPS);
    String base = workspace(api, game);
    Map<String, String> before = lying(game);
    JsonNode profile = api.get(base + "/layers");
    String search = begun(api, base, search(BOTH_MAPS, true));
    JsonNode mods = over(api, search);
    assertThat(found(mods, "modName")).containsExactlyInAnyOrder("Mod 3", "Mod 5", "Mod 7");
    assertThat(mods.path("unproved")).isEmpty();
    for (JsonNode t : mods.path("tries")) {
      List<Integer> members = new ArrayList<>();
      t.path("members").forEach(m -> members.add(m.asInt()));
      if (members.contains(7)) assertThat(members).as("a set has what its mods need").contains(5);
      assertThat(t.path("picture").asText()).hasSize(64);
    }
    String inside =
        base
            + "/searches/"
            + Patience.until(() -> api.get(search), s -> s.has("inside")).path("inside").asLong();
    JsonNode files = over(api, inside);
    assertThat(found(files, "path"))
        .containsExactlyInAnyOrder("add-ons/maps/3-a.map", "add-ons/maps/7-b.map");
    idle(api, base);
    assertThat(lying(game)).isEqualTo(before);
    assertThat(api.get(base + "/layers")).isEqualTo(profile);
    assertThat(api.get(base + "/runs").path("runs")).as("none of the user's").isEmpty();
    assertThat(api.get(base + "/timeline").toString()).doesNotContain("Trial");
    JsonNode again = api.send("POST", base + "/suspects", BOTH_MAPS, Map.of()).body();
    assertThat(again.path("suspects").get(0).path("reasons").toString()).contains("RECALLED");
    assertThat(api.refusal("POST", search + "/play", null)).isEqualTo("search-over");

    JsonNode question = api.get(inside + "/question");
    String told = question.path("markdown").asText();
    assertThat(told)
        .contains("two-maps", "**Mod 3**", "**Mod 7**", "file add-ons/maps/3-a.map, SHA-256")
        .as("nothing of the user's, and no mod that has nothing to do with it")
        .doesNotContain(game.toString(), temp.toString(), "Mod 9");
    assertThat(question.path("facts").toString()).doesNotContain(game.toString(), "Mod 9");
    assertThat(question.path("facts").path("proof").findValuesAsText("shows"))
        .contains("true", "false");
    api.send("POST", inside + "/finding", null, Map.of());
    JsonNode finding = api.get(base + "/findings").get(0);
    assertThat(finding.path("verdict").asText()).isEqualTo("BROKEN");
    assertThat(finding.path("own").asBoolean()).isTrue();
    assertThat(finding.path("with")).hasSize(2);
    assertThat(finding.path("says").asText()).contains("two-maps", "shows it");

    long last = mods.path("tries").get(mods.path("tries").size() - 1).path("id").asLong();
    JsonNode back = api.send("DELETE", search + "/answers/" + last, null, Map.of()).body();
    assertThat(back.path("search").path("state").asText()).isEqualTo("RESTING");
    assertThat(back.has("inside")).as("what went on inside of it is gone").isFalse();
  }

  @Test
  void signs_are_told_by_the_run_and_ticked_by_hand() throws Exception {
    Path game =
        game(
            """
            mkdir -p logs
            echo '{"event":"start","version":"1"}' > logs/run.jsonl
            echo '{"event":"report","name":"Depth","value":7,"unit":"m"}' >> logs/run.jsonl
            echo '{"event":"read","path":"add-ons/maps/0-a.map"}' >> logs/run.jsonl
            echo '{"event":"end","code":0}' >> logs/run.jsonl
            """);
    long workspace = api.workspace(game);
    String base = "/api/workspaces/" + workspace;
    String card =
        """
        format: ironing/mod@1
        id: charts
        name: Charts
        version: 1
        signs:
          - { says: Deep, report: Depth, is: 7.0, unit: m }
          - { says: Shallow, report: Depth, is: 3 }
          - { says: Read, read: maps/0-a.map }
          - { says: Unread, read: maps/0-b.map }
          - { says: On the wall, look: "Harbour office, left" }
        """;
    Map<String, String> files = new LinkedHashMap<>();
    files.put("mod-card.yaml", card);
    files.put("maps/0-a.map", "a");
    files.put("maps/0-b.map", "b");
    long mod = api.install(workspace, "Charts 1.zip", Archives.zip(files)).result();
    assertThat(seen(api.get(base + "/signs"))).containsOnly("CANNOT_TELL");
    Map<String, Object> tick = Map.of("mod", mod, "says", "On the wall", "seen", true);
    assertThat(api.refusal("PUT", base + "/signs/ticks", tick)).isEqualTo("not-found");
    api.job(base + "/deploy", null);
    long run = api.send("POST", base + "/runs", null, Map.of()).body().path("run").asLong();
    Patience.until(
        () -> api.get(base + "/runs/" + run), r -> r.path("state").asText().equals("PLAYED"));
    assertThat(seen(api.get(base + "/signs")))
        .containsExactly("SEEN", "NOT_SEEN", "SEEN", "NOT_SEEN", "CANNOT_TELL");
    api.send("PUT", base + "/signs/ticks", tick, Map.of());
    Map<String, Object> own = Map.of("mod", mod, "kind", "REPORT", "says", "Mine", "what", "Depth");
    api.send("POST", base + "/signs", own, Map.of());
    JsonNode list = api.get(base + "/signs");
    assertThat(seen(list)).endsWith("SEEN", "SEEN");
    assertThat(list.path("mods").get(0).path("read").asInt()).isEqualTo(1);
    assertThat(list.path("mods").get(0).path("files").asInt()).isEqualTo(2);
    api.send("PUT", base + "/signs/ticks", Map.of("mod", mod, "says", "On the wall"), Map.of());
    assertThat(seen(api.get(base + "/signs"))).contains("CANNOT_TELL");
    long sign = list.path("mods").get(0).path("signs").get(5).path("own").asLong();
    api.send("DELETE", base + "/signs/" + sign, null, Map.of());
    assertThat(api.refusal("DELETE", base + "/signs/" + sign, null)).isEqualTo("not-found");
    assertThat(
            api.refusal(
                "POST",
                base + "/signs",
                Map.of("mod", mod, "kind", "LOOK", "says", " ", "what", "x")))
        .isEqualTo("sign-invalid");
    // a file that was changed in the folder is not the mod's any more
    Files.delete(game.resolve("add-ons/maps/0-a.map"));
    Trees.write(game.resolve("add-ons/maps/0-a.map"), "somebody else's");
    assertThat(seen(api.get(base + "/signs")).get(2)).isEqualTo("NOT_SEEN");
  }

  private static List<String> seen(JsonNode list) {
    return list.path("mods").findValuesAsText("seen");
  }

  @Test
  void the_suspects_are_those_that_changed_since_it_worked_and_those_that_the_fault_names()
      throws Exception {
    Path game = game(TWO_MAPS);
    String base = workspace(api, game);
    JsonNode layers = api.get(base + "/layers");
    long seven = 0, three = 0;
    for (JsonNode l : layers.path("layers")) {
      if (l.path("name").asText().equals("Mod 7")) seven = l.path("mod").asLong();
      if (l.path("name").asText().equals("Mod 3")) three = l.path("mod").asLong();
    }
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(three), "on", false));
    api.job(base + "/deploy", null);
    long worked = api.send("POST", base + "/runs", null, Map.of()).body().path("run").asLong();
    Patience.until(
        () -> api.get(base + "/runs/" + worked), r -> r.path("state").asText().equals("PLAYED"));
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(three), "on", true));
    Map<String, Object> named = new LinkedHashMap<>(BOTH_MAPS);
    named.put("path", "add-ons/maps/7-b.map");
    JsonNode suspects = api.send("POST", base + "/suspects", named, Map.of()).body();
    assertThat(suspects.path("worked").asLong()).isEqualTo(worked);
    assertThat(suspects.path("suspects").findValuesAsText("mod"))
        .containsExactly(Long.toString(seven), Long.toString(three));
    assertThat(suspects.path("suspects").get(1).path("reasons").toString()).contains("CHANGED");
    assertThat(api.refusal("POST", base + "/searches", search(BOTH_MAPS, true)))
        .isEqualTo("search-not-deployed");
  }

  @Test
  void a_search_by_hand_waits_and_goes_on_after_the_server_was_killed() throws Exception {
    Path game = game("exit 0\n");
    try (ServerProcess server = new ServerProcess(temp.resolve("home"))) {
      Api api = server.up();
      String base = workspace(api, game);
      Map<String, String> before = lying(game);
      Map<String, Object> fault = Map.of("kind", "WORDS", "name", "The water is black");
      assertThat(api.refusal("POST", base + "/searches", search(fault, true)))
          .isEqualTo("search-by-hand");
      String search = begun(api, base, search(fault, false));
      int rounds = 0;
      while (true) {
        JsonNode now = api.get(search);
        if (!now.has("asked")) break;
        api.job(search + "/play", null);
        if (rounds == 2) {
          server.killIn(0).join();
          api = server.up();
        }
        List<Integer> set = new ArrayList<>();
        now.path("asked").path("members").forEach(m -> set.add(m.asInt()));
        for (int i = 0; i < MODS; i++)
          assertThat(Files.exists(game.resolve("add-ons/maps/" + i + "-a.map")))
              .isEqualTo(set.contains(i));
        if (rounds == 3) {
          // a wrong answer, taken back
          JsonNode wrong =
              api.send("POST", search + "/answers", Map.of("answer", "CANNOT_TELL"), Map.of())
                  .body();
          long last = wrong.path("tries").get(wrong.path("tries").size() - 1).path("id").asLong();
          api.send("DELETE", search + "/answers/" + last, null, Map.of());
          assertThat(api.refusal("DELETE", search + "/answers/" + last, null))
              .isEqualTo("not-found");
        }
        String answer = set.contains(9) ? "FAILS" : "WORKS";
        api.send("POST", search + "/answers", Map.of("answer", answer), Map.of());
        rounds++;
      }
      assertThat(found(api.get(search), "modName")).containsExactly("Mod 9");
      assertThat(rounds).isLessThanOrEqualTo(10);
      idle(api, base);
      assertThat(lying(game)).isEqualTo(before);
    }
  }

  @Test
  void a_search_that_is_killed_anywhere_goes_on_and_leaves_the_folder_as_it_was() throws Exception {
    Path game = game(TWO_MAPS);
    Random random = new Random(25);
    try (ServerProcess server = new ServerProcess(temp.resolve("home"))) {
      Api api = server.up();
      String base = workspace(api, game);
      Map<String, String> before = lying(game);
      String search = begun(api, base, search(BOTH_MAPS, true));
      for (int round = 0; round < Tries.ways(15); round++) {
        CompletableFuture<Void> killer = server.killIn(100 + random.nextLong(700));
        killer.join();
        api = server.up();
      }
      JsonNode mods = over(api, search);
      assertThat(found(mods, "modName")).containsExactlyInAnyOrder("Mod 3", "Mod 5", "Mod 7");
      idle(api, base);
      assertThat(lying(game)).isEqualTo(before);
      assertThat(Files.exists(game.resolve(".ironing/journal"))).isFalse();
    }
  }

  @Test
  void a_search_rests_and_is_left_and_others_wait_for_that() throws Exception {
    Path game = game("sleep 1\n" + TWO_MAPS);
    String base = workspace(api, game);
    Map<String, String> before = lying(game);
    String search = begun(api, base, search(BOTH_MAPS, true));
    assertThat(api.refusal("POST", base + "/searches", search(BOTH_MAPS, true)))
        .isEqualTo("search-goes-on");
    assertThat(api.refusal("POST", search + "/answers", Map.of("answer", "WORKS")))
        .isEqualTo("search-goes-on");
    Patience.until(() -> api.get(search), s -> s.path("tries").size() > 1);
    api.send("POST", search + "/rest", null, Map.of("Prefer", "wait=60"));
    idle(api, base);
    assertThat(lying(game)).isEqualTo(before);
    int tried = api.get(search).path("tries").size();
    assertThat(api.get(search).path("search").path("state").asText()).isEqualTo("RESTING");
    api.send("POST", search + "/go-on", null, Map.of());
    Patience.until(() -> api.get(search), s -> s.path("tries").size() > tried);
    api.send("DELETE", search, null, Map.of("Prefer", "wait=60"));
    idle(api, base);
    assertThat(lying(game)).isEqualTo(before);
    assertThat(api.get(search).path("search").path("state").asText()).isEqualTo("LEFT");
    assertThat(api.refusal("POST", search + "/inside", null)).isEqualTo("search-nothing");
  }

  @Test
  void a_game_that_never_ends_and_another_fault_are_told_apart() throws Exception {
    // with mod 2 and without mod 4 it never ends; with mod 6 and without mod 1 it has another fault
    Path game =
        game(
            """
            [ -f add-ons/maps/2-a.map ] && [ ! -f add-ons/maps/4-a.map ] && exec sleep 600
            mkdir -p logs; rm -f logs/run.jsonl
            say() { echo "{\\"at\\":\\"2026-01-01T00:00:00Z\\",$1}" >> logs/run.jsonl; }
            if [ -f add-ons/maps/6-a.map ] && [ ! -f add-ons/maps/1-a.map ]; then
              say '"event":"fault","code":"other","text":"Other."'; exit 4; fi
            if [ -f add-ons/maps/12-c.map ]; then
              say '"event":"fault","code":"one-map","text":"One map."'; exit 3; fi
            say '"event":"end","code":0'
            """);
    String base = workspace(api, game);
    Map<String, Object> request =
        Map.of(
            "fault",
            Map.of("kind", "STOPS", "name", "one-map"),
            "automatic",
            true,
            "limitSeconds",
            1,
            "mends",
            "KEPT");
    JsonNode mods = over(api, begun(api, base, request));
    assertThat(found(mods, "modName")).containsExactly("Mod 12");
    for (JsonNode t : mods.path("tries")) {
      if (t.path("answer").asText().equals("CANNOT_TELL"))
        assertThat(t.path("note").asText()).isEqualTo("It did not end in time.");
      if (t.path("answer").asText().equals("ANOTHER_FAULT"))
        assertThat(t.path("note").asText()).isEqualTo("other: Other.");
    }
    idle(api, base);
  }

  @Test
  void whether_it_is_the_order_of_two_is_tried_by_swapping_them() throws Exception {
    // it stops where the upper one's chart is read while the lower one's other file is there
    Path game =
        game(
            "if grep -q upper add-ons/maps/x.map 2>/dev/null && [ -f add-ons/maps/low.map ]; then exit 7; fi\n");
    long workspace = api.workspace(game);
    String base = "/api/workspaces/" + workspace;
    api.install(
            workspace, "Lower 1.zip", Games.mod(Map.of("maps/x.map", "lower", "maps/low.map", "l")))
        .result();
    api.install(workspace, "Middle 1.zip", Games.mod(Map.of("maps/m.map", "m"))).result();
    api.install(workspace, "Upper 1.zip", Games.mod(Map.of("maps/x.map", "upper"))).result();
    api.job(base + "/deploy", null);
    Map<String, String> before = lying(game);
    String search = begun(api, base, search(Map.of("kind", "EXITS", "value", "7"), true));
    assertThat(found(over(api, search), "modName")).containsExactly("Lower", "Upper");
    JsonNode root = Patience.until(() -> api.get(search), s -> s.has("inside") && s.has("order"));
    JsonNode order = over(api, base + "/searches/" + root.path("order").asLong());
    assertThat(found(order, "modName")).containsExactly("Lower");
    assertThat(found(order, "aboveName")).containsExactly("Upper");
    over(api, base + "/searches/" + root.path("inside").asLong());
    idle(api, base);
    assertThat(lying(game)).isEqualTo(before);
  }

  @Test
  void a_set_is_built_up_in_steps_and_stops_at_the_first_that_fails() throws Exception {
    Path game = game("if [ -f add-ons/maps/9-b.map ]; then exit 5; fi\n");
    String base = workspace(api, game);
    api.job(base + "/deploy/undeploy", null);
    Map<String, String> before = lying(game);
    Map<String, Object> request = new LinkedHashMap<>(search(Map.of("kind", "ANY"), true));
    request.put("inSteps", true);
    String search = begun(api, base, request);
    JsonNode done = over(api, search);
    assertThat(found(done, "modName")).containsExactly("Mod 9");
    assertThat(done.path("steps").size()).isGreaterThan(1);
    assertThat(done.path("tries").get(1).path("why").asText()).isEqualTo("STEP");
    idle(api, base);
    assertThat(lying(game)).as("nothing was deployed before").isEqualTo(before);
    Trees.write(game.resolve("play.sh"), "exit 0\n");
    assertThat(over(api, begun(api, base, request)).path("search").path("state").asText())
        .isEqualTo("NOT_SHOWN");
    idle(api, base);
  }

  @Test
  void inside_a_plugin_it_ends_with_one_field_of_one_record() throws Exception {
    Path folder = Games.withPlugins(temp.resolve("game")).toRealPath();
    List<Record> own = new ArrayList<>();
    for (int i = 1; i <= 12; i++)
      own.add(
          new Record(
              "boat",
              new Ref("Base.plug", i),
              Optional.of(
                  new Value.Fields(
                      Map.of("name", new Value.Text("sound"), "crew", new Value.Int(i))))));
    Files.write(
        folder.resolve("data/Base.plug"),
        PluginCodec.encode(new Plugin("Base.plug", Header.of(5, List.of(), 13), own)));
    Trees.write(
        folder.resolve("game.yaml"),
        Games.WITH_PLUGINS + "run: { command: [ \"sh\", \"play.sh\" ] }\n");
    // the game stops over a word that one field of one record has
    Trees.write(
        folder.resolve("play.sh"), "if cat data/*.plug | grep -q rotten; then exit 5; fi\n");
    List<Record> changed = new ArrayList<>();
    for (Record r : own)
      changed.add(
          new Record(
              "boat",
              r.key(),
              Optional.of(
                  new Value.Fields(
                      Map.of(
                          "name", new Value.Text(r.key().id() == 8 ? "rotten" : "tarred"),
                          "crew", new Value.Int(3))))));
    byte[] plugin =
        PluginCodec.encode(new Plugin("Tar.plug", Header.of(5, List.of("Base.plug"), 1), changed));
    Map<String, byte[]> files = new LinkedHashMap<>();
    files.put("Tar.plug", plugin);
    long workspace = api.workspace(folder);
    api.install(workspace, "Tar 1.zip", Archives.zipOf(files));
    api.install(workspace, "Maps 1.zip", Games.mod(Map.of("maps/a.map", "a")));
    String base = "/api/workspaces/" + workspace;
    api.job(base + "/deploy", null);
    Map<String, String> before = lying(folder);
    Map<String, Object> fault = Map.of("kind", "EXITS", "value", "5");
    String search = begun(api, base, search(fault, true));
    over(api, search);
    JsonNode deepest =
        Patience.until(
            () -> api.get(base + "/searches").get(0),
            s ->
                s.path("level").asText().equals("FIELDS")
                    && s.path("state").asText().equals("FOUND"));
    JsonNode fields = api.get(base + "/searches/" + deepest.path("id").asLong());
    assertThat(found(fields, "record")).containsExactly("Base.plug/8");
    assertThat(found(fields, "field")).containsExactly("name");
    idle(api, base);
    assertThat(lying(folder)).isEqualTo(before);
  }

  private static final String DARK_WITH_FOUR =
      """
      mkdir -p logs
      say() { echo "{\\"at\\":\\"2026-01-01T00:00:00Z\\",$1}" >> logs/run.jsonl; }
      rm -f logs/run.jsonl
      say '"event":"start","version":"1"'
      if [ -f add-ons/maps/7-a.map ] && [ ! -f add-ons/maps/4-b.map ]; then
        say '"event":"report","name":"Lamps","value":9,"from":"7"'
        say '"event":"read","path":"add-ons/maps/7-a.map"'
      fi
      say '"event":"end","code":0'
      """;

  @Test
  void who_keeps_a_mod_from_showing_is_found_while_that_and_what_it_needs_stay_on()
      throws Exception {
    String base = workspace(api, game(DARK_WITH_FOUR));
    long seven = 0;
    for (JsonNode l : api.get(base + "/layers").path("layers"))
      if (l.path("name").asText().equals("Mod 7")) seven = l.path("mod").asLong();
    Map<String, Object> missing = Map.of("kind", "REPORTS_NOT", "name", "Lamps", "about", seven);
    JsonNode found = over(api, begun(api, base, search(missing, true)));
    assertThat(found(found, "modName")).containsExactly("Mod 4");
    assertThat(found.path("always")).extracting(JsonNode::asText).contains("Mod 7", "Mod 5");
    assertThat(found.path("parts").findValuesAsText("modName")).doesNotContain("Mod 7", "Mod 5");
    idle(api, base);
    // of a file it is known whose it is
    Map<String, Object> unread = Map.of("kind", "NOT_READ", "name", "add-ons/maps/7-a.map");
    assertThat(found(over(api, begun(api, base, search(unread, true))), "modName"))
        .containsExactly("Mod 4");
    idle(api, base);
    assertThat(
            api.refusal(
                "POST",
                base + "/suspects",
                Map.of("kind", "REPORTS_NOT", "name", "Lamps", "about", 987654)))
        .isEqualTo("not-found");
  }

  @Test
  void what_the_game_had_written_into_a_mods_file_is_there_again_and_no_set_inherits_it()
      throws Exception {
    // the game counts its starts in a file that a mod brings, and stops over the second one
    Path game =
        game(
            """
            if [ -f add-ons/maps/x.ini ]; then
              echo start >> add-ons/maps/x.ini
              if [ "$(grep -c start add-ons/maps/x.ini)" -gt 1 ]; then exit 9; fi
            fi
            # what it has written there itself is a part of the fault
            if [ -f add-ons/maps/y.map ] && grep -q "by the game" add-ons/maps/x.ini; then exit 5; fi
            """);
    Trees.write(
        game.resolve("game.yaml"), Games.PLAIN + RUN + "writable: [ \"add-ons/maps/*.ini\" ]\n");
    long workspace = api.workspace(game);
    String base = "/api/workspaces/" + workspace;
    api.install(workspace, "Counter 1.zip", Games.mod(Map.of("maps/x.ini", "[mine]\n")));
    api.install(workspace, "Broken 1.zip", Games.mod(Map.of("maps/y.map", "y")));
    api.install(workspace, "Plain 1.zip", Games.mod(Map.of("maps/z.map", "z")));
    api.job(base + "/deploy", null);
    Trees.write(game.resolve("add-ons/maps/x.ini"), "[mine]\n# by the game\n");
    Map<String, String> before = lying(game);
    JsonNode over =
        over(api, begun(api, base, search(Map.of("kind", "EXITS", "value", "5"), true)));
    assertThat(found(over, "modName")).containsExactly("Counter", "Broken");
    assertThat(over.path("tries").findValuesAsText("answer")).doesNotContain("ANOTHER_FAULT");
    idle(api, base);
    assertThat(lying(game)).isEqualTo(before);
    assertThat(Files.readString(game.resolve("add-ons/maps/x.ini"))).contains("# by the game");
    assertThat(Files.exists(game.resolve(".ironing/before-trials"))).isFalse();
    JsonNode distance = api.get(base + "/deploy");
    for (String way : List.of("add", "replace", "takeOut"))
      assertThat(distance.path(way).asInt(-1)).as(way).isZero();
    assertThat(Files.exists(game.resolve(".ironing/changed"))).as("nothing is set aside").isFalse();
    assertThat(api.get(base + "/saves/profiles").toString()).doesNotContain("Sets that are tried");
  }

  private static final String SLOW_WITH_FIVE =
      """
      mkdir -p logs
      say() { echo "{\\"at\\":\\"$(date -u +%Y-%m-%dT%H:%M:%S.%3NZ)\\",$1}" >> logs/run.jsonl; }
      rm -f logs/run.jsonl
      say '"event":"start","version":"1"'
      if [ -f add-ons/maps/5-a.map ]; then sleep 1; fi
      say '"event":"loaded"'
      say '"event":"end","code":0'
      """;

  @Test
  void what_a_mod_costs_is_measured_with_it_and_without_it_and_what_needs_it() throws Exception {
    Path game = game(SLOW_WITH_FIVE);
    String base = workspace(api, game);
    Map<String, String> before = lying(game);
    long five = 0, one = 0;
    for (JsonNode l : api.get(base + "/layers").path("layers")) {
      if (l.path("name").asText().equals("Mod 5")) five = l.path("mod").asLong();
      if (l.path("name").asText().equals("Mod 1")) one = l.path("mod").asLong();
    }
    JsonNode done = measured(base, five, 3);
    assertThat(done.path("tries").findValuesAsText("why"))
        .containsExactly(
            "MEASURE_WITH",
            "MEASURE_WITHOUT",
            "MEASURE_WITHOUT",
            "MEASURE_WITH",
            "MEASURE_WITH",
            "MEASURE_WITHOUT");
    JsonNode m = done.path("measured");
    assertThat(m.path("name").asText()).isEqualTo("Mod 5");
    assertThat(m.path("alsoLeftOut")).extracting(JsonNode::asText).containsExactly("Mod 7");
    for (JsonNode f : m.path("figures")) {
      assertThat(f.at("/with/runs").asInt()).isEqualTo(3);
      if (f.path("measure").asText().equals("MEMORY")) continue;
      assertThat(f.path("apart").asBoolean()).as(f.toString()).isTrue();
      assertThat(f.at("/with/least").asLong()).isGreaterThanOrEqualTo(1000);
      assertThat(f.at("/without/middle").asLong()).isLessThan(f.at("/with/middle").asLong());
    }
    idle(api, base);
    assertThat(lying(game)).isEqualTo(before);

    JsonNode other = measured(base, one, 1);
    assertThat(other.at("/measured/alsoLeftOut")).isEmpty();
    idle(api, base);
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(one), "on", false));
    api.job(base + "/deploy", null);
    assertThat(api.refusal("POST", base + "/measurements", Map.of("mod", one)))
        .isEqualTo("search-nothing");
    assertThat(api.refusal("POST", base + "/measurements", Map.of("mod", five, "times", 0)))
        .isEqualTo("fault-invalid");
    assertThat(api.refusal("POST", base + "/suspects", Map.of("kind", "COSTS", "name", "Mod 5")))
        .isEqualTo("fault-invalid");
  }

  private JsonNode measured(String base, long mod, int times) {
    JsonNode made =
        api.send("POST", base + "/measurements", Map.of("mod", mod, "times", times), Map.of())
            .body();
    JsonNode done = over(api, base + "/searches/" + made.path("search").path("id").asLong());
    assertThat(done.path("search").path("state").asText()).isEqualTo("MEASURED");
    return done;
  }

  @Test
  void a_game_that_loads_too_slowly_is_searched_for() throws Exception {
    String base = workspace(api, game(SLOW_WITH_FIVE));
    String search = begun(api, base, search(Map.of("kind", "LOADS_SLOWER", "value", "900"), true));
    assertThat(found(over(api, search), "modName")).containsExactly("Mod 5");
    idle(api, base);
    long run = api.send("POST", base + "/runs", null, Map.of()).body().path("run").asLong();
    Patience.until(
        () -> api.get(base + "/runs/" + run), r -> !r.path("state").asText().equals("RUNNING"));
    JsonNode cost = api.get(base + "/runs/" + run + "/costs").get(0);
    assertThat(cost.path("loadingMs").asLong()).isBetween(1000L, cost.path("ms").asLong());
    assertThat(cost.path("switched")).isEmpty();
    long mod = api.get(base + "/layers").path("layers").get(0).path("mod").asLong();
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(mod), "on", false));
    long after = api.send("POST", base + "/runs", null, Map.of()).body().path("run").asLong();
    Patience.until(
        () -> api.get(base + "/runs/" + after), r -> !r.path("state").asText().equals("RUNNING"));
    JsonNode costs = api.get(base + "/runs/" + after + "/costs");
    assertThat(costs).hasSize(2);
    assertThat(costs.get(0).path("switched").findValuesAsText("how")).containsExactly("OFF");
  }

  @Test
  void what_makes_no_sense_is_refused() throws Exception {
    Path game = game("exit 0\n");
    String base = "/api/workspaces/" + api.workspace(game);
    assertThat(api.refusal("POST", base + "/suspects", Map.of("kind", "EXITS", "value", "x")))
        .isEqualTo("fault-invalid");
    assertThat(api.refusal("POST", base + "/suspects", Map.of("kind", "STOPS")))
        .isEqualTo("fault-invalid");
    assertThat(api.refusal("POST", base + "/searches", search(BOTH_MAPS, true)))
        .isEqualTo("search-nothing");
    assertThat(api.refusal("DELETE", base + "/searches/12345678", null)).isEqualTo("not-found");
    Path other = temp.resolve("other");
    Trees.write(Games.plain(other).resolve("game.yaml"), Games.PLAIN + RUN);
    Trees.write(other.resolve("play.sh"), "exit 0\n");
    String full = workspace(api, other.toRealPath());
    String none = begun(api, full, search(Map.of("kind", "EXITS", "value", "0"), true));
    assertThat(over(api, none).path("search").path("state").asText()).isEqualTo("NONE");
    String hidden = begun(api, full, search(BOTH_MAPS, true));
    assertThat(over(api, hidden).path("search").path("state").asText()).isEqualTo("NOT_SHOWN");
    idle(api, full);
  }

  @Test
  void what_the_user_deploys_between_two_tries_stays_when_the_search_is_left() throws Exception {
    Path game = game("exit 0\n");
    String base = workspace(api, game);
    String search = begun(api, base, search(Map.of("kind", "WORDS", "name", "Odd"), false));
    api.send("POST", search + "/answers", Map.of("answer", "FAILS"), Map.of());
    api.job(search + "/play", null);
    Patience.until(() -> api.get(search), s -> !s.path("asked").path("running").asBoolean());
    assertThat(Files.exists(game.resolve("add-ons/maps/1-a.map"))).isFalse();
    long mod = api.get(base + "/layers").path("layers").get(0).path("mod").asLong();
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(mod), "on", false));
    api.job(base + "/deploy", null);
    Map<String, String> mine = lying(game);
    // once more: what comes back is what the user has deployed, not what it was at the beginning
    api.job(search + "/play", null);
    Patience.until(() -> api.get(search), s -> !s.path("asked").path("running").asBoolean());
    assertThat(lying(game)).isNotEqualTo(mine);
    api.send("POST", search + "/rest", null, Map.of("Prefer", "wait=60"));
    idle(api, base);
    assertThat(lying(game)).isEqualTo(mine);
    api.job(search + "/play", null);
    Patience.until(() -> api.get(search), s -> !s.path("asked").path("running").asBoolean());
    api.job(base + "/deploy", null);
    api.send("DELETE", search, null, Map.of("Prefer", "wait=60"));
    idle(api, base);
    assertThat(lying(game)).isEqualTo(mine);
  }

  @Test
  void a_mod_that_is_removed_meanwhile_is_told() throws Exception {
    String base = workspace(api, game("exit 0\n"));
    String search = begun(api, base, search(Map.of("kind", "WORDS", "name", "Odd"), false));
    long mod = api.get(base + "/layers").path("layers").get(0).path("mod").asLong();
    api.send("DELETE", base + "/mods/" + mod, null, Map.of());
    JsonNode failed = api.send("POST", search + "/play", null, Map.of("Prefer", "wait=60")).body();
    assertThat(failed.path("problems").get(0).path("code").asText()).isEqualTo("search-mod-gone");
    api.send("DELETE", search, null, Map.of("Prefer", "wait=60"));
  }
}
