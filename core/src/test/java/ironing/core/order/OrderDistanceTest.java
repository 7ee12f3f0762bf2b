package ironing.core.order;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import ironing.core.testkit.Orders;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.apache.commons.math3.stat.correlation.KendallsCorrelation;
import org.junit.jupiter.api.Test;

class OrderDistanceTest {
  /** Beside Kendall's correlation as Apache Commons Math counts it. */
  @Property(tries = 300, seed = "8160")
  void it_is_kendalls(@ForAll long seed, @ForAll @IntRange(min = 2, max = 60) int n) {
    Random random = new Random(seed);
    List<Integer> one = Orders.shuffled(n, random), other = Orders.shuffled(n, random);
    double[] a = new double[n], b = new double[n];
    for (int i = 0; i < n; i++) {
      a[one.get(i)] = i;
      b[other.get(i)] = i;
    }
    OrderDistance d = OrderDistance.between(one, other);
    double tau = 1 - 2.0 * d.swapped() / d.pairs();
    assertThat(tau).isCloseTo(new KendallsCorrelation().correlation(a, b), within(1e-9));
  }

  @Test
  void what_only_one_has_does_not_count() {
    assertThat(OrderDistance.between(List.of(1, 2, 3, 9), List.of(8, 3, 2, 1)))
        .isEqualTo(new OrderDistance(3, 3));
    assertThat(OrderDistance.between(List.of(), List.of(1))).isEqualTo(new OrderDistance(0, 0));
  }
}
