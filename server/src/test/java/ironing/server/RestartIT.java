package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.testkit.Archives;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.DemoWorld;
import ironing.server.testkit.Games;
import ironing.server.testkit.Patience;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;

/** What was confirmed is there after a restart, and what never became anything is gone. */
@ExtendWith(OutputCaptureExtension.class)
class RestartIT {
  @TempDir Path temp;

  @Test
  void everything_survives_a_restart_and_litter_does_not() {
    try (TestServer server = TestServer.start(temp.resolve("home"))) {
      long workspace = arranged(server.api());
      String base = "/api/workspaces/" + workspace;
      Map<String, JsonNode> before = told(server.api(), base);
      Path library = server.library(workspace);
      Path halfUnpacked = library.resolve("incoming/" + UUID.randomUUID() + "/tree/half.png");
      Path staged = library.resolve("staged/" + UUID.randomUUID() + "/tree/half.png");
      Path nobodys = library.resolve("mods/" + UUID.randomUUID() + "/content/half.png");
      server.down(
          () -> {
            Trees.write(halfUnpacked, "half");
            Trees.write(staged, "half");
            Trees.write(nobodys, "half");
          });
      assertThat(told(server.api(), base)).isEqualTo(before);
      assertThat(halfUnpacked).doesNotExist();
      assertThat(nobodys).doesNotExist();
      assertThat(staged).doesNotExist();
      server.api().send("POST", base + "/undo", null, Map.of());
      assertThat(server.api().get(base + "/records").path("states").path("needYou").asInt())
          .as("the decision before the restart is undone after it")
          .isEqualTo(before.get("/records").path("states").path("needYou").asInt() + 1);
    }
  }

  @Test
  void an_archive_that_was_exchanged_behind_the_back_makes_no_mod_anew() {
    try (TestServer server = TestServer.start(temp.resolve("home"))) {
      long workspace = server.api().workspace(Games.plain(temp.resolve("game")));
      byte[] bytes = Archives.zip(Map.of("tide.txt", "high\n"));
      long mod = server.api().install(workspace, "Tides.zip", bytes).result();
      Path archives = server.library(workspace).resolve("archives");
      server.down(
          () -> {
            try (Stream<Path> all = Files.walk(archives)) {
              Path stored = all.filter(Files::isRegularFile).findFirst().orElseThrow();
              Files.write(stored, Archives.zip(Map.of("tide.txt", "low\n")));
            } catch (IOException e) {
              throw new UncheckedIOException(e);
            }
          });
      String address = "/api/workspaces/" + workspace + "/mods/" + mod;
      assertThat(server.api().refusal("POST", address + "/reinstall", null))
          .isEqualTo("other-bytes");
      assertThat(server.api().get(address + "/text?path=add-ons/tide.txt").path("text").asText())
          .isEqualTo("high\n");
    }
  }

  @Test
  void after_a_start_workspaces_are_read_before_anybody_asks(CapturedOutput said) throws Exception {
    try (TestServer server = TestServer.start(temp.resolve("home"))) {
      DemoWorld.in(temp).bringIn(server.api());
      server.restart();
      Patience.until(said::getAll, s -> s.contains("in memory after"));
      assertThat(said.getAll()).doesNotContain("not read ahead");
    }
  }

  private long arranged(Api api) {
    DemoWorld world = DemoWorld.in(temp);
    long workspace = world.bringIn(api);
    String base = "/api/workspaces/" + workspace;
    long low = api.get(base + "/layers").path("layers").get(0).path("mod").asLong();
    api.change("POST", base + "/layers/move", Map.of("mods", List.of(low), "to", 9));
    api.change("POST", base + "/layers/switch", Map.of("mods", List.of(low), "on", false));
    api.change("POST", base + "/load-order/proposal", null);
    long high = api.get(base + "/layers").path("layers").get(12).path("mod").asLong();
    String path = api.get(base + "/mods/" + high).path("files").get(0).path("path").asText();
    api.change(
        "POST",
        base + "/mods/" + high + "/held-back",
        Map.of("paths", List.of(path), "hold", true));
    api.job(base + "/deploy", null);
    decideOneRecordWhole(api, base);
    return workspace;
  }

  // the record with a single question, so that one decision settles it
  private static void decideOneRecordWhole(Api api, String base) {
    for (JsonNode c : api.get(base + "/records/list?state=NEEDS_YOU").path("records")) {
      if (c.path("asked").asInt() != 1) continue;
      String record = base + "/records/" + c.path("key").asText();
      for (JsonNode p : api.get(record).path("places")) {
        if (!p.path("how").asText().equals("ASKED")) continue;
        String choice = p.path("changes").get(0).path("plugin").asText();
        Map<String, Object> decision =
            Map.of("place", p.path("place").asText(), "decision", Map.of("take", choice));
        api.change("PUT", record + "/decisions", decision);
        return;
      }
    }
    throw new AssertionError("the sample world has no record with one question");
  }

  private static Map<String, JsonNode> told(Api api, String base) {
    JsonNode overview = api.get(base);
    return Map.of(
        "", overview,
        "/layers", api.get(base + "/layers"),
        "/load-order", api.get(base + "/load-order"),
        "/records", api.get(base + "/records"),
        "/library", api.get(base + "/library"),
        "/timeline", api.get(base + "/timeline"),
        "/deploy", api.get(base + "/deploy"),
        "/picture", api.get(base + "/picture"));
  }

  @Test
  void another_database_used_with_the_same_home_leaves_the_first_ones_library_alone() {
    Path home = temp.resolve("home");
    try (TestServer first = TestServer.start(home)) {
      long workspace = DemoWorld.in(temp).bringIn(first.api());
      Map<String, String> library = bytes(first.library(workspace));
      assertThat(library).isNotEmpty();
      try (TestServer second = TestServer.start(home)) {
        long other = second.api().workspace(DemoWorld.in(temp.resolve("other")).game());
        assertThat(other).as("the same number in another database").isEqualTo(workspace);
        second.restart();
      }
      assertThat(bytes(first.library(workspace))).isEqualTo(library);
    }
  }

  private static Map<String, String> bytes(Path folder) {
    Map<String, String> sizes = new TreeMap<>();
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path p : all.filter(Files::isRegularFile).toList()) {
        sizes.put(folder.relativize(p).toString(), Long.toString(Files.size(p)));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return sizes;
  }
}
