package ironing.core.combinedfiles;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LineDistanceTest {
  @TempDir Path temp;

  @Test
  void it_counts_lines_that_go_and_lines_that_come() {
    assertThat(LineDistance.of("a\nb\nc\n", "a\nb\nc\n")).isZero();
    assertThat(LineDistance.of("a\nb\nc\n", "a\nX\nc\n")).isEqualTo(2);
    assertThat(LineDistance.of("a\nb\n", "a\nb\nc\n")).isOne();
    assertThat(LineDistance.of("", "a\nb\n")).isEqualTo(2);
    assertThat(LineDistance.of("a\r\nb\r\n", "a\nb\n")).as("other ends are no change").isZero();
  }

  /** The reference: GNU diff, which with --minimal gives the least (diffutils manual). */
  @Test
  void it_is_what_gnu_diff_counts() throws IOException, InterruptedException {
    Random r = new Random(7);
    for (int i = 0; i < 60; i++) {
      String a = lines(r), b = lines(r);
      Files.writeString(temp.resolve("a"), a);
      Files.writeString(temp.resolve("b"), b);
      Process diff =
          new ProcessBuilder("diff", "--minimal", "a", "b").directory(temp.toFile()).start();
      String said = new String(diff.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      diff.waitFor();
      long theirs = said.lines().filter(l -> l.startsWith("<") || l.startsWith(">")).count();
      assertThat(LineDistance.of(a, b)).as(a + "and\n" + b).isEqualTo((int) theirs);
    }
  }

  private static String lines(Random r) {
    StringBuilder out = new StringBuilder();
    for (int i = r.nextInt(12); i >= 0; i--) out.append((char) ('a' + r.nextInt(4))).append('\n');
    return out.toString();
  }
}
