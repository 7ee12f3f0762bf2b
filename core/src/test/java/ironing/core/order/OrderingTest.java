package ironing.core.order;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.jgrapht.Graph;
import org.jgrapht.graph.DefaultEdge;
import org.jgrapht.graph.SimpleDirectedGraph;
import org.jgrapht.traverse.NotDirectedAcyclicGraphException;
import org.jgrapht.traverse.TopologicalOrderIterator;
import org.junit.jupiter.api.Test;

class OrderingTest {
  private static Constraint<Integer> after(int later, int earlier) {
    return new Constraint<>(earlier, later, later + " after " + earlier, "test");
  }

  private record Graphed(int items, List<Constraint<Integer>> constraints) {
    List<Integer> present() {
      return IntStream.range(0, items).boxed().toList();
    }
  }

  @Provide
  Arbitrary<Graphed> graphs() {
    return Arbitraries.integers()
        .between(1, 12)
        .flatMap(
            n -> {
              Arbitrary<Constraint<Integer>> edge =
                  Combinators.combine(
                          Arbitraries.integers().between(0, n - 1),
                          Arbitraries.integers().between(0, n - 1))
                      .as(OrderingTest::after);
              return edge.list().ofMaxSize(20).map(l -> new Graphed(n, l));
            });
  }

  /** The reference: JGraphT 1.5.3's TopologicalOrderIterator, which fails on a ring. */
  private static boolean jgraphtFindsAnOrder(Graphed g) {
    Graph<Integer, DefaultEdge> graph = new SimpleDirectedGraph<>(DefaultEdge.class);
    g.present().forEach(graph::addVertex);
    for (Constraint<Integer> c : g.constraints())
      if (!c.earlier().equals(c.later())) graph.addEdge(c.earlier(), c.later());
    try {
      new TopologicalOrderIterator<>(graph).forEachRemaining(v -> {});
      return true;
    } catch (NotDirectedAcyclicGraphException ring) {
      return false;
    }
  }

  @Property(tries = 3000, seed = "8160")
  void there_is_an_order_exactly_where_jgrapht_finds_one_and_it_keeps_every_constraint(
      @ForAll("graphs") Graphed g) {
    Outcome<Integer> outcome = FewestMoves.sort(g.present(), Wishes.of(g.constraints()));
    assertThat(outcome instanceof Outcome.Sorted).isEqualTo(jgraphtFindsAnOrder(g));
    Outcome<Integer> any = FewestMoves.feasible(g.present(), Wishes.of(g.constraints()));
    assertThat(any instanceof Outcome.Sorted).isEqualTo(outcome instanceof Outcome.Sorted);
    if (any instanceof Outcome.Sorted<Integer> sorted) keeps(sorted.order(), g);
    if (outcome instanceof Outcome.Sorted<Integer> sorted) {
      keeps(sorted.order(), g);
      movesLeadThere(g.present(), sorted);
    } else if (outcome instanceof Outcome.Ring<Integer> ring) {
      isARing(ring.ring(), g.constraints());
    }
  }

  private static void keeps(List<Integer> order, Graphed g) {
    assertThat(order).containsExactlyInAnyOrderElementsOf(g.present());
    for (Constraint<Integer> c : g.constraints()) {
      if (!c.earlier().equals(c.later()))
        assertThat(order.indexOf(c.earlier())).isLessThan(order.indexOf(c.later()));
    }
  }

  private static void movesLeadThere(List<Integer> present, Outcome.Sorted<Integer> sorted) {
    Set<Integer> moved = new HashSet<>(sorted.moves().stream().map(Move::item).toList());
    assertThat(sorted.order().stream().filter(i -> !moved.contains(i)))
        .as("what is not moved keeps its order")
        .isSorted();
    for (Move<Integer> m : sorted.moves()) {
      assertThat(present.get(m.from())).isEqualTo(m.item());
      assertThat(sorted.order().get(m.to())).isEqualTo(m.item());
      assertThat(m.because()).anyMatch(c -> List.of(c.earlier(), c.later()).contains(m.item()));
    }
  }

