package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import ironing.core.IroningException;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Database;
import ironing.server.testkit.Games;
import ironing.server.testkit.ServerProcess;
import ironing.server.testkit.TestServer;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Ironing is started a second time while it runs, or twice at once. */
class TwoStartsIT {
  @TempDir Path temp;

  @Test
  void a_second_start_is_refused_and_the_first_works_on() throws Exception {
    try (ServerProcess first = new ServerProcess(temp.resolve("home"));
        ServerProcess second = new ServerProcess(first)) {
      Api api = first.up();
      assertThatThrownBy(second::up)
          .isInstanceOf(IllegalStateException.class)
          .hasMessageContaining("Another Ironing uses this home");
      long workspace = api.workspace(Games.plain(temp.resolve("game")));
      assertThat(api.get("/api/workspaces/" + workspace).path("title").asText())
          .isEqualTo("Plain Sailing");
    }
  }

  @Test
  void a_start_with_another_home_and_the_same_database_is_refused_before_it_ends_any_run()
      throws Exception {
    try (ServerProcess first = new ServerProcess(temp.resolve("home"));
        ServerProcess second = new ServerProcess(first, temp.resolve("another"))) {
      Api api = first.up();
      Path game = Games.plain(temp.resolve("game"));
      Trees.write(
          game.resolve("game.yaml"), Games.PLAIN + "run: { command: [ sleep, \"600\" ] }\n");
      String workspace = "/api/workspaces/" + api.workspace(game);
      api.change("POST", workspace + "/runs", null);
      assertThatThrownBy(second::up)
          .isInstanceOf(IllegalStateException.class)
          .hasMessageContaining("Another Ironing uses this database");
      assertThat(api.get(workspace + "/runs").at("/runs/0/endedAt").isMissingNode())
          .as("the run of the first goes on")
          .isTrue();
      api.send("DELETE", workspace + "/runs", null, Map.of());
    }
  }

  @Test
  void of_two_starts_at_once_one_comes_up() throws Exception {
    try (ServerProcess one = new ServerProcess(temp.resolve("home"));
        ServerProcess other = new ServerProcess(one)) {
      CompletableFuture<Boolean> a = CompletableFuture.supplyAsync(() -> comesUp(one));
      CompletableFuture<Boolean> b = CompletableFuture.supplyAsync(() -> comesUp(other));
      assertThat(a.join() ^ b.join()).isTrue();
    }
  }

  private static boolean comesUp(ServerProcess server) {
    try {
      server.up();
      return true;
    } catch (IllegalStateException refused) {
      assertThat(refused).hasMessageContaining("Another Ironing uses this home");
      return false;
    } catch (Exception e) {
      throw new CompletionException(e);
    }
  }

  @Test
  void what_a_second_start_is_refused_with_has_a_code() {
    try (Database database = Database.create();
        TestServer first = TestServer.start(temp.resolve("home"), database.url())) {
      assertThat(first.api().get("/api/workspaces")).isEmpty();
      assertThat(refusal(() -> TestServer.start(temp.resolve("home"), database.url())))
          .isEqualTo("home-in-use");
      assertThat(refusal(() -> TestServer.start(temp.resolve("another"), database.url())))
          .isEqualTo("database-in-use");
    }
  }

  private static String refusal(ThrowingCallable start) {
    for (Throwable t = catchThrowable(start); t != null; t = t.getCause())
      if (t instanceof IroningException e) return e.problems().get(0).code();
    throw new AssertionError("it was not refused");
  }
}
