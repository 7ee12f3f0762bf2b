package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Changing the order: revisions, what is refused, undoing, and two at once. */
@ExtendWith(SharedServer.class)
class ArrangementIT {
  @TempDir Path temp;
  private Api api;
  private long workspace;
  private String base;
  private final List<Long> mods = new ArrayList<>();

  @BeforeEach
  void fourMods(Api api) {
    this.api = api;
    workspace = api.workspace(Games.plain(temp.resolve("game")));
    base = "/api/workspaces/" + workspace;
    for (String name : List.of("A", "B", "C", "D")) {
      byte[] zip = Games.mod(Map.of("tide.txt", name, name + ".txt", name));
      mods.add(api.install(workspace, name + ".zip", zip).result());
    }
  }

  @Test
  void what_was_brought_in_last_lies_on_top_and_is_on() {
    assertThat(order()).containsExactlyElementsOf(mods);
    assertThat(api.get(base + "/layers").path("layers").findValuesAsText("on"))
        .containsOnly("true");
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo(mods.get(3));
  }

  @Test
  void a_change_without_or_with_an_old_revision_is_refused_and_changes_nothing() {
    Map<String, Object> move = Map.of("mods", List.of(mods.get(0)), "to", 4);
    Api.Answer without = api.ask("POST", base + "/layers/move", move, Map.of());
    assertThat(without.status()).isEqualTo(428);
    assertThat(without.body().path("code").asText()).isEqualTo("if-match-missing");
    String etag = api.send("GET", base + "/layers", null, Map.of()).header("ETag");
    api.send("POST", base + "/layers/move", move, Map.of("If-Match", etag));
    List<Long> after = order();
    Api.Answer stale =
        api.ask(
            "POST",
            base + "/layers/move",
            Map.of("mods", List.of(mods.get(1)), "to", 4),
            Map.of("If-Match", etag));
    assertThat(stale.status()).isEqualTo(412);
    assertThat(stale.body().path("code").asText()).isEqualTo("changed-meanwhile");
    assertThat(order()).isEqualTo(after);
  }

  @Test
  void of_two_changes_of_one_revision_at_once_one_is_taken() throws Exception {
    ExecutorService two = Executors.newFixedThreadPool(2);
    try {
      for (int round = 0; round < 10; round++) {
        String etag = api.send("GET", base + "/layers", null, Map.of()).header("ETag");
        List<Callable<Integer>> both = new ArrayList<>();
        // to the top from below it: never a move that changes nothing
        List<Long> now = order();
        for (int i = 0; i < 2; i++) {
          Map<String, Object> move = Map.of("mods", List.of(now.get(i)), "to", 4);
          both.add(
              () ->
                  api.ask("POST", base + "/layers/move", move, Map.of("If-Match", etag)).status());
        }
        List<Integer> statuses = new ArrayList<>();
        for (Future<Integer> f : two.invokeAll(both)) statuses.add(f.get());
        assertThat(statuses).containsExactlyInAnyOrder(200, 412);
      }
    } finally {
      two.shutdown();
    }
  }

  @Test
  void several_layers_move_together_in_their_order() {
    change("POST", "/layers/move", Map.of("mods", List.of(mods.get(0), mods.get(1)), "to", 3));
    assertThat(order()).containsExactly(mods.get(2), mods.get(3), mods.get(0), mods.get(1));
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo(mods.get(1));
  }

  @Test
  void the_whole_order_can_be_given_and_must_name_every_mod_once() {
    List<Map<String, Object>> wishes = new ArrayList<>();
    for (int i = 3; i >= 0; i--) wishes.add(Map.of("mod", mods.get(i), "on", i != 0));
    change("PUT", "/layers", Map.of("layers", wishes));
    assertThat(order()).containsExactly(mods.get(3), mods.get(2), mods.get(1), mods.get(0));
    assertThat(inPlay("add-ons/tide.txt")).as("the top one is off").isEqualTo(mods.get(1));
    assertRefused(Map.of("layers", wishes.subList(0, 3)), "order-incomplete");
    List<Map<String, Object>> doubled = new ArrayList<>(wishes);
    doubled.add(wishes.get(0));
    assertRefused(Map.of("layers", doubled), "order-doubled");
  }

