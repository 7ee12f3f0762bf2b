package ironing.server.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.server.testkit.Patience;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class MemoryTest {
  private static final int KIB = 1024;
  private final Memory memory = new Memory(100 * KIB);
  private final Memory.Kept<Integer> kibs = memory.keeping(k -> (long) k * KIB);

  private void look(long workspace) {
    assertThat(kibs.peek(workspace)).isPresent();
  }

  private List<Long> known() {
    List<Long> known = new ArrayList<>();
    for (long w = 1; w <= 9; w++) if (memory.knows(w)) known.add(w);
    return known;
  }

  @Test
  void the_workspace_that_nobody_has_looked_at_for_longest_leaves() {
    for (long w = 1; w <= 3; w++) kibs.of(w, () -> 30);
    look(1);
    look(2);
    kibs.of(4, () -> 30);
    assertThat(known()).containsExactly(1L, 2L, 4L);
    assertThat(kibs.peek(3)).isEmpty();
  }

  @Test
  void what_grows_makes_others_leave() {
    for (long w = 1; w <= 3; w++) kibs.of(w, () -> 30);
    kibs.of(3, k -> k + 40);
    assertThat(known()).containsExactly(3L);
  }

  @Test
  void all_that_was_worked_out_of_a_workspace_leaves_with_it() {
    Memory.Kept<String> words = memory.keepingLittle();
    words.of(1, () -> "one");
    kibs.of(1, () -> 60);
    kibs.of(2, () -> 60);
    assertThat(words.peek(1)).isEmpty();
    assertThat(words.of(1, () -> "again")).isEqualTo("again");
  }

  @Test
  void one_that_is_larger_than_all_may_be_stays_while_it_is_looked_at() {
    kibs.of(1, () -> 10);
    kibs.of(2, () -> 5_000);
    assertThat(known()).containsExactly(2L);
    AtomicInteger asked = new AtomicInteger();
    for (int i = 0; i < 5; i++)
      kibs.of(
          2,
          k -> {
            if (k == null) asked.incrementAndGet();
            return k == null ? 5_000 : k;
          });
    assertThat(asked).hasValue(0);
    kibs.of(3, () -> 10);
    assertThat(known()).as("the newest stays").containsExactly(3L);
  }

  @Test
  void however_many_ask_it_is_worked_out_once() throws Exception {
    AtomicInteger times = new AtomicInteger();
    List<CompletableFuture<Integer>> asked = new ArrayList<>();
    for (int i = 0; i < 8; i++)
      asked.add(
          CompletableFuture.supplyAsync(
              () ->
                  kibs.of(
                      1,
                      () -> {
                        times.incrementAndGet();
                        return 7;
                      })));
    for (CompletableFuture<Integer> a : asked) assertThat(a.get()).isEqualTo(7);
    assertThat(times).hasValue(1);
  }

  @Test
  void nobody_waits_for_another_workspace_or_for_a_look_at_what_is_there() throws Exception {
    CountDownLatch begun = new CountDownLatch(1), go = new CountDownLatch(1);
    kibs.of(1, () -> 1);
    CompletableFuture<Integer> slow =
        CompletableFuture.supplyAsync(
            () ->
                kibs.of(
                    1,
                    k -> {
                      begun.countDown();
                      await(go);
                      return k + 1;
                    }));
    assertThat(begun.await(Patience.LIMIT.toSeconds(), TimeUnit.SECONDS)).isTrue();
    assertThat(kibs.of(2, () -> 5)).isEqualTo(5);
    assertThat(kibs.peek(1)).contains(1);
    go.countDown();
    assertThat(slow.get()).isEqualTo(2);
    assertThat(kibs.peek(1)).contains(2);
  }

  @Test
  void what_is_forgotten_while_it_is_worked_out_is_not_kept() throws Exception {
    CountDownLatch begun = new CountDownLatch(1), go = new CountDownLatch(1);
    CompletableFuture<Integer> slow =
        CompletableFuture.supplyAsync(
            () ->
                kibs.of(
                    1,
                    k -> {
                      begun.countDown();
                      await(go);
                      return 1;
                    }));
    assertThat(begun.await(Patience.LIMIT.toSeconds(), TimeUnit.SECONDS)).isTrue();
    kibs.forget(1);
    go.countDown();
    assertThat(slow.get()).isEqualTo(1);
    assertThat(kibs.peek(1)).isEmpty();
    memory.forget(1);
    assertThat(memory.knows(1)).isFalse();
  }

  @Test
  void nothing_can_be_kept_of_nothing() {
    assertThat(kibs.of(1, k -> null)).isNull();
    assertThat(kibs.of(1, () -> 3)).isEqualTo(3);
  }

  private static void await(CountDownLatch latch) {
    try {
      if (!latch.await(Patience.LIMIT.toSeconds(), TimeUnit.SECONDS))
        throw new IllegalStateException("nobody let it go on");
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }
}
