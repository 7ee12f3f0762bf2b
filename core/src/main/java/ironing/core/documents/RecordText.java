package ironing.core.documents;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectWriter;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.game.DocumentPlugins.IdOf;
import ironing.core.game.DocumentPlugins.RecordFiles;
import ironing.core.game.DocumentPlugins.Spot;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Value;
import ironing.core.query.JsonPath;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.QuoteMode;

/** The text of one document that holds nothing but records. */
final class RecordText {
  private static final ObjectWriter PRETTY =
      JsonMapper.builder()
          .build()
          .writer(
              new DefaultPrettyPrinter()
                  .withObjectIndenter(new DefaultIndenter("  ", "\n"))
                  .withArrayIndenter(new DefaultIndenter("  ", "\n")));

  private RecordText() {}

  static String pretty(JsonNode n) {
    try {
      return escaped(PRETTY.writeValueAsString(n));
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException(e);
    }
  }

  // what some readers of JSON and YAML take for ends of lines, or refuse, stands as an escape
  private static String escaped(String json) {
    StringBuilder out = new StringBuilder(json.length());
    for (int i = 0; i < json.length(); i++) {
      char c = json.charAt(i);
      boolean odd =
          c >= 0x7F && c <= 0x9F || c == 0x2028 || c == 0x2029 || c >= 0xFFFE || c == 0xFEFF;
      if (odd) out.append(String.format("\\u%04x", (int) c));
      else out.append(c);
    }
    return out.toString();
  }

  /**
   * @param records by how they are read, all of one file
   */
  static String of(Map<RecordFiles, List<Plugin.Record>> records, Markup markup) {
    RecordFiles first = records.keySet().iterator().next();
    return switch (first.reading().as()) {
      case JSON, YAML -> json(records);
      case XML -> xml(records, markup);
      case TABLE -> table(first, records.get(first));
      case INI -> ini(records);
    };
  }

  private static String json(Map<RecordFiles, List<Plugin.Record>> records) {
    JsonNode[] root = {null};
    records.forEach(
        (from, all) -> {
          JsonPath each = ((Spot.InJson) from.each().orElseThrow()).path();
          List<String> names = each.namesOfList().orElseThrow();
          boolean keyed = from.id() instanceof IdOf.Key;
          JsonNode list =
              keyed ? JsonNodeFactory.instance.objectNode() : JsonNodeFactory.instance.arrayNode();
          for (Plugin.Record r : all) {
            if (keyed) ((ObjectNode) list).set(r.key().names().get(0), record(from, r));
            else ((ArrayNode) list).add(record(from, r));
          }
          root[0] = put(root[0], names, list);
        });
    return pretty(root[0]) + "\n";
  }

  private static JsonNode put(JsonNode root, List<String> names, JsonNode value) {
    if (names.isEmpty()) return value;
    ObjectNode at = root instanceof ObjectNode o ? o : JsonNodeFactory.instance.objectNode();
    at.set(names.get(0), put(at.get(names.get(0)), names.subList(1, names.size()), value));
    return at;
  }

  private static JsonNode record(RecordFiles from, Plugin.Record r) {
    Map<String, Value> fields = r.fields().map(Value.Fields::map).orElse(Map.of());
    if (fields.size() == 1 && fields.containsKey(Values.WHOLE))
      return node(fields.get(Values.WHOLE));
    JsonNode out = JsonNodeFactory.instance.objectNode();
    if (from.id() instanceof IdOf.At at) {
      List<String> names = r.key().names();
      for (int i = 0; i < at.spots().size(); i++) {
        JsonPath path = ((Spot.InJson) at.spots().get(i)).path();
        JsonNode id = JsonNodeFactory.instance.textNode(names.get(i));
        if (path.names().isPresent()) out = put(out, path.names().get(), id);
      }
    }
    for (Map.Entry<String, Value> e : fields.entrySet()) {
      // what an id stands in may hold fields beside it
      if (out.get(e.getKey()) instanceof ObjectNode inner && e.getValue() instanceof Value.Fields f)
        f.map().forEach((k, v) -> inner.set(k, node(v)));
      else ((ObjectNode) out).set(e.getKey(), node(e.getValue()));
    }
    if (r.fields().isEmpty()) {
      JsonPath at = ((Spot.InJson) from.removed().orElseThrow().at()).path();
      out = put(out, at.names().orElse(List.of("removed")), word(from.removed().get().is()));
    }
    return out;
  }

