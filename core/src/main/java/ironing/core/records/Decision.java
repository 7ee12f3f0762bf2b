package ironing.core.records;

import ironing.core.path.PathCase;
import java.util.Optional;

/** What the user says at one place of a record, or of the record as a whole. */
public sealed interface Decision {
  /** The value that a plugin has there; at the whole record, its version. */
  record Take(String plugin) implements Decision {
    @Override
    public boolean equals(Object o) {
      return o instanceof Take t && PathCase.fold(t.plugin).equals(PathCase.fold(plugin));
    }

    @Override
    public int hashCode() {
      return PathCase.fold(plugin).hashCode();
    }
  }

  /** What comes out, whoever changed it. */
  enum Outcome implements Decision {
    /** What was there before anybody changed it. */
    AS_BEFORE,
    /** The sequence that the sides are laid into. */
    MERGED,
    /** The field, or the whole record, is not there at all. */
    REMOVED
  }

  /**
   * A value of the user's own.
   *
   * @param text its text form, as {@link FieldCheck#normal} writes it
   */
  record Own(String text) implements Decision {}

  /** The plugin that is taken. */
  default Optional<String> taken() {
    return this instanceof Take t ? Optional.of(t.plugin) : Optional.empty();
  }
}
