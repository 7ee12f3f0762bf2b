package ironing.server.job;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.server.platform.DatabaseGone;
import ironing.server.platform.Events;
import jakarta.annotation.PreDestroy;
import java.nio.file.FileSystemException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Runs jobs, as many at once as the machine has processors. Finished ones are remembered for a
 * while.
 */
@Component
public class Jobs {
  private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);
  private static final int REMEMBERED = 500;
  private static final long TELL_EVERY_MS = 100;
  private static final Duration TO_END = Duration.ofSeconds(5);

  private final Events events;
  private final ExecutorService workers =
      Executors.newFixedThreadPool(Math.max(2, Runtime.getRuntime().availableProcessors()));
  // of their own, so that a hundred archives never keep a deployment waiting
  private final ExecutorService lookers =
      Executors.newFixedThreadPool(Math.max(2, Runtime.getRuntime().availableProcessors()));
  // as many as there are programs that run
  private final ExecutorService waiting = Executors.newCachedThreadPool();
  private final Map<Long, Running> jobs = new ConcurrentHashMap<>();
  private final Map<String, CompletableFuture<Void>> lanes = new ConcurrentHashMap<>();
  private final AtomicLong ids = new AtomicLong();
  private volatile boolean ending;

  Jobs(Events events) {
    this.events = events;
  }

  /** The work itself. It gives back the number of what it made, or null. */
  public interface Work {
    Long run(Progress progress) throws Exception;
  }

  /** What must not run side by side in one workspace. */
  public enum Lane {
    /** Looking at a game that has no workspace yet. */
    ADOPT,
    /** Looking into archives: as many at once as there are processors, in no order. */
    LOOK,
    /** Making mods of archives: they come in the order in which they were given. */
    INSTALL,
    /** Looking at catalogues, one after another. */
    CATALOGUE,
    /** Getting what a choice brings with it, one choice after another. */
    GET,
    /** Whatever writes to the game folder or rewrites what may be deployed there. */
    GAME
  }

  /** How a job says how far it is. Every call throws once the job is cancelled. */
  public interface Progress {
    void at(long done, long total, String unit);
  }

  private final class Running implements Progress {
    private final Lane lane;
    private volatile Job job;
    private volatile boolean cancelled;
    private long lastToldMs;
    private final CountDownLatch ended = new CountDownLatch(1);

    Running(Lane lane) {
      this.lane = lane;
    }

    @Override
    public void at(long done, long total, String unit) {
      if (cancelled) throw new CancellationException();
      job =
          new Job(
              job.id(),
              job.workspace(),
              job.kind(),
              job.title(),
              Job.State.RUNNING,
              done,
              total,
              unit,
              List.of(),
              null);
      long now = System.currentTimeMillis();
      if (now - lastToldMs < TELL_EVERY_MS) return;
      lastToldMs = now;
      events.tell(job.workspace(), "job", job);
    }

    void end(Job.State state, List<Problem> problems, Long result) {
      job =
          new Job(
              job.id(),
              job.workspace(),
              job.kind(),
              job.title(),
              state,
              job.done(),
              job.total(),
              job.unit(),
              problems,
              result);
      ended.countDown();
      events.tell(job.workspace(), "job", job);
    }
  }

  /**
   * Starts a piece of work. Those of one workspace and lane run one after another, in the order in
   * which they were started.
   */
  public Job start(long workspace, Lane lane, String kind, String title, Work work) {
    return start(workspace, lane, kind, title, work, workers);
  }

  /** The same for work that mostly waits for another program: it holds no worker meanwhile. */
  public Job startWaiting(long workspace, Lane lane, String kind, String title, Work work) {
    return start(workspace, lane, kind, title, work, waiting);
  }

  private Job start(
      long workspace, Lane lane, String kind, String title, Work work, ExecutorService by) {
    Running r = new Running(lane);
    long id = ids.incrementAndGet();
    r.job = new Job(id, workspace, kind, title, Job.State.RUNNING, 0, 0, "", List.of(), null);
    jobs.put(id, r);
    forgetOldest();
    if (lane == Lane.LOOK) {
      lookers.execute(() -> run(r, work));
      return r.job;
    }
    lanes.compute(
        workspace + "/" + lane,
        (key, before) -> {
          CompletableFuture<Void> ahead =
              before == null ? CompletableFuture.completedFuture(null) : before;
          // whatever became of the one ahead, the next one has its turn
          return ahead.handleAsync(
              (done, failed) -> {
                run(r, work);
                return null;
              },
              by);
        });
    return r.job;
  }

  private void run(Running r, Work work) {
    try {
      if (r.cancelled) throw new CancellationException();
      r.end(Job.State.DONE, List.of(), work.run(r));
    } catch (CancellationException e) {
      r.end(Job.State.CANCELLED, List.of(), null);
    } catch (IroningException e) {
      r.end(Job.State.FAILED, e.problems(), null);
    } catch (FileSystemException e) {
      LOG.warn("job {} failed: {}", r.job.title(), e.toString());
      r.end(Job.State.FAILED, List.of(refused(r.job, e)), null);
    } catch (Exception e) {
      Optional<IroningException> gone = DatabaseGone.told(e);
      if (gone.isPresent()) {
        LOG.warn("job {} failed: {}", r.job.title(), e.toString());
        r.end(Job.State.FAILED, gone.get().problems(), null);
        return;
      }
      broken(r, e);
    } catch (StackOverflowError | OutOfMemoryError e) {
      // whoever waits for the job must not wait for ever
      broken(r, e);
    } catch (Error e) {
      broken(r, e);
      throw e;
    }
  }

  private static void broken(Running r, Throwable e) {
    LOG.error("job {} failed", r.job.title(), e);
    r.end(
        Job.State.FAILED,
        List.of(
            new Problem(
                "internal",
                r.job.title(),
                "Something went wrong inside Ironing.",
                "Nothing was kept of it; the server’s log has the details.")),
        null);
  }

  // what no feature has words of its own for
  private static Problem refused(Job job, FileSystemException e) {
    return new Problem(
        "disk-failed",
        e.getFile() == null ? job.title() : e.getFile(),
        "The disk refused: "
            + (e.getReason() == null ? "it may not be used so" : e.getReason())
            + ".",
        "See that you may read and write there and that the drive is sound, then try again.");
  }

  /** The job once it has ended, or as it is when the time is up. */
  public Job await(long id, long waitMillis) {
    Running r = known(id);
    try {
      r.ended.await(waitMillis, TimeUnit.MILLISECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return r.job;
  }

  public Job get(long id) {
    return known(id).job;
  }

  /** Those of a workspace, the newest first. */
  public List<Job> of(long workspace) {
    return jobs.values().stream()
        .map(r -> r.job)
        .filter(j -> j.workspace() == workspace)
        .sorted(Comparator.comparingLong(Job::id).reversed())
        .toList();
  }

  /** Whether a job only looks into an archive: it changes nothing that anybody sees. */
  public boolean isLook(long id) {
    Running r = jobs.get(id);
    return r != null && r.lane == Lane.LOOK;
  }

  /** Asks a job to stop; it does at its next step, leaving nothing half done. */
  public Job cancel(long id) {
    Running r = known(id);
    r.cancelled = true;
    return r.job;
  }

  private Running known(long id) {
    Running r = jobs.get(id);
    if (r == null)
      throw IroningException.of(
          "not-found",
          "Job " + id,
          "There is no such job; the server may have been restarted.",
          "Look at its outcome in the library.");
    return r;
  }

  private void forgetOldest() {
    if (jobs.size() <= REMEMBERED) return;
    List<Long> ended =
        new ArrayList<>(
            jobs.values().stream()
                .map(r -> r.job)
                .filter(j -> j.state() != Job.State.RUNNING)
                .map(Job::id)
                .sorted()
                .toList());
    for (int i = 0; i < ended.size() && jobs.size() > REMEMBERED; i++) jobs.remove(ended.get(i));
  }

  /**
   * Whether the server ends: a job that is cancelled now was not given up by its user, and what is
   * written down of it stays, for the next start to go on with.
   */
  public boolean isEnding() {
    return ending;
  }

  @EventListener(ContextClosedEvent.class)
  void end() {
    ending = true;
  }

  /** Cancels all, and lets them come to their next step while the database is still there. */
  @PreDestroy
  void stop() throws InterruptedException {
    ending = true;
    jobs.values().forEach(r -> r.cancelled = true);
    long until = System.nanoTime() + TO_END.toNanos();
    List<ExecutorService> all = List.of(workers, lookers, waiting);
    all.forEach(ExecutorService::shutdown);
    for (ExecutorService e : all)
      e.awaitTermination(until - System.nanoTime(), TimeUnit.NANOSECONDS);
  }
}
