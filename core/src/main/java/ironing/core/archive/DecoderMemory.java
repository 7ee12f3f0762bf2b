package ironing.core.archive;

import java.io.IOException;
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

  /** What needs the memory. */
  interface Work {
    void done() throws IOException;
  }

  /**
   * Waits until so much is free, and does the work with it. More than there is in all is asked of
   * nobody.
   */
  void during(int kib, Work work) throws IOException {
    int taken = Math.min(kib, totalKib);
    try {
      free.acquire(taken);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new InterruptedIOException("interrupted while waiting for memory");
    }
    try {
      work.done();
    } finally {
      free.release(taken);
    }
  }
}
