package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.OfferedMods;
import ironing.server.testkit.Patience;
import ironing.server.testkit.TestServer;
import ironing.standins.catalogue.CatalogueFolder;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A catalogue on Debian's nginx: conditional and range requests (RFC 9110, sections 13 and 14) as a
 * server answers them that nobody here wrote; and a server of ours that ends in the middle.
 */
class PlainWebServerIT {
  private static final int LARGE = 400_000;

  @TempDir Path temp;
  private Process nginx;
  private int port;
  private CatalogueFolder catalogue;
  private OfferedMods mods;
  private Path log;

  @BeforeEach
  void serve() throws IOException {
    Path folder = Files.createDirectories(temp.resolve("catalogue"));
    catalogue = new CatalogueFolder(folder, "board", "Harbour Board", "plain");
    mods = new OfferedMods(catalogue);
    try (ServerSocket free = new ServerSocket(0)) {
      port = free.getLocalPort();
    }
    log = temp.resolve("access.log");
    Path config = temp.resolve("nginx.conf");
    Files.writeString(
        config,
        """
        daemon off;
        pid %1$s/nginx.pid;
        error_log %1$s/error.log;
        %4$s
        events {}
        http {
          log_format asked '$status "$http_range" "$http_if_range" $request_uri';
          access_log %1$s/access.log asked;
          client_body_temp_path %1$s/body; proxy_temp_path %1$s/proxy; fastcgi_temp_path %1$s/fastcgi;
          uwsgi_temp_path %1$s/uwsgi; scgi_temp_path %1$s/scgi;
          server {
            listen 127.0.0.1:%2$d;
            root %3$s;
            location /files/large.zip { limit_rate 100k; }
          }
        }
        """
            .formatted(temp, port, folder, isRoot() ? "user root;" : ""));
    nginx =
        new ProcessBuilder("nginx", "-p", temp.toString(), "-c", config.toString())
            .redirectErrorStream(true)
            .redirectOutput(temp.resolve("nginx.out").toFile())
            .start();
    Patience.until(this::answers);
  }

  private static boolean isRoot() {
    return "root".equals(System.getProperty("user.name"));
  }

  private boolean answers() {
    try (Socket s = new Socket(InetAddress.getLoopbackAddress(), port)) {
      return s.isConnected();
    } catch (IOException e) {
      return false;
    }
  }

  @AfterEach
  void end() {
    nginx.destroy();
    nginx.onExit().join();
  }

  private List<String> asked(String path) throws IOException {
    return Files.readAllLines(log).stream().filter(l -> l.endsWith(path)).toList();
  }

  @Test
  void what_has_not_changed_is_not_sent_and_a_restart_goes_on_with_a_range() throws IOException {
    byte[] large = new byte[LARGE];
    new Random(1).nextBytes(large);
    catalogue.mod(
        Map.of(
            "mod",
            "large",
            "name",
            "Large",
            "game",
            "plain",
            "releases",
            List.of(Map.of("version", "1", "file", catalogue.file("large.zip", large)))));
    mods.release("fog", "1.0");
    catalogue.write(1);
    try (TestServer server = TestServer.start(temp.resolve("home"))) {
      Api api = server.api();
      String base = "/api/workspaces/" + api.workspace(Games.plain(temp.resolve("game")));
      long id =
          api.job(base + "/catalogues", Map.of("address", "http://127.0.0.1:" + port)).result();
      api.job(base + "/catalogues/" + id + "/look", null).result();
      Patience.until(() -> asked("/catalogue.json").size() == 2);
      assertThat(asked("/catalogue.json").get(1)).startsWith("304 ");

      Map<String, Object> wish =
          Map.of("wishes", List.of(Map.of("mod", "large"), Map.of("mod", "fog")));
      api.send("POST", base + "/choice/get", Map.of("choice", wish), Map.of());
      Patience.until(() -> received(api.get(base + "/downloads")) > 50_000);
      server.restart();
      Api after = server.api();
      Patience.until(
          () ->
              after.get(base + "/downloads").findValuesAsText("state").stream()
                  .allMatch("DONE"::equals));
      Patience.until(() -> asked("/files/large.zip").size() >= 2);
      String second = asked("/files/large.zip").get(1);
      assertThat(second).matches("206 \"bytes=[1-9]\\d+-\" \".+\" /files/large.zip");
      // the choice goes on as well: the large one is no archive, the other is installed, and stays
      // off
      Patience.until(
          () -> after.get(base + "/jobs").findValuesAsText("code").contains("archive-unreadable"));
      JsonNode got =
          after
              .job(
                  base + "/choice/get",
                  Map.of("choice", Map.of("wishes", List.of(Map.of("mod", "fog")))))
              .body();
      assertThat(got.path("state").asText()).isEqualTo("DONE");
      assertThat(asked("/files/fog-1.0.zip")).as("fetched once").hasSize(1);
    }
  }

  private static long received(JsonNode downloads) {
    long all = 0;
    for (JsonNode d : downloads)
      if (d.path("mod").asText().equals("large")) all += d.path("received").asLong();
    return all;
  }
}
