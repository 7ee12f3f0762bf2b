package ironing.server;

import static ironing.core.testkit.Trees.write;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Schemas;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.DemoWorld;
import ironing.server.testkit.Patience;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** From archives to a tested game and back, over HTTP, with the sample world. */
@ExtendWith(SharedServer.class)
class WholeWayIT {
  @TempDir Path temp;
  private Api api;
  private DemoWorld world;
  private long workspace;
  private String base;

  @BeforeEach
  void bringTheSampleWorldIn(Api api) {
    this.api = api;
    world = DemoWorld.in(temp);
    workspace = world.bringIn(api);
    base = "/api/workspaces/" + workspace;
    switchOff("Coal to Kelp Conversion");
  }

  @Test
  void a_script_walks_the_whole_way_and_back() throws Exception {
    Map<String, String> before = bytesOf(world.game());
    takeTheProposal();
    decideEveryRecord();
    long patch = api.job(base + "/mends/patch", null).result();
    assertThat(api.get(base + "/records").path("states").path("needYou").asInt()).isZero();
    assertThat(last(api.get(base + "/load-order").path("plugins")).path("mod").asLong())
        .as("the patch loads last")
        .isEqualTo(patch);

    deploy();
    assertThat(api.get(base).path("counts").path("deployed").asInt()).isPositive();
    assertSumsHold(picture());

    JsonNode run = play();
    assertThat(run.path("state").asText()).isEqualTo("PLAYED");
    assertThat(values(run, "patch.plug")).as("reported from the patch").isNotEmpty();
    assertFormatsHold();
    JsonNode counts = api.get(base).path("counts");
    assertThat(counts.path("read").asInt()).isPositive();

    JsonNode undone = api.job(base + "/deploy/undeploy", null).body();
    assertThat(undone.path("state").asText()).isEqualTo("DONE");
    Map<String, String> after = bytesOf(world.game());
    Map<String, String> strays = new TreeMap<>();
    for (JsonNode g : api.get(base + "/drift").path("groups"))
      for (JsonNode f : g.path("files"))
        strays.put(f.path("path").asText(), g.path("cause").asText());
    // what the game wrote is named, and stays; all else is as it was, byte for byte
    assertThat(strays.keySet()).as("its log is no stray").doesNotContain("logs/last-run.jsonl");
    after.remove("logs/last-run.jsonl");
    strays.keySet().forEach(after::remove);
    // saves are protected: nobody asks about them
    after.keySet().removeIf(p -> p.startsWith("saves/") && !before.containsKey(p));
    Map<String, String> expected = new TreeMap<>(before);
    strays.keySet().forEach(expected::remove);
    assertThat(after).isEqualTo(expected);
    assertThat(strays).doesNotContainValue("GAME_MISSING");
    assertThat(Files.exists(world.game().resolve(".ironing/kept"))).isFalse();
  }

  @Test
  void a_game_that_stops_is_told_in_plain_words_with_the_mod() throws Exception {
    deploy();
    JsonNode run = play();
    assertThat(run.path("state").asText()).isEqualTo("STOPPED");
    assertThat(run.path("exitCode").asInt()).isNotZero();
    JsonNode fault = run.path("fault");
    assertThat(fault.path("code").asText()).isEqualTo("master-late");
    assertThat(fault.path("plugin").asText()).isEqualTo("NightFerry.plug");
    assertThat(fault.path("modName").asText()).isEqualTo("Night Ferry");
    assertThat(fault.path("text").asText()).contains("NightFerry.plug");
    JsonNode wrinkles = api.get(base).path("wrinkles");
    assertThat(wrinkles.findValuesAsText("title")).anyMatch(t -> t.contains("NightFerry"));
  }

  @Test
  void a_layer_tells_its_relations_and_the_file_in_play_of_every_contested_path() {
    long low = mod("Community Caulking");
    JsonNode relations = api.get(base + "/layers/" + low + "/relations");
    JsonNode paths = api.get(base + "/layers/" + low + "/paths?limit=5000");
    int related =
        StreamSupport.stream(relations.path("coveredBy").spliterator(), false)
            .mapToInt(r -> r.path("paths").asInt())
            .sum();
    assertThat(related).isPositive();
    assertThat(paths.path("total").asInt()).isEqualTo(paths.path("paths").size()).isPositive();
    for (JsonNode p : paths.path("paths")) {
      assertThat(p.path("holders").size()).isGreaterThan(1);
      assertThat(p.path("why").asText()).isNotBlank();
      assertThat(p.path("holders").findValuesAsText("mod")).contains(Long.toString(low));
    }
  }

