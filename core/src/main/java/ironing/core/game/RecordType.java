package ironing.core.game;

import java.util.Map;
import java.util.Optional;

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
   * @param unit shown behind numbers
   * @param pair a field that is usually changed together with this one
   * @param of what a set or sequence holds
   * @param key the field that tells rows apart
   * @param fields the fields of a row
   */
  public record Field(
      Kind kind,
      Optional<String> unit,
      Optional<String> pair,
      Optional<Field> of,
      Optional<String> key,
      Map<String, Field> fields) {
    public static final Field WHOLE =
        new Field(
            Kind.WHOLE,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Map.of());

    /** A map with these fields in it, taken whole. */
    public static Field holding(Map<String, Field> fields) {
      return new Field(
          Kind.WHOLE,
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          Optional.empty(),
          fields);
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
