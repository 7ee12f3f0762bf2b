package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.testkit.Archives;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Sections, rules of placement, suggestions, rulings, profiles and the timeline. */
@ExtendWith(SharedServer.class)
class LayersIT {
  @TempDir Path temp;
  private Api api;
  private long workspace;
  private String base;
  private final List<Long> mods = new ArrayList<>();

  @BeforeEach
  void fiveMods(Api api) {
    this.api = api;
    workspace = api.workspace(Games.plain(temp.resolve("game")));
    base = "/api/workspaces/" + workspace;
    for (String name : List.of("A", "B", "C", "D", "E")) {
      String card =
          "format: ironing/mod@1\nid: %s\nname: %s\nversion: 1.0\n%s"
              .formatted(
                  name.toLowerCase(Locale.ROOT),
                  name,
                  name.equals("B")
                      ? "after: [ d ]\n"
                      : name.equals("C") ? "band: groundwork\n" : "band: plays\n");
      byte[] zip =
          Games.mod(
              Map.of(
                  "mod-card.yaml",
                  card,
                  "tide.txt",
                  name,
                  name + ".txt",
                  name,
                  "maps/x.map",
                  "same"));
      mods.add(api.install(workspace, name + ".zip", zip).result());
    }
  }

  private long mod(String name) {
    return mods.get("ABCDE".indexOf(name));
  }

  private List<Long> mods(String names) {
    return names.chars().mapToObj(c -> mod(Character.toString(c))).toList();
  }

  private String name(long mod) {
    return "ABCDE".substring(mods.indexOf(mod), mods.indexOf(mod) + 1);
  }

  /** The order from the lowest, a section’s layers in brackets: “A[BC]DE”. */
  private String order() {
    StringBuilder order = new StringBuilder();
    long section = 0;
    for (JsonNode l : api.get(base + "/layers").path("layers")) {
      long next = l.path("section").asLong();
      if (section != 0 && next != section) order.append(']');
      if (next != 0 && next != section) order.append('[');
      section = next;
      order.append(name(l.path("mod").asLong()));
    }
    return order + (section == 0 ? "" : "]");
  }

  private String inPlay(String path) {
    JsonNode one = api.get(base + "/path?path=" + path).path("path");
    return name(one.path("holders").get(0).path("mod").asLong());
  }

  private JsonNode post(String path, Object body) {
    return api.change("POST", base + path, body);
  }

  private void refused(String method, String path, Object body, String code) {
    String etag = api.send("GET", base + "/layers", null, Map.of()).header("ETag");
    Api.Answer answer = api.ask(method, base + path, body, Map.of("If-Match", etag));
    assertThat(answer.status()).isBetween(400, 499);
    assertThat(answer.body().path("code").asText()).isEqualTo(code);
    JsonNode p = answer.body().path("problems").get(0);
    for (String part : List.of("thing", "reason", "remedy"))
      assertThat(p.path(part).asText()).isNotBlank();
  }

  @Test
  void a_section_is_made_named_moved_as_one_and_dissolved() {
    post("/sections", Map.of("name", "Middle", "mods", mods("BD")));
    assertThat(order()).isEqualTo("AC[BD]E");
    long section = api.get(base + "/layers").path("sections").get(0).path("id").asLong();
    post("/sections/" + section + "/layers", Map.of("mods", mods("A")));
    assertThat(order()).isEqualTo("C[BDA]E");
    post("/layers/move", Map.of("mods", mods("BDA"), "to", 1));
    assertThat(order()).isEqualTo("[BDA]CE");
    post("/layers/move", Map.of("mods", mods("E"), "to", 2));
    assertThat(order()).as("who comes between belongs to it").isEqualTo("[BEDA]C");
    post("/layers/move", Map.of("mods", mods("E"), "to", 5));
    assertThat(order()).isEqualTo("[BDA]CE");
    api.change("PUT", base + "/sections/" + section, Map.of("name", "Lowest"));
    assertThat(api.get(base + "/layers").path("sections").get(0).path("name").asText())
        .isEqualTo("Lowest");
    api.change("DELETE", base + "/sections/" + section, null);
    assertThat(order()).isEqualTo("BDACE");
    api.send("POST", base + "/undo", null, Map.of());
    assertThat(order()).isEqualTo("[BDA]CE");
    refused("POST", "/sections", Map.of("name", " ", "mods", mods("A")), "bad-name");
    refused("PUT", "/sections/99", Map.of("name", "x"), "not-found");
  }

