package ironing.core.order;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What is asked of an order, what putting items in order came to, and plain moves between orders.
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

  /** The fewest moves from one order of the same items to another; no reasons are known. */
  public static <T> List<Move<T>> moves(List<T> present, List<T> order) {
    Map<T, Integer> at = new HashMap<>();
    for (int i = 0; i < present.size(); i++) at.put(present.get(i), i);
    int[] sequence = order.stream().mapToInt(at::get).toArray();
    BitSet stays = longestRising(sequence);
    List<Move<T>> moves = new ArrayList<>();
    for (int i = 0; i < sequence.length; i++)
      if (!stays.get(i)) moves.add(new Move<>(present.get(sequence[i]), sequence[i], i, List.of()));
    return moves;
  }

  /**
   * The positions of a longest rising subsequence: what may stay when the rest moves around it.
   *
   * <p>Source: the usual dynamic programme over a Fenwick tree of prefix maxima; Fenwick, "A new
   * data structure for cumulative frequency tables", 1994. Cost: O(n log n).
   *
   * @param sequence each of 0 to n-1 at most once, or any distinct values from 0
   */
  public static BitSet longestRising(int[] sequence) {
    int n = sequence.length, highest = Arrays.stream(sequence).max().orElse(0);
    int[] weight = new int[n];
    int[] previous = new int[n];
    int[] bestBelow = new int[highest + 2]; // Fenwick tree over values: the best end so far, from 1
    int best = -1;
    for (int i = 0; i < n; i++) {
      previous[i] = -1;
      for (int v = sequence[i]; v > 0; v -= v & -v) {
        int end = bestBelow[v] - 1;
        if (end >= 0 && (previous[i] < 0 || weight[end] > weight[previous[i]])) previous[i] = end;
      }
      weight[i] = 1;
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
