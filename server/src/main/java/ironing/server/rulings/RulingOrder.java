package ironing.server.rulings;

import ironing.core.layers.Holdings;
import ironing.core.layers.PlacementRule;
import ironing.core.layers.PlacementRule.Kind;
import ironing.core.layers.PlacementRule.Strength;
import ironing.core.layers.Placements;
import ironing.core.layers.Placements.Suggestion;
import ironing.core.layers.Standing;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.Wishes.Tiers;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.RuledPaths;
import ironing.server.layerrules.LayerRules.Ruled;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The layer moves that make the most rulings unnecessary. Each ruling wants its mod above all
 * others that bring the same path; where such wishes contradict one another, or a rule of placement
 * that holds now, the wish that fewer paths speak for gives way.
 */
final class RulingOrder {
  private static final Tiers<Long> NO_BANDS = new Tiers<>(Map.of(), Map.of(), "the bands");

  private RulingOrder() {}

  /**
   * @param supportedBy by wish the rulings behind it
   * @param needless rulings that the order of the suggestion satisfies
   * @param packed rulings for files in packs: loose ones stand before them whatever the order
   */
  record Found(
      Suggestion suggestion,
      Map<PlacementRule, Set<String>> supportedBy,
      List<String> needless,
      List<String> packed) {

    /** The order to take, or the present one where there is none. */
    List<Long> order(List<Long> present) {
      return suggestion.outcome() instanceof Outcome.Sorted<Long> s ? s.order() : present;
    }
  }

  private record Wish(long layer, long other) {}

  static Found of(OpenWorkspace open, Ruled ruled) {
    Standing standing = open.picture().standing();
    Holdings holdings = open.picture().holdings();
    Map<Wish, Integer> paths = new HashMap<>();
    Map<Wish, Set<String>> behind = new LinkedHashMap<>();
    Map<String, Set<Wish>> wanted = new LinkedHashMap<>();
    Set<String> packed = new LinkedHashSet<>();
    int[] slots = standing.ruled();
    RuledPaths rulings = new RuledPaths(open.picture());
    for (int p = 0; p < slots.length; p++) {
      if (slots[p] < 0 || !standing.isRuled(p)) continue;
      long mod = holdings.holderAt(slots[p]).mod();
      String at = rulings.deciding(p).at();
      boolean inPack = holdings.holderAt(slots[p]).pack().isPresent();
      wanted.computeIfAbsent(at, a -> new LinkedHashSet<>());
      for (int other : standing.holders(p)) {
        long under = holdings.holderAt(other).mod();
        if (under == mod) continue;
        // the game lies lowest always: a ruling for it is never what the order would say
        if (mod == Holdings.GAME || inPack && holdings.holderAt(other).pack().isEmpty()) {
          packed.add(at);
          continue;
        }
        if (under == Holdings.GAME) continue;
        Wish w = new Wish(open.mods().get(mod).strand(), open.mods().get(under).strand());
        paths.merge(w, 1, Integer::sum);
        behind.computeIfAbsent(w, x -> new LinkedHashSet<>()).add(at);
        wanted.get(at).add(w);
      }
    }
    List<PlacementRule> rules = new ArrayList<>();
    Set<PlacementRule> broken = new HashSet<>(Placements.broken(ruled.order(), ruled.rules()));
    for (PlacementRule r : ruled.rules()) if (!broken.contains(r)) rules.add(r);
    Map<PlacementRule, Set<String>> supportedBy = new LinkedHashMap<>();
    behind.keySet().stream()
        .sorted(Comparator.comparing((Wish w) -> -paths.get(w)))
        .forEach(
            w -> {
              String reason = "ruled for " + some(behind.get(w));
              PlacementRule r =
                  new PlacementRule(
                      Kind.ABOVE, w.layer(), w.other(), reason, "you", Strength.STATED);
              rules.add(r);
              supportedBy.put(r, behind.get(w));
            });
    Set<Long> kept = new HashSet<>();
    for (Layer l : open.picture().arrangement().layers())
      if (l.kept()) kept.add(open.mods().get(l.mod()).strand());
    Suggestion s = Placements.suggest(ruled.order(), rules, NO_BANDS, kept);
    Found found = new Found(s, supportedBy, List.of(), List.copyOf(packed));
    return new Found(
        s, supportedBy, needless(found.order(ruled.order()), wanted, packed), List.copyOf(packed));
  }

  private static List<String> needless(
      List<Long> order, Map<String, Set<Wish>> wanted, Set<String> packed) {
    Map<Long, Integer> height = new HashMap<>();
    for (int i = 0; i < order.size(); i++) height.put(order.get(i), i);
    List<String> needless = new ArrayList<>();
    wanted.forEach(
        (at, wishes) -> {
          if (!packed.contains(at)
              && wishes.stream().allMatch(w -> height.get(w.layer()) > height.get(w.other())))
            needless.add(at);
        });
    return needless;
  }

  private static String some(Set<String> at) {
    String first = at.iterator().next();
    return at.size() == 1 ? first : first + " and " + (at.size() - 1) + " more";
  }
}
