package ironing.core.combinedfiles;

import java.util.List;
import java.util.Optional;

/**
 * A place of a file that somebody changed: some lines, or one key.
 *
 * @param key the same as long as the base and the sides have the same there; choices are kept by it
 * @param where what to call it: a key's pointer, or the lines of the base
 * @param base what the base has; empty where it has nothing
 * @param sides what those who changed it have, those alike together, in layer order
 * @param from whose change the outcome has; none where it is the base's or typed in
 * @param once whether it is no part of the file, but a name that may stand only once and would
 *     stand twice: taking all sides leaves it so, and nothing else settles it but other text
 *     elsewhere
 * @param outcome what comes out; empty where it is removed. While it is asked: what the highest
 *     layer has
 */
public record Place(
    String key,
    String where,
    Optional<String> base,
    List<Side> sides,
    How how,
    List<String> from,
    boolean once,
    Optional<String> outcome) {

  /**
   * What some have at a place.
   *
   * @param of their ids, in layer order
   * @param text empty where they removed it
   */
  public record Side(List<String> of, Optional<String> text) {}

  /** How a place was settled. */
  public enum How {
    /** One changed it, or several alike. */
    TAKEN,
    /** Changed in different ways: the user must say. */
    ASKED,
    /** The user has said. */
    DECIDED
  }
}
