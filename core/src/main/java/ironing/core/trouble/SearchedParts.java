package ironing.core.trouble;

import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.trouble.Members.Need;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.Suspicions.Reason;
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
 */
public record SearchedParts(
    Level level,
    List<Part> parts,
    List<Need> needs,
    List<Set<Reason>> reasons,
    Map<Long, List<String>> merged) {

  public Members members() {
    return new Members(parts.size(), needs);
  }

  public FaultSearch search() {
    double[] suspicion = reasons.stream().mapToDouble(Suspicions::of).toArray();
    // of mods it is asked first whether the unmodded game shows it; inside of what is known to be
    // behind the fault that would cost a run and tell little
    return new FaultSearch(members(), suspicion, level == Level.MODS);
  }

  /**
   * The arrangement for one set: layers and load order keep their order.
   *
   * @param base the arrangement in which all parts are in play
   */
  public Arrangement arranged(Arrangement base, BitSet set) {
    return switch (level) {
      case MODS -> withMods(base, set);
      case FILES -> withFiles(base, set);
      // what changes is in the plugins, not in the arrangement
      case RECORDS, FIELDS -> base;
    };
  }

  private Arrangement withMods(Arrangement base, BitSet set) {
    Set<Long> on = new HashSet<>();
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
