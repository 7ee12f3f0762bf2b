package ironing.core.picture;

import ironing.core.picture.Arrangement.Layer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Moving layers where some of them stand in sections. The layers of a section are neighbours,
 * always: who comes between two of them belongs to it, and who is carried away from it does not.
 *
 * <p>Pure functions over layers from the lowest. Cost: O(layers).
 */
public final class Sections {
  private Sections() {}

  /**
   * Layers put at another place, keeping their order among themselves.
   *
   * @param to how many of the others stay below them
   */
  public static List<Layer> moved(List<Layer> layers, Set<Long> moving, int to) {
    List<Layer> block = layers.stream().filter(l -> moving.contains(l.mod())).toList();
    List<Layer> rest = layers.stream().filter(l -> !moving.contains(l.mod())).toList();
    int at = Math.max(0, Math.min(to, rest.size()));
    Set<Long> whole = wholeSections(block, rest);
    // a section that is carried as one does not come to lie within another
    boolean asOne = !whole.isEmpty() && block.stream().allMatch(l -> whole.contains(l.section()));
    while (asOne && within(rest, at) != 0) at++;
    long into = within(rest, at);
    long below = at > 0 ? rest.get(at - 1).section() : 0;
    long above = at < rest.size() ? rest.get(at).section() : 0;
    List<Layer> next = new ArrayList<>(rest);
    List<Layer> placed = new ArrayList<>();
    for (Layer l : block) {
      boolean stays = whole.contains(l.section()) || l.section() == below || l.section() == above;
      placed.add(l.withSection(into != 0 ? into : stays ? l.section() : 0));
    }
    next.addAll(at, placed);
    return settled(next);
  }

  /** The section on both sides of a gap, 0 for none. */
  private static long within(List<Layer> rest, int at) {
    if (at == 0 || at == rest.size()) return 0;
    long below = rest.get(at - 1).section();
    return below == rest.get(at).section() ? below : 0;
  }

  private static Set<Long> wholeSections(List<Layer> block, List<Layer> rest) {
    Set<Long> whole = new HashSet<>();
    for (Layer l : block) if (l.section() != 0) whole.add(l.section());
    for (Layer l : rest) whole.remove(l.section());
    return whole;
  }

  /**
   * Layers gathered into a section: those that are not neighbours of it go to its top, or, where it
   * is new, to the highest of them.
   */
  public static List<Layer> gathered(List<Layer> layers, Set<Long> mods, long section) {
    List<Layer> block =
        layers.stream()
            .filter(l -> mods.contains(l.mod()) && l.section() != section)
            .map(l -> l.withSection(section))
            .toList();
    Set<Long> moving = new HashSet<>();
    for (Layer l : block) moving.add(l.mod());
    List<Layer> rest = new ArrayList<>();
    int top = -1, highest = 0;
    for (Layer l : layers) {
      if (moving.contains(l.mod())) {
        highest = rest.size();
        continue;
      }
      rest.add(l);
      if (l.section() == section) top = rest.size();
    }
    int at = top >= 0 ? top : highest;
    // not into the middle of another section
    while (top < 0 && within(rest, at) != 0) at++;
    rest.addAll(at, block);
    return settled(rest);
  }

  /** Of a section that was torn apart the longest stretch stays, of equals the lowest. */
  public static List<Layer> settled(List<Layer> layers) {
    Map<Long, int[]> longest = new HashMap<>();
    for (int from = 0; from < layers.size(); ) {
      int to = from + 1;
      long section = layers.get(from).section();
      while (to < layers.size() && layers.get(to).section() == section) to++;
      int[] best = longest.get(section);
      if (section != 0 && (best == null || best[1] - best[0] < to - from))
        longest.put(section, new int[] {from, to});
      from = to;
    }
    List<Layer> settled = new ArrayList<>();
    for (int i = 0; i < layers.size(); i++) {
      Layer l = layers.get(i);
      int[] stretch = longest.get(l.section());
      boolean out = stretch != null && (i < stretch[0] || i >= stretch[1]);
      settled.add(out ? l.withSection(0) : l);
    }
    return List.copyOf(settled);
  }
}
