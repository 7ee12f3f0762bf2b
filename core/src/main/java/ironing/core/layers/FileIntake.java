package ironing.core.layers;

import ironing.core.path.PathCase;
import ironing.core.path.PathTable;
import ironing.core.path.SplitPaths;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;

/**
 * Finds out for each file which path it is.
 *
 * <p>Idea: paths belong to one of two parts by their hash. Each part has a table of its own and a
 * thread of its own, takes the batches in their order, and sees in each of them its own files only:
 * so nothing is waited for but memory. The batches before the last are taken in while more come; a
 * world that fits into one needs no thread.
 */
final class FileIntake {
  private static final int MOST_WAITING = 8, IDLE_SECONDS = 2;
  private final List<Part> parts;
  private final List<FileBatch> batches = new ArrayList<>();
  private final List<ExecutorService> threads = new ArrayList<>();

  /** One path table, and by path the source that was last to bring it, from 1, and how many do. */
  private static final class Part {
    private final int number;
    private final PathTable paths;
    private int[] lastSource;
    private int[] holders;

    Part(int number, PathCase pathCase, int expected) {
      this.number = number;
      this.paths = new PathTable(pathCase, expected);
      this.lastSource = new int[Math.max(1024, expected)];
      this.holders = new int[lastSource.length];
    }

    void take(FileBatch b) {
      for (int n = 0; n < b.count; n++)
        if (SplitPaths.partOf(b.hash[n]) == number) take(b, n, b.begin(n), b.end[n]);
    }

    private void take(FileBatch b, int n, int from, int end) {
      int id = paths.intern(b.hash[n], b.text, from, end - from);
      if (id >= lastSource.length) {
        lastSource = Arrays.copyOf(lastSource, id * 2);
        holders = Arrays.copyOf(holders, id * 2);
      }
      if (lastSource[id] == b.source[n] + 1) {
        b.path[n] = FileBatch.DROPPED;
        return;
      }
      boolean fresh = lastSource[id] == 0;
      lastSource[id] = b.source[n] + 1;
      holders[id]++;
      b.path[n] = id * SplitPaths.PARTS + number;
      if (!fresh && !paths.isSpelled(id, b.text, from, end - from))
        b.spelled(n, new String(b.text, from, end - from, StandardCharsets.UTF_8));
    }
  }

  /**
   * @param expected about how many files are to come
   */
  FileIntake(PathCase pathCase, int expected) {
    parts =
        IntStream.range(0, SplitPaths.PARTS)
            .mapToObj(n -> new Part(n, pathCase, expected / SplitPaths.PARTS))
            .toList();
  }

  long hash(byte[] utf8, int at, int length) {
    return parts.get(0).paths.hash(utf8, at, length);
  }

  /** Takes in what has been gathered, beside what is gathered meanwhile. */
  void take(FileBatch batch) {
    if (threads.isEmpty()) for (Part p : parts) threads.add(thread(p.number));
    CompletableFuture<?>[] each =
        parts.stream()
            .map(p -> CompletableFuture.runAsync(() -> p.take(batch), threads.get(p.number)))
            .toArray(CompletableFuture[]::new);
    batch.taken = CompletableFuture.allOf(each).thenRun(batch::release);
    batches.add(batch);
    // what waits takes memory
    if (batches.size() > MOST_WAITING) batches.get(batches.size() - MOST_WAITING).taken.join();
  }

  /** Takes in the last batch, and waits for all. */
  List<FileBatch> finish(FileBatch last) {
    if (threads.isEmpty()) {
      for (Part p : parts) p.take(last);
      last.release();
      batches.add(last);
      return batches;
    }
    take(last);
    threads.forEach(ExecutorService::shutdown);
    batches.forEach(b -> b.taken.join());
    return batches;
  }

  /** The paths; to be asked for when it is finished. */
  SplitPaths paths() {
    return new SplitPaths(parts.stream().map(p -> p.paths).toList());
  }

  /** By path where its holders begin when they lie one behind the other, and where the last end. */
  int[] starts() {
    int[] start = new int[paths().size() + 1];
    int p = 0;
    for (Part part : parts) {
      for (int id = 0; id < part.paths.size(); id++, p++)
        start[p + 1] = start[p] + part.holders[id];
    }
    return start;
  }

  // one that nobody finishes ends by itself
  private static ExecutorService thread(int part) {
    ThreadPoolExecutor one =
        new ThreadPoolExecutor(
            1,
            1,
            IDLE_SECONDS,
            TimeUnit.SECONDS,
            new LinkedBlockingQueue<>(),
            work -> {
              Thread t = new Thread(work, "paths-" + part);
              t.setDaemon(true);
              return t;
            });
    one.allowCoreThreadTimeOut(true);
    return one;
  }
}
