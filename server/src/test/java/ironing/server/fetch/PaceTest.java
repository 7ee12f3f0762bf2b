package ironing.server.fetch;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

class PaceTest {
  private static final long SECOND = 1_000_000_000;
  private final AtomicLong now = new AtomicLong(SECOND);

  @Test
  void whatever_the_pieces_no_second_has_more_than_is_allowed() {
    long limit = 100_000;
    Pace pace = new Pace(now::get, limit);
    Random random = new Random(7);
    long came = 0, began = now.get();
    for (int i = 0; i < 2_000; i++) {
      int bytes = 1 + random.nextInt(pace.piece(131_072));
      came += bytes;
      now.addAndGet(pace.take(bytes).toNanos());
      // the other side is sometimes slow
      if (random.nextInt(10) == 0) now.addAndGet(random.nextInt(900) * 1_000_000L);
      double seconds = (now.get() - began) / (double) SECOND;
      assertThat((double) came).isLessThanOrEqualTo(limit * (seconds + 0.26));
    }
  }

  @Test
  void two_that_take_in_turn_share_it() {
    Pace pace = new Pace(now::get, 1_000);
    assertThat(pace.take(500)).isEqualTo(Duration.ofMillis(500));
    assertThat(pace.take(500))
        .as("the second waits for the first")
        .isEqualTo(Duration.ofSeconds(1));
  }

  @Test
  void without_a_limit_nobody_waits_and_a_new_one_holds_at_once() {
    Pace pace = new Pace(now::get, 0);
    assertThat(pace.piece(131_072)).isEqualTo(131_072);
    assertThat(pace.take(Integer.MAX_VALUE)).isZero();
    pace.limit(1_000_000);
    assertThat(pace.piece(1_000_000)).isEqualTo(250_000);
    assertThat(pace.take(1_000_000)).isEqualTo(Duration.ofSeconds(1));
    pace.limit(100);
    assertThat(pace.piece(1_000_000)).as("never so small that it is all overhead").isEqualTo(1_024);
  }
}
