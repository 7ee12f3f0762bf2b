package ironing.server;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Archives;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Rules, proposals, places kept, the list file and slots of the load order. */
@ExtendWith(SharedServer.class)
class LoadOrderIT {
  @TempDir Path temp;
  private Api api;
  private Path game;
  private long workspace;
  private String base;
  private final Map<String, Long> mods = new HashMap<>();

  @BeforeEach
  void fourPlugins(Api api) {
    this.api = api;
    game = Games.withPlugins(temp.resolve("game"));
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace + "/load-order";
    install("A", "");
    install("B", "plugins: { \"B.plug\": { before: [ A.plug ] } }\n");
    install("C", "");
    install("D", "", "C.plug");
  }

  private void install(String name, String card, String... masters) {
    Map<String, byte[]> files = new LinkedHashMap<>();
    String head = "format: ironing/mod@1\nid: %s\nname: %s\nversion: 1.0\n";
    files.put(
        "mod-card.yaml",
        (head.formatted(name.toLowerCase(Locale.ROOT), name) + card).getBytes(UTF_8));
    files.put(name + ".plug", Games.plugin(name + ".plug", 5, masters));
    mods.put(name, api.install(workspace, name + ".zip", Archives.zipOf(files)).result());
  }

  private String order() {
    StringBuilder order = new StringBuilder();
    for (JsonNode p : api.get(base).path("plugins")) {
      String name = p.path("name").asText().replace(".plug", "");
      if (!name.equals("Base"))
        order.append(p.path("on").asBoolean() ? name : name.toLowerCase(Locale.ROOT));
    }
    return order.toString();
  }

  private static Map<String, String> named(String plugin) {
    return Map.of("by", "NAME", "text", plugin + ".plug");
  }

  private void rule(String plugin, String kind, String other) {
    api.change(
        "POST",
        base + "/rules",
        Map.of("kind", kind, "plugin", named(plugin), "other", named(other), "reason", "weather"));
  }

  private JsonNode ruleOf(String what) {
    for (JsonNode r : api.get(base + "/rules").path("rules"))
      if (r.path("what").asText().equals(what)) return r;
    throw new AssertionError("no rule " + what + " in " + api.get(base + "/rules"));
  }

  @Test
  void a_proposal_is_taken_in_part_with_its_chain_of_reasons() {
    rule("A", "AFTER", "D");
    JsonNode proposal = api.get(base + "/proposal");
    // B before A, and A after D after C: A moves alone
    assertThat(proposal.path("moves")).hasSize(1);
    JsonNode move = proposal.path("moves").get(0);
    assertThat(move.path("name").asText()).isEqualTo("A.plug");
    assertThat(move.path("because").get(0).path("from").asText()).isEqualTo("your rule 1");
    assertThat(order()).isEqualTo("ABCD");
    JsonNode none =
        api.change("POST", base + "/proposal?dryRun=true", Map.of("names", List.of("A.plug")));
    assertThat(none.path("records").asInt()).isZero();
    assertThat(order()).isEqualTo("ABCD");
    api.change("POST", base + "/proposal", Map.of("names", List.of("A.plug")));
    assertThat(order()).isEqualTo("BCDA");
    assertThat(api.get(base + "/proposal").path("moves")).isEmpty();
  }

  @Test
  void a_place_that_is_kept_is_not_moved_and_a_rule_against_it_gives_way() {
    api.change("POST", base + "/keep", Map.of("names", List.of("A.plug", "B.plug"), "kept", true));
    assertThat(api.get(base).path("plugins").get(1).path("kept").asBoolean()).isTrue();
    // setting the whole order does not take the marks away
    List<Map<String, Object>> all =
        List.of("A", "B", "C", "D").stream()
            .map(n -> Map.<String, Object>of("name", n + ".plug", "on", true))
            .toList();
    api.change("PUT", base, Map.of("plugins", all));
    JsonNode proposal = api.get(base + "/proposal");
    assertThat(proposal.path("moves")).isEmpty();
    JsonNode gave = proposal.path("gaveWay").get(0);
    assertThat(gave.path("what").asText()).isEqualTo("B.plug before A.plug");
    assertThat(gave.path("ring").toString()).contains("both are kept where they are");
    JsonNode out = api.get(base + "/proposal/ways-out").path("sets");
    assertThat(out).hasSize(3);
    assertThat(out.toString())
        .contains("take back “B.plug before A.plug”", "keep A.plug no longer");
  }

