package ironing.server.job;

import ironing.core.Problem;
import ironing.server.platform.MayBeAbsent;
import java.util.List;

/**
 * One piece of long work as the page sees it.
 *
 * @param done and total in {@code unit}; total 0 means that nobody can tell yet
 * @param result what came of it: the number of the workspace or mod that was made
 */
public record Job(
    long id,
    long workspace,
    String kind,
    String title,
    State state,
    long done,
    long total,
    String unit,
    List<Problem> problems,
    @MayBeAbsent Long result) {
  /** Where it stands. */
  public enum State {
    RUNNING,
    DONE,
    FAILED,
    CANCELLED
  }
}
