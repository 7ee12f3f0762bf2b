package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.FolderLock.Asked;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FolderLockTest {
  @TempDir Path game;

  /** Another program that has the folder until its input ends. */
  static final class Holder {
    private Holder() {}

    public static void main(String[] args) throws IOException {
      FolderLock.Answer answer = FolderLock.ask(Path.of(args[0]));
      System.out.println(answer.asked());
      while (System.in.read() >= 0) {}
      answer.lock().ifPresent(FolderLock::close);
    }
  }

  private Process holder() throws IOException {
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin/java").toString(),
            "-cp",
            System.getProperty("java.class.path"),
            Holder.class.getName(),
            game.toString())
        .redirectError(ProcessBuilder.Redirect.INHERIT)
        .start();
  }

  private static String said(Process p) throws IOException {
    return p.inputReader().readLine();
  }

  @Test
  void one_program_has_a_folder_and_nothing_is_left_of_the_lock() throws Exception {
    Trees.write(game.resolve("data/a.txt"), "the game's");
    Map<String, String> before = Trees.of(game);
    FolderLock.Answer mine = FolderLock.ask(game);
    assertThat(mine.asked()).isEqualTo(Asked.TAKEN);
    Process other = holder();
    assertThat(said(other)).isEqualTo("HELD");
    other.outputWriter().close();
    assertThat(other.waitFor()).isZero();
    mine.lock().orElseThrow().close();
    assertThat(Trees.of(game)).isEqualTo(before);
  }

  @Test
  void the_lock_goes_with_its_process_however_that_ends() throws Exception {
    Process other = holder();
    assertThat(said(other)).isEqualTo("TAKEN");
    assertThat(FolderLock.ask(game).asked()).isEqualTo(Asked.HELD);
    other.destroyForcibly().waitFor();
    FolderLock.Answer mine = FolderLock.ask(game);
    assertThat(mine.asked()).as("what it left means nothing").isEqualTo(Asked.TAKEN);
    mine.lock().orElseThrow().close();
    assertThat(Trees.of(game)).isEmpty();
  }

  @Test
  void what_is_deployed_stays_and_a_link_is_not_followed() throws IOException {
    Trees.write(game.resolve(".ironing/note"), "of a deployment");
    FolderLock.ask(game).lock().orElseThrow().close();
    assertThat(game.resolve(".ironing/note")).exists();
    assertThat(game.resolve(".ironing/in-use")).doesNotExist();
    Trees.remove(game.resolve(".ironing"));
    Path elsewhere = Files.createDirectory(game.resolve("elsewhere"));
    Files.createSymbolicLink(game.resolve(".ironing"), elsewhere);
    assertThat(FolderLock.ask(game).asked()).isEqualTo(Asked.CANNOT_BE);
    assertThat(Trees.of(elsewhere)).isEmpty();
    assertThat(List.of(FolderLock.ask(game.resolve("nowhere")).asked()))
        .containsExactly(Asked.CANNOT_BE);
  }
}
