package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** Nobody but this machine's own pages and scripts gets an answer. */
@ExtendWith(SharedServer.class)
class LocalOnlyIT {
  private static String ask(TestServer server, String method, String path, String... headers)
      throws IOException {
    try (Socket s = new Socket(InetAddress.getLoopbackAddress(), server.port())) {
      StringBuilder request = new StringBuilder(method + " " + path + " HTTP/1.1\r\n");
      for (String h : headers) request.append(h.replace("PORT", "" + server.port())).append("\r\n");
      request.append("Connection: close\r\n\r\n");
      s.getOutputStream().write(request.toString().getBytes(StandardCharsets.ISO_8859_1));
      return new String(s.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  @Test
  void its_own_names_are_answered(TestServer server) throws IOException {
    for (String name : List.of("127.0.0.1", "localhost", "[::1]")) {
      assertThat(ask(server, "GET", "/api/workspaces", "Host: " + name + ":PORT"))
          .startsWith("HTTP/1.1 200");
    }
    String own = "Origin: http://127.0.0.1:PORT";
    assertThat(ask(server, "GET", "/api/workspaces", "Host: 127.0.0.1:PORT", own))
        .startsWith("HTTP/1.1 200");
  }

  @Test
  void a_rebound_name_or_another_port_is_refused(TestServer server) throws IOException {
    for (String host :
        List.of("evil.example:PORT", "127.0.0.1", "127.0.0.1:1", "localhost.evil.example:PORT")) {
      assertThat(ask(server, "GET", "/api/workspaces", "Host: " + host))
          .as(host)
          .startsWith("HTTP/1.1 403")
          .contains("application/problem+json");
    }
  }

  @Test
  void a_page_from_elsewhere_is_refused_whatever_it_asks(TestServer server) throws IOException {
    String host = "Host: 127.0.0.1:PORT";
    for (String origin :
        List.of("https://evil.example", "null", "http://127.0.0.1:1", "https://127.0.0.1:PORT")) {
      assertThat(
              ask(
                  server,
                  "POST",
                  "/api/workspaces",
                  host,
                  "Origin: " + origin,
                  "Content-Length: 0"))
          .as(origin)
          .startsWith("HTTP/1.1 403");
    }
    assertThat(ask(server, "GET", "/", host, "Sec-Fetch-Site: cross-site"))
        .startsWith("HTTP/1.1 403");
  }

  @Test
  void every_answer_carries_the_content_security_policy(TestServer server) throws IOException {
    for (String path : List.of("/", "/workspaces/1/layers", "/api/workspaces", "/no-such-thing")) {
      String answer = ask(server, "GET", path, "Host: 127.0.0.1:PORT");
      assertThat(answer).as(path).contains("Content-Security-Policy: default-src 'none'");
      assertThat(answer).contains("script-src 'self';").contains("frame-ancestors 'none'");
      assertThat(answer).contains("X-Content-Type-Options: nosniff");
    }
  }

  /** Addresses that RFC 3986 does not allow never come to the product's own code. */
  @Test
  void what_the_web_server_itself_refuses_is_a_problem_with_the_same_headers(TestServer server)
      throws IOException {
    for (String path :
        List.of("/%zz", "/api/a%2fb", "/api/\\\\x", "/a/..%2f..", "/api/%", "/;a/../..")) {
      String answer = ask(server, "GET", path, "Host: 127.0.0.1:PORT");
      assertThat(answer).as(path).startsWith("HTTP/1.1 4").doesNotContain("<html", "Tomcat");
      if (answer.indexOf("\r\n\r\n") + 4 < answer.length())
        assertThat(answer).as(path).contains("Content-Security-Policy", "problem+json");
    }
    assertThat(ask(server, "GET", "/api/%zz", "Host: 127.0.0.1:PORT"))
        .contains("request-unreadable");
  }

  @Test
  void answers_of_the_api_are_never_kept_and_the_page_is_asked_for_anew(TestServer server)
      throws IOException {
    String host = "Host: 127.0.0.1:PORT";
    assertThat(ask(server, "GET", "/api/workspaces", host)).contains("Cache-Control: no-store");
    assertThat(ask(server, "GET", "/workspaces", host)).contains("Cache-Control: no-cache");
  }

  @Test
  void nobody_listens_but_on_loopback(TestServer server) throws IOException {
    for (NetworkInterface n : Collections.list(NetworkInterface.getNetworkInterfaces())) {
      for (InetAddress a : Collections.list(n.getInetAddresses())) {
        if (a.isLoopbackAddress()) continue;
        assertThat(connects(a, server.port())).as(a.toString()).isFalse();
      }
    }
    assertThat(connects(InetAddress.getLoopbackAddress(), server.port())).isTrue();
  }

  private static boolean connects(InetAddress address, int port) {
    try (Socket s = new Socket()) {
      s.connect(new InetSocketAddress(address, port), 500);
      return true;
    } catch (IOException refused) {
      return false;
    }
  }

  @Test
  void nothing_of_the_machine_is_served(TestServer server) throws IOException {
    for (String path :
        List.of(
            "/../../etc/passwd",
            "/%2e%2e/%2e%2e/etc/passwd",
            "/application.yaml",
            "/actuator/env",
            "/actuator")) {
      assertThat(ask(server, "GET", path, "Host: 127.0.0.1:PORT"))
          .as(path)
          .doesNotContain("root:")
          .doesNotContain("datasource")
          .doesNotContain("HTTP/1.1 200");
    }
    assertThat(ask(server, "GET", "/actuator/health", "Host: 127.0.0.1:PORT")).contains("\"UP\"");
  }
}
