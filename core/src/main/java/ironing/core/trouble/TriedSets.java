package ironing.core.trouble;

import ironing.core.trouble.Next.Why;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What all tries of a search come to. A fault may come only sometimes: how often is told by the
 * sets in which it has shown, and a set without it counts as working only after so many tries that
 * it would have shown with a chance of ninety-nine in a hundred.
 *
 * <p>Threads: immutable.
 */
public final class TriedSets implements FaultSearch.Answers {
  private static final double DOUBT = 0.01;
  private static final int MOST_TRIES = 25;
  private static final int TRIES_THAT_TELL_NOTHING = 3;
  private static final int SHOWN_FOR_PROOF = 2;
  private static final int SHOWN_TO_BE_SURE = 3;

  private final Map<BitSet, List<Answer>> bySet = new HashMap<>();
  private final int wholeFirst;
  private final int shown;
  private final int told;

  /** One try of a set. */
  public record Tried(BitSet set, Answer answer) {}

  /** Those of a search that tries the whole set once before it goes on. */
  public TriedSets(List<Tried> tries) {
    this(tries, 1);
  }

  /**
   * Cost: O(tries).
   *
   * @param wholeFirst how often the whole set is tried before the search goes on, to see whether
   *     the fault comes every time
   */
  public TriedSets(List<Tried> tries, int wholeFirst) {
    this.wholeFirst = wholeFirst;
    for (Tried t : tries)
      bySet.computeIfAbsent((BitSet) t.set().clone(), s -> new ArrayList<>()).add(t.answer());
    int fails = 0, all = 0;
    for (List<Answer> of : bySet.values()) {
      int f = count(of, Answer.FAILS);
      if (f == 0) continue;
      fails += f;
      all += f + count(of, Answer.WORKS);
    }
    this.shown = fails;
    this.told = all;
  }

  private static int count(List<Answer> of, Answer which) {
    return (int) of.stream().filter(a -> a == which).count();
  }

  /** In how many tries of sets that can show the fault it has shown. */
  public int shown() {
    return shown;
  }

  /** How many tries of sets that can show the fault tell whether it shows. */
  public int told() {
    return told;
  }

  /** Whether it has been seen to come and not to come with one set. */
  public boolean comesSometimes() {
    return shown > 0 && shown < told;
  }

  /** How often a set must have worked to count as working. */
  public int triesToTrust() {
    if (!comesSometimes()) return 1;
    double rate = (double) shown / told;
    return Math.min(MOST_TRIES, (int) Math.ceil(Math.log(DOUBT) / Math.log(1 - rate)));
  }

  /** How many tries there were of a set. */
  public int triesOf(BitSet set) {
    return bySet.getOrDefault(set, List.of()).size();
  }

  @Override
  public Optional<Answer> of(BitSet set, Why why) {
    List<Answer> of = bySet.getOrDefault(set, List.of());
    int fails = count(of, Answer.FAILS), works = count(of, Answer.WORKS);
    if (why == Why.PROOF_WITH) {
      // one that has always come need not be seen again where it was seen
      boolean sure = fails > 0 && !comesSometimes() && shown >= SHOWN_TO_BE_SURE;
      if (sure || fails >= SHOWN_FOR_PROOF) return Optional.of(Answer.FAILS);
      return of.size() >= MOST_TRIES ? Optional.of(Answer.CANNOT_TELL) : Optional.empty();
    }
    if (why == Why.EVERYTHING && of.size() < wholeFirst) return Optional.empty();
    if (fails > 0) return Optional.of(Answer.FAILS);
    int nothing = of.size() - works;
    if (works >= triesToTrust()) return Optional.of(Answer.WORKS);
    boolean hopeless = nothing >= TRIES_THAT_TELL_NOTHING || (nothing > 0 && !comesSometimes());
    if (!hopeless) return Optional.empty();
    boolean another = of.contains(Answer.ANOTHER_FAULT);
    return Optional.of(another ? Answer.ANOTHER_FAULT : Answer.CANNOT_TELL);
  }
}