  @Test
  void moving_a_layer_to_the_top_puts_its_files_in_play_and_asking_first_changes_nothing() {
    long low = mod("Community Caulking");
    int top = api.get(base + "/layers").path("layers").size();
    Map<String, Object> move = Map.of("mods", List.of(low), "to", top);
    JsonNode asked = api.send("POST", base + "/layers/move?dryRun=true", move, Map.of()).body();
    assertThat(asked.path("files").asInt()).isPositive();
    Map<String, String> before = picture();
    assertThat(api.get(base + "/layers/" + low + "/relations").path("coveredBy")).isNotEmpty();
    JsonNode moved = api.change("POST", base + "/layers/move", move);
    assertThat(moved.path("files").asInt()).isEqualTo(asked.path("files").asInt());
    Map<String, String> after = picture();
    long changed =
        after.entrySet().stream().filter(e -> !e.getValue().equals(before.get(e.getKey()))).count();
    assertThat(changed).as("as many paths as was said").isEqualTo(moved.path("files").asLong());
    assertThat(api.get(base + "/layers/" + low + "/relations").path("coveredBy")).isEmpty();
  }

  @Test
  void a_plugin_moves_and_one_that_cannot_go_there_stops_where_its_stage_ends() {
    JsonNode order = api.get(base + "/load-order");
    String last = last(order.path("plugins")).path("name").asText();
    Map<String, Object> up = Map.of("name", last, "to", 1);
    JsonNode difference = api.change("POST", base + "/load-order/move", up);
    assertThat(difference.path("place").path("wished").asInt()).isEqualTo(1);
    assertThat(difference.path("place").path("to").asInt()).isGreaterThan(2);
    assertThat(difference.path("place").path("reason").asText()).isNotBlank();
    assertThat(api.get(base + "/load-order").path("plugins").get(0).path("own").asBoolean())
        .isTrue();
  }

  @Test
  void slots_are_counted_over_plugins_that_are_on() {
    JsonNode slots = api.get(base + "/load-order").path("slots");
    int used = slots.path("used").asInt();
    assertThat(slots.path("total").asInt()).isEqualTo(96);
    assertThat(slots.path("left").asInt()).isEqualTo(96 - 1 - used);
    JsonNode plugins = api.get(base + "/load-order").path("plugins");
    String name = last(plugins).path("name").asText();
    Map<String, Object> off = Map.of("names", List.of(name), "on", false);
    api.change("POST", base + "/load-order/switch", off);
    assertThat(api.get(base + "/load-order").path("slots").path("used").asInt())
        .isEqualTo(used - 1);
  }

