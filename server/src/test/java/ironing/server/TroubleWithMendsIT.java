package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Plugin.Record;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.Patience;
import ironing.server.testkit.SharedServer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** A search where the mods meet in a patch: the patch changes with every set. */
@ExtendWith(SharedServer.class)
class TroubleWithMendsIT {
  @TempDir Path temp;
  private Api api;
  private Path folder;
  private String base;

  @BeforeEach
  void deployed(Api server) throws Exception {
    api = server;
    folder = Games.withPlugins(temp.resolve("game")).toRealPath();
    Files.write(
        folder.resolve("data/Base.plug"),
        PluginCodec.encode(
            new Plugin(
                "Base.plug",
                Header.of(5, List.of(), 13),
                List.of(boat(1, "sound", 4), boat(2, "sound", 4)))));
    Trees.write(
        folder.resolve("game.yaml"),
        Games.WITH_PLUGINS + "run: { command: [ \"sh\", \"play.sh\" ] }\n");
    // the game stops where the patch has a word of Alder's, Birch's crew, and a chart lies beside
    Trees.write(
        folder.resolve("play.sh"),
        "if [ -f data/maps/x.map ] && grep -q rotten data/*patch.plug 2>/dev/null; then exit 5; fi\n");
    long workspace = api.workspace(folder);
    base = "/api/workspaces/" + workspace;
    install(workspace, "Alder", boat(1, "rotten", 4));
    install(workspace, "Birch", boat(1, "sound", 9), boat(2, "sound", 9));
    install(workspace, "Cedar", boat(2, "tarred", 4));
    api.install(workspace, "Charts 1.zip", Games.mod(Map.of("maps/x.map", "x")));
    api.install(workspace, "Songs 1.zip", Games.mod(Map.of("maps/s.map", "s")));
    api.job(base + "/mends/patch", null);
    api.job(base + "/deploy", null);
  }

  private static Record boat(int id, String name, int crew) {
    return new Record(
        "boat",
        new Ref("Base.plug", id),
        Optional.of(
            new Value.Fields(Map.of("name", new Value.Text(name), "crew", new Value.Int(crew)))));
  }

  private void install(long workspace, String name, Record... records) throws Exception {
    Plugin plugin =
        new Plugin(name + ".plug", Header.of(5, List.of("Base.plug"), 1), List.of(records));
    Map<String, byte[]> files = new LinkedHashMap<>();
    files.put(name + ".plug", PluginCodec.encode(plugin));
    api.install(workspace, name + " 1.zip", Archives.zipOf(files));
  }

  private Map<String, String> lying() throws Exception {
    Map<String, String> out = new TreeMap<>(Trees.of(folder));
    out.keySet().removeIf(p -> p.startsWith(".ironing"));
    return out;
  }

  private JsonNode searched(String mends) {
    Map<String, Object> request =
        Map.of(
            "fault",
            Map.of("kind", "EXITS", "value", "5"),
            "automatic",
            true,
            "limitSeconds",
            20,
            "mends",
            mends);
    JsonNode made = api.send("POST", base + "/searches", request, Map.of()).body();
    String at = base + "/searches/" + made.path("search").path("id").asLong();
    JsonNode over =
        Patience.until(
            () -> api.get(at), s -> !s.path("search").path("state").asText().equals("SEARCHING"));
    Patience.until(
        () -> api.get(base + "/jobs"), all -> !all.findValuesAsText("state").contains("RUNNING"));
    return over;
  }

  private static List<String> found(JsonNode search) {
    List<String> out = new ArrayList<>();
    for (JsonNode p : search.path("parts"))
      if (p.path("standing").asText().equals("FOUND")) out.add(p.path("modName").asText());
    return out;
  }

  @Test
  void a_patch_that_is_made_anew_for_each_set_needs_nobody_to_stay() throws Exception {
    Map<String, String> before = lying();
    String patch = api.get(base + "/mends").get(0).path("name").asText();
    JsonNode anew = searched("ANEW");
    assertThat(found(anew)).containsExactlyInAnyOrder("Alder", "Birch", "Charts");
    assertThat(anew.path("always")).as("the fault is not about the patch").isEmpty();
    assertThat(lying()).isEqualTo(before);
    assertThat(api.get(base + "/mends").get(0).path("stale").asBoolean()).isFalse();
    // what the game could read is another in each set, also where only the patch differs
    Set<String> sets = new HashSet<>(), pictures = new HashSet<>();
    for (JsonNode t : anew.path("tries")) {
      sets.add(t.path("members").toString());
      pictures.add(t.path("picture").asText());
    }
    assertThat(pictures).hasSameSizeAs(sets);

    JsonNode kept = searched("KEPT");
    assertThat(found(kept))
        .as("the patch as it is goes only with all that it was made from")
        .containsExactlyInAnyOrder("Alder", "Birch", "Cedar", "Charts", patch);
    JsonNode out = searched("LEFT_OUT");
    assertThat(out.path("search").path("state").asText()).isEqualTo("NOT_SHOWN");
    assertThat(lying()).isEqualTo(before);
  }
}
