package ironing.server.choice;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.choice.ChoiceAnswer.Becomes;
import ironing.core.choice.ChoiceAnswer.Found;
import ironing.core.choice.ChoiceAnswer.Member;
import ironing.server.choice.Candidates.ToFetch;
import ironing.server.choice.ChoiceViews.WantedModsRequest;
import ironing.server.choice.Choices.Answered;
import ironing.server.choice.Choices.Choice;
import ironing.server.choice.GettingMapper.GettingRow;
import ironing.server.choice.GettingMapper.NewGetting;
import ironing.server.downloads.Downloads;
import ironing.server.downloads.Downloads.Queued;
import ironing.server.downloads.Downloads.State;
import ironing.server.downloads.Downloads.Wanted;
import ironing.server.fetch.Patience;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.Arrivals;
import ironing.server.platform.Json;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspaces;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.stream.Collectors;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Gets what a choice brings with it: fetches, installs what needs no decision, reckons again with
 * the cards that came, and changes the profile in one step. Until that step nothing in the profile
 * is another; a start goes on with what the last server had begun.
 */
@Component
class Getting {
  private static final Duration BETWEEN_LOOKS = Duration.ofMillis(200);

  private final Choices choices;
  private final Downloads downloads;
  private final Arrivals arrivals;
  private final Following following;
  private final OpenWorkspaces workspaces;
  private final GettingMapper db;
  private final Jobs jobs;
  private final Json json;

  Getting(
      Choices choices,
      Downloads downloads,
      Arrivals arrivals,
      Following following,
      OpenWorkspaces workspaces,
      GettingMapper db,
      Jobs jobs,
      Json json) {
    this.choices = choices;
    this.downloads = downloads;
    this.arrivals = arrivals;
    this.following = following;
    this.workspaces = workspaces;
    this.db = db;
    this.jobs = jobs;
    this.json = json;
  }

  /**
   * What is written down of a choice, to go on with it.
   *
   * @param fetchOnly whether the profile stays as it is; absent for no
   */
  private record Kept(WantedModsRequest choice, @MayBeAbsent Boolean fetchOnly) {
    boolean isFetchOnly() {
      return Boolean.TRUE.equals(fetchOnly);
    }
  }

  @EventListener(ApplicationReadyEvent.class)
  void goOn() {
    for (GettingRow row : db.all()) {
      Kept kept = json.read(row.choice(), Kept.class);
      start(row.workspaceId(), row.id(), kept.choice().asked(), kept.isFetchOnly());
    }
  }

  /**
   * Begins to get it.
   *
   * @param mark of the answer that was shown; null for whatever it is
   * @param fetchOnly whether to end once all is in the library: the profile stays as it is
   * @throws IroningException with code {@code choice-changed} where it is another by now, or {@code
   *     choice-impossible} where there is no set
   */
  Job get(long workspace, WantedModsRequest request, String mark, boolean fetchOnly) {
    Choice choice = request.asked();
    Answered answered = choices.ask(workspaces.get(workspace), choice);
    Found found = requireFound(answered);
    if (mark != null && !mark.equals(answered.mark())) throw changed();
    if (found.members().stream().allMatch(m -> m.becomes() == Becomes.STAYS)
        && found.off().isEmpty()) {
      throw IroningException.of(
          "choice-done",
          "This choice",
          "All of it is here and on.",
          "Choose something else, or look at the layers.");
    }
    NewGetting row = new NewGetting();
    db.add(workspace, json.write(new Kept(request, fetchOnly)), row);
    return start(workspace, row.getId(), choice, fetchOnly);
  }

  /**
   * The set of an answer.
   *
   * @throws IroningException with code {@code choice-impossible} where there is none
   */
  static Found requireFound(Answered answered) {
    if (answered.answer() instanceof Found f) return f;
    throw IroningException.of(
        "choice-impossible",
        "This choice",
        "No set has all of it as things are now.",
        "Look at what it brings with it, and choose one of the ways out.");
  }

  private static IroningException changed() {
    return IroningException.of(
        "choice-changed",
        "This choice",
        "It brings something else with it by now: the profile, the library or a catalogue has"
            + " changed.",
        "Look at it again.");
  }

  private Job start(long workspace, long id, Choice choice, boolean fetchOnly) {
    return jobs.startWaiting(
        workspace,
        Lane.GET,
        "get",
        (fetchOnly ? "Fetch " : "Get ") + wished(choice),
        progress -> {
          try {
            follow(workspace, choice, fetchOnly, progress);
          } catch (IroningException | CancellationException e) {
            // what has come stays in the library, and the choice has to be looked at again; but a
            // server that ends, or has lost its database, goes on with it at its next start
            if (!jobs.isEnding() && !isOfDatabase(e)) db.remove(id);
            throw e;
          }
          db.remove(id);
          return null;
        });
  }

