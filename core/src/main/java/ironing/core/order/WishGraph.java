package ironing.core.order;

import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Wishes.Directly;
import ironing.core.order.Wishes.Tiers;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;

/**
 * Wishes as a graph. A node is a block of items that stand directly on one another, mostly of one
 * item, or a fence between two neighbouring tiers. An edge says that one node comes before another,
 * and knows the items and the wish that it came from.
 *
 * <p>Cost: a node for each item and tier, an edge for each constraint and two for each item in a
 * tier; a block whose items are of several tiers has an edge to each item above its lowest.
 */
final class WishGraph<T> {
  private static final int FENCE = -1;

  /**
   * @param from the item at its beginning, by its present position; FENCE where it begins at a
   *     fence
   * @param wish null on the way into, along or out of a fence
   */
  private record Edge<T>(int node, int to, int from, int into, Constraint<T> wish, Tiers<T> tiers) {
    /** Of all edges from one item to another over fences, one is counted. */
    int steps() {
      return wish != null || from != FENCE ? 1 : 0;
    }
  }

  private final List<T> present;
  private final Map<T, Integer> at = new HashMap<>();
  // by item: the wish that ties it to the one right behind it
  private final List<Directly<T>> tie = new ArrayList<>();
  private final int[] nodeOf;
  private final List<int[]> members = new ArrayList<>();
  private final List<Edge<T>> edges = new ArrayList<>();
  private Links forthLinks, backLinks;
  private List<Constraint<T>> ring = List.of();
  private int[] order;

  WishGraph(List<T> present, Wishes<T> wishes) {
    this.present = present;
    for (int i = 0; i < present.size(); i++) {
      at.put(present.get(i), i);
      tie.add(null);
    }
    this.nodeOf = new int[present.size()];
    bind(wishes.directly());
    if (!ring.isEmpty()) return;
    for (Constraint<T> c : wishes.constraints()) {
      Integer a = at.get(c.earlier()), b = at.get(c.later());
      if (a != null && b != null && !a.equals(b) && ring.isEmpty()) wish(a, b, c);
    }
    for (Tiers<T> t : wishes.tiers()) if (ring.isEmpty()) fence(t);
    if (!ring.isEmpty()) return;
    forthLinks = new Links(true);
    backLinks = new Links(false);
    sortOrRing();
  }

  /** Why there is no order at all; empty where there is one. */
  List<Constraint<T>> ring() {
    return ring;
  }

  /** All nodes in an order that keeps the wishes; there is one when there is no ring. */
  int[] order() {
    return order;
  }

  int nodes() {
    return members.size();
  }

  /** The items of a node from the first on, by their present positions; none for a fence. */
  int[] members(int node) {
    return members.get(node);
  }

  int nodeOf(int item) {
    return nodeOf[item];
  }

  Optional<Integer> position(T item) {
    return Optional.ofNullable(at.get(item));
  }

  /** The wish that ties an item to the one behind it, or null. */
  Directly<T> tie(int item) {
    return tie.get(item);
  }

  private void bind(List<Directly<T>> directly) {
    boolean[] hasBefore = new boolean[present.size()];
    List<Directly<T>> taken = new ArrayList<>();
    for (Directly<T> d : directly) {
      Integer a = at.get(d.earlier()), b = at.get(d.later());
      if (a == null || b == null || a.equals(b)) continue;
      Directly<T> known = tie.get(a);
      if (known != null && known.later().equals(d.later())) continue;
      if (known != null || hasBefore[b]) {
        Directly<T> other =
            known != null
                ? known
                : taken.stream().filter(t -> t.later().equals(d.later())).findFirst().orElseThrow();
        ring = known != null ? bothBehind(other, d) : bothBefore(other, d);
        return;
      }
      tie.set(a, d);
      hasBefore[b] = true;
      taken.add(d);
    }
    boolean[] seen = new boolean[present.size()];
    for (int i = 0; i < present.size(); i++) if (!hasBefore[i]) block(i, seen);
    for (int i = 0; i < present.size(); i++) {
      if (seen[i]) continue;
      // a chain with no beginning goes round
      List<Constraint<T>> round = new ArrayList<>();
      int j = i;
      do {
        round.add(tie.get(j).asConstraint());
        j = at.get(tie.get(j).later());
      } while (j != i);
      ring = List.copyOf(round);
      return;
    }
  }

