package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Trees;
import ironing.core.testkit.Tries;
import ironing.server.testkit.Api;
import ironing.server.testkit.Cluster;
import ironing.server.testkit.Games;
import ironing.server.testkit.Patience;
import ironing.server.testkit.TestServer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** PostgreSQL is killed, or stopped, while the server works with it. */
class DatabaseGoneIT {
  private static final int MODS = 5;
  @TempDir Path temp;

  private record World(Path game, String base, List<Long> mods) {
    static World in(Path temp, Api api) {
      Path game = Games.plain(temp.resolve("game"));
      long workspace = api.workspace(game);
      List<Long> mods = new ArrayList<>();
      for (int m = 0; m < MODS; m++) {
        Map<String, String> files = new LinkedHashMap<>();
        for (int i = 0; i < 200; i++) files.put("maps/" + m + "-" + i + ".map", "mod " + m);
        mods.add(api.install(workspace, "Maps" + m + " 1.zip", Games.mod(files)).result());
      }
      return new World(game, "/api/workspaces/" + workspace, mods);
    }

    Map<Long, Boolean> on(Api api) {
      Map<Long, Boolean> on = new TreeMap<>();
      for (JsonNode l : api.get(base + "/layers").path("layers"))
        on.put(l.path("mod").asLong(), l.path("on").asBoolean());
      return on;
    }
  }

  /** Asks until it is answered, as whoever waits for a database does. */
  private static void untilItAnswers(Api api, World world) {
    Patience.until(
        () -> api.ask("GET", world.base() + "/timeline", null, Map.of()).status(),
        status -> status == 200);
  }

  @Test
  void no_confirmed_change_is_lost_when_postgresql_is_killed() throws Exception {
    Random random = new Random(5);
    try (Cluster postgres = Cluster.make();
        TestServer server = TestServer.start(temp.resolve("home"), postgres.url())) {
      Api api = server.api();
      World world = World.in(temp, api);
      for (int round = 0; round < Tries.ways(5); round++) {
        CompletableFuture<Void> killer = Patience.in(100 + random.nextInt(500), postgres::kill);
        Map<Long, Boolean> confirmed = world.on(api), asked = confirmed;
        while (true) {
          long mod = world.mods().get(random.nextInt(MODS));
          asked = new TreeMap<>(confirmed);
          asked.put(mod, !confirmed.get(mod));
          Api.Answer answer = switched(api, world, mod, asked.get(mod));
          if (answer.status() != 200) {
            assertThat(answer.status()).isEqualTo(503);
            assertThat(answer.body().path("code").asText()).isEqualTo("database-gone");
            break;
          }
          confirmed = asked;
        }
        killer.join();
        postgres.up();
        untilItAnswers(api, world);
        Map<Long, Boolean> now = world.on(api);
        assertThat(now).as("round " + round).isIn(confirmed, asked);
        // and it goes on from there
        long mod = world.mods().get(0);
        assertThat(switched(api, world, mod, !now.get(mod)).status()).isEqualTo(200);
        Map<Long, Boolean> last = world.on(api);
        server.restart();
        api = server.api();
        assertThat(world.on(api)).isEqualTo(last);
      }
    }
  }

  private static Api.Answer switched(Api api, World world, long mod, boolean on) {
    Api.Answer overview = api.ask("GET", world.base() + "/layers", null, Map.of());
    if (overview.status() != 200) return overview;
    return api.ask(
        "POST",
        world.base() + "/layers/switch",
        Map.of("mods", List.of(mod), "on", on),
        Map.of("If-Match", overview.header("ETag")));
  }

  @Test
  void a_deployment_during_which_the_database_is_stopped_is_there_whole_or_not_at_all()
      throws Exception {
    Random random = new Random(9);
    try (Cluster postgres = Cluster.make();
        TestServer server = TestServer.start(temp.resolve("home"), postgres.url())) {
      Api api = server.api();
      World world = World.in(temp, api);
      Map<String, String> before = Trees.of(world.game());
      api.job(world.base() + "/deploy", null);
      Map<String, String> after = Trees.of(world.game());
      api.job(world.base() + "/deploy/undeploy", null);
      for (int round = 0; round < Tries.ways(10); round++) {
        CompletableFuture<Void> stopper = Patience.in(random.nextInt(150), postgres::stop);
        api.ask("POST", world.base() + "/deploy", null, Map.of("Prefer", "wait=60"));
        stopper.join();
        postgres.up();
        untilItAnswers(api, world);
        Map<String, String> now = Trees.of(world.game());
        assertThat(now.equals(before) || now.equals(after)).as("round " + round).isTrue();
        int files = api.get(world.base() + "/deploy").path("files").asInt();
        assertThat(files).isEqualTo(now.equals(after) ? MODS * 200 : 0);
        api.job(world.base() + "/deploy/undeploy", null);
        assertThat(Trees.of(world.game())).isEqualTo(before);
      }
    }
  }
}
