package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.archive.ContentHash;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** A new version of the game: noticed, told what it means, and taken in. */
@ExtendWith(SharedServer.class)
class GameVersionIT {
  private static final String GAME =
      """
      format: ironing/game@1
      id: tides
      title: Tides
      version: { file: "tides.json", pointer: "/version" }
      manifest: "tides.sha256"
      mounts:
        - { id: data, at: "data", holds: [ "*.txt", "pictures/", "*.box" ] }
      packs: { match: "*.box", container: zip, mount: data, standing: below-loose }
      harmless: [ "pictures/" ]
      combine:
        - { match: "*.txt", as: list }
      """;

  @TempDir Path temp;
  private Path game;
  private String base;
  private long pilots;

  @BeforeEach
  void deployed(Api api) throws IOException {
    game = temp.resolve("game");
    Trees.write(game.resolve("game.yaml"), GAME);
    Trees.write(game.resolve("tides.json"), "{ \"version\": \"1.4\" }");
    for (String f : List.of("tide.txt", "moon.txt", "reef.txt"))
      Trees.write(game.resolve("data/" + f), "the game's " + f + "\n");
    Trees.write(game.resolve("data/pictures/sea.png"), "the game's sea");
    Files.write(game.resolve("data/base.box"), box("old"));
    long workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    pilots =
        api.install(
                workspace,
                "pilots.zip",
                mod("pilots", "<1.5", Map.of("data/tide.txt", "a pilot's tide\n")))
            .result();
    api.install(
        workspace,
        "skies.zip",
        mod("skies", "<1.5", Map.of("data/pictures/sea.png", "another sea")));
    api.install(
        workspace,
        "charts.zip",
        mod(
            "charts",
            "*",
            Map.of("data/moon.txt", "a chart's moon\n", "data/inner.txt", "a chart's inner\n")));
    api.job(base + "/deploy", null);
  }

  private static byte[] box(String word) {
    return Archives.zip(Map.of("inner.txt", word + " inner\n", "still.txt", "still\n"));
  }

  private static byte[] mod(String id, String range, Map<String, String> files) {
    Map<String, byte[]> all = new LinkedHashMap<>();
    String card =
        """
        format: ironing/mod@1
        id: %s
        name: %s
        version: 1.0
        game: { id: tides, versions: "%s" }
        """
            .formatted(id, id.substring(0, 1).toUpperCase(Locale.ROOT) + id.substring(1), range);
    all.put("mod-card.yaml", card.getBytes(StandardCharsets.UTF_8));
    files.forEach((path, text) -> all.put(path, text.getBytes(StandardCharsets.UTF_8)));
    return Archives.zipOf(all);
  }

  /** As an update does it: another file in the place of the one that was there. */
  private void replace(String path, byte[] content) throws IOException {
    Files.deleteIfExists(game.resolve(path));
    Files.createDirectories(game.resolve(path).getParent());
    Files.write(game.resolve(path), content);
  }

  private void replace(String path, String text) throws IOException {
    replace(path, text.getBytes(StandardCharsets.UTF_8));
  }

  private void update() throws IOException {
    replace("tides.json", "{ \"version\": \"1.5\" }");
    replace("data/tide.txt", "the game's newer tide\n");
    replace("data/moon.txt", "the game's newer moon\n");
    replace("data/current.txt", "the game's current\n");
    replace("data/base.box", box("new"));
    Files.delete(game.resolve("data/reef.txt"));
  }

  private static List<String> each(JsonNode list, String field) {
    List<String> out = new ArrayList<>();
    list.forEach(n -> out.add(n.path(field).asText()));
    return out;
  }

  private List<String> wrinkles(Api api) {
    return each(api.get(base).path("wrinkles"), "title");
  }

  @Test
  void a_game_that_is_as_it_was_has_nothing_to_take_in(Api api) {
    JsonNode view = api.get(base + "/game-version");
    assertThat(view.path("noticed").asBoolean()).isFalse();
    assertThat(view.path("known").asText()).isEqualTo("1.4");
    assertThat(view.path("found").asText()).isEqualTo("1.4");
    assertThat(view.path("earlier")).isEmpty();
    Api.Answer refused =
        api.send("POST", base + "/game-version", null, Map.of("Prefer", "wait=60"));
    assertThat(refused.body().path("state").asText()).isEqualTo("FAILED");
    assertThat(each(refused.body().path("problems"), "code")).containsExactly("nothing-new");
  }

