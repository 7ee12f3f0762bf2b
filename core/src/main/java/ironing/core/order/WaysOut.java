package ironing.core.order;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;

/**
 * The smallest sets of rules without which there is an order.
 *
 * <p>Idea: whatever opens all rings takes at least one rule out of each, so from a ring that is
 * still closed one goes on with each of its rules; set by set, the smaller first. Source, from
 * memory: Reiter, “A theory of diagnosis from first principles”, 1987.
 *
 * <p>Cost: a search for a ring for each set that is tried. Pure functions.
 */
public final class WaysOut {
  private WaysOut() {}

  /**
   * @param sets all of the smallest size, or those that were found in time
   * @param whole whether nothing was left untried
   */
  public record Found<K>(List<Set<K>> sets, boolean whole) {}

  /**
   * @param ringWithout by the rules that are taken out: the rules of a ring that is still closed,
   *     only those that can be taken out; null where there is an order
   * @param tries how many searches there may be
   */
  public static <K> Found<K> smallest(Function<Set<K>, List<K>> ringWithout, int tries) {
    ArrayDeque<Set<K>> queue = new ArrayDeque<>();
    Set<Set<K>> seen = new HashSet<>();
    List<Set<K>> sets = new ArrayList<>();
    queue.add(Set.of());
    for (int tried = 0; !queue.isEmpty(); tried++) {
      Set<K> out = queue.poll();
      if (!sets.isEmpty() && out.size() > sets.get(0).size()) break;
      if (tried >= tries) return new Found<>(List.copyOf(sets), false);
      List<K> ring = ringWithout.apply(out);
      if (ring == null) {
        sets.add(out);
        continue;
      }
      if (!sets.isEmpty()) continue;
      for (K rule : new LinkedHashSet<>(ring)) {
        Set<K> more = new LinkedHashSet<>(out);
        if (more.add(rule) && seen.add(more)) queue.add(more);
      }
    }
    return new Found<>(List.copyOf(sets), true);
  }
}
