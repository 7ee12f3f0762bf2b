package ironing.core.trouble;

import java.util.BitSet;
import java.util.List;

/** Where a search stands: what it asks for next, or what has come of it. */
public sealed interface Next {
  /** What a set is tried for. */
  enum Why {
    /** Whether the fault shows with everything. */
    EVERYTHING,
    /** Whether it shows with nothing: then none of the members is behind it. */
    NOTHING,
    /** A step of a build-up: all that came before it, and what it adds. */
    STEP,
    /** Whether those that are known to be needed for it are enough. */
    ENOUGH,
    /** To halve what is under suspicion. */
    NARROW,
    /** Whether it goes without one that is under suspicion no more, or was never told apart. */
    LEAVE_OUT,
    /** To measure the whole set. */
    MEASURE_WITH,
    /** To measure it without one member. */
    MEASURE_WITHOUT,
    /** Whether it shows with the set that was found, once more. */
    PROOF_WITH,
    /** Whether it does not show without one member of the set that was found. */
    PROOF_WITHOUT;

    /** Whether the search itself is over, and only what it found is shown again. */
    public boolean isProof() {
      return this == PROOF_WITH || this == PROOF_WITHOUT;
    }
  }

  /**
   * A set to try.
   *
   * @param set closed
   * @param without for a proof or a measurement, the member that it is tried without; -1 otherwise
   * @param suspects the members of which nobody knows yet whether the fault needs them
   * @param hunted those of them among which one is that the fault needs
   * @param certain those that it is known to need, with what they need
   * @param atMostLeft how many sets there are left to try at most, this one among them, if the
   *     fault needs no member more than those that are certain and one
   */
  record Try(
      BitSet set,
      Why why,
      int without,
      BitSet suspects,
      BitSet hunted,
      BitSet certain,
      int atMostLeft)
      implements Next {}

  /**
   * A smallest set: with it the fault shows; without any one member, and what needs that, it does
   * not.
   *
   * @param unproved the members without which it could not be told
   */
  record Found(BitSet set, BitSet unproved) implements Next {}

  /** What a member costs is measured. */
  record Measured() implements Next {}

  /** The fault does not show with everything, or with no step of a build-up. */
  record NotShown() implements Next {}

  /** The fault shows with nothing: it goes with no member. */
  record GoesWithNone() implements Next {}

  /** The set in which the fault showed shows it no more, and nothing tells why. */
  record Untold(List<BitSet> asked) implements Next {}
}
