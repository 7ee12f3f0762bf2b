package ironing.server.trouble;

import ironing.core.IroningException;
import ironing.core.trouble.Answer;
import ironing.core.trouble.Next;
import ironing.core.trouble.Part;
import ironing.core.trouble.RunFacts;
import ironing.server.deploy.Deployments;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.testrun.Runs;
import ironing.server.trouble.SearchMapper.SearchRow;
import ironing.server.trouble.SearchMapper.SearchState;
import ironing.server.trouble.Searches.TrialSet;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Tries what a search asks for: puts the set into the game folder, starts the game, and writes down
 * how it went. When the search is over, rests or is left, the folder is as it was before it.
 */
@Component
class SearchRunner {
  private static final Duration BREATH = Duration.ofSeconds(30);
  private final Searches searches;
  private final Beginnings beginnings;
  private final Deployments deployments;
  private final Runs runs;
  private final Jobs jobs;
  // the jobs of searches that go on, by search
  private final Map<Long, Long> going = new ConcurrentHashMap<>();

  SearchRunner(
      Searches searches, Beginnings beginnings, Deployments deployments, Runs runs, Jobs jobs) {
    this.searches = searches;
    this.beginnings = beginnings;
    this.deployments = deployments;
    this.runs = runs;
    this.jobs = jobs;
  }

  /**
   * Goes on with what the last server had begun: a search that goes on by itself does so, one by
   * hand waits, and where neither is due the game folder is made as it was.
   */
  @EventListener(ApplicationReadyEvent.class)
  void goOn() {
    for (SearchRow r : searches.inFolder()) {
      Search root = searches.get(r.workspaceId(), r.id());
      List<Search> all = searches.within(root);
      boolean going = all.stream().anyMatch(s -> s.row().state() == SearchState.SEARCHING);
      boolean stopped =
          all.stream()
              .anyMatch(
                  s ->
                      s.row().state() == SearchState.RESTING
                          || s.row().state() == SearchState.LEFT);
      if (r.isAutomatic() && (going || !stopped)) start(root);
      else if (!going) restoring(root);
    }
  }

  /** Goes on by itself, as a job, until it is over. */
  Job start(Search search) {
    if (!search.row().state().isOver()) searches.setState(search, SearchState.SEARCHING);
    long id = search.id();
    Job job =
        jobs.startWaiting(
            search.workspace(),
            Lane.GAME,
            "search",
            "Search for what causes it",
            progress -> follow(search.workspace(), id, progress));
    going.put(id, job.id());
    return job;
  }

  private Long follow(long workspace, long id, Jobs.Progress progress) {
    long now = id;
    try {
      while (true) {
        Search search = searches.get(workspace, now);
        if (search.next() instanceof Next.Try asked) {
          tryOnce(search, asked, progress);
          continue;
        }
        searches.settle(search);
        Optional<Search> next = further(search);
        if (next.isEmpty()) {
          restore(search, quiet());
          return now;
        }
        now = next.get().id();
      }
    } catch (CancellationException stopped) {
      rest(workspace, now);
      throw stopped;
    } catch (RuntimeException e) {
      rest(workspace, now);
      throw e;
    } finally {
      going.remove(id);
    }
  }

  /** What is searched after one is over: whether it is their order, then what in them. */
  private Optional<Search> further(Search search) {
    if (search.row().level() == Part.Level.ORDER)
      return deeper(searches.get(search.workspace(), search.row().parentId()));
    Optional<SearchRow> order = searches.orderOf(search);
    if (order.isPresent() && !order.get().state().isOver()) return order.map(this::get);
    Optional<Search> begun = order.isPresent() ? Optional.empty() : beginnings.order(search);
    return begun.isPresent() ? begun : deeper(search);
  }

  private Optional<Search> deeper(Search search) {
    Optional<SearchRow> inside = searches.child(search);
    if (inside.isEmpty()) return beginnings.inside(search);
    return inside.get().state().isOver() ? further(get(inside.get())) : inside.map(this::get);
  }

  private Search get(SearchRow row) {
    return searches.get(row.workspaceId(), row.id());
  }

  // a server that ends goes on with it at its next start
  private void rest(long workspace, long id) {
    if (jobs.isEnding()) return;
    Search search = searches.get(workspace, id);
    if (search.row().state() == SearchState.SEARCHING)
      searches.setState(search, SearchState.RESTING);
    restore(search, quiet());
  }