  @Test
  void a_mod_that_comes_back_when_its_section_has_gone_is_in_none() {
    post("/sections", Map.of("name", "Alone", "mods", mods("B")));
    api.send("DELETE", base + "/mods/" + mod("B"), null, Map.of());
    post("/sections", Map.of("name", "Another", "mods", mods("DE")));
    api.send("POST", base + "/bin/mods/" + mod("B") + "/return", null, Map.of());
    assertThat(order()).isEqualTo("ABC[DE]");
  }

  @Test
  void rules_are_held_against_the_order_and_mended() {
    JsonNode rules = api.get(base + "/layers/rules").path("rules");
    assertThat(rules).hasSize(1);
    assertThat(rules.get(0).path("from").asText()).isEqualTo("the card of B");
    assertThat(rules.get(0).path("broken").asBoolean()).as("B stands below D").isTrue();
    post(
        "/layers/rules",
        Map.of(
            "kind", "DIRECTLY_ABOVE", "mod", mod("A"), "other", mod("E"), "reason", "so it says"));
    JsonNode own = api.get(base + "/layers/rules").path("rules").get(0);
    assertThat(own.path("own").asBoolean()).isTrue();
    assertThat(own.path("reason").asText()).isEqualTo("so it says");
    assertThat(own.path("broken").asBoolean()).isTrue();
    assertThat(api.get(base).path("wrinkles").findValuesAsText("title"))
        .contains("A is to stand directly above E");
    Map<String, Object> mend = Map.of("kind", "DIRECTLY_ABOVE", "mod", mod("A"), "other", mod("E"));
    JsonNode preview =
        api.send("POST", base + "/layers/rules/mend?dryRun=true", mend, Map.of()).body();
    assertThat(preview.path("files").asInt()).isEqualTo(1);
    assertThat(order()).isEqualTo("ABCDE");
    post("/layers/rules/mend", mend);
    assertThat(order()).isEqualTo("BCDEA");
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("A");
    api.change(
        "DELETE",
        base + "/layers/rules?kind=DIRECTLY_ABOVE&mod=" + mod("A") + "&other=" + mod("E"),
        null);
    assertThat(api.get(base + "/layers/rules").path("rules")).hasSize(1);
    api.send("POST", base + "/undo", null, Map.of());
    assertThat(api.get(base + "/layers/rules").path("rules"))
        .as("taking a rule back is undone")
        .hasSize(2);
    refused("POST", "/layers/rules", Map.of("kind", "ABOVE", "mod", mod("A")), "bad-rule");
    refused("POST", "/layers/rules", Map.of("kind", "TOP", "mod", 999_999), "not-found");
  }

  @Test
  void an_order_is_suggested_and_taken_whole_or_in_part() {
    JsonNode s = api.get(base + "/layers/suggestion");
    // C is groundwork, all else plays; B asks to come after D
    assertThat(s.path("moves")).hasSize(2);
    for (JsonNode m : s.path("moves")) assertThat(m.path("because")).isNotEmpty();
    List<Long> moved = new ArrayList<>();
    s.path("moves").forEach(m -> moved.add(m.path("mod").asLong()));
    assertThat(moved).containsExactlyInAnyOrder(mod("A"), mod("B"));
    post("/layers/suggestion", Map.of("mods", mods("A")));
    assertThat(order()).isEqualTo("BCADE");
    assertThat(api.get(base + "/timeline").path("changes").get(0).path("origin").asText())
        .isEqualTo("proposal");
    post("/layers/suggestion", Map.of());
    assertThat(order()).isEqualTo("CADBE");
    assertThat(api.get(base + "/layers/suggestion").path("moves")).isEmpty();
  }

