package ironing.server.testrun;

import ironing.core.IroningException;
import ironing.core.deploy.PictureSum;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.picture.Picture;
import ironing.core.testrun.RunLog;
import ironing.core.testrun.RunOutcome;
import ironing.core.trouble.RunFacts;
import ironing.server.deploy.Deployments;
import ironing.server.deploy.OwnSaves;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.process.Program;
import ironing.server.testrun.RunMapper.RunRow;
import ironing.server.workspace.Expected;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.FolderUse.Use;
import ironing.server.workspace.Memory;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Profiles;
import jakarta.annotation.PostConstruct;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.UnaryOperator;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Starts games and listens to them. One run of a workspace at a time. */
@Component
public class Runs {
  private static final long BYTES_OF_A_READ = 300;
  private static final Duration BETWEEN_LOOKS = Duration.ofMillis(100);

  /** So many of the newest runs of sets that are tried keep what they said. */
  private static final int TRIALS_WHOLE = 300;

  private static final Logger LOG = LoggerFactory.getLogger(Runs.class);
  private final RunMapper db;
  private final OpenWorkspaces workspaces;
  private final Profiles profiles;
  private final Deployments deployments;
  private final OwnSaves saves;
  private final FolderUse use;
  private final Folders folders;
  private final Events events;
  private final Map<Long, Live> live = new ConcurrentHashMap<>();
  private final Memory.Kept<Summed> sums;
  private final Memory.Kept<Optional<Ended>> ended;

  private record Summed(Picture picture, String sum) {}

  /**
   * A run that goes on.
   *
   * @param trial of a set that is tried, what lies there instead of what the arrangement has
   * @param over done once all of it is written down
   */
  private record Live(
      long run,
      Optional<Map<String, byte[]>> trial,
      Program program,
      CompletableFuture<Void> over,
      AtomicBoolean cutOff) {}

  /**
   * A run that is over.
   *
   * @param summary of its log; empty when the game wrote none
   * @param saidFault the line of its output that means a fault; empty for none
   */
  public record Ended(
      long run,
      OffsetDateTime startedAt,
      RunOutcome outcome,
      Optional<RunLog.Summary> summary,
      String saidFault) {}

  Runs(
      RunMapper db,
      OpenWorkspaces workspaces,
      Profiles profiles,
      Deployments deployments,
      OwnSaves saves,
      FolderUse use,
      Folders folders,
      Events events,
      Memory memory) {
    this.sums = memory.keepingLittle();
    this.ended = memory.keeping(e -> e.flatMap(Ended::summary).map(Runs::bytes).orElse(0L));
    this.db = db;
    this.profiles = profiles;
    this.deployments = deployments;
    this.saves = saves;
    this.workspaces = workspaces;
    this.use = use;
    this.folders = folders;
    this.events = events;
  }

  /** A run that was going on when the server died is over; nobody knows how it went. */
  @PostConstruct
  void endWhatDied() {
    db.endAll();
  }

  /**
   * Starts the game with the settings and the saves of the profile in use.
   *
   * @throws IroningException with code {@code busy}, {@code no-command} or {@code will-not-start},
   *     or where the profile's saves cannot be put into the folder
   */
  long start(long workspace) {
    return start(workspaces.get(workspace), Optional.empty());
  }

  /**
   * Starts the game on a set that a search tries: the user's list of runs does not have it.
   *
   * @param trial what has just been put into the game folder
   * @param contents by game path, what lies there instead of what the arrangement has
   * @throws IroningException as {@link #start}
   */
  public long startTrial(OpenWorkspace trial, Map<String, byte[]> contents) {
    long run = start(trial, Optional.of(contents));
    db.shortenTrials(trial.workspace(), TRIALS_WHOLE);
    return run;
  }

  private long start(OpenWorkspace open, Optional<Map<String, byte[]>> trial) {
    GameDefinition.Run run =
        open.game()
            .run()
            .orElseThrow(
                () ->
                    IroningException.of(
                        "no-command",
                        open.title(),
                        "The definition of this game does not say how to start it.",
                        "Add run: { command: [ … ] } to its game.yaml."));
    GameFolder.requireFolder(open.gameFolder());
    use.begin(open, Use.RUNNING);
    try {
      return start(open, run, trial);
    } catch (RuntimeException notStarted) {
      use.end(open.workspace());
      throw notStarted;
    }
  }