  private static void isARing(List<Constraint<Integer>> ring, List<Constraint<Integer>> given) {
    assertThat(ring).isNotEmpty().isSubsetOf(given);
    for (int i = 0; i < ring.size(); i++)
      assertThat(ring.get(i).later()).isEqualTo(ring.get((i + 1) % ring.size()).earlier());
  }

  @Property(seed = "8160")
  void an_order_that_keeps_all_constraints_is_left_alone(
      @ForAll @Size(max = 12) List<@IntRange(max = 11) Integer> laters) {
    List<Constraint<Integer>> constraints = new ArrayList<>();
    for (int later : laters) if (later > 0) constraints.add(after(later, later / 2));
    Outcome<Integer> outcome =
        FewestMoves.sort(IntStream.range(0, 12).boxed().toList(), Wishes.of(constraints));
    assertThat(((Outcome.Sorted<Integer>) outcome).moves()).isEmpty();
  }

  @Property(tries = 1000, seed = "8160")
  void no_longer_rising_run_exists(
      @ForAll @Size(max = 9) List<@IntRange(max = 20) Integer> numbers) {
    int[] sequence = numbers.stream().distinct().mapToInt(Integer::intValue).toArray();
    int best = 0;
    for (int mask = 0; mask < 1 << sequence.length; mask++) {
      int previous = -1;
      boolean rises = true;
      for (int i = 0; i < sequence.length && rises; i++) {
        if ((mask & 1 << i) == 0) continue;
        rises = sequence[i] > previous;
        previous = sequence[i];
      }
      if (rises) best = Math.max(best, Integer.bitCount(mask));
    }
    BitSet kept = Ordering.longestRising(sequence);
    assertThat(kept.cardinality()).isEqualTo(best);
    assertThat(kept.stream().map(i -> sequence[i])).isSorted();
  }

  @Test
  void the_shortest_of_several_rings_is_shown() {
    List<Constraint<Integer>> constraints =
        List.of(after(1, 0), after(2, 1), after(3, 2), after(0, 3), after(5, 4), after(4, 5));
    Outcome<Integer> outcome = FewestMoves.sort(List.of(0, 1, 2, 3, 4, 5), Wishes.of(constraints));
    assertThat(((Outcome.Ring<Integer>) outcome).ring())
        .hasSize(2)
        .allSatisfy(c -> assertThat(c.earlier()).isGreaterThan(3));
  }

  @Test
  void of_several_reasons_the_one_that_reaches_furthest_is_named() {
    Outcome<Integer> outcome =
        FewestMoves.sort(List.of(0, 1, 2, 3), Wishes.of(List.of(after(0, 1), after(0, 3))));
    Move<Integer> move = ((Outcome.Sorted<Integer>) outcome).moves().get(0);
    assertThat(move).isEqualTo(new Move<>(0, 0, 3, List.of(after(0, 3))));
  }

  @Test
  void what_goes_along_names_the_chain_to_what_stays() {
    Outcome<Integer> outcome =
        FewestMoves.sort(
            List.of(0, 1, 2, 3, 4, 5, 6, 7),
            new Wishes<>(List.of(after(3, 6), after(4, 3)), List.of(), List.of(), Set.of(6)));
    assertThat(((Outcome.Sorted<Integer>) outcome).moves())
        .extracting(Move::item, Move::because)
        .containsExactly(
            tuple(3, List.of(after(3, 6))), tuple(4, List.of(after(3, 6), after(4, 3))));
  }

  @Test
  void one_item_is_put_at_a_place() {
    assertThat(Ordering.moved(List.of("a", "b", "c"), "a", 1)).containsExactly("b", "a", "c");
    assertThat(Ordering.moved(List.of("a", "b", "c"), "c", 0)).containsExactly("c", "a", "b");
    assertThat(Ordering.moved(List.of("a", "b", "c"), "a", 99)).containsExactly("b", "c", "a");
  }
}