  @Test
  void what_is_kept_here_is_not_moved_and_rules_of_the_user_that_contradict_are_shown() {
    post("/layers/keep", Map.of("mods", mods("BD"), "kept", true));
    JsonNode s = api.get(base + "/layers/suggestion");
    assertThat(s.path("leftOut")).hasSize(1);
    assertThat(s.path("leftOut").get(0).path("ring").findValuesAsText("reason"))
        .contains("both are kept where they are");
    assertThat(s.path("moves").findValuesAsText("name")).containsExactly("A");
    assertThat(s.path("keptNumbers").findValuesAsText("name")).containsExactly("B");
    post("/layers/rules", Map.of("kind", "ABOVE", "mod", mod("A"), "other", mod("E")));
    post("/layers/rules", Map.of("kind", "ABOVE", "mod", mod("E"), "other", mod("A")));
    JsonNode ring = api.get(base + "/layers/suggestion").path("ring");
    assertThat(ring).hasSize(2);
    assertThat(ring.findValuesAsText("from")).containsOnly("you");
    refused("POST", "/layers/suggestion", Map.of(), "no-way-out");
  }

  @Test
  void a_ruling_decides_whatever_the_order_says_and_is_taken_back() {
    Map<String, Object> ruling =
        Map.of("rulings", List.of(Map.of("at", "add-ons/tide.txt", "mod", mod("B"))));
    JsonNode dry = api.send("PUT", base + "/rulings?dryRun=true", ruling, Map.of()).body();
    assertThat(dry.path("files").asInt()).isEqualTo(1);
    api.change("PUT", base + "/rulings", ruling);
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("B");
    JsonNode path = api.get(base + "/path?path=add-ons/tide.txt").path("path");
    assertThat(path.path("ruled").asBoolean()).isTrue();
    assertThat(path.path("why").asText()).startsWith("You ruled so");
    JsonNode one = api.get(base + "/rulings").path("rulings").get(0);
    assertThat(one.path("decides").asInt()).isEqualTo(1);
    api.change("DELETE", base + "/rulings?at=add-ons/tide.txt", null);
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("E");
    api.change(
        "PUT",
        base + "/rulings",
        Map.of("rulings", List.of(Map.of("at", "add-ons/*.txt", "mod", mod("A")))));
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("A");
    post("/layers/switch", Map.of("mods", mods("A"), "on", false));
    assertThat(api.get(base + "/rulings").path("rulings").get(0).path("idle").asText())
        .contains("switched off");
    refused(
        "PUT",
        "/rulings",
        Map.of("rulings", List.of(Map.of("at", "add-ons/none.txt", "mod", mod("A")))),
        "ruling-empty");
  }

  @Test
  void the_order_that_would_satisfy_the_rulings_is_found() {
    api.change(
        "PUT",
        base + "/rulings",
        Map.of("rulings", List.of(Map.of("at", "add-ons/tide.txt", "mod", mod("D")))));
    JsonNode order = api.get(base + "/rulings/order");
    assertThat(order.path("moves").findValuesAsText("name")).containsExactly("D");
    assertThat(order.path("needless"))
        .extracting(JsonNode::asText)
        .containsExactly("add-ons/tide.txt");
    assertThat(order.path("difference").path("files").asInt()).as("nothing else changes").isZero();
    post("/rulings/order", null);
    assertThat(order()).isEqualTo("ABCED");
    assertThat(api.get(base + "/rulings").path("rulings")).isEmpty();
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("D");
  }

  @Test
  void rulings_that_no_order_satisfies_together_are_named() {
    api.install(workspace, "F.zip", Games.mod(Map.of("tide.txt", "F", "E.txt", "F"))).result();
    api.change(
        "PUT",
        base + "/rulings",
        Map.of(
            "rulings",
            List.of(
                Map.of("at", "add-ons/tide.txt", "mod", mod("E")),
                Map.of("at", "add-ons/E.txt", "mod", mods.get(4) + 1))));
    JsonNode order = api.get(base + "/rulings/order");
    assertThat(order.path("contradictions")).hasSize(1);
    assertThat(order.path("contradictions").get(0).path("ring")).hasSize(2);
  }

