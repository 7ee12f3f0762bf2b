package ironing.server.catalogue;

import ironing.core.Problem;
import ironing.server.catalogue.CatalogueLook.Outcome;
import ironing.server.catalogue.CatalogueTaking.News;
import ironing.server.platform.MayBeAbsent;
import java.util.List;

/**
 * What the last look at a catalogue came to.
 *
 * @param outcome whether another state was taken, it was the same, or nothing was taken
 * @param parts how many files were fetched for it
 * @param news how the state that was taken differs from the one before; absent where none was
 * @param problems why nothing was taken
 * @param otherKey a key that is not the one that was kept, and why nothing was taken; absent for
 *     none
 */
record LookView(
    LookOutcome outcome,
    int parts,
    @MayBeAbsent News news,
    List<Problem> problems,
    @MayBeAbsent String otherKey) {
  /** What came of a look. */
  enum LookOutcome {
    TAKEN,
    SAME,
    REFUSED
  }

  static LookView taken(int parts, News news) {
    return new LookView(LookOutcome.TAKEN, parts, news, List.of(), null);
  }

  static LookView of(Outcome outcome) {
    if (outcome instanceof Outcome.Taken t) return taken(t.parts(), t.news());
    if (outcome instanceof Outcome.Refused r)
      return new LookView(LookOutcome.REFUSED, 0, null, r.problems(), r.otherKey().orElse(null));
    return new LookView(LookOutcome.SAME, 0, null, List.of(), null);
  }
}
