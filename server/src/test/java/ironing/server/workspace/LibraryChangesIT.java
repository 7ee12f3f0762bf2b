package ironing.server.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.picture.Picture;
import ironing.core.records.RecordIndex;
import ironing.core.testkit.Archives;
import ironing.core.workspace.Stages;
import ironing.server.testkit.Api;
import ironing.server.testkit.DemoWorld;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/**
 * After each kind of change of the library an open workspace is what reading the workspace anew
 * gives.
 */
@ExtendWith(SharedServer.class)
class LibraryChangesIT {
  @TempDir Path temp;
  private TestServer server;
  private Api api;
  private long workspace;
  private String base;
  private Holdings first;

  @Test
  void a_bench_made_from_the_one_before_is_the_one_that_is_read_anew(TestServer server)
      throws IOException {
    this.server = server;
    this.api = server.api();
    DemoWorld world = DemoWorld.in(temp);
    workspace = world.bringIn(api);
    base = "/api/workspaces/" + workspace;
    first = benches().get(workspace).picture().holdings();
    List<JsonNode> mods = new ArrayList<>();
    api.get(base + "/library").path("mods").forEach(mods::add);

    long gulls =
        api.install(
                workspace,
                "Gull Log 1.0.zip",
                Archives.zip(Map.of("data/tables/gulls.csv", "a,1\n")))
            .result();
    agree("installed");
    RecordIndex index = records();
    edit(gulls, "data/tables/gulls.csv", "a,2\n");
    agree("edited");
    assertThat(records()).as("no record is indexed again").isSameAs(index);
    api.change(
        "POST",
        base + "/mods/" + gulls + "/held-back",
        Map.of("paths", List.of("data/tables/gulls.csv"), "hold", true));
    agree("held back");
    long newer =
        api.update(
            workspace,
            gulls,
            "Gull Log 1.1.zip",
            Archives.zip(Map.of("data/tables/GULLS.csv", "b\n")));
    agree("updated");
    api.change("POST", base + "/mods/" + gulls + "/use?instead=" + newer, null);
    agree("the former version");
    Map<String, Object> card =
        Api.JSON.convertValue(
            api.get(base + "/mods/" + gulls).path("given"),
            new TypeReference<Map<String, Object>>() {});
    card.put("name", "Gull Diary");
    api.send("PUT", base + "/mods/" + gulls + "/card", card, Map.of());
    agree("another card");
    for (JsonNode m : mods) {
      String mod = base + "/mods/" + m.path("id").asLong();
      api.send("DELETE", mod, null, Map.of());
      agree("removed " + m.path("name"));
      if (m.path("id").asLong() % 2 == 0) continue;
      api.send("POST", base + "/bin/mods/" + m.path("id").asLong() + "/return", null, Map.of());
      agree("returned " + m.path("name"));
    }
    api.job(base + "/mends/patch", null);
    agree("a patch");
    Path own = world.game().resolve("data/Skerry.plug");
    Files.write(own, Files.readAllBytes(own));
    Files.writeString(world.game().resolve("data/new-in-this-version.txt"), "new\n");
    api.job(base + "/game-version", null);
    agree("the game was updated");
    api.send("POST", base + "/undo", null, Map.of());
    agree("undone");
    assertThat(benches().get(workspace).picture().holdings().isFrom(first))
        .as("none of it had the workspace read anew")
        .isTrue();
    server.bean(Memory.class).forget(workspace);
    agree("it left memory");
    assertThat(benches().get(workspace).picture().holdings().isFrom(first)).isFalse();
  }

  private RecordIndex records() {
    return benches().get(workspace).get(Stages.RECORDS).index();
  }

  private OpenWorkspaces benches() {
    return server.bean(OpenWorkspaces.class);
  }

  private void edit(long mod, String path, String text) {
    String sha256 = "";
    for (JsonNode f : api.get(base + "/mods/" + mod).path("files"))
      if (f.path("path").asText().equals(path)) sha256 = f.path("sha256").asText();
    api.send(
        "PUT",
        base + "/mods/" + mod + "/text",
        Map.of("path", path, "text", text, "sha256", sha256),
        Map.of());
  }

  private void agree(String after) {
    OpenWorkspace now = benches().get(workspace);
    OpenWorkspace anew = server.bean(OpenWorkspaceStore.class).load(workspace, null).open();
    assertThat(now.picture().arrangement()).as(after).isEqualTo(anew.picture().arrangement());
    assertThat(told(now)).as(after).isEqualTo(told(anew));
  }

  private static Map<String, Object> told(OpenWorkspace b) {
    Map<String, Object> told = new TreeMap<>(told(b.picture()));
    told.put("mods", b.mods());
    told.put("own", b.own());
    told.put("former", b.value().former());
    told.put("unreadable", b.unreadable());
    told.put(
        "else", List.of(b.revision(), b.profile(), b.profileName(), b.title(), b.gameVersion()));
    return told;
  }

  private static Map<String, Object> told(Picture p) {
    Holdings h = p.holdings();
    Map<String, Object> told = new TreeMap<>();
    for (int path = 0; path < h.pathCount(); path++) {
      if (!h.isHeld(path)) continue;
      List<String> files = new ArrayList<>();
      for (Holdings.Source s : h.sourcesOf(path)) files.add(file(h, h.slotOf(path, s.id())));
      List<String> standing = new ArrayList<>();
      for (int slot : p.standing().holders(path)) standing.add(file(h, slot));
      told.put("path " + h.path(path), List.of(files, standing, p.standing().isRuled(path)));
    }
    Map<Long, List<Integer>> counts = new TreeMap<>();
    for (Holdings.Source s : h.sources())
      for (Standing.Way w : Standing.Way.values())
        counts.computeIfAbsent(s.mod(), m -> new ArrayList<>()).add(p.standing().count(s.id(), w));
    told.put("counts", counts);
    told.put("plugins", p.loadOrder().entries());
    return told;
  }

  private static String file(Holdings h, int slot) {
    Holdings.Source s = h.holderAt(slot);
    return s.mod() + " " + s.pack() + " " + h.spellingAt(slot) + " " + h.shaAt(slot);
  }
}
