package ironing.core.trouble;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;

/**
 * What a search may leave out or keep, each by its number from 0, and which of them need which. A
 * set that holds all that its members need is <em>closed</em>; only such sets may be tried.
 *
 * <p>Threads: immutable; no set that it gives is kept by it.
 */
public final class Members {
  private final int count;
  private final List<BitSet> needed;
  private final List<BitSet> dependants;

  /** That one member needs another. */
  public record Need(int member, int other) {}

  /**
   * Cost: O(count · needs / 64) at worst; members that need each other are allowed.
   *
   * @param needs between members; what a member needs further on is worked out from them
   */
  public Members(int count, List<Need> needs) {
    this.count = count;
    List<List<Integer>> there = lists(count), back = lists(count);
    for (Need n : needs) {
      there.get(n.member()).add(n.other());
      back.get(n.other()).add(n.member());
    }
    this.needed = reached(there);
    this.dependants = reached(back);
  }

  private static List<List<Integer>> lists(int count) {
    List<List<Integer>> out = new ArrayList<>();
    for (int i = 0; i < count; i++) out.add(new ArrayList<>());
    return out;
  }

  private static List<BitSet> reached(List<List<Integer>> arrows) {
    List<BitSet> out = new ArrayList<>();
    for (int i = 0; i < arrows.size(); i++) {
      BitSet seen = new BitSet(arrows.size());
      List<Integer> open = new ArrayList<>(List.of(i));
      seen.set(i);
      while (!open.isEmpty()) {
        for (int next : arrows.get(open.remove(open.size() - 1))) {
          if (seen.get(next)) continue;
          seen.set(next);
          open.add(next);
        }
      }
      out.add(seen);
    }
    return List.copyOf(out);
  }

  public int count() {
    return count;
  }

  /** All of them. */
  public BitSet all() {
    BitSet out = new BitSet(count);
    out.set(0, count);
    return out;
  }

  /** A member with all that it needs, near and far. */
  public BitSet withNeeds(int member) {
    return (BitSet) needed.get(member).clone();
  }

  /** The smallest closed set that holds some members. */
  public BitSet closure(BitSet members) {
    BitSet out = new BitSet(count);
    for (int m = members.nextSetBit(0); m >= 0; m = members.nextSetBit(m + 1))
      out.or(needed.get(m));
    return out;
  }

  /** A set without some of its members and all that needs any of them. */
  public BitSet without(BitSet set, BitSet gone) {
    BitSet out = (BitSet) set.clone();
    for (int m = gone.nextSetBit(0); m >= 0; m = gone.nextSetBit(m + 1))
      out.andNot(dependants.get(m));
    return out;
  }

  /** A set without one of its members and all that needs it. */
  public BitSet without(BitSet set, int gone) {
    BitSet out = (BitSet) set.clone();
    out.andNot(dependants.get(gone));
    return out;
  }

  /** Whether a set holds all that its members need. */
  public boolean isClosed(BitSet set) {
    return closure(set).equals(set);
  }
}
