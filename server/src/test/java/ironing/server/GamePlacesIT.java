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
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Games that keep mods, lists, settings and saves beside their folder, over HTTP. */
@ExtendWith(SharedServer.class)
class GamePlacesIT {
  private static final String DEFINITION =
      """
      format: ironing/game@1
      id: bells
      title: Bells beside
      places:
        user: { at: [ "/nowhere/that/is/there" ], what: "Mods and settings" }
      protect: [ "@user/saves/**" ]
      perProfile: [ "@user/settings.ini" ]
      mounts:
        - { id: own, in: user, at: mods, holds: [ "*/**" ] }
      plugins:
        match: "mods/*/foundry.json"
        in: user
        is: folder
        header: { as: json, name: "$.id", masters: "$.needs[*]" }
        records:
          - { files: "casts.json", as: json, each: "$.*", id: key, type: cast, into: casts.json }
        patch: { at: "mods/{name}/foundry.json", manifest: { id: "{name}", needs: [ "{master}" ] } }
        list: { in: user, file: enabled.json, as: json, at: "$.order", entry: { id: "{name}", on: "{on}" } }
      """;
  @TempDir Path temp;
  private Api api;
  private Path game, user;
  private String base;

  @BeforeEach
  void take(Api api) throws IOException {
    this.api = api;
    game = Files.createDirectories(temp.resolve("game")).toRealPath();
    user = Files.createDirectories(temp.resolve("user")).toRealPath();
    write(game.resolve("bells.txt"), "the game");
    write(user.resolve("mods/base/foundry.json"), "{\"id\":\"base\"}");
    write(user.resolve("mods/base/casts.json"), "{\"marl\":{\"weight\":10}}");
    write(user.resolve("enabled.json"), "{ \"volume\": 7, \"order\": [] }\n");
    write(user.resolve("settings.ini"), "loud = no\n");
    write(user.resolve("saves/one.sav"), "a save");
  }

  private Map<String, Object> body(Map<String, String> places) {
    return Map.of("folder", game.toString(), "definition", DEFINITION, "places", places);
  }

  private void make() {
    base =
        "/api/workspaces/"
            + api.job("/api/workspaces", body(Map.of("user", user.toString()))).result();
  }

  private void install(String name, String weight) throws IOException {
    byte[] archive =
        Archives.zip(
            Map.of(
                "mod-card.yaml",
                "format: ironing/mod@1\nid: " + name + "\nname: " + name + "\nversion: \"1\"\n",
                name + "/foundry.json",
                "{\"id\":\"" + name + "\",\"needs\":[\"base\"]}",
                name + "/casts.json",
                "{\"marl\":{\"weight\":" + weight + "}}"));
    api.install(Long.parseLong(base.replaceAll(".*/", "")), name + "-1.zip", archive).result();
  }

  private void done(String path) {
    assertThat(api.job(base + path, null).body().path("state").asText()).isEqualTo("DONE");
  }

  @Test
  void a_place_that_is_not_found_is_asked_for_and_one_that_cannot_be_is_refused() {
    JsonNode look = api.send("POST", "/api/workspaces/look", body(Map.of()), Map.of()).body();
    assertThat(look.path("places").path(0).path("id").asText()).isEqualTo("user");
    assertThat(look.path("places").path(0).has("folder")).isFalse();
    assertThat(look.path("places").path(0).path("tried").path(0).asText())
        .isEqualTo("/nowhere/that/is/there");
    assertThat(api.refusal("POST", "/api/workspaces", body(Map.of()))).isEqualTo("place-unknown");
    assertThat(api.refusal("POST", "/api/workspaces", body(Map.of("user", game.toString()))))
        .isEqualTo("place-wrong");
    assertThat(api.refusal("POST", "/api/workspaces", body(Map.of("user", "/"))))
        .isEqualTo("place-wrong");
    assertThat(
            api.refusal(
                "POST", "/api/workspaces", body(Map.of("user", temp.resolve("no").toString()))))
        .isEqualTo("folder-wrong");
    JsonNode known =
        api.send("POST", "/api/workspaces/look", body(Map.of("user", user.toString())), Map.of())
            .body();
    assertThat(known.path("matches").toString())
        .contains("\"what\":\"PLUGINS\",\"name\":\"\",\"count\":1");
  }