  private long start(
      OpenWorkspace open, GameDefinition.Run run, Optional<Map<String, byte[]>> trial) {
    UnaryOperator<String> filled =
        text ->
            open.filled(
                text.replace("{game}", open.gameFolder().toString())
                    .replace("{standins}", folders.standins()));
    List<String> command = run.command().stream().map(filled).toList();
    Map<String, String> environment = new TreeMap<>();
    run.environment().forEach((name, value) -> environment.put(name, filled.apply(value)));
    // what lies in the folder is only known where it is as arranged
    boolean asArranged = trial.isPresent() || deployments.distance(open).total() == 0;
    saves.bring(open);
    Optional<FileTime> logBefore = logTime(open, run);
    Program program =
        Program.start(
            command, folder(open, run), environment, "Check the command in the game’s definition.");
    long id =
        db.add(
            open.workspace(),
            open.profile(),
            profiles.written(open.picture().arrangement()),
            trial.isEmpty() && asArranged ? pictureSum(open) : "",
            trial.isPresent());
    Live l = new Live(id, trial, program, new CompletableFuture<>(), new AtomicBoolean());
    live.put(open.workspace(), l);
    Thread listener = new Thread(() -> listen(open, run, l, logBefore), "run-" + id);
    listener.setDaemon(true);
    listener.start();
    events.tell(open.workspace(), "run", Map.of("run", id));
    return id;
  }

  /**
   * Waits until a trial is over.
   *
   * @param most how long it may take; the game is ended after that
   * @param alive asked again and again; what it throws ends the game, and the waiting
   */
  public RunFacts await(long workspace, long run, Duration most, Runnable alive) {
    Live l = live.get(workspace);
    long until = System.nanoTime() + most.toNanos();
    while (l != null && l.run() == run) {
      try {
        l.over().get(BETWEEN_LOOKS.toMillis(), TimeUnit.MILLISECONDS);
        break;
      } catch (TimeoutException goesOn) {
        if (System.nanoTime() > until) cut(l);
        try {
          alive.run();
        } catch (RuntimeException enough) {
          cut(l);
          // until its end is written down the folder is in use
          l.over().join();
          throw enough;
        }
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        cut(l);
        throw new CancellationException();
      } catch (ExecutionException never) {
        throw new IllegalStateException("the end of a run is only told", never);
      }
    }
    return facts(workspace, run).orElseThrow();
  }

  private static void cut(Live l) {
    l.cutOff().set(true);
    l.program().stop();
  }

  /** What is known of a run that is over; empty where there is none, or it goes on. */
  public Optional<RunFacts> facts(long workspace, long run) {
    RunRow row = db.run(workspace, run);
    if (row == null || row.endedAt() == null) return Optional.empty();
    Optional<RunLog.Summary> summary =
        row.log().isBlank()
            ? Optional.empty()
            : Optional.of(RunLog.summarise(row.log().lines().toList()));
    return Optional.of(
        new RunFacts(
            Optional.of(row.exitCode()),
            summary,
            row.saidFault(),
            row.ms() == null
                ? Duration.between(row.startedAt(), row.endedAt()).toMillis()
                : row.ms(),
            row.isCutOff(),
            Optional.ofNullable(row.peakBytes())));
  }

  private static Path folder(OpenWorkspace open, GameDefinition.Run run) {
    if (run.folder().isEmpty()) return open.gameFolder();
    Path folder = open.at(run.folder().get());
    if (Files.isDirectory(folder)) return folder;
    throw IroningException.of(
        "will-not-start",
        folder.toString(),
        "The folder in which the game is started is not there.",
        "Put it back, or name another one in the game’s definition: run, folder.");
  }

  private void listen(
      OpenWorkspace open, GameDefinition.Run run, Live l, Optional<FileTime> logBefore) {
    CompletableFuture<Void> summed =
        l.trial()
            .map(
                contents ->
                    CompletableFuture.runAsync(
                        () -> db.setPicture(l.run(), PictureSum.of(open.picture(), contents))))
            .orElseGet(() -> CompletableFuture.completedFuture(null));
    int code = -1;
    try {
      code =
          l.program()
              .listen(
                  line ->
                      events.tell(
                          open.workspace(), "run-line", Map.of("run", l.run(), "line", line)));
    } catch (IOException e) {
      LOG.warn("the output of run {} broke off: {}", l.run(), e.getMessage());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    } finally {
      Duration took = l.program().age();
      try {
        // of a trial it is summed up while the game runs, which need not wait for that
        summed.join();
        String log = withoutNul(freshLog(open, run, logBefore));
        String output = l.program().output();
        Optional<Duration> loading = RunLog.sinceLastStart(log.lines().toList()).loading();
        db.end(
            l.run(),
            code,
            output,
            log,
            run.faultIn(output).orElse(""),
            l.cutOff().get(),
            took.toMillis(),
            loading.map(Duration::toMillis).orElse(null),
            l.program().peakBytes().orElse(null));
      } finally {
        ended.forget(open.workspace());
        live.remove(open.workspace());
        use.end(open.workspace());
        events.tell(open.workspace(), "run", Map.of("run", l.run()));
        l.over().complete(null);
      }
    }
  }

  // PostgreSQL's text cannot hold U+0000, and a game may write anything
  private static String withoutNul(String text) {
    return text.replace("\u0000", "\uFFFD");
  }

  private static Optional<FileTime> logTime(OpenWorkspace open, GameDefinition.Run run) {
    if (run.log().isEmpty()) return Optional.empty();
    try {
      Path log = open.at(run.log().get());
      return Optional.of(Files.getLastModifiedTime(log));
    } catch (IOException notYet) {
      return Optional.empty();
    }
  }