  @Test
  void rules_are_made_tested_muted_turned_about_dropped_and_taken_back() {
    JsonNode card = ruleOf("B.plug before A.plug");
    assertThat(card.path("from").asText()).isEqualTo("the card of B");
    assertThat(card.path("broken").asBoolean()).isTrue();
    assertThat(ruleOf("D.plug after C.plug").path("strength").asText()).isEqualTo("FIXED");
    String key = card.path("key").asText();
    JsonNode effect = api.get(base + "/rules/effect?key=" + key.replace(" ", "%20"));
    assertThat(effect.path("concerns")).hasSize(2);
    assertThat(effect.path("effects")).isNotEmpty();
    api.change("POST", base + "/rules/mute", Map.of("key", key, "muted", true));
    assertThat(api.get(base + "/proposal").path("moves")).isEmpty();
    api.send("POST", "/api/workspaces/" + workspace + "/undo", null, Map.of());
    assertThat(api.get(base + "/proposal").path("moves")).hasSize(1);
    api.change("POST", base + "/rules/word", Map.of("key", key, "word", "REVERSED"));
    assertThat(ruleOf("B.plug after A.plug").path("reversed").asBoolean()).isTrue();
    assertThat(api.get(base + "/proposal").path("moves")).isEmpty();
    api.change("POST", base + "/rules/word", Map.of("key", key, "word", "DROPPED"));
    assertThat(ruleOf("B.plug before A.plug").path("dropped").asBoolean()).isTrue();
    api.change("POST", base + "/rules/word", Map.of("key", key, "word", "COUNTS"));
    assertThat(api.get(base + "/proposal").path("moves")).hasSize(1);
    api.change(
        "POST",
        base + "/rules",
        Map.of(
            "kind",
            "BEFORE",
            "plugin",
            Map.of("by", "PATTERN", "text", "c*"),
            "other",
            Map.of("by", "PATTERN", "text", "[ab]*.plug")));
    api.change("DELETE", base + "/rules?key=own%201", null);
    assertThat(api.get(base + "/rules").toString()).doesNotContain("own 1");
    String etag = api.send("GET", "/api/workspaces/" + workspace, null, Map.of()).header("ETag");
    String master = ruleOf("D.plug after C.plug").path("key").asText();
    Api.Answer refused =
        api.ask(
            "POST",
            base + "/rules/word",
            Map.of("key", master, "word", "DROPPED"),
            Map.of("If-Match", etag));
    assertThat(refused.body().path("code").asText()).isEqualTo("rule-not-yours");
    Api.Answer empty =
        api.ask(
            "POST",
            base + "/rules",
            Map.of(
                "kind", "AFTER", "plugin", named("A"), "other", Map.of("by", "TAG", "text", " ")),
            Map.of("If-Match", etag));
    assertThat(empty.body().path("code").asText()).isEqualTo("bad-rule");
  }

  @Test
  void what_goes_only_together_or_not_at_all_is_told_with_a_remedy() {
    rule("A", "NEEDS", "E");
    rule("C", "CLASHES", "D");
    JsonNode troubles = api.get(base).path("troubles");
    assertThat(troubles.findValuesAsText("code")).contains("NEEDS_OTHER", "CLASHES");
    assertThat(api.get("/api/workspaces/" + workspace + "/wrinkles").toString())
        .contains("A.plug goes only with E.plug", "C.plug does not go with D.plug");
    api.change("POST", base + "/switch", Map.of("names", List.of("A.plug", "D.plug"), "on", false));
    assertThat(api.get(base).path("troubles")).isEmpty();
    assertThat(api.get(base).path("hints").findValuesAsText("code"))
        .containsExactly("PLUGIN_OFF", "PLUGIN_OFF");
  }

  @Test
  void what_the_mod_of_a_plugin_needs_is_told_beside_the_plugin() {
    install("E", "needs: [ { mod: kelp, versions: \">=2\" } ]\n");
    assertThat(api.get(base).findValuesAsText("code")).containsExactly("MOD_NEED");
    assertThat(api.get(base).findValuesAsText("text").toString()).contains("needs kelp >=2");
  }

  @Test
  void why_a_plugin_stands_where_it_does() {
    JsonNode why = api.get(base + "/why?plugin=d.PLUG");
    assertThat(why.path("before").get(0).path("name").asText()).isEqualTo("C.plug");
    assertThat(why.path("before").toString()).contains("Base.plug");
    assertThat(why.path("lowest").asInt()).isEqualTo(5);
    assertThat(why.path("highest").asInt()).isEqualTo(5);
    assertThat(api.get(base + "/why?plugin=C.plug").path("lowest").asInt()).isEqualTo(2);
    assertThat(api.ask("GET", base + "/why?plugin=Z.plug", null, Map.of()).status()).isEqualTo(404);
  }

