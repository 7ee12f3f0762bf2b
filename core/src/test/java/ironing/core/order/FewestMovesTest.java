package ironing.core.order;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.order.Wishes.Directly;
import ironing.core.order.Wishes.Tiers;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.EdgeCasesMode;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;

class FewestMovesTest {
  private record Case(int items, Wishes<Integer> wishes) {
    List<Integer> present() {
      return IntStream.range(0, items).boxed().toList();
    }
  }

  private static Constraint<Integer> after(int later, int earlier) {
    return new Constraint<>(earlier, later, later + " after " + earlier, "test");
  }

  private static Directly<Integer> directly(int later, int earlier) {
    return new Directly<>(earlier, later, later + " directly after " + earlier, "test");
  }

  private static Tiers<Integer> tiers(Map<Integer, Integer> of) {
    return new Tiers<>(of, Map.of(0, "zero", 1, "one", 2, "two"), "test");
  }

  @Provide
  Arbitrary<Case> cases() {
    return Arbitraries.integers()
        .between(1, 7)
        .flatMap(
            n -> {
              Arbitrary<Integer> item = Arbitraries.integers().between(0, n - 1);
              Arbitrary<List<Constraint<Integer>>> constraints =
                  Combinators.combine(item, item).as(FewestMovesTest::after).list().ofMaxSize(5);
              Arbitrary<List<Directly<Integer>>> directly =
                  Combinators.combine(item, item).as(FewestMovesTest::directly).list().ofMaxSize(2);
              Arbitrary<Tiers<Integer>> tiers =
                  Arbitraries.maps(item, Arbitraries.integers().between(0, 2))
                      .ofMaxSize(n)
                      .map(FewestMovesTest::tiers);
              Arbitrary<Set<Integer>> kept = item.set().ofMaxSize(3);
              return Combinators.combine(constraints, directly, tiers.list().ofMaxSize(1), kept)
                  .as((c, d, t, k) -> new Case(n, new Wishes<>(c, d, t, k)));
            });
  }

  /**
   * Beside every order there is: none keeps the wishes with fewer moves, and a ring is said only
   * where none does.
   */
  @Property(tries = 3000, edgeCases = EdgeCasesMode.NONE, seed = "8160")
  void no_order_of_all_that_there_are_moves_fewer(@ForAll("cases") Case c) {
    int[] fewest = {Integer.MAX_VALUE};
    everyOrder(
        c.present(),
        order -> {
          if (keeps(order, c.wishes()))
            fewest[0] = Math.min(fewest[0], moved(order, c.wishes().kept()));
        });
    Outcome<Integer> outcome = FewestMoves.sort(c.present(), c.wishes());
    if (outcome instanceof Outcome.Sorted<Integer> sorted) {
      assertThat(keeps(sorted.order(), c.wishes())).as("%s", sorted.order()).isTrue();
      assertThat(sorted.moves()).hasSize(fewest[0]);
      movesLeadThere(c, sorted);
    } else if (outcome instanceof Outcome.Ring<Integer> ring) {
      assertThat(fewest[0]).as("%s", ring.ring()).isEqualTo(Integer.MAX_VALUE);
      closes(ring.ring());
      if (c.wishes().directly().isEmpty())
        assertThat(ring.ring()).hasSize(shortestRing(c.present(), c.wishes()));
    }
  }

  /** How few wishes and kept pairs go round, by a search from every item. */
  private static int shortestRing(List<Integer> present, Wishes<Integer> w) {
    Map<Integer, Set<Integer>> after = new TreeMap<>();
    for (int i : present) after.put(i, new HashSet<>());
    for (Constraint<Integer> c : w.constraints())
      if (after.containsKey(c.earlier()) && after.containsKey(c.later()))
        if (!c.earlier().equals(c.later())) after.get(c.earlier()).add(c.later());
    for (int a = 0; a < present.size(); a++)
      for (int b = 0; b < present.size(); b++) {
        int one = present.get(a), other = present.get(b);
        if (a < b && w.kept().contains(one) && w.kept().contains(other)) after.get(one).add(other);
        w.tiers()
            .forEach(
                t -> {
                  Integer x = t.tierOf().get(one), y = t.tierOf().get(other);
                  if (x != null && y != null && x < y) after.get(one).add(other);
                });
      }
    int shortest = Integer.MAX_VALUE;
    for (int start : present) {
      Set<Integer> seen = new HashSet<>();
      Set<Integer> now = after.get(start);
      for (int steps = 1; !now.isEmpty(); steps++) {
        if (now.contains(start)) {
          shortest = Math.min(shortest, steps);
          break;
        }
        seen.addAll(now);
        Set<Integer> next = new HashSet<>();
        now.forEach(i -> next.addAll(after.get(i)));
        next.removeAll(seen);
        now = next;
      }
    }
    return shortest;
  }

  private static void movesLeadThere(Case c, Outcome.Sorted<Integer> sorted) {
    Set<Integer> moved = new HashSet<>(sorted.moves().stream().map(Move::item).toList());
    assertThat(sorted.order().stream().filter(i -> !moved.contains(i))).isSorted();
    assertThat(c.wishes().kept()).noneMatch(moved::contains);
    for (Move<Integer> m : sorted.moves()) {
      assertThat(c.present().get(m.from())).isEqualTo(m.item());
      assertThat(sorted.order().get(m.to())).isEqualTo(m.item());
      assertThat(m.because()).as("each move has a reason").isNotEmpty();
      for (int i = 0; i + 1 < m.because().size(); i++)
        assertThat(m.because().get(i).later()).isEqualTo(m.because().get(i + 1).earlier());
    }
  }

