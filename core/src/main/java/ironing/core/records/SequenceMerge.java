package ironing.core.records;

import ironing.core.plugin.Value;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.eclipse.jgit.diff.Edit;
import org.eclipse.jgit.diff.MyersDiff;
import org.eclipse.jgit.diff.Sequence;
import org.eclipse.jgit.diff.SequenceComparator;

/**
 * Lays the changes that several made to one sequence into one another, as texts are merged line by
 * line: a stretch that one changed is taken, and where two changed the same or touching stretches
 * differently there is no outcome.
 */
final class SequenceMerge {
  private SequenceMerge() {}

  /**
   * What one side has in the place of a stretch of the base.
   *
   * @param from the first item of the base that it replaces
   * @param to the first behind them; {@code from} for what is only put in
   */
  private record Change(int from, int to, List<Value> items, List<Object> keys) {}

  /**
   * @param key the same for items that are the same
   * @return the sequence, or nothing where the sides do not fit into one another
   */
  static Optional<List<Value>> of(
      List<Value> base, List<List<Value>> sides, Function<Value, Object> key) {
    List<Change> changes = new ArrayList<>();
    for (List<Value> side : sides) changes.addAll(changes(base, side, key));
    changes.sort(Comparator.comparingInt(Change::from).thenComparingInt(Change::to));
    List<Value> outcome = new ArrayList<>();
    int at = 0;
    Change before = null;
    for (Change c : changes) {
      if (before != null && same(before, c)) continue;
      if (before != null && c.from() <= before.to()) return Optional.empty();
      outcome.addAll(base.subList(at, c.from()));
      outcome.addAll(c.items());
      at = c.to();
      before = c;
    }
    outcome.addAll(base.subList(at, base.size()));
    return Optional.of(outcome);
  }

  private static boolean same(Change a, Change b) {
    return a.from() == b.from() && a.to() == b.to() && a.keys().equals(b.keys());
  }

  private static List<Change> changes(
      List<Value> base, List<Value> side, Function<Value, Object> key) {
    List<Object> was = base.stream().map(key).toList(), is = side.stream().map(key).toList();
    List<Change> changes = new ArrayList<>();
    for (Edit e : MyersDiff.INSTANCE.diff(BY_KEY, new Keys(was), new Keys(is)))
      changes.add(
          new Change(
              e.getBeginA(),
              e.getEndA(),
              side.subList(e.getBeginB(), e.getEndB()),
              is.subList(e.getBeginB(), e.getEndB())));
    return changes;
  }

  private static final class Keys extends Sequence {
    private final List<Object> keys;

    Keys(List<Object> keys) {
      this.keys = keys;
    }

    @Override
    public int size() {
      return keys.size();
    }
  }

  private static final SequenceComparator<Keys> BY_KEY =
      new SequenceComparator<>() {
        @Override
        public boolean equals(Keys a, int i, Keys b, int j) {
          return a.keys.get(i).equals(b.keys.get(j));
        }

        @Override
        public int hash(Keys a, int i) {
          return a.keys.get(i).hashCode();
        }
      };
}
