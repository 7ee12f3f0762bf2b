package ironing.server.testrun;

import ironing.core.IroningException;
import ironing.core.deploy.LaidOut;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.testrun.RunDifference;
import ironing.core.testrun.RunLog;
import ironing.server.deploy.Deployments;
import ironing.server.platform.Revision;
import ironing.server.testrun.RunCosts.RunCost;
import ironing.server.testrun.RunMapper.RunLine;
import ironing.server.testrun.RunMapper.RunRow;
import ironing.server.testrun.RunViews.ReadOfMod;
import ironing.server.testrun.RunViews.RunDetail;
import ironing.server.testrun.RunViews.RunReport;
import ironing.server.testrun.RunViews.RunReturned;
import ironing.server.testrun.RunViews.RunStarted;
import ironing.server.testrun.RunViews.RunState;
import ironing.server.testrun.RunViews.RunView;
import ironing.server.testrun.RunViews.RunsView;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
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
  private final Runs runs;
  private final RunCosts costs;
  private final OpenWorkspaces workspaces;
  private final Deployments deployments;

  RunController(Runs runs, RunCosts costs, OpenWorkspaces workspaces, Deployments deployments) {
    this.runs = runs;
    this.costs = costs;
    this.workspaces = workspaces;
    this.deployments = deployments;
  }

  /** Starts the game on what is deployed. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  RunStarted startRun(@PathVariable long workspace) {
    return new RunStarted(runs.start(workspace));
  }

  /** The runs of the game, the newest first. */
  @GetMapping
  RunsView runs(@PathVariable long workspace) {
    boolean startable = workspaces.game(workspace).run().isPresent();
    Optional<Long> going = runs.going(workspace);
    OpenWorkspace open = workspaces.get(workspace);
    List<RunLine> latest = runs.latest(workspace);
    boolean asked = latest.stream().anyMatch(r -> !r.picture().isEmpty());
    String now = asked ? runs.pictureSum(open) : "";
    List<RunView> views = latest.stream().map(r -> view(going, now, r)).toList();
    return new RunsView(startable, views);
  }

  private RunView view(Optional<Long> going, String now, RunLine r) {
    boolean goesOn = going.filter(g -> g == r.id()).isPresent();
    RunState state = RunViews.state(goesOn, r.endedAt(), r.exitCode(), r.logged(), r.saidFault());
    return new RunView(
        r.id(),
        r.startedAt().toString(),
        RunViews.text(r.endedAt()),
        state,
        r.exitCode(),
        !r.picture().isEmpty() && r.picture().equals(now));
  }

  /** One run of the game, with what it read and printed. */
  @GetMapping("/{run}")
  RunDetail run(@PathVariable long workspace, @PathVariable long run) {
    OpenWorkspace open = workspaces.get(workspace);
    // whether it goes on is asked first: of a run that does not, all is written down by then
    Optional<String> soFar = runs.outputSoFar(workspace, run);
    RunRow row = runs.run(workspace, run);
    if (row == null) {
      throw IroningException.of(
          "not-found", "Run " + run, "There is no such run.", "Choose one from the list.");
    }
    RunRow earlier = runs.before(workspace, run);
    RunLog.Summary s = RunLog.summarise(row.log().lines().toList());
    Map<String, String> before = new HashMap<>();
    Optional<RunLog.Summary> compared =
        Optional.ofNullable(earlier).map(e -> RunLog.summarise(e.log().lines().toList()));
    compared.ifPresent(c -> c.reports().forEach(r -> before.put(r.name(), r.value())));
    Optional<RunDifference> difference = compared.map(c -> RunDifference.between(c, s));
    boolean kept = !row.picture().isEmpty();
    Map<String, LaidOut.Item> whose = whose(open);
    return new RunDetail(
        row.id(),
        row.startedAt().toString(),
        RunViews.text(row.endedAt()),
        RunViews.state(
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
        s.warnings().stream().map(f -> RunViews.fault(open, whose, f)).toList(),
        s.fault().map(f -> RunViews.fault(open, whose, f)).orElse(RunViews.said(row.saidFault())),
        kept ? row.picture() : null,
        kept && row.picture().equals(runs.pictureSum(open)),
        runs.knowsArrangement(workspace, run, open.profile()),
        ofMods(open, s),
        RunViews.plugins(compared.map(RunLog.Summary::plugins).orElse(Map.of()), s),
        difference.map(RunViews::files).orElse(List.of()),
        difference.map(d -> d.files().size()).orElse(0));
  }

  private List<ReadOfMod> ofMods(OpenWorkspace open, RunLog.Summary s) {
    Set<String> read = new HashSet<>();
    s.read().keySet().forEach(p -> read.add(open.game().pathCase().key(p)));
    Map<Long, int[]> counts = new TreeMap<>();
    for (LaidOut.Item i : deployments.laidOut(open).files().values()) {
      if (i.mod() == 0) continue;
      int[] c = counts.computeIfAbsent(i.mod(), m -> new int[2]);
      c[0]++;
      if (read.contains(open.game().pathCase().key(i.path()))) c[1]++;
    }
    List<ReadOfMod> mods = new ArrayList<>();
    for (Arrangement.Layer l : open.picture().arrangement().layers()) {
      int[] c = counts.get(l.mod());
      if (c != null) mods.add(new ReadOfMod(l.mod(), open.nameOf(l.mod()), c[0], c[1]));
    }
    return mods;
  }

  /** What a run and those before it have cost, the newest first. */
  @GetMapping("/{run}/costs")
  List<RunCost> costs(@PathVariable long workspace, @PathVariable long run) {
    return costs.of(workspaces.get(workspace), run);
  }

  /** Arranges the profile as it was when the game was started. */
  @PostMapping("/{run}/return")
  ResponseEntity<RunReturned> returnToRun(
      @PathVariable long workspace,
      @PathVariable long run,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = runs.arrangeAsIn(workspace, run, Expected.of(ifMatch));
    return ResponseEntity.ok()
        .eTag(Revision.etag(open.revision()))
        .body(new RunReturned(open.revision()));
  }

  private Map<String, LaidOut.Item> whose(OpenWorkspace open) {
    Map<String, LaidOut.Item> items = new HashMap<>();
    for (LaidOut.Item i : deployments.laidOut(open).files().values()) {
      if (i.mod() == 0) continue;
      items.put(open.game().pathCase().key(i.path()), i);
      // a plugin that never got into the folder is known by its name alone
      if (open.game().isPlugin(i.path())) {
        items.put("plugin " + PathCase.fold(GamePath.name(i.path())), i);
      }
    }
    return items;
  }

  /** Stops the game if it is running. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void stopRun(@PathVariable long workspace) {
    runs.stop(workspace);
  }
}