  @Test
  void an_update_is_noticed_with_what_it_means_for_the_mods(Api api) throws IOException {
    assertThat(wrinkles(api)).noneMatch(t -> t.contains("1.5"));
    update();
    assertThat(wrinkles(api)).contains("The game is in version 1.5 now");
    JsonNode view = api.get(base + "/game-version");
    assertThat(view.path("known").asText()).isEqualTo("1.4");
    assertThat(view.path("found").asText()).isEqualTo("1.5");
    assertThat(view.path("noticed").asBoolean()).isTrue();
    assertThat(view.path("byManifest").asBoolean()).isFalse();
    Map<String, String> files = new TreeMap<>();
    for (JsonNode f : view.path("files"))
      files.put(
          f.path("path").asText(),
          f.path("kind").asText()
              + (f.path("overDeployed").asBoolean() ? " over a mod" : "")
              + (f.path("pack").asText().isEmpty() ? "" : " in " + f.path("pack").asText()));
    assertThat(files)
        .isEqualTo(
            Map.of(
                "tides.json", "CHANGED",
                "data/tide.txt", "CHANGED over a mod",
                "data/moon.txt", "CHANGED over a mod",
                "data/current.txt", "ADDED",
                "data/base.box", "CHANGED",
                "data/inner.txt", "CHANGED in data/base.box",
                "data/reef.txt", "GONE"));
    assertThat(each(view.path("uncovered"), "name")).containsExactly("Pilots", "Skies");
    assertThat(each(view.path("uncovered"), "harmless")).containsExactly("false", "true");
    assertThat(each(view.path("covering"), "path"))
        .containsExactlyInAnyOrder("data/tide.txt", "data/moon.txt", "data/inner.txt");
    // looking has changed nothing
    assertThat(game.resolve("data/tide.txt")).hasContent("the game's newer tide\n");
    assertThat(api.get(base).path("version").asText()).isEqualTo("1.4");
  }

  @Test
  void a_version_that_is_taken_in_is_the_unmodded_game_from_then_on(Api api) throws IOException {
    update();
    Map<String, String> updated = Trees.of(game);
    assertThat(each(api.get(base).path("wrinkles"), "code")).contains("game-updated");
    api.job(base + "/game-version", null);
    JsonNode view = api.get(base + "/game-version");
    assertThat(view.path("noticed").asBoolean()).as(view.toString()).isFalse();
    assertThat(view.path("known").asText()).isEqualTo("1.5");
    assertThat(each(view.path("earlier"), "version")).containsExactly("1.4");
    assertThat(view.path("earlier").get(0).path("changed").asInt()).isEqualTo(4);
    assertThat(each(api.get(base).path("wrinkles"), "code")).contains("game-version");
    assertThat(wrinkles(api))
        .contains("Pilots is made for another version of the game")
        .noneMatch(t -> t.startsWith("Skies"))
        .doesNotContain("The game is in version 1.5 now");
    // nothing of the update is drift; what was kept of the old game lies aside
    List<String> causes = each(api.get(base + "/drift").path("groups"), "cause");
    assertThat(causes).containsExactly("SET_ASIDE");
    api.job(base + "/deploy", null);
    assertThat(game.resolve("data/tide.txt")).hasContent("a pilot's tide\n");
    api.job(base + "/deploy/undeploy", null);
    Map<String, String> expected = new TreeMap<>(updated);
    // the mods' own files went, and the picture that the update left alone came back
    expected.remove("data/inner.txt");
    expected.put("data/pictures/sea.png", Trees.of(game).get("data/pictures/sea.png"));
    assertThat(Trees.of(game)).isEqualTo(expected);
    assertThat(game.resolve("data/pictures/sea.png")).hasContent("the game's sea");
    assertThat(game.resolve("data/tide.txt")).hasContent("the game's newer tide\n");
    List<String> points = each(api.get(base + "/timeline").path("points"), "name");
    assertThat(points).containsExactly("Before game 1.5");
  }

