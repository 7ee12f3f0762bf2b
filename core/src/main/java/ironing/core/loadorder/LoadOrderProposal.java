package ironing.core.loadorder;

import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.order.Ordering;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Outcome;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A better load order, as a value to look at before it is taken: every plugin after its masters,
 * and what cards ask for where that leaves room. The game's own stay first and stages stay apart,
 * because {@link LoadOrder} keeps them so and nothing here moves a plugin across.
 *
 * @param outcome names as they are spelled in play; a ring when masters contradict one another
 * @param leftOut wishes of cards that contradict the files or one another
 */
public record LoadOrderProposal(Outcome<String> outcome, List<CardWish> leftOut) {
  private static final String FILE = "the file";
  private static final String CARD = "the mod’s card";
  private static final String GAME = "the game";

  /** A wish from a mod's card: {@code plugin} after or before {@code other}. */
  public record CardWish(String plugin, String other, boolean after, String mod) {}

  /**
   * Cost: a sort for each wish that is left out, and one more.
   *
   * @param cardWishes the later ones give way where they contradict
   */
  public static LoadOrderProposal propose(LoadOrder order, List<CardWish> cardWishes) {
    List<String> present = order.entries().stream().map(Entry::name).toList();
    List<Constraint<String>> all = fixed(order);
    for (Constraint<String> c : all) {
      Optional<Constraint<String>> against = stageAgainst(order, c);
      if (against.isPresent())
        return new LoadOrderProposal(new Outcome.Ring<>(List.of(c, against.get())), List.of());
    }
    List<CardWish> leftOut = new ArrayList<>();
    Map<Constraint<String>, CardWish> wishes = new IdentityHashMap<>();
    for (CardWish w : cardWishes) {
      Optional<Entry> plugin = order.find(w.plugin()), other = order.find(w.other());
      if (plugin.isEmpty() || other.isEmpty()) continue;
      Constraint<String> c = constraint(w, plugin.get().name(), other.get().name());
      if (stageAgainst(order, c).isPresent()) {
        leftOut.add(w);
        continue;
      }
      wishes.put(c, w);
      all.add(c);
    }
    while (true) {
      Outcome<String> outcome = Ordering.sort(present, all);
      if (!(outcome instanceof Outcome.Ring<String> ring))
        return new LoadOrderProposal(outcome, List.copyOf(leftOut));
      Optional<Constraint<String>> weakest =
          ring.ring().stream()
              .filter(wishes::containsKey)
              .reduce((a, b) -> all.indexOf(a) > all.indexOf(b) ? a : b);
      if (weakest.isEmpty()) return new LoadOrderProposal(outcome, List.copyOf(leftOut));
      leftOut.add(wishes.get(weakest.get()));
      all.removeIf(c -> c == weakest.get());
    }
  }

  /** The proposed order with the on and off of the present one. */
  public static List<Wish> asWishes(LoadOrder present, List<String> order) {
    List<Wish> wishes = new ArrayList<>();
    for (String name : order)
      present
          .find(name)
          .filter(e -> !e.own())
          .ifPresent(e -> wishes.add(new Wish(e.name(), e.on())));
    return wishes;
  }

  private static List<Constraint<String>> fixed(LoadOrder order) {
    List<Constraint<String>> out = new ArrayList<>();
    String ownBefore = null;
    for (Entry e : order.entries()) {
      if (e.own()) {
        if (ownBefore != null)
          out.add(
              new Constraint<>(
                  ownBefore, e.name(), "the game loads its own plugins in this order", GAME));
        ownBefore = e.name();
      }
      for (String master : e.plugin().masters()) {
        order
            .find(master)
            .ifPresent(
                m ->
                    out.add(
                        new Constraint<>(
                            m.name(), e.name(), "it lists " + m.name() + " as a master", FILE)));
      }
    }
    return out;
  }

  private static Constraint<String> constraint(CardWish w, String plugin, String other) {
    return w.after()
        ? new Constraint<>(
            other, plugin, "the card of " + w.mod() + " asks for it after " + other, CARD)
        : new Constraint<>(
            plugin, other, "the card of " + w.mod() + " asks for " + plugin + " before it", CARD);
  }

  /** What the stages say against a constraint: it wants a plugin of a higher stage first. */
  private static Optional<Constraint<String>> stageAgainst(LoadOrder order, Constraint<String> c) {
    int earlier = stageOf(order, c.earlier()), later = stageOf(order, c.later());
    if (earlier <= later) return Optional.empty();
    String reason =
        later < 0
            ? "the game loads its own plugins first"
            : c.earlier() + " is of stage " + earlier + ", which loads after stage " + later;
    return Optional.of(new Constraint<>(c.later(), c.earlier(), reason, later < 0 ? GAME : FILE));
  }

  private static int stageOf(LoadOrder order, String name) {
    return order.find(name).map(e -> e.own() ? -1 : e.plugin().stage()).orElseThrow();
  }
}
