package ironing.core.library;

import java.util.Locale;
import java.util.Optional;

/**
 * What shows in the game that a mod works.
 *
 * @param says in a sentence
 * @param what the name of a report, the path of a file as it lies in the mod’s content, or where to
 *     look
 * @param is the value that is to be reported; empty where any will do
 * @param unit that the report is to have; empty where any will do
 */
public record Sign(
    Kind kind, String says, String what, Optional<String> is, Optional<String> unit) {
  /** By what it is told. */
  public enum Kind {
    REPORT,
    READ,
    /** By a person. */
    LOOK;

    /** The key of the card. */
    String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  public Sign {
    is = is == null ? Optional.empty() : is;
    unit = unit == null ? Optional.empty() : unit;
  }

  /**
   * Of a sign to look for, the place to which one goes for it: what stands before the first comma.
   */
  public String place() {
    int comma = what.indexOf(',');
    return (comma < 0 ? what : what.substring(0, comma)).strip();
  }
}
