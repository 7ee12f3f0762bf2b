package ironing.core.loadorder;

import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadRule.Kind;
import ironing.core.loadorder.LoadRule.Who;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Wishes;
import ironing.core.order.Wishes.Tiers;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * What the order of the plugins in play is to keep: what is fixed (masters, stages, the game’s own
 * first), and the rules, each as wishes that can be left out again. Names are spelled as in play.
 */
final class LoadWishes {
  static final String FILE = "the file";
  static final String GAME = "the game";
  static final String BANDS = "the bands of the mods";
  static final String KEPT = "you";
  private static final int OWN_TIER = -1;

  /** A rule as wishes about the plugins that are in play now: single pairs, or tiers for groups. */
  record Soft(LoadRule rule, List<Constraint<String>> constraints, Optional<Tiers<String>> tiers) {
    boolean said(Constraint<String> step) {
      return constraints.contains(step)
          || tiers.isPresent()
              && step.from().equals(tiers.get().from())
              && tiers.get().tierOf().containsKey(step.earlier());
    }
  }

  private final List<Constraint<String>> fixed = new ArrayList<>();
  private final List<Tiers<String>> stages = new ArrayList<>();
  private final List<Soft> soft = new ArrayList<>();
  private final Map<Integer, Tiers<String>> bands = new TreeMap<>();
  private final Set<String> kept;

  /**
   * @param rules that count; those that are not of the order are passed over
   * @param facts of the mods that bring the plugins
   */
  LoadWishes(LoadOrder order, List<LoadRule> rules, PluginFacts facts) {
    fixed(order);
    Members members = new Members(order, facts);
    for (LoadRule r : rules) if (r.kind().isOfOrder()) rule(r, members);
    bands(order, facts);
    kept =
        order.entries().stream()
            .filter(Entry::kept)
            .map(Entry::name)
            .collect(Collectors.toUnmodifiableSet());
  }

  List<Soft> soft() {
    return soft;
  }

  Map<Integer, Tiers<String>> bands() {
    return bands;
  }

  Set<String> kept() {
    return kept;
  }

  /** What is fixed alone, without the masters of some plugins, and some places kept. */
  Wishes<String> fixedWishes(Set<String> without, Set<String> kept) {
    return new Wishes<>(
        fixed.stream()
            .filter(c -> !(c.from().equals(FILE) && without.contains(c.later())))
            .toList(),
        List.of(),
        stages,
        kept);
  }

  Wishes<String> wishes(List<Soft> rules, Iterable<Tiers<String>> bands) {
    List<Constraint<String>> constraints = new ArrayList<>(fixed);
    List<Tiers<String>> tiers = new ArrayList<>(stages);
    for (Soft s : rules) {
      constraints.addAll(s.constraints());
      s.tiers().ifPresent(tiers::add);
    }
    bands.forEach(tiers::add);
    return new Wishes<>(constraints, List.of(), tiers, kept);
  }

  private void fixed(LoadOrder order) {
    String ownBefore = null;
    Map<String, Integer> stageOf = new HashMap<>();
    Map<Integer, String> names = new HashMap<>(Map.of(OWN_TIER, "the game’s own plugins"));
    for (Entry e : order.entries()) {
      int stage = e.own() ? OWN_TIER : e.plugin().stage();
      stageOf.put(e.name(), stage);
      names.putIfAbsent(stage, "stage " + stage);
      if (e.own()) {
        if (ownBefore != null)
          fixed.add(
              new Constraint<>(
                  ownBefore, e.name(), "the game loads its own plugins in this order", GAME));
        ownBefore = e.name();
      }
      // one that is off asks for nothing
      for (String master : e.on() ? e.plugin().masters() : List.<String>of()) {
        order
            .find(master)
            .ifPresent(
                m ->
                    fixed.add(
                        new Constraint<>(
                            m.name(), e.name(), "it lists " + m.name() + " as a master", FILE)));
      }
    }
    if (names.size() > 1 && !stageOf.isEmpty()) stages.add(new Tiers<>(stageOf, names, GAME));
  }

  /** Who belongs to whom, found once for each way of naming. */
  private static final class Members {
    private final LoadOrder order;
    private final PluginFacts facts;
    private final Map<Who, List<String>> known = new HashMap<>();

    Members(LoadOrder order, PluginFacts facts) {
      this.order = order;
      this.facts = facts;
    }

    List<String> of(Who who) {
      return known.computeIfAbsent(
          who, w -> w.among(order, facts).stream().map(Entry::name).toList());
    }
  }

  private void rule(LoadRule r, Members members) {
    boolean after = r.kind() == Kind.AFTER;
    List<String> earlier = members.of(after ? r.other() : r.plugin());
    List<String> later = members.of(after ? r.plugin() : r.other());
    if (earlier.isEmpty() || later.isEmpty()) return;
    if (earlier.size() == 1 && later.size() == 1) {
      if (earlier.equals(later)) return;
      soft.add(
          new Soft(
              r,
              List.of(new Constraint<>(earlier.get(0), later.get(0), r.reason(), r.from())),
              Optional.empty()));
      return;
    }
    // whoever is in both groups is spoken of from the side of the one that the rule is about
    Map<String, Integer> tierOf = new LinkedHashMap<>();
    for (String name : after ? earlier : later) tierOf.put(name, after ? 0 : 1);
    for (String name : after ? later : earlier) tierOf.put(name, after ? 1 : 0);
    Map<Integer, String> names =
        Map.of(
            0,
            (after ? r.other() : r.plugin()).toString(),
            1,
            (after ? r.plugin() : r.other()).toString());
    soft.add(new Soft(r, List.of(), Optional.of(new Tiers<>(tierOf, names, r.from()))));
  }

  // within a stage: what bands say across stages could never be kept, or is so anyway
  private void bands(LoadOrder order, PluginFacts facts) {
    Map<Integer, Map<String, Integer>> byStage = new TreeMap<>();
    Map<Integer, String> names = new HashMap<>();
    for (Entry e : order.entries()) {
      Optional<PluginFacts.Band> band = e.own() ? Optional.empty() : facts.band(e.plugin());
      if (band.isEmpty()) continue;
      byStage
          .computeIfAbsent(e.plugin().stage(), s -> new LinkedHashMap<>())
          .put(e.name(), band.get().tier());
      names.put(band.get().tier(), band.get().name());
    }
    byStage.forEach((stage, tierOf) -> bands.put(stage, new Tiers<>(tierOf, names, BANDS)));
  }
}
