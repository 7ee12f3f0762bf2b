package ironing.core.records;

import ironing.core.IroningException;
import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.path.GamePath;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.util.List;
import java.util.Optional;

/** Whether a value that the user wrote fits the field that it is for. */
public final class FieldCheck {
  private FieldCheck() {}

  /**
   * What the game's definition says of a place of a record, be it a field, a row ({@code
   * hold[Skerry.plug/76]}) or a field of a row.
   */
  public static Field fieldAt(RecordType type, String place) {
    if (place.equals(Combiner.WHOLE_RECORD)) return type.asField();
    int open = place.indexOf('[');
    if (open < 0) return type.field(place);
    Field rows = type.field(place.substring(0, open));
    int dot = place.indexOf("].", open);
    return dot < 0 ? rows.row() : rows.fields().getOrDefault(place.substring(dot + 2), Field.WHOLE);
  }

  /**
   * A value in its text form, written as it is kept.
   *
   * @param index to know whether a reference leads anywhere
   * @throws IroningException with the reason and what fits, for one that does not
   */
  public static String normal(String place, Field field, String text, RecordIndex index) {
    Value v =
        PluginText.value(text)
            .orElseThrow(
                () ->
                    bad(
                        place,
                        "“" + text + "” is no value in the text form of plugins",
                        "Write it like 12, \"a text\", true, [ … ] or {\"ref\":\"Skerry.plug/420\"}."));
    check(place, field, v, index);
    return PluginText.node(v).toString();
  }

  private static void check(String place, Field field, Value v, RecordIndex index) {
    Kind kind = field.kind();
    if (v instanceof Value.Null && kind != Kind.WHOLE) return;
    Optional<Double> number =
        v instanceof Value.Int i
            ? Optional.of((double) i.value())
            : v instanceof Value.Real r ? Optional.of(r.value()) : Optional.empty();
    switch (kind) {
      case NUMBER -> {
        if (number.isEmpty()) throw bad(place, "it is no number", "Write a number, such as 12.5.");
        if (!field.admits(number.get())) throw bad(place, "it is out of range", range(field));
      }
      case TEXT -> {
        if (!(v instanceof Value.Text)) throw bad(place, "it is no text", "Write a text.");
      }
      case TRUTH -> {
        if (!(v instanceof Value.Truth))
          throw bad(place, "it is neither yes nor no", "Write true or false.");
      }
      case PATH -> {
        if (!(v instanceof Value.Text t) || !isPath(t.value()))
          throw bad(place, "it is no path", "Write a path in the game, such as textures/a.png.");
      }
      case REF -> checkRef(place, field, v, index);
      case SET, SEQUENCE, ROWS -> {
        if (!(v instanceof Value.Array a)) throw bad(place, "it is no list", "Write a list.");
        Field item = kind == Kind.ROWS ? field.row() : field.of().orElse(Field.WHOLE);
        for (Value i : a.items()) {
          if (kind == Kind.ROWS) checkRow(place, field, i, index);
          else check(place, item, i, index);
        }
      }
      default -> {
        if (v instanceof Value.Fields f)
          f.map()
              .forEach(
                  (name, i) ->
                      check(place, field.fields().getOrDefault(name, Field.WHOLE), i, index));
      }
    }
  }

  private static void checkRow(String place, Field rows, Value row, RecordIndex index) {
    String key = rows.key().orElse("");
    if (!(row instanceof Value.Fields f) || !f.map().containsKey(key))
      throw bad(place, "a row has no “" + key + "”", "Give every row the field “" + key + "”.");
    check(place, rows.row(), row, index);
  }

  private static void checkRef(String place, Field field, Value v, RecordIndex index) {
    // a document names a record of the type by its id alone
    boolean byId = !(v instanceof Ref) && index.isNamed() && field.to().isPresent();
    if (byId) {
      String id =
          v instanceof Value.Text t
              ? t.value()
              : v instanceof Value.Int i ? Long.toString(i.value()) : "";
      if (index.find(Ref.named(field.to().get(), List.of(id))) >= 0) return;
      throw bad(
          place, "no plugin that is on has such a " + field.to().get(), "Write the id of one.");
    }
    if (!(v instanceof Ref r)) throw bad(place, "it is no reference", "Pick a record by its name.");
    int record = index.find(r);
    if (record < 0)
      throw bad(place, "no plugin that is on has the record " + r, "Pick a record by its name.");
    String to = field.to().orElse(index.type(record));
    if (!index.type(record).equals(to))
      throw bad(
          place,
          r + " is a " + index.type(record) + ", and a " + to + " belongs here",
          "Pick a record of that type.");
  }

  private static boolean isPath(String text) {
    try {
      GamePath.check(text);
      return true;
    } catch (IroningException e) {
      return false;
    }
  }

  private static String range(Field field) {
    String from = field.min().isPresent() ? " from " + plain(field.min().getAsDouble()) : "";
    String to = field.max().isPresent() ? " up to " + plain(field.max().getAsDouble()) : "";
    return "Write a number" + from + to + ".";
  }

  private static String plain(double d) {
    return d == Math.rint(d) && Math.abs(d) < 1e15 ? Long.toString((long) d) : Double.toString(d);
  }

  private static IroningException bad(String place, String reason, String remedy) {
    return IroningException.of(
        "value-unfit",
        place,
        Character.toUpperCase(reason.charAt(0)) + reason.substring(1) + ".",
        remedy);
  }
}
