package ironing.core.deploy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;

/**
 * The same small thing done to many files: on all processors where there are enough of them. When
 * it returns or throws, nothing of it goes on any more.
 *
 * <p>Idea: each thread begins in a stretch of its own and helps in the others when that is done,
 * for two that put files into the same folder wait for each other.
 */
final class InParallel {
  private static final int ENOUGH = 1_000, AT_ONCE = 100, MOST_THREADS = 8;

  private InParallel() {}

  /** What is done to each. */
  interface Work<T> {
    void on(T one) throws IOException;
  }

  /** Begins no more once one has failed. */
  static <T> void each(List<T> all, Work<T> work) throws IOException {
    if (all.size() < ENOUGH) {
      for (T one : all) work.on(one);
      return;
    }
    int threads = Math.min(MOST_THREADS, Runtime.getRuntime().availableProcessors());
    List<Stretch<T>> stretches = new ArrayList<>();
    for (int i = 0; i < threads; i++) {
      int from = (int) ((long) all.size() * i / threads);
      int to = (int) ((long) all.size() * (i + 1) / threads);
      stretches.add(new Stretch<>(all.subList(from, to), new AtomicInteger()));
    }
    AtomicReference<Throwable> failed = new AtomicReference<>();
    List<Thread> helpers = new ArrayList<>();
    for (int i = 1; i < threads; i++) {
      int own = i;
      helpers.add(new Thread(() -> share(stretches, own, work, failed), "files-" + i));
    }
    helpers.forEach(Thread::start);
    share(stretches, 0, work, failed);
    for (Thread t : helpers) join(t);
    Throwable why = failed.get();
    if (why instanceof IOException e) throw e;
    if (why instanceof RuntimeException e) throw e;
    if (why instanceof Error e) throw e;
  }

  /**
   * @param next the first that nobody has taken
   */
  private record Stretch<T>(List<T> of, AtomicInteger next) {}

  private static <T> void share(
      List<Stretch<T>> stretches, int own, Work<T> work, AtomicReference<Throwable> failed) {
    try {
      for (int i = 0; i < stretches.size(); i++) {
        Stretch<T> s = stretches.get((own + i) % stretches.size());
        while (failed.get() == null) {
          int from = s.next.getAndAdd(AT_ONCE);
          if (from >= s.of.size()) break;
          for (T one : s.of.subList(from, Math.min(s.of.size(), from + AT_ONCE))) work.on(one);
        }
      }
    } catch (Throwable e) {
      failed.compareAndSet(null, e);
    }
  }

  // whoever interrupts must wait all the same: what goes on would meet what is taken back
  private static void join(Thread t) {
    boolean interrupted = false;
    while (true) {
      try {
        t.join();
        break;
      } catch (InterruptedException e) {
        interrupted = true;
      }
    }
    if (interrupted) Thread.currentThread().interrupt();
  }
}