  @Test
  void a_list_that_the_game_changed_is_noticed_taken_over_or_put_back() throws IOException {
    assertThat(state()).isEqualTo("NOT_DEPLOYED");
    api.job("/api/workspaces/" + workspace + "/deploy", null);
    assertThat(state()).isEqualTo("AS_DEPLOYED");
    Path list = game.resolve("settings/list.txt");
    String deployed = Files.readString(list);
    String changed = "use D.plug\r\nskip A.plug\nuse Z.plug\nwhat is this\nuse C.plug\n";
    Files.writeString(list, changed);
    // it is no file of a mod, so that none can take it in
    Map<String, Object> wish = Map.of("cause", "CHANGED", "paths", List.of("settings/list.txt"));
    assertThat(api.refusal("POST", "/api/workspaces/" + workspace + "/drift/own", wish))
        .isEqualTo("no-mod");
    JsonNode view = api.get(base + "/list-file");
    assertThat(view.path("state").asText()).isEqualTo("CHANGED");
    assertThat(view.path("switches").toString()).isEqualTo("[{\"name\":\"A.plug\",\"on\":false}]");
    assertThat(view.path("unknown").toString()).isEqualTo("[\"Z.plug\"]");
    assertThat(view.path("unnamed").toString()).isEqualTo("[\"B.plug\"]");
    assertThat(view.path("remarks").get(0).asText()).contains("Line 4");
    assertThat(view.path("moves")).isNotEmpty();
    api.job(base + "/list-file/put-back", null);
    assertThat(list).hasContent(deployed);
    assertThat(state()).isEqualTo("AS_DEPLOYED");
    Files.writeString(list, changed);
    api.change("POST", base + "/list-file/take", null);
    assertThat(order()).isEqualTo("DaBC");
    Files.delete(list);
    assertThat(state()).isEqualTo("GONE");
  }

  private String state() {
    return api.get(base + "/list-file").path("state").asText();
  }

  @Test
  void an_order_is_taken_away_and_a_published_one_is_followed() {
    String csv = api.send("GET", base + "/lists/csv", null, Map.of()).raw().body();
    assertThat(csv).startsWith("position,plugin,on,from\r\n1,Base.plug,yes,Under Sail\r\n2,A.plug");
    String list =
        "position,plugin,on\n1,Base.plug,yes\n2,c.PLUG,yes\n3,A.plug,no\n4,Kelp.plug,yes\n5,D.plug,\n";
    Api.Answer made =
        api.ask("POST", base + "/lists?name=coast.csv", list.getBytes(UTF_8), Map.of());
    assertThat(made.status()).as(made.raw().body()).isEqualTo(201);
    JsonNode entries = made.body().path("entries");
    assertThat(entries.findValuesAsText("name"))
        .containsExactly("C.plug", "A.plug", "Kelp.plug", "D.plug");
    assertThat(entries.get(0).path("number").asInt()).isEqualTo(2);
    assertThat(entries.get(2).has("mod")).isFalse();
    assertThat(made.body().path("extra").findValuesAsText("name")).containsExactly("B.plug");
    String at = base + "/lists/" + made.body().path("id").asLong();
    // it also counts as rules, after the user’s own and those of cards
    assertThat(ruleOf("A.plug after C.plug").path("strength").asText()).isEqualTo("LIST");
    api.change("POST", at + "/take", Map.of("switches", List.of("A.plug")));
    assertThat(order()).isEqualTo("aBCD");
    api.change("POST", at + "/take", Map.of());
    assertThat(order().toUpperCase(Locale.ROOT).replace("B", "")).isEqualTo("CAD");
    assertThat(api.get(base + "/lists").get(0).path("away").asInt()).isEqualTo(1);
    api.send("DELETE", at, null, Map.of());
    assertThat(api.get(base + "/rules").toString()).doesNotContain("LIST");
    assertThat(
            api.ask("POST", base + "/lists?name=x.csv", "name\nA\n".getBytes(UTF_8), Map.of())
                .body()
                .path("detail")
                .asText())
        .contains("Layers");
  }

