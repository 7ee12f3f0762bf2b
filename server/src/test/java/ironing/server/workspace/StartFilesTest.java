package ironing.server.workspace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import ironing.core.archive.ContentHash;
import ironing.core.arrayfile.ArrayFileWriter;
import ironing.core.layers.HoldingsBuilder;
import ironing.core.path.PathCase;
import ironing.core.testkit.Trees;
import ironing.server.platform.Folders;
import ironing.server.workspace.StartFiles.Origin;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StartFilesTest {
  private static final Origin TODAY = origin(3, PathCase.INSENSITIVE, "a1");

  private static Origin origin(long workspace, PathCase pathCase, String digest) {
    return new Origin(workspace, pathCase, Map.of(7L, digest));
  }

  @TempDir Path temp;
  private final FileIndexMapper db = mock(FileIndexMapper.class);
  private final Folders folders = mock(Folders.class);
  private Path file;

  @BeforeEach
  void of_today() {
    when(folders.kept()).thenReturn(temp.resolve("kept"));
    when(db.digest(3)).thenReturn(TODAY.digest());
    file = temp.resolve("kept/3.files");
  }

  private StartFiles kept(int fromFiles, Duration after) {
    return new StartFiles(folders, db, fromFiles, after);
  }

  private StartFiles keptNow() {
    StartFiles kept = kept(2, Duration.ZERO);
    kept.keepLater(TODAY, files("a/b.txt", "a/c.txt"));
    kept.keepDue();
    return kept;
  }

  private static GatheredFiles files(String... paths) {
    HoldingsBuilder b = new HoldingsBuilder(PathCase.INSENSITIVE);
    int source = b.source(7, Optional.empty());
    for (String p : paths) b.file(source, p, 5, "ab".repeat(32));
    return new GatheredFiles(
        b.build(),
        Map.of(7L, new GatheredFiles.Of(paths.length, 10, Map.of(paths[0], "edited/1"))));
  }

  @Test
  void what_was_kept_is_there_for_the_same_rows_only() {
    StartFiles kept = keptNow();
    GatheredFiles read = kept.read(TODAY).orElseThrow();
    assertThat(read.holdings().path(read.holdings().idOf("A/B.txt"))).isEqualTo("a/b.txt");
    assertThat(read.of()).isEqualTo(files("a/b.txt", "a/c.txt").of());
    assertThat(kept.read(origin(3, PathCase.INSENSITIVE, "a2"))).isEmpty();
    assertThat(kept.read(origin(3, PathCase.SENSITIVE, "a1"))).isEmpty();
    assertThat(kept.read(origin(4, PathCase.INSENSITIVE, "a1"))).isEmpty();
    assertThat(kept.read(TODAY)).as("being asked in vain does no harm").isPresent();
  }

  @Test
  void another_java_folds_letters_in_its_own_way() {
    StartFiles kept = keptNow();
    String java = System.setProperty("java.version", "99");
    try {
      assertThat(kept.read(TODAY)).isEmpty();
    } finally {
      System.setProperty("java.version", java);
    }
    assertThat(kept.read(TODAY)).isPresent();
  }

  /** A file of an earlier build must not be taken for one of today’s form. */
  @Test
  void the_form_has_another_number_once_anything_in_it_is_written_in_another_way()
      throws IOException {
    Path written = temp.resolve("form");
    try (ArrayFileWriter out = new ArrayFileWriter(written)) {
      files("Ä/b.txt", "a/c.txt").write(out);
      out.finish();
    }
    assertThat(StartFiles.FORM + " " + ContentHash.of(Files.readAllBytes(written)))
        .as("when the hash is another, raise StartFiles.FORM, and put both here")
        .isEqualTo("1 386b090971048c9bab538bbd26165e11a39cd37a2c6329b2e97e477ba0a1bab3");
  }

  @Test
  void rows_that_changed_while_they_were_read_are_not_kept() {
    StartFiles kept = kept(1, Duration.ZERO);
    kept.keepLater(TODAY, files("a"));
    when(db.digest(3)).thenReturn("d2");
    kept.keepDue();
    assertThat(file).doesNotExist();
  }

  @Test
  void only_what_has_stayed_for_a_while_is_kept() {
    StartFiles kept = kept(1, Duration.ofHours(1));
    kept.keepLater(TODAY, files("a"));
    kept.keepDue();
    assertThat(file).doesNotExist();
  }

  @Test
  void what_waits_to_be_kept_is_let_go_when_the_files_are_gathered_anew() {
    StartFiles kept = kept(1, Duration.ZERO);
    kept.keepLater(TODAY, files("a"));
    assertThat(kept.read(TODAY)).isEmpty();
    kept.keepDue();
    assertThat(file).doesNotExist();
  }

  @Test
  void a_workspace_that_became_small_leaves_nothing_behind() {
    StartFiles kept = keptNow();
    assertThat(file).exists();
    kept.keepLater(TODAY, files("a"));
    kept.keepDue();
    assertThat(file).doesNotExist();
  }

  @Test
  void one_that_is_cut_off_or_holds_something_else_is_not_used() throws IOException {
    StartFiles kept = keptNow();
    byte[] good = Files.readAllBytes(file);
    for (int length = 0; length < good.length; length += 41) {
      Files.write(file, Arrays.copyOf(good, length));
      assertThat(kept.read(TODAY)).as("%s bytes", length).isEmpty();
    }
    Trees.write(file, "not what a program wrote");
    assertThat(kept.read(TODAY)).isEmpty();
    Files.write(file, good);
    assertThat(kept.read(TODAY)).isPresent();
  }

  @Test
  void what_a_crash_left_half_written_is_written_over() throws IOException {
    Trees.write(temp.resolve("kept/3.files.part"), "half");
    assertThat(keptNow().read(TODAY)).isPresent();

    assertThat(temp.resolve("kept").toFile().listFiles()).containsExactly(file.toFile());
  }

  @Test
  void a_disk_that_takes_nothing_costs_the_next_start_its_time_and_nothing_else() {
    Trees.write(temp.resolve("kept"), "a file where the folder should be");
    assertThat(keptNow().read(TODAY)).isEmpty();
  }
}