  private static JsonNode word(String is) {
    return is.equals("true") || is.equals("false")
        ? JsonNodeFactory.instance.booleanNode(is.equals("true"))
        : JsonNodeFactory.instance.textNode(is);
  }

  static JsonNode node(Value v) {
    JsonNodeFactory json = JsonNodeFactory.instance;
    if (v instanceof Value.Text t) return json.textNode(t.value());
    if (v instanceof Value.Int i) return json.numberNode(i.value());
    // as its shortest digits, and never as a whole number: 1.0 stays 1.0
    if (v instanceof Value.Real r) return json.numberNode(r.value());
    if (v instanceof Value.Truth t) return json.booleanNode(t.value());
    if (v instanceof Value.Array a) {
      ArrayNode out = json.arrayNode();
      a.items().forEach(item -> out.add(node(item)));
      return out;
    }
    if (v instanceof Value.Fields f) {
      ObjectNode out = json.objectNode();
      f.map().forEach((k, item) -> out.set(k, node(item)));
      return out;
    }
    return json.nullNode();
  }

  private static String xml(Map<RecordFiles, List<Plugin.Record>> records, Markup markup) {
    StringBuilder out = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
    List<String> open = new ArrayList<>();
    records.forEach(
        (from, all) -> {
          List<String> steps =
              ((Spot.InXml) from.each().orElseThrow()).path().steps().orElseThrow();
          List<String> parents = steps.subList(0, steps.size() - 1);
          int same = 0;
          while (same < open.size()
              && same < parents.size()
              && open.get(same).equals(parents.get(same))) same++;
          close(open, same, out);
          for (String p : parents.subList(same, parents.size())) {
            out.append("  ".repeat(open.size())).append('<').append(p).append(">\n");
            open.add(p);
          }
          String tag = steps.get(steps.size() - 1);
          for (Plugin.Record r : all) {
            out.append("  ".repeat(open.size()));
            element(from, r, tag, markup, open.size(), out);
            out.append('\n');
          }
        });
    close(open, 0, out);
    return out.toString();
  }

  private static void close(List<String> open, int to, StringBuilder out) {
    while (open.size() > to) {
      String tag = open.remove(open.size() - 1);
      out.append("  ".repeat(open.size())).append("</").append(tag).append(">\n");
    }
  }

  private static void element(
      RecordFiles from, Plugin.Record r, String tag, Markup markup, int depth, StringBuilder out) {
    Map<String, Value> fields = r.fields().map(Value.Fields::map).orElse(Map.of());
    List<String> ids = new ArrayList<>(r.key().names());
    out.append('<').append(tag);
    StringBuilder children = new StringBuilder();
    if (from.id() instanceof IdOf.At at)
      for (int i = 0; i < at.spots().size(); i++)
        put(
            ((Spot.InXml) at.spots().get(i)).path().steps().orElse(List.of()),
            ids.get(i),
            depth,
            out,
            children);
    if (r.fields().isEmpty())
      put(
          ((Spot.InXml) from.removed().orElseThrow().at()).path().steps().orElse(List.of()),
          from.removed().get().is(),
          depth,
          out,
          children);
    Optional<Value> whole = Optional.ofNullable(fields.get(Values.WHOLE));
    if (whole.isPresent()) {
      // the element was read whole, less its id: what is inside of it goes back as it was
      inside(((Value.Text) whole.get()).value(), out, children);
    } else {
      content(fields, from.type(), markup, depth, out, children);
    }
    finish(tag, children, depth, out);
  }

  /** Puts a text at steps of plain names below an element. */
  private static void put(
      List<String> steps, String text, int depth, StringBuilder tag, StringBuilder children) {
    if (steps.isEmpty()) return;
    String last = steps.get(steps.size() - 1);
    if (steps.size() == 1 && last.startsWith("@")) XmlText.attribute(last.substring(1), text, tag);
    else if (steps.size() == 1)
      line(depth, children)
          .append('<')
          .append(last)
          .append('>')
          .append(XmlText.escaped(text, false))
          .append("</")
          .append(last)
          .append('>');
  }

