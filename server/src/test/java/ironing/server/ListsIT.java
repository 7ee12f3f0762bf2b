package ironing.server;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Published lists: what is missing, and bringing the layers to them. */
@ExtendWith(SharedServer.class)
class ListsIT {
  private static final String LIST =
      """
      position,mod,name,version,on,section,note
      1,c,C,1.0,yes,,
      2,b,B,2.0,no,,Answer “large”.
      3,kelp,Kelp,1,yes,,
      4,a,A,1.0,yes,,
      5,A,again by name,,,,
      """;

  @TempDir Path temp;
  private Api api;
  private String base;
  private long workspace;
  private final List<Long> mods = new ArrayList<>();

  @BeforeEach
  void fourMods(Api api) {
    this.api = api;
    workspace = api.workspace(Games.plain(temp.resolve("game")));
    base = "/api/workspaces/" + workspace;
    for (String name : List.of("A", "B", "C", "D")) {
      String card =
          "format: ironing/mod@1\nid: %s\nname: %s\nversion: 1.0\n"
              .formatted(name.toLowerCase(Locale.ROOT), name);
      mods.add(
          api.install(
                  workspace,
                  name + ".zip",
                  Games.mod(Map.of("mod-card.yaml", card, "tide.txt", name)))
              .result());
    }
  }

  private Api.Answer bringIn(String list) {
    return api.ask(
        "POST",
        base + "/lists?name=coast.csv",
        list.getBytes(UTF_8),
        Map.of("Content-Type", "application/octet-stream"));
  }

  private String order() {
    StringBuilder order = new StringBuilder();
    for (JsonNode l : api.get(base + "/layers").path("layers"))
      order.append(
          l.path("on").asBoolean()
              ? l.path("name").asText()
              : l.path("name").asText().toLowerCase(Locale.ROOT));
    return order.toString();
  }

  @Test
  void a_list_is_compared_and_taken_step_by_step_and_at_once() {
    Api.Answer made = bringIn(LIST);
    assertThat(made.status()).isEqualTo(201);
    JsonNode list = made.body();
    long id = list.path("id").asLong();
    assertThat(order()).isEqualTo("ABCD");
    JsonNode entries = list.path("entries");
    assertThat(entries.get(0).path("position").asInt()).isEqualTo(3);
    assertThat(entries.get(1).path("otherVersion").asBoolean()).isTrue();
    assertThat(entries.get(1).path("switchTo").asBoolean(true)).isFalse();
    assertThat(entries.get(2).has("mod")).isFalse();
    assertThat(list.path("extra").findValuesAsText("name")).containsExactly("D");
    // C below B below A: two of the three move, and D, of which the list does not speak, stays
    int moves = 0;
    for (JsonNode e : entries) if (e.has("to")) moves++;
    assertThat(moves).isEqualTo(2);
    JsonNode summary = api.get(base + "/lists").get(0);
    assertThat(summary.path("away").asInt()).isEqualTo(4);

    String take = base + "/lists/" + id + "/take";
    JsonNode dry = api.send("POST", take + "?dryRun=true", Map.of(), Map.of()).body();
    assertThat(order()).isEqualTo("ABCD");
    assertThat(dry.path("files").asInt()).isZero();
    api.change("POST", take, Map.of("switches", List.of(mods.get(1))));
    assertThat(order()).isEqualTo("AbCD");
    api.change("POST", take, Map.of());
    assertThat(order().replace("D", "")).isEqualTo("CbA");
    JsonNode timeline = api.get(base + "/timeline").path("changes");
    assertThat(timeline.get(0).path("origin").asText()).isEqualTo("import");
    assertThat(timeline.get(0).path("said").asText()).contains("coast");
    api.send("POST", base + "/undo", null, Map.of());
    assertThat(order()).isEqualTo("AbCD");
  }

