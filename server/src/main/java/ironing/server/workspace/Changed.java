package ironing.server.workspace;

import ironing.core.picture.Arrangement;
import ironing.core.picture.Difference;

/**
 * A workspace before a change and after it; or as it would be after one that was only asked about.
 * Without any difference the two are the same.
 */
public record Changed(OpenWorkspace before, OpenWorkspace after) {
  /** A workspace, and what it would be under another arrangement. */
  public static Changed as(OpenWorkspace before, Arrangement next) {
    boolean same = next.equals(before.picture().arrangement());
    return new Changed(before, same ? before : before.as(before.picture().rearranged(next)));
  }

  /** What the game reads differently. */
  public Difference difference() {
    return Difference.between(before.picture(), after.picture());
  }
}
