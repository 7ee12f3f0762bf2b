package ironing.core.loadorder;

import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadWishes.Soft;
import ironing.core.order.Around;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.WaysOut;
import ironing.core.order.Wishes;
import ironing.core.order.Wishes.Tiers;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * A better load order, as a value to look at before it is taken: what is fixed holds, then the
 * rules by their strength, and as few plugins as can be move. What is kept here does not.
 *
 * @param outcome names as they are spelled in play; a ring when what is fixed, or fixed and kept
 *     here, contradicts itself
 * @param gaveWay what could not be kept beside stronger wishes
 */
public record LoadOrderProposal(Outcome<String> outcome, List<GaveWay> gaveWay, Held held) {
  private static final int TRIES = 60;

  /**
   * @param rule empty where a plugin was let out of its mod’s band
   * @param plugin whom it is about
   * @param ring the shortest one that it closed
   */
  public record GaveWay(Optional<LoadRule> rule, String plugin, List<Constraint<String>> ring) {}

  /** What the proposal keeps, for questions about it. */
  public record Held(List<String> present, Wishes<String> wishes) {}

  /**
   * A thing that can be taken out of a contradiction.
   *
   * @param rule the key of a rule, or null
   * @param off a plugin that would be switched off, or null
   * @param free a plugin that would no longer be kept where it is, or null
   */
  public record Exit(String rule, String off, String free) {}

  /**
   * Cost: one sort, and a search for a ring for each wish that gives way.
   *
   * @param rules of one strength the later ones give way
   */
  public static LoadOrderProposal propose(
      LoadOrder order, List<LoadRule> rules, PluginFacts facts) {
    List<String> present = names(order);
    LoadWishes wishes = new LoadWishes(order, rules, facts);
    List<Soft> standing = new ArrayList<>(wishes.soft());
    Map<Integer, Tiers<String>> bands = new TreeMap<>(wishes.bands());
    List<GaveWay> gaveWay = new ArrayList<>();
    while (true) {
      Wishes<String> held = wishes.wishes(standing, bands.values());
      Outcome<String> outcome = FewestMoves.sort(present, held);
      if (!(outcome instanceof Outcome.Ring<String> found))
        return new LoadOrderProposal(outcome, List.copyOf(gaveWay), new Held(present, held));
      List<Constraint<String>> ring = found.ring();
      Optional<Constraint<String>> band =
          ring.stream().filter(c -> c.from().equals(LoadWishes.BANDS)).findFirst();
      if (band.isPresent()) {
        String plugin = band.get().later();
        bands.replaceAll((stage, t) -> t.tierOf().containsKey(plugin) ? t.without(plugin) : t);
        gaveWay.add(new GaveWay(Optional.empty(), plugin, ring));
        continue;
      }
      Optional<Soft> weakest = weakest(standing, ring);
      if (weakest.isEmpty())
        return new LoadOrderProposal(outcome, List.copyOf(gaveWay), new Held(present, held));
      standing.remove(weakest.get());
      LoadRule rule = weakest.get().rule();
      gaveWay.add(new GaveWay(Optional.of(rule), rule.plugin().text(), ring));
    }
  }

  private static List<String> names(LoadOrder order) {
    return order.entries().stream().map(Entry::name).toList();
  }

  /** Of the rules in a ring the last one of the least strength. */
  private static Optional<Soft> weakest(List<Soft> standing, List<Constraint<String>> ring) {
    Soft weakest = null;
    for (Soft s : standing) {
      if (ring.stream().noneMatch(s::said)) continue;
      if (weakest == null || s.rule().strength().compareTo(weakest.rule().strength()) >= 0)
        weakest = s;
    }
    return Optional.ofNullable(weakest);
  }

  /**
   * The smallest sets of things that could be taken out so that all the rest holds together: rules,
   * places kept here, or plugins switched off. Empty sets where nothing contradicts.
   */
  public static WaysOut.Found<Exit> waysOut(
      LoadOrder order, List<LoadRule> rules, PluginFacts facts) {
    List<String> present = names(order);
    LoadWishes wishes = new LoadWishes(order, rules, facts);
    return WaysOut.smallest(out -> ringWithout(present, wishes, out), TRIES);
  }