  @Test
  void what_departs_from_a_list_is_remembered_stays_and_is_suspected() {
    long id = bringIn(LIST).body().path("id").asLong();
    String list = base + "/lists/" + id, departures = list + "/departures";
    api.send("PUT", departures, Map.of("number", 2, "reason", " Theirs is too large. "), Map.of());
    JsonNode b = api.get(list).path("entries").get(1);
    assertThat(b.path("departure").asText()).isEqualTo("Theirs is too large.");
    JsonNode summary = api.get(base + "/lists").get(0);
    assertThat(summary.path("away").asInt()).isEqualTo(3);
    assertThat(summary.path("departures").asInt()).isEqualTo(1);
    JsonNode suspects =
        api.send("POST", base + "/suspects", Map.of("kind", "WORDS", "name", "Odd"), Map.of())
            .body()
            .path("suspects");
    assertThat(suspects.findValuesAsText("name")).contains("B");
    for (JsonNode s : suspects)
      if (s.path("name").asText().equals("B"))
        assertThat(s.path("reasons").toString()).contains("DEPARTS");

    api.change("POST", list + "/take", Map.of());
    assertThat(order()).as("C below A, and B stays on").contains("B");
    assertThat(order().indexOf('C')).isLessThan(order().indexOf('A'));

    // an entry that is as the list says departs from nothing, whatever was said of it
    api.send("PUT", departures, Map.of("number", 4, "reason", ""), Map.of());
    assertThat(api.get(list).path("entries").get(3).has("departure")).isFalse();
    api.send("PUT", departures, Map.of("number", 2), Map.of());
    assertThat(api.get(list).path("entries").get(1).has("departure")).isFalse();
    assertThat(api.refusal("PUT", departures, Map.of("number", 99, "reason", "x")))
        .isEqualTo("not-found");
    assertThat(api.refusal("PUT", departures, Map.of("number", 1, "reason", "x".repeat(501))))
        .isEqualTo("bad-reason");
  }

  @Test
  void what_is_kept_here_is_not_moved_by_a_list() {
    api.change(
        "POST",
        base + "/layers/keep",
        Map.of("mods", List.of(mods.get(0), mods.get(2)), "kept", true));
    JsonNode entries = bringIn(LIST).body().path("entries");
    long held = 0;
    for (JsonNode e : entries) {
      if (e.path("heldFast").asBoolean()) held++;
      if (e.path("name").asText().matches("[AC]")) assertThat(e.has("to")).isFalse();
    }
    assertThat(held).isEqualTo(1);
  }

  @Test
  void notes_are_ticked_off_and_a_list_comes_back() {
    long id = bringIn(LIST).body().path("id").asLong();
    api.send(
        "PUT", base + "/lists/" + id + "/ticks", Map.of("number", 2, "ticked", true), Map.of());
    assertThat(api.get(base + "/lists/" + id).path("entries").get(1).path("ticked").asBoolean())
        .isTrue();
    api.send("DELETE", base + "/lists/" + id, null, Map.of());
    assertThat(api.get(base + "/lists")).isEmpty();
    api.send("POST", base + "/lists/" + id + "/back", null, Map.of());
    assertThat(api.get(base + "/lists").get(0).path("entries").asInt()).isEqualTo(4 + 1);
    Api.Answer none =
        api.ask(
            "PUT", base + "/lists/" + id + "/ticks", Map.of("number", 9, "ticked", true), Map.of());
    assertThat(none.status()).isEqualTo(404);
  }

  @Test
  void what_is_no_list_is_refused_and_nothing_is_kept() {
    assertThat(bringIn("speed\n1\n").body().path("code").asText()).isEqualTo("bad-list");
    assertThat(bringIn("plugin\nA.plug\n").body().path("detail").asText()).contains("Load order");
    assertThat(api.get(base + "/lists")).isEmpty();
  }

  @Test
  void a_pair_of_mods_has_notes_of_its_own() {
    long a = mods.get(0), b = mods.get(1);
    Map<String, Object> note =
        Map.of("mod", b, "other", a, "note", "Coast first, or the buoys sink.");
    api.send("PUT", base + "/layers/pair-notes", note, Map.of());
    JsonNode kept = api.get(base + "/layers/pair-notes").get(0);
    assertThat(kept.path("mod").asLong()).isEqualTo(a);
    assertThat(kept.path("otherName").asText()).isEqualTo("B");
    // through an update of one of them
    String card = "format: ironing/mod@1\nid: b\nname: B\nversion: 2.0\n";
    byte[] zip = Games.mod(Map.of("mod-card.yaml", card, "tide.txt", "new"));
    api.install(workspace, "B2.zip", zip);
    assertThat(api.get(base + "/layers/pair-notes")).hasSize(1);
    Map<String, Object> none = Map.of("mod", a, "other", b, "note", " ");
    api.send("PUT", base + "/layers/pair-notes", none, Map.of());
    assertThat(api.get(base + "/layers/pair-notes")).isEmpty();
    assertThat(
            api.ask(
                    "PUT",
                    base + "/layers/pair-notes",
                    Map.of("mod", a, "other", a, "note", "x"),
                    Map.of())
                .body()
                .path("code")
                .asText())
        .isEqualTo("bad-pair");
  }
}
