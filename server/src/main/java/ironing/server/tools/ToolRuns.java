package ironing.server.tools;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.game.GameFolder;
import ironing.core.game.GameFolder.Glance;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.path.PathPattern;
import ironing.server.deploy.Deployments;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.ModStore;
import ironing.server.mends.ToolOutput;
import ironing.server.mends.ToolOutput.Read;
import ironing.server.platform.Events;
import ironing.server.platform.Json;
import ironing.server.process.Program;
import ironing.server.tools.ToolMapper.ToolRunRow;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.FolderUse.Use;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.annotation.PostConstruct;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Function;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * Runs tools on deployed games, one at a time for a workspace, and takes in what they wrote.
 *
 * <p>Order of it: what the tool wrote is flushed into the library as a mend first; only then it is
 * removed from the game folder, and comes back there by deploying. A crash in between leaves the
 * files in both places, and the folder's check tells of them.
 */
@Component
class ToolRuns {
  private static final long POLL_MS = 150;
  private final ToolMapper db;
  private final Tools tools;
  private final ToolOutput outputs;
  private final ModStore mods;
  private final Deployments deployments;
  private final OpenWorkspaces workspaces;
  private final FolderUse use;
  private final Jobs jobs;
  private final Events events;
  private final Json json;
  private final Map<Long, Live> live = new ConcurrentHashMap<>();

  private record Live(long run, long tool, Program program) {}

  ToolRuns(
      ToolMapper db,
      Tools tools,
      ToolOutput outputs,
      ModStore mods,
      Deployments deployments,
      OpenWorkspaces workspaces,
      FolderUse use,
      Jobs jobs,
      Events events,
      Json json) {
    this.db = db;
    this.tools = tools;
    this.outputs = outputs;
    this.mods = mods;
    this.deployments = deployments;
    this.workspaces = workspaces;
    this.use = use;
    this.jobs = jobs;
    this.events = events;
    this.json = json;
  }

  @PostConstruct
  void endWhatDied() {
    db.endAll("Ironing ended while it ran; what it wrote until then lies in the game folder.");
  }

  @PreDestroy
  void stopAll() {
    live.values().forEach(l -> l.program().stop());
  }

  /** Why a tool cannot be run now, in words; empty when it can. */
  List<String> waitsFor(OpenWorkspace open, Tool tool) {
    List<String> why = new ArrayList<>();
    tools.missing(open, tool).ifPresent(why::add);
    if (!Files.isDirectory(open.gameFolder())) why.add("The game folder is not there.");
    else if (deployments.distance(open).total() > 0)
      why.add("The game folder is not as you arranged it; a tool would see another game.");
    else
      unkept(open, tool)
          .ifPresent(
              path ->
                  why.add(
                      "It writes to "
                          + path
                          + " of the game’s own, which is kept safe only once a mod is deployed."));
    return why;
  }

  /** A file of the game's own that it may write to and that is not kept: the only copy of it. */
  private Optional<String> unkept(OpenWorkspace open, Tool tool) {
    List<PathPattern> writes = PathPattern.all(tool.writes(), open.game().pathCase());
    Set<String> kept = deployments.laidOut(open).files().keySet();
    Holdings holdings = open.picture().holdings();
    for (int p = 0; p < holdings.pathCount(); p++) {
      String path = holdings.path(p);
      if (!open.game().anyMatches(writes, path) || open.game().isProtected(path)) continue;
      int slot = holdings.slotOfMod(p, Holdings.GAME);
      if (slot < 0 || holdings.holderAt(slot).pack().isPresent()) continue;
      if (!kept.contains(open.picture().spelling().of(p))) return Optional.of(path);
    }
    return Optional.empty();
  }

  /**
   * Runs a tool.
   *
   * @throws IroningException with code {@code tool-not-ready} or {@code busy}
   */
  Job run(long workspace, long id) {
    OpenWorkspace open = workspaces.get(workspace);
    Tool tool = tools.require(workspace, id);
    requireReady(open, tool);
    use.requireStill(open);
    return jobs.startWaiting(
        workspace,
        Lane.GAME,
        "tool",
        "Run " + tool.name(),
        p -> run(workspaces.get(workspace), id, p));
  }

