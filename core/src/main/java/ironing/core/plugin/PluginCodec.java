package ironing.core.plugin;

import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Plugin.Record;
import ironing.core.plugin.Value.Ref;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Plugins to and from their CBOR form, as docs/formats/plugin.md has it.
 *
 * <p>Invariant: what {@link #encode} writes, {@link #decode} reads back equal, and encoding it
 * again gives the same bytes. Threads: stateless. Source: RFC 8949 and RFC 8742.
 */
public final class PluginCodec {
  private static final long SELF_DESCRIBED = 55799;
  private static final long REFERENCE = 39;
  private static final long MAX_FILE_BYTES = 1L << 30;

  private PluginCodec() {}

  /** A plugin and what in its file was odd but readable. */
  public record Decoded(Plugin plugin, List<String> warnings) {}

  /**
   * @param name the file's name: the owner of its own records
   * @throws PluginException with the offset of the first thing that is wrong
   */
  public static Decoded decode(String name, byte[] bytes) {
    return new Decoding(name, bytes, true).run();
  }

  /** Reads only the header: enough for the load order, at the cost of a few hundred bytes. */
  public static Header decodeHeader(String name, byte[] bytes) {
    return new Decoding(name, bytes, false).run().plugin().header();
  }

  /**
   * A header, and where it ends.
   *
   * @param deterministic whether it is in the one encoding that the writer would choose
   */
  record HeaderRead(Header header, int end, boolean deterministic) {}

  static HeaderRead readHeader(String name, byte[] bytes, int end) {
    Decoding d = new Decoding(name, bytes, end, false);
    Header header = d.run().plugin().header();
    return new HeaderRead(header, d.in.offset(), d.in.deterministic());
  }

  /** One record out of a file whose header is known. */
  static Record readRecord(String name, Header header, byte[] item) {
    Decoding d = new Decoding(name, item, true);
    d.owners = d.owners(header);
    return d.record(d.in.next());
  }

  /** What is odd about {@code nextId}; empty when nothing is. */
  static Optional<String> nextIdWarning(Header header, int highest) {
    if (highest < header.nextId()) return Optional.empty();
    return Optional.of(
        "nextId is "
            + header.nextId()
            + ", not above its highest own id "
            + highest
            + "; the highest counts.");
  }

  /**
   * @throws PluginException when a record refers to a plugin that is not among the masters
   */
  public static byte[] encode(Plugin plugin) {
    CborWriter w = new CborWriter();
    w.tag(SELF_DESCRIBED);
    w.item(headerMap(plugin.header()));
    write(w, plugin, plugin.inWritingOrder());
    return w.bytes();
  }

  /**
   * A stretch of a plugin's records, in the order in which they are given.
   *
   * @param plugin its name and header; its records do not count
   * @throws PluginException when a record refers to a plugin that is not among the masters
   */
  public static byte[] encodeRecords(Plugin plugin, List<Record> records) {
    CborWriter w = new CborWriter();
    write(w, plugin, records);
    return w.bytes();
  }

  private static void write(CborWriter w, Plugin plugin, List<Record> records) {
    Plugin.OwnerIndex owners = new Plugin.OwnerIndex(plugin);
    for (Record r : records) {
      w.array(4);
      w.text(r.type());
      w.integer(owners.of(r.key()));
      w.integer(r.key().id());
      if (r.fields().isPresent()) write(w, r.fields().get(), owners);
      else w.nothing();
    }
  }

  private static void write(CborWriter w, Value v, Plugin.OwnerIndex owners) {
    if (v instanceof Value.Text t) w.text(t.value());
    else if (v instanceof Value.Int i) w.integer(i.value());
    else if (v instanceof Value.Real r) w.real(r.value());
    else if (v instanceof Ref r) {
      w.tag(REFERENCE);
      w.array(2);
      w.integer(owners.of(r));
      w.integer(r.id());
    } else if (v instanceof Value.Array a) {
      w.array(a.items().size());
      for (Value i : a.items()) write(w, i, owners);
    } else if (v instanceof Value.Fields f) w.map(f.map(), i -> write(w, i, owners));
    else if (v instanceof Value.Truth t) w.truth(t.value());
    else if (v instanceof Value.Bytes b) w.binary(b.value());
    else w.nothing();
  }

  private static Map<String, Object> headerMap(Header h) {
    Map<String, Object> map = new LinkedHashMap<>();
    map.put("format", Plugin.FORMAT);
    map.put("stage", (long) h.stage());
    map.put("masters", new ArrayList<Object>(h.masters()));
    map.put("nextId", (long) h.nextId());
    h.title().ifPresent(v -> map.put("title", v));
    h.author().ifPresent(v -> map.put("author", v));
    h.version().ifPresent(v -> map.put("version", v));
    h.about().ifPresent(v -> map.put("about", v));
    h.game().ifPresent(v -> map.put("game", v));
    if (!h.packs().isEmpty()) map.put("packs", new ArrayList<Object>(h.packs()));
    h.other().forEach((k, v) -> map.put(k, plain(v)));
    return map;
  }

  // what a header holds beside the known: it refers to nothing
  private static Object plain(Value v) {
    if (v instanceof Value.Truth t) return t.value();
    if (v instanceof Value.Int i) return i.value();
    if (v instanceof Value.Real r) return r.value();
    if (v instanceof Value.Text t) return t.value();
    if (v instanceof Value.Bytes b) return b.value();
    if (v instanceof Value.Array a) {
      List<Object> items = new ArrayList<>();
      for (Value i : a.items()) items.add(plain(i));
      return items;
    }
    if (v instanceof Value.Fields f) {
      Map<String, Object> map = new LinkedHashMap<>();
      f.map().forEach((k, i) -> map.put(k, plain(i)));
      return map;
    }
    if (v instanceof Value.Null) return null;
    throw new IllegalArgumentException("a header holds no " + v);
  }

  /** One file being decoded; the offset of the item at hand goes into every error. */
  private static final class Decoding {
    private final String name;
    private final CborReader in;
    private final boolean withRecords;
    private final List<String> warnings = new ArrayList<>();
    private List<String> owners;
    private long offset;

    Decoding(String name, byte[] bytes, boolean withRecords) {
      this(name, bytes, bytes.length, withRecords);
    }

    Decoding(String name, byte[] bytes, int end, boolean withRecords) {
      this.name = name;
      this.withRecords = withRecords;
      this.in = new CborReader(name, bytes, end);
      if (end > MAX_FILE_BYTES) throw PluginException.of(name, "it is over 1 GiB");
      if (end == 0) throw PluginException.of(name, "it is empty");
    }

    Decoded run() {
      Object first = in.next();
      if (!(first instanceof CborReader.Tagged t)
          || t.tag() != SELF_DESCRIBED
          || !(t.item() instanceof Map<?, ?> map)) {
        throw bad("it does not begin with a plugin's header");
      }
      Header header = header(map);
      owners = owners(header);
      List<Record> records = new ArrayList<>();
      Set<Ref> seen = new HashSet<>();
      int highest = 0;
      while (withRecords && !in.atEnd()) {
        offset = in.offset();
        Record r = record(in.next());
        if (!seen.add(r.key())) throw bad("the record " + r.key() + " stands in it twice");
        if (r.key().owner().equals(name)) highest = Math.max(highest, r.key().id());
        records.add(r);
      }
      if (withRecords) nextIdWarning(header, highest).ifPresent(warnings::add);
      if (!in.deterministic())
        warnings.add(
            "It is not in the deterministic encoding; its bytes will change when it is written again.");
      return new Decoded(new Plugin(name, header, records), List.copyOf(warnings));
    }

    private List<String> owners(Header header) {
      List<String> all = new ArrayList<>(header.masters());
      all.add(name);
      return all;
    }

    private Header header(Map<?, ?> map) {
      Map<String, Object> rest = new LinkedHashMap<>();
      map.forEach((k, v) -> rest.put((String) k, v));
      String format = take(rest, "format", String.class).orElse("");
      if (!format.equals(Plugin.FORMAT))
        throw bad("its format is “" + format + "”, not " + Plugin.FORMAT);
      for (String needed : List.of("stage", "masters", "nextId"))
        if (!rest.containsKey(needed)) throw bad("its header has no “" + needed + "”");
      long stage = take(rest, "stage", Long.class).orElseThrow();
      if (stage < 0 || stage > 9) throw bad("its stage is " + stage + ", not 0 to 9");
      long nextId = take(rest, "nextId", Long.class).orElseThrow();
      if (nextId < 1 || nextId > Plugin.MAX_ID + 1L) throw bad("its nextId is " + nextId);
      List<String> masters = texts(rest, "masters");
      Set<String> folded = new HashSet<>(Set.of(PathCase.fold(name)));
      for (String m : masters) {
        if (m.isEmpty() || m.contains("/") || m.contains("\\"))
          throw bad("the master “" + m + "” is no bare file name");
        if (!folded.add(PathCase.fold(m)))
          throw bad("it lists " + m + " as a master twice, or itself");
      }
      Optional<String> title = take(rest, "title", String.class),
          author = take(rest, "author", String.class);
      Optional<String> version = take(rest, "version", String.class),
          about = take(rest, "about", String.class);
      Optional<String> game = take(rest, "game", String.class);
      List<String> packs = texts(rest, "packs");
      owners = List.of();
      Map<String, Value> other = new LinkedHashMap<>();
      rest.forEach((k, v) -> other.put(k, value(v)));
      return new Header(
          (int) stage, masters, (int) nextId, title, author, version, about, game, packs, other);
    }

    private <T> Optional<T> take(Map<String, Object> rest, String key, Class<T> kind) {
      if (!rest.containsKey(key)) return Optional.empty();
      Object v = rest.remove(key);
      if (!kind.isInstance(v)) throw bad("the header's “" + key + "” is of a wrong kind");
      return Optional.of(kind.cast(v));
    }

    private List<String> texts(Map<String, Object> rest, String key) {
      List<String> out = new ArrayList<>();
      for (Object o : take(rest, key, List.class).orElse(List.of())) {
        if (!(o instanceof String s))
          throw bad("the header's “" + key + "” holds something else than texts");
        out.add(s);
      }
      return out;
    }

    private Record record(Object o) {
      if (!(o instanceof List<?> item) || item.size() != 4)
        throw bad("a record is not a list of four");
      if (!(item.get(0) instanceof String type) || !type.matches("[a-z0-9-]{1,32}"))
        throw bad("a record's type is no word");
      Ref key = ref(item.get(1), item.get(2));
      Object fields = item.get(3);
      if (fields != null && !(fields instanceof Map))
        throw bad("the fields of " + key + " are no map");
      return new Record(
          type, key, fields == null ? Optional.empty() : Optional.of((Value.Fields) value(fields)));
    }

    private Ref ref(Object owner, Object id) {
      if (!(owner instanceof Long o) || o < 0 || o >= owners.size())
        throw bad("an owner is no master of it");
      if (!(id instanceof Long i) || i < 1 || i > Plugin.MAX_ID)
        throw bad("an id is not within 1 to " + Plugin.MAX_ID);
      return new Ref(owners.get(o.intValue()), i.intValue());
    }

    private Value value(Object o) {
      if (o == null) return Value.NULL;
      if (o instanceof Boolean b) return new Value.Truth(b);
      if (o instanceof Long l) return new Value.Int(l);
      if (o instanceof Double d) return new Value.Real(d);
      if (o instanceof String s) return new Value.Text(s);
      if (o instanceof byte[] b) return new Value.Bytes(b);
      if (o instanceof List<?> list)
        return new Value.Array(list.stream().map(this::value).toList());
      if (o instanceof CborReader.Tagged t) {
        if (t.tag() != REFERENCE || !(t.item() instanceof List<?> pair) || pair.size() != 2)
          throw bad("the tag " + t.tag() + " means nothing here");
        return ref(pair.get(0), pair.get(1));
      }
      Map<String, Value> map = new LinkedHashMap<>();
      ((Map<?, ?>) o).forEach((k, v) -> map.put((String) k, value(v)));
      return new Value.Fields(map);
    }

    private PluginException bad(String reason) {
      return PluginException.at(name, offset, reason);
    }
  }
}
