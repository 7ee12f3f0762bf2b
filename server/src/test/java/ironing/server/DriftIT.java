package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** A game folder that somebody else has changed: told by cause, and mended. */
@ExtendWith(SharedServer.class)
class DriftIT {
  @TempDir Path temp;
  private Api api;
  private Path game;
  private long workspace;
  private String base;
  private long mod;

  @BeforeEach
  void deployed(Api api) {
    this.api = api;
    game = Games.plain(temp.resolve("game"));
    Trees.write(game.resolve("add-ons/tide.txt"), "the game's\n");
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    Map<String, byte[]> files = new LinkedHashMap<>();
    for (String f : List.of("tide.txt", "reef.txt", "maps/west.map"))
      files.put("add-ons/" + f, (f + " of a mod\n").getBytes(StandardCharsets.UTF_8));
    mod = api.install(workspace, "Reefs 1.0.zip", Archives.zipOf(files)).result();
    api.job(base + "/deploy", null);
  }

  private Map<String, String> drift() {
    return drift("");
  }

  private Map<String, String> drift(String query) {
    Map<String, String> found = new TreeMap<>();
    for (JsonNode g : api.get(base + "/drift" + query).path("groups"))
      for (JsonNode f : g.path("files"))
        found.put(f.path("path").asText(), g.path("cause").asText());
    return found;
  }

  private void replace(String path, String text) throws IOException {
    Files.delete(game.resolve(path));
    Trees.write(game.resolve(path), text);
  }

