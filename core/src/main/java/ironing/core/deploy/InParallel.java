package ironing.core.deploy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;

/**
 * The same small thing done to many files: on all processors where there are enough of them. When
 * it returns or throws, nothing of it goes on any more.
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
    AtomicInteger next = new AtomicInteger();
    AtomicReference<Throwable> failed = new AtomicReference<>();
    Runnable share =
        () -> {
          try {
            while (failed.get() == null) {
              int from = next.getAndAdd(AT_ONCE);
              if (from >= all.size()) return;
              for (T one : all.subList(from, Math.min(all.size(), from + AT_ONCE))) work.on(one);
            }
          } catch (Throwable e) {
            failed.compareAndSet(null, e);
          }
        };
    List<Thread> helpers = new ArrayList<>();
    int threads = Math.min(MOST_THREADS, Runtime.getRuntime().availableProcessors());
    for (int i = 1; i < threads; i++) helpers.add(new Thread(share, "files-" + i));
    helpers.forEach(Thread::start);
    share.run();
    for (Thread t : helpers) join(t);
    Throwable why = failed.get();
    if (why instanceof IOException e) throw e;
    if (why instanceof RuntimeException e) throw e;
    if (why instanceof Error e) throw e;
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
