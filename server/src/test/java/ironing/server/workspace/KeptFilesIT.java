package ironing.server.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.layers.Holdings;
import ironing.core.path.PathCase;
import ironing.server.platform.Folders;
import ironing.server.testkit.DemoWorld;
import ironing.server.testkit.TestServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;
import org.springframework.jdbc.core.JdbcTemplate;

/** What is kept of a workspace's files beside the database that they come from. */
@ExtendWith(OutputCaptureExtension.class)
class KeptFilesIT {
  private static final String[] KEEP_ALL = {
    "--ironing.keep.from-files=1", "--ironing.keep.after=0s"
  };

  /** Every way in which the rows change that files are gathered from. */
  private static final List<String> CHANGES =
      List.of(
          "update mod_file set size_bytes = size_bytes + 1 where path = (select min(path) from mod_file where pack = '')",
          "update mod_file set sha256 = repeat('ab', 32) where path = (select max(path) from mod_file)",
          "update mod_file set stored = 'edited/1' where path = (select min(path) from mod_file where pack = '')",
          "update mod_file set path = path || 'x' where path = (select min(path) from mod_file where pack <> '')",
          "delete from mod_file where path = (select max(path) from mod_file)",
          "insert into mod_file (mod_id, pack, path, entry, size_bytes, sha256)"
              + " select min(id), '', 'added/file.txt', 'file.txt', 3, repeat('cd', 32) from mod",
          "update mod set binned_at = now() where id = (select max(id) from mod)",
          "update mod set binned_at = null",
          "delete from mod_file where mod_id = (select min(mod_id) from mod_file)",
          "update game_file set size_bytes = size_bytes + 1 where path = (select min(path) from game_file where pack = '')",
          "update game_file set sha256 = repeat('ef', 32) where path = (select max(path) from game_file)",
          "insert into game_file select workspace_id, '', 'added/of-the-game.txt', 1, 0, repeat('12', 32)"
              + " from game_file limit 1",
          "delete from game_file where path = (select min(path) from game_file where pack = '')",
          "delete from game_file");

  @TempDir Path temp;

  @Test
  void after_each_change_of_the_rows_what_was_kept_before_is_not_used() throws IOException {
    try (TestServer server = TestServer.start(temp.resolve("home"), KEEP_ALL)) {
      long workspace = DemoWorld.in(temp).bringIn(server.api());
      PathCase pathCase = server.bean(OpenWorkspaces.class).game(workspace).pathCase();
      FileGatherer gatherer = server.bean(FileGatherer.class);
      StartFiles kept = server.bean(StartFiles.class);
      Path file = server.bean(Folders.class).kept().resolve(workspace + ".files");
      FileGatherer.Gathered known = gatherer.gather(workspace, pathCase, null);
      Set<String> before = told(known.files());
      for (String change : CHANGES) {
        kept.keepDue();
        assertThat(file).exists();
        assertThat(server.bean(JdbcTemplate.class).update(change)).as(change).isPositive();
        Set<String> now = told(gatherer.gather(workspace, pathCase, null).files());
        assertThat(now).as(change).isNotEqualTo(before);
        kept.keepDue();
        assertThat(told(gatherer.gather(workspace, pathCase, null).files()))
            .as("kept after %s", change)
            .isEqualTo(now);
        FileGatherer.Gathered next = gatherer.gather(workspace, pathCase, known);
        assertThat(next.files().holdings().isFrom(known.files().holdings())).isTrue();
        assertThat(told(next.files())).as("from before after %s", change).isEqualTo(now);
        kept.keepDue();
        assertThat(told(gatherer.gather(workspace, pathCase, null).files()))
            .as("kept of that after %s", change)
            .isEqualTo(now);
        Files.delete(file);
        assertThat(told(gatherer.gather(workspace, pathCase, null).files()))
            .as("anew after %s", change)
            .isEqualTo(now);
        known = next;
        before = now;
      }
    }
  }

  private static Set<String> told(GatheredFiles files) {
    Holdings h = files.holdings();
    Set<String> told = new TreeSet<>();
    files.of().forEach((mod, of) -> told.add(mod + " " + of));
    for (int path = 0; path < h.pathCount(); path++) {
      for (Holdings.Source s : h.sourcesOf(path)) {
        int slot = h.slotOf(path, s.id());
        told.add(
            String.join(
                " ",
                Long.toString(s.mod()),
                s.pack().toString(),
                h.path(path),
                h.spellingAt(slot),
                h.shaAt(slot),
                Long.toString(h.sizeAt(slot))));
      }
    }
    return told;
  }

  @Test
  void a_workspace_is_the_same_from_what_was_kept_and_from_the_database(CapturedOutput said)
      throws IOException {
    try (TestServer server = TestServer.start(temp.resolve("home"), KEEP_ALL)) {
      long workspace = DemoWorld.in(temp).bringIn(server.api());
      List<String> asked = new ArrayList<>();
      for (String what :
          List.of("", "/layers", "/load-order", "/records", "/library", "/deploy", "/picture"))
        asked.add("/api/workspaces/" + workspace + what);
      Map<String, Object> before = answers(server, asked);
      Path file = server.bean(Folders.class).kept().resolve(workspace + ".files");
      server.bean(StartFiles.class).keepDue();
      byte[] written = Files.readAllBytes(file);
      server.restart();
      assertThat(answers(server, asked)).isEqualTo(before);
      server.bean(StartFiles.class).keepDue();
      assertThat(Files.readAllBytes(file))
          .as("taken as it is, and not written again")
          .isEqualTo(written);
      assertThat(said.getAll()).doesNotContain("is not used");
      server.down(() -> damage(file, written));
      assertThat(answers(server, asked)).isEqualTo(before);
      assertThat(said.getAll()).contains("1.files is not used, the database is read instead");
      server.bean(StartFiles.class).keepDue();
      assertThat(Files.readAllBytes(file)).as("made anew").isEqualTo(written);
    }
  }

  private static void damage(Path file, byte[] written) {
    byte[] bad = written.clone();
    bad[bad.length / 2] ^= 4;
    try {
      Files.write(file, bad);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static Map<String, Object> answers(TestServer server, List<String> asked) {
    Map<String, Object> answers = new TreeMap<>();
    for (String what : asked) answers.put(what, server.api().get(what));
    return answers;
  }
}