  private void requireReady(OpenWorkspace open, Tool tool) {
    List<String> why = waitsFor(open, tool);
    if (why.isEmpty()) return;
    throw IroningException.of(
        "tool-not-ready",
        tool.name(),
        String.join(" ", why),
        deployments.distance(open).total() > 0
            ? "Deploy first, then run it."
            : "See that its program and its folder are there.");
  }

  /** What became of the files while a tool ran. */
  private record Change(Set<String> written, Set<String> removed) {}

  private Long run(OpenWorkspace open, long id, Jobs.Progress progress) throws Exception {
    Tool tool = tools.require(open.workspace(), id);
    requireReady(open, tool);
    GameFolder.requireFolder(open.gameFolder());
    long run;
    boolean any;
    // until its output is back in the folder nobody else comes in: the game would miss those files
    use.begin(open, Use.TOOL);
    try (ModStore.WorkFolder work = mods.workFolder(open.workspace())) {
      Outcome outcome;
      try {
        outcome = ran(open, tool, work.path(), progress);
      } finally {
        live.remove(open.workspace());
      }
      run = outcome.row().id();
      any = !outcome.taken().isEmpty() || !outcome.gone().isEmpty();
      boolean kept = false;
      try {
        if (any) take(open, tool, outcome);
        kept = true;
      } finally {
        db.end(kept ? outcome.row() : notTaken(outcome.row()));
        events.tell(open.workspace(), "tools", Map.of("tool", id));
      }
      // what was taken in comes back into the folder as a deployed file, be it the same as before
      if (any) deployments.deployNow(open.workspace(), progress);
    } finally {
      use.end(open.workspace());
      events.tell(open.workspace(), "tools", Map.of("tool", id));
    }
    return run;
  }

  /** A run whose output the library could not take: it lies in the game folder. */
  private ToolRunRow notTaken(ToolRunRow r) {
    return new ToolRunRow(
        r.id(),
        r.toolId(),
        null,
        null,
        r.exitCode(),
        r.output(),
        json.write(List.of()),
        r.taken(),
        r.removed(),
        "What it wrote could not be taken in, and lies in the game folder.");
  }

  /**
   * A run that is over, and what of it is to be taken in.
   *
   * @param taken game path to where it lies
   * @param gone of its output, what it removed
   */
  private record Outcome(ToolRunRow row, Read read, Map<String, Path> taken, Set<String> gone) {}

  private Outcome ran(OpenWorkspace open, Tool tool, Path work, Jobs.Progress progress)
      throws IOException, InterruptedException {
    Path output = Files.createDirectories(work.resolve("output"));
    Read read = outputs.read(open, tool.id(), tool.reads());
    Map<String, Glance> before = GameFolder.glance(open.roots());
    Function<String, String> filling = tools.filling(open, output);
    Map<String, String> environment = new TreeMap<>();
    tool.environment().forEach((k, v) -> environment.put(k, filling.apply(v)));
    Program program =
        Program.start(
            tool.command().stream().map(filling).toList(),
            tools.startFolder(open, tool, output),
            environment,
            "Check its program and its folder, in Tools.");
    long run = db.begin(tool.id());
    live.put(open.workspace(), new Live(run, tool.id(), program));
    events.tell(open.workspace(), "tools", Map.of("tool", tool.id()));
    int code;
    try {
      code = listened(open, run, program, progress);
    } catch (CancellationException | InterruptedException | IOException stopped) {
      program.stop();
      Change change = change(open, before);
      db.end(
          row(
              run,
              tool,
              null,
              program,
              List.of(),
              change,
              "It was stopped; nothing was taken in."));
      throw stopped;
    }
    Change change = change(open, before);
    if (code != 0) {
      String why = "It ended with exit code " + code + "; nothing was taken in.";
      return new Outcome(
          row(run, tool, code, program, List.of(), change, why), read, Map.of(), Set.of());
    }
    Map<String, Path> taken = taken(open, tool, change, output);
    Set<String> gone = new TreeSet<>();
    List<PathPattern> writes = PathPattern.all(tool.writes(), open.game().pathCase());
    for (String path : change.removed()) if (open.game().anyMatches(writes, path)) gone.add(path);
    Set<String> beside = new TreeSet<>(change.written());
    beside.removeAll(taken.keySet());
    Set<String> others = new TreeSet<>(change.removed());
    others.removeAll(gone);
    ToolRunRow row =
        row(
            run,
            tool,
            code,
            program,
            List.copyOf(taken.keySet()),
            new Change(beside, others),
            taken.isEmpty() ? "It wrote nothing of what it is said to write." : "");
    return new Outcome(row, read, taken, gone);
  }

