package ironing.core.layers;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collection;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

/** Those that have most in common stand together. */
class ClusteredOrderTest {
  /**
   * The worked example for UPGMA of the article of that name in Wikipedia: distances of five
   * sequences, of which a joins b, then e, and c joins d. The distances are from memory; what comes
   * of them was worked out again by hand.
   */
  @Test
  void the_worked_example_of_average_linkage() {
    double[][] distance = {
      {0, 17, 21, 31, 23},
      {17, 0, 30, 34, 21},
      {21, 30, 0, 28, 39},
      {31, 34, 28, 0, 43},
      {23, 21, 39, 43, 0}
    };
    double[][] common = new double[5][5];
    for (int i = 0; i < 5; i++) for (int j = 0; j < 5; j++) common[i][j] = 50 - distance[i][j];
    List<Integer> order = ClusteredOrder.of(common);
    assertTogether(order, List.of(0, 1));
    assertTogether(order, List.of(0, 1, 4));
    assertTogether(order, List.of(2, 3));
  }

  @Test
  void what_has_nothing_in_common_stands_behind_in_its_order() {
    double[][] common = new double[5][5];
    common[1][3] = common[3][1] = 2;
    assertThat(ClusteredOrder.of(common)).containsExactly(1, 3, 0, 2, 4);
    assertThat(ClusteredOrder.of(new double[0][])).isEmpty();
  }

  /**
   * Groups that have something in common within and nothing beyond stand together, whatever else.
   */
  @Property(tries = 200, seed = "31")
  void groups_stand_together(@ForAll @IntRange(min = 1, max = 40) int n, @ForAll int seed) {
    Random random = new Random(seed);
    int groups = 1 + random.nextInt(6);
    int[] group = random.ints(n, 0, groups).toArray();
    double[][] common = new double[n][n];
    for (int i = 0; i < n; i++)
      for (int j = i + 1; j < n; j++)
        if (group[i] == group[j]) common[i][j] = common[j][i] = 1 + random.nextInt(9);
    List<Integer> order = ClusteredOrder.of(common);
    assertThat(order).containsExactlyInAnyOrderElementsOf(IntStream.range(0, n).boxed().toList());
    for (int g = 0; g < groups; g++) {
      int of = g;
      List<Integer> members = IntStream.range(0, n).filter(i -> group[i] == of).boxed().toList();
      if (members.size() > 1) assertTogether(order, members);
    }
    assertThat(ClusteredOrder.of(common)).as("the same again").isEqualTo(order);
  }

  private static void assertTogether(List<Integer> order, Collection<Integer> members) {
    int[] places = members.stream().mapToInt(order::indexOf).sorted().toArray();
    assertThat(places[places.length - 1] - places[0]).isEqualTo(places.length - 1);
  }
}
