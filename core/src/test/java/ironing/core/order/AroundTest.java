package ironing.core.order;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.order.Around.Tie;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Wishes.Tiers;
import ironing.core.testkit.Orders;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.jgrapht.graph.DefaultEdge;
import org.jgrapht.graph.DirectedAcyclicGraph;
import org.junit.jupiter.api.Test;

class AroundTest {
  private static Constraint<Integer> after(int later, int earlier) {
    return new Constraint<>(earlier, later, later + " after " + earlier, "test");
  }

  /** Who comes before and after, beside JGraphT’s ancestors and descendants. */
  @Property(tries = 500, seed = "8160")
  void it_is_the_ancestors_and_descendants(@ForAll long seed) {
    Random random = new Random(seed);
    int n = 12;
    List<Integer> present = Orders.shuffled(n, random);
    DirectedAcyclicGraph<Integer, DefaultEdge> graph =
        new DirectedAcyclicGraph<>(DefaultEdge.class);
    present.forEach(graph::addVertex);
    List<Constraint<Integer>> constraints = new ArrayList<>();
    for (int i = 0; i < 18; i++) {
      int later = 1 + random.nextInt(n - 1), earlier = random.nextInt(later);
      constraints.add(after(later, earlier));
      graph.addEdge(earlier, later);
    }
    int item = random.nextInt(n);
    Around<Integer> around = Around.of(present, Wishes.of(constraints), item);
    assertThat(others(around.before())).isEqualTo(graph.getAncestors(item));
    assertThat(others(around.after())).isEqualTo(graph.getDescendants(item));
    for (Tie<Integer> t : around.before()) leads(t.chain(), t.other(), item);
    for (Tie<Integer> t : around.after()) leads(t.chain(), item, t.other());
    assertThat(around.after()).isSortedAccordingTo((a, b) -> a.chain().size() - b.chain().size());
  }

  private static Set<Integer> others(List<Tie<Integer>> ties) {
    Set<Integer> others = ties.stream().map(Tie::other).collect(Collectors.toSet());
    assertThat(ties).hasSameSizeAs(others);
    return others;
  }

  private static void leads(List<Constraint<Integer>> chain, int from, int to) {
    assertThat(chain.get(0).earlier()).isEqualTo(from);
    assertThat(chain.get(chain.size() - 1).later()).isEqualTo(to);
    for (int i = 0; i + 1 < chain.size(); i++)
      assertThat(chain.get(i).later()).isEqualTo(chain.get(i + 1).earlier());
  }

  @Test
  void over_tiers_one_step_leads_to_all_of_the_next() {
    Tiers<Integer> tiers =
        new Tiers<>(Map.of(1, 0, 2, 1, 3, 1), Map.of(0, "low", 1, "high"), "tiers");
    Around<Integer> around =
        Around.of(
            List.of(1, 2, 3), new Wishes<>(List.of(), List.of(), List.of(tiers), Set.of()), 1);
    assertThat(new HashSet<>(others(around.after()))).isEqualTo(Set.of(2, 3));
    assertThat(around.after().get(0).chain())
        .singleElement()
        .satisfies(c -> assertThat(c.reason()).isEqualTo("low before high"));
  }

  @Test
  void wishes_that_go_round_are_refused_and_a_stranger_has_nobody_around() {
    Wishes<Integer> ring = Wishes.of(List.of(after(1, 2), after(2, 1)));
    assertThatThrownBy(() -> Around.of(List.of(1, 2), ring, 1))
        .isInstanceOf(IllegalArgumentException.class);
    assertThat(Around.of(List.of(1, 2), Wishes.of(List.of(after(1, 2))), 9))
        .isEqualTo(new Around<>(List.of(), List.of()));
  }
}