  private static List<Exit> ringWithout(List<String> present, LoadWishes wishes, Set<Exit> out) {
    Set<String> rules = new HashSet<>(), off = new HashSet<>(), kept = new HashSet<>(wishes.kept());
    for (Exit e : out) {
      if (e.rule() != null) rules.add(e.rule());
      if (e.off() != null) off.add(e.off());
      if (e.free() != null) kept.remove(e.free());
    }
    Wishes<String> fixed = wishes.fixedWishes(off, kept);
    List<Constraint<String>> constraints = new ArrayList<>(fixed.constraints());
    List<Tiers<String>> tiers = new ArrayList<>(fixed.tiers());
    List<Soft> standing =
        wishes.soft().stream().filter(s -> !rules.contains(s.rule().key())).toList();
    for (Soft s : standing) {
      constraints.addAll(s.constraints());
      s.tiers().ifPresent(tiers::add);
    }
    Outcome<String> outcome =
        FewestMoves.sort(present, new Wishes<>(constraints, List.of(), tiers, kept));
    if (!(outcome instanceof Outcome.Ring<String> found)) return null;
    List<Exit> exits = new ArrayList<>();
    for (Constraint<String> step : found.ring()) {
      for (Soft s : standing) if (s.said(step)) exits.add(new Exit(s.rule().key(), null, null));
      if (step.from().equals(LoadWishes.FILE)) exits.add(new Exit(null, step.later(), null));
      if (step.from().equals(LoadWishes.KEPT)) {
        exits.add(new Exit(null, null, step.earlier()));
        exits.add(new Exit(null, null, step.later()));
      }
    }
    return exits;
  }

  /** The present order with some of the proposed moves made. */
  public List<String> some(Set<String> moved) {
    Outcome.Sorted<String> sorted = (Outcome.Sorted<String>) outcome;
    return FewestMoves.some(held.present(), sorted, moved);
  }

  /**
   * Why a plugin stands where it does.
   *
   * @param lowest the first place, from 0, at which it would keep all its rules if nothing else
   *     moved
   * @param highest the last such place; below lowest where there is none
   */
  public record Why(Around<String> around, int lowest, int highest) {}

  /**
   * @param name as it is spelled in play
   */
  public Why why(String name) {
    Around<String> around = Around.of(held.present(), held.wishes(), name);
    Set<String> before = new HashSet<>(), after = new HashSet<>();
    around.before().forEach(t -> before.add(t.other()));
    around.after().forEach(t -> after.add(t.other()));
    int lowest = 0, highest = held.present().size() - 1, at = 0;
    boolean bounded = false;
    for (String other : held.present()) {
      if (other.equals(name)) continue;
      if (before.contains(other)) lowest = at + 1;
      if (after.contains(other) && !bounded) {
        highest = at;
        bounded = true;
      }
      at++;
    }
    return new Why(around, lowest, highest);
  }

  /** The proposed order with the on and off of the present one. */
  public static List<Wish> asWishes(LoadOrder present, List<String> order) {
    List<Wish> wishes = new ArrayList<>();
    for (String name : order)
      present.find(name).filter(e -> !e.own()).ifPresent(e -> wishes.add(e.asWish()));
    return wishes;
  }

  /** A plugin that two proposals put at different places, counted from 0. */
  public record Unlike(String name, int from, int to) {}

  /**
   * Where one proposal puts plugins otherwise than another, in the order of the second; none where
   * one of the two has no order. Of those that neither moves, a change of place is only that
   * another has gone past: they are left out.
   */
  public static List<Unlike> unlike(LoadOrderProposal one, LoadOrderProposal other) {
    List<Unlike> unlike = new ArrayList<>();
    if (!(one.outcome() instanceof Outcome.Sorted<String> a)
        || !(other.outcome() instanceof Outcome.Sorted<String> b)) return unlike;
    Map<String, Integer> at = new HashMap<>();
    for (String name : a.order()) at.put(name, at.size());
    Set<String> moved = new HashSet<>();
    a.moves().forEach(m -> moved.add(m.item()));
    b.moves().forEach(m -> moved.add(m.item()));
    for (int i = 0; i < b.order().size(); i++) {
      String name = b.order().get(i);
      if (moved.contains(name) && at.get(name) != i) unlike.add(new Unlike(name, at.get(name), i));
    }
    return unlike;
  }
}
