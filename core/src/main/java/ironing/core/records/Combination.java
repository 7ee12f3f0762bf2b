package ironing.core.records;

import ironing.core.plugin.Value;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What combining the versions of one record came to, cell by cell.
 *
 * @param base the version that all leaves could see and are measured against
 * @param leaves the versions that no other stands for
 * @param cells one for each field that a leaf changed, in the order of the fields
 * @param outcome the combined fields; empty when a cell still waits for the user, or the record is
 *     removed
 */
public record Combination(
    Version base,
    List<Version> leaves,
    List<Cell> cells,
    boolean removed,
    Optional<Value.Fields> outcome) {

  /** How a cell was settled. */
  public enum How {
    /** One plugin changed it, or several alike. */
    TAKEN,
    /** A set or rows: what each side added and removed was put together. */
    JOINED,
    /** Changed in different ways: the user must say. */
    ASKED,
    /** The user has said. */
    DECIDED
  }

  /**
   * One field, or one field of one row ({@code hold[Skerry.plug/76].tonnes}).
   *
   * @param place the name by which decisions refer to it
   * @param proposals what each leaf that changed it says, by plugin name; an empty value removes it
   * @param outcome what comes out; empty while asked, or when it is removed
   * @param suggested what the sides come to when they are laid into one another, for a sequence
   *     that they changed in different stretches; empty when there is no such thing
   */
  public record Cell(
      String place,
      Optional<Value> before,
      Map<String, Optional<Value>> proposals,
      How how,
      Optional<Value> outcome,
      Optional<Value> suggested) {
    public Cell(
        String place,
        Optional<Value> before,
        Map<String, Optional<Value>> proposals,
        How how,
        Optional<Value> outcome) {
      this(place, before, proposals, how, outcome, Optional.empty());
    }
  }

  /** Whether nothing waits for the user. */
  public boolean settled() {
    return cells.stream().noneMatch(c -> c.how() == How.ASKED);
  }

  public long asked() {
    return cells.stream().filter(c -> c.how() == How.ASKED).count();
  }
}
