package ironing.server;

import static ironing.core.testkit.Trees.write;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.archive.ContentHash;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javax.sql.DataSource;
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
  void what_a_definition_would_match_is_shown_before_anything_is_made() {
    Path folder = Games.withPlugins(temp.resolve("game"));
    write(folder.resolve("data/maps/west.map"), "west");
    Map<String, String> request = Map.of("folder", folder.toString());
    JsonNode look = api.send("POST", "/api/workspaces/look", request, Map.of()).body();
    Map<String, Integer> matched = new TreeMap<>();
    for (JsonNode m : look.path("matches"))
      matched.put(m.path("what").asText() + " " + m.path("name").asText(), m.path("count").asInt());
    assertThat(matched)
        .isEqualTo(Map.of("MOUNT data", 2, "PLUGINS ", 1, "OWN_PLUGINS Base.plug", 1));
    assertThat(look.path("matches").get(0).path("first").get(0).asText()).startsWith("data/");
    assertThat(look.has("manifest")).isFalse();
  }

  @Test
  void a_folder_that_is_modded_already_is_told_by_the_games_manifest() throws IOException {
    Path folder = Games.plain(temp.resolve("game"));
    String definition = Games.PLAIN + "manifest: \"plain.sha256\"\n";
    StringBuilder lines = new StringBuilder();
    for (String f : List.of("add-ons/tide.txt", "add-ons/maps/north.map"))
      lines.append(ContentHash.of(folder.resolve(f))).append("  ").append(f).append('\n');
    lines.append("0".repeat(64)).append("  add-ons/lost.txt\n");
    write(folder.resolve("plain.sha256"), lines.toString());
    write(folder.resolve("add-ons/hand.txt"), "put in by hand");
    Map<String, Object> request = Map.of("folder", folder.toString(), "definition", definition);
    JsonNode look = api.send("POST", "/api/workspaces/look", request, Map.of()).body();
    JsonNode manifest = look.path("manifest");
    assertThat(manifest.path("named").asInt()).isEqualTo(3);
    assertThat(manifest.path("missing").get(0).asText()).isEqualTo("add-ons/lost.txt");
    assertThat(manifest.path("besideInAll").asInt()).isEqualTo(1);
    assertThat(manifest.path("beside").get(0).asText()).isEqualTo("add-ons/hand.txt");

    long workspace = api.job("/api/workspaces", request).result();
    JsonNode groups = api.get("/api/workspaces/" + workspace + "/drift").path("groups");
    assertThat(groups).hasSize(1);
    assertThat(groups.get(0).path("cause").asText()).isEqualTo("NEW");
    assertThat(groups.get(0).path("files").get(0).path("path").asText())
        .isEqualTo("add-ons/hand.txt");
    // it can become a mod
    long archive =
        api.send(
                "POST",
                "/api/workspaces/" + workspace + "/drift/take",
                Map.of("cause", "NEW"),
                Map.of())
            .body()
            .path("archive")
            .asLong();
    api.job("/api/workspaces/" + workspace + "/mods", Map.of("archive", archive));
    api.job("/api/workspaces/" + workspace + "/deploy", null);
    assertThat(folder.resolve("add-ons/hand.txt")).hasContent("put in by hand");
    api.job("/api/workspaces/" + workspace + "/deploy/undeploy", null);
    assertThat(folder.resolve("add-ons/hand.txt")).doesNotExist();
  }

  @Test
  void a_folder_can_be_taken_as_it_was_found() throws IOException {
    Path folder = Games.plain(temp.resolve("game"));
    String definition = Games.PLAIN + "manifest: \"plain.sha256\"\n";
    String tide = ContentHash.of(folder.resolve("add-ons/tide.txt"));
    write(folder.resolve("plain.sha256"), tide + "  add-ons/tide.txt\n");
    Map<String, Object> request =
        Map.of("folder", folder.toString(), "definition", definition, "asFound", true);
    long workspace = api.job("/api/workspaces", request).result();
    assertThat(api.get("/api/workspaces/" + workspace + "/drift").path("groups")).isEmpty();
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

  /** On this machine a backslash may be a letter of a name; it is no folder. */
  @Test
  void a_file_whose_name_is_no_path_is_named_and_left_out_of_the_picture() throws IOException {
    Path folder = Games.plain(temp.resolve("game"));
    Path odd = folder.resolve("add-ons\\tide.txt");
    Files.writeString(odd, "nobody's");
    JsonNode look =
        api.send("POST", "/api/workspaces/look", Map.of("folder", folder.toString()), Map.of())
            .body();
    assertThat(look.path("warnings").findValuesAsText("thing"))
        .containsExactly("add-ons\\tide.txt");
    assertThat(look.at("/warnings/0/reason").asText()).contains("backslash");
    assertThat(look.at("/warnings/0/code").asText()).isEqualTo("name-unusable");
    long workspace = api.workspace(folder);
    String base = "/api/workspaces/" + workspace;
    api.install(workspace, "m.zip", Archives.zip(Map.of("maps/a.map", "a")));
    api.job(base + "/deploy", null).result();
    assertThat(folder.resolve("add-ons/tide.txt")).hasContent("the game’s tide");
    api.job(base + "/deploy/undeploy", null).result();
    assertThat(odd).hasContent("nobody's");
  }

  @Test
  void a_workspace_is_deleted_with_its_library_and_the_game_is_as_it_was() throws IOException {
    Path folder = Games.plain(temp.resolve("leaving"));
    Map<String, String> before = Trees.of(folder);
    long workspace = api.workspace(folder);
    String base = "/api/workspaces/" + workspace;
    byte[] archive = Archives.zip(Map.of("tide.txt", "a mod's\n"));
    api.install(workspace, "one.zip", archive);
    api.bringIn(workspace, "letter.zip", Archives.zip(Map.of("read.me", "x")));
    api.job(base + "/deploy", null).result();
    JsonNode view = api.get(base + "/removal");
    assertThat(view.path("deployed").asInt()).isEqualTo(1);
    assertThat(view.path("mods").asInt()).isEqualTo(1);
    assertThat(view.path("archives").asInt()).isEqualTo(2);
    Path library = Path.of(view.path("libraryFolder").asText());
    assertThat(library).isDirectory();
    Map<String, String> wait = Map.of("Prefer", "wait=60");
    JsonNode job = api.send("DELETE", base, null, wait).body();
    assertThat(job.path("state").asText()).as(job.toString()).isEqualTo("DONE");
    assertThat(Trees.of(folder)).isEqualTo(before);
    assertThat(library).doesNotExist();
    Path kept = Path.of(view.path("archivesTo").asText());
    assertThat(kept.resolve("one.zip")).hasBinaryContent(archive);
    assertThat(kept.resolve("letter.zip")).exists();
    assertThat(api.ask("GET", base, null, Map.of()).status()).isEqualTo(404);
    assertThat(api.ask("GET", base + "/bin", null, Map.of()).status()).isEqualTo(404);
    assertThat(api.get("/api/workspaces").findValuesAsText("id"))
        .doesNotContain(Long.toString(workspace));
    // the folder can be a workspace again, as if nothing had been
    assertThat(api.workspace(folder)).isGreaterThan(workspace);
  }

  /** Looking into an archive goes on behind; it keeps nobody from deleting. */
  @Test
  void a_workspace_is_deleted_while_archives_are_looked_into() throws IOException {
    long workspace = api.workspace(Games.plain(temp.resolve("hurried")));
    String base = "/api/workspaces/" + workspace;
    Map<String, byte[]> many = new HashMap<>();
    for (int i = 0; i < 3000; i++) many.put("a/" + i + ".txt", new byte[100]);
    for (int i = 0; i < 4; i++) {
      many.put("which.txt", new byte[] {(byte) i});
      api.bringIn(workspace, i + ".zip", Archives.zipOf(many));
    }
    assertThat(api.get(base + "/jobs").findValuesAsText("state")).contains("RUNNING");
    JsonNode job = api.send("DELETE", base, null, Map.of("Prefer", "wait=60")).body();
    assertThat(job.path("state").asText()).as(job.toString()).isEqualTo("DONE");
    assertThat(api.ask("GET", base, null, Map.of()).status()).isEqualTo(404);
  }

  @Test
  void a_workspace_whose_folder_is_gone_is_deleted_only_on_a_word() throws IOException {
    Path folder = Games.plain(temp.resolve("away"));
    long workspace = api.workspace(folder);
    String base = "/api/workspaces/" + workspace;
    api.install(workspace, "one.zip", Archives.zip(Map.of("tide.txt", "a mod's\n")));
    api.job(base + "/deploy", null).result();
    Files.move(folder, temp.resolve("elsewhere"));
    assertThat(api.get(base + "/removal").path("folderThere").asBoolean()).isFalse();
    Map<String, String> wait = Map.of("Prefer", "wait=60");
    Api.Answer refused = api.ask("DELETE", base, null, wait);
    assertThat(refused.body().path("code").asText()).isEqualTo("game-folder-missing");
    String query = base + "?keepArchives=false&leaveFolder=true";
    assertThat(api.send("DELETE", query, null, wait).body().path("state").asText())
        .isEqualTo("DONE");
    assertThat(api.ask("GET", base, null, Map.of()).status()).isEqualTo(404);
  }

  @Test
  void another_definition_is_shown_with_what_it_changes_and_installs_mods_as_it_says()
      throws IOException {
    Path folder = Games.plain(temp.resolve("redefined"));
    long workspace = api.workspace(folder);
    String base = "/api/workspaces/" + workspace, definition = base + "/definition";
    byte[] archive =
        Archives.zip(
            Map.of("tide.txt", "t", "tables/a.csv", "a", "read.me", "r", "maps/b.map", "b"));
    long mod = api.install(workspace, "one.zip", archive).result();
    long other = api.install(workspace, "two.zip", Archives.zip(Map.of("sky.txt", "s"))).result();
    assertThat(api.get(definition).path("definition").asText()).isEqualTo(Games.PLAIN);
    String next =
        Games.PLAIN
            .replace("Plain Sailing", "Plainer Sailing")
            .replace(
                "\"maps/\" ] }",
                "\"tables/\" ] }\n  - { id: charts, at: charts, holds: [ \"maps/\" ] }");
    JsonNode look =
        api.send("POST", definition + "/look", Map.of("definition", next), Map.of()).body();
    assertThat(look.path("mods").findValuesAsText("mod")).containsExactly(Long.toString(mod));
    assertThat(look.path("more").toString())
        .isEqualTo("[\"add-ons/tables/a.csv\",\"charts/maps/b.map\"]");
    assertThat(look.path("gone").toString()).isEqualTo("[\"add-ons/maps/b.map\"]");
    // to look changes nothing
    assertThat(api.get(definition).path("definition").asText()).isEqualTo(Games.PLAIN);
    String bad = next.replace("holds: [ \"maps/\" ]", "holds: 5 :");
    Api.Answer refused = api.ask("PUT", definition, Map.of("definition", bad), Map.of());
    assertThat(refused.status()).isEqualTo(422);
    api.job(base + "/deploy", null).result();
    Map<String, String> wait = Map.of("Prefer", "wait=60");
    JsonNode job = api.send("PUT", definition, Map.of("definition", next), wait).body();
    assertThat(job.path("state").asText()).as(job.toString()).isEqualTo("DONE");
    assertThat(api.get(base).path("title").asText()).isEqualTo("Plainer Sailing");
    assertThat(api.get(base + "/mods/" + mod).path("files").findValuesAsText("path"))
        .containsExactlyInAnyOrder("add-ons/tables/a.csv", "add-ons/tide.txt", "charts/maps/b.map");
    look = api.send("POST", definition + "/look", Map.of("definition", next), Map.of()).body();
    assertThat(look.path("mods")).as("nothing is left to do").isEmpty();
    api.job(base + "/deploy", null).result();
    assertThat(folder.resolve("charts/maps/b.map")).hasContent("b");
    assertThat(folder.resolve("add-ons/maps/b.map")).doesNotExist();
    api.job(base + "/deploy/undeploy", null).result();
    assertThat(folder.resolve("charts")).doesNotExist();
    assertThat(api.get(base + "/mods/" + other).path("files")).hasSize(1);
  }

  @Test
  void a_mod_with_edited_files_stays_as_it_is_under_another_definition() throws IOException {
    Path folder = Games.plain(temp.resolve("edited"));
    long workspace = api.workspace(folder);
    String base = "/api/workspaces/" + workspace, definition = base + "/definition";
    byte[] archive = Archives.zip(Map.of("tide.txt", "t", "x.csv", "x"));
    long mod = api.install(workspace, "one.zip", archive).result();
    String was = ContentHash.of("t".getBytes(StandardCharsets.UTF_8));
    Map<String, Object> edit = Map.of("path", "add-ons/tide.txt", "text", "mine", "sha256", was);
    api.send("PUT", base + "/mods/" + mod + "/text", edit, Map.of());
    String next = Games.PLAIN.replace("\"maps/\"", "\"maps/\", \"*.csv\"");
    JsonNode look =
        api.send("POST", definition + "/look", Map.of("definition", next), Map.of()).body();
    assertThat(look.path("mods").get(0).path("asIs").asText()).contains("edited");
    Map<String, String> wait = Map.of("Prefer", "wait=60");
    api.send("PUT", definition, Map.of("definition", next), wait);
    assertThat(api.get(base + "/mods/" + mod).path("files")).hasSize(1);
    api.job(base + "/deploy", null).result();
    assertThat(folder.resolve("add-ons/tide.txt")).hasContent("mine");
  }

  /** Whatever has become of a row: it costs itself, is named, and can be dropped. */
  @Test
  void a_row_that_cannot_be_read_costs_itself_and_not_the_workspace(TestServer server)
      throws Exception {
    Path folder = Games.plain(temp.resolve("broken"));
    long workspace = api.workspace(folder);
    String base = "/api/workspaces/" + workspace;
    long one = api.install(workspace, "reef.zip", Archives.zip(Map.of("tide.txt", "1"))).result();
    long two = api.install(workspace, "sand.zip", Archives.zip(Map.of("maps/b", "2"))).result();
    api.change(
        "POST",
        base + "/layers/rules",
        Map.of("kind", "ABOVE", "mod", one, "other", two, "reason", "it says so"));
    try (Connection c = server.bean(DataSource.class).getConnection();
        Statement sql = c.createStatement()) {
      sql.executeUpdate("update mod set card = '{\"id\":\"x\",\"needs\":5}' where id = " + one);
      sql.executeUpdate(
          "update workspace set rules = '[ 7, ' || substr(rules, 2) where id = " + workspace);
      sql.executeUpdate(
          "update profile set arrangement = jsonb_set(arrangement::jsonb, '{plugins}', '{\"a\":1}')"
              + " where workspace_id = "
              + workspace);
    }
    // a change of the library has the rows read anew
    JsonNode given = api.get(base + "/mods/" + two).path("given");
    Map<String, Object> card =
        Api.JSON.convertValue(given, new TypeReference<Map<String, Object>>() {});
    card.put("name", "Sand bank");
    api.send("PUT", base + "/mods/" + two + "/card", card, Map.of());
    List<JsonNode> told = unreadable(base);
    assertThat(told).hasSize(3);
    assertThat(told.toString()).contains("reef", "A rule of placement", "The load order of");
    JsonNode layers = api.get(base + "/layers").path("layers");
    assertThat(layers.findValuesAsText("mod")).contains(Long.toString(one), Long.toString(two));
    assertThat(api.get(base + "/layers/rules").toString()).contains("it says so");
    api.job(base + "/deploy", null).result();
    assertThat(folder.resolve("add-ons/maps/b")).hasContent("2");
    // other parts are written meanwhile, by the library and by hand
    long three = api.install(workspace, "kelp.zip", Archives.zip(Map.of("maps/c", "3"))).result();
    api.change(
        "POST",
        base + "/layers/rules",
        Map.of("kind", "ABOVE", "mod", two, "other", three, "reason", "so it is"));
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(three), "on", false));
    api.send("PUT", base + "/mods/" + two + "/card", card, Map.of());
    assertThat(unreadable(base)).isEqualTo(told);
    for (JsonNode w : told)
      api.send(
          "POST",
          base + "/wrinkles/drop-unreadable",
          Map.of("key", w.path("fix").path("name").asText()),
          Map.of());
    assertThat(unreadable(base)).isEmpty();
    assertThat(api.get(base + "/layers/rules").toString()).contains("it says so");
  }

  private List<JsonNode> unreadable(String base) {
    List<JsonNode> found = new ArrayList<>();
    for (JsonNode w : api.get(base + "/wrinkles").path("open"))
      if (w.path("code").asText().equals("row-unreadable")) found.add(w);
    return found;
  }

  @Test
  void a_definition_without_saves_of_each_profile_says_what_becomes_of_them() {
    Path folder = Games.plain(temp.resolve("saving"));
    String with = Games.PLAIN + "protect: [ \"saves/**\" ]\nperProfile: [ \"saves/**\" ]\n";
    Trees.write(folder.resolve("game.yaml"), with);
    String definition = "/api/workspaces/" + api.workspace(folder) + "/definition";
    JsonNode look =
        api.send("POST", definition + "/look", Map.of("definition", Games.PLAIN), Map.of()).body();
    assertThat(look.path("warnings").findValuesAsText("code")).containsExactly("saves-shared");
    look = api.send("POST", definition + "/look", Map.of("definition", with), Map.of()).body();
    assertThat(look.path("warnings")).isEmpty();
  }

  @Test
  void games_are_found_below_a_folder_and_not_within_one_another() throws Exception {
    Path near = Games.plain(temp.resolve("games/near"));
    Path far = Games.withPlugins(temp.resolve("games/a/b/far"));
    Games.plain(temp.resolve("games/near/copy"));
    Games.plain(temp.resolve("games/.hidden"));
    Games.plain(temp.resolve("games/1/2/3/4/too-deep"));
    Files.createSymbolicLink(temp.resolve("games/link"), near);
    long workspace = api.workspace(near);
    JsonNode found = api.get("/api/folders/games?below=" + temp.resolve("games"));
    assertThat(found.path("games").findValuesAsText("path"))
        .containsExactly(near.toString(), far.toString());
    assertThat(found.path("games").get(0).path("workspace").asLong()).isEqualTo(workspace);
    assertThat(found.path("games").get(1).path("title").asText()).isEqualTo("Under Sail");
    assertThat(found.path("whole").asBoolean()).isTrue();
    assertThat(api.refusal("GET", "/api/folders/games?below=" + temp.resolve("none"), null))
        .isEqualTo("folder-wrong");
  }
}
