package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.URLConnection;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** Another tab hears of what happens. */
@ExtendWith(SharedServer.class)
class EventsIT {
  @TempDir Path temp;

  @Test
  void a_listener_hears_of_mods_orders_jobs_and_deployments_of_its_workspace_only(
      Api api, TestServer server) throws Exception {
    long workspace = api.workspace(Games.plain(temp.resolve("game")));
    long other = api.workspace(Games.plain(temp.resolve("other")));
    BlockingQueue<String> heard = listen(server, workspace);
    assertThat(next(heard)).isEqualTo("hello");
    api.install(other, "X.zip", Games.mod(Map.of("x.txt", "x"))).result();
    long mod = api.install(workspace, "A.zip", Games.mod(Map.of("a.txt", "a"))).result();
    assertThat(until(heard, "library")).doesNotContain("deployment");
    String base = "/api/workspaces/" + workspace;
    Map<String, Object> off = Map.of("mods", List.of(mod), "on", false);
    api.change("POST", base + "/layers/switch", off);
    until(heard, "arrangement");
    api.job(base + "/deploy", null);
    until(heard, "deployment");
    until(heard, "job");
  }

  @Test
  void a_browser_with_many_tabs_hears_of_all_workspaces_by_one_connection(
      Api api, TestServer server) throws Exception {
    long one = api.workspace(Games.plain(temp.resolve("game")));
    long other = api.workspace(Games.plain(temp.resolve("other")));
    BlockingQueue<String> heard = listen(server, "/api/events", "data:");
    String hello = next(heard);
    assertThat(hello).matches("\\{\"server\":\"[0-9a-f-]{36}\",\"told\":\\d+}");
    long before = Long.parseLong(hello.replaceAll("\\D*}$", "").replaceAll(".*\\D", ""));
    api.install(other, "X.zip", Games.mod(Map.of("x.txt", "x"))).result();
    api.install(one, "A.zip", Games.mod(Map.of("a.txt", "a"))).result();
    // other tests use the same server: they are told of, too
    boolean ofOne = false, ofOther = false;
    for (long number = before + 1; !ofOne || !ofOther; number++) {
      String event = next(heard);
      if (event.equals("{}")) {
        number--;
        continue;
      }
      assertThat(event)
          .as("none is left out or told out of turn")
          .startsWith("{\"number\":" + number + ",");
      ofOne |= isOf(event, one, "library");
      ofOther |= isOf(event, other, "library");
    }
  }

  private static boolean isOf(String data, long workspace, String kind) {
    return data.contains(",\"workspace\":" + workspace + ",\"kind\":\"" + kind + "\",\"data\":");
  }

  private static BlockingQueue<String> listen(TestServer server, long workspace) throws Exception {
    return listen(server, "/api/workspaces/" + workspace + "/events", "event:");
  }

  private static BlockingQueue<String> listen(TestServer server, String address, String lines)
      throws Exception {
    URI uri = URI.create(server.url() + address);
    URLConnection connection = uri.toURL().openConnection();
    BufferedReader in =
        new BufferedReader(
            new InputStreamReader(connection.getInputStream(), StandardCharsets.UTF_8));
    BlockingQueue<String> heard = new LinkedBlockingQueue<>();
    Thread reader =
        new Thread(
            () ->
                in.lines()
                    .filter(l -> l.startsWith(lines))
                    .forEach(l -> heard.add(l.substring(lines.length()).strip())));
    reader.setDaemon(true);
    reader.start();
    return heard;
  }

  private static String next(BlockingQueue<String> heard) throws InterruptedException {
    String event = heard.poll(10, TimeUnit.SECONDS);
    assertThat(event).as("an event within ten seconds").isNotNull();
    return event;
  }

  /** Everything up to the wanted one. */
  private static List<String> until(BlockingQueue<String> heard, String wanted)
      throws InterruptedException {
    List<String> before = new ArrayList<>();
    for (String e = next(heard); !e.equals(wanted); e = next(heard)) before.add(e);
    return before;
  }
}