  /** Each of the two would have to come before the other. */
  private static <T> List<Constraint<T>> bothBehind(Directly<T> one, Directly<T> other) {
    return List.of(
        new Constraint<>(one.later(), other.later(), one.reason(), one.from()),
        new Constraint<>(other.later(), one.later(), other.reason(), other.from()));
  }

  private static <T> List<Constraint<T>> bothBefore(Directly<T> one, Directly<T> other) {
    return List.of(
        new Constraint<>(other.earlier(), one.earlier(), one.reason(), one.from()),
        new Constraint<>(one.earlier(), other.earlier(), other.reason(), other.from()));
  }

  private void block(int first, boolean[] seen) {
    List<Integer> items = new ArrayList<>();
    for (int i = first; ; i = at.get(tie.get(i).later())) {
      seen[i] = true;
      nodeOf[i] = members.size();
      items.add(i);
      if (tie.get(i) == null) break;
    }
    node(items.stream().mapToInt(Integer::intValue).toArray());
  }

  private int node(int[] items) {
    members.add(items);
    return members.size() - 1;
  }

  /**
   * The edges that leave each node, or come to it, side by side: walks and sorts pass thousands.
   */
  private final class Links {
    /** By node where its links begin; one more at the end. */
    final int[] from = new int[nodes() + 1];

    final int[] to = new int[edges.size()], edge = new int[edges.size()];
    final byte[] steps = new byte[edges.size()];

    Links(boolean forth) {
      for (Edge<T> e : edges) from[(forth ? e.node() : e.to()) + 1]++;
      for (int v = 0; v < nodes(); v++) from[v + 1] += from[v];
      int[] next = Arrays.copyOf(from, nodes());
      for (int i = 0; i < edges.size(); i++) {
        Edge<T> e = edges.get(i);
        int l = next[forth ? e.node() : e.to()]++;
        to[l] = forth ? e.to() : e.node();
        edge[l] = i;
        steps[l] = (byte) e.steps();
      }
    }
  }

  private void wish(int a, int b, Constraint<T> c) {
    if (nodeOf[a] != nodeOf[b]) {
      edges.add(new Edge<>(nodeOf[a], nodeOf[b], a, b, c, null));
      return;
    }
    int[] items = members.get(nodeOf[a]);
    if (place(items, a) < place(items, b)) return;
    List<Constraint<T>> round = new ArrayList<>(inBlock(b, a));
    round.add(c);
    ring = List.copyOf(round);
  }

  private static int place(int[] items, int item) {
    for (int i = 0; i < items.length; i++) if (items[i] == item) return i;
    throw new IllegalArgumentException(item + " is not in " + Arrays.toString(items));
  }

  private void fence(Tiers<T> tiers) {
    List<List<T>> groups = new ArrayList<>(tiers.grouped(present).values());
    int previous = FENCE;
    for (int g = 0; g + 1 < groups.size(); g++) {
      int fence = node(new int[0]);
      if (previous != FENCE) edges.add(new Edge<>(previous, fence, FENCE, FENCE, null, tiers));
      for (T item : groups.get(g)) {
        int i = at.get(item);
        if (spans(i, tiers)) beforeAllAbove(i, groups, g, tiers);
        else edges.add(new Edge<>(nodeOf[i], fence, i, FENCE, null, tiers));
      }
      for (T item : groups.get(g + 1)) {
        int i = at.get(item);
        edges.add(new Edge<>(fence, nodeOf[i], FENCE, i, null, tiers));
      }
      previous = fence;
    }
  }

  /** Whether another item of its block is in another tier. */
  private boolean spans(int item, Tiers<T> tiers) {
    int[] items = members.get(nodeOf[item]);
    Integer own = tiers.tierOf().get(present.get(item));
    for (int other : items) {
      Integer tier = tiers.tierOf().get(present.get(other));
      if (tier != null && !tier.equals(own)) return true;
    }
    return false;
  }

