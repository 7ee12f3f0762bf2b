package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.Problem;
import java.io.IOException;
import java.nio.file.FileSystemException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DiskTroubleTest {
  @TempDir Path folder;

  @Test
  void what_a_drive_says_that_is_known_for_nothing_else_is_told_with_the_place() {
    String place = folder.resolve("data/a.png").toString();
    Problem p =
        DiskTrouble.of(folder, new FileSystemException(place, null, "Input/output error"))
            .problems()
            .get(0);
    assertThat(p.code()).isEqualTo("game-folder-failed");
    assertThat(p.thing()).isEqualTo(place);
    assertThat(p.reason()).contains("Input/output error");
  }

  @Test
  void a_place_that_may_not_be_written_to_is_told_by_its_words_too() {
    // as Linux says it of a drive that is mounted to be read only
    IOException e = new FileSystemException("x", null, "Read-only file system");
    assertThat(DiskTrouble.of(folder, e).problems().get(0).code()).isEqualTo("game-folder-refused");
  }
}
