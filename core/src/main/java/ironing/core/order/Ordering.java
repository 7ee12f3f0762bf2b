package ironing.core.order;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.stream.Stream;

/**
 * Puts items in an order that keeps every constraint and is otherwise as near to the present order
 * as a single pass can make it: of all items that are free to come next, the one that stands first
 * now comes first (Kahn's algorithm with the present position as the tie-break).
 *
 * <p>Cost: O((n + c) log n) for n items and c constraints. Immutable result.
 */
public final class Ordering {
  private Ordering() {}

  /**
   * One thing that an order must keep.
   *
   * @param earlier the item that must come first
   * @param later the item that must come after it
   * @param reason in words, from the later one's side: "it lists Isles.plug as a master"
   * @param from who said it: "the file", "the mod's card", "the game"
   */
  public record Constraint<T>(T earlier, T later, String reason, String from) {}

  /**
   * An item that stands elsewhere in the proposal. Positions from 0.
   *
   * @param because the constraints behind it, each one's later item the next one's earlier; empty
   *     when it only makes room for others
   */
  public record Move<T>(T item, int from, int to, List<Constraint<T>> because) {
    public Move {
      because = List.copyOf(because);
    }
  }

  /** What sorting came to: an order, or the reason why there is none. */
  public sealed interface Outcome<T> {
    /**
     * @param moves the fewest items whose moving turns the present order into this one
     */
    record Sorted<T>(List<T> order, List<Move<T>> moves) implements Outcome<T> {}

    /**
     * @param ring constraints, each one's later item the next one's earlier, the last closing the
     *     ring
     */
    record Ring<T>(List<Constraint<T>> ring) implements Outcome<T> {}
  }

  /** Constraints that name an item that is not there do not count. */
  public static <T> Outcome<T> sort(List<T> present, List<Constraint<T>> constraints) {
    Map<T, Integer> at = new HashMap<>();
    for (int i = 0; i < present.size(); i++) at.put(present.get(i), i);
    List<List<Constraint<T>>> out = new ArrayList<>();
    for (int i = 0; i < present.size(); i++) out.add(new ArrayList<>());
    int[] waiting = new int[present.size()];
    List<Constraint<T>> used = new ArrayList<>();
    for (Constraint<T> c : constraints) {
      Integer a = at.get(c.earlier()), b = at.get(c.later());
      if (a == null || b == null || a.equals(b)) continue;
      out.get(a).add(c);
      waiting[b]++;
      used.add(c);
    }
    PriorityQueue<Integer> free = new PriorityQueue<>();
    for (int i = 0; i < waiting.length; i++) if (waiting[i] == 0) free.add(i);
    List<Integer> order = new ArrayList<>();
    while (!free.isEmpty()) {
      int i = free.poll();
      order.add(i);
      for (Constraint<T> c : out.get(i))
        if (--waiting[at.get(c.later())] == 0) free.add(at.get(c.later()));
    }
    if (order.size() < present.size())
      return new Outcome.Ring<>(shortestRing(present, at, out, waiting));
    return new Outcome.Sorted<>(
        order.stream().map(present::get).toList(),
        moves(present, order.stream().map(present::get).toList(), used));
  }

  /**
   * The fewest moves from one order of the same items to another, each with the constraint behind
   * it: of several that the present order breaks the one that reaches furthest, else one to an item
   * that moves.
   */
  public static <T> List<Move<T>> moves(List<T> present, List<T> order, List<Constraint<T>> used) {
    Map<T, Integer> at = new HashMap<>();
    for (int i = 0; i < present.size(); i++) at.put(present.get(i), i);
    int[] sequence = order.stream().mapToInt(at::get).toArray();
    BitSet unbound = new BitSet(sequence.length);
    unbound.set(0, sequence.length);
    for (Constraint<T> c : used) {
      for (T end : List.of(c.earlier(), c.later()))
        if (at.containsKey(end)) unbound.clear(at.get(end));
    }
    BitSet stays = longestRising(sequence, unbound);
    int[] to = new int[sequence.length];
    for (int i = 0; i < sequence.length; i++) to[sequence[i]] = i;
    Map<Integer, Constraint<T>> because = reasons(used, at, stays, to);
    List<Move<T>> moves = new ArrayList<>();
    for (int i = 0; i < sequence.length; i++) {
      if (!stays.get(i))
        moves.add(
            new Move<>(
                present.get(sequence[i]),
                sequence[i],
                i,
                Stream.ofNullable(because.get(sequence[i])).toList()));
    }
    return moves;
  }

