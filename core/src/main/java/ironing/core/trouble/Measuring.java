package ironing.core.trouble;

import ironing.core.trouble.Next.Why;
import ironing.core.trouble.TriedSets.Tried;
import java.util.BitSet;
import java.util.List;

/**
 * Measures what one member costs: the whole set is run with it, and without it and what needs it, a
 * few times each, in turns, so that a machine that becomes slower meanwhile does so for both.
 *
 * <p>It is a function of the tries so far, as {@link FaultSearch} is. A run that did not come to
 * its end measures nothing and is made again. Threads: immutable.
 */
public final class Measuring {
  /** So many runs of one set may measure nothing. */
  private static final int VAIN = 3;

  private final BitSet with;
  private final BitSet without;
  private final int member;
  private final int times;

  /**
   * @param times how often each of the two sets is measured, at least once
   */
  public Measuring(Members members, int member, int times) {
    this.with = members.all();
    this.without = members.without(with, member);
    this.member = member;
    this.times = times;
  }

  /** The set with the member, which is the whole one. */
  public boolean isWith(BitSet set) {
    return set.equals(with);
  }

  /** Whether a try has measured something. */
  public static boolean measures(Answer answer) {
    return answer == Answer.WORKS;
  }

  /** What to run next; {@link Next.Measured} once all is measured. Cost: O(tries). */
  public Next next(List<Tried> tries) {
    int[] measured = new int[2], vain = new int[2];
    for (Tried t : tries) {
      int which = isWith(t.set()) ? 0 : 1;
      if (measures(t.answer())) measured[which]++;
      else vain[which]++;
    }
    if (vain[0] >= VAIN || vain[1] >= VAIN)
      return new Next.Untold(List.of((BitSet) (vain[0] >= VAIN ? with : without).clone()));
    int left = Math.max(0, times - measured[0]) + Math.max(0, times - measured[1]);
    if (left == 0) return new Next.Measured();
    boolean first = isWithNext(measured[0], measured[1]);
    BitSet subject = new BitSet();
    subject.set(member);
    return new Next.Try(
        (BitSet) (first ? with : without).clone(),
        first ? Why.MEASURE_WITH : Why.MEASURE_WITHOUT,
        first ? -1 : member,
        new BitSet(),
        new BitSet(),
        subject,
        left);
  }

  // with, without; without, with; and so on: who comes first is no advantage
  private boolean isWithNext(int with, int without) {
    if (with != without) return with < without;
    return with % 2 == 0;
  }
}
