package ironing.server.run;

import ironing.core.IroningException;
import ironing.core.deploy.LaidOut;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.run.RunDifference;
import ironing.core.run.RunLog;
import ironing.core.run.RunOutcome;
import ironing.server.deploy.Deployments;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.run.RunMapper.RunLine;
import ironing.server.run.RunMapper.RunRow;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/runs")
class RunController {
  private static final int FILES_SHOWN = 200;
  private final Runs runs;
  private final RunMapper db;
  private final Workbenches benches;
  private final Deployments deployments;

  RunController(Runs runs, RunMapper db, Workbenches benches, Deployments deployments) {
    this.runs = runs;
    this.db = db;
    this.benches = benches;
    this.deployments = deployments;
  }

  /** Where a run stands. */
  enum RunState {
    RUNNING,
    /** Played to its end. */
    PLAYED,
    /** Ended with code 0, and what it read cannot be told. */
    ENDED,
    STOPPED
  }

  /**
   * A value that the game reported.
   *
   * @param before what the run before this one reported under this name, absent when nothing
   */
  record RunReport(
      String name, String value, String unit, String from, @MayBeAbsent String before) {}

  /**
   * @param mod whose file it is, as far as the note of what is deployed tells
   */
  record RunFault(
      String code,
      String text,
      String path,
      String plugin,
      String record,
      @MayBeAbsent Long mod,
      @MayBeAbsent String modName) {}

  record RunView(
      long id,
      String startedAt,
      @MayBeAbsent String endedAt,
      RunState state,
      @MayBeAbsent Integer exitCode,
      boolean sameSet) {}

  /**
   * What the last run read of a mod.
   *
   * @param files of it that lie in the game folder now; {@code read} of these, those of the run
   */
  record ReadOfMod(long mod, String name, int files, int read) {}

  /**
   * A plugin in the run.
   *
   * @param slot absent where this run did not read it; {@code before} likewise for the one before
   */
  record ReadPlugin(String name, @MayBeAbsent Integer slot, @MayBeAbsent Integer before) {}

  /**
   * A file that this run read otherwise than the one before.
   *
   * @param kind COME where only this one read it, GONE where only that one did
   */
  record ReadFile(String path, RunDifference.Kind kind) {}

  /**
   * @param told whether the game wrote a log; without one, what it read cannot be told
   * @param comparedWith the run whose values are shown as before
   * @param picture the SHA-256 of all that lay in the folder; absent where that was not as arranged
   * @param sameSet whether the game would read the same now
   * @param arrangeable whether the profile in use can be arranged as it was then
   * @param mods what it read of each mod that is deployed now
   * @param plugins in the order of their slots
   * @param files the first of those that it read otherwise than the run before; {@code otherwise}
   *     counts all
   */
  record RunDetail(
      long id,
      String startedAt,
      @MayBeAbsent String endedAt,
      RunState state,
      @MayBeAbsent Integer exitCode,
      boolean told,
      String output,
      int filesRead,
      int pluginsRead,
      @MayBeAbsent Long comparedWith,
      List<RunReport> reports,
      List<RunFault> warnings,
      @MayBeAbsent RunFault fault,
      @MayBeAbsent String picture,
      boolean sameSet,
      boolean arrangeable,
      List<ReadOfMod> mods,
      List<ReadPlugin> plugins,
      List<ReadFile> files,
      int otherwise) {}

  record RunStarted(long run) {}

  /** The revision after going back to what a run was played with. */
  record RunReturned(long revision) {}

  /**
   * @param startable whether the definition says how to start the game
   * @param runs the last twenty, the newest first
   */
  record RunsView(boolean startable, List<RunView> runs) {}

  /** Starts the game on what is deployed. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  RunStarted startRun(@PathVariable long workspace) {
    return new RunStarted(runs.start(workspace));
  }

  /** The runs of the game, the newest first. */
  @GetMapping
  RunsView runs(@PathVariable long workspace) {
    boolean startable = benches.game(workspace).run().isPresent();
    Optional<Long> going = runs.going(workspace);
    Bench bench = benches.get(workspace);
    List<RunLine> latest = db.latest(workspace);
    boolean asked = latest.stream().anyMatch(r -> !r.picture().isEmpty());
    String now = asked ? runs.pictureSum(bench) : "";
    List<RunView> views = latest.stream().map(r -> view(going, now, r)).toList();
    return new RunsView(startable, views);
  }

  private RunView view(Optional<Long> going, String now, RunLine r) {
    boolean goesOn = going.filter(g -> g == r.id()).isPresent();
    RunState state = state(goesOn, r.endedAt(), r.exitCode(), r.logged(), r.saidFault());
    return new RunView(
        r.id(),
        r.startedAt().toString(),
        text(r.endedAt()),
        state,
        r.exitCode(),
        !r.picture().isEmpty() && r.picture().equals(now));
  }

  private static RunState state(
      boolean goesOn, OffsetDateTime endedAt, Integer exitCode, boolean logged, String saidFault) {
    if (endedAt == null && goesOn) return RunState.RUNNING;
    return RunState.valueOf(RunOutcome.of(exitCode, logged, saidFault).name());
  }

  private static String text(OffsetDateTime time) {
    return time == null ? null : time.toString();
  }