  @Test
  void the_order_of_a_restore_point_comes_back_and_profiles_are_compared_by_order() {
    String all = "/api/workspaces/" + workspace;
    api.send("POST", all + "/restore-points", Map.of("name", "calm"), Map.of());
    long point = api.get(all + "/timeline").path("points").get(0).path("id").asLong();
    long first = api.get(all + "/profiles").get(0).path("id").asLong();
    api.send("POST", all + "/profiles", Map.of("name", "Rough", "from", first), Map.of());
    api.change("POST", base + "/move", Map.of("name", "A.plug", "to", 5));
    api.change("POST", base + "/switch", Map.of("names", List.of("B.plug"), "on", false));
    assertThat(order()).isEqualTo("bCDA");
    long other = 0;
    for (JsonNode p : api.get(all + "/profiles"))
      if (!p.path("inUse").asBoolean()) other = p.path("id").asLong();
    JsonNode c = api.get(all + "/profiles/" + other + "/comparison");
    assertThat(c.path("plugins").toString())
        .isEqualTo("[{\"name\":\"A.plug\",\"here\":4,\"there\":1}]");
    assertThat(c.path("pluginSwitches").toString())
        .isEqualTo("[{\"name\":\"B.plug\",\"here\":false}]");
    assertThat(c.path("order").toString()).isEqualTo("{\"pairs\":6,\"swapped\":3}");
    api.change("POST", all + "/layers/switch", Map.of("mods", List.of(mods.get("D")), "on", false));
    api.change("POST", base + "/restore", Map.of("point", point));
    assertThat(order()).as("the layer stays off").isEqualTo("ABC");
  }

  @Test
  void plugins_that_are_not_as_they_should_be_are_named_and_nothing_is_lost() {
    byte[] sound = Games.plugin("Cut.plug", 5, "Base.plug");
    // its own name as a master, put in by hand: our writer would refuse it
    byte[] own = Games.plugin("Self.plug", 5, "Zelf.plug");
    for (int i = 0; i + 4 < own.length; i++)
      if (own[i] == 'Z' && own[i + 1] == 'e' && own[i + 2] == 'l') own[i] = 'S';
    String[] many = new String[10_000];
    for (int i = 0; i < many.length; i++) many[i] = "Master " + i + ".plug";
    Map<String, byte[]> files = new LinkedHashMap<>();
    files.put("Cut.plug", Arrays.copyOf(sound, sound.length / 2));
    files.put("Self.plug", own);
    files.put("Many.plug", Games.plugin("Many.plug", 5, many));
    long odd = api.install(workspace, "odd.zip", Archives.zipOf(files)).result();
    JsonNode view = api.get(base);
    Map<String, JsonNode> troubles = new HashMap<>();
    for (JsonNode t : view.path("troubles")) troubles.putIfAbsent(t.path("plugin").asText(), t);
    assertThat(troubles).containsOnlyKeys("Cut.plug", "Self.plug", "Many.plug");
    for (String name : List.of("Cut.plug", "Self.plug")) {
      assertThat(troubles.get(name).path("code").asText()).isEqualTo("UNDECODABLE");
      assertThat(troubles.get(name).path("fix").path("kind").asText())
          .isEqualTo("SWITCH_PLUGIN_OFF");
    }
    assertThat(troubles.get("Many.plug").path("text").asText())
        .startsWith("Many.plug needs 10000 plugins that are not in play: Master 0.plug")
        .endsWith("and 9995 more.");
    assertThat(api.get(base + "/proposal").path("ring")).isEmpty();
    api.change("POST", base + "/switch", Map.of("names", List.of("Many.plug"), "on", false));
    api.change(
        "POST",
        "/api/workspaces/" + workspace + "/layers/switch",
        Map.of("mods", List.of(odd), "on", false));
    assertThat(order()).isEqualTo("ABCD");
  }

  @Test
  void a_ring_of_masters_is_shown_with_what_opens_it() {
    install("E", "", "F.plug");
    install("F", "", "E.plug");
    JsonNode proposal = api.get(base + "/proposal");
    assertThat(proposal.path("ring")).hasSize(2);
    assertThat(proposal.path("order")).isEmpty();
    assertThat(api.get(base + "/why?plugin=A.plug").path("ring")).hasSize(2);
    JsonNode sets = api.get(base + "/proposal/ways-out").path("sets");
    assertThat(sets).hasSize(2);
    assertThat(sets.toString()).contains("switch E.plug off", "switch F.plug off");
    String etag = api.send("GET", "/api/workspaces/" + workspace, null, Map.of()).header("ETag");
    Api.Answer refused = api.ask("POST", base + "/proposal", Map.of(), Map.of("If-Match", etag));
    assertThat(refused.body().path("code").asText()).isEqualTo("no-order");
    api.change("POST", base + "/switch", Map.of("names", List.of("E.plug"), "on", false));
    assertThat(api.get(base + "/proposal").path("ring")).isEmpty();
  }

