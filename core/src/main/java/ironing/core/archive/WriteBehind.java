package ironing.core.archive;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;

/**
 * Writes small files on a thread of its own, while the next ones are decoded and hashed: making a
 * file costs as much as decoding it. What waits to be written is bounded.
 *
 * <p>A failure is told at the next call, and at the latest by {@link #finish}.
 */
final class WriteBehind implements AutoCloseable {
  private static final int WAITING_KIB = 16 * 1024;

  private final ExecutorService writer =
      Executors.newSingleThreadExecutor(
          task -> {
            Thread t = new Thread(task, "unpack-writer");
            t.setDaemon(true);
            return t;
          });
  private final Semaphore room = new Semaphore(WAITING_KIB);
  private final Set<Path> folders = new HashSet<>();
  private volatile IOException failed;

  /** Takes a file to be written; the bytes are its from now on. */
  void write(Path place, byte[] content) throws IOException {
    throwFailure();
    int kib = Math.min(WAITING_KIB, content.length / 1024 + 1);
    try {
      room.acquire(kib);
    } catch (InterruptedException e) {
      throw interrupted();
    }
    writer.execute(
        () -> {
          try {
            if (failed == null) writeNow(place, content);
          } catch (IOException e) {
            failed = e;
          } finally {
            room.release(kib);
          }
        });
  }

  private void writeNow(Path place, byte[] content) throws IOException {
    if (folders.add(place.getParent())) Files.createDirectories(place.getParent());
    try (OutputStream out = Files.newOutputStream(place, StandardOpenOption.CREATE_NEW)) {
      out.write(content);
    }
  }

  /** Waits until all that was taken is written. */
  void finish() throws IOException {
    try {
      room.acquire(WAITING_KIB);
      room.release(WAITING_KIB);
    } catch (InterruptedException e) {
      throw interrupted();
    }
    throwFailure();
  }

  private void throwFailure() throws IOException {
    if (failed != null) throw failed;
  }

  private static InterruptedIOException interrupted() {
    Thread.currentThread().interrupt();
    return new InterruptedIOException("interrupted while unpacking");
  }

  /** After this nothing is written any more, so that the folder can be thrown away. */
  @Override
  public void close() {
    if (failed == null) failed = new IOException("the unpacking was given up");
    writer.shutdown();
    boolean interrupted = false;
    while (true) {
      try {
        if (writer.awaitTermination(1, TimeUnit.MINUTES)) break;
      } catch (InterruptedException e) {
        interrupted = true;
      }
    }
    if (interrupted) Thread.currentThread().interrupt();
  }
}
