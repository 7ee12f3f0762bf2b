package ironing.core.order;

import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.Wishes.Directly;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Puts items in an order that keeps every wish and moves as few of them as possible.
 *
 * <p>Idea: some items stay, in the order in which they stand now, and the others move around them.
 * A set of items can stay exactly if the wishes, taken with all that follows from them, turn no two
 * of them about. “Stands before it now, and must come after it” is a partial order, being what two
 * such have in common; so a largest set that can stay is a largest antichain of it, which a largest
 * matching gives. Items that are tied to one another stand as one block; which of its items stay is
 * tried block by block.
 *
 * <p>Sources, from memory: Dilworth, “A decomposition theorem for partially ordered sets”, 1950;
 * König’s theorem on matchings and covers, 1931.
 *
 * <p>Fewest: always without ties; with ties as long as there are no more than {@value #TRIALS}
 * combinations of which items of their blocks stay, beyond that a local best. Of sets that are as
 * large, one is taken in which rather those stay that others must follow.
 *
 * <p>Cost: O(n²/64 · n) for what follows from what, and a matching over the pairs that stand wrong.
 */
public final class FewestMoves {
  private static final int TRIALS = 4_096;
  private static final String YOU = "you";

  private FewestMoves() {}

  public static <T> Outcome<T> sort(List<T> present, Wishes<T> wishes) {
    return new Run<>(present, wishes).outcome();
  }

  /**
   * Whether the wishes can be kept at all: an order that keeps them, whichever comes first, with no
   * moves named; or the shortest ring. Cost: O((n + w) log n) for n items and w wishes.
   */
  public static <T> Outcome<T> feasible(List<T> present, Wishes<T> wishes) {
    WishGraph<T> graph = new WishGraph<>(present, wishes);
    if (!graph.ring().isEmpty()) return new Outcome.Ring<>(graph.ring());
    List<T> order = new ArrayList<>();
    for (int v : graph.order()) for (int item : graph.members(v)) order.add(present.get(item));
    return new Outcome.Sorted<>(List.copyOf(order), List.of());
  }

  /**
   * The present order with some of the moves of another one made and the others not: each that is
   * made comes right behind the nearest of its predecessors there that stands where it is to stand.
   */
  public static <T> List<T> some(List<T> present, Outcome.Sorted<T> whole, Set<T> chosen) {
    Set<T> left = new HashSet<>();
    for (Move<T> m : whole.moves()) if (!chosen.contains(m.item())) left.add(m.item());
    Set<T> made = new HashSet<>();
    for (Move<T> m : whole.moves()) if (chosen.contains(m.item())) made.add(m.item());
    List<T> order = new ArrayList<>(present);
    order.removeAll(made);
    T behind = null;
    for (T item : whole.order()) {
      if (left.contains(item)) continue;
      if (made.contains(item)) order.add(behind == null ? 0 : order.indexOf(behind) + 1, item);
      behind = item;
    }
    return List.copyOf(order);
  }

  /** Items of one node that stay, from the lowest present position to the highest. */
  private record Stay(int node, List<Integer> items) {
    int first() {
      return items.get(0);
    }

    int last() {
      return items.get(items.size() - 1);
    }
  }

  private static final class Run<T> {
    private final List<T> present;
    private final WishGraph<T> graph;
    private final BitSet keptHere = new BitSet();
    private BitSet[] reach;

    Run(List<T> present, Wishes<T> wishes) {
      this.present = present;
      this.graph = new WishGraph<>(present, wishes);
      wishes.kept().forEach(k -> graph.position(k).ifPresent(keptHere::set));
    }

    Outcome<T> outcome() {
      List<Constraint<T>> ring = graph.ring(), against = againstKept();
      if (!against.isEmpty() && (ring.isEmpty() || against.size() < ring.size())) ring = against;
      if (!ring.isEmpty()) return new Outcome.Ring<>(ring);
      reach = graph.reach();
      return arranged(staying());
    }

    /**
     * Whether two that would stay cannot both: they stand the wrong way about, or one within the
     * other.
     */
    private boolean clash(Stay a, Stay b) {
      if (a.node() == b.node()) return true;
      if (a.last() < b.first()) return reach[b.node()].get(a.node());
      if (b.last() < a.first()) return reach[a.node()].get(b.node());
      return true;
    }

    /** What is kept here, node by node. */
    private List<Stay> pinned() {
      List<Stay> pinned = new ArrayList<>();
      for (int v = 0; v < graph.nodes(); v++) {
        List<Integer> items =
            Arrays.stream(graph.members(v)).filter(keptHere::get).boxed().toList();
        if (!items.isEmpty()) pinned.add(new Stay(v, items));
      }
      return pinned;
    }

    /**
     * The shortest ring of wishes and one pair that is kept here; of more pairs none is shorter,
     * since what is kept here has one order. Empty where there is none.
     */
    private List<Constraint<T>> againstKept() {
      List<Constraint<T>> best = List.of();
      BitSet lower = new BitSet();
      for (int item = keptHere.nextSetBit(0); item >= 0; item = keptHere.nextSetBit(item + 1)) {
        int most = best.isEmpty() ? Integer.MAX_VALUE : best.size() - 1;
        Optional<WishGraph.Way<T>> way = graph.shortest(item, lower, most);
        if (way.isPresent()) best = closed(way.get().chain(), way.get().to(), item);
        if (best.size() == 2) return best;
        lower.set(item);
      }
      for (Stay s : pinned()) {
        for (int i = 0; i + 1 < s.items().size(); i++) {
          int a = s.items().get(i), b = s.items().get(i + 1);
          if (a > b) best = shorter(best, closed(ties(a, b), b, a));
          for (int k = keptHere.nextSetBit(a + 1); k >= 0 && k < b; k = keptHere.nextSetBit(k + 1))
            if (graph.nodeOf(k) != s.node()) best = shorter(best, between(a, k, b));
        }
      }
      return best;
    }

    private List<Constraint<T>> shorter(List<Constraint<T>> one, List<Constraint<T>> other) {
      return one.isEmpty() || other.size() < one.size() ? other : one;
    }

    private List<Constraint<T>> ties(int from, int to) {
      List<Constraint<T>> ties = new ArrayList<>();
      for (int i = from; i != to; ) {
        Directly<T> tie = graph.tie(i);
        ties.add(tie.asConstraint());
        i = graph.position(tie.later()).orElseThrow();
      }
      return ties;
    }

    private List<Constraint<T>> closed(List<Constraint<T>> chain, int earlier, int later) {
      List<Constraint<T>> ring = new ArrayList<>(chain);
      ring.add(stays(earlier, later));
      return List.copyOf(ring);
    }

    private Constraint<T> stays(int earlier, int later) {
      return new Constraint<>(
          present.get(earlier), present.get(later), "both are kept where they are", YOU);
    }

    /** One that is kept here stands between two of a block that are kept here too. */
    private List<Constraint<T>> between(int first, int item, int last) {
      List<Constraint<T>> ring = new ArrayList<>();
      ring.add(stays(first, item));
      ring.add(stays(item, last));
      List<Constraint<T>> ties = ties(first, last);
      for (int i = ties.size() - 1; i >= 0; i--) {
        Directly<T> tie = graph.tie(graph.position(ties.get(i).earlier()).orElseThrow());
        ring.add(tie.closing());
      }
      return List.copyOf(ring);
    }

    /** A largest set that can stay. */
    private List<Stay> staying() {
      List<List<Stay>> choices = new ArrayList<>();
      List<Stay> singles = new ArrayList<>();
      for (int v = 0; v < graph.nodes(); v++) {
        int[] items = graph.members(v);
        if (items.length == 1) singles.add(new Stay(v, List.of(items[0])));
        if (items.length > 1) choices.add(choices(v, items));
      }
      long combinations = 1;
      for (List<Stay> c : choices) combinations = Math.min(TRIALS + 1L, combinations * c.size());
      Stay[] now = choices.stream().map(c -> c.get(0)).toArray(Stay[]::new);
      return combinations <= TRIALS
          ? tryAll(choices, now, 0, singles, List.of())
          : climb(choices, now, singles);
    }

    /**
     * Which items of a block may stay together, few first, so that of choices that come to the same
     * the tied ones move and not those between them: such as stand in the order of the block now,
     * with all that are kept here. The last choice is none.
     */
    private List<Stay> choices(int node, int[] items) {
      List<Stay> choices = new ArrayList<>();
      choose(node, items, 0, new ArrayList<>(), choices);
      choices.sort(Comparator.comparingInt((Stay s) -> s.items().size()));
      if (Arrays.stream(items).noneMatch(keptHere::get)) choices.add(null);
      return choices;
    }

    private void choose(int node, int[] items, int i, List<Integer> taken, List<Stay> choices) {
      if (i == items.length) {
        if (!taken.isEmpty()) choices.add(new Stay(node, List.copyOf(taken)));
        return;
      }
      boolean rises = taken.isEmpty() || taken.get(taken.size() - 1) < items[i];
      if (rises && choices.size() < TRIALS) {
        taken.add(items[i]);
        choose(node, items, i + 1, taken, choices);
        taken.remove(taken.size() - 1);
      }
      if (!keptHere.get(items[i])) choose(node, items, i + 1, taken, choices);
    }

    private List<Stay> tryAll(
        List<List<Stay>> choices, Stay[] now, int block, List<Stay> singles, List<Stay> best) {
      if (block == now.length) {
        List<Stay> found = around(now, singles);
        return found != null && size(found) > size(best) ? found : best;
      }
      for (Stay s : choices.get(block)) {
        now[block] = s;
        best = tryAll(choices, now, block + 1, singles, best);
      }
      return best;
    }

    private List<Stay> climb(List<List<Stay>> choices, Stay[] now, List<Stay> singles) {
      for (int b = 0; b < now.length; b++) {
        List<Stay> c = choices.get(b);
        // to begin with nothing of a block stays, or what is kept here alone
        now[b] = c.get(c.size() - 1);
      }
      List<Stay> best = around(now, singles);
      for (int b = 0; b < now.length; b++) {
        Stay kept = now[b];
        for (Stay s : choices.get(b)) {
          now[b] = s;
          List<Stay> found = around(now, singles);
          if (found != null && (best == null || size(found) > size(best))) {
            best = found;
            kept = s;
          }
        }
        now[b] = kept;
      }
      return best == null ? List.of() : best;
    }

    private static int size(List<Stay> stays) {
      return stays.stream().mapToInt(s -> s.items().size()).sum();
    }

    /**
     * The most single items that can stay beside what stays of the blocks; null if that cannot be.
     */
    private List<Stay> around(Stay[] blocks, List<Stay> singles) {
      List<Stay> fixed = new ArrayList<>();
      for (Stay s : blocks) if (s != null) fixed.add(s);
      for (Stay s : singles) if (keptHere.get(s.first())) fixed.add(s);
      for (int i = 0; i < fixed.size(); i++)
        for (int j = 0; j < i; j++) if (clash(fixed.get(i), fixed.get(j))) return null;
      List<Stay> free = new ArrayList<>();
      for (Stay s : singles) {
        if (!keptHere.get(s.first()) && fixed.stream().noneMatch(f -> clash(s, f))) free.add(s);
      }
      List<Stay> all = new ArrayList<>(fixed);
      BitSet largest = antichain(free);
      for (int i = 0; i < free.size(); i++) if (largest.get(i)) all.add(free.get(i));
      return all;
    }

    /** By index in the list, which rises: a largest set of items no two of which clash. */
    private BitSet antichain(List<Stay> free) {
      // the singles come in the order of their present positions, and so do their nodes: of all
      // that must come after one, those of lower numbers stand wrong
      int[] indexOf = new int[graph.nodes()];
      Arrays.fill(indexOf, -1);
      for (int i = 0; i < free.size(); i++) indexOf[free.get(i).node()] = i;
      List<int[]> pairs = new ArrayList<>();
      BitSet clashing = new BitSet();
      for (int j = 0; j < free.size(); j++) {
        int node = free.get(j).node();
        BitSet later = reach[node];
        for (int v = later.nextSetBit(0); v >= 0 && v < node; v = later.nextSetBit(v + 1)) {
          if (indexOf[v] < 0) continue;
          pairs.add(new int[] {indexOf[v], j});
          clashing.set(indexOf[v]);
          clashing.set(j);
        }
      }
      BitSet largest = new BitSet();
      largest.set(0, free.size());
      largest.andNot(clashing);
      // the matching is only about those that clash at all
      int[] few = clashing.stream().toArray();
      BitSet[] wrong = new BitSet[few.length];
      for (int i = 0; i < few.length; i++) {
        wrong[i] = new BitSet(few.length);
        indexOf[free.get(few[i]).node()] = i;
      }
      for (int[] p : pairs)
        wrong[indexOf[free.get(p[0]).node()]].set(indexOf[free.get(p[1]).node()]);
      Matching.largestAntichain(wrong).stream().forEach(i -> largest.set(few[i]));
      return largest;
    }

    private Outcome<T> arranged(List<Stay> staying) {
      List<Stay> chain = new ArrayList<>(staying);
      chain.sort(Comparator.comparingInt(Stay::first));
      List<int[]> pairs = new ArrayList<>();
      int[] priority = new int[graph.nodes()];
      for (int v = 0; v < priority.length; v++)
        priority[v] = Arrays.stream(graph.members(v)).min().orElse(-1);
      BitSet stays = new BitSet();
      for (int i = 0; i < chain.size(); i++) {
        if (i > 0) pairs.add(new int[] {chain.get(i - 1).node(), chain.get(i).node()});
        priority[chain.get(i).node()] = chain.get(i).first();
        chain.get(i).items().forEach(stays::set);
      }
      List<T> order = new ArrayList<>();
      List<Move<T>> moves = new ArrayList<>();
      for (int v : graph.sorted(node -> priority[node], pairs)) {
        for (int item : graph.members(v)) {
          if (!stays.get(item))
            moves.add(new Move<>(present.get(item), item, order.size(), because(item, stays)));
          order.add(present.get(item));
        }
      }
      return new Outcome.Sorted<>(List.copyOf(order), List.copyOf(moves));
    }

    /**
     * The shortest chain of wishes between an item that moves and one that stays; of several the
     * furthest.
     */
    private List<Constraint<T>> because(int item, BitSet stays) {
      int node = graph.nodeOf(item);
      BitSet after = new BitSet(), before = new BitSet();
      for (int s = stays.nextSetBit(0); s >= 0; s = stays.nextSetBit(s + 1)) {
        int other = graph.nodeOf(s);
        if (other == node) continue;
        if (s < item && reach[node].get(other)) after.set(s);
        if (s > item && reach[other].get(node)) before.set(s);
      }
      List<Constraint<T>> chain = graph.nearest(item, after, before);
      return chain.isEmpty() ? tiesOf(item) : chain;
    }

    /** What ties an item to its block, or ties those together between which it stands. */
    private List<Constraint<T>> tiesOf(int item) {
      for (int i = 0; i < present.size(); i++) {
        Directly<T> tie = graph.tie(i);
        if (tie == null) continue;
        int other = graph.position(tie.later()).orElseThrow();
        boolean own = i == item || other == item;
        if (own || Math.min(i, other) < item && item < Math.max(i, other))
          return List.of(tie.asConstraint());
      }
      return List.of();
    }
  }
}
