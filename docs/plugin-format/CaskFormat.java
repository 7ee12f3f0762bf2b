package cask;

import ironing.core.IroningException;
import ironing.core.plugin.FileFormat;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginException;
import ironing.core.plugin.Value;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The plugins of an invented game, whose files are called casks.
 *
 * <pre>
 * cask   = "CASK" title nextId(4) count(2) master… count(4) record…
 * record = type owner id(4) kind(1): 0 removed, 1 with fields: count(2) (name value)…
 * value  = kind(1): n nothing, b byte, i 8 bytes, d 8 bytes, t text, r owner id(4),
 *          a count(4) value…, f count(2) (name value)…
 * text, names = length(4), UTF-8; an owner is a master's name, or nothing for the file itself
 * </pre>
 *
 * Numbers are big-endian.
 */
public final class CaskFormat extends FileFormat {
  private static final byte[] MAGIC = {'C', 'A', 'S', 'K'};

  /** Deeper values are refused: a reader must end for whatever it is given. */
  private static final int DEEPEST = 32;

  @Override
  public String id() {
    return "cask-maker/cask@1";
  }

  @Override
  protected Plugin decode(String name, byte[] file) {
    return new Reader(name, file).plugin();
  }

  @Override
  protected byte[] encode(Plugin plugin) {
    Writer w = new Writer(plugin);
    w.out.writeBytes(MAGIC);
    w.text(plugin.header().title().orElse(""));
    w.number(plugin.header().nextId(), 4);
    w.number(plugin.header().masters().size(), 2);
    plugin.header().masters().forEach(w::text);
    w.number(plugin.records().size(), 4);
    for (Plugin.Record r : plugin.inWritingOrder()) {
      w.text(r.type());
      w.key(r.key());
      w.number(r.fields().isPresent() ? 1 : 0, 1);
      r.fields().ifPresent(w::fields);
    }
    return w.out.toByteArray();
  }

  private static final class Reader {
    private final String name;
    private final ByteBuffer in;

    Reader(String name, byte[] file) {
      this.name = name;
      this.in = ByteBuffer.wrap(file);
    }

    Plugin plugin() {
      for (byte b : MAGIC) if (number(1) != b) throw wrong("it does not begin with CASK");
      String title = text();
      int nextId = id(true);
      List<String> masters = new ArrayList<>();
      for (long n = number(2); n > 0; n--) masters.add(text());
      List<Plugin.Record> records = new ArrayList<>();
      Set<Value.Ref> seen = new HashSet<>();
      for (long n = number(4); n > 0; n--) {
        String type = text();
        if (!type.matches("[a-z0-9-]{1,32}")) throw wrong("“" + type + "” is no type of record");
        Value.Ref key = key(masters);
        if (!seen.add(key)) throw wrong("the record " + key + " stands twice");
        boolean whole = number(1) == 1;
        records.add(
            new Plugin.Record(
                type, key, whole ? Optional.of(fields(masters, 0)) : Optional.empty()));
      }
      if (in.hasRemaining()) throw wrong("something follows its last record");
      Header header =
          Header.of(Plugin.DEFAULT_STAGE, masters, nextId)
              .titled(title.isEmpty() ? Optional.empty() : Optional.of(title));
      return new Plugin(name, header, new Plugin(name, header, records).inWritingOrder());
    }

    private Value.Fields fields(List<String> masters, int depth) {
      Map<String, Value> map = new LinkedHashMap<>();
      for (long n = number(2); n > 0; n--) {
        String field = text();
        if (map.put(field, value(masters, depth)) != null)
          throw wrong("the field “" + field + "” stands twice");
      }
      return new Value.Fields(map);
    }

