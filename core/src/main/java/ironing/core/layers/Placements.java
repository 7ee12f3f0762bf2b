package ironing.core.layers;

import ironing.core.layers.PlacementRule.Kind;
import ironing.core.layers.PlacementRule.Strength;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.Wishes;
import ironing.core.order.Wishes.Directly;
import ironing.core.order.Wishes.Tiers;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Holds an install order against the rules of placement: which of them it breaks, what would mend
 * that, and which order would keep them all with the fewest moves.
 *
 * <p>An order is the layers from the lowest, each by its number. Rules that name a layer that is
 * not there do not count. Pure functions.
 */
public final class Placements {
  private static final String YOU = "you";
  private static final int BOTTOM = 0, MIDDLE = 1, TOP = 2;
  private static final Map<Integer, String> END_NAMES =
      Map.of(BOTTOM, "what is to be lowest", MIDDLE, "all else", TOP, "what is to be on top");

  private Placements() {}

  /**
   * What a suggestion came to.
   *
   * @param outcome the order with its moves, or a ring of rules none of which gives way
   * @param leftOut what gave way, each with the ring that it closed
   */
  public record Suggestion(Outcome<Long> outcome, List<LeftOut> leftOut) {}

  /**
   * @param rule empty where a layer was let out of its band
   */
  public record LeftOut(Optional<PlacementRule> rule, long layer, List<Constraint<Long>> ring) {}

  /** The rules that an order breaks. Cost: O(layers + rules). */
  public static List<PlacementRule> broken(List<Long> order, List<PlacementRule> rules) {
    Map<Long, Integer> at = new HashMap<>();
    for (int i = 0; i < order.size(); i++) at.put(order.get(i), i);
    Map<Long, Integer> ends = ends(rules);
    int lowestOther = order.size(), highestOther = -1;
    for (int i = 0; i < order.size(); i++) {
      int end = ends.getOrDefault(order.get(i), MIDDLE);
      if (end != BOTTOM) lowestOther = Math.min(lowestOther, i);
      if (end != TOP) highestOther = i;
    }
    List<PlacementRule> broken = new ArrayList<>();
    for (PlacementRule r : rules) {
      Integer a = at.get(r.layer()), b = at.get(r.other());
      if (a == null || r.kind().hasOther() && b == null) continue;
      boolean holds =
          switch (r.kind()) {
            case ABOVE -> a > b;
            case BELOW -> a < b;
            case DIRECTLY_ABOVE -> a == b + 1;
            case DIRECTLY_BELOW -> a == b - 1;
            case TOP -> a > highestOther;
            case BOTTOM -> a < lowestOther;
          };
      if (!holds) broken.add(r);
    }
    return List.copyOf(broken);
  }

  /**
   * The fewest moves that make one rule hold and break none that holds now; none where it cannot
   * be.
   */
  public static Optional<Outcome.Sorted<Long>> mend(
      List<Long> order, List<PlacementRule> rules, PlacementRule broken) {
    Set<PlacementRule> others = new HashSet<>(broken(order, rules));
    List<PlacementRule> wanted =
        rules.stream().filter(r -> r.equals(broken) || !others.contains(r)).toList();
    Outcome<Long> outcome = FewestMoves.sort(order, wishes(order, wanted, List.of(), Set.of()));
    return outcome instanceof Outcome.Sorted<Long> s ? Optional.of(s) : Optional.empty();
  }

  /**
   * An order that keeps the rules, and the bands where no rule speaks against them, with the fewest
   * moves. Of rules that contradict one another the last one that is not the user's gives way, and
   * any gives way to what is kept here.
   *
   * @param bands the tiers of the layers that have one
   * @param kept layers that must not move
   */
  public static Suggestion suggest(
      List<Long> order, List<PlacementRule> rules, Tiers<Long> bands, Set<Long> kept) {
    List<PlacementRule> standing = new ArrayList<>(rules);
    Tiers<Long> banded = bands;
    List<LeftOut> leftOut = new ArrayList<>();
    while (true) {
      Outcome<Long> outcome =
          FewestMoves.sort(order, wishes(order, standing, List.of(banded), kept));
      if (!(outcome instanceof Outcome.Ring<Long> found))
        return new Suggestion(outcome, List.copyOf(leftOut));
      List<Constraint<Long>> ring = found.ring();
      Optional<Constraint<Long>> band =
          ring.stream().filter(c -> c.from().equals(bands.from())).findFirst();
      if (band.isPresent()) {
        long free = outOfBand(ring, standing, band.get());
        banded = banded.without(free);
        leftOut.add(new LeftOut(Optional.empty(), free, ring));
        continue;
      }
      Optional<PlacementRule> weakest =
          ring.stream()
              .flatMap(c -> ruleOf(standing, c).stream())
              .filter(r -> r.strength() == Strength.STATED)
              .reduce((a, b) -> standing.indexOf(a) > standing.indexOf(b) ? a : b);
      if (weakest.isEmpty()) return new Suggestion(outcome, List.copyOf(leftOut));
      standing.remove(weakest.get());
      leftOut.add(new LeftOut(weakest, weakest.get().layer(), ring));
    }
  }

