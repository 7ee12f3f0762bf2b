package ironing.core.documents;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.game.DocumentPlugins.IdOf;
import ironing.core.game.DocumentPlugins.RecordFiles;
import ironing.core.game.DocumentPlugins.Removed;
import ironing.core.game.DocumentPlugins.Spot;
import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.path.GamePath;
import ironing.core.plugin.Value;
import ironing.core.query.JsonPath;
import ironing.core.query.QuerySyntax;
import ironing.core.query.Steps;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.w3c.dom.Attr;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;

/**
 * Reads the records out of one document. What is wrong with a record leaves that record out, what
 * is wrong with the document leaves it out; both are told with the place.
 *
 * <p>Threads: for one plugin at a time. Cost: linear in the document, beside what its expressions
 * look at.
 */
final class RecordReader {
  private final Map<String, RecordType> types;
  private final Consumer<String> remarks;
  private final Markup markup;
  private final Consumer<FoundRecord> out;

  RecordReader(
      Map<String, RecordType> types,
      Consumer<String> remarks,
      Markup markup,
      Consumer<FoundRecord> out) {
    this.types = types;
    this.remarks = remarks;
    this.markup = markup;
    this.out = out;
  }

  /**
   * @param path below the plugin's folder
   */
  void read(RecordFiles from, String path, byte[] bytes) {
    try {
      switch (from.reading().as()) {
        case JSON, YAML -> json(from, path, Trees.tree(from.reading(), bytes));
        case XML -> xml(from, path, Trees.xml(bytes));
        case TABLE -> table(from, path, bytes);
        case INI -> ini(from, path, Trees.text(bytes));
      }
    } catch (Unreadable e) {
      remarks.accept(path + ": " + e.getMessage() + "; no record of it is read.");
    } catch (Steps.TooMany | QuerySyntax e) {
      remarks.accept(path + ": " + e.getMessage() + "; no record of it is read.");
    }
  }

  private Field field(String type) {
    return types.getOrDefault(type, RecordType.undescribed(type)).asField();
  }

  private void leftOut(String place, String why) {
    remarks.accept(place + ": " + why + "; the record is left out.");
  }

  private void json(RecordFiles from, String path, JsonNode root) {
    JsonPath each = ((Spot.InJson) from.each().orElseThrow()).path();
    List<Spot> noFields = new ArrayList<>();
    if (from.id() instanceof IdOf.At at) noFields.addAll(at.spots());
    from.removed().ifPresent(r -> noFields.add(r.at()));
    List<String> members = new ArrayList<>();
    List<List<String>> deeper = new ArrayList<>();
    for (Spot s : noFields)
      ((Spot.InJson) s)
          .path()
          .names()
          .filter(names -> !names.isEmpty())
          .ifPresent(
              names -> {
                if (names.size() == 1) members.add(names.get(0));
                else deeper.add(names);
              });
    for (JsonPath.Hit hit : each.find(root, new Steps())) {
      Optional<List<String>> id = id(from.id(), path, hit);
      if (id.isEmpty()) {
        leftOut(
            path + " " + hit.place(),
            "it has no id, or one that is neither a text nor a whole number");
        continue;
      }
      Supplier<String> place = () -> path + " " + hit.place();
      try {
        if (from.removed().isPresent() && is(hit.value(), from.removed().get())) {
          out.accept(new FoundRecord(from.type(), id.get(), Optional.empty(), place));
          continue;
        }
        Value.Fields fields = Values.fields(hit.value(), members);
        for (List<String> names : deeper) fields = without(fields, names);
        out.accept(new FoundRecord(from.type(), id.get(), Optional.of(fields), place));
      } catch (Unreadable e) {
        leftOut(place.get(), e.getMessage());
      }
    }
  }

  private static boolean is(JsonNode record, Removed removed) {
    return ((Spot.InJson) removed.at())
        .path()
        .first(record)
        .filter(JsonNode::isValueNode)
        .filter(v -> v.asText().equals(removed.is()))
        .isPresent();
  }