    private Value value(List<String> masters, int depth) {
      if (depth > DEEPEST) throw wrong("its values are too deep");
      char kind = (char) number(1);
      switch (kind) {
        case 'n':
          return Value.NULL;
        case 'b':
          return new Value.Truth(number(1) != 0);
        case 'i':
          return new Value.Int(number(8));
        case 'd':
          double d = Double.longBitsToDouble(number(8));
          if (Double.isNaN(d) || Double.isInfinite(d)) throw wrong("a number is not finite");
          return new Value.Real(d);
        case 't':
          return new Value.Text(text());
        case 'r':
          return key(masters);
        case 'f':
          return fields(masters, depth + 1);
        case 'a':
          List<Value> items = new ArrayList<>();
          for (long n = number(4); n > 0; n--) items.add(value(masters, depth + 1));
          return new Value.Array(items);
        default:
          throw wrong("there is no kind of value “" + (int) kind + "”");
      }
    }

    private Value.Ref key(List<String> masters) {
      String owner = text();
      if (!owner.isEmpty() && !masters.contains(owner)) throw wrong(owner + " is no master");
      return new Value.Ref(owner.isEmpty() ? name : owner, id(false));
    }

    private int id(boolean next) {
      long id = number(4);
      if (id < 1 || id > Plugin.MAX_ID + (next ? 1 : 0)) throw wrong(id + " is no id of a record");
      return (int) id;
    }

    private long number(int bytes) {
      if (in.remaining() < bytes) throw wrong("it ends too early");
      long n = 0;
      for (int i = 0; i < bytes; i++) n = n << 8 | in.get() & 0xff;
      return n;
    }

    private String text() {
      long length = number(4);
      // a length is not believed before so much is there
      if (length > in.remaining()) throw wrong("it ends too early");
      ByteBuffer part = in.slice(in.position(), (int) length);
      in.position(in.position() + (int) length);
      try {
        return StandardCharsets.UTF_8.newDecoder().decode(part).toString();
      } catch (CharacterCodingException e) {
        throw wrong("a text is no UTF-8");
      }
    }

    private PluginException wrong(String why) {
      return PluginException.at(name, in.position(), why);
    }
  }

  private static final class Writer {
    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final Plugin plugin;

    Writer(Plugin plugin) {
      this.plugin = plugin;
    }

    void number(long n, int bytes) {
      for (int i = bytes - 1; i >= 0; i--) out.write((int) (n >>> 8 * i));
    }

    void text(String text) {
      byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
      number(utf8.length, 4);
      out.writeBytes(utf8);
    }

    void key(Value.Ref key) {
      boolean own = key.owner().equalsIgnoreCase(plugin.name());
      text(own ? "" : master(key));
      number(key.id(), 4);
    }

    // names compare without case; the file has them as its header lists them
    private String master(Value.Ref key) {
      return plugin.header().masters().stream()
          .filter(m -> m.equalsIgnoreCase(key.owner()))
          .findFirst()
          .orElseThrow(() -> unwritable(key + " belongs to no master"));
    }

    void fields(Value.Fields fields) {
      number(fields.map().size(), 2);
      fields
          .map()
          .forEach(
              (name, value) -> {
                text(name);
                value(value);
              });
    }

    private void value(Value v) {
      if (v instanceof Value.Null) out.write('n');
      else if (v instanceof Value.Truth t) {
        out.write('b');
        number(t.value() ? 1 : 0, 1);
      } else if (v instanceof Value.Int i) {
        out.write('i');
        number(i.value(), 8);
      } else if (v instanceof Value.Real r) {
        out.write('d');
        number(Double.doubleToRawLongBits(r.value()), 8);
      } else if (v instanceof Value.Text t) {
        out.write('t');
        text(t.value());
      } else if (v instanceof Value.Ref r) {
        out.write('r');
        key(r);
      } else if (v instanceof Value.Array a) {
        out.write('a');
        number(a.items().size(), 4);
        a.items().forEach(this::value);
      } else if (v instanceof Value.Fields f) {
        out.write('f');
        fields(f);
      } else throw unwritable("bytes are nothing that a cask can hold");
    }

    private IroningException unwritable(String why) {
      return IroningException.of(
          "patch-unwritable",
          plugin.name(),
          "A cask cannot hold this: " + why + ".",
          "Leave the record out of the patch.");
    }
  }
}