  @Test
  void what_may_have_been_removed_with_the_mods_file_over_it_is_asked(Api api) throws IOException {
    update();
    Files.delete(game.resolve("data/moon.txt"));
    Files.delete(game.resolve("data/pictures/sea.png"));
    assertThat(api.get(base + "/game-version").path("unsure"))
        .extracting(JsonNode::asText)
        .containsExactly("data/moon.txt", "data/pictures/sea.png");
    Api.Answer asked = api.ask("POST", base + "/game-version", null, Map.of());
    assertThat(asked.status()).isEqualTo(422);
    assertThat(asked.body().path("code").asText()).isEqualTo("update-unsure");
    // undeploying would bring both back, and nobody knows whether they are the game's still
    assertThat(api.refusal("POST", base + "/deploy/undeploy", null)).isEqualTo("update-unsure");
    assertThat(game.resolve("data/tide.txt")).exists();
    Map<String, Object> said =
        Map.of("removed", List.of("data/moon.txt"), "kept", List.of("data/pictures/sea.png"));
    api.job(base + "/game-version", said).result();
    api.job(base + "/deploy", null).result();
    assertThat(game.resolve("data/moon.txt")).hasContent("a chart's moon");
    api.job(base + "/deploy/undeploy", null).result();
    assertThat(game.resolve("data/moon.txt")).doesNotExist();
    assertThat(game.resolve("data/pictures/sea.png")).hasContent("the game's sea");
  }

  @Test
  void the_way_back_to_the_version_of_before_is_the_same(Api api) throws IOException {
    api.job(base + "/deploy/undeploy", null);
    Map<String, String> old = Trees.of(game);
    Map<String, byte[]> files = new TreeMap<>();
    for (String f : old.keySet())
      if (!old.get(f).equals("/")) files.put(f, Files.readAllBytes(game.resolve(f)));
    update();
    api.job(base + "/game-version", null);
    for (Map.Entry<String, byte[]> f : files.entrySet()) replace(f.getKey(), f.getValue());
    Files.delete(game.resolve("data/current.txt"));
    api.job(base + "/game-version", null);
    JsonNode view = api.get(base + "/game-version");
    assertThat(each(view.path("earlier"), "version")).containsExactly("1.5", "1.4");
    api.job(base + "/deploy", null);
    api.job(base + "/deploy/undeploy", null);
    assertThat(Trees.of(game)).isEqualTo(old);
  }

  @Test
  void with_a_manifest_the_games_files_are_told_from_strays(Api api) throws IOException {
    update();
    replace("data/stray.txt", "somebody's\n");
    StringBuilder lines = new StringBuilder();
    for (String f :
        List.of(
            "tides.json", "data/tide.txt", "data/moon.txt", "data/current.txt", "data/base.box"))
      lines.append(ContentHash.of(game.resolve(f))).append("  ").append(f).append('\n');
    lines.append(ContentHash.of("newer sea".getBytes(StandardCharsets.UTF_8)));
    lines.append("  data/pictures/sea.png\n");
    replace("tides.sha256", lines.toString());
    JsonNode view = api.get(base + "/game-version");
    assertThat(view.path("byManifest").asBoolean()).isTrue();
    assertThat(each(view.path("files"), "path"))
        .contains("data/current.txt", "tides.sha256")
        .doesNotContain("data/stray.txt");
    assertThat(view.path("behind")).hasSize(1);
    assertThat(view.path("behind").get(0).asText()).isEqualTo("data/pictures/sea.png");
    api.job(base + "/game-version", null);
    JsonNode groups = api.get(base + "/drift").path("groups");
    assertThat(each(groups, "cause")).contains("NEW");
    assertThat(groups.findValuesAsText("path")).contains("data/stray.txt");
  }

