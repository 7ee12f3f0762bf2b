package ironing.core.order;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * How far two orders are from one another: of the pairs that both have, how many stand the other
 * way about. Kendall, “A new measure of rank correlation”, 1938; his tau is 1 - 2 · swapped /
 * pairs.
 *
 * @param pairs of items that are in both
 * @param swapped of these, those in which the two orders differ
 */
public record OrderDistance(long pairs, long swapped) {
  /** Cost: O(n log n). Items that only one of them has do not count. */
  public static <T> OrderDistance between(List<T> one, List<T> other) {
    Map<T, Integer> at = new HashMap<>();
    for (T item : other) at.putIfAbsent(item, at.size());
    List<Integer> common = new ArrayList<>();
    for (T item : one) if (at.containsKey(item)) common.add(at.get(item));
    int[] values = common.stream().mapToInt(Integer::intValue).toArray();
    long n = values.length;
    return new OrderDistance(
        n * (n - 1) / 2, inversions(values, new int[values.length], 0, (int) n));
  }

  // counted while the halves are merged
  private static long inversions(int[] values, int[] spare, int from, int to) {
    if (to - from < 2) return 0;
    int middle = (from + to) >>> 1;
    long count = inversions(values, spare, from, middle) + inversions(values, spare, middle, to);
    for (int i = from, l = from, r = middle; i < to; i++) {
      if (r == to || l < middle && values[l] <= values[r]) {
        spare[i] = values[l++];
      } else {
        count += middle - l;
        spare[i] = values[r++];
      }
    }
    System.arraycopy(spare, from, values, from, to - from);
    return count;
  }
}
