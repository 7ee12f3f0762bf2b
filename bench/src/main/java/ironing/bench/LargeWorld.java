package ironing.bench;

import ironing.core.archive.ContentHash;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.TreeMap;
import java.util.function.LongFunction;
import java.util.stream.LongStream;

/**
 * The made-up workspace of two thousand mods and a million files, 30 % of them at paths that others
 * bring too, one in ten of those with the same content. The same at every making; not on disk.
 *
 * <p>The mods' sizes are uneven, as they are in life: they fall off like one over the rank, so that
 * the largest has some tens of thousands of files and most a few hundred.
 */
final class LargeWorld {
  static final int MODS = 2_000;
  static final int FILES = 1_000_000;
  private static final double CONTESTED = 0.3;
  private static final double TWIN = 0.1;
  private static final int SHARED_PATHS = 90_000;

  private LargeWorld() {}

  interface Visitor {
    void file(long mod, String path, long sizeBytes, String sha256);
  }

  /** How many files each mod has, from mod 1 on. */
  static int[] filesOfMods() {
    LongFunction<Double> share = rank -> 1.0 / (rank + 40);
    double all = LongStream.range(0, MODS).mapToDouble(share::apply).sum();
    int[] files = new int[MODS];
    int left = FILES;
    Random random = new Random(11);
    List<Integer> ranks =
        new ArrayList<>(LongStream.range(0, MODS).mapToObj(r -> (int) r).toList());
    Collections.shuffle(ranks, random);
    for (int m = 0; m < MODS; m++) {
      files[m] = Math.max(1, (int) (FILES * share.apply(ranks.get(m)) / all));
      left -= files[m];
    }
    files[0] += left;
    return files;
  }

  /** Every file, mod by mod, in the order of their paths. */
  static void files(Visitor visitor) {
    int[] files = filesOfMods();
    for (int m = 1; m <= MODS; m++) {
      long mod = m;
      Random random = new Random(m);
      TreeMap<String, String> of = new TreeMap<>();
      for (int f = 0; of.size() < files[m - 1]; f++) {
        boolean contested = random.nextDouble() < CONTESTED;
        String path = contested ? shared(random.nextInt(SHARED_PATHS)) : own(m, f);
        boolean twin = contested && random.nextDouble() < TWIN;
        of.put(path, twin ? path : m + " " + path);
      }
      of.forEach((path, content) -> visitor.file(mod, path, 1_000 + path.length(), sha(content)));
    }
  }

  private static String shared(int f) {
    return "data/textures/common/region" + f % 97 + "/block" + f % 1009 + "/Piece_" + f + ".tex";
  }

  private static String own(int mod, int f) {
    return "data/textures/mod" + mod + "/set" + f % 31 + "/Part_" + f + ".tex";
  }

  static String sha(String content) {
    return ContentHash.of(content.getBytes(StandardCharsets.UTF_8));
  }
}
