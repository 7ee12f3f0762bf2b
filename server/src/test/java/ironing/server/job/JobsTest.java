package ironing.server.job;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.atLeast;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;

import ironing.core.IroningException;
import ironing.server.job.Job.State;
import ironing.server.job.Jobs.Lane;
import ironing.server.platform.Events;
import java.nio.file.FileSystemException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class JobsTest {
  private static final long LONG_MS = 60_000;
  private final Events events = mock(Events.class);
  private final Jobs jobs = new Jobs(events);

  @AfterEach
  void stop() throws InterruptedException {
    jobs.stop();
  }

  private Job start(Jobs.Work work) {
    return jobs.start(1, Lane.INSTALL, "test", "Try it", work);
  }

  @Test
  void a_job_ends_with_its_result_and_tells_so() {
    Job over = jobs.await(start(p -> 42L).id(), LONG_MS);
    assertThat(over.state()).isEqualTo(State.DONE);
    assertThat(over.result()).isEqualTo(42);
    verify(events, atLeast(1)).tell(eq(1L), eq("job"), any());
  }

  @Test
  void jobs_of_one_lane_run_one_after_another_in_their_order_though_one_fails() {
    List<Integer> order = Collections.synchronizedList(new ArrayList<>());
    CountDownLatch go = new CountDownLatch(1);
    start(
        p -> {
          go.await();
          order.add(1);
          throw new IllegalStateException("a defect");
        });
    List<Job> rest = new ArrayList<>();
    for (int i = 2; i <= 20; i++) {
      int n = i;
      rest.add(
          start(
              p -> {
                order.add(n);
                return null;
              }));
    }
    go.countDown();
    rest.forEach(j -> assertThat(jobs.await(j.id(), LONG_MS).state()).isEqualTo(State.DONE));
    assertThat(order).hasSize(20).isSorted();
  }

  @Test
  void lanes_and_workspaces_do_not_wait_for_one_another() throws InterruptedException {
    CountDownLatch both = new CountDownLatch(2);
    Jobs.Work meet =
        p -> {
          both.countDown();
          both.await();
          return null;
        };
    Job a = jobs.start(1, Lane.INSTALL, "test", "a", meet);
    Job b = jobs.start(1, Lane.GAME, "test", "b", meet);
    assertThat(jobs.await(a.id(), LONG_MS).state()).isEqualTo(State.DONE);
    assertThat(jobs.await(b.id(), LONG_MS).state()).isEqualTo(State.DONE);
  }

  @Test
  void a_job_that_is_cancelled_stops_at_its_next_step() {
    CountDownLatch under = new CountDownLatch(1), cancelled = new CountDownLatch(1);
    List<String> done = Collections.synchronizedList(new ArrayList<>());
    Job job =
        start(
            p -> {
              under.countDown();
              cancelled.await();
              p.at(1, 2, "steps");
              done.add("went on");
              return null;
            });
    assertThat(job.state()).isEqualTo(State.RUNNING);
    jobs.cancel(job.id());
    cancelled.countDown();
    assertThat(jobs.await(job.id(), LONG_MS).state()).isEqualTo(State.CANCELLED);
    assertThat(done).isEmpty();
  }

  @Test
  void a_server_that_ends_waits_for_its_jobs_next_step_and_they_know_why() throws Exception {
    CountDownLatch under = new CountDownLatch(1);
    List<Boolean> ending = Collections.synchronizedList(new ArrayList<>());
    start(
        p -> {
          under.countDown();
          try {
            while (true) {
              p.at(1, 2, "steps");
              Thread.sleep(20);
            }
          } catch (CancellationException e) {
            ending.add(jobs.isEnding());
            throw e;
          }
        });
    under.await();
    assertThat(jobs.isEnding()).isFalse();
    jobs.stop();
    assertThat(ending).containsExactly(true);
  }

  @Test
  void a_refusal_keeps_its_words_and_a_defect_gets_some() {
    Job refused =
        start(
            p -> {
              throw IroningException.of("some-code", "The thing", "A reason.", "A remedy.");
            });
    assertThat(jobs.await(refused.id(), LONG_MS).problems())
        .singleElement()
        .satisfies(p -> assertThat(p.remedy()).isEqualTo("A remedy."));
    Job defect =
        start(
            p -> {
              throw new IllegalStateException("secret");
            });
    assertThat(jobs.await(defect.id(), LONG_MS).problems())
        .singleElement()
        .satisfies(
            p -> {
              assertThat(p.code()).isEqualTo("internal");
              assertThat(p.toString()).doesNotContain("secret");
            });
  }

  @Test
  void a_drive_that_refuses_is_told_by_the_place() {
    Job job =
        start(
            p -> {
              throw new FileSystemException("/far/away/x", null, "Input/output error");
            });
    assertThat(jobs.await(job.id(), LONG_MS).problems())
        .singleElement()
        .satisfies(
            p -> {
              assertThat(p.code()).isEqualTo("disk-failed");
              assertThat(p.thing()).isEqualTo("/far/away/x");
              assertThat(p.reason()).contains("Input/output error");
            });
  }

  @Test
  void waiting_ends_when_the_time_is_up() {
    CountDownLatch never = new CountDownLatch(1);
    Job job =
        start(
            p -> {
              never.await();
              return null;
            });
    assertThat(jobs.await(job.id(), 20).state()).isEqualTo(State.RUNNING);
    never.countDown();
  }

  @Test
  void a_job_of_another_day_is_not_found() {
    assertThatThrownBy(() -> jobs.get(999)).hasMessageContaining("Job 999");
  }

  @Test
  void a_job_ends_whatever_is_thrown_in_it() {
    Job deep = jobs.await(start(p -> (long) deeper(0)).id(), LONG_MS);
    assertThat(deep.state()).isEqualTo(State.FAILED);
    assertThat(deep.problems().get(0).code()).isEqualTo("internal");
    Job broken =
        jobs.await(
            start(
                    p -> {
                      throw new NoClassDefFoundError("a defect");
                    })
                .id(),
            LONG_MS);
    assertThat(broken.state()).isEqualTo(State.FAILED);
    assertThat(jobs.await(start(p -> 1L).id(), LONG_MS).state()).isEqualTo(State.DONE);
  }

  @SuppressWarnings("InfiniteRecursion")
  private static int deeper(int n) {
    return 1 + deeper(n + 1);
  }

  @Test
  void work_that_waits_for_programs_keeps_nobody_else_waiting() throws InterruptedException {
    int many = Runtime.getRuntime().availableProcessors() + 2;
    CountDownLatch running = new CountDownLatch(many), go = new CountDownLatch(1);
    List<Job> programs = new ArrayList<>();
    for (int i = 0; i < many; i++)
      programs.add(
          jobs.startWaiting(
              100 + i,
              Lane.GAME,
              "tool",
              "Run it",
              p -> {
                running.countDown();
                go.await();
                return null;
              }));
    running.await();
    assertThat(jobs.await(start(p -> 1L).id(), LONG_MS).state()).isEqualTo(State.DONE);
    // what follows in the lane of one of them has its turn behind it
    Job after = jobs.start(100, Lane.GAME, "deploy", "Deploy", p -> 2L);
    assertThat(after.state()).isEqualTo(State.RUNNING);
    go.countDown();
    programs.forEach(j -> assertThat(jobs.await(j.id(), LONG_MS).state()).isEqualTo(State.DONE));
    assertThat(jobs.await(after.id(), LONG_MS).state()).isEqualTo(State.DONE);
  }
}
