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

  private static <T> int moved(List<T> order, List<T> present, Set<T> kept) {
    int best = -1;
    for (int stay = 0; stay < 1 << order.size(); stay++) {
      List<T> staying = new ArrayList<>();
      for (int i = 0; i < order.size(); i++) if ((stay >> i & 1) == 1) staying.add(order.get(i));
      if (!staying.containsAll(kept)) continue;
      if (!present.stream().filter(staying::contains).toList().equals(staying)) continue;
      int n = order.size() - staying.size();
      if (best < 0 || n < best) best = n;
    }
    return best;
  }
}
