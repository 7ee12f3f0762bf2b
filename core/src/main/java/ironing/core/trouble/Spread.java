package ironing.core.trouble;

import java.util.List;
import java.util.Optional;

/**
 * How far the measured values of one set lie apart.
 *
 * @param middle the median; of an even number the mean of the two in the middle, rounded down
 */
public record Spread(long least, long middle, long most, int runs) {
  /** Empty where nothing was measured. Cost: O(n log n). */
  public static Optional<Spread> of(List<Long> values) {
    if (values.isEmpty()) return Optional.empty();
    List<Long> v = values.stream().sorted().toList();
    int n = v.size();
    long middle = n % 2 == 1 ? v.get(n / 2) : Math.floorDiv(v.get(n / 2 - 1) + v.get(n / 2), 2L);
    return Optional.of(new Spread(v.get(0), middle, v.get(n - 1), n));
  }

  /**
   * Whether every value of one lies beyond every value of the other. With five values each, two
   * sets that are alike look so in 1 of 126 cases.
   */
  public boolean isApartFrom(Spread other) {
    return least > other.most || most < other.least;
  }
}