  private static Optional<List<String>> id(IdOf of, String path, JsonPath.Hit hit) {
    if (of instanceof IdOf.FileName) return Optional.of(List.of(fileName(path)));
    if (of instanceof IdOf.Key) return hit.lastName().filter(n -> !n.isEmpty()).map(List::of);
    List<String> id = new ArrayList<>();
    for (Spot s : ((IdOf.At) of).spots()) {
      Optional<String> part =
          ((Spot.InJson) s)
              .path()
              .first(hit.value())
              .filter(v -> v.isTextual() || v.isIntegralNumber())
              .map(JsonNode::asText)
              .filter(t -> !t.isEmpty());
      if (part.isEmpty()) return Optional.empty();
      id.add(part.get());
    }
    return id.isEmpty() ? Optional.empty() : Optional.of(id);
  }

  private static Supplier<String> place(String path, int line) {
    return () -> path + " line " + line;
  }

  private static String fileName(String path) {
    String name = GamePath.name(path);
    int dot = name.lastIndexOf('.');
    return dot > 0 ? name.substring(0, dot) : name;
  }

  /** The fields less what stands at a place of plain names. */
  private static Value.Fields without(Value.Fields fields, List<String> names) {
    if (names.isEmpty() || !fields.map().containsKey(names.get(0))) return fields;
    Map<String, Value> map = new LinkedHashMap<>(fields.map());
    if (names.size() == 1) map.remove(names.get(0));
    else if (map.get(names.get(0)) instanceof Value.Fields inner)
      map.put(names.get(0), without(inner, names.subList(1, names.size())));
    return new Value.Fields(map);
  }

  private void xml(RecordFiles from, String path, Document doc) {
    Spot.InXml each = (Spot.InXml) from.each().orElseThrow();
    int number = 0;
    for (Node n : each.path().find(doc)) {
      String place = path + " " + each.path() + "[" + ++number + "]";
      if (!(n instanceof Element e)) {
        leftOut(place, "it is no element");
        continue;
      }
      Optional<List<String>> id = id(from.id(), path, e);
      if (id.isEmpty()) {
        leftOut(place, "it has no id");
        continue;
      }
      if (from.removed().filter(r -> is(e, r)).isPresent()) {
        out.accept(new FoundRecord(from.type(), id.get(), Optional.empty(), () -> place));
        continue;
      }
      if (from.id() instanceof IdOf.At at) at.spots().forEach(s -> takeOut(e, s));
      from.removed().ifPresent(r -> takeOut(e, r.at()));
      Value v = Values.element(e, field(from.type()), from.type(), markup);
      Value.Fields fields =
          v instanceof Value.Fields f
              ? f
              : new Value.Fields(
                  v instanceof Value.Text t && t.value().isBlank()
                      ? Map.of()
                      : v == null
                          ? Map.of(Values.WHOLE, new Value.Text(Values.markup(e)))
                          : Map.of(Values.TEXT, v));
      out.accept(new FoundRecord(from.type(), id.get(), Optional.of(fields), () -> place));
    }
  }

  private static boolean is(Element e, Removed removed) {
    return ((Spot.InXml) removed.at())
        .path().find(e).stream().anyMatch(n -> Values.textOf(n).strip().equals(removed.is()));
  }

  private static Optional<List<String>> id(IdOf of, String path, Element e) {
    if (of instanceof IdOf.FileName) return Optional.of(List.of(fileName(path)));
    List<String> id = new ArrayList<>();
    for (Spot s : ((IdOf.At) of).spots()) {
      List<Node> found = ((Spot.InXml) s).path().find(e);
      if (found.isEmpty() || Values.textOf(found.get(0)).isBlank()) return Optional.empty();
      id.add(Values.textOf(found.get(0)).strip());
    }
    return id.isEmpty() ? Optional.empty() : Optional.of(id);
  }