  @Test
  void a_ruling_for_a_packed_file_lays_it_out_as_a_loose_copy() throws IOException {
    Path folder = temp.resolve("packed");
    Files.createDirectories(folder.resolve("data"));
    Files.writeString(
        folder.resolve("game.yaml"),
        """
        format: ironing/game@1
        id: packed
        title: Packed
        mounts: [ { id: data, at: data, holds: [ "*.crate", "*.txt" ] } ]
        packs: { match: "*.crate", mount: data }
        """);
    long other = api.workspace(folder);
    String at = "/api/workspaces/" + other;
    long pack =
        api.install(
                other,
                "pack.zip",
                Archives.zipOf(Map.of("p.crate", Archives.zip(Map.of("x.txt", "packed")))))
            .result();
    api.install(other, "loose.zip", Archives.zip(Map.of("x.txt", "loose"))).result();
    api.change(
        "PUT",
        at + "/rulings",
        Map.of("rulings", List.of(Map.of("at", "data/x.txt", "mod", pack))));
    assertThat(api.get(at + "/path?path=data/x.txt").path("path").path("why").asText())
        .contains("loose copy");
    assertThat(
            api.get(at + "/path/contents?path=data/x.txt&mod=" + pack + "&pack=data/p.crate")
                .path("text")
                .asText())
        .isEqualTo("packed");
    api.job(at + "/deploy", null);
    assertThat(folder.resolve("data/x.txt")).hasContent("packed");
    assertThat(api.get(at + "/rulings/order").path("packed")).hasSize(1);
  }

  @Test
  void contested_paths_are_counted_by_folder_kind_and_pair() {
    JsonNode top = api.get(base + "/overlaps/folder");
    assertThat(top.path("total").asInt()).isEqualTo(2);
    assertThat(top.path("folders").get(0).path("path").asText()).isEqualTo("add-ons/");
    assertThat(top.path("kinds").path("SAME").asInt()).isEqualTo(1);
    JsonNode below = api.get(base + "/overlaps/folder?folder=add-ons/");
    assertThat(below.path("folders").findValuesAsText("name")).containsExactly("maps");
    assertThat(below.path("paths").findValuesAsText("path")).containsExactly("add-ons/tide.txt");
    int all = api.get(base + "/overlaps").path("total").asInt();
    for (String blank : List.of("mod=%20", "kind=%20", "mod=,"))
      assertThat(api.get(base + "/overlaps?" + blank).path("total").asInt()).isEqualTo(all);
    assertThat(api.get(base + "/overlaps?kind=DIFFERS").path("total").asInt()).isEqualTo(1);
    assertThat(api.get(base + "/overlaps?mod=0").path("total").asInt())
        .as("with the game")
        .isEqualTo(1);
    JsonNode matrix = api.get(base + "/overlaps/matrix");
    assertThat(matrix.path("mods").get(0).path("name").asText()).isEqualTo("E");
    for (JsonNode c : matrix.path("cells")) {
      assertThat(c.path("over").asLong()).as("E covers all others").isEqualTo(mod("E"));
      assertThat(c.path("paths").asInt()).isEqualTo(c.path("under").asLong() == 0 ? 1 : 2);
      assertThat(c.path("differs").asInt()).isEqualTo(1);
    }
    assertThat(api.get(base + "/layers/holding?file=TIDE")).hasSize(6);
  }

  @Test
  void profiles_are_made_compared_taken_into_use_and_brought_back() {
    long everyday = api.get(base + "/profiles").get(0).path("id").asLong();
    long copy =
        api.send("POST", base + "/profiles", Map.of("name", "Trial", "from", everyday), Map.of())
            .body()
            .path("id")
            .asLong();
    post("/layers/move", Map.of("mods", mods("A"), "to", 5));
    post("/layers/switch", Map.of("mods", mods("B"), "on", false));
    JsonNode c = api.get(base + "/profiles/" + copy + "/comparison");
    assertThat(c.path("moves").findValuesAsText("name")).containsExactly("A");
    assertThat(c.path("mods").findValuesAsText("name")).containsExactly("B");
    assertThat(c.path("picture").path("files").asInt()).isPositive();
    assertThat(
            api.send("POST", base + "/profiles/" + copy + "/use?dryRun=true", null, Map.of())
                .body()
                .path("files")
                .asInt())
        .isEqualTo(c.path("picture").path("files").asInt());
    api.send("POST", base + "/profiles/" + copy + "/use", null, Map.of());
    assertThat(order()).isEqualTo("ABCDE");
    post("/layers/move", Map.of("mods", mods("E"), "to", 1));
    api.send("POST", base + "/profiles/" + everyday + "/use", null, Map.of());
    assertThat(order()).as("each has its own order").isEqualTo("BCDEA");
    api.send("POST", base + "/undo", null, Map.of());
    assertThat(api.get(base + "/layers").path("layers").findValuesAsText("on"))
        .as("and its own undo")
        .containsOnly("true");
    post("/profiles/carry-over", Map.of("from", copy, "parts", List.of("ORDER")));
    assertThat(order()).isEqualTo("EABCD");
    refused("DELETE", "/profiles/" + everyday, null, "profile-in-use");
    refused("POST", "/profiles", Map.of("name", "trial"), "name-taken");
    api.send("DELETE", base + "/profiles/" + copy, null, Map.of());
    assertThat(api.get(base + "/profiles")).hasSize(1);
    api.send("POST", base + "/profiles/" + copy + "/bring-back", null, Map.of());
    api.send("PUT", base + "/profiles/" + copy, Map.of("name", "Tried"), Map.of());
    assertThat(api.get(base + "/profiles").findValuesAsText("name"))
        .containsExactly("Everyday", "Tried");
  }

