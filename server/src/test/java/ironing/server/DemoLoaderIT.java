package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.demo.DemoLoader;
import ironing.demo.DemoPacker;
import ironing.server.testkit.Api;
import ironing.server.testkit.DemoWorld;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** {@code ./ironing demo} brings the sample world in once, and goes on where it was cut off. */
@ExtendWith(SharedServer.class)
class DemoLoaderIT {
  @TempDir Path temp;

  @Test
  void a_loading_that_was_cut_off_is_finished_and_a_finished_one_is_left_alone(
      TestServer server, Api api) throws Exception {
    DemoWorld world = DemoWorld.in(temp);
    long workspace = api.workspace(world.game());
    String layers = "/api/workspaces/" + workspace + "/layers";
    for (String name : DemoPacker.installOrder().subList(0, 3))
      api.install(workspace, name, world.archive(name)).result();
    String notYetAMod = DemoPacker.installOrder().get(3);
    api.bringIn(workspace, notYetAMod, world.archive(notYetAMod));

    load(server);
    assertThat(archives(api, workspace))
        .containsExactlyInAnyOrderElementsOf(DemoPacker.installOrder());
    JsonNode off = layer(api, layers, "Coal to Kelp Conversion");
    assertThat(off.path("on").asBoolean()).isFalse();

    api.change(
        "POST", layers + "/switch", Map.of("mods", List.of(off.path("mod").asLong()), "on", true));
    load(server);
    assertThat(archives(api, workspace)).hasSize(14);
    assertThat(layer(api, layers, "Coal to Kelp Conversion").path("on").asBoolean())
        .as("what the user has changed since stays")
        .isTrue();
  }

  private void load(TestServer server) throws Exception {
    DemoLoader.main(new String[] {server.url(), "../demo/world", temp.toString()});
  }

  private static List<String> archives(Api api, long workspace) {
    List<String> names = new ArrayList<>();
    for (JsonNode m : api.get("/api/workspaces/" + workspace + "/library").path("mods"))
      names.add(m.path("archiveName").asText());
    return names;
  }

  private static JsonNode layer(Api api, String layers, String name) {
    for (JsonNode l : api.get(layers).path("layers")) {
      if (l.path("name").asText().equals(name)) return l;
    }
    throw new AssertionError(name + " is no layer");
  }
}
