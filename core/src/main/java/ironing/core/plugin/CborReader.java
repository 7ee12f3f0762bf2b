package ironing.core.plugin;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Reads CBOR items (RFC 8949) of the kinds that a plugin may hold, from any well-formed encoding:
 * longer heads than needed and indefinite lengths included.
 *
 * <p>A hand-written reader rather than a general one because the format owes the user an offset for
 * every error, a warning for every encoding that is not deterministic (section 4.2.1), and limits
 * on depth that hold before memory is taken.
 *
 * <p>Threads: one reader, one thread. Cost: linear in the bytes.
 */
final class CborReader {
  static final int MAX_DEPTH = 256;
  static final int MAX_TEXT_BYTES = 16 * 1024 * 1024;

  /** A tag and what it stands around; only {@link PluginCodec} knows which tags mean something. */
  record Tagged(long tag, Object item, long offset) {}

  private final String name;
  private final byte[] bytes;
  private final int end;
  private int at;
  private boolean deterministic = true;

  CborReader(String name, byte[] bytes) {
    this(name, bytes, bytes.length);
  }

  /**
   * @param end how many of the bytes count
   */
  CborReader(String name, byte[] bytes, int end) {
    this.name = name;
    this.bytes = bytes;
    this.end = end;
  }

  boolean atEnd() {
    return at >= end;
  }

  int offset() {
    return at;
  }

  /** Whether everything read so far was in the one encoding that the writer would choose. */
  boolean deterministic() {
    return deterministic;
  }

  /**
   * The next item: null, Boolean, Long, Double, String, byte[], List, Map or {@link Tagged}.
   *
   * @throws PluginException with the offset, for what is not well-formed or not of these kinds
   */
  Object next() {
    return item(0);
  }

  private Object item(int depth) {
    if (depth > MAX_DEPTH) throw bad(at, "it nests deeper than " + MAX_DEPTH);
    int start = at;
    int head = octet();
    int major = head >> 5, info = head & 31;
    if (major == 7) return simple(info, start);
    if (info == 31) return indefinite(major, start, depth);
    long arg = argument(info, start);
    return switch (major) {
      case 0 -> integer(arg, start, false);
      case 1 -> integer(arg, start, true);
      case 2 -> slice(arg, start);
      case 3 -> text(slice(arg, start), start);
      case 4 -> array(arg, start, depth);
      case 5 -> map(arg, start, depth);
      default -> new Tagged(arg, item(depth + 1), start);
    };
  }

  private Long integer(long arg, int start, boolean negative) {
    if (arg < 0) throw bad(start, "an integer is beyond 64 bits");
    return negative ? -1 - arg : arg;
  }

  private Object simple(int info, int start) {
    switch (info) {
      case 20:
        return false;
      case 21:
        return true;
      case 22:
        return null;
      case 25:
        return real(halfToDouble(bits(2)), 2, start);
      case 26:
        return real(Float.intBitsToFloat((int) bits(4)), 4, start);
      case 27:
        return real(Double.longBitsToDouble(bits(8)), 8, start);
      case 31:
        throw bad(start, "a break stands where a value should");
      default:
        throw bad(start, "the simple value " + info + " means nothing here");
    }
  }

  private Double real(double d, int width, int start) {
    if (Double.isNaN(d) || Double.isInfinite(d)) throw bad(start, "a number is not finite");
    if (CborWriter.widthOf(d) != width) deterministic = false;
    return d;
  }

  private Object indefinite(int major, int start, int depth) {
    deterministic = false;
    switch (major) {
      case 2:
        return chunks(2, start);
      case 3:
        return text(chunks(3, start), start);
      case 4:
        {
          List<Object> items = new ArrayList<>();
          while (!atBreak()) items.add(item(depth + 1));
          return items;
        }
      case 5:
        {
          Map<String, Object> map = new LinkedHashMap<>();
          while (!atBreak()) entry(map, depth);
          return map;
        }
      default:
        throw bad(start, "an indefinite length stands where none may");
    }
  }

  private byte[] chunks(int major, int start) {
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    while (!atBreak()) {
      int chunkStart = at, head = octet();
      if (head >> 5 != major || (head & 31) == 31)
        throw bad(chunkStart, "a piece of a string is of another kind");
      byte[] piece = slice(argument(head & 31, chunkStart), chunkStart);
      // each piece of a text must itself be valid UTF-8 (RFC 8949, section 3.2.3)
      if (major == 3) text(piece, chunkStart);
      if (all.size() + piece.length > MAX_TEXT_BYTES && major == 3)
        throw bad(start, "a text is over 16 MiB");
      all.writeBytes(piece);
    }
    return all.toByteArray();
  }

