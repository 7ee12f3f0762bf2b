package ironing.core.layers;

import java.util.Arrays;
import java.util.concurrent.CompletableFuture;

/**
 * Some thousand files on their way into {@link Holdings}: as they came, and by and by what is found
 * out of each.
 *
 * <p>Threads: one fills it; then each part of {@link FileIntake} writes what belongs to it.
 */
final class FileBatch {
  static final int MOST = 8192;
  int count;
  final int[] source = new int[MOST];
  final long[] size = new long[MOST];

  /** The number of its path in the part to which it belongs, times two, and that part; or below. */
  final int[] path = new int[MOST];

  /** That of {@link #path} for a file that does not count. */
  static final int DROPPED = -1;

  private final byte[] sha256 = new byte[MOST * Contents.BYTES];

  // what came, until it is taken in
  long[] hash = new long[MOST];
  int[] end = new int[MOST];
  byte[] text = new byte[MOST * 48];
  private String[] spelling;
  CompletableFuture<Void> taken = CompletableFuture.completedFuture(null);

  boolean isFull() {
    return count == MOST;
  }

  int begin(int n) {
    return n == 0 ? 0 : end[n - 1];
  }

  void add(
      long hash, int source, byte[] utf8, int at, int length, long size, byte[] sha, int offset) {
    if (sha.length - offset < Contents.BYTES)
      throw new IllegalArgumentException("a SHA-256 has " + Contents.BYTES + " bytes");
    int begin = begin(count);
    if (text.length - begin < length)
      text = Arrays.copyOf(text, Math.max(2 * text.length, begin + length));
    System.arraycopy(utf8, at, text, begin, length);
    System.arraycopy(sha, offset, sha256, count * Contents.BYTES, Contents.BYTES);
    end[count] = begin + length;
    this.hash[count] = hash;
    this.source[count] = source;
    this.size[count++] = size;
  }

  void content(int n, Contents to, int slot) {
    to.set(slot, sha256, n * Contents.BYTES);
  }

  /** Notes that a file is spelled in another way than its path is kept. */
  synchronized void spelled(int n, String spelling) {
    if (this.spelling == null) this.spelling = new String[MOST];
    this.spelling[n] = spelling;
  }

  /** How a file is spelled; null for as its path is kept. */
  String spelling(int n) {
    return spelling == null ? null : spelling[n];
  }

  boolean anySpelled() {
    return spelling != null;
  }

  /** Lets go of what nobody asks for any more. */
  void release() {
    hash = null;
    end = null;
    text = null;
  }
}
