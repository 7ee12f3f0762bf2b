package ironing.core.layers;

import java.util.Arrays;
import java.util.HexFormat;

/**
 * Gives each distinct content a small int. Contents are known by their SHA-256, kept as 32 bytes
 * each side by side: a million of them take 32 MB, where as texts they would take four times as
 * much.
 *
 * <p>Invariant: ids run from 0 without a gap, in order of first sight. Cost: constant a look-up.
 * Threads: one writer while it is filled; any number of readers afterwards.
 */
final class ContentTable {
  private static final int LENGTH = 32;
  private byte[] hashes = new byte[1024 * LENGTH];
  // open addressing; 0 for free, else the id and one
  private int[] slots = new int[4096];
  private int size;

  /** The id of a SHA-256, which is 32 bytes from an offset on. */
  int intern(byte[] from, int offset) {
    if (size * 2 >= slots.length) grow();
    int at = place(from, offset);
    if (slots[at] != 0) return slots[at] - 1;
    if ((size + 1) * LENGTH > hashes.length) hashes = Arrays.copyOf(hashes, hashes.length * 2);
    System.arraycopy(from, offset, hashes, size * LENGTH, LENGTH);
    slots[at] = ++size;
    return size - 1;
  }

  private int place(byte[] from, int offset) {
    // any four bytes of a SHA-256 are as good as a hash of all
    int at = start(from, offset);
    while (slots[at] != 0 && !isSame(slots[at] - 1, from, offset)) at = at + 1 & slots.length - 1;
    return at;
  }

  private int start(byte[] from, int o) {
    int four =
        (from[o] & 255) << 24
            | (from[o + 1] & 255) << 16
            | (from[o + 2] & 255) << 8
            | from[o + 3] & 255;
    return four & slots.length - 1;
  }

  private boolean isSame(int id, byte[] from, int offset) {
    return Arrays.equals(hashes, id * LENGTH, (id + 1) * LENGTH, from, offset, offset + LENGTH);
  }

  private void grow() {
    slots = new int[slots.length * 2];
    for (int id = 0; id < size; id++) slots[place(hashes, id * LENGTH)] = id + 1;
  }

  String sha256(int id) {
    return HexFormat.of().formatHex(hashes, id * LENGTH, (id + 1) * LENGTH);
  }

  int size() {
    return size;
  }

  /**
   * Those of two tables to look up and no more: the ids of the second come behind those of the
   * first, so that a content may have one of each.
   */
  static ContentTable joined(ContentTable first, ContentTable second) {
    ContentTable all = new ContentTable();
    all.size = first.size + second.size;
    all.hashes = Arrays.copyOf(first.hashes, all.size * LENGTH);
    System.arraycopy(second.hashes, 0, all.hashes, first.size * LENGTH, second.size * LENGTH);
    all.slots = new int[0];
    return all;
  }
}
