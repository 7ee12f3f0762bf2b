package ironing.core.trouble;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.trouble.Suspicions.Reason;
import java.util.EnumSet;
import java.util.Set;
import org.junit.jupiter.api.Test;

class SuspicionsTest {
  @Test
  void each_reason_adds_and_nobody_is_beyond_suspicion_or_guilty_before_a_try() {
    Set<Reason> all = EnumSet.noneOf(Reason.class);
    double before = Suspicions.of(all);
    assertThat(before).isPositive();
    for (Reason r : Reason.values()) {
      if (r == Reason.HARMLESS) continue;
      all.add(r);
      assertThat(Suspicions.of(all)).isGreaterThan(before).isLessThan(1);
      before = Suspicions.of(all);
    }
    all.add(Reason.HARMLESS);
    assertThat(Suspicions.of(all)).as("what is harmless").isPositive().isLessThan(before);
  }

  @Test
  void a_better_rank_is_more_suspicious() {
    for (int rank = 1; rank < 3000; rank++)
      assertThat(Suspicions.ofRank(rank)).isPositive().isLessThan(Suspicions.ofRank(rank - 1));
  }
}
