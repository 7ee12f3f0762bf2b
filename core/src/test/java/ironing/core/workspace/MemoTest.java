package ironing.core.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testkit.TestWorld;
import java.io.IOException;
import java.lang.ref.WeakReference;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class MemoTest {
  @TempDir Path folder;
  private Workspace first;

  @BeforeEach
  void make() throws IOException {
    TestWorld world = new TestWorld().file(1, "data/tables/a.csv", "a");
    first = world.workspace(folder, null, world.arrangement());
  }

  /** Counts how often it was worked out, anew and from what was known. */
  private static class Counting implements Stage<String> {
    final AtomicInteger anew = new AtomicInteger();
    final AtomicInteger further = new AtomicInteger();
    boolean lasting = true;

    @Override
    public String of(Workspace now) {
      return "anew " + anew.incrementAndGet();
    }

    @Override
    public String next(Workspace now, String known) {
      further.incrementAndGet();
      return known + " further";
    }

    @Override
    public boolean lasts(String value) {
      return lasting;
    }

    @Override
    public long bytes(String value) {
      return value.length();
    }
  }

  private Workspace after(Workspace before) {
    return before.with(before.picture());
  }

  @Test
  void what_is_known_is_not_worked_out_again_and_the_next_state_goes_on_from_it() {
    Counting stage = new Counting();
    assertThat(first.get(stage)).isEqualTo("anew 1");
    assertThat(first.get(stage)).isEqualTo("anew 1");
    Workspace second = after(first);
    assertThat(second.get(stage)).isEqualTo("anew 1 further");
    assertThat(second.get(stage)).isEqualTo("anew 1 further");
    assertThat(stage.anew).hasValue(1);
    assertThat(stage.further).hasValue(1);
  }

  @Test
  void a_state_that_is_only_asked_about_starts_from_the_real_one_and_leaves_it() {
    Counting stage = new Counting();
    first.get(stage);
    Workspace aside = first.as(first.picture());
    assertThat(aside.get(stage)).isEqualTo("anew 1 further");
    assertThat(aside.as(first.picture()).get(stage)).isEqualTo("anew 1 further further");
    assertThat(first.get(stage)).isEqualTo("anew 1");
    assertThat(stage.anew).hasValue(1);
    assertThat(stage.further).hasValue(2);
  }

  @Test
  void what_does_not_last_is_worked_out_at_each_look() {
    Counting stage = new Counting();
    stage.lasting = false;
    assertThat(first.get(stage)).isEqualTo("anew 1");
    assertThat(first.get(stage)).isEqualTo("anew 2");
    assertThat(first.memo().bytes()).isZero();
  }

  @Test
  void whoever_holds_it_is_told_when_it_has_grown() throws IOException {
    AtomicInteger told = new AtomicInteger();
    Memo memo = Memo.telling(told::incrementAndGet);
    Workspace w =
        new Workspace(
            first.game(),
            first.gameVersion(),
            first.files(),
            first.former(),
            first.picture(),
            memo);
    Counting stage = new Counting();
    w.get(stage);
    w.get(stage);
    assertThat(told).hasValue(1);
    assertThat(memo.bytes()).isEqualTo("anew 1".length());
  }

  @Test
  void however_many_ask_it_is_worked_out_once_and_others_do_not_wait_for_it() {
    CountDownLatch begun = new CountDownLatch(1), open = new CountDownLatch(1);
    Counting slow =
        new Counting() {
          @Override
          public String of(Workspace now) {
            begun.countDown();
            try {
              open.await();
            } catch (InterruptedException e) {
              throw new IllegalStateException(e);
            }
            return super.of(now);
          }
        };
    List<CompletableFuture<String>> asked = new ArrayList<>();
    for (int i = 0; i < 4; i++) asked.add(CompletableFuture.supplyAsync(() -> first.get(slow)));
    assertThat(begun).satisfies(CountDownLatch::await);
    assertThat(first.get(new Counting())).isEqualTo("anew 1");
    open.countDown();
    for (CompletableFuture<String> a : asked) assertThat(a.join()).isEqualTo("anew 1");
    assertThat(slow.anew).hasValue(1);
  }

  @Test
  void a_state_that_nobody_holds_any_more_goes_though_its_outcome_is_known() {
    Counting stage = new Counting();
    WeakReference<Workspace> gone = new WeakReference<>(looked(stage));
    for (int i = 0; i < 20 && gone.get() != null; i++) System.gc();
    assertThat(gone.get()).isNull();
    assertThat(first.get(stage)).isEqualTo("anew 1 further");
  }

  private Workspace looked(Counting stage) {
    Workspace shortLived = after(first);
    shortLived.get(stage);
    return shortLived;
  }

  @Test
  void a_stage_that_fails_is_tried_again_at_the_next_look() {
    Counting stage =
        new Counting() {
          @Override
          public String of(Workspace now) {
            if (anew.incrementAndGet() == 1) throw new IllegalStateException("away");
            return "there";
          }
        };
    try {
      first.get(stage);
    } catch (IllegalStateException away) {
      assertThat(away).hasMessage("away");
    }
    assertThat(first.get(stage)).isEqualTo("there");
  }
}
