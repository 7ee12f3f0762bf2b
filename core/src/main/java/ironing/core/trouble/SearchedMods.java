package ironing.core.trouble;

import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.trouble.Members.Need;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.Suspicions.Reason;
import ironing.core.workspace.Mod;
import ironing.core.workspace.Workspace;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;

/**
 * The mods that are on, as what is searched. A mod needs what its card needs or bridges, and
 * whoever brings the masters of its plugins; a mend needs all that it was made from.
 */
public final class SearchedMods {
  private SearchedMods() {}

  /**
   * What is known of mends.
   *
   * @param madeFrom by mend, the mods that it was made from
   * @param merged by merge, the plugins that it stands for
   * @param how what becomes of mends in a set
   * @param anew the mends that can be made anew for each set, without anybody
   */
  public record MendsOf(
      Map<Long, Set<Long>> madeFrom, Map<Long, List<String>> merged, InSets how, Set<Long> anew) {
    private boolean isAnew(long mod) {
      return how == InSets.ANEW && anew.contains(mod);
    }
  }

  /** What becomes of mends in a set. */
  public enum InSets {
    LEFT_OUT,
    /** One is in play, as it is, where all is that it was made from. */
    KEPT,
    /** One is made anew of what is in play; where that cannot be done, as if it were kept. */
    ANEW
  }

  /**
   * @param reasons by mod; who is not named is suspected for nothing
   * @param about mods without which the fault has no meaning: they, and what they need, are in play
   *     in every set
   * @param inSteps whether the set is built up in steps ({@link BuildUp})
   *     <p>Cost: O(mods + plugins + needs).
   */
  public static SearchedParts of(
      Workspace workspace,
      MendsOf mends,
      Map<Long, Set<Reason>> reasons,
      Set<Long> about,
      boolean inSteps) {
    List<Part> parts = new ArrayList<>();
    Map<Long, Integer> numbers = new HashMap<>();
    for (Layer l : workspace.picture().arrangement().layers()) {
      Mod mod = workspace.mods().get(l.mod());
      if (!l.on() || mod == null || (mod.isMend() && mends.how() == InSets.LEFT_OUT)) continue;
      if (mends.isAnew(l.mod())) continue;
      numbers.put(l.mod(), parts.size());
      parts.add(Part.ofMod(l.mod()));
    }
    Set<Need> needs = needsOf(workspace, mends, numbers);
    List<Long> always = new ArrayList<>(always(parts, List.copyOf(needs), about));
    if (!always.isEmpty()) {
      parts.removeIf(p -> always.contains(p.mod()));
      Map<Long, Integer> fewer = new HashMap<>();
      for (Part p : parts) fewer.put(p.mod(), fewer.size());
      needs = needsOf(workspace, mends, fewer);
    }
    for (Layer l : workspace.picture().arrangement().layers())
      if (l.on() && mends.isAnew(l.mod())) always.add(l.mod());
    return new SearchedParts(
        Level.MODS,
        List.copyOf(parts),
        List.copyOf(needs),
        parts.stream().map(p -> reasons.getOrDefault(p.mod(), Set.of())).toList(),
        mends.merged(),
        Map.of(),
        List.copyOf(always),
        inSteps ? BuildUp.steps(workspace, parts, List.copyOf(needs)) : List.of());
  }

  private static Set<Need> needsOf(Workspace workspace, MendsOf mends, Map<Long, Integer> numbers) {
    Set<Need> needs = new LinkedHashSet<>();
    ofCards(workspace, numbers, needs);
    ofPlugins(workspace, numbers, needs);
    mends.madeFrom().forEach((mend, mods) -> mods.forEach(m -> add(numbers, needs, mend, m)));
    return needs;
  }

  /** Some mods and all that they need, near and far, in layer order. */
  private static List<Long> always(List<Part> parts, List<Need> needs, Set<Long> about) {
    if (about.isEmpty()) return List.of();
    BitSet named = new BitSet();
    for (int i = 0; i < parts.size(); i++) if (about.contains(parts.get(i).mod())) named.set(i);
    return new Members(parts.size(), needs)
        .closure(named).stream().mapToObj(i -> parts.get(i).mod()).toList();
  }

  private static void ofCards(Workspace workspace, Map<Long, Integer> numbers, Set<Need> needs) {
    Map<String, List<Long>> byId = new HashMap<>();
    for (long mod : numbers.keySet())
      byId.computeIfAbsent(workspace.mods().get(mod).card().id(), id -> new ArrayList<>()).add(mod);
    for (long mod : numbers.keySet()) {
      ModCard card = workspace.mods().get(mod).card();
      Stream.concat(card.needs().stream(), card.bridges().stream())
          .flatMap(n -> byId.getOrDefault(n.mod(), List.of()).stream())
          .forEach(other -> add(numbers, needs, mod, other));
    }
  }

  // of a plugin that is off too: it is on again where a merge that stands for it is left out
  private static void ofPlugins(Workspace workspace, Map<Long, Integer> numbers, Set<Need> needs) {
    LoadOrder order = workspace.picture().loadOrder();
    for (LoadOrder.Entry e : order.entries())
      for (String master : e.plugin().masters())
        order.find(master).ifPresent(m -> add(numbers, needs, e.plugin().mod(), m.plugin().mod()));
  }

  private static void add(Map<Long, Integer> numbers, Set<Need> needs, long mod, long other) {
    Integer from = numbers.get(mod), to = numbers.get(other);
    if (from != null && to != null && !from.equals(to)) needs.add(new Need(from, to));
  }
}