  private void assertRefused(Object body, String code) {
    String etag = api.send("GET", base + "/layers", null, Map.of()).header("ETag");
    List<Long> before = order();
    Api.Answer answer = api.ask("PUT", base + "/layers", body, Map.of("If-Match", etag));
    assertThat(answer.status()).isEqualTo(422);
    assertThat(answer.body().path("code").asText()).isEqualTo(code);
    assertThat(order()).isEqualTo(before);
  }

  @Test
  void undo_goes_back_step_by_step_and_redo_forward_until_something_else_is_done() {
    Map<String, Object> up = Map.of("mods", List.of(mods.get(0)), "to", 4);
    Map<String, Object> off = Map.of("mods", List.of(mods.get(3)), "on", false);
    change("POST", "/layers/move", up);
    List<Long> moved = order();
    change("POST", "/layers/switch", off);
    JsonNode timeline = api.get(base + "/timeline");
    assertThat(timeline.path("undo").asText()).contains("D");
    assertThat(timeline.has("redo")).isFalse();
    Api.Answer undone = api.send("POST", base + "/undo", null, Map.of());
    assertThat(undone.body().path("said").asText()).isEqualTo(timeline.path("undo").asText());
    assertThat(api.get(base + "/layers").path("layers").findValuesAsText("on"))
        .containsOnly("true");
    api.send("POST", base + "/undo", null, Map.of());
    assertThat(order()).containsExactlyElementsOf(mods);
    Api.Answer none = api.ask("POST", base + "/undo", null, Map.of());
    assertThat(none.status()).isEqualTo(422);
    assertThat(none.body().path("code").asText()).isEqualTo("nothing-to-undo");
    api.send("POST", base + "/redo", null, Map.of());
    assertThat(order()).isEqualTo(moved);
    change("POST", "/layers/move", Map.of("mods", List.of(mods.get(2)), "to", 1));
    assertThat(api.get(base + "/timeline").has("redo")).as("something else was done").isFalse();
  }

  @Test
  void a_mod_that_came_since_stays_on_top_when_an_older_change_is_undone() {
    change("POST", "/layers/move", Map.of("mods", List.of(mods.get(0)), "to", 4));
    long late = api.install(workspace, "E.zip", Games.mod(Map.of("E.txt", "E"))).result();
    api.send("POST", base + "/undo", null, Map.of());
    List<Long> expected = new ArrayList<>(mods);
    expected.add(late);
    assertThat(order()).isEqualTo(expected);
  }

  @Test
  void a_change_that_changes_nothing_leaves_no_step() {
    String etag = api.send("GET", base, null, Map.of()).header("ETag");
    change("POST", "/layers/move", Map.of("mods", List.of(mods.get(2)), "to", 3));
    assertThat(api.send("GET", base, null, Map.of()).header("ETag")).isEqualTo(etag);
    assertThat(api.get(base + "/timeline").has("undo")).isFalse();
  }

  @Test
  void a_mod_of_another_workspace_is_unknown_here() {
    long other = api.workspace(Games.plain(temp.resolve("other")));
    Map<String, Object> move = Map.of("mods", List.of(mods.get(0)), "to", 1);
    String path = "/api/workspaces/" + other + "/layers/move";
    String etag = api.send("GET", "/api/workspaces/" + other, null, Map.of()).header("ETag");
    Api.Answer answer = api.ask("POST", path, move, Map.of("If-Match", etag));
    assertThat(answer.status()).isIn(404, 422);
    assertThat(answer.body().path("title").asText()).contains(mods.get(0).toString());
  }

  private void change(String method, String path, Object body) {
    api.change(method, base + path, body);
  }

  private List<Long> order() {
    List<Long> order = new ArrayList<>();
    for (JsonNode l : api.get(base + "/layers").path("layers")) order.add(l.path("mod").asLong());
    return order;
  }

  private long inPlay(String path) {
    for (JsonNode p : api.get(base + "/picture").path("paths")) {
      if (p.path("path").asText().equals(path)) {
        return p.path("holders").get(0).path("mod").asLong();
      }
    }
    throw new AssertionError(path + " is not in the picture");
  }
}