  private int listened(OpenWorkspace open, long run, Program program, Jobs.Progress progress)
      throws IOException, InterruptedException {
    AtomicLong lines = new AtomicLong();
    FutureTask<Integer> listening =
        new FutureTask<>(
            () ->
                program.listen(
                    line -> {
                      lines.incrementAndGet();
                      events.tell(open.workspace(), "tool-line", Map.of("run", run, "line", line));
                    }));
    Thread listener = new Thread(listening, "tool-run-" + run);
    listener.setDaemon(true);
    listener.start();
    while (true) {
      progress.at(lines.get(), 0, "lines");
      try {
        return listening.get(POLL_MS, TimeUnit.MILLISECONDS);
      } catch (TimeoutException goesOn) {
        // asked again
      } catch (ExecutionException e) {
        if (e.getCause() instanceof IOException io) throw io;
        throw new IllegalStateException(e.getCause());
      }
    }
  }

  private ToolRunRow row(
      long run,
      Tool tool,
      Integer code,
      Program program,
      List<String> taken,
      Change beside,
      String why) {
    return new ToolRunRow(
        run,
        tool.id(),
        null,
        null,
        code,
        program.output(),
        json.write(taken),
        json.write(beside.written()),
        json.write(beside.removed()),
        why);
  }

  private static Change change(OpenWorkspace open, Map<String, Glance> before) {
    Map<String, Glance> after = GameFolder.glance(open.roots());
    Set<String> written = new TreeSet<>(), removed = new TreeSet<>();
    after.forEach(
        (path, glance) -> {
          if (!glance.equals(before.get(path))) written.add(path);
        });
    for (String path : before.keySet()) if (!after.containsKey(path)) removed.add(path);
    return new Change(written, removed);
  }

  private static Map<String, Path> taken(OpenWorkspace open, Tool tool, Change change, Path output)
      throws IOException {
    List<PathPattern> writes = PathPattern.all(tool.writes(), open.game().pathCase());
    Map<String, Path> taken = new TreeMap<>();
    for (String path : change.written()) {
      Path place = open.at(path);
      boolean plain = Files.isRegularFile(place, LinkOption.NOFOLLOW_LINKS);
      if (plain && open.game().anyMatches(writes, path) && !open.game().isProtected(path))
        taken.put(path, place);
    }
    try (Stream<Path> all = Files.walk(output)) {
      for (Path p : all.filter(x -> Files.isRegularFile(x, LinkOption.NOFOLLOW_LINKS)).toList()) {
        String path = GamePath.check(output.relativize(p).toString());
        if (!open.game().isProtected(path)) taken.put(path, p);
      }
    }
    return taken;
  }

  private void take(OpenWorkspace open, Tool tool, Outcome outcome) throws IOException {
    Map<String, String> sums = new TreeMap<>();
    for (Map.Entry<String, Path> e : outcome.taken().entrySet())
      sums.put(e.getKey(), ContentHash.of(e.getValue()));
    outputs.take(
        open,
        tool.id(),
        tool.name(),
        tool.reads(),
        outcome.read(),
        outcome.taken(),
        outcome.gone());
    // the library has them on disk now
    deployments.takeOff(open, sums);
  }

  /** The output so far of a run that goes on; empty when it does not. */
  Optional<String> outputSoFar(long workspace, long run) {
    return Optional.ofNullable(live.get(workspace))
        .filter(l -> l.run() == run)
        .map(l -> l.program().output());
  }
}