  /**
   * Who is let out of its band: the layer that a rule in the ring is about, if the bands speak of
   * it there.
   */
  private static long outOfBand(
      List<Constraint<Long>> ring, List<PlacementRule> rules, Constraint<Long> band) {
    for (Constraint<Long> c : ring) {
      Optional<Long> subject = ruleOf(rules, c).map(PlacementRule::layer);
      if (subject.isPresent()
          && (subject.get().equals(band.earlier()) || subject.get().equals(band.later())))
        return subject.get();
    }
    return band.later();
  }

  private static Map<Long, Integer> ends(List<PlacementRule> rules) {
    Map<Long, Integer> ends = new HashMap<>();
    for (PlacementRule r : rules) {
      if (!r.kind().hasOther())
        // one that is to be both stands between those that are to be only one of it
        ends.merge(
            r.layer(), r.kind() == Kind.TOP ? TOP : BOTTOM, (a, b) -> a.equals(b) ? a : MIDDLE);
    }
    return ends;
  }

  /** The rule that a step of a ring came from; steps from tiers and from what is kept have none. */
  private static Optional<PlacementRule> ruleOf(List<PlacementRule> rules, Constraint<Long> step) {
    Optional<PlacementRule> exact =
        rules.stream()
            .filter(r -> r.kind().hasOther() && r.asConstraint().equals(step))
            .findFirst();
    if (exact.isPresent()) return exact;
    // where ties contradict one another a step is said from another side
    return rules.stream()
        .filter(r -> r.kind().isDirect() && step.reason().startsWith(r.reason()))
        .filter(r -> r.from().equals(step.from()) && touches(r, step))
        .findFirst();
  }

  private static boolean touches(PlacementRule r, Constraint<Long> step) {
    return Set.of(step.earlier(), step.later()).contains(r.layer())
        || Set.of(step.earlier(), step.later()).contains(r.other());
  }

  private static Wishes<Long> wishes(
      List<Long> order, List<PlacementRule> rules, List<Tiers<Long>> bands, Set<Long> kept) {
    List<Constraint<Long>> constraints = new ArrayList<>();
    List<Directly<Long>> directly = new ArrayList<>();
    for (PlacementRule r : rules) {
      if (r.kind().isDirect()) directly.add(r.asDirectly());
      else if (r.kind().hasOther()) constraints.add(r.asConstraint());
    }
    List<Tiers<Long>> tiers = new ArrayList<>(bands);
    Map<Long, Integer> ends = ends(rules);
    Optional<Long> plain = order.stream().filter(l -> !ends.containsKey(l)).findFirst();
    for (PlacementRule r : rules) {
      // above and below one that is to be at neither end: the ring is to be found
      if (r.kind().hasOther() || plain.isEmpty() || ends.get(r.layer()) != MIDDLE) continue;
      long lower = r.kind() == Kind.TOP ? plain.get() : r.layer();
      long upper = r.kind() == Kind.TOP ? r.layer() : plain.get();
      constraints.add(new Constraint<>(lower, upper, r.reason(), r.from()));
    }
    if (!ends.isEmpty()) {
      Map<Long, Integer> tierOf = new HashMap<>();
      for (long layer : order) tierOf.put(layer, ends.getOrDefault(layer, MIDDLE));
      tiers.add(0, new Tiers<>(tierOf, END_NAMES, YOU));
    }
    return new Wishes<>(constraints, directly, tiers, kept);
  }
}