  // over a fence, a block that lies on both sides of it would come before itself
  private void beforeAllAbove(int item, List<List<T>> groups, int tier, Tiers<T> tiers) {
    for (int g = tier + 1; g < groups.size(); g++) {
      for (T above : groups.get(g)) {
        if (ring.isEmpty()) wish(item, at.get(above), tiers.between(present.get(item), above));
      }
    }
  }

  private void sortOrRing() {
    int[] waiting = waiting();
    int[] found = sorted(waiting, v -> 0, List.of());
    if (found.length == nodes()) {
      order = found;
      return;
    }
    BitSet stuck = new BitSet();
    for (int v = 0; v < waiting.length; v++) if (waiting[v] > 0) stuck.set(v);
    List<Edge<T>> best = null;
    for (int v = stuck.nextSetBit(0); v >= 0; v = stuck.nextSetBit(v + 1)) {
      // every ring passes an item
      if (members.get(v).length == 0) continue;
      int most = best == null ? Integer.MAX_VALUE : steps(best);
      List<Edge<T>> round = walk(v, stuck, most).way(v);
      if (round != null && steps(round) < most) best = round;
      if (best != null && steps(best) == 2) break;
    }
    ring = ring(best);
  }

  /** By node, how many edges come to it. */
  private int[] waiting() {
    int[] waiting = new int[nodes()];
    for (int to : forthLinks.to) waiting[to]++;
    return waiting;
  }

  /** The priority of a node among those that are free to come next. */
  interface Priority {
    int of(int node);
  }

  /** All nodes in order, with more pairs to keep; the wishes allow them. */
  int[] sorted(Priority priority, List<int[]> pairs) {
    int[] waiting = waiting();
    for (int[] p : pairs) waiting[p[1]]++;
    return sorted(waiting, priority, pairs);
  }

  private int[] sorted(int[] waiting, Priority priority, List<int[]> pairs) {
    Map<Integer, List<Integer>> more = new HashMap<>();
    for (int[] p : pairs) more.computeIfAbsent(p[0], n -> new ArrayList<>()).add(p[1]);
    PriorityQueue<int[]> free =
        new PriorityQueue<>((a, b) -> a[1] != b[1] ? Integer.compare(a[1], b[1]) : a[0] - b[0]);
    for (int v = 0; v < waiting.length; v++)
      if (waiting[v] == 0) free.add(new int[] {v, priority.of(v)});
    int[] sorted = new int[waiting.length];
    int n = 0;
    while (!free.isEmpty()) {
      int v = free.poll()[0];
      sorted[n++] = v;
      for (int l = forthLinks.from[v]; l < forthLinks.from[v + 1]; l++) {
        int to = forthLinks.to[l];
        if (--waiting[to] == 0) free.add(new int[] {to, priority.of(to)});
      }
      for (int to : more.getOrDefault(v, List.of()))
        if (--waiting[to] == 0) free.add(new int[] {to, priority.of(to)});
    }
    return Arrays.copyOf(sorted, n);
  }

  /** By node: all that must come after it. Cost: nodes times edges over 64. */
  BitSet[] reach() {
    BitSet[] reach = new BitSet[nodes()];
    for (int i = order.length - 1; i >= 0; i--) {
      BitSet r = new BitSet(nodes());
      reach[order[i]] = r;
      for (int l = forthLinks.from[order[i]]; l < forthLinks.from[order[i] + 1]; l++) {
        int to = forthLinks.to[l];
        // what lies behind it is in already, when it is
        if (r.get(to)) continue;
        r.set(to);
        r.or(reach[to]);
      }
    }
    return reach;
  }

  /** The fewest wishes by which one item must come before another; it must. */
  List<Constraint<T>> chain(int from, int to) {
    return chain(from, walk(nodeOf[from], all(), Integer.MAX_VALUE).way(nodeOf[to]), to);
  }

  /** A chain of wishes to an item, by its present position. */
  record Way<T>(int to, List<Constraint<T>> chain) {}

