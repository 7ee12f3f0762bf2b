package ironing.core.trouble;

import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.trouble.Members.Need;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.Suspicions.Reason;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What is searched, all that a search has to know of it written down once: who changes the library
 * meanwhile does not change the search.
 *
 * @param parts numbered as the members of the search
 * @param reasons of each part, why it is suspected
 * @param merged by the mod that is a merge, the plugins that it stands for: where it is left out
 *     they are on again
 * @param plugins of mods whose order is searched, the names of the plugins that they bring
 * @param always mods that are in play in every set, and are no parts: those that the fault is
 *     about, and mends that are made anew
 * @param steps the parts that come with each step of a build-up, in this order; empty where the set
 *     is not built up
 */
public record SearchedParts(
    Level level,
    List<Part> parts,
    List<Need> needs,
    List<Set<Reason>> reasons,
    Map<Long, List<String>> merged,
    Map<Long, List<String>> plugins,
    List<Long> always,
    List<List<Integer>> steps) {
  public SearchedParts {
    plugins = plugins == null ? Map.of() : plugins;
    always = always == null ? List.of() : always;
    steps = steps == null ? List.of() : steps;
  }

  SearchedParts(Level level, List<Part> parts, List<Need> needs, List<Set<Reason>> reasons) {
    this(level, parts, needs, reasons, Map.of(), Map.of(), List.of(), List.of());
  }

  public Members members() {
    return new Members(parts.size(), needs);
  }

  public FaultSearch search() {
    double[] suspicion = reasons.stream().mapToDouble(Suspicions::of).toArray();
    // of mods it is asked first whether the unmodded game shows it; inside of what is known to be
    // behind the fault that would cost a run and tell little
    FaultSearch search = new FaultSearch(members(), suspicion, level == Level.MODS);
    return steps.isEmpty() ? search : search.builtUp(steps);
  }

  /**
   * The arrangement for one set: layers and load order keep their order.
   *
   * @param base the arrangement in which all parts are in play
   */
  public Arrangement arranged(Arrangement base, BitSet set) {
    return switch (level) {
      case MODS -> withMods(base, set);
      case ORDER -> swapped(base, set);
      case FILES -> withFiles(base, set);
      // what changes is in the plugins, not in the arrangement
      case RECORDS, FIELDS -> base;
    };
  }

  private Arrangement withMods(Arrangement base, BitSet set) {
    Set<Long> on = new HashSet<>(always);
    set.stream().forEach(i -> on.add(parts.get(i).mod()));
    List<Layer> layers = base.layers().stream().map(l -> l.withOn(on.contains(l.mod()))).toList();
    Set<String> again = new HashSet<>();
    merged.forEach(
        (merge, plugins) -> {
          if (!on.contains(merge)) plugins.forEach(p -> again.add(PathCase.fold(p)));
        });
    List<Wish> plugins =
        base.plugins().stream()
            .map(w -> again.contains(PathCase.fold(w.name())) ? w.withOn(true) : w)
            .toList();
    return base.withLayers(layers).withPlugins(plugins);
  }

  /** With the two of each part that is left out in each other's places, plugins among it. */
  private Arrangement swapped(Arrangement base, BitSet set) {
    List<Layer> layers = new ArrayList<>(base.layers());
    List<Wish> wishes = new ArrayList<>(base.plugins());
    for (int i = 0; i < parts.size(); i++) {
      if (set.get(i)) continue;
      int below = placeOf(layers, parts.get(i).mod()),
          above = placeOf(layers, parts.get(i).above());
      if (below < 0 || above < 0) continue;
      Layer low = layers.get(below), high = layers.get(above);
      layers.set(below, high.withSection(low.section()));
      layers.set(above, low.withSection(high.section()));
      swap(wishes, plugins.get(low.mod()), plugins.get(high.mod()));
    }
    return base.withLayers(layers).withPlugins(wishes);
  }

  /** Those that come later come first, at the places that all of them have. */
  private static void swap(List<Wish> wishes, List<String> these, List<String> those) {
    List<Integer> places = new ArrayList<>();
    List<Wish> first = new ArrayList<>(), second = new ArrayList<>();
    for (int i = 0; i < wishes.size(); i++) {
      boolean isThis = has(these, wishes.get(i)), isThat = has(those, wishes.get(i));
      if (!isThis && !isThat) continue;
      places.add(i);
      (isThis ? first : second).add(wishes.get(i));
    }
    if (first.isEmpty() || second.isEmpty()) return;
    boolean inOrder = wishes.indexOf(first.get(0)) < wishes.indexOf(second.get(0));
    List<Wish> now = new ArrayList<>(inOrder ? second : first);
    now.addAll(inOrder ? first : second);
    for (int i = 0; i < places.size(); i++) wishes.set(places.get(i), now.get(i));
  }

  private static boolean has(List<String> plugins, Wish wish) {
    String name = PathCase.fold(wish.name());
    return plugins != null && plugins.stream().anyMatch(p -> PathCase.fold(p).equals(name));
  }

  private static int placeOf(List<Layer> layers, long mod) {
    for (int i = 0; i < layers.size(); i++) if (layers.get(i).mod() == mod) return i;
    return -1;
  }

  private Arrangement withFiles(Arrangement base, BitSet set) {
    Map<Long, Set<String>> held = new TreeMap<>();
    base.heldBack().forEach((mod, paths) -> held.put(mod, new TreeSet<>(paths)));
    for (int i = 0; i < parts.size(); i++) {
      Part p = parts.get(i);
      if (!set.get(i)) held.computeIfAbsent(p.mod(), m -> new TreeSet<>()).add(p.path());
    }
    return base.withHeldBack(held);
  }
}
