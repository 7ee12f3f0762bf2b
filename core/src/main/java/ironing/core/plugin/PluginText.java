package ironing.core.plugin;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.DoubleNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Plugin.Record;
import ironing.core.plugin.Value.Ref;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The text form of a plugin, {@code *.plug.jsonl}: a header line, then a record a line.
 *
 * <p>Invariant: a file that {@link PluginCodec#encode} wrote comes back from its text byte for
 * byte.
 */
public final class PluginText {
  private static final ObjectMapper JSON =
      JsonMapper.builder()
          .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
          .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
          .disable(JsonParser.Feature.AUTO_CLOSE_SOURCE)
          .build();
  private static final String ITSELF = "a map with that one key is written {\"map\":{\"%s\":…}}";
  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private PluginText() {}

  /**
   * @param name the plugin's file name, without {@code .jsonl}
   * @throws PluginException with the line of the first thing that is wrong
   */
  public static Plugin parse(String name, String text) {
    String[] lines = (text.startsWith("\uFEFF") ? text.substring(1) : text).split("\n", -1);
    Header header = null;
    int headerLine = 0;
    boolean saysNextId = false;
    Map<Ref, Integer> lineOf = new LinkedHashMap<>();
    List<Record> records = new ArrayList<>();
    for (int i = 0; i < lines.length; i++) {
      if (lines[i].isBlank()) continue;
      JsonNode node = json(name, lines[i], i + 1);
      if (header == null) {
        header = header(name, node, i + 1);
        headerLine = i + 1;
        saysNextId = node.has("nextId");
        continue;
      }
      Record r = record(name, node, i + 1);
      Integer before = lineOf.putIfAbsent(r.key(), i + 1);
      if (before != null)
        throw bad(name, i + 1, "the record " + r.key() + " stands on line " + before + " already");
      records.add(r);
    }
    if (header == null) throw PluginException.of(name, "it has no header line");
    if (!saysNextId) header = header.withNextId(1 + highestOwn(name, records));
    try {
      return checked(name, header, records);
    } catch (PluginException whole) {
      checkedAt(name, header, List.of(), headerLine);
      for (Record r : records) checkedAt(name, header, List.of(r), lineOf.get(r.key()));
      throw whole;
    }
  }

  private static int highestOwn(String name, List<Record> records) {
    int highest = 0;
    for (Record r : records)
      if (PathCase.fold(r.key().owner()).equals(PathCase.fold(name)))
        highest = Math.max(highest, r.key().id());
    // a higher one is a mistake, which is told where it stands
    return Math.min(highest, Plugin.MAX_ID);
  }

  // through the codec once: the same checks hold for both forms
  private static Plugin checked(String name, Header header, List<Record> records) {
    return PluginCodec.decode(name, PluginCodec.encode(new Plugin(name, header, records))).plugin();
  }

  private static void checkedAt(String name, Header header, List<Record> records, int line) {
    try {
      checked(name, header, records);
    } catch (PluginException e) {
      // a byte of the other form is no place in this one
      String reason =
          e.problems().get(0).reason().replaceFirst("^This plugin cannot be read: ", "");
      throw bad(name, line, reason.replaceFirst("(, at byte \\d+)?\\.$", ""));
    }
  }

  public static String write(Plugin p) {
    StringBuilder out = new StringBuilder();
    Header h = p.header();
    ObjectNode head = NODES.objectNode();
    head.put("format", Plugin.FORMAT).put("stage", h.stage());
    h.masters().forEach(head.putArray("masters")::add);
    head.put("nextId", h.nextId());
    h.title().ifPresent(v -> head.put("title", v));
    h.author().ifPresent(v -> head.put("author", v));
    h.version().ifPresent(v -> head.put("version", v));
    h.about().ifPresent(v -> head.put("about", v));
    h.game().ifPresent(v -> head.put("game", v));
    if (!h.packs().isEmpty()) h.packs().forEach(head.putArray("packs")::add);
    h.other().forEach((k, v) -> head.set(k, node(v)));
    out.append(head).append('\n');
    for (Record r : p.inWritingOrder()) {
      ObjectNode line = NODES.objectNode().put("type", r.type()).put("id", r.key().toString());
      if (r.fields().isEmpty()) line.putNull("fields");
      else {
        ObjectNode fields = line.putObject("fields");
        r.fields().get().map().forEach((k, v) -> fields.set(k, node(v)));
      }
      out.append(line).append('\n');
    }
    return out.toString();
  }

  private static Header header(String name, JsonNode n, int line) {
    if (!n.isObject() || !Plugin.FORMAT.equals(n.path("format").asText()))
      throw bad(name, line, "the header's format is not " + Plugin.FORMAT);
    Map<String, Value> other = new LinkedHashMap<>();
    List<String> known =
        List.of(
            "format", "stage", "masters", "nextId", "title", "author", "version", "about", "game",
            "packs");
    n.properties()
        .forEach(
            e -> {
              if (!known.contains(e.getKey()))
                other.put(
                    unbroken(name, e.getKey(), line, ""),
                    value(name, e.getValue(), line, pointer("", e.getKey())));
            });
    return new Header(
        number(name, n, "stage", Plugin.DEFAULT_STAGE, line),
        texts(name, n, "masters", line),
        number(name, n, "nextId", 1, line),
        text(name, n, "title", line),
        text(name, n, "author", line),
        text(name, n, "version", line),
        text(name, n, "about", line),
        text(name, n, "game", line),
        texts(name, n, "packs", line),
        other);
  }

  private static Record record(String name, JsonNode n, int line) {
    if (!n.isObject() || !n.path("type").isTextual() || !n.path("id").isTextual())
      throw bad(name, line, "a record needs a type and an id");
    if (!n.has("fields")) throw bad(name, line, "a record needs fields, null when it is removed");
    Ref key = ref(name, n.get("id").asText(), line, "/id");
    JsonNode f = n.get("fields");
    if (f.isNull()) return new Record(n.get("type").asText(), key, Optional.empty());
    if (!f.isObject()) throw bad(name, line, "the fields of " + key + " are no map");
    return new Record(n.get("type").asText(), key, Optional.of(fields(name, f, line, "/fields")));
  }

  private static Ref ref(String name, String text, int line, String at) {
    int slash = text.lastIndexOf('/');
    String id = text.substring(slash + 1);
    if (slash < 1 || !id.matches("[1-9][0-9]{0,7}"))
      throw bad(name, line, at, "“" + text + "” is no record's key, such as Skerry.plug/420");
    return new Ref(unbroken(name, text.substring(0, slash), line, at), Integer.parseInt(id));
  }

  private static Value.Fields fields(String name, JsonNode n, int line, String at) {
    Map<String, Value> map = new LinkedHashMap<>();
    n.properties()
        .forEach(
            e -> {
              String below = pointer(at, e.getKey());
              map.put(
                  unbroken(name, e.getKey(), line, below), value(name, e.getValue(), line, below));
            });
    return new Value.Fields(map);
  }

  /** As RFC 6901 has it. */
  private static String pointer(String at, String key) {
    return at + "/" + key.replace("~", "~0").replace("/", "~1");
  }

  /** A text as it is; half of a letter beyond the first plane has no UTF-8, and would be lost. */
  private static String unbroken(String name, String text, int line, String at) {
    // a pair is one code point; a half of one is told as itself
    if (text.codePoints()
        .anyMatch(c -> c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE))
      throw bad(name, line, at, "a text holds half a character (a lone surrogate)");
    return text;
  }

  private static Value value(String name, JsonNode n, int line, String at) {
    if (n.isNull()) return Value.NULL;
    if (n.isBoolean()) return new Value.Truth(n.booleanValue());
    if (n.isIntegralNumber()) {
      if (!n.canConvertToLong())
        throw bad(name, line, at, "the integer " + n.asText() + " is beyond 64 bits");
      return new Value.Int(n.longValue());
    }
    if (n.isNumber()) {
      if (Double.isInfinite(n.doubleValue())) throw bad(name, line, at, "a number is not finite");
      return new Value.Real(n.doubleValue());
    }
    if (n.isTextual()) return new Value.Text(unbroken(name, n.textValue(), line, at));
    if (n.isArray()) {
      List<Value> items = new ArrayList<>();
      for (JsonNode i : n) items.add(value(name, i, line, at + "/" + items.size()));
      return new Value.Array(items);
    }
    String only = n.size() == 1 ? n.fieldNames().next() : "";
    return switch (only) {
      case "ref" -> ref(name, text(name, n, "ref", line, at), line, at);
      case "base64" -> bytes(name, text(name, n, "base64", line, at), line, at);
      case "map" -> {
        if (!n.get("map").isObject())
          throw bad(name, line, at, "what is marked as a map is none; " + ITSELF.formatted("map"));
        yield fields(name, n.get("map"), line, at);
      }
      default -> fields(name, n, line, at);
    };
  }

  private static String text(String name, JsonNode n, String mark, int line, String at) {
    if (n.get(mark).isTextual()) return n.get(mark).textValue();
    throw bad(
        name, line, at, "what is marked as “" + mark + "” is no text; " + ITSELF.formatted(mark));
  }

  private static Value bytes(String name, String base64, int line, String at) {
    try {
      return new Value.Bytes(Base64.getDecoder().decode(base64));
    } catch (IllegalArgumentException e) {
      throw bad(name, line, at, "a value is not base64");
    }
  }

  /** A value out of its text form; empty when that is none. */
  public static Optional<Value> value(String json) {
    try {
      return Optional.of(value("", JSON.readTree(json), 1, ""));
    } catch (JsonProcessingException | PluginException e) {
      return Optional.empty();
    }
  }

  /** A value as JSON. Also what the API shows, so that text form and API agree. */
  public static JsonNode node(Value v) {
    if (v instanceof Value.Truth t) return NODES.booleanNode(t.value());
    if (v instanceof Value.Int i) return NODES.numberNode(i.value());
    if (v instanceof Value.Real r) return DoubleNode.valueOf(r.value());
    if (v instanceof Value.Text t) return NODES.textNode(t.value());
    if (v instanceof Value.Bytes b)
      return NODES.objectNode().put("base64", Base64.getEncoder().encodeToString(b.value()));
    if (v instanceof Ref r) return NODES.objectNode().put("ref", r.toString());
    if (v instanceof Value.Array a) {
      ArrayNode items = NODES.arrayNode();
      a.items().forEach(i -> items.add(node(i)));
      return items;
    }
    if (v instanceof Value.Fields f) {
      ObjectNode map = NODES.objectNode();
      f.map().forEach((k, i) -> map.set(k, node(i)));
      boolean ambiguous =
          f.map().size() == 1
              && List.of("ref", "base64", "map").contains(f.map().keySet().iterator().next());
      return ambiguous ? NODES.objectNode().set("map", map) : map;
    }
    return NODES.nullNode();
  }

  private static JsonNode json(String name, String line, int number) {
    try {
      return JSON.readTree(line);
    } catch (JsonProcessingException e) {
      int column = e.getLocation() == null ? 1 : e.getLocation().getColumnNr();
      throw PluginException.of(
          name,
          "it is not JSON: "
              + e.getOriginalMessage()
              + ", on line "
              + number
              + ", column "
              + column);
    }
  }

  private static int number(String name, JsonNode n, String key, int otherwise, int line) {
    if (!n.has(key)) return otherwise;
    if (!n.get(key).isInt()) throw bad(name, line, "the header's “" + key + "” is no whole number");
    return n.get(key).intValue();
  }

  private static Optional<String> text(String name, JsonNode n, String key, int line) {
    if (!n.has(key)) return Optional.empty();
    if (!n.get(key).isTextual()) throw bad(name, line, "the header's “" + key + "” is no text");
    return Optional.of(unbroken(name, n.get(key).textValue(), line, "/" + key));
  }

  private static List<String> texts(String name, JsonNode n, String key, int line) {
    List<String> out = new ArrayList<>();
    if (n.has(key) && !n.get(key).isArray())
      throw bad(name, line, "the header's “" + key + "” is no list");
    for (JsonNode i : n.path(key)) {
      if (!i.isTextual())
        throw bad(name, line, "the header's “" + key + "” holds something else than texts");
      out.add(unbroken(name, i.textValue(), line, "/" + key));
    }
    return out;
  }

  private static PluginException bad(String name, int line, String reason) {
    return PluginException.of(name, reason + ", on line " + line);
  }

  private static PluginException bad(String name, int line, String at, String reason) {
    return bad(name, line, reason + (at.isEmpty() ? "" : ", at " + at));
  }
}
