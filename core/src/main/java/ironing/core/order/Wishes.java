package ironing.core.order;

import ironing.core.order.Ordering.Constraint;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * All that an order is to keep. What names an item that is not there does not count. Immutable.
 *
 * @param kept items that must not move: their order among all that do not move stays as it is
 */
public record Wishes<T>(
    List<Constraint<T>> constraints,
    List<Directly<T>> directly,
    List<Tiers<T>> tiers,
    Set<T> kept) {

  public Wishes {
    constraints = List.copyOf(constraints);
    directly = List.copyOf(directly);
    tiers = List.copyOf(tiers);
    kept = Set.copyOf(kept);
  }

  public static <T> Wishes<T> of(List<Constraint<T>> constraints) {
    return new Wishes<>(constraints, List.of(), List.of(), Set.of());
  }

  /**
   * Two items with nothing between them.
   *
   * @param reason in words, as of a {@link Constraint}
   * @param from who said it
   */
  public record Directly<T>(T earlier, T later, String reason, String from) {
    Constraint<T> asConstraint() {
      return new Constraint<>(earlier, later, reason, from);
    }

    /**
     * The same wish from its other end: whatever comes after the later one may not slip between.
     */
    Constraint<T> closing() {
      return new Constraint<>(later, earlier, reason + ", with nothing between", from);
    }
  }

  /**
   * Items in tiers: all of a lower one come before all of a higher one. Those in no tier stand
   * where they like. Said so, instead of pair by pair, because the pairs would be quadratic.
   *
   * @param names what to call each tier: "groundwork"
   * @param from who said it; it tells one set of tiers from another
   */
  public record Tiers<T>(Map<T, Integer> tierOf, Map<Integer, String> names, String from) {
    public Tiers {
      tierOf = Map.copyOf(tierOf);
      names = Map.copyOf(names);
    }

    /** Without one item: it stands where it likes. */
    public Tiers<T> without(T item) {
      Map<T, Integer> rest = new HashMap<>(tierOf);
      rest.remove(item);
      return new Tiers<>(rest, names, from);
    }

    Constraint<T> between(T earlier, T later) {
      String lower = names.get(tierOf.get(earlier)), higher = names.get(tierOf.get(later));
      return new Constraint<>(earlier, later, lower + " before " + higher, from);
    }

    /** The tiers in use with the items of each, the lowest first. */
    TreeMap<Integer, List<T>> grouped(List<T> present) {
      TreeMap<Integer, List<T>> groups = new TreeMap<>();
      for (T item : present) {
        Integer tier = tierOf.get(item);
        if (tier != null) groups.computeIfAbsent(tier, t -> new ArrayList<>()).add(item);
      }
      return groups;
    }
  }
}
