package ironing.server.tools;

import ironing.core.IroningException;
import ironing.server.deploy.Deployments;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.mends.ToolOutput;
import ironing.server.platform.Json;
import ironing.server.platform.MayBeAbsent;
import ironing.server.tools.ToolMapper.ToolRunRow;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/tools")
class ToolsController {
  private final Tools tools;
  private final ToolRuns runs;
  private final ToolOutput outputs;
  private final Deployments deployments;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;
  private final Json json;

  ToolsController(
      Tools tools,
      ToolRuns runs,
      ToolOutput outputs,
      Deployments deployments,
      OpenWorkspaces workspaces,
      Jobs jobs,
      Json json) {
    this.tools = tools;
    this.runs = runs;
    this.outputs = outputs;
    this.deployments = deployments;
    this.workspaces = workspaces;
    this.jobs = jobs;
    this.json = json;
  }

  /**
   * A tool as it is to be.
   *
   * @param command the program, then its arguments, each for itself
   * @param folder in which it starts; empty for the game folder
   */
  record ToolRequest(
      String name,
      List<String> command,
      @MayBeAbsent String folder,
      @MayBeAbsent Map<String, String> environment,
      @MayBeAbsent List<String> reads,
      @MayBeAbsent List<String> writes) {
    Tool tool(long id) {
      return new Tool(
          id,
          name,
          command,
          folder == null ? "" : folder,
          environment == null ? Map.of() : environment,
          reads == null ? List.of() : reads,
          writes == null ? List.of() : writes);
    }
  }

  /** How a run of a tool ended. */
  enum ToolRunState {
    RUNNING,
    DONE,
    FAILED,
    STOPPED
  }

  record ToolRunLine(
      long id,
      String beganAt,
      @MayBeAbsent String endedAt,
      ToolRunState state,
      @MayBeAbsent Integer exitCode,
      int taken) {}

  /**
   * @param output the mod that holds what it wrote; absent before it has written anything
   * @param stale why running it again might give another output, in words
   * @param waitsFor why it cannot be run now, in words
   * @param last its last run
   */
  record ToolView(
      long id,
      String name,
      List<String> command,
      String folder,
      Map<String, String> environment,
      List<String> reads,
      List<String> writes,
      @MayBeAbsent Long output,
      List<String> stale,
      List<String> waitsFor,
      @MayBeAbsent ToolRunLine last) {}

  /**
   * @param taken game paths of what was taken in
   * @param beside what it wrote beside them; {@code removed} what it removed
   * @param why nothing was taken in, in words; empty otherwise
   */
  record ToolRunDetail(
      long id,
      long tool,
      String beganAt,
      @MayBeAbsent String endedAt,
      ToolRunState state,
      @MayBeAbsent Integer exitCode,
      String output,
      List<String> taken,
      List<String> beside,
      List<String> removed,
      String why) {}

  record ToolMade(long tool) {}

  /** The programs that work on the deployed game. */
  @GetMapping
  List<ToolView> tools(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Map<Long, ToolRunRow> last = new HashMap<>();
    tools.lastRuns(workspace).forEach(r -> last.put(r.toolId(), r));
    return tools.all(workspace).stream()
        .map(
            t ->
                new ToolView(
                    t.id(),
                    t.name(),
                    t.command(),
                    t.folder(),
                    t.environment(),
                    t.reads(),
                    t.writes(),
                    outputs.modOf(open, t.id()).orElse(null),
                    outputs.stale(open, t.id()),
                    runs.waitsFor(open, t),
                    last.containsKey(t.id()) ? line(last.get(t.id())) : null))
        .toList();
  }

  private ToolRunLine line(ToolRunRow r) {
    int taken = json.read(r.taken(), String[].class).length;
    return new ToolRunLine(
        r.id(), r.beganAt().toString(), text(r.endedAt()), state(r), r.exitCode(), taken);
  }

  private static String text(OffsetDateTime time) {
    return time == null ? null : time.toString();
  }

  private static ToolRunState state(ToolRunRow r) {
    if (r.endedAt() == null) return ToolRunState.RUNNING;
    if (r.exitCode() == null) return ToolRunState.STOPPED;
    return r.exitCode() == 0 ? ToolRunState.DONE : ToolRunState.FAILED;
  }

  /** Adds a program. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  ToolMade addTool(@PathVariable long workspace, @RequestBody ToolRequest wish) {
    long id = tools.add(workspaces.get(workspace), wish.tool(0));
    deployments.forget(workspace);
    return new ToolMade(id);
  }

  /** Changes what is known of a program. */
  @PutMapping("/{tool}")
  ToolMade changeTool(
      @PathVariable long workspace, @PathVariable long tool, @RequestBody ToolRequest wish) {
    tools.change(workspaces.get(workspace), wish.tool(tool));
    deployments.forget(workspace);
    return new ToolMade(tool);
  }

  /** Forgets a tool; the mod with what it wrote stays. */
  @DeleteMapping("/{tool}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeTool(@PathVariable long workspace, @PathVariable long tool) {
    tools.remove(workspace, tool);
    deployments.forget(workspace);
  }

  /**
   * Runs a tool on the deployed game, takes in what it wrote, and deploys that. Cancelling the job
   * stops it.
   */
  @PostMapping("/{tool}/run")
  ResponseEntity<Job> runTool(
      @PathVariable long workspace,
      @PathVariable long tool,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, runs.run(workspace, tool), prefer);
  }

  /** The last runs of a tool, the newest first. */
  @GetMapping("/{tool}/runs")
  List<ToolRunLine> toolRuns(@PathVariable long workspace, @PathVariable long tool) {
    tools.require(workspace, tool);
    return tools.runs(workspace, tool).stream().map(this::line).toList();
  }

  /** One run of a program, with what it printed. */
  @GetMapping("/runs/{run}")
  ToolRunDetail toolRun(@PathVariable long workspace, @PathVariable long run) {
    // whether it goes on is asked first: of a run that does not, all is written down by then
    String soFar = runs.outputSoFar(workspace, run).orElse(null);
    ToolRunRow r = tools.run(workspace, run);
    if (r == null)
      throw IroningException.of(
          "not-found", "Run " + run, "There is no such run.", "Choose one from the list.");
    return new ToolRunDetail(
        r.id(),
        r.toolId(),
        r.beganAt().toString(),
        text(r.endedAt()),
        state(r),
        r.exitCode(),
        r.endedAt() == null && soFar != null ? soFar : r.output(),
        List.of(json.read(r.taken(), String[].class)),
        List.of(json.read(r.beside(), String[].class)),
        List.of(json.read(r.removed(), String[].class)),
        r.why());
  }
}
