package ironing.core.layers;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.layers.PlacementRule.Kind;
import ironing.core.layers.PlacementRule.Strength;
import ironing.core.layers.Placements.Suggestion;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.Wishes.Tiers;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.LongStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class PlacementsTest {
  private static final Tiers<Long> NO_BANDS = bands(Map.of());

  private static Tiers<Long> bands(Map<Long, Integer> of) {
    return new Tiers<>(of, Map.of(0, "groundwork", 1, "looks", 2, "plays"), "the bands");
  }

  private static PlacementRule user(Kind kind, long layer, long other) {
    return new PlacementRule(
        kind, layer, other, kind + " " + layer + " " + other, "you", Strength.USER);
  }

  private static PlacementRule card(Kind kind, long layer, long other) {
    return new PlacementRule(
        kind, layer, other, kind + " " + layer + " " + other, "its card", Strength.STATED);
  }

  private static List<Long> order(Suggestion s) {
    return ((Outcome.Sorted<Long>) s.outcome()).order();
  }

  /**
   * Beside every order of up to eight layers: where the user's rules can hold they do, and no order
   * in which they hold moves fewer layers.
   */
  @Property(tries = 100, seed = "8160")
  void a_suggestion_keeps_all_rules_with_the_fewest_moves(@ForAll long seed) {
    Random random = new Random(seed);
    int n = 4 + random.nextInt(5);
    List<Long> present = LongStream.rangeClosed(1, n).boxed().toList();
    List<PlacementRule> rules = new ArrayList<>();
    for (int i = 0; i < 1 + random.nextInt(4); i++) {
      long a = 1L + random.nextInt(n), b = 1L + random.nextInt(n);
      Kind kind = Kind.values()[random.nextInt(Kind.values().length)];
      if (a != b) rules.add(user(kind, a, kind.hasOther() ? b : 0));
    }
    int[] fewest = {Integer.MAX_VALUE};
    everyOrder(
        new ArrayList<>(present),
        0,
        order -> {
          if (Placements.broken(order, rules).isEmpty())
            fewest[0] = Math.min(fewest[0], moved(order));
        });
    Suggestion s = Placements.suggest(present, rules, NO_BANDS, Set.of());
    if (s.outcome() instanceof Outcome.Sorted<Long> sorted) {
      assertThat(Placements.broken(sorted.order(), rules)).isEmpty();
      assertThat(sorted.moves()).as("%s", rules).hasSize(fewest[0]);
    } else {
      assertThat(fewest[0]).as("%s", rules).isEqualTo(Integer.MAX_VALUE);
    }
    assertThat(s.leftOut()).isEmpty();
  }

  private static int moved(List<Long> order) {
    // the longest rising run, the plain way
    int[] best = new int[order.size()];
    int longest = 0;
    for (int i = 0; i < best.length; i++) {
      best[i] = 1;
      for (int j = 0; j < i; j++)
        if (order.get(j) < order.get(i)) best[i] = Math.max(best[i], best[j] + 1);
      longest = Math.max(longest, best[i]);
    }
    return order.size() - longest;
  }

  private static void everyOrder(List<Long> items, int from, Consumer<List<Long>> use) {
    if (from == items.size()) use.accept(items);
    for (int i = from; i < items.size(); i++) {
      Collections.swap(items, from, i);
      everyOrder(items, from + 1, use);
      Collections.swap(items, from, i);
    }
  }

  @Test
  void one_that_is_to_be_on_top_and_lowest_is_a_ring_or_stands_between() {
    List<PlacementRule> both = List.of(user(Kind.TOP, 2, 0), user(Kind.BOTTOM, 2, 0));
    Suggestion s = Placements.suggest(List.of(1L, 2L, 3L), both, NO_BANDS, Set.of());
    assertThat(((Outcome.Ring<Long>) s.outcome()).ring()).hasSize(2);
    List<PlacementRule> between = new ArrayList<>(both);
    between.add(user(Kind.TOP, 1, 0));
    between.add(user(Kind.BOTTOM, 3, 0));
    assertThat(order(Placements.suggest(List.of(1L, 2L, 3L), between, NO_BANDS, Set.of())))
        .containsExactly(3L, 2L, 1L);
  }

  @Test
  void every_kind_of_rule_is_held_against_the_order() {
    List<Long> order = List.of(1L, 2L, 3L, 4L);
    List<PlacementRule> hold =
        List.of(
            user(Kind.ABOVE, 3, 1),
            user(Kind.BELOW, 1, 4),
            user(Kind.DIRECTLY_ABOVE, 2, 1),
            user(Kind.DIRECTLY_BELOW, 3, 4),
            user(Kind.TOP, 4, 0),
            user(Kind.BOTTOM, 1, 0));
    List<PlacementRule> broken =
        List.of(
            user(Kind.ABOVE, 1, 3),
            user(Kind.BELOW, 4, 1),
            user(Kind.DIRECTLY_ABOVE, 3, 1),
            user(Kind.DIRECTLY_BELOW, 2, 4));
    List<PlacementRule> absent = List.of(user(Kind.ABOVE, 1, 9), user(Kind.BELOW, 9, 1));
    List<PlacementRule> all = new ArrayList<>(hold);
    all.addAll(broken);
    all.addAll(absent);
    assertThat(Placements.broken(order, all)).isEqualTo(broken);
    assertThat(Placements.broken(order, List.of(user(Kind.TOP, 3, 0)))).hasSize(1);
    assertThat(Placements.broken(order, List.of(user(Kind.BOTTOM, 2, 0)))).hasSize(1);
    assertThat(Placements.broken(order, List.of(user(Kind.TOP, 3, 0), user(Kind.TOP, 4, 0))))
        .isEmpty();
  }

  @Test
  void a_broken_rule_is_mended_without_breaking_another() {
    List<PlacementRule> rules = List.of(user(Kind.ABOVE, 1, 3), user(Kind.DIRECTLY_ABOVE, 2, 1));
    Outcome.Sorted<Long> mended =
        Placements.mend(List.of(1L, 2L, 3L, 4L), rules, rules.get(0)).orElseThrow();
    assertThat(mended.order()).containsExactly(3L, 1L, 2L, 4L);
    assertThat(mended.moves()).extracting(Move::item).containsExactly(3L);
  }

  @Test
  void bands_give_way_to_rules_and_stated_rules_to_the_users() {
    Map<Long, Integer> of = new HashMap<>(Map.of(1L, 2, 2L, 0, 3L, 1));
    List<PlacementRule> rules =
        List.of(card(Kind.ABOVE, 2, 1), card(Kind.ABOVE, 4, 3), user(Kind.ABOVE, 3, 4));
    Suggestion s = Placements.suggest(List.of(1L, 2L, 3L, 4L), rules, bands(of), Set.of());
    assertThat(Placements.broken(order(s), List.of(rules.get(0), rules.get(2)))).isEmpty();
    assertThat(s.leftOut())
        .anySatisfy(l -> assertThat(l.rule()).contains(rules.get(1)))
        .anySatisfy(
            l -> {
              assertThat(l.rule()).as("out of its band").isEmpty();
              assertThat(l.layer()).isEqualTo(2);
            });
  }

  @Test
  void what_is_kept_here_stays_and_a_stated_rule_against_it_is_told() {
    PlacementRule wish = card(Kind.ABOVE, 1, 3);
    Suggestion s = Placements.suggest(List.of(1L, 2L, 3L), List.of(wish), NO_BANDS, Set.of(1L, 3L));
    assertThat(order(s)).containsExactly(1L, 2L, 3L);
    assertThat(s.leftOut())
        .singleElement()
        .satisfies(
            l -> {
              assertThat(l.rule()).contains(wish);
              assertThat(l.ring())
                  .extracting(Constraint::reason)
                  .contains("both are kept where they are");
            });
  }

  @Test
  void two_that_are_both_to_stand_directly_above_one_contradict_each_other() {
    List<PlacementRule> rules =
        List.of(user(Kind.DIRECTLY_ABOVE, 2, 1), user(Kind.DIRECTLY_ABOVE, 3, 1));
    Suggestion s = Placements.suggest(List.of(1L, 2L, 3L), rules, NO_BANDS, Set.of());
    assertThat(((Outcome.Ring<Long>) s.outcome()).ring())
        .extracting(Constraint::reason)
        .containsExactly(rules.get(0).reason(), rules.get(1).reason());
  }

  @Test
  void beside_what_is_kept_here_the_fewest_others_move() {
    Map<Long, Integer> of = Map.of(1L, 2, 2L, 2, 3L, 0, 4L, 2, 5L, 2);
    Suggestion s =
        Placements.suggest(
            List.of(1L, 2L, 3L, 4L, 5L),
            List.of(card(Kind.ABOVE, 2, 4)),
            bands(of),
            Set.of(2L, 4L));
    assertThat(order(s)).containsExactly(3L, 1L, 2L, 4L, 5L);
    assertThat(((Outcome.Sorted<Long>) s.outcome()).moves())
        .extracting(Move::item)
        .containsExactly(3L);
  }
}
