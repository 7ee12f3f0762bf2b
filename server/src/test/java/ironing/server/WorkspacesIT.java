package ironing.server;

import static ironing.core.testkit.Trees.write;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Making a workspace of a folder, and a game that is nothing but files. */
@ExtendWith(SharedServer.class)
class WorkspacesIT {
  @TempDir Path temp;
  private Api api;

  @BeforeEach
  void take(Api api) {
    this.api = api;
  }

  @Test
  void a_folder_of_plain_files_goes_the_whole_way_without_plugins() throws Exception {
    Path folder = temp.resolve("game");
    write(folder.resolve("add-ons/tide.txt"), "the game’s tide\n");
    Map<String, String> before = Trees.of(folder);
    Map<String, String> request = Map.of("folder", folder.toString(), "definition", Games.PLAIN);
    JsonNode look = api.send("POST", "/api/workspaces/look", request, Map.of()).body();
    assertThat(look.path("title").asText()).isEqualTo("Plain Sailing");
    assertThat(look.path("itsOwn").asBoolean()).isFalse();
    assertThat(look.has("workspace")).isFalse();
    long workspace = api.job("/api/workspaces", request).result();
    String base = "/api/workspaces/" + workspace;
    api.install(workspace, "Tides 1.zip", Archives.zip(Map.of("tide.txt", "higher\n"))).result();
    api.install(workspace, "Maps 1.zip", Archives.zip(Map.of("maps/west.map", "west\n"))).result();

    JsonNode overview = api.get(base);
    assertThat(overview.path("steps").findValuesAsText("id"))
        .containsExactly("LIBRARY", "LAYERS", "DEPLOY");
    assertThat(api.get(base + "/load-order").path("hasPlugins").asBoolean()).isFalse();
    assertThat(api.get(base + "/records").path("records").asInt()).isZero();
    Api.Answer patch = api.ask("POST", base + "/mends/patch", null, Map.of());
    assertThat(patch.body().path("code").asText()).isEqualTo("no-plugins");

    assertThat(api.job(base + "/deploy", null).body().path("state").asText()).isEqualTo("DONE");
    assertThat(Files.readString(folder.resolve("add-ons/tide.txt"))).isEqualTo("higher\n");
    assertThat(Files.readString(folder.resolve("add-ons/maps/west.map"))).isEqualTo("west\n");
    Api.Answer run = api.ask("POST", base + "/runs", null, Map.of());
    assertThat(run.status()).isEqualTo(422);
    assertThat(run.body().path("code").asText()).isEqualTo("no-command");
    assertThat(api.get(base + "/runs").path("startable").asBoolean()).isFalse();

    api.job(base + "/deploy/undeploy", null);
    assertThat(Trees.of(folder)).isEqualTo(before);
    assertThat(api.get(base + "/drift").path("groups")).isEmpty();
  }

  @Test
  void every_mistake_of_a_definition_is_told_with_its_line_and_column() {
    Path folder = Games.plain(temp.resolve("game"));
    String wrong =
        """
        format: ironing/game@1
        id: plain
        mounts:
          - { id: addons, at: "../outside" }
        plugins:
          match: "*.plug"
          mount: nowhere
        """;
    Map<String, String> request = Map.of("folder", folder.toString(), "definition", wrong);
    Api.Answer answer = api.ask("POST", "/api/workspaces", request, Map.of());
    assertThat(answer.status()).isEqualTo(422);
    assertThat(answer.body().path("code").asText()).isEqualTo("yaml-invalid");
    assertThat(answer.body().path("problems").size()).isGreaterThanOrEqualTo(3);
    assertThat(answer.body().path("problems").findValuesAsText("thing"))
        .allMatch(t -> t.matches("the definition, line \\d+, column \\d+"));
    assertThat(answer.body().path("problems").toString()).contains("title").contains("../outside");
    assertThat(api.get("/api/workspaces").findValuesAsText("folder"))
        .doesNotContain(folder.toString());
  }

  @ParameterizedTest
  @CsvSource({
    "/no/such/folder, folder-wrong",
    "relative/folder, folder-wrong",
    "'', folder-wrong",
    "/etc, definition-missing"
  })
  void a_folder_that_cannot_be_a_game_is_refused_with_its_name(String folder, String code) {
    Api.Answer answer = api.ask("POST", "/api/workspaces", Map.of("folder", folder), Map.of());
    assertThat(answer.status()).isEqualTo(422);
    assertThat(answer.body().path("code").asText()).isEqualTo(code);
    assertThat(answer.body().path("title").asText()).contains(folder);
    assertThat(answer.header("Content-Type")).startsWith("application/problem+json");
  }

