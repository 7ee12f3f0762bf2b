package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/**
 * Refusals that no test of a feature has for its subject: each by its code, and nothing changed.
 */
@ExtendWith(SharedServer.class)
class ErrorCodesIT {
  @TempDir Path temp;

  @Test
  void what_the_list_of_codes_says_of_one_is_told_and_of_none_too(Api api) {
    JsonNode busy = api.get("/api/codes/busy");
    assertThat(busy.path("kind").asText()).isEqualTo("ERROR");
    assertThat(busy.path("status").asInt()).isEqualTo(409);
    assertThat(busy.path("means").asText()).isNotBlank();
    assertThat(api.get("/api/codes/clash").path("kind").asText()).isEqualTo("WRINKLE");
    assertThat(api.get("/api/codes").path("codes").findValuesAsText("code"))
        .contains("busy", "clash", "merge-loses")
        .isSorted();
    assertThat(api.refusal("GET", "/api/codes/nonesuch", null)).isEqualTo("not-found");
  }

  @Test
  void a_request_that_does_not_fit_its_address(Api api) {
    String base = "/api/workspaces/" + api.workspace(Games.plain(temp.resolve("game")));
    assertThat(api.refusal("POST", "/api/workspaces", "{")).isEqualTo("body-unreadable");
    assertThat(api.refusal("GET", base + "/timeline?limit=-1", null)).isEqualTo("parameter-unfit");
    assertThat(api.refusal("PATCH", base + "/timeline", null)).isEqualTo("method-unknown");
    assertThat(api.refusal("GET", base + "/path?path=a%00b", null)).isEqualTo("request-unfit");
    assertThat(api.refusal("GET", base + "/path", null)).isEqualTo("request-unfit");
    assertThat(api.refusal("GET", "/api/nowhere", null)).isEqualTo("not-found");
    Api.Answer elsewhere = api.ask("GET", base, null, Map.of("Origin", "http://elsewhere.example"));
    assertThat(elsewhere.status()).isEqualTo(403);
    assertThat(elsewhere.body().path("code").asText()).isEqualTo("request-refused");
  }

  @Test
  void a_workspace_that_cannot_be_made(Api api) {
    Path game = Games.plain(temp.resolve("game"));
    long workspace = api.workspace(game);
    assertThat(api.refusal("POST", "/api/workspaces", Map.of("folder", game.toString())))
        .isEqualTo("already-there");
    Path bare = temp.resolve("bare");
    Trees.write(bare.resolve("a.txt"), "a");
    assertThat(api.refusal("POST", "/api/workspaces/look", Map.of("folder", bare.toString())))
        .isEqualTo("definition-missing");
    String storage = api.get("/api/workspaces/" + workspace + "/storage").path("folder").asText();
    assertThat(storage).isNotEmpty();
    assertThat(
            api.refusal(
                "POST", "/api/workspaces/" + workspace + "/storage/move", Map.of("folder", "")))
        .isEqualTo("already-there");
  }

