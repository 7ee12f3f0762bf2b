package ironing.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.deploy.DiskTrouble;
import ironing.core.testkit.Trees;
import ironing.server.testkit.Api;
import ironing.server.testkit.Games;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Disks that refuse. {@code ./ironing test} runs the group "permissions" as an unprivileged
 * account, since root passes through permissions, and the group "small-disk" with a drive of two
 * megabytes at IRONING_SMALL_DISK.
 */
class TroubledDiskIT {
  private static final int MEGABYTE = 1 << 20;
  @TempDir Path temp;

  @Test
  @Tag("permissions")
  void a_game_folder_that_may_not_be_written_to_is_named_and_left_alone() throws IOException {
    requireNotRoot();
    Path game = Games.plain(temp.resolve("game")).toRealPath();
    Map<String, String> unmodded = Trees.of(game);
    try (TestServer server = TestServer.start(temp.resolve("home"))) {
      Api api = server.api();
      long workspace = api.workspace(game);
      String base = "/api/workspaces/" + workspace;
      api.install(workspace, "Tides.zip", Games.mod(Map.of("tide.txt", "high"))).result();
      game.toFile().setWritable(false);
      JsonNode problem = api.job(base + "/deploy", null).problem();
      assertThat(problem.path("code").asText()).isEqualTo("game-folder-refused");
      assertThat(problem.path("thing").asText()).startsWith(game.toString());
      assertThat(problem.path("remedy").asText()).contains("right to write");
      assertThat(Trees.of(game)).isEqualTo(unmodded);
      assertThat(api.get(base + "/deploy").path("files").asInt()).isZero();
      game.toFile().setWritable(true);
      assertThat(api.job(base + "/deploy", null).body().path("state").asText()).isEqualTo("DONE");
    } finally {
      game.toFile().setWritable(true);
    }
  }

  @Test
  @Tag("permissions")
  void a_folder_that_may_not_be_read_makes_no_workspace() throws IOException {
    requireNotRoot();
    Path game = Games.plain(temp.resolve("game")).toRealPath();
    Path closed = game.resolve("add-ons/maps");
    try (TestServer server = TestServer.start(temp.resolve("home"))) {
      closed.toFile().setReadable(false);
      JsonNode problem =
          server.api().job("/api/workspaces", Map.of("folder", game.toString())).problem();
      assertThat(problem.path("thing").asText()).contains(closed.toString());
      assertThat(problem.path("code").asText()).isEqualTo("game-folder-unreadable");
      assertThat(problem.path("remedy").asText()).isNotBlank();
      assertThat(server.api().get("/api/workspaces")).isEmpty();
    } finally {
      closed.toFile().setReadable(true);
    }
  }

  private static void requireNotRoot() {
    assertThat(System.getProperty("user.name")).as("not as root").isNotEqualTo("root");
  }

  @Test
  @Tag("small-disk")
  void a_full_library_refuses_an_archive_whole_and_takes_the_next_that_fits() throws IOException {
    Path home = smallDisk().resolve("home");
    Path game = Games.plain(temp.resolve("game"));
    try (TestServer server = TestServer.start(home)) {
      Api api = server.api();
      long workspace = api.workspace(game);
      String base = "/api/workspaces/" + workspace;
      Api.Answer refused =
          api.ask("POST", base + "/archives?name=Sea.zip", noise(3 * MEGABYTE), Map.of());
      assertThat(refused.status()).isEqualTo(507);
      assertThat(refused.body().path("code").asText()).isEqualTo("disk-full");
      assertThat(refused.body().path("title").asText()).isEqualTo("Sea.zip");
      assertThat(refused.body().path("detail").asText()).contains("Free some space");
      assertThat(files(server.library(workspace))).isEmpty();
      assertThat(api.get(base + "/archives")).isEmpty();

      // it fits as an archive, and not unpacked
      byte[] airy = Games.mod(Map.of("tide.txt", "0".repeat(4 * MEGABYTE)));
      JsonNode problem = api.install(workspace, "Airy.zip", airy).problem();
      assertThat(problem.path("code").asText()).isEqualTo("disk-full");
      assertThat(problem.path("thing").asText()).isEqualTo("Airy.zip");
      assertThat(files(server.library(workspace).resolve("mods"))).isEmpty();
      assertThat(files(server.library(workspace).resolve("incoming"))).isEmpty();
      api.install(workspace, "Tides.zip", Games.mod(Map.of("tide.txt", "high"))).result();
    } finally {
      Trees.remove(home);
    }
  }

