package ironing.standins.game;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A plugin as the game's own loader reads it: a CBOR sequence, header first. Written from the
 * format's page alone, and deliberately plain: one pass, no second look.
 */
final class PluginFile {
  /** A reference to a record, by the owner's name. */
  record Ref(String owner, long id) {
    String key() {
      return DataFiles.key(owner) + "/" + id;
    }
  }

  record Item(String type, Ref key, Map<String, Object> fields) {}

  final String name;
  final Map<String, Object> header;
  final List<String> masters = new ArrayList<>();
  final List<Item> records = new ArrayList<>();
  private final byte[] bytes;
  private int at;

  @SuppressWarnings("unchecked")
  PluginFile(String name, byte[] bytes) {
    this.name = name;
    this.bytes = bytes;
    try {
      header = (Map<String, Object>) value();
      for (Object m : (List<Object>) header.getOrDefault("masters", List.of()))
        masters.add((String) m);
      while (at < bytes.length) {
        List<Object> r = (List<Object>) value();
        records.add(
            new Item(
                (String) r.get(0),
                ref(r.get(1), r.get(2)),
                (Map<String, Object>) resolve(r.get(3))));
      }
    } catch (RuntimeException broken) {
      throw new GameFault(
          "plugin-broken",
          "The plugin " + name + " does not decode near byte " + at + ".",
          "data/" + name,
          name,
          null);
    }
  }

  /** The crates that a plugin names; none when it does not decode. */
  static List<String> packsOf(String name, byte[] bytes) {
    try {
      return new PluginFile(name, bytes).packs();
    } catch (GameFault broken) {
      return List.of();
    }
  }

  byte[] bytes() {
    return bytes;
  }

  List<String> packs() {
    List<String> out = new ArrayList<>();
    for (Object p : (List<?>) header.getOrDefault("packs", List.of())) out.add((String) p);
    return out;
  }

  long stage() {
    return (Long) header.getOrDefault("stage", 5L);
  }

  private Ref ref(Object owner, Object id) {
    int o = ((Long) owner).intValue();
    return new Ref(o == masters.size() ? name : masters.get(o), (Long) id);
  }

  private record Tag(List<?> pair) {}

  private Object resolve(Object v) {
    if (v instanceof Tag t) return ref(t.pair().get(0), t.pair().get(1));
    if (v instanceof List<?> list) {
      List<Object> out = new ArrayList<>();
      list.forEach(i -> out.add(resolve(i)));
      return out;
    }
    if (v instanceof Map<?, ?> map) {
      Map<String, Object> out = new LinkedHashMap<>();
      map.forEach((k, i) -> out.put((String) k, resolve(i)));
      return out;
    }
    return v;
  }

  private static final Object BREAK = new Object();

  private Object value() {
    int head = bytes[at++] & 0xff, major = head >> 5, info = head & 31;
    if (major == 7) {
      return switch (info) {
        case 20 -> false;
        case 21 -> true;
        case 22 -> null;
        case 25 -> half((int) number(2));
        case 26 -> (double) Float.intBitsToFloat((int) number(4));
        case 27 -> Double.longBitsToDouble(number(8));
        case 31 -> BREAK;
        default -> throw new IllegalStateException("simple " + info);
      };
    }
    boolean open = info == 31;
    long n = open ? -1 : info < 24 ? info : number(1 << (info - 24));
    switch (major) {
      case 0:
        return n;
      case 1:
        return -1 - n;
      case 2:
      case 3:
        {
          byte[] raw = open ? pieces() : slice((int) n);
          return major == 2 ? raw : new String(raw, StandardCharsets.UTF_8);
        }
      case 4:
        {
          List<Object> list = new ArrayList<>();
          for (long i = 0; open || i < n; i++) {
            Object v = value();
            if (v == BREAK) break;
            list.add(v);
          }
          return list;
        }
      case 5:
        {
          Map<String, Object> map = new LinkedHashMap<>();
          for (long i = 0; open || i < n; i++) {
            Object k = value();
            if (k == BREAK) break;
            map.put((String) k, value());
          }
          return map;
        }
      default:
        {
          Object inner = value();
          return n == 39 ? new Tag((List<?>) inner) : inner;
        }
    }
  }

  private byte[] pieces() {
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    for (Object v = value(); v != BREAK; v = value())
      all.writeBytes(v instanceof byte[] b ? b : ((String) v).getBytes(StandardCharsets.UTF_8));
    return all.toByteArray();
  }

  private byte[] slice(int n) {
    byte[] out = Arrays.copyOfRange(bytes, at, at + n);
    if (at + n > bytes.length) throw new IllegalStateException("cut short");
    at += n;
    return out;
  }

  private long number(int width) {
    long v = 0;
    for (int i = 0; i < width; i++) v = v << 8 | bytes[at++] & 0xff;
    return v;
  }

  private static double half(int h) {
    int e = h >> 10 & 31, m = h & 1023;
    double v = e == 0 ? m * Math.pow(2, -24) : (1024 + m) * Math.pow(2, e - 25);
    return (h & 0x8000) == 0 ? v : -v;
  }
}