  @Test
  void past_the_last_slot_nothing_is_deployed_and_the_cheapest_are_named() {
    for (String name : List.of("E", "F", "G")) install(name, "");
    Api.Answer refused =
        api.ask("POST", "/api/workspaces/" + workspace + "/deploy", null, Map.of());
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.body().path("code").asText()).isEqualTo("no-slots");
    JsonNode takers = api.get(base + "/slots");
    assertThat(takers.path("cheapest").findValuesAsText("name")).contains("E.plug", "D.plug");
    assertThat(takers.path("cheapest").findValuesAsText("name")).doesNotContain("C.plug");
    api.change("POST", base + "/switch", Map.of("names", List.of("G.plug"), "on", false));
    api.job("/api/workspaces/" + workspace + "/deploy", null);
    assertThat(game.resolve("data/F.plug")).exists();
  }

  @Test
  void a_plugin_that_two_mods_bring_and_one_that_nobody_deployed_are_shown() throws IOException {
    Map<String, byte[]> files = new LinkedHashMap<>();
    files.put("A.plug", Games.plugin("A.plug", 5, "Base.plug"));
    api.install(workspace, "another.zip", Archives.zipOf(files));
    JsonNode plugins = api.get(base).path("plugins");
    JsonNode a = plugins.get(plugins.size() - 1);
    assertThat(a.path("name").asText()).isEqualTo("A.plug");
    assertThat(a.path("alsoFrom").get(0).asText()).isEqualTo("A");
    assertThat(a.path("fresh").asBoolean()).isTrue();
    Files.write(game.resolve("data/Stray.plug"), Games.plugin("Stray.plug", 5));
    assertThat(api.get(base + "/strays").findValuesAsText("path"))
        .containsExactly("data/Stray.plug");
  }

  /** Of two plugins with one and the same fault, each is told, and quieted, by itself. */
  @Test
  void setting_one_wrinkle_aside_leaves_its_like_open() {
    String wrinkles = "/api/workspaces/" + workspace + "/wrinkles";
    for (String name : List.of("Junk", "Scrap"))
      api.install(
          workspace, name + ".zip", Archives.zip(Map.of(name + ".plug", "no plugin at all")));
    List<JsonNode> broken = new ArrayList<>();
    for (JsonNode w : api.get(wrinkles).path("open"))
      if (w.path("code").asText().equals("undecodable")) broken.add(w);
    assertThat(broken).hasSize(2);
    assertThat(broken.get(0).path("title").asText()).contains(".plug");
    assertThat(broken.get(0).path("key").asText()).isNotEqualTo(broken.get(1).path("key").asText());
    api.send(
        "POST",
        wrinkles + "/set-aside",
        Map.of("key", broken.get(0).path("key").asText(), "why", "an old one"),
        Map.of());
    assertThat(api.get(wrinkles).path("open").findValuesAsText("key"))
        .contains(broken.get(1).path("key").asText())
        .doesNotContain(broken.get(0).path("key").asText());
  }

  @Test
  void several_plugins_move_together_and_keep_their_order_among_them() {
    JsonNode would =
        api.change(
            "POST",
            base + "/move?dryRun=true",
            Map.of("names", List.of("D.plug", "A.plug"), "to", 3));
    assertThat(would.has("place")).isFalse();
    assertThat(order()).isEqualTo("ABCD");
    api.change("POST", base + "/move", Map.of("names", List.of("D.plug", "A.plug"), "to", 3));
    assertThat(order()).as("behind the game’s own and B").isEqualTo("BADC");
    api.change("POST", base + "/move", Map.of("names", List.of("B.plug"), "to", 99));
    assertThat(order()).isEqualTo("ADCB");
    assertThat(api.refusal("POST", base + "/move", Map.of("names", List.of(), "to", 1)))
        .isEqualTo("body-unreadable");
    assertThat(api.refusal("POST", base + "/move", Map.of("to", 1))).isEqualTo("body-unreadable");
    assertThat(
            api.refusal(
                "POST", base + "/move", Map.of("names", List.of("A.plug", "Base.plug"), "to", 1)))
        .isEqualTo("plugin-fixed");
    assertThat(order()).isEqualTo("ADCB");
  }
}
