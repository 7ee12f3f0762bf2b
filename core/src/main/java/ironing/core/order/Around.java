package ironing.core.order;

import ironing.core.order.Ordering.Constraint;
import java.util.List;

/**
 * What one item must follow and precede, directly or through others. Immutable.
 *
 * @param before those that must come before it, the nearest by wishes first
 * @param after those that must come after it
 */
public record Around<T>(List<Tie<T>> before, List<Tie<T>> after) {
  /**
   * @param chain the fewest wishes that lead from the earlier to the later of the two
   */
  public record Tie<T>(T other, List<Constraint<T>> chain) {}

  /**
   * Cost: two walks over all wishes.
   *
   * @param wishes without a ring
   */
  public static <T> Around<T> of(List<T> present, Wishes<T> wishes, T item) {
    WishGraph<T> graph = new WishGraph<>(present, wishes);
    if (!graph.ring().isEmpty())
      throw new IllegalArgumentException("the wishes go round: " + graph.ring());
    return graph
        .position(item)
        .map(i -> new Around<>(graph.ties(i, false), graph.ties(i, true)))
        .orElse(new Around<>(List.of(), List.of()));
  }
}
