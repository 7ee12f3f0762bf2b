package ironing.core.records;

import ironing.core.records.Collision.State;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.IntPredicate;

/** Which plugins collide with which. */
public final class PluginPairs {
  private PluginPairs() {}

  /**
   * Two plugins that have versions of the same records for which no other version stands.
   *
   * @param first the place of the earlier one
   * @param states over how many records they collide, by how these stand
   */
  public record PluginPair(int first, int second, Map<State, Integer> states) {
    public int records() {
      return states.values().stream().mapToInt(Integer::intValue).sum();
    }
  }

  /**
   * Those over most records first.
   *
   * @param counts whether a collision counts, by its place among all
   */
  public static List<PluginPair> of(Collisions all, IntPredicate counts) {
    Map<Long, Map<State, Integer>> pairs = new TreeMap<>();
    for (int i = 0; i < all.size(); i++) {
      if (!counts.test(i)) continue;
      int[] leaves = all.leaves(all.record(i));
      for (int a = 0; a < leaves.length; a++)
        for (int b = a + 1; b < leaves.length; b++)
          pairs
              .computeIfAbsent(
                  (long) leaves[a] << Integer.SIZE | leaves[b], k -> new EnumMap<>(State.class))
              .merge(all.state(i), 1, Integer::sum);
    }
    List<PluginPair> out = new ArrayList<>();
    pairs.forEach(
        (key, states) ->
            out.add(new PluginPair((int) (key >> Integer.SIZE), (int) (long) key, states)));
    out.sort(Comparator.comparingInt(PluginPair::records).reversed());
    return out;
  }
}