  private static boolean isOfDatabase(RuntimeException e) {
    return e instanceof IroningException i
        && i.problems().stream().anyMatch(p -> p.code().equals("database-gone"));
  }

  private static String wished(Choice choice) {
    if (choice.missing()) return "what is missing";
    return choice.wishes().stream().map(w -> w.mod()).collect(Collectors.joining(", "));
  }

  private void follow(long workspace, Choice choice, boolean fetchOnly, Jobs.Progress progress) {
    // a card that came may say another thing than its catalogue: then that is fetched too
    for (Set<String> fetched = new HashSet<>(); ; ) {
      Answered answered = choices.ask(workspaces.get(workspace), choice);
      // a card that came may leave no set; who only wanted to look sees that in the answer
      if (fetchOnly && !fetched.isEmpty() && !(answered.answer() instanceof Found)) return;
      Found found = requireFound(answered);
      List<ToFetch> due = new ArrayList<>();
      for (Member m : found.members())
        if (!m.candidate().isHere()) due.add(answered.candidates().toFetch(m.candidate()));
      if (due.isEmpty()) {
        if (!fetchOnly) apply(workspace, choice, answered);
        return;
      }
      for (ToFetch t : due) if (!fetched.add(t.release().file().sha256())) throw otherThanSaid(t);
      bring(workspace, due, progress);
    }
  }

  private static IroningException otherThanSaid(ToFetch t) {
    return IroningException.of(
        "card-other",
        t.release().file().name(),
        "Its card does not say that it is “"
            + t.mod()
            + "” "
            + t.release().version()
            + ", as the catalogue does: it does not meet what it was fetched for.",
        "It is in the library. Tell whoever keeps the catalogue.");
  }

  /** Fetches and installs; refused where one of them waits for the user. */
  private void bring(long workspace, List<ToFetch> due, Jobs.Progress progress) {
    Map<Long, ToFetch> queued = new HashMap<>();
    for (ToFetch t : due) {
      Wanted wanted =
          new Wanted(
              t.catalogue(),
              t.mod(),
              t.release().version().toString(),
              t.release().file().name(),
              t.release().file().href(),
              t.release().file().size(),
              t.release().file().sha256());
      queued.put(downloads.add(workspace, wanted), t);
    }
    List<Long> archives = await(workspace, queued.keySet(), progress);
    List<Problem> waiting = new ArrayList<>();
    for (int i = 0; i < archives.size(); i++) {
      progress.at(i, archives.size(), "archives");
      Optional<Long> mod = arrivals.installOff(workspace, archives.get(i), (d, t, u) -> {});
      if (mod.isEmpty()) waiting.add(needsDecision(due, workspace, archives.get(i)));
    }
    if (!waiting.isEmpty()) throw new IroningException(waiting);
  }

  private Problem needsDecision(List<ToFetch> due, long workspace, long archive) {
    String name =
        downloads.all(workspace).stream()
            .filter(q -> q.archive().equals(Optional.of(archive)))
            .map(q -> q.row().name())
            .findFirst()
            .orElse("Archive " + archive);
    return new Problem(
        "choice-waits",
        name,
        due.size() == 1
            ? "It has come, and waits in the inbox for a decision of yours."
            : "It waits in the inbox for a decision of yours; the others have come.",
        "Install it from the inbox, then get the choice again: only what is missing still happens.");
  }

  /** Waits until all are whole. */
  private List<Long> await(long workspace, Set<Long> ids, Jobs.Progress progress) {
    while (true) {
      long received = 0, size = 0;
      List<Long> archives = new ArrayList<>();
      List<Problem> problems = new ArrayList<>();
      for (long id : ids) {
        Queued q = downloads.get(workspace, id);
        received += q.received();
        size += q.row().sizeBytes();
        if (q.state() == State.DONE) archives.add(q.archive().orElseThrow());
        if (q.state() == State.FAILED || q.state() == State.RESTING)
          problems.add(q.problem().orElseThrow());
      }
      progress.at(received, size, "bytes");
      if (!problems.isEmpty()) throw new IroningException(problems);
      if (archives.size() == ids.size()) return archives;
      Patience.await(BETWEEN_LOOKS, () -> {});
    }
  }

  /** One step of the timeline: on, off, other versions, and places by the rules. */
  private void apply(long workspace, Choice choice, Answered answered) {
    workspaces.change(
        workspace,
        Expected.ANY,
        "Got " + names(choice, answered),
        open -> {
          Answered now = choices.ask(open, choice);
          if (!(now.answer() instanceof Found f) || !now.mark().equals(answered.mark()))
            throw changed();
          return following.arranged(open, now.candidates(), f);
        });
  }

  private static String names(Choice choice, Answered answered) {
    if (choice.missing()) return "what was missing";
    return choice.wishes().stream()
        .map(w -> answered.candidates().nameOf(w.mod()))
        .collect(Collectors.joining(", "));
  }
}
