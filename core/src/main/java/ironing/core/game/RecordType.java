package ironing.core.game;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/** What is known of one type of record. A field that is not described is a whole value. */
public record RecordType(String title, Optional<String> label, Map<String, Field> fields) {

  /** How the values of a field compare and combine. */
  public enum Kind {
    TEXT,
    NUMBER,
    TRUTH,
    REF,
    PATH,
    SET,
    ROWS,
    SEQUENCE,
    WHOLE
  }

  /**
   * @param title for people, where the field's name is not enough
   * @param unit shown behind numbers
   * @param pair a field that is usually changed together with this one
   * @param of what a set or sequence holds
   * @param key the field that tells rows apart
   * @param fields the fields of a row
   * @param to the type of record that a reference leads to, where only one makes sense
   * @param min the least number that makes sense
   * @param max the greatest
   * @param holdsIds whether a text may have records' keys in it
   */
  public record Field(
      Kind kind,
      Optional<String> title,
      Optional<String> unit,
      Optional<String> pair,
      Optional<Field> of,
      Optional<String> key,
      Map<String, Field> fields,
      Optional<String> to,
      OptionalDouble min,
      OptionalDouble max,
      boolean holdsIds) {
    public static final Field WHOLE = holding(Map.of());

    /** A map with these fields in it, taken whole. */
    public static Field holding(Map<String, Field> fields) {
      return new Field(
          Kind.WHOLE,
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          fields,
          Optional.empty(),
          OptionalDouble.empty(),
          OptionalDouble.empty(),
          false);
    }

    /** Whether a number lies within what makes sense. */
    public boolean admits(double number) {
      return !(min.isPresent() && number < min.getAsDouble())
          && !(max.isPresent() && number > max.getAsDouble());
    }

    /** One row of these rows. */
    public Field row() {
      return holding(fields);
    }
  }

  /** A type that the game's definition does not describe. */
  public static RecordType undescribed(String type) {
    return new RecordType(type, Optional.empty(), Map.of());
  }

  public Field field(String name) {
    return fields.getOrDefault(name, Field.WHOLE);
  }

  /** The record as one value, whose inside compares as its fields do. */
  public Field asField() {
    return Field.holding(fields);
  }
}
