package ironing.server.records;

import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.RecordIndex;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Values of records in words for people: a reference by the name of what it leads to, a row by its
 * key.
 */
public final class Shown {

  private final RecordIndex index;

  Shown(RecordIndex index) {
    this.index = index;
  }

  /**
   * @param there whether the field is there at all
   * @param text the whole in a line
   * @param items one for each element of a list; empty for anything else
   */
  public record Words(boolean there, String text, List<String> items) {}

  Words of(Optional<Value> value, Field field) {
    if (value.isEmpty()) return new Words(false, "not there", List.of());
    Value v = value.get();
    if (v instanceof Value.Array a) {
      List<String> items = a.items().stream().map(i -> item(i, field)).toList();
      return new Words(true, items.isEmpty() ? "none" : String.join(", ", items), items);
    }
    return new Words(true, text(v, field), List.of());
  }

  private String item(Value v, Field list) {
    if (list.kind() == Kind.ROWS && v instanceof Value.Fields row && list.key().isPresent()) {
      return row(row, list);
    }
    return text(v, list.of().orElse(Field.WHOLE));
  }

  private String row(Value.Fields row, Field rows) {
    String name = rowName(row, rows), rest = rowRest(row, rows);
    return (name + " " + rest).strip();
  }

  /** A row by its key. */
  private String rowName(Value.Fields row, Field rows) {
    String key = rows.key().orElseThrow();
    Value value = row.map().get(key);
    return value == null ? "" : text(value, rows.fields().getOrDefault(key, Field.WHOLE));
  }

  /** What a row says beside its key. */
  private String rowRest(Value.Fields row, Field rows) {
    String key = rows.key().orElseThrow();
    List<String> parts = new ArrayList<>();
    for (Map.Entry<String, Value> e : row.map().entrySet()) {
      if (e.getKey().equals(key)) continue;
      String value = text(e.getValue(), rows.fields().getOrDefault(e.getKey(), Field.WHOLE));
      // with one field beside the key its name says nothing new
      parts.add(row.map().size() == 2 ? value : e.getKey() + " " + value);
    }
    return String.join(" ", parts);
  }

  /** Rows by their key, with what each says beside it; empty when the value is no list of rows. */
  Map<String, String> rows(Optional<Value> value, Field field) {
    Map<String, String> rows = new LinkedHashMap<>();
    if (field.kind() != Kind.ROWS || field.key().isEmpty()) return rows;
    if (value.orElse(null) instanceof Value.Array a) {
      for (Value v : a.items()) {
        if (v instanceof Value.Fields row) rows.put(rowName(row, field), rowRest(row, field));
      }
    }
    return rows;
  }

  String text(Value v, Field field) {
    if (v instanceof Value.Null) return "empty";
    if (v instanceof Value.Truth t) return t.value() ? "yes" : "no";
    if (v instanceof Value.Int i) return unit(Long.toString(i.value()), field);
    if (v instanceof Value.Real r) return unit(plain(r.value()), field);
    if (v instanceof Value.Text t) return t.value().isEmpty() ? "“”" : t.value();
    if (v instanceof Ref r) return name(r);
    if (v instanceof Value.Array || v instanceof Value.Fields) {
      return PluginText.node(v).toString();
    }
    return PluginText.node(v).path("base64").asText().length() * 3 / 4 + " bytes";
  }

  // 12.0 is 12 to a person; whether a file holds it as an integer is none of a reader's business
  private static String plain(double value) {
    if (value == Math.rint(value) && Math.abs(value) < 1e15) return Long.toString((long) value);
    return Double.toString(value);
  }

  private static String unit(String number, Field field) {
    return field.unit().map(u -> number + " " + u).orElse(number);
  }

  /** What people know a record by; its key when it has no name, or is not there. */
  String name(Ref key) {
    int record = index.find(key);
    return record < 0 ? key.toString() : index.label(record);
  }

  /**
   * A place of a record for people: {@code hold[Skerry.plug/77].tonnes} is “hold, Coal, tonnes”.
   */
  String place(String place) {
    int open = place.indexOf('[');
    if (open < 0) return place;
    int close = place.indexOf(']', open);
    String key = place.substring(open + 1, close);
    int slash = key.lastIndexOf('/');
    boolean isRef = slash > 0 && key.substring(slash + 1).matches("\\d{1,8}");
    String shown =
        isRef
            ? name(new Ref(key.substring(0, slash), Integer.parseInt(key.substring(slash + 1))))
            : key;
    String rest = place.substring(close + 1);
    return place.substring(0, open)
        + ", "
        + shown
        + (rest.isEmpty() ? "" : ", " + rest.substring(1));
  }
}