  private static StringBuilder line(int depth, StringBuilder out) {
    return out.append('\n').append("  ".repeat(depth + 1));
  }

  private static void inside(String markup, StringBuilder tag, StringBuilder children) {
    int end = endOfTag(markup);
    boolean closed = markup.charAt(end - 1) == '/';
    int name = 1;
    while (name < end && !Character.isWhitespace(markup.charAt(name)) && markup.charAt(name) != '/')
      name++;
    tag.append(markup, name, closed ? end - 1 : end);
    if (!closed) children.append(markup, end + 1, markup.lastIndexOf("</"));
  }

  private static int endOfTag(String markup) {
    boolean quoted = false;
    for (int i = 0; ; i++) {
      char c = markup.charAt(i);
      if (c == '"') quoted = !quoted;
      if (c == '>' && !quoted) return i;
    }
  }

  private static void content(
      Map<String, Value> fields,
      String path,
      Markup markup,
      int depth,
      StringBuilder tag,
      StringBuilder children) {
    fields.forEach(
        (name, v) -> {
          String at = path + "/" + name;
          // an element that is nothing but a list has its items right below it
          if (name.equals(Values.TEXT)) value(v, path, markup, depth, tag, children);
          else if (markup.isAttribute(at)) XmlText.attribute(name, Values.spelled(v), tag);
          else {
            line(depth, children).append('<').append(name);
            StringBuilder inner = new StringBuilder();
            value(v, at, markup, depth + 1, children, inner);
            finish(name, inner, depth + 1, children);
          }
        });
  }

  private static void value(
      Value v, String path, Markup markup, int depth, StringBuilder tag, StringBuilder children) {
    if (v instanceof Value.Fields f) content(f.map(), path, markup, depth, tag, children);
    else if (v instanceof Value.Array a) {
      String item = markup.item(path);
      for (Value i : a.items()) {
        line(depth, children).append('<').append(item);
        StringBuilder inner = new StringBuilder();
        value(i, path + "/" + item, markup, depth + 1, children, inner);
        finish(item, inner, depth + 1, children);
      }
    } else children.append(XmlText.escaped(Values.spelled(v), false));
  }

  private static void finish(String tag, StringBuilder children, int depth, StringBuilder out) {
    if (children.isEmpty()) {
      out.append("/>");
      return;
    }
    out.append('>').append(children);
    // elements stand on lines of their own; a text keeps its blanks
    if (children.charAt(0) == '\n' && children.charAt(children.length() - 1) == '>')
      out.append('\n').append("  ".repeat(depth));
    out.append("</").append(tag).append('>');
  }

  private static String table(RecordFiles from, List<Plugin.Record> records) {
    List<String> key = from.id() instanceof IdOf.Columns c ? c.names() : List.of();
    Set<String> columns = new LinkedHashSet<>(key);
    for (Plugin.Record r : records)
      columns.addAll(r.fields().map(f -> f.map().keySet()).orElse(Set.of()));
    StringWriter out = new StringWriter();
    CSVFormat format =
        CSVFormat.RFC4180.builder().setQuoteMode(QuoteMode.MINIMAL).setRecordSeparator("\n").get();
    try (CSVPrinter csv = new CSVPrinter(out, format)) {
      csv.printRecord(columns);
      for (Plugin.Record r : records) {
        List<String> row = new ArrayList<>();
        Map<String, Value> fields = r.fields().orElseThrow().map();
        for (String c : columns)
          row.add(
              key.contains(c)
                  ? r.key().names().get(key.indexOf(c))
                  : fields.containsKey(c) ? Values.spelled(fields.get(c)) : "");
        csv.printRecord(row);
      }
    } catch (java.io.IOException e) {
      throw new UncheckedIOException(e);
    }
    return out.toString();
  }

  private static String ini(Map<RecordFiles, List<Plugin.Record>> records) {
    StringBuilder out = new StringBuilder();
    records.values().stream()
        .flatMap(List::stream)
        .forEach(
            r -> {
              if (!out.isEmpty()) out.append('\n');
              out.append('[').append(r.key().names().get(0)).append("]\n");
              r.fields()
                  .orElseThrow()
                  .map()
                  .forEach(
                      (k, v) -> out.append(k).append(" = ").append(Values.spelled(v)).append('\n'));
            });
    return out.toString();
  }
}
