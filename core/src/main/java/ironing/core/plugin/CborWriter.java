package ironing.core.plugin;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Writes CBOR in the one deterministic encoding of RFC 8949, section 4.2.1: shortest heads,
 * definite lengths, keys in the order of their encoded bytes, floats in the shortest form that
 * keeps them.
 *
 * <p>Threads: one writer, one thread.
 */
final class CborWriter {
  private byte[] out = new byte[256];
  private int size;
  // the names of fields repeat from record to record
  private final Map<String, byte[]> keys = new HashMap<>();
  private final Order[] orders = new Order[16];

  byte[] bytes() {
    return Arrays.copyOf(out, size);
  }

  void tag(long tag) {
    head(6, tag);
  }

  void array(int count) {
    head(4, count);
  }

  void nothing() {
    put(0xf6);
  }

  void truth(boolean b) {
    put(b ? 0xf5 : 0xf4);
  }

  void integer(long l) {
    if (l >= 0) head(0, l);
    else head(1, -1 - l);
  }

  void binary(byte[] b) {
    head(2, b.length);
    put(b);
  }

  void text(String s) {
    byte[] utf8 = s.getBytes(StandardCharsets.UTF_8);
    head(3, utf8.length);
    put(utf8);
  }

  /** Writes the value of an entry of a map. */
  interface Entry<V> {
    void write(V value);
  }

  /** A map with text keys, in the order in which they are to be. */
  <V> void map(Map<String, V> map, Entry<V> entry) {
    head(5, map.size());
    String[] names = new String[map.size()];
    @SuppressWarnings("unchecked")
    V[] values = (V[]) new Object[names.length];
    int at = 0;
    for (Map.Entry<String, V> e : map.entrySet()) {
      names[at] = e.getKey();
      values[at++] = e.getValue();
    }
    Order order = order(names);
    for (int i : order.places()) {
      put(order.keys()[i]);
      entry.write(values[i]);
    }
  }

  /**
   * The order of some names, since most maps have those of a map before.
   *
   * @param keys the names as they are written, in the order in which they were given
   * @param places of the names, in the order in which they are written
   */
  private record Order(String[] names, byte[][] keys, int[] places) {}

  private Order order(String[] names) {
    int at = names.length % orders.length;
    Order known = orders[at];
    if (known != null && Arrays.equals(known.names(), names)) return known;
    byte[][] written = new byte[names.length][];
    for (int i = 0; i < names.length; i++)
      written[i] = keys.computeIfAbsent(names[i], CborWriter::key);
    int[] places =
        IntStream.range(0, names.length)
            .boxed()
            .sorted((a, b) -> Arrays.compareUnsigned(written[a], written[b]))
            .mapToInt(Integer::intValue)
            .toArray();
    orders[at] = new Order(names, written, places);
    return orders[at];
  }

  private static byte[] key(String name) {
    CborWriter w = new CborWriter();
    w.text(name);
    return w.bytes();
  }

  /**
   * null, Boolean, Long, Double, String, byte[], List, Map with text keys, or {@link
   * CborReader.Tagged}.
   */
  void item(Object o) {
    if (o == null) nothing();
    else if (o instanceof Boolean b) truth(b);
    else if (o instanceof Long l) integer(l);
    else if (o instanceof Double d) real(d);
    else if (o instanceof String s) text(s);
    else if (o instanceof byte[] b) binary(b);
    else if (o instanceof List<?> list) {
      array(list.size());
      for (Object i : list) item(i);
    } else if (o instanceof Map<?, ?> map) {
      @SuppressWarnings("unchecked")
      Map<String, Object> byName = (Map<String, Object>) map;
      map(byName, this::item);
    } else if (o instanceof CborReader.Tagged t) {
      tag(t.tag());
      item(t.item());
    } else throw new IllegalArgumentException("no CBOR for " + o.getClass());
  }

  void real(double d) {
    switch (widthOf(d)) {
      case 2 -> {
        put(0xf9);
        big(doubleToHalf(d), 2);
      }
      case 4 -> {
        put(0xfa);
        big(Float.floatToIntBits((float) d), 4);
      }
      default -> {
        put(0xfb);
        big(Double.doubleToLongBits(d), 8);
      }
    }
  }

  /** The bytes of the shortest float that keeps a finite value exactly: 2, 4 or 8. */
  static int widthOf(double d) {
    if ((double) (float) d != d) return 8;
    int half = doubleToHalf(d);
    return half >= 0 ? 2 : 4;
  }

  /** The half-precision bits of a value, or -1 when a half cannot hold it exactly. */
  private static int doubleToHalf(double d) {
    int sign = Double.doubleToRawLongBits(d) < 0 ? 0x8000 : 0;
    double abs = Math.abs(d);
    if (abs == 0) return sign;
    if (abs > 65504) return -1;
    int exp = Math.max(Math.getExponent(abs), -14);
    double mantissa = Math.scalb(abs, 10 - exp);
    if (mantissa != Math.rint(mantissa)) return -1;
    int m = (int) mantissa;
    return m < 1024 ? sign | m : sign | ((exp + 15) << 10) | (m - 1024);
  }

  private void head(int major, long arg) {
    int top = major << 5;
    if (arg >= 0 && arg < 24) {
      put(top | (int) arg);
    } else if (arg >= 0 && arg < 0x100) {
      put(top | 24);
      big(arg, 1);
    } else if (arg >= 0 && arg < 0x10000) {
      put(top | 25);
      big(arg, 2);
    } else if (arg >= 0 && arg < 0x100000000L) {
      put(top | 26);
      big(arg, 4);
    } else {
      put(top | 27);
      big(arg, 8);
    }
  }

  private void big(long v, int width) {
    for (int i = width - 1; i >= 0; i--) put((int) (v >> (8 * i)) & 0xff);
  }

  private void put(int octet) {
    if (size == out.length) out = Arrays.copyOf(out, size * 2);
    out[size++] = (byte) octet;
  }

  private void put(byte[] bytes) {
    if (out.length - size < bytes.length)
      out = Arrays.copyOf(out, Math.max(Math.addExact(size, bytes.length), size * 2));
    System.arraycopy(bytes, 0, out, size, bytes.length);
    size += bytes.length;
  }
}
