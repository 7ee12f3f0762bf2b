package ironing.bench;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.mends.MergeBuilder;
import ironing.core.mends.MergePlan;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.RecordTable.Bytes;
import ironing.core.plugin.Shapes;
import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordIndex.Source;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * Two million records in fifteen hundred plugins: indexing all of them in a program that has just
 * started, indexing anew when one plugin has changed, all collisions; and making fifty plugins of
 * ten thousand records one. The files have been read once before, so that the disk is not measured.
 *
 * <p>Usage: {@code RecordsBench FOLDER}, the folder being one that {@link LargeRecords} wrote.
 * Prints JSON. Run with two processors.
 */
public final class RecordsBench {
  private static final int ROUNDS = 7;
  private static final GameDefinition GAME =
      GameDefinitionReader.read("game.yaml", LargeRecords.DEFINITION).value();
  private static final Shapes SHAPES = Shapes.of(GAME);

  private RecordsBench() {}

  public static void main(String[] args) throws IOException {
    Path data = Path.of(args[0]).resolve("game/data");
    List<Path> files;
    try (Stream<Path> all = Files.list(data)) {
      files = all.sorted().toList();
    }
    long before = used();
    long began = System.nanoTime();
    RecordTable[] tables =
        files.parallelStream().map(RecordsBench::read).toArray(RecordTable[]::new);
    RecordIndex index = index(tables, files);
    double cold = ms(began);
    began = System.nanoTime();
    Collisions collisions = Collisions.in(GAME, index, Map.of());
    double firstCollisions = ms(began);
    long heap = used() - before;
    long bytes = 0;
    for (Path f : files) bytes += Files.size(f);
    List<Double> one = new ArrayList<>(), again = new ArrayList<>();
    for (int round = 0; round < ROUNDS; round++) {
      began = System.nanoTime();
      int changed = 1 + round * 100 % (files.size() - 1);
      tables[changed] = read(files.get(changed));
      index = index(tables, files);
      one.add(ms(began));
      began = System.nanoTime();
      collisions = Collisions.in(GAME, index, Map.of());
      again.add(ms(began));
    }
    int contested = 0;
    for (int i = 0; i < collisions.size(); i++)
      if (index.versionCount(collisions.record(i)) > 2) contested++;
    Map<State, Integer> counts = collisions.counts();
    double merge = merge(Path.of(args[0]).resolve("merge"));
    System.out.printf(
        "{\"records\":%d,\"bytes\":%d,\"coldMs\":%.0f,\"mbPerS\":%.0f,\"oneChangedMs\":%.0f,"
            + "\"firstCollisionsMs\":%.0f,\"collisionsMs\":%.0f,\"overridden\":%d,\"contested\":%d,"
            + "\"needYou\":%d,\"combine\":%d,\"heapMiB\":%d,\"mergeMs\":%.0f}%n",
        rows(tables),
        bytes,
        cold,
        bytes / cold / 1e3,
        median(one),
        firstCollisions,
        median(again),
        collisions.size(),
        contested,
        counts.get(State.NEEDS_YOU),
        counts.get(State.COMBINES),
        heap >> 20,
        merge);
  }

  private static long rows(RecordTable[] tables) {
    return Arrays.stream(tables).mapToLong(RecordTable::size).sum();
  }

  private static RecordTable read(Path file) {
    try {
      return RecordTable.read(file.getFileName().toString(), file, SHAPES);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static RecordIndex index(RecordTable[] tables, List<Path> files) {
    return RecordIndex.of(
        IntStream.range(0, tables.length)
            .mapToObj(i -> new Source(tables[i], bytes(files.get(i)), false))
            .toList());
  }

  // as the server reads them: opened for each stretch
  private static Bytes bytes(Path file) {
    return (offset, length) -> {
      byte[] stretch = new byte[length];
      try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
        in.seek(offset);
        in.readFully(stretch);
      }
      return stretch;
    };
  }

  /**
   * Fifty plugins of ten thousand records, all with the same numbers, made one; median of three.
   */
  private static double merge(Path folder) throws IOException {
    Files.createDirectories(folder);
    Random random = new Random(3);
    List<Path> files = new ArrayList<>();
    for (int p = 0; p <= 50; p++) {
      List<String> masters = p == 0 ? List.of() : List.of(LargeRecords.name(0));
      Path file = folder.resolve(LargeRecords.name(p));
      Files.write(
          file,
          PluginCodec.encode(
              LargeRecords.plugin(
                  random,
                  LargeRecords.name(p),
                  masters,
                  p == 0 ? 20_000 : 8_000,
                  p == 0 ? 0 : 2_000,
                  20_000)));
      files.add(file);
    }
    RecordTable[] tables = files.stream().map(RecordsBench::read).toArray(RecordTable[]::new);
    RecordIndex index = index(tables, files);
    List<String> sources = IntStream.rangeClosed(1, 50).mapToObj(LargeRecords::name).toList();
    Map<String, Path> byName = new HashMap<>();
    files.forEach(f -> byName.put(f.getFileName().toString(), f));
    List<Double> times = new ArrayList<>();
    for (int round = 0; round < 3; round++) {
      long began = System.nanoTime();
      MergePlan plan = MergePlan.of(GAME, index, sources, "Merged.plug");
      byte[] merged =
          MergeBuilder.merged(
              plan,
              "Merged",
              n -> {
                try {
                  return Bytes.of(Files.readAllBytes(byName.get(n)));
                } catch (IOException e) {
                  throw new UncheckedIOException(e);
                }
              });
      Files.write(folder.resolve("Merged.plug"), merged);
      times.add(ms(began));
    }
    return median(times);
  }

  private static double ms(long began) {
    return (System.nanoTime() - began) / 1e6;
  }

  private static double median(List<Double> times) {
    return times.stream().sorted().skip(times.size() / 2).findFirst().orElseThrow();
  }

  private static long used() {
    Runtime run = Runtime.getRuntime();
    for (int i = 0; i < 3; i++) System.gc();
    return run.totalMemory() - run.freeMemory();
  }
}
