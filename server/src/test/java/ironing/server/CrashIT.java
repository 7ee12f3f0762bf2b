package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Trees;
import ironing.core.testkit.Tries;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.ServerProcess;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The server's process is killed while it deploys or installs: what is left is as before or as
 * after.
 */
class CrashIT {
  private static final int FILES = 1500;
  private static final long LATEST_MS = 400;
  @TempDir Path temp;

  @Test
  void a_deployment_that_was_killed_is_finished_or_taken_back_at_the_next_start() throws Exception {
    Path game = Games.plain(temp.resolve("game")).toRealPath();
    for (int i = 0; i < FILES; i += 3) {
      Trees.write(game.resolve("add-ons/maps/" + i + ".map"), "the game’s " + i);
    }
    Random random = new Random(7);
    try (ServerProcess server = new ServerProcess(temp.resolve("home"))) {
      Api api = server.up();
      long workspace = api.workspace(game);
      String base = "/api/workspaces/" + workspace;
      Map<String, String> files = new LinkedHashMap<>();
      for (int i = 0; i < FILES; i++) files.put("maps/" + i + ".map", "mod " + i);
      api.install(workspace, "Maps 1.zip", Games.mod(files)).result();
      Map<String, String> before = Trees.of(game);
      api.job(base + "/deploy", null);
      Map<String, String> after = Trees.of(game);
      api.job(base + "/deploy/undeploy", null);
      assertThat(difference(Trees.of(game), before)).isEmpty();

      for (int round = 0; round < Tries.ways(10); round++) {
        CompletableFuture<Void> killer = server.killIn(random.nextLong(LATEST_MS));
        server.whileItLasts(() -> api.job(base + "/deploy", null));
        killer.join();
        Api again = server.up();
        Map<String, String> now = Trees.of(game);
        assertThat(List.of(difference(now, before), difference(now, after)))
            .as("round " + round)
            .contains(List.of());
        JsonNode status = again.get(base + "/deploy");
        assertThat(status.path("files").asInt()).isEqualTo(now.equals(after) ? FILES : 0);
        assertThat(Files.exists(game.resolve(".ironing/journal"))).isFalse();
        again.job(base + "/deploy/undeploy", null);
        assertThat(difference(Trees.of(game), before)).as("undeployed in round " + round).isEmpty();
      }
    }
  }

  @Test
  void a_library_holds_whole_mods_only_and_no_litter_whenever_it_was_killed() throws Exception {
    Path game = Games.plain(temp.resolve("game")).toRealPath();
    Random random = new Random(11);
    try (ServerProcess server = new ServerProcess(temp.resolve("home"))) {
      Api api = server.up();
      String base = "/api/workspaces/" + api.workspace(game);
      for (int round = 0; round < Tries.ways(5); round++) {
        Map<String, String> files = new LinkedHashMap<>();
        for (int i = 0; i < FILES; i++) files.put("maps/" + i + ".map", "mod " + round + " " + i);
        byte[] zip = Games.mod(files);
        String name = "Maps " + round + ".zip";
        CompletableFuture<Void> killer = server.killIn(LATEST_MS + random.nextLong(3 * LATEST_MS));
        Api now = api;
        server.whileItLasts(
            () -> {
              long workspace = now.get("/api/workspaces").get(0).path("id").asLong();
              now.install(workspace, name, zip);
              while (true) now.get(base + "/library");
            });
        killer.join();
        api = server.up();
        long mods = 0;
        for (JsonNode mod : api.get(base + "/library").path("mods")) {
          mods++;
          Api.Answer verified =
              api.send(
                  "POST",
                  base + "/mods/" + mod.path("id").asLong() + "/verify",
                  Map.of(),
                  Map.of());
          assertThat(verified.body().path("checked").asInt()).isEqualTo(FILES);
          assertThat(verified.body().path("amiss")).isEmpty();
        }
        Path library = Path.of(api.get(base + "/storage").path("folder").asText());
        assertThat(entries(library.resolve("mods"))).as("round " + round).isEqualTo(mods);
        assertThat(entries(library.resolve("incoming"))).isZero();
        // what waits is looked into once more at the start; nothing else may lie there
        assertThat(entries(library.resolve("staged")))
            .isLessThanOrEqualTo(api.get(base + "/inbox").path("waiting").size());
        assertThat(entries(library.resolve("archives")))
            .isEqualTo(api.get(base + "/archives").size());
      }
    }
  }

  @Test
  void a_library_that_was_moving_lies_whole_in_one_of_the_two_places() throws Exception {
    Path game = Games.plain(temp.resolve("game")).toRealPath();
    Path elsewhere = Files.createDirectories(temp.resolve("elsewhere"));
    Random random = new Random(3);
    try (ServerProcess server = new ServerProcess(temp.resolve("home"))) {
      Api api = server.up();
      String base = "/api/workspaces/" + api.workspace(game);
      Map<String, String> files = new LinkedHashMap<>();
      for (int i = 0; i < FILES; i++) files.put("maps/" + i + ".map", "mod " + i);
      long mod =
          api.install(
                  api.get("/api/workspaces").get(0).path("id").asLong(),
                  "M 1.zip",
                  Games.mod(files))
              .result();
      for (int round = 0; round < Tries.ways(10); round++) {
        Path before = Path.of(api.get(base + "/storage").path("folder").asText());
        String to = before.startsWith(elsewhere) ? "" : elsewhere.toString();
        CompletableFuture<Void> killer = server.killIn(random.nextLong(LATEST_MS));
        Api now = api;
        server.whileItLasts(
            () -> {
              now.job(base + "/storage/move", Map.of("folder", to));
              while (true) now.get(base + "/storage");
            });
        killer.join();
        api = server.up();
        Path after = Path.of(api.get(base + "/storage").path("folder").asText());
        Api.Answer verified =
            api.send("POST", base + "/mods/" + mod + "/verify", Map.of(), Map.of());
        assertThat(verified.body().path("amiss")).as("round " + round).isEmpty();
        if (after.startsWith(elsewhere)) assertThat(entries(elsewhere)).isEqualTo(1);
        else assertThat(entries(elsewhere)).as("nothing is left there").isZero();
        if (!after.equals(before)) assertThat(before).doesNotExist();
      }
    }
  }

  private static long entries(Path folder) throws IOException {
    if (!Files.exists(folder)) return 0;
    try (Stream<Path> list = Files.list(folder)) {
      return list.count();
    }
  }

  // the first paths only: trees of thousands of files are no message
  private static List<String> difference(Map<String, String> a, Map<String, String> b) {
    Set<String> paths = new TreeSet<>(a.keySet());
    paths.addAll(b.keySet());
    return paths.stream().filter(p -> !Objects.equals(a.get(p), b.get(p))).limit(9).toList();
  }
}