  @Test
  void archives_and_mods(Api api, TestServer server) throws IOException {
    long workspace = api.workspace(Games.plain(temp.resolve("game")));
    String base = "/api/workspaces/" + workspace;
    assertThat(api.refusal("POST", base + "/inbox/install-ready", Map.of()))
        .isEqualTo("nothing-ready");
    byte[] bytes = Archives.zip(Map.of("tide.txt", "high\n", "maps/a.map", "\u0000\u0001"));
    long archive = api.bringIn(workspace, "Tides.zip", bytes);
    long mod = api.job(base + "/mods", Map.of("archive", archive)).result();
    long other = api.install(workspace, "Reefs.zip", Games.mod(Map.of("reef.txt", "r"))).result();
    assertThat(api.refusal("POST", base + "/mods", Map.of("archive", archive)))
        .isEqualTo("already-there");
    assertThat(api.refusal("DELETE", base + "/archives/" + archive, null)).isEqualTo("in-use");
    String address = base + "/mods/" + mod;
    Map<String, String> card =
        Map.of("name", " ", "version", "1", "summary", "", "url", "", "item", "", "release", "");
    Map<String, Object> nameless = new java.util.HashMap<>(card);
    nameless.put("authors", List.of());
    assertThat(api.refusal("PUT", address + "/card", nameless)).isEqualTo("card-wrong");
    assertThat(api.refusal("PUT", address + "/tags", Map.of("tags", List.of("x".repeat(41)))))
        .isEqualTo("tag-long");
    assertThat(api.refusal("PUT", address + "/notes", Map.of("notes", "x".repeat(200_001))))
        .isEqualTo("notes-long");
    assertThat(api.refusal("GET", address + "/text?path=add-ons/maps/a.map", null))
        .isEqualTo("not-text");
    assertThat(api.refusal("POST", address + "/restore", Map.of("path", "add-ons/tide.txt")))
        .isEqualTo("not-edited");
    assertThat(api.refusal("GET", address + "/compare?with=" + other, null)).isEqualTo("other-mod");
    assertThat(
            api.refusal(
                "PUT",
                base + "/layers/pair-notes",
                Map.of("mod", mod, "other", other, "note", "x".repeat(20_000))))
        .isEqualTo("bad-note");
    Map<String, Object> ruling = Map.of("at", "a".repeat(9_000), "mod", mod);
    assertThat(api.refusal("PUT", base + "/rulings", Map.of("rulings", List.of(ruling))))
        .isEqualTo("too-long");

    // the library's own files, changed behind its back
    Path content = file(server.library(workspace), "tide.txt");
    Files.delete(content);
    Files.createDirectory(content);
    assertThat(api.refusal("GET", address + "/text?path=add-ons/tide.txt", null))
        .isEqualTo("library-failed");
    Files.delete(content);
  }

  private static Path file(Path below, String name) throws IOException {
    try (Stream<Path> all = Files.walk(below)) {
      return all.filter(Files::isRegularFile)
          .filter(f -> f.getFileName().toString().contains(name))
          .findFirst()
          .orElseThrow();
    }
  }

  @Test
  void plugins(Api api) {
    Path game = Games.withPlugins(temp.resolve("game"));
    long workspace = api.workspace(game);
    String base = "/api/workspaces/" + workspace;
    api.install(
            workspace,
            "A.zip",
            Archives.zipOf(Map.of("A.plug", Games.plugin("A.plug", 5, "Base.plug"))))
        .result();
    String order = base + "/load-order";
    assertThat(api.refusal("POST", order + "/move", Map.of("name", "Base.plug", "to", 2)))
        .isEqualTo("plugin-fixed");
    assertThat(
            api.refusal(
                "POST", order + "/switch", Map.of("names", List.of("Base.plug"), "on", false)))
        .isEqualTo("plugin-fixed");
    assertThat(api.refusal("POST", order + "/list-file/put-back", null)).isEqualTo("no-list");
    assertThat(api.refusal("GET", base + "/records/compare?plugin=A.plug", null))
        .isEqualTo("too-few");
  }

  @Test
  void words_of_a_list_are_taken_as_the_formats_write_them(Api api) {
    long workspace = api.workspace(Games.plain(temp.resolve("game")));
    String base = "/api/workspaces/" + workspace;
    long one = api.install(workspace, "One.zip", Games.mod(Map.of("one.txt", "1"))).result();
    long two = api.install(workspace, "Two.zip", Games.mod(Map.of("two.txt", "2"))).result();
    for (String kind : List.of("above", "directly-above", "Directly below", "BELOW"))
      api.change("POST", base + "/layers/rules", Map.of("kind", kind, "mod", one, "other", two));
    Map<String, Object> wrong = Map.of("kind", "nowhere", "mod", one, "other", two);
    assertThat(api.refusal("POST", base + "/layers/rules", wrong)).isEqualTo("body-unreadable");
    for (String kind : List.of("no-files-shared", "17"))
      assertThat(api.refusal("GET", base + "/overlaps?kind=" + kind, null))
          .isEqualTo("request-unfit");
    assertThat(api.get(base + "/overlaps?kind=DIFFERS,differs").path("total").asInt()).isZero();
  }
}
