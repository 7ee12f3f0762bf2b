package ironing.core.combinedfiles;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import org.eclipse.jgit.diff.DiffAlgorithm;
import org.eclipse.jgit.diff.Edit;
import org.eclipse.jgit.diff.EditList;
import org.eclipse.jgit.diff.HistogramDiff;
import org.eclipse.jgit.diff.MyersDiff;

/**
 * Lays the changes that several made to one text into one another, line by line.
 *
 * <p>Each side is compared with the base. Stretches of the base that several changed and that
 * overlap or touch are one place: taken where all who changed it have the same there, else a
 * conflict. All sides are looked at together, so their order decides nothing but the order in which
 * they are named.
 *
 * <p>Threads: stateless. Cost: that of one comparison for each side; linear beside it.
 */
final class LineMerge {
  /** Above this Myers' way, quadratic in the differences, is left for one that cannot take long. */
  private static final int LONG = 20_000;

  private LineMerge() {}

  /**
   * A stretch of the outcome.
   *
   * @param from the first line of the base that it stands for, {@code to} the first behind
   * @param sides what each side has there, in the order of the sides; none where nobody changed it
   */
  record Stretch(int from, int to, List<Part> sides) {
    boolean isUnchanged() {
      return sides.isEmpty();
    }
  }

  /**
   * What a side has in the place of a stretch.
   *
   * @param side its number
   * @param from its first line there, {@code to} the first behind
   */
  record Part(int side, int from, int to) {}

  /** A change of one side: lines {@code from} to {@code to} of the base became others. */
  private record Change(int side, int from, int to, int at, int end) {}

  /**
   * @return the stretches in order; they cover the base without a gap. In each that is changed only
   *     those sides are named that changed it
   */
  static List<Stretch> of(Lines base, List<Lines> sides) {
    List<Change> changes = new ArrayList<>();
    for (int s = 0; s < sides.size(); s++) changes.addAll(changes(s, base, sides.get(s)));
    changes.sort(
        Comparator.comparingInt(Change::from)
            .thenComparingInt(Change::to)
            .thenComparing(c -> c.side));
    List<Stretch> stretches = new ArrayList<>();
    int at = 0;
    for (int i = 0; i < changes.size(); ) {
      int from = changes.get(i).from, to = changes.get(i).to, k = i + 1;
      while (k < changes.size() && changes.get(k).from <= to)
        to = Math.max(to, changes.get(k++).to);
      if (from > at) stretches.add(new Stretch(at, from, List.of()));
      stretches.add(new Stretch(from, to, parts(changes.subList(i, k), from, to, sides.size())));
      at = to;
      i = k;
    }
    if (at < base.size()) stretches.add(new Stretch(at, base.size(), List.of()));
    return stretches;
  }

  private static List<Part> parts(List<Change> changes, int from, int to, int sides) {
    List<Part> parts = new ArrayList<>();
    for (int s = 0; s < sides; s++) {
      Change first = null, last = null;
      for (Change c : changes) {
        if (c.side != s) continue;
        if (first == null) first = c;
        last = c;
      }
      // what stands around its own changes there is as in the base
      if (first != null)
        parts.add(new Part(s, first.at - (first.from - from), last.end + (to - last.to)));
    }
    return parts;
  }

  /** How many lines have to go and to come to make one of the other. */
  static int distance(Lines base, Lines other) {
    int lines = 0;
    for (Edit e : edits(base, other)) lines += e.getLengthA() + e.getLengthB();
    return lines;
  }

  private static EditList edits(Lines base, Lines other) {
    DiffAlgorithm way = MyersDiff.INSTANCE;
    if (base.size() + other.size() > LONG) {
      HistogramDiff quick = new HistogramDiff();
      quick.setFallbackAlgorithm(null);
      way = quick;
    }
    return way.diff(Lines.BY_NUMBER, base, other);
  }

  private static List<Change> changes(int side, Lines base, Lines other) {
    List<Change> changes = new ArrayList<>();
    for (Edit e : slid(edits(base, other), base, other))
      changes.add(new Change(side, e.getBeginA(), e.getEndA(), e.getBeginB(), e.getEndB()));
    return changes;
  }

  /**
   * Where one of several like lines came in or went nobody can tell which it was: as others do, we
   * say the last. One that comes to stand beside the next goes on with it.
   */
  private static Deque<Edit> slid(EditList edits, Lines base, Lines other) {
    Deque<Edit> slid = new ArrayDeque<>();
    for (int i = edits.size() - 1; i >= 0; i--) {
      Edit e = edits.get(i);
      while (true) {
        int limit = slid.isEmpty() ? base.size() : slid.getFirst().getBeginA();
        int limitOfOther = slid.isEmpty() ? other.size() : slid.getFirst().getBeginB();
        slide(e, base, other, limit, limitOfOther);
        Edit next = slid.peekFirst();
        if (next == null || e.getEndA() < next.getBeginA() || e.getEndB() < next.getBeginB()) break;
        slid.removeFirst();
        e = new Edit(e.getBeginA(), next.getEndA(), e.getBeginB(), next.getEndB());
      }
      slid.addFirst(e);
    }
    return slid;
  }

  private static void slide(Edit e, Lines base, Lines other, int limit, int limitOfOther) {
    Edit.Type type = e.getType();
    if (type == Edit.Type.REPLACE) return;
    while (e.getEndA() < limit && e.getEndB() < limitOfOther) {
      boolean same =
          type == Edit.Type.INSERT
              ? other.number(e.getBeginB()) == other.number(e.getEndB())
              : base.number(e.getBeginA()) == base.number(e.getEndA());
      if (!same) return;
      e.shift(1);
    }
  }
}
