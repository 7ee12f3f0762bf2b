package ironing.core.layers;

import ironing.core.arrayfile.ArrayFileReader;
import ironing.core.arrayfile.ArrayFileWriter;
import java.io.IOException;
import java.util.Arrays;
import java.util.HexFormat;

/**
 * By slot of {@link Holdings} the content that lies there, known by its SHA-256. Those lie side by
 * side in one array: a million of them take 32 MB, where as texts they would take four times as
 * much.
 *
 * <p>Two are compared where somebody asks. Giving equal ones a number when they come would save
 * nothing: most paths have one holder, and nobody ever asks.
 *
 * <p>Threads: whoever fills it, each slot once; any number of readers afterwards.
 */
final class Contents {
  /** Of a SHA-256. */
  static final int BYTES = 32;

  private final byte[] hashes;

  Contents(int slots) {
    this.hashes = new byte[Math.multiplyExact(slots, BYTES)];
  }

  private Contents(byte[] hashes) {
    this.hashes = hashes;
  }

  Contents(ArrayFileReader in) throws IOException {
    this.hashes = in.bytes();
  }

  void write(ArrayFileWriter out) throws IOException {
    out.bytes(hashes);
  }

  /**
   * @param from holds the SHA-256 from an offset on
   */
  void set(int slot, byte[] from, int offset) {
    System.arraycopy(from, offset, hashes, slot * BYTES, BYTES);
  }

  /** Whether the same lies in a slot as in one of other contents. */
  boolean same(int slot, Contents others, int other) {
    int a = slot * BYTES, b = other * BYTES;
    return Arrays.equals(hashes, a, a + BYTES, others.hashes, b, b + BYTES);
  }

  /** The same with room behind for more slots. */
  Contents longer(int slots) {
    return new Contents(Arrays.copyOf(hashes, Math.multiplyExact(slots, BYTES)));
  }

  /** Puts into a slot what lies in one of other contents. */
  void set(int slot, Contents others, int other) {
    System.arraycopy(others.hashes, other * BYTES, hashes, slot * BYTES, BYTES);
  }

  /** In 64 hexadecimal digits. */
  String sha256(int slot) {
    return HexFormat.of().formatHex(hashes, slot * BYTES, (slot + 1) * BYTES);
  }
}