  @Test
  void switches_rulings_and_what_is_held_back_are_carried_over_one_by_one() {
    long everyday = api.get(base + "/profiles").get(0).path("id").asLong();
    long copy =
        api.send("POST", base + "/profiles", Map.of("name", "Trial", "from", everyday), Map.of())
            .body()
            .path("id")
            .asLong();
    post("/layers/switch", Map.of("mods", mods("BD"), "on", false));
    api.change(
        "PUT",
        base + "/rulings",
        Map.of("rulings", List.of(Map.of("at", "add-ons/tide.txt", "mod", mod("A")))));
    post(
        "/mods/" + mod("C") + "/held-back",
        Map.of("paths", List.of("add-ons/C.txt"), "hold", true));
    api.send("POST", base + "/profiles/" + copy + "/use", null, Map.of());
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("E");
    JsonNode c = api.get(base + "/profiles/" + everyday + "/comparison");
    assertThat(c.path("mods").findValuesAsText("name")).containsExactly("B", "D");
    assertThat(c.path("rulings").get(0).path("there").asText()).isEqualTo("A");
    assertThat(c.path("heldBack").findValuesAsText("path")).containsExactly("add-ons/C.txt");
    assertThat(c.path("moves")).isEmpty();
    Map<String, Object> some =
        Map.of("from", everyday, "mods", mods("D"), "parts", List.of("RULINGS"));
    assertThat(
            api.send("POST", base + "/profiles/carry-over?dryRun=true", some, Map.of())
                .body()
                .path("files")
                .asInt())
        .as("D.txt would be gone, and the tide be that of A")
        .isEqualTo(2);
    post("/profiles/carry-over", some);
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("A");
    JsonNode rest = api.get(base + "/profiles/" + everyday + "/comparison");
    assertThat(rest.path("mods").findValuesAsText("name")).containsExactly("B");
    assertThat(rest.path("rulings")).isEmpty();
    post("/profiles/carry-over", Map.of("from", everyday, "parts", List.of("HELD_BACK")));
    assertThat(api.ask("GET", base + "/path?path=add-ons/C.txt", null, Map.of()).status())
        .isEqualTo(404);
    api.send("POST", base + "/undo", null, Map.of());
    assertThat(inPlay("add-ons/C.txt")).isEqualTo("C");
  }

  @Test
  void a_mod_that_came_while_another_profile_was_in_use_is_off_there() {
    long everyday = api.get(base + "/profiles").get(0).path("id").asLong();
    long copy =
        api.send("POST", base + "/profiles", Map.of("name", "Trial", "from", everyday), Map.of())
            .body()
            .path("id")
            .asLong();
    api.install(workspace, "F.zip", Games.mod(Map.of("F.txt", "F"))).result();
    api.send("POST", base + "/profiles/" + copy + "/use", null, Map.of());
    JsonNode layers = api.get(base + "/layers").path("layers");
    assertThat(layers.get(5).path("name").asText()).isEqualTo("F");
    assertThat(layers.get(5).path("on").asBoolean()).isFalse();
  }

