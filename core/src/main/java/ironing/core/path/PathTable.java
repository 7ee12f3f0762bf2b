package ironing.core.path;

import ironing.core.arrayfile.ArrayFileReader;
import ironing.core.arrayfile.ArrayFileWriter;
import java.io.IOException;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Gives each distinct game path a small int, so that everything behind it works on int arrays.
 *
 * <p>Paths lie as UTF-8 one behind the other, and are found by a hash table of ints: a million of
 * them take as much memory as their letters and some bytes each. A path of ASCII alone, which
 * nearly all are, is folded while it is hashed and compared; of any other the folded form is kept
 * beside.
 *
 * <p>Invariant: ids run 0..size()-1 without a gap, in order of first sight, and are never reused.
 * The spelling kept is the first one seen.
 *
 * <p>Threads: one writer while it is filled; any number of readers afterwards.
 *
 * <p>Cost: idOf and pathOf are linear in the path's length.
 */
public final class PathTable {
  private static final VarHandle EIGHT =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long ONES = 0x0101010101010101L, TOPS = 0x8080808080808080L;
  // above the hash
  private static final long NOT_ASCII = 1L << 32;

  private final PathCase pathCase;
  private final boolean folds;
  private byte[] text;
  // by id where its path begins; one more than there are, for the end of the last
  private int[] start;
  // open addressing; 0 for free, else the hash above and the id and one below: most that differ are
  // told
  // apart here, without a look at their letters, which lie far away
  private long[] slots;
  // by id the key of what is not spelled in ASCII
  private final Map<Integer, byte[]> keys = new HashMap<>();
  private int size;

  public PathTable(PathCase pathCase) {
    this(pathCase, 0);
  }

  /**
   * @param expected about how many paths are to come: so many are taken in without making room
   *     again and again
   */
  public PathTable(PathCase pathCase, int expected) {
    int room = Math.min(Math.max(expected, 1 << 10), 1 << 28);
    this.text = new byte[(int) Math.min(32L * room, 1 << 30)];
    this.start = new int[room + 1];
    this.slots = new long[2 * Integer.highestOneBit(2 * room - 1)];
    this.pathCase = pathCase;
    this.folds = pathCase == PathCase.INSENSITIVE;
  }

  /** One of its own with the same paths, to take more. Cost: what it holds, copied. */
  public PathTable(PathTable other) {
    this.pathCase = other.pathCase;
    this.folds = other.folds;
    this.text = other.text.clone();
    this.start = other.start.clone();
    this.slots = other.slots.clone();
    this.keys.putAll(other.keys);
    this.size = other.size;
  }

  /** Reads what {@link #write} wrote of a table that compares in the same way. */
  public PathTable(PathCase pathCase, ArrayFileReader in) throws IOException {
    this.pathCase = pathCase;
    this.folds = pathCase == PathCase.INSENSITIVE;
    this.text = in.bytes();
    this.start = in.ints();
    this.slots = in.longs();
    this.size = start.length - 1;
    int[] keyed = in.ints();
    List<byte[]> of = in.blobs();
    for (int i = 0; i < keyed.length; i++) keys.put(keyed[i], of.get(i));
  }

  public void write(ArrayFileWriter out) throws IOException {
    out.bytes(text, start[size]);
    out.ints(start, size + 1);
    out.longs(slots);
    int[] keyed = keys.keySet().stream().mapToInt(Integer::intValue).toArray();
    out.ints(keyed);
    out.blobs(Arrays.stream(keyed).mapToObj(keys::get).toList());
  }

  /** One without paths that compares in the same way. */
  PathTable emptied() {
    return new PathTable(pathCase);
  }

  /** The id of a path, a new one at first sight. */
  public int intern(String path) {
    byte[] utf8 = path.getBytes(StandardCharsets.UTF_8);
    return intern(utf8, 0, utf8.length);
  }

  /** The same from bytes of UTF-8. */
  public int intern(byte[] utf8, int offset, int length) {
    return intern(hash(utf8, offset, length), utf8, offset, length);
  }

  /**
   * The same where the hash is known.
   *
   * @param hash what {@link #hash} says
   */
  public int intern(long hash, byte[] utf8, int offset, int length) {
    byte[] key = (hash & NOT_ASCII) == 0 ? null : key(utf8, offset, length);
    int at =
        key == null ? find((int) hash, utf8, offset, length) : find((int) hash, key, 0, key.length);
    if (slots[at] != 0) return (int) slots[at] - 1;
    if (key != null) keys.put(size, key);
    append(utf8, offset, length);
    slots[at] = hash << 32 | size;
    if (size * 2 > slots.length) rehash();
    return size - 1;
  }

  /**
   * A number whose lower 32 bits are the same for paths that the game takes for the same. Reads
   * nothing of what is here: any thread may ask, whoever fills the table.
   */
  public long hash(byte[] utf8, int offset, int length) {
    if (!folds) return mixed(utf8, offset, length);
    long hash = ofAscii(utf8, offset, length);
    return hash == NOT_ASCII ? NOT_ASCII | hashOfKey(key(utf8, offset, length)) : hash;
  }

  private byte[] key(byte[] utf8, int offset, int length) {
    return keyOf(new String(utf8, offset, length, StandardCharsets.UTF_8));
  }

  /** The id of a path that may be unknown, -1 then. */
  public int idOf(String path) {
    return idOfKey(keyOf(path));
  }

