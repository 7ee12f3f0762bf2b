package ironing.core.testkit;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.IntStream;

/** Orders of a few items, all of them. */
public final class Orders {
  private Orders() {}

  public static List<Integer> shuffled(int n, Random random) {
    List<Integer> order = new ArrayList<>(IntStream.range(0, n).boxed().toList());
    Collections.shuffle(order, random);
    return order;
  }

  /**
   * By trying every order: how few items have to move so that an order is good; -1 where none is.
   *
   * @param kept items that must be among those that stay
   */
  public static <T> int fewestMoves(List<T> present, Predicate<List<T>> good, Set<T> kept) {
    return fewest(new ArrayList<>(present), 0, present, good, kept);
  }

  private static <T> int fewest(
      List<T> order, int from, List<T> present, Predicate<List<T>> good, Set<T> kept) {
    if (from == order.size()) return good.test(order) ? moved(order, present, kept) : -1;
    int best = -1;
    for (int i = from; i < order.size(); i++) {
      Collections.swap(order, from, i);
      int n = fewest(order, from + 1, present, good, kept);
      if (n >= 0 && (best < 0 || n < best)) best = n;
      Collections.swap(order, from, i);
    }
    return best;
  }

  // the longest run of items that rises as they stand now, with all that are kept in it; tried from
  // every item before it, so that eight items are soon through
  private static <T> int moved(List<T> order, List<T> present, Set<T> kept) {
    int n = order.size(), longest = kept.isEmpty() ? 0 : -1;
    int[] run = new int[n];
    for (int i = 0; i < n; i++) {
      run[i] = noneKept(order, 0, i, kept) ? 1 : -1;
      for (int j = 0; j < i; j++) {
        boolean rises = present.indexOf(order.get(j)) < present.indexOf(order.get(i));
        if (run[j] > 0 && rises && noneKept(order, j + 1, i, kept))
          run[i] = Math.max(run[i], run[j] + 1);
      }
      if (noneKept(order, i + 1, n, kept)) longest = Math.max(longest, run[i]);
    }
    return longest < 0 ? -1 : n - longest;
  }

  private static <T> boolean noneKept(List<T> order, int from, int to, Set<T> kept) {
    return kept.isEmpty() || order.subList(from, to).stream().noneMatch(kept::contains);
  }
}