  @Test
  void the_timeline_goes_back_to_a_change_and_to_a_named_place() {
    post("/layers/move", Map.of("mods", mods("A"), "to", 5));
    api.send("POST", base + "/restore-points", Map.of("name", "Before trying"), Map.of());
    JsonNode first = api.get(base + "/timeline").path("changes").get(0);
    post("/layers/move", Map.of("mods", mods("B"), "to", 5));
    post("/layers/switch", Map.of("mods", mods("CD"), "on", false));
    JsonNode dry =
        api.send(
                "POST",
                base + "/timeline/return?dryRun=true",
                Map.of("change", first.path("id").asLong()),
                Map.of())
            .body();
    assertThat(dry.path("files").asInt()).isPositive();
    assertThat(order()).isEqualTo("CDEAB");
    post("/timeline/return", Map.of("change", first.path("id").asLong()));
    assertThat(order()).isEqualTo("BCDEA");
    assertThat(api.get(base + "/layers").path("layers").findValuesAsText("on"))
        .containsOnly("true");
    api.send("POST", base + "/undo", null, Map.of());
    assertThat(order()).as("going back is a step like any other").isEqualTo("CDEAB");
    JsonNode point = api.get(base + "/timeline").path("points").get(0);
    assertThat(point.path("name").asText()).isEqualTo("Before trying");
    post("/timeline/return", Map.of("point", point.path("id").asLong()));
    assertThat(order()).isEqualTo("BCDEA");
    api.send("DELETE", base + "/restore-points/" + point.path("id").asLong(), null, Map.of());
    assertThat(api.get(base + "/timeline").path("points")).isEmpty();
    refused("POST", "/timeline/return", Map.of("change", 1_000_000), "not-found");
    refused("POST", "/restore-points", Map.of("name", ""), "bad-name");
  }

  @Test
  void a_mod_keeps_its_section_its_rules_and_its_rulings_through_an_update_and_removal() {
    post("/sections", Map.of("name", "S", "mods", mods("BC")));
    post("/layers/keep", Map.of("mods", mods("B"), "kept", true));
    post("/layers/rules", Map.of("kind", "BELOW", "mod", mod("B"), "other", mod("E")));
    api.change(
        "PUT",
        base + "/rulings",
        Map.of("rulings", List.of(Map.of("at", "add-ons/tide.txt", "mod", mod("B")))));
    long archive =
        api.bringIn(
            workspace,
            "B-2.zip",
            Games.mod(
                Map.of(
                    "mod-card.yaml",
                    "format: ironing/mod@1\nid: b\nname: B\nversion: 2.0\n",
                    "tide.txt",
                    "B2")));
    long newer =
        api.job(
                base + "/mods",
                Map.of("archive", archive, "parts", List.of(Map.of("instead", mod("B")))))
            .result();
    long older = mods.set(1, newer);
    assertThat(order()).isEqualTo("A[BC]DE");
    assertThat(api.get(base + "/layers").path("layers").get(1).path("kept").asBoolean()).isTrue();
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("B");
    assertThat(api.get(base + "/layers/rules").path("rules").get(0).path("mod").asLong())
        .isEqualTo(newer);
    api.send("DELETE", base + "/mods/" + older, null, Map.of());
    api.send("DELETE", base + "/mods/" + newer, null, Map.of());
    assertThat(api.get(base + "/layers/rules").path("rules")).as("it waits").isEmpty();
    api.send("POST", base + "/bin/mods/" + newer + "/return", null, Map.of());
    assertThat(order()).isEqualTo("A[BC]DE");
    assertThat(inPlay("add-ons/tide.txt")).isEqualTo("B");
    assertThat(api.get(base + "/layers/rules").path("rules")).hasSize(1);
  }

  @Test
  void the_order_is_taken_away_as_a_list_in_three_forms() {
    post("/sections", Map.of("name", "Middle", "mods", mods("BC")));
    post("/layers/switch", Map.of("mods", mods("E"), "on", false));
    String csv = api.send("GET", base + "/layers/list/csv", null, Map.of()).raw().body();
    assertThat(csv.lines().toList())
        .startsWith(
            "position,mod,name,version,on,section,note", "1,a,A,1.0,yes,,", "2,b,B,1.0,yes,Middle,")
        .endsWith("5,e,E,1.0,no,,");
    JsonNode json = api.get(base + "/layers/list/json");
    assertThat(json.path("layers").findValuesAsText("mod"))
        .containsExactly("a", "b", "c", "d", "e");
    Api.Answer markdown = api.send("GET", base + "/layers/list/markdown", null, Map.of());
    assertThat(markdown.raw().body()).contains("| 3 | c | C | 1.0 | yes | Middle |  |");
    assertThat(markdown.header("Content-Disposition")).contains("attachment");
  }

