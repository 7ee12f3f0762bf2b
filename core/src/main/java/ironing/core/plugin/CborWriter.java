package ironing.core.plugin;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Writes CBOR in the one deterministic encoding of RFC 8949, section 4.2.1: shortest heads,
 * definite lengths, keys in the order of their encoded bytes, floats in the shortest form that
 * keeps them.
 */
final class CborWriter {
  private final ByteArrayOutputStream out = new ByteArrayOutputStream();

  byte[] bytes() {
    return out.toByteArray();
  }

  void tag(long tag) {
    head(6, tag);
  }

  void array(int count) {
    head(4, count);
  }

  /**
   * null, Boolean, Long, Double, String, byte[], List, Map with text keys, or {@link
   * CborReader.Tagged}.
   */
  void item(Object o) {
    if (o == null) out.write(0xf6);
    else if (o instanceof Boolean b) out.write(b ? 0xf5 : 0xf4);
    else if (o instanceof Long l) integer(l);
    else if (o instanceof Double d) real(d);
    else if (o instanceof String s) text(s);
    else if (o instanceof byte[] b) {
      head(2, b.length);
      out.writeBytes(b);
    } else if (o instanceof List<?> list) {
      head(4, list.size());
      for (Object i : list) item(i);
    } else if (o instanceof Map<?, ?> map) map(map);
    else if (o instanceof CborReader.Tagged t) {
      tag(t.tag());
      item(t.item());
    } else throw new IllegalArgumentException("no CBOR for " + o.getClass());
  }

  private void integer(long l) {
    if (l >= 0) head(0, l);
    else head(1, -1 - l);
  }

  private void text(String s) {
    byte[] utf8 = s.getBytes(StandardCharsets.UTF_8);
    head(3, utf8.length);
    out.writeBytes(utf8);
  }

  private void map(Map<?, ?> map) {
    head(5, map.size());
    TreeMap<byte[], Object> byKey = new TreeMap<>(Arrays::compareUnsigned);
    for (Map.Entry<?, ?> e : map.entrySet()) {
      CborWriter key = new CborWriter();
      key.text((String) e.getKey());
      byKey.put(key.bytes(), e.getValue());
    }
    byKey.forEach(
        (key, value) -> {
          out.writeBytes(key);
          item(value);
        });
  }

  private void real(double d) {
    switch (widthOf(d)) {
      case 2 -> {
        out.write(0xf9);
        big(doubleToHalf(d), 2);
      }
      case 4 -> {
        out.write(0xfa);
        big(Float.floatToIntBits((float) d), 4);
      }
      default -> {
        out.write(0xfb);
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
      out.write(top | (int) arg);
    } else if (arg >= 0 && arg < 0x100) {
      out.write(top | 24);
      big(arg, 1);
    } else if (arg >= 0 && arg < 0x10000) {
      out.write(top | 25);
      big(arg, 2);
    } else if (arg >= 0 && arg < 0x100000000L) {
      out.write(top | 26);
      big(arg, 4);
    } else {
      out.write(top | 27);
      big(arg, 8);
    }
  }

  private void big(long v, int width) {
    for (int i = width - 1; i >= 0; i--) out.write((int) (v >> (8 * i)) & 0xff);
  }
}