  private boolean atBreak() {
    if (atEnd()) throw bad(at, "it ends in the middle of a value");
    if ((bytes[at] & 0xff) != 0xff) return false;
    at++;
    return true;
  }

  private List<Object> array(long count, int start, int depth) {
    // every item takes at least a byte: a count beyond the rest of the file is a lie, not a request
    // for memory
    if (count < 0 || count > end - at) throw bad(start, "it ends in the middle of a list");
    // nor is it believed below that: lists in lists would each ask for the rest of the file
    List<Object> items = new ArrayList<>((int) Math.min(count, 16));
    for (long i = 0; i < count; i++) items.add(item(depth + 1));
    return items;
  }

  private Map<String, Object> map(long count, int start, int depth) {
    if (count < 0 || count > (end - at) / 2) throw bad(start, "it ends in the middle of a map");
    Map<String, Object> map = new LinkedHashMap<>();
    int previous = -1, previousEnd = -1;
    for (long i = 0; i < count; i++) {
      int key = at;
      int keyEnd = entry(map, depth);
      boolean ascends =
          previous < 0
              || Arrays.compareUnsigned(bytes, previous, previousEnd, bytes, key, keyEnd) < 0;
      if (!ascends) deterministic = false;
      previous = key;
      previousEnd = keyEnd;
    }
    return map;
  }

  /** Gives where the key ends. */
  private int entry(Map<String, Object> map, int depth) {
    int start = at;
    Object key = item(depth + 1);
    if (!(key instanceof String text)) throw bad(start, "a key of a map is no text");
    int keyEnd = at;
    if (map.containsKey(text)) throw bad(start, "the key “" + text + "” stands twice in a map");
    map.put(text, item(depth + 1));
    return keyEnd;
  }

  private String text(byte[] utf8, int start) {
    if (utf8.length > MAX_TEXT_BYTES) throw bad(start, "a text is over 16 MiB");
    if (Prints.ascii(utf8, 0, utf8.length)) return new String(utf8, StandardCharsets.US_ASCII);
    try {
      return StandardCharsets.UTF_8
          .newDecoder()
          .onMalformedInput(CodingErrorAction.REPORT)
          .onUnmappableCharacter(CodingErrorAction.REPORT)
          .decode(ByteBuffer.wrap(utf8))
          .toString();
    } catch (CharacterCodingException e) {
      throw bad(start, "a text is not UTF-8");
    }
  }

  private byte[] slice(long length, int start) {
    if (length < 0 || length > end - at) throw bad(start, "it ends in the middle of a string");
    at += (int) length;
    return Arrays.copyOfRange(bytes, at - (int) length, at);
  }

  private long argument(int info, int start) {
    if (info < 24) return info;
    long value;
    switch (info) {
      case 24:
        value = bits(1);
        if (value < 24) deterministic = false;
        return value;
      case 25:
        value = bits(2);
        if (value < 0x100) deterministic = false;
        return value;
      case 26:
        value = bits(4);
        if (value < 0x10000) deterministic = false;
        return value;
      case 27:
        value = bits(8);
        if (value >= 0 && value < 0x100000000L) deterministic = false;
        return value;
      default:
        throw bad(start, "a head is not well-formed");
    }
  }

  private long bits(int width) {
    if (end - at < width) throw bad(at, "it ends in the middle of a value");
    long v = 0;
    for (int i = 0; i < width; i++) v = (v << 8) | (bytes[at++] & 0xff);
    return v;
  }

  private int octet() {
    if (atEnd()) throw bad(at, "it ends in the middle of a value");
    return bytes[at++] & 0xff;
  }

  /** RFC 8949, appendix D: a half-precision number as a double. */
  static double halfToDouble(long half) {
    int exp = (int) (half >> 10) & 0x1f, mant = (int) half & 0x3ff;
    double v;
    if (exp == 0) v = Math.scalb((double) mant, -24);
    else if (exp != 31) v = Math.scalb((double) (mant + 1024), exp - 25);
    else v = mant == 0 ? Double.POSITIVE_INFINITY : Double.NaN;
    return (half & 0x8000) != 0 ? -v : v;
  }

  private PluginException bad(int offset, String reason) {
    return PluginException.at(name, offset, reason);
  }
}