  @Test
  void what_was_changed_before_the_game_was_taken_in_is_told_by_its_manifest(Api api)
      throws IOException {
    game = temp.resolve("modded");
    Trees.write(game.resolve("game.yaml"), GAME);
    Trees.write(game.resolve("tides.json"), "{ \"version\": \"1.4\" }");
    Trees.write(game.resolve("data/tide.txt"), "somebody's tide\n");
    Trees.write(game.resolve("data/moon.txt"), "the game's moon\n");
    StringBuilder lines = new StringBuilder();
    Map.of(
            "tides.json", "{ \"version\": \"1.4\" }",
            "data/tide.txt", "the game's tide\n",
            "data/moon.txt", "the game's moon\n",
            "data/reef.txt", "the game's reef\n")
        .forEach(
            (path, text) ->
                lines
                    .append(ContentHash.of(text.getBytes(StandardCharsets.UTF_8)))
                    .append("  ")
                    .append(path)
                    .append('\n'));
    Trees.write(game.resolve("tides.sha256"), lines.toString());
    String modded = "/api/workspaces/" + api.workspace(game);
    JsonNode view = api.get(modded + "/game-version");
    assertThat(view.path("noticed").asBoolean()).isFalse();
    assertThat(each(view.path("unlike"), "path")).containsExactly("data/reef.txt", "data/tide.txt");
    assertThat(view.path("unlike").get(0).path("gone").asBoolean()).isTrue();
    assertThat(view.path("unlike").get(1).path("gone").asBoolean()).isFalse();

    // the game's own repair
    replace("data/tide.txt", "the game's tide\n");
    replace("data/reef.txt", "the game's reef\n");
    view = api.get(modded + "/game-version");
    assertThat(view.path("noticed").asBoolean()).isTrue();
    assertThat(view.path("unlikeInAll").asInt()).as("told as what is new").isZero();
    api.job(modded + "/game-version", null);
    view = api.get(modded + "/game-version");
    assertThat(view.path("noticed").asBoolean()).isFalse();
    assertThat(view.path("unlike")).isEmpty();
  }

  @Test
  void an_update_that_wrote_through_a_link_costs_the_mod_nothing(Api api) throws IOException {
    replace("tides.json", "{ \"version\": \"1.5\" }");
    // in place: the mod's own file in the library is written to with it
    Files.writeString(game.resolve("data/tide.txt"), "the game's newer tide\n");
    api.job(base + "/game-version", null);
    assertThat(game.resolve("data/tide.txt")).hasContent("the game's newer tide\n");
    api.job(base + "/deploy", null);
    assertThat(game.resolve("data/tide.txt")).hasContent("a pilot's tide\n");
    assertThat(api.get(base + "/mods/" + pilots).path("name").asText()).isEqualTo("Pilots");
    api.job(base + "/deploy/undeploy", null);
    assertThat(game.resolve("data/tide.txt")).hasContent("the game's newer tide\n");
  }

  @Test
  void on_a_word_undeploying_brings_back_what_an_update_may_have_removed(Api api)
      throws IOException {
    update();
    Files.delete(game.resolve("data/pictures/sea.png"));
    api.job(base + "/deploy/undeploy?bringBack=true", null).result();
    assertThat(game.resolve("data/pictures/sea.png")).hasContent("the game's sea");
  }

  @Test
  void deleting_the_workspace_asks_for_the_same_word(Api api) throws IOException {
    update();
    Files.delete(game.resolve("data/pictures/sea.png"));
    Map<String, String> wait = Map.of("Prefer", "wait=60");
    assertThat(api.ask("DELETE", base, null, wait).body().path("code").asText())
        .isEqualTo("update-unsure");
    assertThat(api.get(base + "/removal").path("deployed").asInt()).isPositive();
    JsonNode job = api.send("DELETE", base + "?bringBack=true", null, wait).body();
    assertThat(job.path("state").asText()).as(job.toString()).isEqualTo("DONE");
    assertThat(game.resolve("data/pictures/sea.png")).hasContent("the game's sea");
  }

  @Test
  void a_deployed_file_that_somebody_removed_is_no_update(Api api) throws IOException {
    Files.delete(game.resolve("data/pictures/sea.png"));
    api.job(base + "/deploy/undeploy", null).result();
    assertThat(game.resolve("data/pictures/sea.png")).hasContent("the game's sea");
  }
}