  /**
   * The shortest chain from an item to one of some others that must come after it, outside of its
   * own block; empty where there is none of fewer wishes than a number.
   */
  Optional<Way<T>> shortest(int item, BitSet goals, int fewerThan) {
    // of blocks that cannot be there is no graph
    if (forthLinks == null || goals.isEmpty()) return Optional.empty();
    Walk walk = new Walk(nodeOf[item], true);
    List<Way<T>> best = new ArrayList<>();
    walk.run(
        all(),
        (node, steps) -> {
          int most = best.isEmpty() ? fewerThan : best.get(0).chain().size();
          for (int other : members.get(node)) {
            if (steps == 0 || steps >= most || node == nodeOf[item] || !goals.get(other)) continue;
            List<Constraint<T>> chain = chain(item, walk.way(node), other);
            if (chain.size() >= most) continue;
            best.clear();
            best.add(new Way<>(other, chain));
            most = chain.size();
          }
          return most - 1;
        });
    return best.stream().findFirst();
  }

  /**
   * The shortest chain of wishes between an item and one that must come after it, or before it; of
   * several rather one that ends with a wish about single items than about tiers, then the one to
   * the item that stands furthest from it now. Empty where there is none.
   *
   * @param after which of the items that must come after it count, by position; none need no walk
   * @param before which of those that must come before it count
   */
  List<Constraint<T>> nearest(int item, BitSet after, BitSet before) {
    Near forth = near(item, true, after, Integer.MAX_VALUE);
    Near back = near(item, false, before, forth.steps);
    if (back.found >= 0 && (forth.found < 0 || back.isBetterThan(forth)))
      return chain(back.found, back.walk.way(nodeOf[back.found]), item);
    if (forth.found < 0) return List.of();
    return chain(item, forth.walk.way(nodeOf[forth.found]), forth.found);
  }

  /** All that must come after an item, or before it, by how few wishes. */
  List<Around.Tie<T>> ties(int item, boolean after) {
    Walk walk = new Walk(nodeOf[item], after);
    List<Integer> found = new ArrayList<>();
    walk.run(
        all(),
        (node, steps) -> {
          if (steps > 0) for (int other : members.get(node)) found.add(other);
          return Integer.MAX_VALUE;
        });
    List<Around.Tie<T>> ties = new ArrayList<>();
    for (int other : found) {
      List<Edge<T>> way = walk.way(nodeOf[other]);
      ties.add(
          new Around.Tie<>(
              present.get(other), after ? chain(item, way, other) : chain(other, way, item)));
    }
    return List.copyOf(ties);
  }

  /** The first goal on the ways from one item, or to it. */
  private final class Near {
    private final Walk walk;
    private int found = -1, steps = Integer.MAX_VALUE, distance;
    private boolean single;

    private Near(Walk walk) {
      this.walk = walk;
    }

    void look(int item, int other, int steps) {
      boolean single = edges.get(walk.cameBy[nodeOf[other]]).wish() != null;
      int distance = Math.abs(other - item);
      if (found >= 0 && !isBetter(steps, single, distance)) return;
      found = other;
      this.steps = steps;
      this.single = single;
      this.distance = distance;
    }

    private boolean isBetter(int steps, boolean single, int distance) {
      if (steps != this.steps) return steps < this.steps;
      return single != this.single ? single : distance > this.distance;
    }

    boolean isBetterThan(Near other) {
      return other.isBetter(steps, single, distance);
    }
  }

  private Near near(int item, boolean forth, BitSet goals, int most) {
    Walk walk = new Walk(nodeOf[item], forth);
    Near near = new Near(walk);
    if (goals.isEmpty()) return near;
    near.steps = most;
    walk.run(
        all(),
        (node, steps) -> {
          for (int other : members.get(node)) {
            if (steps > 0 && goals.get(other)) near.look(item, other, steps);
          }
          return near.steps;
        });
    if (near.found < 0) near.steps = Integer.MAX_VALUE;
    return near;
  }

  private BitSet all() {
    BitSet all = new BitSet();
    all.set(0, nodes());
    return all;
  }