  @Test
  void the_whole_way_and_back_in_a_place() throws IOException {
    make();
    Map<String, String> before = Trees.of(user), gameBefore = Trees.of(game);
    install("heavy", "20");
    install("light", "5");
    assertThat(api.get(base + "/records").path("states").path("needYou").asInt()).isEqualTo(1);
    api.change(
        "PUT",
        base + "/records/cast/=marl/decisions",
        Map.of("place", "weight", "decision", Map.of("take", "heavy")));
    api.job(base + "/mends/patch", null).result();
    done("/deploy");
    assertThat(user.resolve("mods/heavy/casts.json")).content().contains("20");
    assertThat(user.resolve("mods/Everyday-patch/casts.json")).content().contains("20");
    assertThat(user.resolve("enabled.json"))
        .content()
        .startsWith("{ \"volume\": 7, \"order\": [")
        .contains("Everyday-patch");
    assertThat(api.get(base + "/drift").path("inAll").asInt()).isZero();

    write(user.resolve("enabled.json"), "{ \"volume\": 7, \"order\": [] }\n");
    assertThat(api.get(base + "/load-order/list-file").path("state").asText()).isEqualTo("CHANGED");
    Files.delete(user.resolve("mods/light/casts.json"));
    assertThat(api.get(base + "/drift").toString()).contains("@user/mods/light/casts.json");
    done("/load-order/list-file/put-back");
    done("/deploy");
    // what somebody had changed is kept beside, in the place
    JsonNode left = api.get(base + "/drift");
    assertThat(left.path("inAll").asInt()).isEqualTo(1);
    assertThat(left.toString()).contains("SET_ASIDE").contains("@user/.ironing/");

    write(user.resolve("settings.ini"), "loud = yes\n");
    done("/deploy");
    assertThat(user.resolve("settings.ini")).hasContent("loud = yes\n");
    done("/deploy/undeploy");
    assertThat(Trees.of(game)).isEqualTo(gameBefore);
    Map<String, String> after = Trees.of(user);
    after.keySet().removeIf(p -> p.startsWith(".ironing"));
    after.remove("settings.ini");
    Map<String, String> expected = new TreeMap<>(before);
    expected.remove("settings.ini");
    assertThat(after).isEqualTo(expected);
  }

  @Test
  void while_a_place_is_gone_deploying_is_refused_and_said_and_nothing_is_made_there()
      throws IOException {
    make();
    install("heavy", "20");
    done("/deploy");
    Path away = temp.resolve("away");
    Files.move(user, away);
    assertThat(api.get(base + "/wrinkles").toString()).contains("place-gone");
    assertThat(api.refusal("POST", base + "/deploy", null)).isEqualTo("place-gone");
    assertThat(api.refusal("POST", base + "/deploy/undeploy", null)).isEqualTo("place-gone");
    assertThat(api.get(base).path("places").path(0).path("there").asBoolean()).isFalse();
    assertThat(user).doesNotExist();
    assertThat(api.refusal("PUT", base + "/places/user", Map.of("folder", temp.toString())))
        .isEqualTo("place-wrong");
    Files.move(away, user);
    done("/deploy/undeploy");
    assertThat(user.resolve("mods/heavy")).doesNotExist();
  }

  @Test
  void a_place_can_be_another_folder_once_nothing_is_deployed_in_it() throws IOException {
    make();
    install("heavy", "20");
    done("/deploy");
    Path other = Files.createDirectories(temp.resolve("other")).toRealPath();
    write(other.resolve("mods/base/foundry.json"), "{\"id\":\"base\"}");
    write(
        other.resolve("mods/base/casts.json"), "{\"marl\":{\"weight\":11},\"tam\":{\"weight\":1}}");
    Map<String, Object> there = Map.of("folder", other.toString());
    assertThat(api.refusal("PUT", base + "/places/user", there)).isEqualTo("place-in-use");
    assertThat(api.refusal("PUT", base + "/places/nobody", there)).isEqualTo("not-found");
    done("/deploy/undeploy");
    JsonNode job = api.send("PUT", base + "/places/user", there, Map.of()).body();
    Patience.until(
        () ->
            api.get("/api/jobs/" + job.path("id").asLong()).path("state").asText().equals("DONE"));
    assertThat(api.get(base).path("places").path(0).path("folder").asText())
        .isEqualTo(other.toString());
    assertThat(api.get(base + "/records").path("records").asInt()).isEqualTo(2);
    done("/deploy");
    assertThat(other.resolve("mods/heavy/casts.json")).exists();
    assertThat(user.resolve("mods/heavy")).doesNotExist();
    assertThat(user.resolve(".ironing")).doesNotExist();
  }