  @Test
  void what_another_workspace_deployed_is_taken_out_but_never_deployed_over() throws IOException {
    Path note = game.resolve(".ironing/laid-out.json");
    String text = Files.readString(note);
    assertThat(text).contains("\"owner\":\"");
    Files.writeString(note, text.replaceFirst("\"owner\":\"[^\"]*\"", "\"owner\":\"another/1\""));
    Api.Answer refused = api.ask("POST", base + "/deploy", null, Map.of());
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.body().path("code").asText()).isEqualTo("deployed-by-another");
    api.job(base + "/deploy/undeploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).doesNotExist();
    assertThat(game.resolve("add-ons/tide.txt")).hasContent("the game's\n");
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).exists();
  }

  @Test
  void a_folder_within_a_game_s_folder_is_no_other_game() {
    Path inner = Games.plain(game.resolve("inner"));
    Map<String, String> wish = Map.of("folder", inner.toString());
    Api.Answer refused = api.ask("POST", "/api/workspaces", wish, Map.of());
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.body().toString()).contains("folders-nested", "Plain Sailing");
  }

  @Test
  void what_was_changed_and_what_is_gone_is_put_back_and_nothing_is_thrown_away()
      throws IOException {
    assertThat(drift()).isEmpty();
    assertThat(drift("?thorough=true")).isEmpty();
    replace("add-ons/reef.txt", "by hand\n");
    replace("add-ons/tide.txt", "the game's\n");
    Files.delete(game.resolve("add-ons/maps/west.map"));
    assertThat(drift())
        .isEqualTo(
            Map.of(
                "add-ons/reef.txt", "CHANGED",
                "add-ons/tide.txt", "PUT_BACK",
                "add-ons/maps/west.map", "MISSING"));
    for (String cause : List.of("CHANGED", "PUT_BACK", "MISSING"))
      api.job(base + "/drift/put-back", Map.of("cause", cause));
    assertThat(game.resolve("add-ons/reef.txt")).hasContent("reef.txt of a mod\n");
    assertThat(game.resolve("add-ons/tide.txt")).hasContent("tide.txt of a mod\n");
    assertThat(game.resolve("add-ons/maps/west.map")).exists();
    assertThat(drift()).containsValue("SET_ASIDE").doesNotContainValue("CHANGED");
    api.job(base + "/deploy/undeploy", null);
    assertThat(game.resolve("add-ons/tide.txt")).hasContent("the game's\n");
  }

  @Test
  void what_was_written_through_a_link_is_put_back_from_the_archive_and_offered()
      throws IOException {
    Files.writeString(game.resolve("add-ons/reef.txt"), "written through\n");
    assertThat(drift()).isEqualTo(Map.of("add-ons/reef.txt", "THROUGH_LINK"));
    api.job(base + "/drift/put-back", Map.of("cause", "THROUGH_LINK"));
    assertThat(game.resolve("add-ons/reef.txt")).hasContent("reef.txt of a mod\n");
    assertThat(drift()).as("what was written is not lost").containsValue("SET_ASIDE").hasSize(1);
    assertThat(api.get(base + "/timeline").toString()).contains("Installed “Reefs” again");
  }

  @Test
  void a_mod_that_was_written_to_through_a_link_is_whole_again_after_undeploying_and_deploying()
      throws IOException {
    Files.writeString(game.resolve("add-ons/reef.txt"), "written through\n");
    api.job(base + "/deploy/undeploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).doesNotExist();
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).hasContent("reef.txt of a mod\n");
    Files.writeString(game.resolve("add-ons/reef.txt"), "and again\n");
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).hasContent("reef.txt of a mod\n");
    assertThat(drift("?thorough=true")).containsValue("SET_ASIDE").hasSize(2);
  }

  @Test
  void what_was_changed_goes_into_its_mod_where_the_user_wants_it_so() throws IOException {
    replace("add-ons/reef.txt", "by hand\n");
    Files.writeString(game.resolve("add-ons/maps/west.map"), "through the link\n");
    for (String cause : List.of("CHANGED", "THROUGH_LINK"))
      api.job(base + "/drift/own", Map.of("cause", cause));
    assertThat(drift("?thorough=true")).as("nothing was set aside").isEmpty();
    assertThat(game.resolve("add-ons/reef.txt")).hasContent("by hand\n");
    assertThat(game.resolve("add-ons/maps/west.map")).hasContent("through the link\n");
    api.job(base + "/deploy/undeploy", null);
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).as("it is the mod’s now").hasContent("by hand\n");
    assertThat(game.resolve("add-ons/maps/west.map")).hasContent("through the link\n");
    assertThat(api.get(base + "/timeline").toString())
        .contains("Took add-ons/reef.txt into “Reefs”");
    Api.Answer none = api.ask("POST", base + "/drift/own", Map.of("cause", "MISSING"), Map.of());
    assertThat(none.status()).isEqualTo(422);
  }

  @Test
  void what_only_a_thorough_look_finds_is_put_back_too() throws IOException {
    Path reef = game.resolve("add-ons/reef.txt");
    // as some programs write: size, time and place stay
    Path kept = temp.resolve("kept");
    Files.copy(reef, kept);
    FileTime time = Files.getLastModifiedTime(reef);
    Files.writeString(reef, Files.readString(reef).replace("mod", "MOD"));
    Files.setLastModifiedTime(reef, time);
    assertThat(drift()).isEmpty();
    assertThat(drift("?thorough=true")).isEqualTo(Map.of("add-ons/reef.txt", "THROUGH_LINK"));
    api.job(base + "/drift/put-back", Map.of("cause", "THROUGH_LINK", "thorough", true));
    assertThat(reef).hasSameTextualContentAs(kept);
  }

  @Test
  void new_files_are_taken_into_the_inbox_or_left_and_told_again_once_they_change()
      throws IOException {
    Trees.write(game.resolve("add-ons/found.txt"), "found\n");
    Trees.write(game.resolve("notes.txt"), "mine\n");
    assertThat(drift()).isEqualTo(Map.of("add-ons/found.txt", "NEW", "notes.txt", "NEW"));
    Map<String, Object> notes = Map.of("cause", "NEW", "paths", List.of("notes.txt"));
    assertThat(api.ask("POST", base + "/drift/left", notes, Map.of()).status()).isEqualTo(204);
    assertThat(drift()).isEqualTo(Map.of("add-ons/found.txt", "NEW"));
    assertThat(api.get(base + "/drift").path("left").asInt()).isOne();
    JsonNode taken =
        api.send("POST", base + "/drift/take", Map.of("cause", "NEW"), Map.of()).body();
    assertThat(game.resolve("add-ons/found.txt")).doesNotExist();
    assertThat(game.resolve("notes.txt")).hasContent("mine\n");
    long mod = api.job(base + "/mods", Map.of("archive", taken.path("archive").asLong())).result();
    assertThat(mod).isPositive();
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/found.txt")).hasContent("found\n");
    Trees.write(game.resolve("notes.txt"), "mine, and more\n");
    assertThat(drift()).containsEntry("notes.txt", "NEW");
    Trees.write(game.resolve("notes.txt"), "mine\n");
    assertThat(drift()).doesNotContainKey("notes.txt");
    assertThat(api.ask("DELETE", base + "/drift/left", null, Map.of()).status()).isEqualTo(204);
    assertThat(drift()).containsEntry("notes.txt", "NEW");
  }

  @Test
  void what_is_asked_of_the_wrong_files_is_refused_with_the_reason() throws IOException {
    Trees.write(game.resolve("notes.txt"), "mine\n");
    Api.Answer wrong = api.ask("POST", base + "/drift/put-back", Map.of("cause", "NEW"), Map.of());
    assertThat(wrong.status()).isEqualTo(422);
    assertThat(wrong.body().path("code").asText()).isEqualTo("not-for-these");
    Api.Answer none =
        api.ask("POST", base + "/drift/put-back", Map.of("cause", "MISSING"), Map.of());
    assertThat(none.body().path("code").asText()).isEqualTo("no-drift");
  }

  @Test
  void every_deployment_is_noted_and_can_be_gone_back_to() throws IOException {
    JsonNode first = api.get(base + "/deploy/history").get(0);
    assertThat(first.path("kind").asText()).isEqualTo("DEPLOY");
    assertThat(first.path("result").asText()).isEqualTo("DONE");
    assertThat(first.path("put").asInt()).isEqualTo(3);
    assertThat(first.path("files").asInt()).isEqualTo(3);
    assertThat(first.path("tookMs").isNumber()).isTrue();
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(mod), "on", false));
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).doesNotExist();
    JsonNode second = api.get(base + "/deploy/history").get(0);
    assertThat(second.path("takenOut").asInt()).isEqualTo(3);
    api.change("POST", base + "/deploy/history/" + first.path("id").asLong() + "/return", null);
    api.job(base + "/deploy", null);
    assertThat(game.resolve("add-ons/reef.txt")).hasContent("reef.txt of a mod\n");
    Files.delete(game.resolve("add-ons/reef.txt"));
    api.job(base + "/drift/put-back", Map.of("cause", "MISSING"));
    JsonNode last = api.get(base + "/deploy/history").get(0);
    assertThat(last.path("kind").asText()).isEqualTo("PUT_BACK");
    assertThat(last.path("put").asInt()).isOne();
    Files.delete(game.resolve(".ironing/kept/add-ons/tide.txt"));
    api.ask("POST", base + "/deploy/undeploy", null, Map.of("Prefer", "wait=30"));
    JsonNode failed = api.get(base + "/deploy/history").get(0);
    assertThat(failed.path("result").asText()).isEqualTo("FAILED");
    assertThat(failed.path("why").asText()).contains("tide.txt");
    Api.Answer none = api.ask("POST", base + "/deploy/history/999999/return", null, revision());
    assertThat(none.status()).isEqualTo(404);
  }

  private Map<String, String> revision() {
    return Map.of("If-Match", "\"" + api.get(base).path("revision").asLong() + "\"");
  }
}
