package ironing.core.plugin;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.dataformat.cbor.CBORFactory;
import com.fasterxml.jackson.dataformat.cbor.CBORGenerator;
import com.upokecenter.cbor.CBOREncodeOptions;
import com.upokecenter.cbor.CBORException;
import com.upokecenter.cbor.CBORObject;
import com.upokecenter.cbor.CBORType;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.statistics.Statistics;

/**
 * Our CBOR beside two libraries of the same standard, RFC 8949: Jackson's module and
 * com.upokecenter:cbor.
 */
class CborLibrariesTest {
  private static Object value(Random r, int depth) {
    switch (r.nextInt(depth > 0 ? 10 : 8)) {
      case 0:
        return null;
      case 1:
        return r.nextBoolean();
      case 2:
        return (long) r.nextInt(300) - 30;
      case 3:
        return r.nextLong() >> r.nextInt(64);
      case 4:
        return (double) Float.intBitsToFloat(r.nextInt() & 0xFF7FFFFF);
      case 5:
        return Double.longBitsToDouble(r.nextLong() & 0xFFEFFFFFFFFFFFFFL);
      case 6:
        return text(r);
      case 7:
        byte[] bytes = new byte[r.nextInt(40)];
        r.nextBytes(bytes);
        return bytes;
      case 8:
        List<Object> list = new ArrayList<>();
        for (int i = r.nextInt(30); i > 0; i--) list.add(value(r, depth - 1));
        return list;
      default:
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = r.nextInt(30); i > 0; i--) map.put(text(r), value(r, depth - 1));
        return map;
    }
  }

  private static String text(Random r) {
    StringBuilder text = new StringBuilder();
    for (int i = r.nextInt(r.nextInt(8) == 0 ? 300 : 12); i > 0; i--)
      text.appendCodePoint(
          r.nextInt(5) == 0
              ? 0x1F300 + r.nextInt(200)
              : r.nextInt(3) == 0 ? 0xC0 + r.nextInt(600) : 32 + r.nextInt(90));
    return text.toString();
  }

  /** So that lists and bytes compare by what is in them. */
  private static Object plain(Object o) {
    if (o instanceof byte[] b) return "bytes " + HexFormat.of().formatHex(b);
    if (o instanceof Float f) return Optional.of((double) f);
    if (o instanceof Integer i) return Optional.of((long) i);
    if (o instanceof List<?> l) return l.stream().map(CborLibrariesTest::plain).toList();
    if (!(o instanceof Map<?, ?> m)) return Optional.ofNullable(o);
    Map<Object, Object> map = new LinkedHashMap<>();
    m.forEach((k, v) -> map.put(k, plain(v)));
    return map;
  }

  private static Object read(byte[] bytes) {
    return new CborReader("x.plug", bytes).next();
  }

  private static byte[] written(Object value) {
    CborWriter out = new CborWriter();
    out.item(value);
    return out.bytes();
  }

  @Property(tries = 3000, seed = "8160")
  void what_we_write_others_read_the_same(@ForAll long seed) throws IOException {
    Object value = value(new Random(seed), 3);
    byte[] bytes = written(value);
    Object jackson = new ObjectMapper(new CBORFactory()).readValue(bytes, Object.class);
    assertThat(plain(jackson)).isEqualTo(plain(value));
    assertThat(plain(of(CBORObject.DecodeFromBytes(bytes)))).isEqualTo(plain(value));
  }

  @Property(tries = 3000, seed = "8160")
  void what_others_write_we_read_the_same(@ForAll long seed) throws IOException {
    Random r = new Random(seed);
    Object value = value(r, 3);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    CBORFactory factory = new CBORFactory();
    // heads that are longer than needed, lists and maps whose length is not told
    factory.configure(CBORGenerator.Feature.WRITE_MINIMAL_INTS, r.nextBoolean());
    factory.configure(CBORGenerator.Feature.WRITE_MINIMAL_DOUBLES, r.nextBoolean());
    try (CBORGenerator to = factory.createGenerator(out)) {
      write(to, value, r);
    }
    assertThat(plain(read(out.toByteArray()))).isEqualTo(plain(value));
  }

  private static void write(CBORGenerator to, Object value, Random r) throws IOException {
    if (value instanceof List<?> l) {
      if (r.nextBoolean()) to.writeStartArray(l, l.size());
      else to.writeStartArray();
      for (Object o : l) write(to, o, r);
      to.writeEndArray();
    } else if (value instanceof Map<?, ?> m) {
      if (r.nextBoolean()) to.writeStartObject(m, m.size());
      else to.writeStartObject();
      for (Map.Entry<?, ?> e : m.entrySet()) {
        to.writeFieldName((String) e.getKey());
        write(to, e.getValue(), r);
      }
      to.writeEndObject();
    } else if (value instanceof byte[] b) {
      to.writeBinary(b);
    } else {
      ((JsonGenerator) to).writePOJO(value);
    }
  }

  /**
   * RFC 8949, 4.2.1. The library writes floating-point numbers by CTAP 2, which leaves their width
   * to the writer; so there are none in these.
   */
  @Property(tries = 3000, seed = "8160")
  void the_one_encoding_is_what_another_writes_too(@ForAll long seed) {
    Object value = withoutReals(value(new Random(seed), 3));
    byte[] theirs = from(value).EncodeToBytes(CBOREncodeOptions.DefaultCtap2Canonical);
    assertThat(written(value)).isEqualTo(theirs);
    CborReader in = new CborReader("x.plug", theirs);
    in.next();
    assertThat(in.deterministic()).isTrue();
  }

  private static Object withoutReals(Object o) {
    if (o instanceof Double d) return (long) (d % 1000);
    if (o instanceof List<?> l) {
      List<Object> list = new ArrayList<>();
      l.forEach(i -> list.add(withoutReals(i)));
      return list;
    }
    if (!(o instanceof Map<?, ?> m)) return o;
    Map<String, Object> map = new LinkedHashMap<>();
    m.forEach((k, v) -> map.put((String) k, withoutReals(v)));
    return map;
  }

  private static CBORObject from(Object o) {
    if (o instanceof List<?> l) {
      CBORObject list = CBORObject.NewArray();
      l.forEach(i -> list.Add(from(i)));
      return list;
    }
    if (!(o instanceof Map<?, ?> m)) return o == null ? CBORObject.Null : CBORObject.FromObject(o);
    CBORObject map = CBORObject.NewMap();
    m.forEach((k, v) -> map.Add(CBORObject.FromObject(k), from(v)));
    return map;
  }

  /** Bytes that are damaged: what we take for well-formed is read by others as the same. */
  @Property(tries = 10_000, seed = "8160")
  void what_we_take_from_damaged_bytes_others_take_too(@ForAll long seed) {
    Random r = new Random(seed);
    byte[] bytes = written(value(r, 2));
    for (int i = r.nextInt(3); i >= 0; i--) bytes[r.nextInt(bytes.length)] = (byte) r.nextInt(256);
    CborReader in = new CborReader("x.plug", bytes);
    Object ours;
    try {
      ours = in.next();
      if (!in.atEnd() || hasTag(ours)) return;
    } catch (PluginException refused) {
      Statistics.label("taken").collect(false);
      return;
    }
    Statistics.label("taken").collect(true);
    try {
      assertThat(plain(of(CBORObject.DecodeFromBytes(bytes)))).isEqualTo(plain(ours));
    } catch (CBORException e) {
      throw new AssertionError("only we take " + HexFormat.of().formatHex(bytes), e);
    }
  }

  private static boolean hasTag(Object o) {
    if (o instanceof CborReader.Tagged) return true;
    if (o instanceof List<?> l) return l.stream().anyMatch(CborLibrariesTest::hasTag);
    return o instanceof Map<?, ?> m && m.values().stream().anyMatch(CborLibrariesTest::hasTag);
  }

  private static Object of(CBORObject o) {
    if (o.isNull()) return null;
    if (o.getType() == CBORType.Boolean) return o.AsBoolean();
    if (o.getType() == CBORType.TextString) return o.AsString();
    if (o.getType() == CBORType.ByteString) return o.GetByteString();
    if (o.getType() == CBORType.Integer) return o.AsInt64Value();
    if (o.getType() == CBORType.FloatingPoint) return o.AsDoubleValue();
    if (o.getType() == CBORType.Array) {
      List<Object> list = new ArrayList<>();
      o.getValues().forEach(v -> list.add(of(v)));
      return list;
    }
    Map<Object, Object> map = new LinkedHashMap<>();
    o.getEntries().forEach(e -> map.put(of(e.getKey()), of(e.getValue())));
    return map;
  }
}