  // the element is read once and then forgotten: what is no field of it can go
  private static void takeOut(Element e, Spot spot) {
    for (Node n : ((Spot.InXml) spot).path().find(e)) {
      if (n instanceof Attr a) a.getOwnerElement().removeAttributeNode(a);
      else if (n != e) n.getParentNode().removeChild(n);
    }
  }

  private void table(RecordFiles from, String path, byte[] bytes) throws Unreadable {
    List<String> key = from.id() instanceof IdOf.Columns c ? c.names() : List.of();
    try (CSVParser in = CSVFormat.RFC4180.parse(Trees.reader(bytes))) {
      List<String> columns = new ArrayList<>();
      List<Integer> keyAt = new ArrayList<>();
      List<Field> fields = new ArrayList<>();
      Field field = field(from.type());
      for (CSVRecord row : in) {
        if (columns.isEmpty()) {
          row.forEach(columns::add);
          requireColumns(columns, key);
          for (String k : key) keyAt.add(columns.indexOf(k));
          for (String c : columns) fields.add(field.fields().getOrDefault(c, Field.WHOLE));
          continue;
        }
        long number = row.getRecordNumber();
        Supplier<String> place = () -> path + " row " + number;
        // a blank line, such as behind the last row, is no row
        if (row.size() == 1 && row.get(0).isEmpty() && columns.size() > 1) continue;
        if (row.size() != columns.size()) {
          leftOut(place.get(), "it has " + row.size() + " cells and the header " + columns.size());
          continue;
        }
        List<String> id = new ArrayList<>();
        for (int k : keyAt) id.add(row.get(k));
        if (from.id() instanceof IdOf.FileName) id.add(fileName(path));
        if (id.contains("")) {
          leftOut(place.get(), "a cell of its key is empty");
          continue;
        }
        Map<String, Value> map = new LinkedHashMap<>();
        for (int i = 0; i < columns.size(); i++)
          if (!keyAt.contains(i)) map.put(columns.get(i), Values.text(row.get(i), fields.get(i)));
        out.accept(new FoundRecord(from.type(), id, Optional.of(new Value.Fields(map)), place));
      }
    } catch (IOException | UncheckedIOException | IllegalStateException e) {
      throw new Unreadable("it is no table as RFC 4180 has it: " + e.getMessage());
    }
  }

  private static void requireColumns(List<String> columns, List<String> key) throws Unreadable {
    if (columns.stream().distinct().count() < columns.size())
      throw new Unreadable("two of its columns have one name");
    for (String k : key)
      if (!columns.contains(k)) throw new Unreadable("it has no column “" + k + "”");
  }

  private void ini(RecordFiles from, String path, String text) {
    Field field = field(from.type());
    String section = null;
    int line = 0, began = 0;
    Map<String, Value> map = new LinkedHashMap<>();
    for (String whole : (text + "\n[").split("\\R", -1)) {
      line++;
      String s = whole.strip();
      if (s.isEmpty() || s.startsWith(";") || s.startsWith("#")) continue;
      if (s.startsWith("[")) {
        if (section != null && from.sections().orElseThrow().matches(section))
          out.accept(
              new FoundRecord(
                  from.type(),
                  List.of(from.id() instanceof IdOf.FileName ? fileName(path) : section),
                  Optional.of(new Value.Fields(map)),
                  place(path, began)));
        map = new LinkedHashMap<>();
        began = line;
        boolean closed = s.endsWith("]");
        section = closed ? s.substring(1, s.length() - 1).strip() : null;
        if (!closed && s.length() > 1)
          remarks.accept(path + " line " + line + ": the section is not closed; it is left out.");
        continue;
      }
      int equals = s.indexOf('=');
      if (equals < 1) {
        if (section != null)
          remarks.accept(path + " line " + line + ": there is no “=”; the line is left out.");
        continue;
      }
      String name = s.substring(0, equals).strip();
      Value v =
          Values.text(
              s.substring(equals + 1).strip(), field.fields().getOrDefault(name, Field.WHOLE));
      if (map.put(name, v) != null)
        remarks.accept(path + " line " + line + ": “" + name + "” stands again; this one counts.");
    }
  }
}
