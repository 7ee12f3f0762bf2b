package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class InParallelTest {
  private static List<Integer> numbers(int n) {
    return IntStream.range(0, n).boxed().toList();
  }

  @Test
  void each_is_done_once_however_many_there_are() throws IOException {
    for (int n : new int[] {0, 1, 999, 1_000, 1_001, 25_317}) {
      Set<Integer> done = Collections.synchronizedSet(new TreeSet<>());
      AtomicInteger times = new AtomicInteger();
      InParallel.each(
          numbers(n),
          i -> {
            done.add(i);
            times.incrementAndGet();
          });
      assertThat(done).hasSize(n);
      assertThat(times).hasValue(n);
    }
  }

  @Test
  void when_one_fails_it_ends_with_that_and_nothing_goes_on() {
    for (Exception why : List.of(new IOException("full"), new CancellationException("enough"))) {
      AtomicInteger done = new AtomicInteger();
      assertThatThrownBy(
              () ->
                  InParallel.each(
                      numbers(50_000),
                      i -> {
                        if (i == 2_000) throwIt(why);
                        done.incrementAndGet();
                      }))
          .isSameAs(why);
      assertThat(Thread.getAllStackTraces().keySet())
          .as("nobody works on")
          .noneMatch(t -> t.getName().startsWith("files-"));
      assertThat(done).hasValueLessThan(50_000);
    }
  }

  private static void throwIt(Exception why) throws IOException {
    if (why instanceof IOException e) throw e;
    throw (RuntimeException) why;
  }
}
