package ironing.core.trouble;

import ironing.core.trouble.Next.Why;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The search for a smallest set of members that still shows a fault. It is a function of the
 * answers so far: what it asks for next depends on nothing else, so it can be stopped at any time,
 * gone on with from the answers alone, and an answer can be taken back.
 *
 * <p>The members that are still under suspicion stand in an order, the most suspicious first, each
 * behind what it needs; so every beginning of the order is a closed set. The fault shows with the
 * whole of it. The place at which it begins to show is found by halving the suspicion that is left;
 * the member at that place is needed for the fault. Then the same is done with those before it,
 * until the needed ones are enough. This asks for about k · log2(n) sets where the fault needs k
 * members of n. What is found is tried again without each of its members, so nothing is taken for
 * granted of how faults behave: where one shows without a member the search goes on from there.
 *
 * <p>Cost of {@link #next}: O(sets asked so far · n · n / 64). Threads: immutable.
 */
public final class FaultSearch {
  /** How many other places are tried where one cannot be told. */
  private static final int OTHER_PLACES = 3;

  /** How much less what worked in a step before is suspected. */
  private static final double COMPANY = 0.1;

  private final Members members;
  private final double[] suspicion;
  private final boolean nothingFirst;
  private final List<List<Integer>> steps;

  /**
   * @param suspicion of each member, above 0; only how they compare counts
   * @param nothingFirst whether to ask at once whether the fault shows with nothing; else only
   *     where what is found depends on it
   */
  public FaultSearch(Members members, double[] suspicion, boolean nothingFirst) {
    this(members, suspicion, nothingFirst, List.of());
  }

  private FaultSearch(
      Members members, double[] suspicion, boolean nothingFirst, List<List<Integer>> steps) {
    if (suspicion.length != members.count())
      throw new IllegalArgumentException(
          suspicion.length + " suspicions for " + members.count() + " members");
    this.members = members;
    this.suspicion = suspicion.clone();
    this.nothingFirst = nothingFirst;
    this.steps = steps;
  }

  /**
   * The same search where the set is built up first: it goes on with the first step that shows the
   * fault, which lies in what that step has added.
   *
   * @param steps the members that come with each; with those before them they are a closed set
   */
  public FaultSearch builtUp(List<List<Integer>> steps) {
    return new FaultSearch(members, suspicion, nothingFirst, steps);
  }

  /** Ends the walk through the answers at the first that is not there. */
  private static final class Asked extends RuntimeException {
    private static final long serialVersionUID = 1;
    private final transient Next.Try asks;

    Asked(Next.Try asks) {
      super(null, null, false, false);
      this.asks = asks;
    }
  }

  /** What is known of the sets that have been tried. */
  @FunctionalInterface
  public interface Answers {
    /**
     * What trying a set has shown; empty where it has not been tried, or not often enough.
     *
     * @param why what it is asked for: a proof may take more than a step on the way
     */
    Optional<Answer> of(BitSet set, Why why);
  }

  /** Where the search stands. */
  public Next next(Answers answers) {
    try {
      return new Walk(answers).walk();
    } catch (Asked asked) {
      return asked.asks;
    }
  }

  /** One walk through the answers. */
  private final class Walk {
    private final Answers answers;
    private final double[] doubt = suspicion.clone();
    private final Map<BitSet, Answer> told = new HashMap<>();
    private BitSet failing = members.all();
    private BitSet certain = new BitSet();
    // those between two places where nothing could be told
    private BitSet vague = new BitSet();
    private BitSet hunted = members.all();

    Walk(Answers answers) {
      this.answers = answers;
    }

    Next walk() {
      if (steps.isEmpty()
          && ask(members.all(), Why.EVERYTHING, -1, atMost(members.count(), 2)) != Answer.FAILS)
        return new Next.NotShown();
      if (nothingFirst
          && ask(new BitSet(), Why.NOTHING, -1, atMost(members.count(), 1)) == Answer.FAILS)
        return new Next.GoesWithNone();
      if (!steps.isEmpty() && !buildUp()) return new Next.NotShown();
      while (true) {
        narrow();
        leaveOut();
        Optional<BitSet> smaller = proved();
        if (smaller.isEmpty()) return outcome();
        // less is enough: the fault does not behave as simply as was thought
        failing = smaller.get();
        if (failing.isEmpty()) return new Next.GoesWithNone();
        certain = new BitSet();
        vague = new BitSet();
      }
    }

    /** Goes from step to step until one shows the fault; whether one does. */
    private boolean buildUp() {
      BitSet set = new BitSet();
      for (int i = 0; i < steps.size(); i++) {
        BitSet before = (BitSet) set.clone();
        for (int m : steps.get(i)) set.set(m);
        if (ask(set, Why.STEP, -1, steps.size() - i) != Answer.FAILS) continue;
        failing = set;
        // what was there before works by itself: it is company at most
        for (int m = 0; m < doubt.length; m++) if (before.get(m)) doubt[m] *= COMPANY;
        return true;
      }
      return false;
    }

    /** Finds, one by one, members without which the fault does not show. */
    private void narrow() {
      while (!failing.equals(certain)) {
        if (!certain.isEmpty()
            && ask(certain, Why.ENOUGH, -1, atMost(left(), certain.cardinality()))
                == Answer.FAILS) {
          failing = (BitSet) certain.clone();
          return;
        }
        int[] order = order();
        int works = 0, fails = order.length;
        List<Integer> untold = new ArrayList<>();
        while (fails - works > 1) {
          int place = place(order, works, fails, untold);
          if (place < 0) break;
          hunted = hunted(order, works, fails);
          int depth = depth(order, works, fails) + certain.cardinality() + 2;
          switch (ask(beginning(order, place), Why.NARROW, -1, depth)) {
            case FAILS -> fails = place;
            case WORKS -> works = place;
            default -> untold.add(place);
          }
          int from = works, to = fails;
          untold.removeIf(p -> p <= from || p >= to);
        }
        failing = beginning(order, fails);
        // where nothing between two places could be told, all of them may be needed
        for (int i = works; i < fails; i++) {
          certain.or(members.withNeeds(order[i]));
          if (fails - works > 1) vague.set(order[i]);
        }
      }
    }

    /** Leaves out what it can of those that were never told apart, in ever smaller parts. */
    private void leaveOut() {
      vague.and(failing);
      for (int part = (vague.cardinality() + 1) / 2; part > 0 && !vague.isEmpty(); ) {
        for (BitSet some : parts(vague, part)) {
          BitSet less = members.without(failing, some);
          if (less.equals(failing)) continue;
          int left = 2 * vague.cardinality() + certain.cardinality();
          if (ask(less, Why.LEAVE_OUT, -1, left) == Answer.FAILS) failing = less;
        }
        vague.and(failing);
        part = part == 1 ? 0 : (part + 1) / 2;
      }
      certain = (BitSet) failing.clone();
    }

    private List<BitSet> parts(BitSet set, int size) {
      List<BitSet> out = new ArrayList<>();
      BitSet part = new BitSet();
      for (int m = set.nextSetBit(0); m >= 0; m = set.nextSetBit(m + 1)) {
        part.set(m);
        if (part.cardinality() < size) continue;
        out.add(part);
        part = new BitSet();
      }
      if (!part.isEmpty()) out.add(part);
      return out;
    }

    /** Tries what was found without each of its members; gives a smaller set that shows it. */
    private Optional<BitSet> proved() {
      List<BitSet> tried = new ArrayList<>();
      for (int m = failing.nextSetBit(0); m >= 0; m = failing.nextSetBit(m + 1)) {
        BitSet less = members.without(failing, m);
        if (tried.contains(less)) continue;
        tried.add(less);
        if (ask(less, Why.PROOF_WITHOUT, m, proofsLeft(m)) == Answer.FAILS)
          return Optional.of(less);
      }
      return Optional.empty();
    }

    private int proofsLeft(int member) {
      return failing.cardinality() - failing.get(0, member).cardinality() + 1;
    }

    private Next outcome() {
      Answer again = ask(failing, Why.PROOF_WITH, -1, 1);
      if (again != Answer.FAILS) return new Next.Untold(List.of(failing));
      BitSet unproved = new BitSet();
      for (int m = failing.nextSetBit(0); m >= 0; m = failing.nextSetBit(m + 1))
        if (!ask(members.without(failing, m), Why.PROOF_WITHOUT, m, 1).tells()) unproved.set(m);
      return new Next.Found((BitSet) failing.clone(), unproved);
    }

    private int left() {
      return failing.cardinality() - certain.cardinality();
    }

    private int atMost(int suspects, int proofs) {
      return log2(suspects) + 3 + proofs;
    }

    /** Those under suspicion, the most suspicious first, each behind what it needs. */
    private int[] order() {
      List<Integer> suspects = new ArrayList<>();
      BitSet open = (BitSet) failing.clone();
      open.andNot(certain);
      for (int m = open.nextSetBit(0); m >= 0; m = open.nextSetBit(m + 1)) suspects.add(m);
      suspects.sort(Comparator.comparingDouble((Integer m) -> -doubt[m]));
      int[] out = new int[suspects.size()];
      int filled = 0;
      for (int m : suspects) {
        BitSet behind = members.withNeeds(m);
        behind.and(open);
        List<Integer> missing = new ArrayList<>();
        for (int n = behind.nextSetBit(0); n >= 0; n = behind.nextSetBit(n + 1)) missing.add(n);
        // who needs fewer comes first, so each beginning holds what its members need
        missing.sort(Comparator.comparingInt(n -> members.withNeeds(n).cardinality()));
        for (int n : missing) out[filled++] = n;
        open.andNot(behind);
      }
      return out;
    }

    private BitSet hunted(int[] order, int works, int fails) {
      BitSet out = new BitSet();
      for (int i = works; i < fails; i++) out.set(order[i]);
      return out;
    }

    private BitSet beginning(int[] order, int length) {
      BitSet out = (BitSet) certain.clone();
      for (int i = 0; i < length; i++) out.or(members.withNeeds(order[i]));
      return out;
    }

    /** The place that halves the suspicion between two others; -1 where no other is left to try. */
    private int place(int[] order, int works, int fails, List<Integer> untold) {
      if (untold.size() > OTHER_PLACES) return -1;
      int best = halving(order, works, fails);
      if (untold.isEmpty()) return best;
      int found = -1;
      for (int p = works + 1; p < fails; p++) {
        if (untold.contains(p)) continue;
        // far from all that could not be told, for neighbours have the same trouble
        if (found < 0 || distance(p, untold) > distance(found, untold)) found = p;
      }
      return found;
    }

    private int distance(int place, List<Integer> untold) {
      return untold.stream().mapToInt(u -> Math.abs(u - place)).min().orElse(0);
    }

    private int halving(int[] order, int works, int fails) {
      double all = 0;
      for (int i = works; i < fails; i++) all += doubt[order[i]];
      double below = 0;
      int best = works + 1;
      double nearest = Double.MAX_VALUE;
      for (int p = works + 1; p < fails; p++) {
        below += doubt[order[p - 1]];
        double off = Math.abs(all / 2 - below);
        if (off >= nearest) continue;
        nearest = off;
        best = p;
      }
      // a ranking may be wrong: an eighth goes with every question whatever it says
      int least = Math.max(1, (fails - works) / 8);
      return Math.max(works + least, Math.min(fails - least, best));
    }

    /** How many sets it takes at most to find the place between two others. */
    private int depth(int[] order, int works, int fails) {
      int deepest = 0;
      while (fails - works > 1) {
        int p = halving(order, works, fails);
        if (p - works > fails - p) fails = p;
        else works = p;
        deepest++;
      }
      return deepest;
    }

    private Answer ask(BitSet set, Why why, int without, int atMostLeft) {
      Answer known = why.isProof() ? null : told.get(set);
      if (known != null) return known;
      Optional<Answer> answer = answers.of((BitSet) set.clone(), why);
      if (answer.isEmpty()) {
        BitSet suspects = (BitSet) failing.clone();
        suspects.andNot(certain);
        throw new Asked(
            new Next.Try(
                (BitSet) set.clone(),
                why,
                without,
                suspects,
                why == Why.NARROW ? hunted : suspects,
                (BitSet) certain.clone(),
                Math.max(1, atMostLeft)));
      }
      told.put((BitSet) set.clone(), answer.get());
      return answer.get();
    }
  }

  private static int log2(int n) {
    return n <= 1 ? 0 : 32 - Integer.numberOfLeadingZeros(n - 1);
  }
}
