package ironing.core.plugin;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * Prints of values: 64 bits that are the same where two values are, numbers by value and paths as
 * game paths included. Two that differ have the same print once in 2<sup>64</sup>.
 *
 * <p>Threads: stateless. Cost: linear in the bytes.
 */
public final class Prints {
  private static final VarHandle WORDS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long A = 0x9E3779B97F4A7C15L, B = 0xD6E8FEB86659FD93L;

  static final long NULL = 0x3C6EF372FE94F82BL;
  static final long TRUE = 0xA54FF53A5F1D36F1L;
  static final long FALSE = 0x510E527FADE682D1L;

  // what a value is goes into its print: the text “1” is not the number 1
  private static final long TEXT = 1, PATH = 2, BYTES = 3, WHOLE_NUMBER = 4, REAL = 5, REF = 6;
  private static final long LIST = 7, SET = 8, MAP = 9, NAME = 10;

  private Prints() {}

  /** Two prints made one; their order counts. */
  public static long mix(long a, long b) {
    long x = a ^ A, y = b ^ B;
    return Math.multiplyHigh(x, y) ^ (x * y);
  }

  static long text(byte[] in, int from, int length) {
    return bytes(TEXT, in, from, length);
  }

  static long name(byte[] in, int from, int length) {
    return bytes(NAME, in, from, length);
  }

  /** Of a name, such as a field’s. */
  public static long name(String s) {
    byte[] utf8 = s.getBytes(StandardCharsets.UTF_8);
    return name(utf8, 0, utf8.length);
  }

  static long binary(byte[] in, int from, int length) {
    return bytes(BYTES, in, from, length);
  }

  /**
   * @param in the path's key, by which it compares
   */
  static long path(byte[] in, int from, int length) {
    return bytes(PATH, in, from, length);
  }

  static long number(long n) {
    return mix(n, WHOLE_NUMBER);
  }

  static long number(double d) {
    if (d == Math.rint(d) && d >= -0x1p63 && d < 0x1p63) return number((long) d);
    return mix(Double.doubleToLongBits(d), REAL);
  }

  static long ref(long owner, long id) {
    return mix(owner + REF, id);
  }

  private static long start(long kind) {
    return kind * A;
  }

  /** Goes on with a list by one item. */
  static long item(long list, long item) {
    return mix(list, item + LIST);
  }

  static long listStart() {
    return start(LIST);
  }

  /** Of items in no order, each of which counts once; sorts the stretch. */
  static long set(long[] items, int from, int to) {
    Arrays.sort(items, from, to);
    long print = start(SET);
    for (int i = from; i < to; i++)
      if (i == from || items[i] != items[i - 1]) print = mix(print, items[i] + SET);
    return print;
  }

  /** One entry of a map; the entries of a map add up, so that their order means nothing. */
  static long entry(long name, long value) {
    return mix(name + MAP, value);
  }

  /** Whether no byte of a stretch has its highest bit set. */
  static boolean ascii(byte[] in, int from, int length) {
    long any = 0;
    int at = from, end = from + length;
    for (; at + 8 <= end; at += 8) any |= (long) WORDS.get(in, at);
    any &= 0x8080808080808080L;
    for (; at < end; at++) any |= in[at] & 0x80;
    return any == 0;
  }

  private static long bytes(long kind, byte[] in, int from, int length) {
    long print = mix(kind, length);
    int at = from, end = from + length;
    for (; at + 8 <= end; at += 8) print = mix(print, (long) WORDS.get(in, at));
    long rest = 0;
    for (; at < end; at++) rest = rest << 8 | in[at] & 0xff;
    return mix(print, rest);
  }
}