  @Test
  void some_moves_of_a_suggestion_are_made_and_the_others_not() {
    Outcome.Sorted<Integer> whole =
        (Outcome.Sorted<Integer>)
            FewestMoves.sort(
                List.of(0, 1, 2, 3), Wishes.of(List.of(after(0, 2), after(1, 3), after(0, 1))));
    assertThat(whole.order()).containsExactly(2, 3, 1, 0);
    assertThat(FewestMoves.some(List.of(0, 1, 2, 3), whole, Set.of(0, 1))).isEqualTo(whole.order());
    assertThat(FewestMoves.some(List.of(0, 1, 2, 3), whole, Set.of())).containsExactly(0, 1, 2, 3);
    assertThat(FewestMoves.some(List.of(0, 1, 2, 3), whole, Set.of(1))).containsExactly(0, 2, 3, 1);
  }

  private static void closes(List<Constraint<Integer>> ring) {
    assertThat(ring).isNotEmpty();
    for (int i = 0; i < ring.size(); i++)
      assertThat(ring.get(i).later()).isEqualTo(ring.get((i + 1) % ring.size()).earlier());
  }

  private static boolean keeps(List<Integer> order, Wishes<Integer> w) {
    Map<Integer, Integer> at = new TreeMap<>();
    for (int i = 0; i < order.size(); i++) at.put(order.get(i), i);
    for (Constraint<Integer> c : w.constraints())
      if (!c.earlier().equals(c.later()) && at.get(c.earlier()) > at.get(c.later())) return false;
    for (Directly<Integer> d : w.directly())
      if (!d.earlier().equals(d.later()) && at.get(d.earlier()) + 1 != at.get(d.later()))
        return false;
    for (Tiers<Integer> t : w.tiers()) {
      int last = -1;
      for (int item : order) {
        Integer tier = t.tierOf().get(item);
        if (tier != null && tier < last) return false;
        if (tier != null) last = tier;
      }
    }
    int last = -1;
    for (int item : order) {
      if (!w.kept().contains(item)) continue;
      if (item < last) return false;
      last = item;
    }
    return true;
  }

  /**
   * The fewest items that move to get here: all but a longest rising run with all that are kept in
   * it.
   */
  private static int moved(List<Integer> order, Set<Integer> kept) {
    int best = 0;
    for (int mask = 0; mask < 1 << order.size(); mask++) {
      int last = -1;
      boolean good = true;
      for (int i = 0; i < order.size() && good; i++) {
        boolean in = (mask & 1 << i) != 0;
        good = in ? order.get(i) > last : !kept.contains(order.get(i));
        if (in) last = order.get(i);
      }
      if (good) best = Math.max(best, Integer.bitCount(mask));
    }
    return order.size() - best;
  }

  private static void everyOrder(List<Integer> items, Consumer<List<Integer>> use) {
    permute(new ArrayList<>(items), 0, use);
  }

  private static void permute(List<Integer> items, int from, Consumer<List<Integer>> use) {
    if (from == items.size()) {
      use.accept(items);
      return;
    }
    for (int i = from; i < items.size(); i++) {
      Collections.swap(items, from, i);
      permute(items, from + 1, use);
      Collections.swap(items, from, i);
    }
  }

  @Test
  void what_depends_moves_rather_than_what_it_depends_on() {
    Outcome<Integer> outcome = FewestMoves.sort(List.of(0, 1, 2), Wishes.of(List.of(after(0, 1))));
    Outcome.Sorted<Integer> sorted = (Outcome.Sorted<Integer>) outcome;
    assertThat(sorted.order()).containsExactly(1, 0, 2);
    assertThat(sorted.moves()).containsExactly(new Move<>(0, 0, 1, List.of(after(0, 1))));
  }

  @Test
  void a_move_names_the_whole_chain_behind_it() {
    // 3 before 5 before 0: that 0 comes after 3 is nowhere said
    Wishes<Integer> wishes =
        new Wishes<>(List.of(after(5, 3), after(0, 5)), List.of(), List.of(), Set.of(0, 1, 2, 4));
    Outcome.Sorted<Integer> sorted =
        (Outcome.Sorted<Integer>) FewestMoves.sort(List.of(0, 1, 2, 3, 4, 5), wishes);
    assertThat(sorted.order().indexOf(3)).isLessThan(sorted.order().indexOf(5));
    assertThat(sorted.moves())
        .filteredOn(m -> m.item() == 3)
        .extracting(Move::because)
        .containsExactly(List.of(after(5, 3), after(0, 5)));
  }

  @Test
  void thousands_of_items_in_tiers_are_answered_without_pairs() {
    List<Integer> present = IntStream.range(0, 2_000).boxed().collect(Collectors.toList());
    Map<Integer, Integer> of = new TreeMap<>();
    for (int i : present) of.put(i, (i * 7919) % 7);
    Tiers<Integer> bands =
        new Tiers<>(
            of,
            IntStream.range(0, 7).boxed().collect(Collectors.toMap(t -> t, t -> "t" + t)),
            "test");
    Wishes<Integer> wishes = new Wishes<>(List.of(), List.of(), List.of(bands), Set.of());
    Outcome.Sorted<Integer> sorted = (Outcome.Sorted<Integer>) FewestMoves.sort(present, wishes);
    assertThat(keeps(sorted.order(), wishes)).isTrue();
    assertThat(sorted.moves()).hasSizeLessThan(2_000);
  }
}
