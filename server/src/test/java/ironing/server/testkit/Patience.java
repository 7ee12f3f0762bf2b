package ironing.server.testkit;

import static org.awaitility.Awaitility.await;

import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;

/**
 * Waiting for what comes in its own time: asked at once, then again and again, with one limit for
 * all tests.
 */
public final class Patience {
  /** Far more than a busy machine needs, so that only what never comes reaches it. */
  public static final Duration LIMIT = Duration.ofMinutes(2);

  private static final Duration BETWEEN = Duration.ofMillis(20);

  private Patience() {}

  /**
   * Asks until the answer is the one that is wanted, and gives that.
   *
   * @throws org.awaitility.core.ConditionTimeoutException after {@link #LIMIT}
   */
  public static <T> T until(Callable<T> ask, Predicate<? super T> wanted) {
    return await().pollDelay(Duration.ZERO).pollInterval(BETWEEN).atMost(LIMIT).until(ask, wanted);
  }

  /** Asks until it is so. */
  public static void until(Callable<Boolean> isSo) {
    until(isSo, so -> so);
  }

  /** What may fail. */
  public interface Deed {
    void done() throws Exception;
  }

  /** Does something at a later moment, in the middle of whatever goes on then. */
  public static CompletableFuture<Void> in(long millis, Deed deed) {
    return CompletableFuture.runAsync(
        () -> {
          try {
            deed.done();
          } catch (Exception e) {
            throw new IllegalStateException(e);
          }
        },
        CompletableFuture.delayedExecutor(millis, TimeUnit.MILLISECONDS));
  }
}