  @Test
  void a_decision_is_taken_and_taken_back() {
    takeTheProposal();
    JsonNode asked = asked().get(0);
    String record = base + "/records/" + asked.path("key").asText();
    JsonNode place = firstAsked(api.get(record));
    String choice = place.path("changes").get(0).path("plugin").asText();
    Map<String, Object> decision =
        Map.of("place", place.path("place").asText(), "decision", Map.of("take", choice));
    JsonNode board = api.change("PUT", record + "/decisions", decision);
    assertThat(find(board, place).path("how").asText()).isEqualTo("DECIDED");
    Map<String, Object> back = Map.of("place", place.path("place").asText());
    board = api.change("PUT", record + "/decisions", back);
    assertThat(find(board, place).path("how").asText()).isEqualTo("ASKED");
    Map<String, Object> wrong =
        Map.of("place", place.path("place").asText(), "decision", Map.of("take", "Nobody.plug"));
    String etag = api.send("GET", record, null, Map.of()).header("ETag");
    Api.Answer refused = api.ask("PUT", record + "/decisions", wrong, Map.of("If-Match", etag));
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.body().path("title").asText()).isEqualTo("Nobody.plug");
  }

  @Test
  void a_patch_is_stale_once_what_it_was_made_from_is_switched_off() {
    takeTheProposal();
    decideEveryRecord();
    long patch = api.job(base + "/mends/patch", null).result();
    assertThat(api.get(base + "/mends").get(0).path("stale").asBoolean()).isFalse();
    String from =
        api.get(base + "/mends").get(0).path("ingredients").findValuesAsText("plugin").stream()
            .filter(p -> !List.of("Skerry.plug", "Isles.plug").contains(p))
            .findFirst()
            .orElseThrow();
    Map<String, Object> off = Map.of("names", List.of(from), "on", false);
    api.change("POST", base + "/load-order/switch", off);
    JsonNode mend = api.get(base + "/mends").get(0);
    assertThat(mend.path("stale").asBoolean()).isTrue();
    assertThat(mend.path("reasons").toString()).contains(from);
    assertThat(api.job(base + "/mends/patch", null).result()).as("made anew").isEqualTo(patch);
    assertThat(api.get(base + "/mends").get(0).path("stale").asBoolean()).isFalse();
  }

  @Test
  void originals_come_back_when_a_mod_is_switched_off_and_deployed_anew() throws Exception {
    takeTheProposal();
    Map<String, String> before = bytesOf(world.game());
    deploy();
    JsonNode plan = api.get(base + "/deploy/plan");
    assertThat(plan.path("total").asInt()).as("nothing is left to do").isZero();
    for (JsonNode l : api.get(base + "/layers").path("layers")) switchOff(l.path("name").asText());
    deploy();
    Map<String, String> after = bytesOf(world.game());
    after.keySet().retainAll(before.keySet());
    after.remove("settings/roster.txt");
    before.remove("settings/roster.txt");
    assertThat(after).isEqualTo(before);
  }

  @Test
  void what_somebody_changed_in_the_game_folder_is_set_aside_not_lost() throws Exception {
    takeTheProposal();
    deploy();
    JsonNode linked =
        StreamSupport.stream(picturePage().spliterator(), false)
            .filter(p -> p.path("holders").get(0).path("mod").asLong() != 0)
            .filter(p -> p.path("path").asText().startsWith("data/ui/"))
            .filter(p -> p.path("holders").get(0).path("pack").isMissingNode())
            .findFirst()
            .orElseThrow();
    String path = linked.path("path").asText();
    Files.delete(world.game().resolve(path));
    write(world.game().resolve(path), "my own work");
    JsonNode step =
        StreamSupport.stream(api.get(base + "/deploy/plan").path("steps").spliterator(), false)
            .filter(s -> s.path("path").asText().equals(path))
            .findFirst()
            .orElseThrow();
    assertThat(step.path("changed").asBoolean()).isTrue();
    deploy();
    assertThat(api.get(base + "/drift").path("groups").findValuesAsText("cause"))
        .contains("SET_ASIDE");
    assertThat(Trees.of(world.game().resolve(".ironing/changed"))).containsValue("my own work");
  }

  private void takeTheProposal() {
    JsonNode proposal = api.get(base + "/load-order/proposal");
    assertThat(proposal.path("ring")).isEmpty();
    api.change("POST", base + "/load-order/proposal", null);
    assertThat(api.get(base + "/load-order").path("troubles").findValuesAsText("stops"))
        .doesNotContain("true");
  }

  private void decideEveryRecord() {
    for (JsonNode c : asked()) {
      String record = base + "/records/" + c.path("key").asText();
      for (JsonNode p = firstAsked(api.get(record)); p != null; ) {
        String choice = last(p.path("changes")).path("plugin").asText();
        Map<String, Object> decision =
            Map.of("place", p.path("place").asText(), "decision", Map.of("take", choice));
        p = firstAsked(api.change("PUT", record + "/decisions", decision));
      }
    }
  }

  private List<JsonNode> asked() {
    List<JsonNode> asked = new ArrayList<>();
    api.get(base + "/records/list?state=NEEDS_YOU").path("records").forEach(asked::add);
    assertThat(asked).isNotEmpty();
    return asked;
  }

  private static JsonNode firstAsked(JsonNode board) {
    for (JsonNode p : board.path("places")) {
      if (p.path("how").asText().equals("ASKED")) return p;
    }
    return null;
  }

  private static JsonNode find(JsonNode board, JsonNode place) {
    for (JsonNode p : board.path("places")) {
      if (p.path("place").equals(place.path("place"))) return p;
    }
    throw new AssertionError("no such place: " + place);
  }

  private void deploy() {
    JsonNode job = api.job(base + "/deploy", null).body();
    assertThat(job.path("state").asText()).as(job.toString()).isEqualTo("DONE");
  }

  private void assertFormatsHold() throws IOException {
    String note = Files.readString(world.game().resolve(".ironing/laid-out.json"));
    assertThat(Schemas.errorsInJson("laid-out", note)).isEmpty();
    assertThat(Files.readAllLines(world.game().resolve("logs/last-run.jsonl")))
        .hasSizeGreaterThan(10)
        .allSatisfy(l -> assertThat(Schemas.errorsInJson("run-log-line", l)).isEmpty());
  }

  private JsonNode play() {
    long run = api.send("POST", base + "/runs", null, Map.of()).body().path("run").asLong();
    return Patience.until(
        () -> api.get(base + "/runs/" + run), d -> !d.path("state").asText().equals("RUNNING"));
  }

  private static List<String> values(JsonNode run, String from) {
    List<String> values = new ArrayList<>();
    for (JsonNode r : run.path("reports")) {
      if (r.path("from").asText().contains(from)) values.add(r.path("name").asText());
    }
    return values;
  }

  private long mod(String name) {
    for (JsonNode l : api.get(base + "/layers").path("layers")) {
      if (l.path("name").asText().equals(name)) return l.path("mod").asLong();
    }
    throw new AssertionError("no layer " + name);
  }

  private void switchOff(String name) {
    Map<String, Object> off = Map.of("mods", List.of(mod(name)), "on", false);
    api.change("POST", base + "/layers/switch", off);
  }

  private JsonNode picturePage() {
    JsonNode page = api.get(base + "/picture?limit=5000");
    assertThat(page.path("total").asInt()).isEqualTo(page.path("paths").size());
    return page.path("paths");
  }

  /** Every path with the SHA-256 and mod of the file in play; packed ones are marked. */
  private Map<String, String> picture() {
    Map<String, String> picture = new TreeMap<>();
    for (JsonNode p : picturePage()) {
      JsonNode top = p.path("holders").get(0);
      String packed = top.has("pack") ? " packed" : "";
      String from = " " + top.path("mod").asText();
      picture.put(p.path("path").asText(), top.path("sha256").asText() + from + packed);
    }
    return picture;
  }

  // the deployed tree against GNU sha256sum: the picture is what lies in the folder
  private void assertSumsHold(Map<String, String> picture) throws Exception {
    StringBuilder sums = new StringBuilder();
    picture.forEach(
        (path, what) -> {
          // the list of plugins is Ironing's own work, not a file of the picture
          if (!what.endsWith(" packed") && !path.equals("settings/roster.txt")) {
            sums.append(what, 0, 64).append("  ").append(path).append('\n');
          }
        });
    Path list = write(temp.resolve("sums"), sums.toString());
    Process check =
        new ProcessBuilder("sha256sum", "--check", "--quiet", "--strict", list.toString())
            .directory(world.game().toFile())
            .redirectErrorStream(true)
            .start();
    String said = new String(check.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(said).isEmpty();
    assertThat(check.waitFor()).isZero();
  }

  private static Map<String, String> bytesOf(Path folder) throws Exception {
    Map<String, String> out = new TreeMap<>();
    try (var all = Files.walk(folder)) {
      for (Path p : all.filter(Files::isRegularFile).toList()) {
        String path = folder.relativize(p).toString();
        if (path.startsWith(".ironing/")) continue;
        out.put(path, new String(Files.readAllBytes(p), StandardCharsets.ISO_8859_1));
      }
    }
    return out;
  }

  private static JsonNode last(JsonNode list) {
    return list.get(list.size() - 1);
  }
}