  @Test
  void how_the_list_is_shown_is_kept_and_bounded() {
    String shown = base + "/layers/shown";
    assertThat(api.get(shown).path("columns")).isEmpty();
    Map<String, Object> view =
        Map.of(
            "name", "Large ones", "filter", "size over 10 MiB", "sort", "", "columns", List.of());
    Map<String, Object> wished =
        new HashMap<>(
            Map.of(
                "sort", "",
                "columns", List.of("size", "bar"),
                "widths", Map.of("size", 120),
                "folded", List.of(),
                "turned", false,
                "views", List.of(view)));
    api.send("PUT", shown, wished, Map.of());
    JsonNode kept = api.get(shown);
    assertThat(kept.path("columns")).extracting(JsonNode::asText).containsExactly("size", "bar");
    assertThat(kept.path("widths").path("size").asInt()).isEqualTo(120);
    assertThat(kept.path("views").get(0).path("name").asText()).isEqualTo("Large ones");
    for (Map.Entry<String, Object> wrong :
        Map.<String, Object>of(
                "widths", Map.of("size", 0),
                "sort", "x".repeat(100_000),
                "columns", Collections.nCopies(51, "size"))
            .entrySet()) {
      Map<String, Object> body = new HashMap<>(wished);
      body.put(wrong.getKey(), wrong.getValue());
      assertThat(api.refusal("PUT", shown, body)).as(wrong.getKey()).isEqualTo("too-long");
    }
    assertThat(api.refusal("PUT", shown, Map.of("columns", "size"))).isEqualTo("body-unreadable");
    assertThat(api.get(shown)).isEqualTo(kept);
  }

  @Test
  void whoever_has_a_list_is_told_only_what_has_changed_since() {
    JsonNode first = api.get(base + "/layers/since/0");
    assertThat(first.has("changes")).isFalse();
    List<JsonNode> layers = new ArrayList<>();
    first.path("whole").path("layers").forEach(layers::add);
    JsonNode same = api.get(base + "/layers/since/" + first.path("tag").asLong());
    assertThat(same.path("tag")).isEqualTo(first.path("tag"));
    assertThat(same.path("changes").path("layers")).isEmpty();
    assertThat(same.path("changes").has("order")).isFalse();

    long lowest = layers.get(0).path("mod").asLong();
    api.change("POST", base + "/layers/move", Map.of("mods", List.of(lowest), "to", layers.size()));
    JsonNode moved = api.get(base + "/layers/since/" + first.path("tag").asLong());
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(lowest), "on", false));
    JsonNode off = api.get(base + "/layers/since/" + moved.path("tag").asLong());
    assertThat(off.path("changes").has("order")).isFalse();

    Map<Long, ObjectNode> rows = new LinkedHashMap<>();
    for (JsonNode l : layers) rows.put(l.path("mod").asLong(), l.deepCopy());
    List<Long> order = new ArrayList<>(rows.keySet());
    for (JsonNode told : List.of(moved, off)) {
      JsonNode changes = told.path("changes");
      for (JsonNode l : changes.path("layers")) rows.put(l.path("mod").asLong(), l.deepCopy());
      if (changes.has("order")) {
        JsonNode stretch = changes.path("order");
        int from = stretch.path("from").asInt();
        order.subList(from, from + stretch.path("gone").asInt()).clear();
        List<Long> come = new ArrayList<>();
        stretch.path("mods").forEach(m -> come.add(m.asLong()));
        order.addAll(from, come);
      }
    }
    for (int i = 0; i < order.size(); i++) rows.get(order.get(i)).put("position", i + 1);
    List<JsonNode> put = new ArrayList<>();
    for (long mod : order) put.add(rows.get(mod));
    List<JsonNode> whole = new ArrayList<>();
    api.get(base + "/layers").path("layers").forEach(whole::add);
    assertThat(put).isEqualTo(whole);
    assertThat(api.get(base + "/layers/since/77").has("whole")).as("of a list long gone").isTrue();
  }
}
