package ironing.server.fetch;

import java.time.Duration;
import java.util.function.LongSupplier;

/**
 * Holds several downloads together to so many bytes a second.
 *
 * <p>Whoever takes bytes while none are free is told how long to wait, and the bytes count at once:
 * those who come later wait longer. Time in which nobody takes anything is worth a quarter of a
 * second at most. Threads: any number.
 */
public final class Pace {
  private static final long SAVED_NANOS = 250_000_000;
  private static final long SECOND_NANOS = 1_000_000_000;
  private static final int SMALLEST_PIECE = 1 << 10;

  private final LongSupplier clock;
  private long bytesASecond;
  private long freeAt;

  /**
   * @param clock in nanoseconds, such as {@link System#nanoTime}
   * @param bytesASecond 0 for as many as come
   */
  public Pace(LongSupplier clock, long bytesASecond) {
    this.clock = clock;
    this.bytesASecond = bytesASecond;
    this.freeAt = clock.getAsLong();
  }

  /**
   * Another limit from now on.
   *
   * @param bytesASecond 0 for as many as come
   */
  public synchronized void limit(long bytesASecond) {
    this.bytesASecond = bytesASecond;
    freeAt = clock.getAsLong();
  }

  /** How many bytes to read at once, so that they come evenly. */
  public synchronized int piece(int most) {
    if (bytesASecond == 0) return most;
    return (int) Math.min(most, Math.max(SMALLEST_PIECE, bytesASecond / 4));
  }

  /** Takes bytes that have come, and says how long to wait before the next are read. */
  public synchronized Duration take(int bytes) {
    if (bytesASecond == 0) return Duration.ZERO;
    long now = clock.getAsLong();
    freeAt = Math.max(freeAt, now - SAVED_NANOS) + bytes * SECOND_NANOS / bytesASecond;
    return freeAt > now ? Duration.ofNanos(freeAt - now) : Duration.ZERO;
  }
}
