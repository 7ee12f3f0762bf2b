package ironing.core.trouble;

import java.util.Collection;

/**
 * How much a member is suspected, as a number between 0 and 1; only how two compare counts. The
 * weights are common practice and have no source: what has just changed and what the fault names
 * come before what is odd in some other way.
 */
public final class Suspicions {
  private static final double OF_ANYBODY = 0.02;
  private static final double WHERE_HARMLESS = 0.2;

  private Suspicions() {}

  /** Why a member is suspected. */
  public enum Reason {
    /** The fault names a file, plugin or record that is in play from it. */
    NAMED(0.5),
    /** It was switched on, got another version or other files since the fault was not there. */
    CHANGED(0.4),
    /** An own finding says that it is broken. */
    FOUND_BROKEN(0.4),
    /** It has been behind a fault of this code and place before. */
    RECALLED(0.6),
    /** It stands in the order otherwise than when the fault was not there. */
    MOVED(0.2),
    /** It brings, or changes, what the fault names, and another one stands before it. */
    MEETS_NAMED(0.3),
    /** A wrinkle is about it. */
    WRINKLE(0.15),
    /** It is otherwise than a list says that is followed. */
    DEPARTS(0.2),
    /** Some of its files are held back. */
    HELD_BACK(0.15),
    /** Findings of others say that it is broken. */
    SAID_BROKEN(0.15),
    /** It has come last to the library. */
    NEW(0.1),
    /** It holds nothing but what the game's definition calls harmless: that speaks for it. */
    HARMLESS(0);

    private final double weight;

    Reason(double weight) {
      this.weight = weight;
    }
  }

  /** Of a member with some reasons: each leaves that much less of its innocence. */
  public static double of(Collection<Reason> reasons) {
    double innocent = 1 - OF_ANYBODY;
    for (Reason r : reasons) innocent *= 1 - r.weight;
    return (1 - innocent) * (reasons.contains(Reason.HARMLESS) ? WHERE_HARMLESS : 1);
  }

  /** Of the member at a place of a ranking, from 0, where nothing but the ranking is known. */
  public static double ofRank(int rank) {
    return 1.0 / (rank + 4);
  }
}