  /** The shortest ways from one node to all others, or from all others to it. */
  private final class Walk {
    final int start;
    final boolean forth;
    final int[] far = new int[nodes()];
    // by node: the edge that the shortest way comes by, -1 where none does
    final int[] cameBy = new int[nodes()];

    Walk(int start, boolean forth) {
      this.start = start;
      this.forth = forth;
      Arrays.fill(far, Integer.MAX_VALUE);
      Arrays.fill(cameBy, -1);
    }

    // breadth first, step by step; the way over fences costs one step, when it leaves the item
    void run(BitSet within, Visit visit) {
      Links links = forth ? forthLinks : backLinks;
      int[] now = new int[nodes() + 1], next = new int[nodes() + 1];
      int inNow = 1, inNext;
      now[0] = start;
      for (int steps = 0; inNow > 0; steps++) {
        inNext = 0;
        for (int i = 0; i < inNow; i++) {
          int here = now[i];
          if (here != start && far[here] < steps) continue;
          int most = visit.most(here, steps);
          if (steps > most) return;
          // come back to the beginning: the ring is closed, and goes on no further
          if (here == start && steps > 0) continue;
          for (int l = links.from[here]; l < links.from[here + 1]; l++) {
            int to = links.to[l], far = steps + links.steps[l];
            if (far > most || far >= this.far[to] || !within.get(to)) continue;
            this.far[to] = far;
            cameBy[to] = links.edge[l];
            if (far == steps) now[inNow++] = to;
            else next[inNext++] = to;
          }
        }
        int[] swap = now;
        now = next;
        next = swap;
        inNow = inNext;
      }
    }

    /** Null where there is none. */
    List<Edge<T>> way(int goal) {
      if (cameBy[goal] < 0) return null;
      List<Edge<T>> way = new ArrayList<>();
      int v = goal;
      do {
        Edge<T> e = edges.get(cameBy[v]);
        way.add(forth ? 0 : way.size(), e);
        v = forth ? e.node() : e.to();
      } while (v != start);
      return way;
    }
  }

  /** What is done at each node, the nearest first. */
  private interface Visit {
    /** Up to how many steps the walk is to go on. */
    int most(int node, int steps);
  }

  private Walk walk(int start, BitSet within, int most) {
    Walk walk = new Walk(start, true);
    walk.run(within, (node, steps) -> node == start && steps > 0 ? -1 : most - 1);
    return walk;
  }

  private static <T> int steps(List<Edge<T>> way) {
    return way.stream().mapToInt(Edge::steps).sum();
  }

  /**
   * The wishes of a way, one from item to item each: fences are passed, and where the next one
   * begins at another item of a block than the last one came to, the ties between are named.
   *
   * @param from the item to begin at
   */
  private List<Constraint<T>> chain(int from, List<Edge<T>> way, int to) {
    List<Constraint<T>> chain = new ArrayList<>();
    int here = from, leaving = FENCE;
    for (Edge<T> e : way) {
      if (e.from() != FENCE) {
        leaving = e.from();
        chain.addAll(inBlock(here, leaving));
      }
      if (e.into() == FENCE) continue;
      chain.add(
          e.wish() != null
              ? e.wish()
              : e.tiers().between(present.get(leaving), present.get(e.into())));
      here = e.into();
    }
    chain.addAll(inBlock(here, to));
    return List.copyOf(chain);
  }

  private List<Constraint<T>> ring(List<Edge<T>> way) {
    // it begins at a node with items, so its first edge leaves one
    int first = way.get(0).from();
    return chain(first, way, first);
  }

  /** The ties from one item of a block to another, whichever of them comes first. */
  private List<Constraint<T>> inBlock(int from, int to) {
    int[] items = members.get(nodeOf[from]);
    int a = place(items, from), b = place(items, to);
    List<Constraint<T>> ties = new ArrayList<>();
    for (int i = a; i < b; i++) ties.add(tie.get(items[i]).asConstraint());
    for (int i = a; i > b; i--) ties.add(tie.get(items[i - 1]).closing());
    return ties;
  }
}
