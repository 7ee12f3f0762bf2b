package ironing.server.run;

import ironing.core.IroningException;
import ironing.core.deploy.LaidOut;
import ironing.core.path.GamePath;
import ironing.core.run.RunLog;
import ironing.server.deploy.Deployments;
import ironing.server.run.RunMapper.RunRow;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import jakarta.annotation.Nullable;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
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

  record RunReport(String name, String value, String unit, String from, @Nullable String before) {}

  /**
   * @param mod whose file it is, as far as the note of what is deployed tells
   */
  record RunFault(
      String code,
      String text,
      String path,
      String plugin,
      String record,
      @Nullable Long mod,
      @Nullable String modName) {}

  /**
   * @param state RUNNING, PLAYED (code 0) or STOPPED
   * @param told whether the game wrote a log; without one, what it read cannot be told
   * @param reports with the value of the run before, where it differs or was there
   */
  record Run(
      long id,
      String startedAt,
      @Nullable String endedAt,
      String state,
      @Nullable Integer exitCode,
      boolean told,
      String output,
      int filesRead,
      List<RunReport> reports,
      List<RunFault> warnings,
      @Nullable RunFault fault) {}

  record RunStarted(long run) {}

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  RunStarted startRun(@PathVariable long workspace) {
    return new RunStarted(runs.start(workspace));
  }

  /** The last twenty, the newest first. */
  @GetMapping
  List<Run> runs(@PathVariable long workspace) {
    List<RunRow> rows = db.latest(workspace);
    return IntStream.range(0, rows.size())
        .mapToObj(i -> run(workspace, rows.get(i), i + 1 < rows.size() ? rows.get(i + 1) : null))
        .toList();
  }

  @GetMapping("/{run}")
  Run run(@PathVariable long workspace, @PathVariable long run) {
    RunRow row = db.run(workspace, run);
    if (row == null)
      throw IroningException.of(
          "not-found", "Run " + run, "There is no such run.", "Choose one from the list.");
    return run(workspace, row, null);
  }

  /** Stops the game if it is running. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void stopRun(@PathVariable long workspace) {
    runs.stop(workspace);
  }

  private Run run(long workspace, RunRow row, @Nullable RunRow earlier) {
    Bench bench = benches.get(workspace);
    RunLog.Summary s = RunLog.summarise(row.log().lines().toList());
    List<RunLog.Report> before =
        earlier == null ? List.of() : RunLog.summarise(earlier.log().lines().toList()).reports();
    String output = runs.outputSoFar(workspace, row.id()).orElse(row.output());
    boolean running = row.endedAt() == null && runs.outputSoFar(workspace, row.id()).isPresent();
    String state =
        running ? "RUNNING" : row.exitCode() != null && row.exitCode() == 0 ? "PLAYED" : "STOPPED";
    List<RunReport> reports =
        s.reports().stream()
            .map(r -> new RunReport(r.name(), r.value(), r.unit(), r.from(), was(r, before)))
            .toList();
    return new Run(
        row.id(),
        row.startedAt().toString(),
        row.endedAt() == null ? null : row.endedAt().toString(),
        state,
        row.exitCode(),
        !row.log().isBlank(),
        output,
        s.read().size(),
        reports,
        s.warnings().stream().map(f -> fault(bench, f)).toList(),
        s.fault().map(f -> fault(bench, f)).orElse(null));
  }

  private static String was(RunLog.Report now, List<RunLog.Report> before) {
    return before.stream()
        .filter(r -> r.name().equals(now.name()))
        .map(RunLog.Report::value)
        .findFirst()
        .orElse(null);
  }

  private RunFault fault(Bench bench, RunLog.Fault f) {
    Optional<LaidOut.Item> item =
        Optional.ofNullable(deployments.laidOut(bench).files().get(f.path()));
    // a plugin that never got into the folder is known by its name alone
    if (item.isEmpty() && !f.plugin().isEmpty()) {
      item =
          deployments.laidOut(bench).files().values().stream()
              .filter(i -> GamePath.name(i.path()).equalsIgnoreCase(f.plugin()))
              .findFirst();
    }
    return new RunFault(
        f.code(),
        f.text(),
        f.path(),
        f.plugin(),
        f.record(),
        item.map(LaidOut.Item::mod).filter(m -> m != 0).orElse(null),
        item.map(LaidOut.Item::from).orElse(null));
  }
}