  private void tryOnce(Search search, Next.Try asked, Jobs.Progress progress) {
    int done = search.tries().size();
    progress.at(done, done + asked.atMostLeft(), "runs");
    TrialSet set = searches.trial(search, asked.set());
    searches.comesIntoFolder(search);
    deployments.deployTrial(set.open(), set.contents(), quiet());
    long run = runs.startTrial(set.open(), set.contents());
    RunFacts facts =
        runs.await(
            search.workspace(),
            run,
            Duration.ofSeconds(search.row().limitSeconds()),
            () -> progress.at(done, done + asked.atMostLeft(), "runs"));
    Answer answer = search.fault().in(facts, set.open().game().pathCase());
    searches.tried(search, asked, Optional.of(run), answer, false, note(facts, answer));
  }

  /** What else went wrong in a run, so that it is not lost. */
  static String note(RunFacts facts, Answer answer) {
    if (answer.tells()) return "";
    if (facts.cutOff()) return "It did not end in time.";
    return facts
        .log()
        .flatMap(l -> l.fault())
        .map(f -> f.code() + ": " + f.text())
        .orElseGet(
            () ->
                facts.saidFault().isEmpty()
                    ? "It ended with exit code " + facts.exitCode().orElse(-1) + "."
                    : facts.saidFault());
  }

  /**
   * Puts the set that is asked for into the folder and starts the game, for the user to play.
   *
   * @throws IroningException with code {@code search-over} where nothing is left to try, or {@code
   *     search-goes-on} where it tries sets by itself
   */
  Job play(Search search) {
    Next.Try asked = requireAsked(search);
    requireByHand(search);
    searches.setState(search, SearchState.SEARCHING);
    return jobs.start(
        search.workspace(),
        Lane.GAME,
        "try",
        "Put the set to try into the game folder",
        progress -> {
          TrialSet set = searches.trial(search, asked.set());
          searches.comesIntoFolder(search);
          deployments.deployTrial(set.open(), set.contents(), progress);
          // a game that Ironing cannot start is started by the user
          boolean startable = set.open().game().run().isPresent() && isStillAsked(search, asked);
          return startable ? (Long) runs.startTrial(set.open(), set.contents()) : null;
        });
  }

  // the user may say how it went, or give it up, while the set is still put into the folder
  private boolean isStillAsked(Search search, Next.Try asked) {
    Search now = searches.get(search.workspace(), search.id());
    return now.row().state() == SearchState.SEARCHING
        && now.tries().size() == search.tries().size()
        && now.next() instanceof Next.Try t
        && t.set().equals(asked.set());
  }

  /** What a search asks for. */
  static Next.Try requireAsked(Search search) {
    if (search.next() instanceof Next.Try t && !search.row().state().isOver()) return t;
    throw IroningException.of(
        "search-over",
        "Search " + search.id(),
        "It is over: nothing is left to try.",
        "Take an answer back to go on from there, or begin another search.");
  }

  private static void requireByHand(Search search) {
    if (search.row().isAutomatic() && search.row().state() == SearchState.SEARCHING)
      throw Searches.goesOn(search.row());
  }

  /**
   * The user says how it went.
   *
   * @throws IroningException with code {@code search-over} where nothing is asked, or {@code
   *     search-goes-on} where it tries sets by itself
   */
  Search answered(Search search, Answer answer) {
    Next.Try asked = requireAsked(search);
    requireByHand(search);
    runs.stopTrial(search.workspace());
    searches.tried(search, asked, searches.lastRun(search), answer, true, "");
    Search now = searches.get(search.workspace(), search.id());
    if (now.next() instanceof Next.Try) return now;
    searches.settle(now);
    restoring(now);
    return searches.get(search.workspace(), search.id());
  }

  /** Stops for now, or for good; the game folder is as it was before, as a job. */
  Job stop(Search search, SearchState state) {
    searches.setState(search, state);
    Long job = going.get(search.id());
    Search root = search;
    while (job == null && root.row().parentId() != null) {
      root = searches.get(root.workspace(), root.row().parentId());
      job = going.get(root.id());
    }
    if (job == null) return restoring(search);
    jobs.cancel(job);
    return jobs.await(job, BREATH.toMillis());
  }

  private Job restoring(Search search) {
    return jobs.start(
        search.workspace(),
        Lane.GAME,
        "search-end",
        "Make the game folder as it was before the search",
        progress -> {
          runs.stopTrial(search.workspace());
          restore(search, progress);
          return search.id();
        });
  }

  private void restore(Search search, Jobs.Progress progress) {
    if (searches.isInFolder(search)) {
      Searches.Before before = searches.inFolderBefore(search);
      deployments.afterTrials(
          before.open(), search.row().trialProfileId(), before.deployed(), progress);
    }
    searches.leftFolder(search);
  }

  private static Jobs.Progress quiet() {
    return (done, total, unit) -> {};
  }
}