  /**
   * For each item that does not stay, by its present position, the constraint that speaks for it.
   */
  private static <T> Map<Integer, Constraint<T>> reasons(
      List<Constraint<T>> used, Map<T, Integer> at, BitSet stays, int[] to) {
    Map<Integer, Constraint<T>> broken = new HashMap<>(), followed = new HashMap<>();
    for (Constraint<T> c : used) {
      Integer a = at.get(c.earlier()), b = at.get(c.later());
      if (a == null || b == null) continue;
      if (a > b) {
        int moved = stays.get(to[b]) ? a : b;
        broken.merge(moved, c, (x, y) -> reach(y, at) > reach(x, at) ? y : x);
      } else if (!stays.get(to[a]) && !stays.get(to[b])) {
        // kept already, but the earlier one moves away: the later one has to go with it
        followed.merge(b, c, (x, y) -> to[at.get(y.earlier())] > to[at.get(x.earlier())] ? y : x);
      }
    }
    followed.forEach(broken::putIfAbsent);
    return broken;
  }

  private static <T> int reach(Constraint<T> c, Map<T, Integer> at) {
    return Math.abs(at.get(c.earlier()) - at.get(c.later()));
  }

  /** The positions of a longest rising subsequence: what may stay when the rest moves around it. */
  public static BitSet longestRising(int[] sequence) {
    return longestRising(sequence, new BitSet());
  }

  /**
   * The positions of a longest rising subsequence; of several that are as long, one with the most
   * preferred values in it.
   *
   * <p>Source: the usual dynamic programme over a Fenwick tree of prefix maxima; Fenwick, "A new
   * data structure for cumulative frequency tables", 1994. Cost: O(n log n).
   *
   * @param sequence each of 0 to n-1 at most once, or any distinct values from 0
   */
  static BitSet longestRising(int[] sequence, BitSet preferred) {
    int n = sequence.length, highest = Arrays.stream(sequence).max().orElse(0);
    long[] weight = new long[n];
    int[] previous = new int[n];
    int[] bestBelow = new int[highest + 2]; // Fenwick tree over values: the best end so far, from 1
    int best = -1;
    for (int i = 0; i < n; i++) {
      previous[i] = -1;
      for (int v = sequence[i]; v > 0; v -= v & -v) {
        int end = bestBelow[v] - 1;
        if (end >= 0 && (previous[i] < 0 || weight[end] > weight[previous[i]])) previous[i] = end;
      }
      weight[i] = n + 1 + (preferred.get(sequence[i]) ? 1 : 0);
      if (previous[i] >= 0) weight[i] += weight[previous[i]];
      for (int v = sequence[i] + 1; v < bestBelow.length; v += v & -v) {
        if (bestBelow[v] == 0 || weight[i] > weight[bestBelow[v] - 1]) bestBelow[v] = i + 1;
      }
      if (best < 0 || weight[i] > weight[best]) best = i;
    }
    BitSet kept = new BitSet(n);
    for (int i = best; i >= 0; i = previous[i]) kept.set(i);
    return kept;
  }

  // A breadth-first walk from each item that never became free, back to itself; the shortest one
  // found is the ring.
  private static <T> List<Constraint<T>> shortestRing(
      List<T> present, Map<T, Integer> at, List<List<Constraint<T>>> out, int[] waiting) {
    List<Constraint<T>> best = List.of();
    for (int start = 0; start < waiting.length; start++) {
      if (waiting[start] == 0) continue;
      List<Constraint<T>> ring = ringThrough(start, present, at, out, waiting);
      if (!ring.isEmpty() && (best.isEmpty() || ring.size() < best.size())) best = ring;
      if (best.size() == 2) break;
    }
    return best;
  }

  private static <T> List<Constraint<T>> ringThrough(
      int start,
      List<T> present,
      Map<T, Integer> at,
      List<List<Constraint<T>>> out,
      int[] waiting) {
    List<Constraint<T>> cameBy = new ArrayList<>(Collections.nCopies(present.size(), null));
    boolean[] seen = new boolean[present.size()];
    ArrayDeque<Integer> queue = new ArrayDeque<>(List.of(start));
    while (!queue.isEmpty()) {
      int i = queue.poll();
      for (Constraint<T> c : out.get(i)) {
        int next = at.get(c.later());
        if (waiting[next] == 0 || seen[next]) continue;
        seen[next] = true;
        cameBy.set(next, c);
        if (next == start) {
          List<Constraint<T>> ring = new ArrayList<>();
          int back = start;
          do {
            ring.add(0, cameBy.get(back));
            back = at.get(cameBy.get(back).earlier());
          } while (back != start);
          return ring;
        }
        queue.add(next);
      }
    }
    return List.of();
  }

  /**
   * The present order with one item taken out and put in at a position of the remaining ones, from
   * 0.
   */
  public static <T> List<T> moved(List<T> present, T item, int to) {
    List<T> order = new ArrayList<>(present);
    if (!order.remove(item))
      throw new IllegalArgumentException(
          item + " is not in the order " + Arrays.toString(present.toArray()));
    order.add(Math.max(0, Math.min(to, order.size())), item);
    return order;
  }
}
