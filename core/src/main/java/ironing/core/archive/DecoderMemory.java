package ironing.core.archive;

import java.io.InterruptedIOException;
import java.util.concurrent.Semaphore;

/**
 * The memory that all decoders of this process share. A decoder takes what it needs before it
 * starts and waits while others have it.
 *
 * <p>Threads: any number; those that wait are served in the order in which they came.
 */
public final class DecoderMemory {
  /** What all decoders together may take when nobody says otherwise: 200 MiB. */
  public static final int DEFAULT_KIB = 200 * 1024;

  private final int totalKib;
  private final Semaphore free;

  public DecoderMemory(int totalKib) {
    this.totalKib = totalKib;
    this.free = new Semaphore(totalKib, true);
  }

  int totalKib() {
    return totalKib;
  }

  /** What {@link #take} has taken; closing gives it back. */
  interface Share extends AutoCloseable {
    @Override
    void close();
  }

  /** Waits until so much is free. More than there is in all is asked of nobody. */
  Share take(int kib) throws InterruptedIOException {
    int taken = Math.min(kib, totalKib);
    try {
      free.acquire(taken);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new InterruptedIOException("interrupted while waiting for memory");
    }
    return () -> free.release(taken);
  }
}
