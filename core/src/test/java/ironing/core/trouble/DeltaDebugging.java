package ironing.core.trouble;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;

/**
 * The minimising algorithm ddmin as published by A. Zeller and R. Hildebrandt, "Simplifying and
 * Isolating Failure-Inducing Input", IEEE Transactions on Software Engineering 28(2), 2002, figure
 * 5: subsets, then complements, then twice as many parts. Where members need others, a subset is
 * tried with what it needs, and a complement without what needs the part that is gone. No set is
 * tried twice.
 */
final class DeltaDebugging {
  private final Members members;
  private final Predicate<BitSet> fails;
  private final Map<BitSet, Boolean> tried = new HashMap<>();

  DeltaDebugging(Members members, Predicate<BitSet> fails) {
    this.members = members;
    this.fails = fails;
  }

  /** How many sets were tried. */
  int tries() {
    return tried.size();
  }

  BitSet minimised() {
    BitSet now = members.all();
    int parts = 2;
    while (now.cardinality() > 1) {
      List<BitSet> cut = cut(now, parts);
      BitSet smaller = null;
      for (BitSet part : cut) {
        BitSet set = members.closure(part);
        if (smaller == null && !set.equals(now) && shows(set)) smaller = set;
      }
      int next = 2;
      if (smaller == null) {
        for (BitSet part : cut) {
          BitSet set = members.without(now, part);
          if (smaller == null && shows(set)) smaller = set;
        }
        next = Math.max(parts - 1, 2);
      }
      if (smaller == null) {
        if (parts >= now.cardinality()) break;
        parts = Math.min(2 * parts, now.cardinality());
        continue;
      }
      now = smaller;
      parts = Math.min(next, Math.max(1, now.cardinality()));
    }
    return now;
  }

  private boolean shows(BitSet set) {
    // that nothing shows no fault is what the algorithm begins with: it costs no try
    if (set.isEmpty()) return false;
    return tried.computeIfAbsent((BitSet) set.clone(), fails::test);
  }

  private static List<BitSet> cut(BitSet set, int parts) {
    List<Integer> all = new ArrayList<>();
    for (int m = set.nextSetBit(0); m >= 0; m = set.nextSetBit(m + 1)) all.add(m);
    List<BitSet> out = new ArrayList<>();
    int from = 0;
    for (int i = 0; i < parts; i++) {
      int to = from + (all.size() - from) / (parts - i);
      BitSet part = new BitSet();
      for (int m : all.subList(from, to)) part.set(m);
      out.add(part);
      from = to;
    }
    return out;
  }
}