  /** One run of the game, with what it read and printed. */
  @GetMapping("/{run}")
  RunDetail run(@PathVariable long workspace, @PathVariable long run) {
    Bench bench = benches.get(workspace);
    // whether it goes on is asked first: of a run that does not, all is written down by then
    Optional<String> soFar = runs.outputSoFar(workspace, run);
    RunRow row = db.run(workspace, run);
    if (row == null) {
      throw IroningException.of(
          "not-found", "Run " + run, "There is no such run.", "Choose one from the list.");
    }
    RunRow earlier = db.before(workspace, run);
    RunLog.Summary s = RunLog.summarise(row.log().lines().toList());
    Map<String, String> before = new HashMap<>();
    Optional<RunLog.Summary> compared =
        Optional.ofNullable(earlier).map(e -> RunLog.summarise(e.log().lines().toList()));
    compared.ifPresent(c -> c.reports().forEach(r -> before.put(r.name(), r.value())));
    Optional<RunDifference> difference = compared.map(c -> RunDifference.between(c, s));
    boolean kept = !row.picture().isEmpty();
    Map<String, LaidOut.Item> whose = whose(bench);
    return new RunDetail(
        row.id(),
        row.startedAt().toString(),
        text(row.endedAt()),
        state(
            soFar.isPresent(),
            row.endedAt(),
            row.exitCode(),
            !row.log().isBlank(),
            row.saidFault()),
        row.exitCode(),
        !row.log().isBlank(),
        row.endedAt() == null ? soFar.orElse(row.output()) : row.output(),
        s.read().size(),
        s.plugins().size(),
        earlier == null ? null : earlier.id(),
        s.reports().stream()
            .map(r -> new RunReport(r.name(), r.value(), r.unit(), r.from(), before.get(r.name())))
            .toList(),
        s.warnings().stream().map(f -> fault(bench, whose, f)).toList(),
        s.fault().map(f -> fault(bench, whose, f)).orElse(said(row.saidFault())),
        kept ? row.picture() : null,
        kept && row.picture().equals(runs.pictureSum(bench)),
        db.arrangement(workspace, run, bench.profile()) != null,
        ofMods(bench, s),
        plugins(compared.map(RunLog.Summary::plugins).orElse(Map.of()), s),
        difference.map(RunController::files).orElse(List.of()),
        difference.map(d -> d.files().size()).orElse(0));
  }

  private static RunFault said(String fault) {
    return fault.isEmpty() ? null : new RunFault("said", fault, "", "", "", null, null);
  }

  private List<ReadOfMod> ofMods(Bench bench, RunLog.Summary s) {
    Set<String> read = new HashSet<>();
    s.read().keySet().forEach(p -> read.add(bench.game().pathCase().key(p)));
    Map<Long, int[]> counts = new TreeMap<>();
    for (LaidOut.Item i : deployments.laidOut(bench).files().values()) {
      if (i.mod() == 0) continue;
      int[] c = counts.computeIfAbsent(i.mod(), m -> new int[2]);
      c[0]++;
      if (read.contains(bench.game().pathCase().key(i.path()))) c[1]++;
    }
    List<ReadOfMod> mods = new ArrayList<>();
    for (Arrangement.Layer l : bench.picture().arrangement().layers()) {
      int[] c = counts.get(l.mod());
      if (c != null) mods.add(new ReadOfMod(l.mod(), bench.nameOf(l.mod()), c[0], c[1]));
    }
    return mods;
  }

  private static List<ReadPlugin> plugins(Map<String, Integer> before, RunLog.Summary s) {
    List<ReadPlugin> plugins = new ArrayList<>();
    s.plugins().forEach((name, slot) -> plugins.add(new ReadPlugin(name, slot, before.get(name))));
    before.forEach(
        (name, slot) -> {
          if (!s.plugins().containsKey(name)) plugins.add(new ReadPlugin(name, null, slot));
        });
    return plugins;
  }

  private static List<ReadFile> files(RunDifference d) {
    return d.files().stream()
        .limit(FILES_SHOWN)
        .map(c -> new ReadFile(c.path(), c.kind()))
        .toList();
  }

  /** Arranges the profile as it was when the game was started. */
  @PostMapping("/{run}/return")
  ResponseEntity<RunReturned> returnToRun(
      @PathVariable long workspace,
      @PathVariable long run,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Bench bench = runs.arrangeAsIn(workspace, run, Expected.of(ifMatch));
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(new RunReturned(bench.revision()));
  }

  private Map<String, LaidOut.Item> whose(Bench bench) {
    Map<String, LaidOut.Item> items = new HashMap<>();
    for (LaidOut.Item i : deployments.laidOut(bench).files().values()) {
      if (i.mod() == 0) continue;
      items.put(bench.game().pathCase().key(i.path()), i);
      // a plugin that never got into the folder is known by its name alone
      if (bench.game().isPlugin(i.path())) {
        items.put("plugin " + PathCase.fold(GamePath.name(i.path())), i);
      }
    }
    return items;
  }

  private static RunFault fault(Bench bench, Map<String, LaidOut.Item> whose, RunLog.Fault f) {
    Optional<LaidOut.Item> item =
        Optional.ofNullable(whose.get(bench.game().pathCase().key(f.path())))
            .or(() -> Optional.ofNullable(whose.get("plugin " + PathCase.fold(f.plugin()))));
    return new RunFault(
        f.code(),
        f.text(),
        f.path(),
        f.plugin(),
        f.record(),
        item.map(LaidOut.Item::mod).orElse(null),
        item.map(LaidOut.Item::from).orElse(null));
  }

  /** Stops the game if it is running. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void stopRun(@PathVariable long workspace) {
    runs.stop(workspace);
  }
}
