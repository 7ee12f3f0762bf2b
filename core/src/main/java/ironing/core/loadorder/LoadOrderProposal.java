package ironing.core.loadorder;

import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.order.Ordering;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Outcome;
import ironing.core.path.PathCase;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * A better load order, as a value to look at before it is taken: the game's own first, lower stages
 * before higher, every plugin after its masters, and what cards ask for where that leaves room.
 */
public final class LoadOrderProposal {
  /** A wish from a mod's card: {@code plugin} after or before {@code other}. */
  public record CardWish(String plugin, String other, boolean after, String mod) {}

  private LoadOrderProposal() {}

  /**
   * The outcome in plugin names as they are spelled in play. Wishes of cards that make a ring are
   * left out one by one.
   */
  public static Outcome<String> propose(LoadOrder order, List<CardWish> cardWishes) {
    List<String> present = order.entries().stream().map(Entry::name).toList();
    List<String> withGates = new ArrayList<>(present);
    withGates.addAll(gates(order));
    List<Constraint<String>> all = hardConstraints(order);
    if (Ordering.sort(withGates, all) instanceof Outcome.Sorted) {
      for (CardWish w : cardWishes) {
        int a = order.position(w.plugin()), b = order.position(w.other());
        if (a < 0 || b < 0) continue;
        all.add(constraint(w, present.get(a), present.get(b)));
        if (Ordering.sort(withGates, all) instanceof Outcome.Ring) all.remove(all.size() - 1);
      }
    }
    Outcome<String> outcome = Ordering.sort(withGates, all);
    if (!(outcome instanceof Outcome.Sorted<String> sorted)) return outcome;
    List<String> plugins = sorted.order().stream().filter(name -> !isGate(name)).toList();
    List<Constraint<String>> reasons =
        new ArrayList<>(
            all.stream().filter(c -> !isGate(c.earlier()) && !isGate(c.later())).toList());
    reasons.addAll(stageReasons(order));
    return new Outcome.Sorted<>(plugins, Ordering.moves(present, plugins, reasons));
  }

  /** The proposed order with the on and off of the present one. */
  public static List<Wish> asWishes(LoadOrder present, List<String> order) {
    List<Wish> wishes = new ArrayList<>();
    for (String name : order) {
      present
          .find(name)
          .filter(e -> !e.own())
          .ifPresent(e -> wishes.add(new Wish(e.name(), e.on())));
    }
    return wishes;
  }

  private static List<Constraint<String>> hardConstraints(LoadOrder order) {
    List<Constraint<String>> out = new ArrayList<>();
    List<Entry> own = order.entries().stream().filter(Entry::own).toList();
    TreeMap<Integer, List<Entry>> stages = new TreeMap<>();
    for (Entry e : order.entries())
      if (!e.own()) stages.computeIfAbsent(e.plugin().stage(), s -> new ArrayList<>()).add(e);
    for (int i = 1; i < own.size(); i++)
      out.add(
          new Constraint<>(
              own.get(i - 1).name(),
              own.get(i).name(),
              "the game loads its own plugins first",
              "the game"));
    if (!own.isEmpty()) {
      String last = own.get(own.size() - 1).name();
      for (Entry e : order.entries())
        if (!e.own())
          out.add(
              new Constraint<>(last, e.name(), "the game loads its own plugins first", "the game"));
    }
    // Pairs of plugins would be quadratic: instead every plugin of a stage comes before a gate, and
    // the next stage after it.
    Integer lower = null;
    for (Map.Entry<Integer, List<Entry>> stage : stages.entrySet()) {
      if (lower != null) {
        String gate = gate(lower, stage.getKey());
        for (Entry e : stages.get(lower))
          out.add(
              new Constraint<>(
                  e.name(),
                  gate,
                  "stage " + lower + " loads before stage " + stage.getKey(),
                  "the file"));
        for (Entry e : stage.getValue())
          out.add(
              new Constraint<>(
                  gate,
                  e.name(),
                  "it is of stage " + stage.getKey() + ", which loads after stage " + lower,
                  "the file"));
      }
      lower = stage.getKey();
    }
    Map<String, Entry> byName = new HashMap<>();
    for (Entry e : order.entries()) byName.put(PathCase.fold(e.name()), e);
    for (Entry e : order.entries()) {
      for (String master : e.plugin().masters()) {
        Entry m = byName.get(PathCase.fold(master));
        if (m != null)
          out.add(
              new Constraint<>(
                  m.name(), e.name(), "it lists " + m.name() + " as a master", "the file"));
      }
    }
    return out;
  }

  private static Constraint<String> constraint(CardWish w, String plugin, String other) {
    return w.after()
        ? new Constraint<>(
            other,
            plugin,
            "the card of " + w.mod() + " asks for it after " + other,
            "the mod’s card")
        : new Constraint<>(
            plugin,
            other,
            "the card of " + w.mod() + " asks for " + plugin + " before it",
            "the mod’s card");
  }

  // For each plugin that stands behind one of a higher stage, why it must go before that one.
  private static List<Constraint<String>> stageReasons(LoadOrder order) {
    List<Constraint<String>> out = new ArrayList<>();
    Entry highest = null;
    for (Entry e : order.entries()) {
      if (e.own()) continue;
      if (highest == null || e.plugin().stage() > highest.plugin().stage()) highest = e;
      else if (e.plugin().stage() < highest.plugin().stage()) {
        out.add(
            new Constraint<>(
                e.name(),
                highest.name(),
                e.name()
                    + " is of stage "
                    + e.plugin().stage()
                    + ", and "
                    + highest.name()
                    + " of stage "
                    + highest.plugin().stage()
                    + " loads later",
                "the file"));
      }
    }
    return out;
  }

  private static List<String> gates(LoadOrder order) {
    List<Integer> stages =
        order.entries().stream()
            .filter(e -> !e.own())
            .map(e -> e.plugin().stage())
            .distinct()
            .sorted()
            .toList();
    List<String> gates = new ArrayList<>();
    for (int i = 1; i < stages.size(); i++) gates.add(gate(stages.get(i - 1), stages.get(i)));
    return gates;
  }

  // A slash cannot be in a plugin's name, so a gate is never taken for one.
  private static String gate(int lower, int higher) {
    return "stage " + lower + "/" + higher;
  }

  private static boolean isGate(String name) {
    return name.indexOf('/') >= 0;
  }
}