  /** The log that this run wrote; a log left by an earlier run says nothing of this one. */
  private static String freshLog(
      OpenWorkspace open, GameDefinition.Run run, Optional<FileTime> before) {
    Optional<FileTime> after = logTime(open, run);
    if (after.isEmpty() || after.equals(before)) return "";
    try {
      Path log = open.at(run.log().get());
      if (Files.size(log) > Program.MOST_OUTPUT_CHARS) return "";
      return RunLog.inGame(
          new String(Files.readAllBytes(log), StandardCharsets.UTF_8), open.roots());
    } catch (IOException unreadable) {
      return "";
    }
  }

  /**
   * Arranges the profile as it was when the game was started; one step, which can be undone.
   *
   * @throws IroningException with code {@code not-found} when that was not kept, or of another
   *     profile
   */
  OpenWorkspace arrangeAsIn(long workspace, long run, Expected expected) {
    OpenWorkspace open = workspaces.get(workspace);
    String text = db.arrangement(workspace, run, open.profile());
    if (text == null)
      throw IroningException.of(
          "not-found",
          "Run " + run,
          "How the profile " + open.profileName() + " was arranged then is not known.",
          "Use the profile that it was played with, or choose another run.");
    return workspaces
        .change(
            workspace,
            expected,
            b -> "Went back to what an earlier run was played with",
            b -> profiles.read(b, text))
        .after();
  }

  /** The sum of the present picture; the same one is asked for by every list of runs. */
  String pictureSum(OpenWorkspace open) {
    return sums.of(
            open.workspace(),
            known ->
                known != null && known.picture() == open.picture()
                    ? known
                    : new Summed(open.picture(), PictureSum.of(open.picture())))
        .sum();
  }

  /** Ends the game, kindly first. */
  void stop(long workspace) {
    Live l = live.get(workspace);
    if (l != null) l.program().stop();
  }

  /** Ends a trial that goes on, and waits until all of it is written down. */
  public void stopTrial(long workspace) {
    Live l = live.get(workspace);
    if (l == null || l.trial().isEmpty()) return;
    l.program().stop();
    l.over().join();
  }

  /** Whether a set that a search tries is played now. */
  public boolean goingTrial(long workspace) {
    Live l = live.get(workspace);
    return l != null && l.trial().isPresent();
  }

  /** The run that goes on. */
  Optional<Long> going(long workspace) {
    return Optional.ofNullable(live.get(workspace)).map(Live::run);
  }

  /** The output so far of a run that goes on; empty when it does not. */
  Optional<String> outputSoFar(long workspace, long run) {
    Live l = live.get(workspace);
    boolean goesOn = l != null && l.run() == run;
    return goesOn ? Optional.of(l.program().output()) : Optional.empty();
  }

  private static long bytes(RunLog.Summary summary) {
    return BYTES_OF_A_READ * summary.read().size();
  }

  /** The last run that is over; empty when there was none. */
  public Optional<Ended> lastEnded(long workspace) {
    return ended.of(workspace, () -> Optional.ofNullable(db.lastEnded(workspace)).map(Runs::ended));
  }

  private static Ended ended(RunRow row) {
    Optional<RunLog.Summary> summary =
        row.log().isBlank()
            ? Optional.empty()
            : Optional.of(RunLog.summarise(row.log().lines().toList()));
    RunOutcome outcome = RunOutcome.of(row.exitCode(), summary.isPresent(), row.saidFault());
    return new Ended(row.id(), row.startedAt(), outcome, summary, row.saidFault());
  }

  /** What the last run that is over said; empty when there was none, or it wrote no log. */
  public Optional<RunLog.Summary> lastSummary(long workspace) {
    return lastEnded(workspace).flatMap(Ended::summary);
  }

  @PreDestroy
  void stopAll() {
    live.values().forEach(l -> l.program().stop());
  }

  /** The newest first. */
  List<RunMapper.RunLine> latest(long workspace) {
    return db.latest(workspace);
  }

  /** One run; null where there is none. */
  RunRow run(long workspace, long run) {
    return db.run(workspace, run);
  }

  /** The run before another; null where there is none. */
  RunRow before(long workspace, long run) {
    return db.before(workspace, run);
  }

  /**
   * A run of the user's before another, and how its profile was arranged then.
   *
   * @param arrangement as {@link Profiles#read} takes it
   */
  public record Earlier(long run, OffsetDateTime startedAt, RunFacts facts, String arrangement) {}

  /**
   * The runs of the user's with a profile, the newest first, of which is known how it was arranged.
   */
  public List<Earlier> earlier(long workspace, long profile) {
    return db.arranged(workspace, profile).stream()
        .flatMap(
            r ->
                facts(workspace, r.id()).stream()
                    .map(f -> new Earlier(r.id(), r.startedAt(), f, r.arrangement())))
        .toList();
  }

  /** Whether it is kept how a profile was arranged when a run was started with it. */
  boolean knowsArrangement(long workspace, long run, long profile) {
    return db.arrangement(workspace, run, profile) != null;
  }
}