  @Test
  void a_place_that_was_moved_with_what_is_in_it_is_found_again() throws IOException {
    make();
    Map<String, String> before = Trees.of(user);
    install("heavy", "20");
    done("/deploy");
    Path moved = temp.resolve("moved");
    Files.move(user, moved);
    Path empty = Files.createDirectories(temp.resolve("empty")).toRealPath();
    assertThat(api.refusal("PUT", base + "/places/user", Map.of("folder", empty.toString())))
        .isEqualTo("place-in-use");
    JsonNode job =
        api.send("PUT", base + "/places/user", Map.of("folder", moved.toString()), Map.of()).body();
    Patience.until(
        () ->
            api.get("/api/jobs/" + job.path("id").asLong()).path("state").asText().equals("DONE"));
    assertThat(api.get(base + "/drift").path("inAll").asInt()).isZero();
    done("/deploy/undeploy");
    assertThat(Trees.of(moved)).isEqualTo(before);
  }

  @Test
  void a_workspace_whose_place_is_gone_for_good_can_be_deleted() throws IOException {
    make();
    install("heavy", "20");
    done("/deploy");
    Trees.remove(user);
    assertThat(api.get(base + "/removal").path("folderThere").asBoolean()).isFalse();
    assertThat(api.refusal("DELETE", base, null)).isEqualTo("game-folder-missing");
    api.send("DELETE", base + "?leaveFolder=true", null, Map.of("Prefer", "wait=60"));
    assertThat(api.get("/api/workspaces").findValuesAsText("folder"))
        .doesNotContain(game.toString());
  }

  @Test
  void a_definition_can_name_a_place_more() throws IOException {
    make();
    Path more = Files.createDirectories(temp.resolve("more")).toRealPath();
    write(more.resolve("tunes/a.txt"), "a tune");
    String next =
        DEFINITION.replace(
            "places:\n", "places:\n  more: { at: [ \"" + more + "\" ], what: Tunes }\n");
    JsonNode look =
        api.send("POST", base + "/definition/look", Map.of("definition", next), Map.of()).body();
    assertThat(look.path("places").findValuesAsText("id")).containsExactly("more");
    JsonNode job =
        api.send("PUT", base + "/definition", Map.of("definition", next), Map.of()).body();
    Patience.until(
        () ->
            api.get("/api/jobs/" + job.path("id").asLong()).path("state").asText().equals("DONE"));
    assertThat(api.get(base).path("places").findValuesAsText("id")).containsExactly("more", "user");
    write(more.resolve("tunes/b.txt"), "another");
    assertThat(api.get(base + "/drift").toString())
        .contains("@more/tunes/b.txt")
        .doesNotContain("@more/tunes/a.txt");
  }

  @Test
  void a_run_finds_its_places_and_what_it_leaves_there_stays() {
    DemoWorld world = DemoWorld.ofText(temp.resolve("lanterns"), "lanterns");
    base = "/api/workspaces/" + world.bringIn(api, TextGamesLoader.GAMES.get("lanterns"));
    done("/deploy");
    long run = api.send("POST", base + "/runs", Map.of(), Map.of()).body().path("run").asLong();
    Patience.until(() -> !api.get(base + "/runs/" + run).path("state").asText().equals("RUNNING"));
    JsonNode told = api.get(base + "/runs/" + run);
    assertThat(told.path("state").asText()).isEqualTo("PLAYED");
    assertThat(told.path("reports").toString()).contains("\"name\":\"glow\",\"value\":\"soft\"");
    Path evenings = temp.resolve("lanterns/user/evenings");
    assertThat(evenings.resolve("evening-1.json")).exists();
    done("/deploy/undeploy");
    assertThat(evenings.resolve("evening-1.json")).exists();
    assertThat(temp.resolve("lanterns/user/.ironing")).doesNotExist();
  }
}
