package ironing.core.plugin;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;

/** Writes plugins in a well-formed encoding that our writer would not choose. */
final class Encodings {
  private Encodings() {}

  /** Records the other way round, lists and maps of indefinite length, heads longer than needed. */
  static byte[] loose(Plugin p) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.writeBytes(header(p));
    List<Plugin.Record> records = new ArrayList<>(p.inWritingOrder());
    Collections.reverse(records);
    for (Plugin.Record r : records) {
      out.write(0x9f);
      text(out, r.type());
      longHead(out, 0, owner(p, r.key().owner()));
      longHead(out, 0, r.key().id());
      r.fields().ifPresentOrElse(f -> value(out, p, f), () -> out.write(0xf6));
      out.write(0xff);
    }
    return out.toByteArray();
  }

  private static byte[] header(Plugin p) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.write(0xd9);
    out.write(0xd9);
    out.write(0xf7);
    out.write(0xbf);
    text(out, "nextId");
    longHead(out, 0, p.header().nextId());
    text(out, "masters");
    out.write(0x9f);
    p.header().masters().forEach(m -> text(out, m));
    out.write(0xff);
    text(out, "stage");
    longHead(out, 0, p.header().stage());
    text(out, "format");
    text(out, Plugin.FORMAT);
    out.write(0xff);
    return out.toByteArray();
  }

  private static int owner(Plugin p, String name) {
    int at = p.header().masters().indexOf(name);
    return at < 0 ? p.header().masters().size() : at;
  }

  private static void value(ByteArrayOutputStream out, Plugin p, Value v) {
    if (v instanceof Value.Array a) {
      out.write(0x9f);
      a.items().forEach(i -> value(out, p, i));
      out.write(0xff);
    } else if (v instanceof Value.Fields f) {
      out.write(0xbf);
      List<Map.Entry<String, Value>> entries = new ArrayList<>(f.map().entrySet());
      Collections.reverse(entries);
      for (Map.Entry<String, Value> e : entries) {
        text(out, e.getKey());
        value(out, p, e.getValue());
      }
      out.write(0xff);
    } else if (v instanceof Value.Text t) text(out, t.value());
    else if (v instanceof Value.Int i && i.value() >= 0) longHead(out, 0, i.value());
    else if (v instanceof Value.Ref r) {
      out.write(0xd8);
      out.write(39);
      longHead(out, 4, 2);
      longHead(out, 0, owner(p, r.owner()));
      longHead(out, 0, r.id());
    } else {
      // what is left is written as the writer does: floats, null
      CborWriter w = new CborWriter();
      w.item(v instanceof Value.Real r ? (Object) r.value() : null);
      out.writeBytes(w.bytes());
    }
  }

  private static void text(ByteArrayOutputStream out, String s) {
    byte[] utf8 = s.getBytes(StandardCharsets.UTF_8);
    longHead(out, 3, utf8.length);
    out.writeBytes(utf8);
  }

  private static void longHead(ByteArrayOutputStream out, int major, long n) {
    out.write(major << 5 | 26);
    for (int shift = 24; shift >= 0; shift -= 8) out.write((int) (n >> shift) & 0xff);
  }
}
