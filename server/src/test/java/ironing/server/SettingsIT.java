package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Settings files of which each profile has a copy, and wrinkles that are set aside. */
@ExtendWith(SharedServer.class)
class SettingsIT {
  @TempDir Path temp;
  private Api api;
  private Path game;
  private Path own;
  private long workspace;
  private String base;

  @BeforeEach
  void aGameWithSettings(Api api) throws IOException {
    this.api = api;
    game = Games.plain(temp.resolve("game"));
    own = game.resolve("settings/own.ini");
    Trees.write(game.resolve("game.yaml"), Games.PLAIN + "perProfile: [ \"settings/*.ini\" ]\n");
    Trees.write(own, "volume = 3\n");
    workspace = api.workspace(game);
    base = "/api/workspaces/" + workspace;
    String card = "format: ironing/mod@1\nid: a\nname: A\nversion: 1.0\nneeds: [ { mod: kelp } ]\n";
    api.install(workspace, "A.zip", Games.mod(Map.of("mod-card.yaml", card, "tide.txt", "high\n")));
  }

  private long profile(String name) {
    for (JsonNode p : api.get(base + "/profiles"))
      if (p.path("name").asText().equals(name)) return p.path("id").asLong();
    throw new AssertionError("no profile " + name);
  }

  private void use(String name) {
    api.send("POST", base + "/profiles/" + profile(name) + "/use", Map.of(), Map.of());
  }

  @Test
  void each_profile_has_its_copy_and_the_original_comes_back() throws IOException {
    String first = api.get(base + "/profiles").get(0).path("name").asText();
    api.job(base + "/deploy", null);
    Files.writeString(own, "volume = 9\n");
    api.send("POST", base + "/profiles", Map.of("name", "Quiet", "from", profile(first)), Map.of());
    use("Quiet");
    assertThat(api.get(base + "/deploy").path("replace").asInt()).isEqualTo(1);
    api.job(base + "/deploy", null);
    assertThat(own).hasContent("volume = 3\n");
    assertThat(api.get(base + "/deploy").path("replace").asInt()).isZero();
    Files.writeString(own, "volume = 0\n");
    Files.writeString(own.resolveSibling("new.ini"), "made by the game\n");
    use(first);
    api.job(base + "/deploy", null);
    assertThat(own).hasContent("volume = 9\n");
    assertThat(own.resolveSibling("new.ini")).exists();
    use("Quiet");
    api.job(base + "/deploy", null);
    assertThat(own).hasContent("volume = 0\n");
    JsonNode kept = api.get(base + "/profiles/" + profile("Quiet") + "/settings");
    assertThat(kept.path("patterns").get(0).asText()).isEqualTo("settings/*.ini");
    assertThat(kept.path("files").findValuesAsText("path"))
        .contains("settings/new.ini", "settings/own.ini");
    // nothing was set aside: what was changed is in the profiles
    assertThat(game.resolve(".ironing/changed")).doesNotExist();
    api.job(base + "/deploy/undeploy", null);
    assertThat(own).hasContent("volume = 3\n");
    String give = base + "/profiles/" + profile("Quiet") + "/settings?path=settings/own.ini";
    api.send("DELETE", give, null, Map.of());
    assertThat(api.ask("DELETE", give, null, Map.of()).status()).isEqualTo(404);
    api.job(base + "/deploy", null);
    assertThat(own).hasContent("volume = 3\n");
  }

  @Test
  void what_the_user_changed_before_the_first_deployment_is_where_profiles_start()
      throws IOException {
    Files.writeString(own, "volume = 5\n");
    api.job(base + "/deploy", null);
    assertThat(own).hasContent("volume = 5\n");
    api.send("POST", base + "/profiles", Map.of("name", "Empty"), Map.of());
    use("Empty");
    JsonNode kept = api.get(base + "/profiles/" + profile("Empty") + "/settings").path("files");
    assertThat(kept.findValuesAsText("path")).containsExactly("settings/own.ini");
    api.job(base + "/deploy/undeploy", null);
    assertThat(own).hasContent("volume = 5\n");
  }

  @Test
  void settings_of_which_nobody_knows_whose_they_are_are_set_aside() throws IOException {
    api.job(base + "/deploy", null);
    Path note = game.resolve(".ironing/laid-out.json");
    // a note from before profiles had settings
    Files.writeString(note, Files.readString(note).replaceFirst("\"profile\":\\d+,", ""));
    assertThat(note).content().doesNotContain("profile\"");
    Files.writeString(own, "volume = 9\n");
    api.job(base + "/deploy/undeploy", null);
    assertThat(own).hasContent("volume = 3\n");
    try (Stream<Path> aside = Files.walk(game.resolve(".ironing/changed"))) {
      assertThat(aside.filter(Files::isRegularFile))
          .singleElement()
          .satisfies(p -> assertThat(p).hasContent("volume = 9\n"));
    }
  }

  @Test
  void a_wrinkle_is_quiet_until_its_facts_change() {
    JsonNode need = api.get(base + "/wrinkles").path("open").get(0);
    assertThat(need.path("code").asText()).isEqualTo("need-unmet");
    assertThat(
            api.refusal(
                "POST",
                base + "/wrinkles/set-aside",
                Map.of("key", need.path("key").asText(), "why", "x".repeat(20_000))))
        .isEqualTo("bad-reason");
    api.send(
        "POST",
        base + "/wrinkles/set-aside",
        Map.of("key", need.path("key").asText(), "why", "Kelp is no more."),
        Map.of());
    assertThat(api.get(base).path("wrinkles")).isEmpty();
    JsonNode aside = api.get(base + "/wrinkles").path("setAside").get(0);
    assertThat(aside.path("why").asText()).isEqualTo("Kelp is no more.");
    // kelp comes, and is switched off: the same need, with other facts
    String card = "format: ironing/mod@1\nid: kelp\nname: Kelp\nversion: 1.0\n";
    long kelp =
        api.install(workspace, "kelp.zip", Games.mod(Map.of("mod-card.yaml", card, "k.txt", "k\n")))
            .result();
    api.change("POST", base + "/layers/switch", Map.of("mods", new long[] {kelp}, "on", false));
    JsonNode again = api.get(base + "/wrinkles").path("open").get(0);
    assertThat(again.path("code").asText()).isEqualTo("need-unmet");
    assertThat(again.path("other").asLong()).isEqualTo(kelp);
    String key = again.path("key").asText();
    api.send("POST", base + "/wrinkles/set-aside", Map.of("key", key), Map.of());
    api.send("DELETE", base + "/wrinkles/set-aside/" + key, null, Map.of());
    assertThat(api.get(base + "/wrinkles").path("open")).hasSize(1);
    assertThat(
            api.ask("POST", base + "/wrinkles/set-aside", Map.of("key", "gone"), Map.of()).status())
        .isEqualTo(404);
  }

  @Test
  void a_file_that_is_too_large_to_have_for_each_profile_is_told() throws IOException {
    String first = api.get(base + "/profiles").get(0).path("name").asText();
    try (RandomAccessFile large = new RandomAccessFile(own.toFile(), "rw")) {
      large.setLength((16 << 20) + 1);
    }
    assertThat(api.refusal("POST", base + "/deploy", null)).isEqualTo("settings-too-large");
    assertThat(game.resolve("add-ons/tide.txt")).hasContent("the game’s tide");
    assertThat(api.get(base + "/profiles").get(0).path("name").asText()).isEqualTo(first);
  }
}
