package ironing.bench;

import ironing.core.layers.HoldingsBuilder;
import ironing.core.layers.Standing;
import ironing.core.path.PathCase;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Finds the contested paths of a file with one path a line, a run of lines for each mod, beside
 * {@code LC_ALL=C sort | uniq -d} over the same file. Both find which paths come more than once;
 * ours finds for each of them who is in play too.
 *
 * <p>Usage: {@code SortBench FILE} writes the million paths there, measures the two by turns, and
 * prints medians as JSON. {@code uniq -d} counts a path that one mod brings twice; here none does.
 */
public final class SortBench {
  private static final int ROUNDS = 9;

  /** Not counted: by then the virtual machine has compiled what is measured. */
  private static final int WARM_UP = 10;

  private SortBench() {}

  public static void main(String[] args) throws IOException, InterruptedException {
    Path file = Path.of(args[0]);
    List<Integer> ends = new ArrayList<>();
    try (BufferedWriter out = Files.newBufferedWriter(file)) {
      int[] lines = {0};
      long[] last = {1};
      LargeWorld.files(
          (mod, path, size, sha) -> {
            if (mod != last[0]) ends.add(lines[0]);
            last[0] = mod;
            lines[0]++;
            try {
              // C compares bytes, so the same is asked of both: a game that minds the case
              out.write(path);
              out.write('\n');
            } catch (IOException e) {
              throw new UncheckedIOException(e);
            }
          });
      ends.add(lines[0]);
    }
    List<Long> ours = new ArrayList<>(), theirs = new ArrayList<>();
    int found = 0, sorted = 0;
    for (int round = 0; round < WARM_UP; round++) contested(file, ends);
    for (int round = 0; round < ROUNDS; round++) {
      long began = System.nanoTime();
      found = contested(file, ends);
      ours.add((System.nanoTime() - began) / 1_000_000);
      began = System.nanoTime();
      sorted = Integer.parseInt(run("LC_ALL=C sort \"$1\" | uniq -d | wc -l", file).strip());
      theirs.add((System.nanoTime() - began) / 1_000_000);
    }
    if (found != sorted)
      throw new IllegalStateException(
          "found " + found + " contested paths, sort and uniq " + sorted);
    System.out.printf(
        "{\"contested\":%d,\"oursMs\":%d,\"sortMs\":%d}%n", found, median(ours), median(theirs));
  }

  private static int contested(Path file, List<Integer> ends) throws IOException {
    HoldingsBuilder files = new HoldingsBuilder(PathCase.SENSITIVE, ends.get(ends.size() - 1));
    byte[] sha = new byte[32], block = new byte[1 << 18];
    int[] order = new int[ends.size()];
    int line = 0, mod = 0, kept = 0;
    order[0] = files.source(1, Optional.empty());
    try (InputStream in = Files.newInputStream(file)) {
      for (int read; (read = in.read(block, kept, block.length - kept)) > 0; ) {
        int begin = 0, end = kept + read;
        // line ends are found sixteen and more letters at a time in a text of single bytes
        String text = new String(block, 0, end, StandardCharsets.ISO_8859_1);
        for (int i; (i = text.indexOf('\n', begin)) >= 0; begin = i + 1) {
          if (line++ == ends.get(mod)) order[++mod] = files.source(mod + 1, Optional.empty());
          files.file(order[mod], block, begin, i - begin, 0, sha, 0);
        }
        kept = end - begin;
        System.arraycopy(block, begin, block, 0, kept);
      }
    }
    return Standing.of(files.build(), order).contested().length;
  }

  private static String run(String script, Path file) throws IOException, InterruptedException {
    Process p = new ProcessBuilder("sh", "-c", script, "sh", file.toString()).start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    if (p.waitFor() != 0) throw new IOException(script + " failed");
    return said;
  }

  private static long median(List<Long> times) {
    return times.stream().sorted().skip(times.size() / 2).findFirst().orElseThrow();
  }
}
