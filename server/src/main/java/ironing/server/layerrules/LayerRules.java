package ironing.server.layerrules;

import ironing.core.layers.Holdings;
import ironing.core.layers.PlacementRule;
import ironing.core.layers.PlacementRule.Kind;
import ironing.core.layers.PlacementRule.Strength;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.order.Wishes.Tiers;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.workspace.Mod;
import ironing.server.mends.Mends;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;

/**
 * Every rule of placement that speaks in a workspace: the user's own, those of the cards, and that
 * a patch comes after what it patches. That a mod needs another is no order between their layers;
 * where its plugin builds on the other's, that is. A layer is known by its strand, which all
 * versions of a mod share.
 */
@Component
public class LayerRules {
  /** What the rules of cards come from, before the mod's name. */
  private static final String OF_CARD = "the card of ";

  private final Mends mends;

  LayerRules(Mends mends) {
    this.mends = mends;
  }

  /**
   * @param order the layers from the lowest, by strand
   * @param rules the user's own first
   * @param modOf the version in use, by strand
   */
  public record Ruled(
      List<Long> order, List<PlacementRule> rules, Tiers<Long> bands, Map<Long, Long> modOf) {}

  /** Whether a rule is the user's, or stands on a card: of the others Ironing takes care itself. */
  public static boolean isStated(PlacementRule r) {
    return r.from().equals("you") || r.from().startsWith(OF_CARD);
  }

  public Ruled of(OpenWorkspace open) {
    Map<Long, Long> modOf = new LinkedHashMap<>();
    for (Layer l : open.picture().arrangement().layers())
      modOf.put(open.mods().get(l.mod()).strand(), l.mod());
    List<PlacementRule> rules = new ArrayList<>(open.picture().arrangement().rules());
    cards(open, modOf, rules);
    masters(open, rules);
    mends
        .patched(open)
        .forEach(
            (mend, mods) -> {
              for (long mod : mods) above(open, rules, mend, mod, "it patches that", "Ironing");
            });
    return new Ruled(List.copyOf(modOf.keySet()), List.copyOf(rules), bands(open, modOf), modOf);
  }

  private static void cards(OpenWorkspace open, Map<Long, Long> modOf, List<PlacementRule> rules) {
    Map<String, Long> byId = new HashMap<>();
    modOf.forEach((strand, mod) -> byId.put(open.mods().get(mod).card().id(), strand));
    modOf.forEach(
        (strand, mod) -> {
          ModCard card = open.mods().get(mod).card();
          String from = OF_CARD + card.name();
          for (String other : card.after())
            stated(rules, Kind.ABOVE, strand, byId.get(other), "it asks to come after that", from);
          for (String other : card.before())
            stated(rules, Kind.BELOW, strand, byId.get(other), "it asks to come before that", from);
        });
  }

  /** A plugin that builds on another one's records comes from a mod that patches the other. */
  private static void masters(OpenWorkspace open, List<PlacementRule> rules) {
    Set<List<Long>> said = new HashSet<>();
    for (Entry e : open.picture().loadOrder().entries()) {
      for (String master : e.plugin().masters()) {
        open.picture()
            .loadOrder()
            .find(master)
            .ifPresent(
                m -> {
                  if (said.add(List.of(e.plugin().mod(), m.plugin().mod())))
                    above(
                        open,
                        rules,
                        e.plugin().mod(),
                        m.plugin().mod(),
                        e.name() + " builds on " + m.name() + " of that",
                        "the file");
                });
      }
    }
  }

  private static void above(
      OpenWorkspace open,
      List<PlacementRule> rules,
      long mod,
      long other,
      String reason,
      String from) {
    Mod a = open.mods().get(mod), b = open.mods().get(other);
    if (a == null || b == null || mod == Holdings.GAME || other == Holdings.GAME) return;
    stated(rules, Kind.ABOVE, a.strand(), b.strand(), reason, from);
  }

  private static void stated(
      List<PlacementRule> rules, Kind kind, long strand, Long other, String reason, String from) {
    if (other == null || other == strand) return;
    rules.add(new PlacementRule(kind, strand, other, reason, from, Strength.STATED));
  }

  private static Tiers<Long> bands(OpenWorkspace open, Map<Long, Long> modOf) {
    Map<Long, Integer> tierOf = new HashMap<>();
    modOf.forEach(
        (strand, mod) ->
            open.mods()
                .get(mod)
                .card()
                .band()
                .ifPresent(b -> tierOf.put(strand, ModCard.BANDS.indexOf(b))));
    Map<Integer, String> names = new HashMap<>();
    for (int i = 0; i < ModCard.BANDS.size(); i++) names.put(i, ModCard.BANDS.get(i));
    return new Tiers<>(tierOf, names, "the bands of the cards");
  }
}
