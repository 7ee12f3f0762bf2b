package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.SharedServer;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** The sample game comes by one request and goes by another. */
@ExtendWith(SharedServer.class)
class SampleIT {
  @TempDir Path temp;

  /**
   * A folder as the server finds the demo in.
   *
   * @param classpath of its program
   */
  private String[] demo(String classpath) throws IOException {
    Path demo = temp.resolve("demo");
    Trees.write(demo.resolve("target/classpath"), classpath);
    Files.createSymbolicLink(
        demo.resolve("world"), Path.of("../demo/world").toAbsolutePath().normalize());
    return new String[] {"--ironing.demo=" + demo};
  }

  @Test
  void it_is_refused_where_ironing_was_started_without_it(Api api) {
    JsonNode sample = api.get("/api/sample");
    assertThat(sample.path("available").asBoolean()).isFalse();
    assertThat(sample.has("workspace")).isFalse();
    assertThat(api.refusal("POST", "/api/sample", null)).isEqualTo("sample-missing");
  }

  @Test
  void it_comes_whole_and_goes_without_a_trace() throws IOException {
    Path home = temp.resolve("home");
    try (TestServer server = TestServer.start(home, demo(System.getProperty("java.class.path")))) {
      Api api = server.api();
      assertThat(api.get("/api/sample").path("available").asBoolean()).isTrue();
      long workspace = api.job("/api/sample", null).result();
      assertThat(api.get("/api/sample").path("workspace").asLong()).isEqualTo(workspace);
      String base = "/api/workspaces/" + workspace;
      assertThat(api.get(base + "/library").path("mods")).hasSize(14);
      assertThat(api.job("/api/sample", null).result()).as("once more").isEqualTo(workspace);
      api.job(base + "/deploy", null);
      api.send("DELETE", "/api/sample", null, Map.of("Prefer", "wait=120"));
      assertThat(api.get("/api/workspaces")).isEmpty();
      assertThat(api.get("/api/sample").has("workspace")).isFalse();
      assertThat(home.resolve("demo")).doesNotExist();
    }
  }

  @Test
  void a_program_that_fails_is_told_with_what_it_said() throws IOException {
    try (TestServer server = TestServer.start(temp.resolve("home"), demo("/nowhere"))) {
      Api api = server.api();
      assertThat(api.refusal("POST", "/api/sample", null)).isEqualTo("sample-failed");
      assertThat(api.get("/api/workspaces")).isEmpty();
    }
  }
}