  @Test
  void a_folder_without_what_the_definition_detects_is_another_game() {
    Path folder = Games.plain(temp.resolve("game"));
    String definition = Games.PLAIN + "detect: [ \"plain.exe\" ]\n";
    Map<String, String> request = Map.of("folder", folder.toString(), "definition", definition);
    Api.Answer answer = api.ask("POST", "/api/workspaces", request, Map.of());
    assertThat(answer.body().path("code").asText()).isEqualTo("game-folder-wrong");
    assertThat(answer.body().path("detail").asText()).contains("plain.exe");
  }

  @Test
  void one_folder_has_one_workspace() {
    Path folder = Games.plain(temp.resolve("game"));
    long workspace = api.workspace(folder);
    Map<String, String> request = Map.of("folder", folder.resolve("../game").toString());
    Api.Answer again = api.ask("POST", "/api/workspaces", request, Map.of());
    assertThat(again.status()).isEqualTo(409);
    assertThat(again.body().path("detail").asText()).contains("workspace " + workspace);
    JsonNode look = api.send("POST", "/api/workspaces/look", request, Map.of()).body();
    assertThat(look.path("workspace").asLong()).isEqualTo(workspace);
  }

  @Test
  void a_game_folder_that_is_gone_is_told_and_works_again_when_it_is_back() throws Exception {
    Path folder = Games.plain(temp.resolve("game")).toRealPath();
    long workspace = api.workspace(folder);
    String base = "/api/workspaces/" + workspace;
    api.install(workspace, "Tides.zip", Archives.zip(Map.of("tide.txt", "higher\n"))).result();
    Path away = Files.move(folder, temp.resolve("away"));
    Api.Answer deploy = api.ask("POST", base + "/deploy", null, Map.of());
    assertThat(deploy.status()).isEqualTo(422);
    assertThat(deploy.body().path("code").asText()).isEqualTo("game-folder-gone");
    assertThat(deploy.body().path("title").asText()).isEqualTo(folder.toString());
    assertThat(deploy.body().path("detail").asText()).contains("drive");
    assertThat(api.get(base).path("folderThere").asBoolean()).isFalse();
    assertThat(api.get(base + "/deploy").path("there").asBoolean()).isFalse();
    Files.move(away, folder);
    assertThat(api.job(base + "/deploy", null).body().path("state").asText()).isEqualTo("DONE");
  }

  @Test
  void what_nobody_has_made_is_not_found() {
    for (String path :
        new String[] {"", "/layers", "/load-order", "/records", "/library", "/deploy"}) {
      Api.Answer answer = api.ask("GET", "/api/workspaces/999999" + path, null, Map.of());
      assertThat(answer.status()).as(path).isEqualTo(404);
      assertThat(answer.body().path("code").asText()).isEqualTo("not-found");
    }
  }

  @Test
  void folders_are_listed_and_games_among_them_are_told() throws IOException {
    Path inner = Files.createDirectories(temp.resolve("games"));
    Games.plain(inner.resolve("Sailing"));
    Files.createDirectories(inner.resolve("apples"));
    Files.createDirectories(inner.resolve(".hidden"));
    Trees.write(inner.resolve("Broken/game.yaml"), "format: [");
    String path = URLEncoder.encode(inner.toString(), StandardCharsets.UTF_8);
    JsonNode listing = api.get("/api/folders?path=" + path);
    assertThat(listing.path("above").asText()).isEqualTo(inner.toRealPath().getParent().toString());
    assertThat(listing.path("folders").findValuesAsText("name"))
        .containsExactly("apples", "Broken", "Sailing");
    assertThat(listing.path("folders").get(2).path("game").asText()).isEqualTo("Plain Sailing");
    assertThat(listing.path("folders").get(0).has("game")).isFalse();
    assertThat(api.get("/api/folders").path("path").asText()).isNotEmpty();
    Api.Answer wrong = api.ask("GET", "/api/folders?path=relative", null, Map.of());
    assertThat(wrong.status()).isEqualTo(422);
    assertThat(wrong.body().path("code").asText()).isEqualTo("folder-wrong");
  }

  @Test
  void a_body_that_cannot_be_read_is_told_not_a_server_error() {
    for (String body : new String[] {"{", "[]", "{\"folder\":null}", "{}"}) {
      Api.Answer answer = api.ask("POST", "/api/workspaces", body, Map.of());
      assertThat(answer.status()).as(body).isEqualTo(400);
      assertThat(answer.body().path("detail").asText()).contains("/api/openapi.json");
    }
  }
}
