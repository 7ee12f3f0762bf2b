package ironing.server.run;

import ironing.core.IroningException;
import ironing.core.deploy.LaidOut;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.run.RunLog;
import ironing.server.deploy.Deployments;
import ironing.server.platform.MayBeAbsent;
import ironing.server.run.RunMapper.RunLine;
import ironing.server.run.RunMapper.RunRow;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/runs")
class RunController {
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
      @MayBeAbsent Integer exitCode) {}

  /**
   * @param told whether the game wrote a log; without one, what it read cannot be told
   * @param comparedWith the run whose values are shown as before
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
      @MayBeAbsent RunFault fault) {}

  record RunStarted(long run) {}

  /**
   * @param startable whether the definition says how to start the game
   * @param runs the last twenty, the newest first
   */
  record RunsView(boolean startable, List<RunView> runs) {}

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  RunStarted startRun(@PathVariable long workspace) {
    return new RunStarted(runs.start(workspace));
  }

  @GetMapping
  RunsView runs(@PathVariable long workspace) {
    boolean startable = benches.game(workspace).run().isPresent();
    Optional<Long> going = runs.going(workspace);
    List<RunView> views = db.latest(workspace).stream().map(r -> view(going, r)).toList();
    return new RunsView(startable, views);
  }

  private RunView view(Optional<Long> going, RunLine r) {
    boolean goesOn = going.filter(g -> g == r.id()).isPresent();
    RunState state = state(goesOn, r.endedAt(), r.exitCode());
    return new RunView(r.id(), r.startedAt().toString(), text(r.endedAt()), state, r.exitCode());
  }

  private static RunState state(boolean goesOn, OffsetDateTime endedAt, Integer exitCode) {
    if (endedAt == null && goesOn) return RunState.RUNNING;
    return exitCode != null && exitCode == 0 ? RunState.PLAYED : RunState.STOPPED;
  }

  private static String text(OffsetDateTime time) {
    return time == null ? null : time.toString();
  }

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
    if (earlier != null) {
      RunLog.summarise(earlier.log().lines().toList())
          .reports()
          .forEach(r -> before.put(r.name(), r.value()));
    }
    Map<String, LaidOut.Item> whose = whose(bench);
    return new RunDetail(
        row.id(),
        row.startedAt().toString(),
        text(row.endedAt()),
        state(soFar.isPresent(), row.endedAt(), row.exitCode()),
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
        s.fault().map(f -> fault(bench, whose, f)).orElse(null));
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
