package ironing.server;

import static ironing.core.testkit.Trees.write;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.archive.ContentHash;
import ironing.core.format.FormatExample;
import ironing.core.format.FormatJar;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.SharedServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** A format of plugins in a jar that the user has confirmed, over HTTP. */
@ExtendWith(SharedServer.class)
class FormatsIT {
  private static final String DEFINITION =
      """
      format: ironing/game@1
      id: cellar
      title: Cellar
      mounts: [ { id: data, at: data, holds: [ "*.cask" ] } ]
      plugins:
        match: "*.cask"
        mount: data
        format: cask-maker/cask@1
        own: [ Base.cask ]
        slots: { total: 9, reserved: 0 }
        list: { file: "roster.txt" }
      records: { wine: { label: name, fields: { name: { kind: text }, litres: { kind: number } } } }
      """;
  @TempDir Path temp;
  private Api api;
  private Path jar;
  private String sha256;
  private PluginFormat cask;

  @BeforeEach
  void putTheJarIntoTheHome(Api api) throws IOException {
    this.api = api;
    Path folder = Path.of(api.get("/api/formats").path("folder").asText());
    jar = Files.createDirectories(folder).resolve("cask.jar");
    FormatExample.write(jar);
    sha256 = ContentHash.of(jar);
    cask = FormatJar.load(jar).get(0);
  }

  @AfterEach
  void takeItOut() throws IOException {
    Files.deleteIfExists(jar);
    for (JsonNode j : api.get("/api/formats").path("jars"))
      if (j.path("confirmed").asBoolean())
        api.send("DELETE", "/api/formats/" + j.path("sha256").asText(), null, Map.of());
  }

  private byte[] cask(String name, List<String> masters, Object... litresById) {
    List<Plugin.Record> records = new ArrayList<>();
    for (int i = 0; i < litresById.length; i += 2)
      records.add(
          new Plugin.Record(
              "wine",
              Ref.parse((String) litresById[i]).orElseThrow(),
              Optional.of(
                  new Value.Fields(
                      Map.of(
                          "name", new Value.Text("Red"),
                          "litres", new Value.Int((Integer) litresById[i + 1]))))));
    Plugin plugin = new Plugin(name, Header.of(5, masters, 9), records);
    return cask.write(plugin, name, List.of()).get(name);
  }

  private JsonNode listed() {
    for (JsonNode j : api.get("/api/formats").path("jars"))
      if (j.path("sha256").asText().equals(sha256)) return j;
    throw new AssertionError("it is not listed");
  }

  private Map<String, Object> confirmed(String sha) {
    return Map.of("sha256", sha);
  }

  @Test
  void a_jar_is_used_when_it_is_confirmed_and_not_before() throws IOException {
    assertThat(listed().path("confirmed").asBoolean()).isFalse();
    assertThat(listed().path("formats")).isEmpty();
    assertThat(api.refusal("POST", "/api/formats/confirm", confirmed("0".repeat(64))))
        .isEqualTo("not-found");
    Path game = Files.createDirectories(temp.resolve("game"));
    Map<String, Object> body = Map.of("folder", game.toString(), "definition", DEFINITION);
    assertThat(api.refusal("POST", "/api/workspaces/look", body)).isEqualTo("format-unknown");
    api.send("POST", "/api/formats/confirm", confirmed(sha256), Map.of());
    assertThat(listed().path("formats").path(0).asText()).isEqualTo("cask-maker/cask@1");
    api.send("POST", "/api/workspaces/look", body, Map.of());

    // another content by that name is another jar, and not confirmed
    Files.writeString(jar, "somebody has put another there");
    String other = ContentHash.of(jar);
    for (JsonNode j : api.get("/api/formats").path("jars"))
      assertThat(j.path("confirmed").asBoolean())
          .isEqualTo(!j.path("sha256").asText().equals(other));
    assertThat(api.refusal("POST", "/api/formats/confirm", confirmed(other)))
        .isEqualTo("format-jar-wrong");
    assertThat(api.refusal("DELETE", "/api/formats/" + other, null)).isEqualTo("not-found");
  }

  @Test
  void a_game_of_that_format_goes_the_whole_way() throws IOException {
    api.send("POST", "/api/formats/confirm", confirmed(sha256), Map.of());
    Path game = Files.createDirectories(temp.resolve("game")).toRealPath();
    Files.createDirectories(game.resolve("data"));
    Files.write(game.resolve("data/Base.cask"), cask("Base.cask", List.of(), "Base.cask/1", 10));
    write(game.resolve("game.yaml"), DEFINITION);
    Map<String, String> before = Trees.of(game);
    long workspace = api.workspace(game);
    String base = "/api/workspaces/" + workspace;
    for (Object[] mod : new Object[][] {{"Dry", 20}, {"Wet", 30}}) {
      String name = mod[0] + ".cask";
      api.install(
              workspace,
              mod[0] + "-1.zip",
              Archives.zipOf(
                  Map.of(
                      name,
                      cask(name, List.of("Base.cask"), "Base.cask/1", mod[1], name + "/1", 1))))
          .result();
    }
    assertThat(api.get(base + "/load-order").path("plugins").findValuesAsText("name"))
        .contains("Dry.cask", "Wet.cask");
    assertThat(api.get(base + "/records").path("records").asInt()).isEqualTo(3);
    assertThat(api.get(base + "/records").path("states").path("needYou").asInt()).isEqualTo(1);
    api.change(
        "PUT",
        base + "/records/Base.cask/1/decisions",
        Map.of("place", "litres", "decision", Map.of("take", "Dry.cask")));
    api.job(base + "/mends/patch", null).result();
    JsonNode patch = api.get(base + "/mends").get(0);
    assertThat(patch.path("stale").asBoolean()).isFalse();
    api.job(base + "/deploy", Map.of());
    Path file = game.resolve("data").resolve(patch.path("plugin").asText());
    Plugin written =
        cask.read(PluginFormat.Source.of(file.getFileName().toString(), Files.readAllBytes(file)));
    assertThat(written.records()).hasSize(1);
    assertThat(written.records().get(0).fields().orElseThrow().map().get("litres"))
        .isEqualTo(new Value.Int(20));
    assertThat(
            api.get(base + "/mends/" + patch.path("mod").asLong() + "/difference")
                .path("inAll")
                .asInt())
        .isZero();

    // without the jar each plugin is told, and nothing is lost
    api.send("DELETE", "/api/formats/" + sha256, null, Map.of());
    assertThat(api.get(base + "/load-order").toString()).contains("Nobody here can read");
    api.send("POST", "/api/formats/confirm", confirmed(sha256), Map.of());
    assertThat(api.get(base + "/records").path("records").asInt()).isEqualTo(3);
    api.job(base + "/deploy/undeploy", null);
    assertThat(Trees.of(game)).isEqualTo(before);
  }
}