  @Test
  @Tag("small-disk")
  void a_game_on_a_drive_without_room_is_as_it_was_and_gets_copies_of_what_fits()
      throws IOException {
    Path game = Games.plain(smallDisk().resolve("game")).toRealPath();
    Map<String, String> unmodded = Trees.of(game);
    try (TestServer server = TestServer.start(temp.resolve("home"))) {
      Api api = server.api();
      long workspace = api.workspace(game);
      String base = "/api/workspaces/" + workspace;
      api.install(workspace, "Tides.zip", Games.mod(Map.of("tide.txt", "high"))).result();
      byte[] big = Games.mod(Map.of("a.txt", "a".repeat(MEGABYTE), "b.txt", "b".repeat(MEGABYTE)));
      long mod = api.install(workspace, "Big.zip", big).result();
      JsonNode problem = api.job(base + "/deploy", null).problem();
      assertThat(problem.path("code").asText()).isEqualTo("disk-full");
      assertThat(problem.path("thing").asText()).startsWith(game.toString());
      assertThat(Trees.of(game)).isEqualTo(unmodded);
      assertThat(api.get(base + "/deploy").path("files").asInt()).isZero();

      Map<String, Object> off = Map.of("mods", List.of(mod), "on", false);
      api.change("POST", base + "/layers/switch", off);
      api.job(base + "/deploy", null);
      JsonNode status = api.get(base + "/deploy");
      assertThat(status.path("copies").asInt()).as("no links between drives").isEqualTo(1);
      assertThat(Files.readString(game.resolve("add-ons/tide.txt"))).isEqualTo("high");
      api.job(base + "/deploy/undeploy", null);
      assertThat(Trees.of(game)).isEqualTo(unmodded);
    } finally {
      Trees.remove(game);
    }
  }

  /** The words are GNU libc's, in German. */
  @Test
  @Tag("small-disk")
  void a_drive_without_room_is_told_whatever_language_the_system_speaks() throws IOException {
    Path full = smallDisk().resolve("full");
    IOException german =
        new FileSystemException(
            full.toString(), null, "Auf dem Gerät ist kein Speicherplatz mehr verfügbar");
    assertThat(DiskTrouble.isFull(full, german)).isFalse();
    try (OutputStream out = Files.newOutputStream(full)) {
      for (int i = 0; i < 4 * MEGABYTE; i += 4096) out.write(new byte[4096]);
    } catch (IOException noRoom) {
      assertThat(DiskTrouble.isFull(full, german)).isTrue();
    } finally {
      Files.delete(full);
    }
    assertThat(DiskTrouble.isFull(full, german)).isFalse();
  }

  private static Path smallDisk() throws IOException {
    Path disk = Path.of(System.getenv("IRONING_SMALL_DISK")).toRealPath();
    assertThat(Files.getFileStore(disk).getTotalSpace()).isLessThanOrEqualTo(2 * MEGABYTE);
    return disk;
  }

  private static byte[] noise(int bytes) {
    byte[] noise = new byte[bytes];
    new Random(3).nextBytes(noise);
    return noise;
  }

  private static List<Path> files(Path folder) throws IOException {
    if (!Files.exists(folder)) return List.of();
    try (Stream<Path> all = Files.walk(folder)) {
      return all.filter(Files::isRegularFile).toList();
    }
  }
}
