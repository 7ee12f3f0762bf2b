package ironing.bench;

import static java.nio.charset.StandardCharsets.UTF_8;

import ironing.core.combinedfiles.CombinedFile;
import ironing.core.combinedfiles.Contender;
import ironing.core.combinedfiles.FileCombiner;
import ironing.core.game.CombineWay;
import ironing.core.game.GameDefinition.Combine;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.IntSupplier;
import java.util.stream.Stream;

/**
 * Combining files, beside {@code git merge-file} where that does the same: many small texts, one
 * long one, a long table, large JSON.
 *
 * <p>Usage: {@code CombineBench FOLDER}, a folder to write in. Prints JSON. Run with two
 * processors.
 */
public final class CombineBench {
  private static final int MERGES = 2_000;
  private static final int ROUNDS = 7;

  /** Short work goes on getting faster for about as many rounds. */
  private static final int WARM = 15;

  private CombineBench() {}

  private record Triple(byte[] base, byte[] one, byte[] two) {}

  public static void main(String[] args) throws IOException, InterruptedException {
    Path folder = Files.createDirectories(Path.of(args[0]));
    List<Triple> small = new ArrayList<>();
    for (int i = 0; i < MERGES; i++) small.add(texts(400, 6, i));
    Combine text = rule(CombineWay.TEXT);
    double many = median(WARM, () -> small.parallelStream().mapToInt(t -> shown(text, t)).sum());
    double processes = processes(folder, small);
    Triple large = texts(50_000, 300, 1);
    double one = median(() -> shown(text, large));
    double[] alone = new double[ROUNDS];
    for (int i = 0; i < ROUNDS; i++) alone[i] = processes(folder, List.of(large));
    Arrays.sort(alone);
    Triple tables = tables(200_000);
    double table = median(() -> shown(rule(CombineWay.TABLE), tables));
    Triple json = json();
    long before = used();
    CombinedFile kept = combine(rule(CombineWay.JSON), json);
    long peak = used() - before;
    double three = median(() -> shown(rule(CombineWay.JSON), json));
    System.out.printf(
        "{\"manyMs\":%.0f,\"manyGitMs\":%.0f,\"longMs\":%.1f,\"longGitMs\":%.1f,\"tableMs\":%.0f,"
            + "\"jsonMiB\":%.1f,\"jsonMs\":%.0f,\"jsonHeapMiB\":%d,\"jsonPlaces\":%d}%n",
        many,
        processes,
        one,
        alone[ROUNDS / 2],
        table,
        json.base.length / 1048576.0,
        three,
        Math.max(peak, peakWhile(() -> shown(rule(CombineWay.JSON), json)) - before) >> 20,
        kept.places().size());
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path p : all.sorted(Comparator.reverseOrder()).toList()) Files.delete(p);
    }
  }

  private static Combine rule(CombineWay way) {
    List<String> key = way == CombineWay.TABLE ? List.of("id") : List.of();
    PathPattern all = PathPattern.of("**", PathCase.SENSITIVE);
    return new Combine(all, way, Optional.empty(), key, Map.of(), Set.of());
  }

  private static CombinedFile combine(Combine rule, Triple t) {
    List<Contender> sides = List.of(new Contender("one", t.one), new Contender("two", t.two));
    return FileCombiner.combine(rule, new Contender("base", t.base), sides, Map.of());
  }

  private static int shown(Combine rule, Triple t) {
    return combine(rule, t).shown().length();
  }

  private static double median(IntSupplier work) {
    return median(2, work);
  }

  /**
   * @param before rounds that are not counted
   */
  private static double median(int before, IntSupplier work) {
    double[] ms = new double[ROUNDS];
    for (int i = -before; i < ROUNDS; i++) {
      long began = System.nanoTime();
      once(work);
      if (i >= 0) ms[i] = (System.nanoTime() - began) / 1e6;
    }
    Arrays.sort(ms);
    return ms[ROUNDS / 2];
  }

  /** The same by as many processes, one after another; writing their files is not counted. */
  private static double processes(Path folder, List<Triple> triples)
      throws IOException, InterruptedException {
    List<Path> folders = new ArrayList<>();
    for (int i = 0; i < triples.size(); i++) {
      Path f = Files.createDirectories(folder.resolve("triple-" + i));
      Files.write(f.resolve("base"), triples.get(i).base);
      Files.write(f.resolve("one"), triples.get(i).one);
      Files.write(f.resolve("two"), triples.get(i).two);
      folders.add(f);
    }
    long began = System.nanoTime();
    for (Path f : folders)
      new ProcessBuilder("git", "merge-file", "-p", "one", "base", "two")
          .directory(f.toFile())
          .redirectOutput(ProcessBuilder.Redirect.DISCARD)
          .redirectError(ProcessBuilder.Redirect.DISCARD)
          .start()
          .waitFor();
    return (System.nanoTime() - began) / 1e6;
  }

  private static Triple texts(int lines, int edits, long seed) {
    Random r = new Random(seed);
    List<String> base = new ArrayList<>();
    for (int i = 0; i < lines; i++)
      base.add(r.nextInt(5) == 0 ? "  end" : "  set buoy " + r.nextInt(lines * 4) + " lit at dusk");
    return new Triple(bytes(base), bytes(edited(base, edits, r)), bytes(edited(base, edits, r)));
  }

  private static List<String> edited(List<String> base, int edits, Random r) {
    List<String> lines = new ArrayList<>(base);
    for (int i = 0; i < edits; i++) {
      int at = r.nextInt(lines.size());
      if (r.nextBoolean()) lines.set(at, "  set lamp " + r.nextInt());
      else lines.add(at, "  ring bell " + r.nextInt());
    }
    return lines;
  }

  private static byte[] bytes(List<String> lines) {
    return (String.join("\n", lines) + "\n").getBytes(UTF_8);
  }

  private static Triple tables(int rows) {
    return new Triple(table(rows, 0), table(rows, 7), table(rows, 11));
  }

  private static byte[] table(int rows, int every) {
    StringBuilder out = new StringBuilder("id,name,dues,depth\n");
    for (int i = 0; i < rows; i++) {
      boolean other = every > 0 && i % (every * 100) == every;
      out.append(i).append(",Harbour ").append(i).append(',').append(i % 97);
      out.append(',').append(other ? every : 9).append('\n');
    }
    return out.toString().getBytes(UTF_8);
  }

  /** A base and two others of twenty megabytes each. */
  private static Triple json() {
    return new Triple(json(0), json(7), json(11));
  }

  private static byte[] json(int every) {
    StringBuilder out = new StringBuilder("{\n");
    for (int i = 0; out.length() < 20 << 20; i++) {
      boolean other = every > 0 && i % (every * 100) == every;
      out.append(i == 0 ? "" : ",\n").append("  \"vessel-").append(i).append("\": {\n");
      out.append("    \"name\": \"Vessel of the line ").append(i).append("\",\n    \"speed\": ");
      out.append(other ? 100 + every : i % 30);
      out.append(",\n    \"route\": [1, 2, 3, ").append(i % 9).append("],\n    \"lit\": true\n  }");
    }
    return out.append("\n}\n").toString().getBytes(UTF_8);
  }

  private static long used() {
    System.gc();
    Runtime r = Runtime.getRuntime();
    return r.totalMemory() - r.freeMemory();
  }

  private static void once(IntSupplier work) {
    if (work.getAsInt() < 0) throw new IllegalStateException("nothing came of it");
  }

  /** The most that is live, as looked at now and again while it works. */
  private static long peakWhile(IntSupplier work) throws InterruptedException {
    long[] most = {0};
    Thread worker = new Thread(() -> once(work));
    worker.start();
    while (worker.isAlive()) {
      most[0] = Math.max(most[0], used());
      worker.join(20);
    }
    return most[0];
  }
}
