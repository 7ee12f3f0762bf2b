package ironing.core.version;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * Numeric versions beside Debian's {@code dpkg --compare-versions} (Debian Policy, section 5.6.12).
 * Only pairs with equally many runs: a missing run is 0 here, and sorts before everything there.
 */
class DpkgComparisonTest {
  private static final int PAIRS = 120;

  @Test
  void numbers_between_points_compare_as_dpkg_compares_them() throws Exception {
    Random random = new Random(5);
    int less = 0;
    for (int i = 0; i < PAIRS; i++) {
      int runs = 1 + random.nextInt(4);
      String a = version(random, runs), b = random.nextInt(8) == 0 ? a : version(random, runs);
      int ours = Integer.signum(ModVersion.of(a).compareTo(ModVersion.of(b)));
      assertThat(ours).as(a + " and " + b).isEqualTo(dpkg(a, b));
      if (ours < 0) less++;
    }
    assertThat(less).as("both ways were tried").isBetween(PAIRS / 5, PAIRS * 4 / 5);
  }

  private static String version(Random random, int runs) {
    return random
        .ints(runs, 0, 13)
        .mapToObj(n -> random.nextInt(6) == 0 ? "0" + n : Integer.toString(n))
        .collect(Collectors.joining("."));
  }

  private static int dpkg(String a, String b) throws IOException, InterruptedException {
    if (says(a, "lt", b)) return -1;
    return says(a, "gt", b) ? 1 : 0;
  }

  private static boolean says(String a, String relation, String b)
      throws IOException, InterruptedException {
    return new ProcessBuilder("dpkg", "--compare-versions", a, relation, b).start().waitFor() == 0;
  }
}
