package ironing.server.workspace;

import ironing.core.IroningException;
import ironing.server.platform.Revision;

/**
 * What somebody saw of an arrangement that is to change.
 *
 * @param revision which it has to be still; {@link #ANY} does not matter
 * @param dry whether it is only asked what would change
 */
public record Expected(long revision, boolean dry) {
  private static final long WHATEVER = -1;

  /** A change of the arrangement as it is, whatever it is by now. */
  public static final Expected ANY = new Expected(WHATEVER, false);

  /** Nothing changes: it is only asked what would. */
  public static final Expected DRY = new Expected(WHATEVER, true);

  /**
   * Of a request: asking what a change would do needs no revision.
   *
   * @throws IroningException with code {@code if-match-missing}
   */
  public static Expected of(boolean dryRun, String ifMatch) {
    return dryRun ? DRY : of(ifMatch);
  }

  /**
   * Of a request.
   *
   * @throws IroningException with code {@code if-match-missing}
   */
  public static Expected of(String ifMatch) {
    return new Expected(Revision.fromIfMatch(ifMatch), false);
  }

  boolean admits(long present) {
    return revision == WHATEVER || revision == present;
  }
}