  int idOfKey(byte[] key) {
    return (int) slots[find((int) hashOfKey(key), key, 0, key.length)] - 1;
  }

  byte[] keyOf(String path) {
    return pathCase.key(path).getBytes(StandardCharsets.UTF_8);
  }

  public String pathOf(int id) {
    return new String(text, start[id], start[id + 1] - start[id], StandardCharsets.UTF_8);
  }

  /** Whether a path is spelled just so. */
  public boolean isSpelled(int id, byte[] utf8, int offset, int length) {
    // where nothing is folded there is one way only
    return !folds || Arrays.equals(text, start[id], start[id + 1], utf8, offset, offset + length);
  }

  /**
   * False when a path cannot end in some text, seen at less cost than reading it: with a letter
   * that is not ASCII it always may, as that can fold to any.
   *
   * @param tail ASCII in small letters
   */
  boolean mayEndIn(int id, byte[] tail) {
    int from = start[id + 1] - tail.length;
    if (from < start[id]) return false;
    for (int i = tail.length - 1; i >= 0; i--) {
      byte b = text[from + i];
      if (b < 0) return true;
      if ((b >= 'A' && b <= 'Z' ? b + ('a' - 'A') : b) != tail[i]) return false;
    }
    return true;
  }

  public int size() {
    return size;
  }

  /** How much memory its arrays take. */
  public long bytes() {
    return text.length + 4L * start.length + 8L * slots.length;
  }

  private int folded(byte b) {
    return folds && b >= 'A' && b <= 'Z' ? b + ('a' - 'A') : b;
  }

  /** From 0 to 2^32-1. */
  long hashOfKey(byte[] key) {
    if (!folds) return mixed(key, 0, key.length);
    long h = ofAscii(key, 0, key.length);
    return h != NOT_ASCII ? h : mixed(key, 0, key.length);
  }

  /**
   * Of the folded letters, eight at a time; or that they cannot be folded so. From 0 to 2^32-1
   * else.
   */
  private static long ofAscii(byte[] bytes, int offset, int length) {
    long h = length, seen = 0;
    int i = offset, end = offset + length;
    for (; i + 8 <= end; i += 8) {
      long eight = (long) EIGHT.get(bytes, i);
      seen |= eight;
      h = mix(h, lower(eight));
    }
    long rest = 0;
    for (; i < end; i++) rest = rest << 8 | bytes[i] & 255;
    seen |= rest;
    return (seen & TOPS) != 0 ? NOT_ASCII : last(mix(h, lower(rest)));
  }

  private static long mixed(byte[] bytes, int offset, int length) {
    long h = length;
    int i = offset, end = offset + length;
    for (; i + 8 <= end; i += 8) h = mix(h, (long) EIGHT.get(bytes, i));
    long rest = 0;
    for (; i < end; i++) rest = rest << 8 | bytes[i] & 255;
    return last(mix(h, rest));
  }

  private static long mix(long h, long eight) {
    h = (h ^ eight) * 0x9e3779b97f4a7c15L;
    return h ^ h >>> 29;
  }

  private static long last(long h) {
    return (h ^ h >>> 32) & 0xffffffffL;
  }

  /** Eight ASCII letters in small: where one is A to Z the bit that makes it small is set. */
  private static long lower(long eight) {
    long letters = eight & ~TOPS;
    long fromA = letters + (0x80 - 'A') * ONES, pastZ = letters + (0x7f - 'Z') * ONES;
    return eight | ((fromA ^ pastZ) & TOPS) >>> 2;
  }

  /** The slot of a key, or the free one where it would go. */
  private int find(int hash, byte[] key, int offset, int length) {
    int at = hash & slots.length - 1;
    while (slots[at] != 0
        && ((int) (slots[at] >>> 32) != hash || !isKey((int) slots[at] - 1, key, offset, length)))
      at = at + 1 & slots.length - 1;
    return at;
  }

  private boolean isKey(int id, byte[] key, int offset, int length) {
    byte[] own = keys.isEmpty() ? null : keys.get(id);
    byte[] in = own == null ? text : own;
    int from = own == null ? start[id] : 0, end = own == null ? start[id + 1] : own.length;
    if (end - from != length) return false;
    // most are spelled alike
    if (Arrays.equals(in, from, end, key, offset, offset + length)) return true;
    if (!folds) return false;
    for (int i = 0; i < length; i++)
      if (folded(in[from + i]) != folded(key[offset + i])) return false;
    return true;
  }

  private void append(byte[] utf8, int offset, int length) {
    int from = start[size];
    if (text.length - from < length) text = Arrays.copyOf(text, larger(text.length, from + length));
    if (size + 2 > start.length) start = Arrays.copyOf(start, start.length * 2);
    System.arraycopy(utf8, offset, text, from, length);
    start[++size] = from + length;
  }

  private static int larger(int now, int needed) {
    if (needed < 0) throw new OutOfMemoryError("paths of more than two gigabytes");
    return (int) Math.min(Math.max(2L * now, needed), Integer.MAX_VALUE - 8);
  }

  private void rehash() {
    long[] before = slots;
    slots = new long[before.length * 2];
    for (long slot : before) {
      if (slot == 0) continue;
      int at = (int) (slot >>> 32) & slots.length - 1;
      while (slots[at] != 0) at = at + 1 & slots.length - 1;
      slots[at] = slot;
    }
  }
}
