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
import ironing.server.workbench.Bench;
import ironing.server.workbench.FolderUse;
import ironing.server.workbench.FolderUse.Use;
import ironing.server.workbench.Workbenches;
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
  private final Workbenches benches;
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
      Workbenches benches,
      FolderUse use,
      Jobs jobs,
      Events events,
      Json json) {
    this.db = db;
    this.tools = tools;
    this.outputs = outputs;
    this.mods = mods;
    this.deployments = deployments;
    this.benches = benches;
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
  List<String> waitsFor(Bench bench, Tool tool) {
    List<String> why = new ArrayList<>();
    tools.missing(bench, tool).ifPresent(why::add);
    if (!Files.isDirectory(bench.gameFolder())) why.add("The game folder is not there.");
    else if (deployments.distance(bench).total() > 0)
      why.add("The game folder is not as you arranged it; a tool would see another game.");
    else
      unkept(bench, tool)
          .ifPresent(
              path ->
                  why.add(
                      "It writes to "
                          + path
                          + " of the game’s own, which is kept safe only once a mod is deployed."));
    return why;
  }

  /** A file of the game's own that it may write to and that is not kept: the only copy of it. */
  private Optional<String> unkept(Bench bench, Tool tool) {
    List<PathPattern> writes = PathPattern.all(tool.writes(), bench.game().pathCase());
    Set<String> kept = deployments.laidOut(bench).files().keySet();
    Holdings holdings = bench.picture().holdings();
    for (int p = 0; p < holdings.pathCount(); p++) {
      String path = holdings.path(p);
      if (!PathPattern.anyMatches(writes, path) || bench.game().isProtected(path)) continue;
      int slot = holdings.slotOfMod(p, Holdings.GAME);
      if (slot < 0 || holdings.holderAt(slot).pack().isPresent()) continue;
      if (!kept.contains(bench.picture().spelling().of(p))) return Optional.of(path);
    }
    return Optional.empty();
  }

  /**
   * Runs a tool.
   *
   * @throws IroningException with code {@code tool-not-ready} or {@code busy}
   */
  Job run(long workspace, long id) {
    Bench bench = benches.get(workspace);
    Tool tool = tools.require(workspace, id);
    requireReady(bench, tool);
    use.requireStill(bench);
    return jobs.startWaiting(
        workspace,
        Lane.GAME,
        "tool",
        "Run " + tool.name(),
        p -> run(benches.get(workspace), id, p));
  }

  private void requireReady(Bench bench, Tool tool) {
    List<String> why = waitsFor(bench, tool);
    if (why.isEmpty()) return;
    throw IroningException.of(
        "tool-not-ready",
        tool.name(),
        String.join(" ", why),
        deployments.distance(bench).total() > 0
            ? "Deploy first, then run it."
            : "See that its program and its folder are there.");
  }

  /** What became of the files while a tool ran. */
  private record Change(Set<String> written, Set<String> removed) {}

  private Long run(Bench bench, long id, Jobs.Progress progress) throws Exception {
    Tool tool = tools.require(bench.workspace(), id);
    requireReady(bench, tool);
    GameFolder.requireFolder(bench.gameFolder());
    long run;
    boolean any;
    // until its output is back in the folder nobody else comes in: the game would miss those files
    use.begin(bench, Use.TOOL);
    try (ModStore.WorkFolder work = mods.workFolder(bench.workspace())) {
      Outcome outcome;
      try {
        outcome = ran(bench, tool, work.path(), progress);
      } finally {
        live.remove(bench.workspace());
      }
      run = outcome.row().id();
      any = !outcome.taken().isEmpty() || !outcome.gone().isEmpty();
      boolean kept = false;
      try {
        if (any) take(bench, tool, outcome);
        kept = true;
      } finally {
        db.end(kept ? outcome.row() : notTaken(outcome.row()));
        events.tell(bench.workspace(), "tools", Map.of("tool", id));
      }
      // what was taken in comes back into the folder as a deployed file, be it the same as before
      if (any) deployments.deployNow(bench.workspace(), progress);
    } finally {
      use.end(bench.workspace());
      events.tell(bench.workspace(), "tools", Map.of("tool", id));
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

  private Outcome ran(Bench bench, Tool tool, Path work, Jobs.Progress progress)
      throws IOException, InterruptedException {
    Path output = Files.createDirectories(work.resolve("output"));
    Read read = outputs.read(bench, tool.id(), tool.reads());
    Map<String, Glance> before = GameFolder.glance(bench.gameFolder());
    Function<String, String> filling = tools.filling(bench, output);
    Map<String, String> environment = new TreeMap<>();
    tool.environment().forEach((k, v) -> environment.put(k, filling.apply(v)));
    Program program =
        Program.start(
            tool.command().stream().map(filling).toList(),
            tools.startFolder(bench, tool, output),
            environment,
            "Check its program and its folder, in Tools.");
    long run = db.begin(tool.id());
    live.put(bench.workspace(), new Live(run, tool.id(), program));
    events.tell(bench.workspace(), "tools", Map.of("tool", tool.id()));
    int code;
    try {
      code = listened(bench, run, program, progress);
    } catch (CancellationException | InterruptedException | IOException stopped) {
      program.stop();
      Change change = change(bench, before);
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
    Change change = change(bench, before);
    if (code != 0) {
      String why = "It ended with exit code " + code + "; nothing was taken in.";
      return new Outcome(
          row(run, tool, code, program, List.of(), change, why), read, Map.of(), Set.of());
    }
    Map<String, Path> taken = taken(bench, tool, change, output);
    Set<String> gone = new TreeSet<>();
    List<PathPattern> writes = PathPattern.all(tool.writes(), bench.game().pathCase());
    for (String path : change.removed()) if (PathPattern.anyMatches(writes, path)) gone.add(path);
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

  private int listened(Bench bench, long run, Program program, Jobs.Progress progress)
      throws IOException, InterruptedException {
    AtomicLong lines = new AtomicLong();
    FutureTask<Integer> listening =
        new FutureTask<>(
            () ->
                program.listen(
                    line -> {
                      lines.incrementAndGet();
                      events.tell(bench.workspace(), "tool-line", Map.of("run", run, "line", line));
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

  private static Change change(Bench bench, Map<String, Glance> before) {
    Map<String, Glance> after = GameFolder.glance(bench.gameFolder());
    Set<String> written = new TreeSet<>(), removed = new TreeSet<>();
    after.forEach(
        (path, glance) -> {
          if (!glance.equals(before.get(path))) written.add(path);
        });
    for (String path : before.keySet()) if (!after.containsKey(path)) removed.add(path);
    return new Change(written, removed);
  }

  private static Map<String, Path> taken(Bench bench, Tool tool, Change change, Path output)
      throws IOException {
    List<PathPattern> writes = PathPattern.all(tool.writes(), bench.game().pathCase());
    Map<String, Path> taken = new TreeMap<>();
    for (String path : change.written()) {
      Path place = GamePath.resolve(bench.gameFolder(), path);
      boolean plain = Files.isRegularFile(place, LinkOption.NOFOLLOW_LINKS);
      if (plain && PathPattern.anyMatches(writes, path) && !bench.game().isProtected(path))
        taken.put(path, place);
    }
    try (Stream<Path> all = Files.walk(output)) {
      for (Path p : all.filter(x -> Files.isRegularFile(x, LinkOption.NOFOLLOW_LINKS)).toList()) {
        String path = GamePath.check(output.relativize(p).toString());
        if (!bench.game().isProtected(path)) taken.put(path, p);
      }
    }
    return taken;
  }

  private void take(Bench bench, Tool tool, Outcome outcome) throws IOException {
    Map<String, String> sums = new TreeMap<>();
    for (Map.Entry<String, Path> e : outcome.taken().entrySet())
      sums.put(e.getKey(), ContentHash.of(e.getValue()));
    outputs.take(
        bench,
        tool.id(),
        tool.name(),
        tool.reads(),
        outcome.read(),
        outcome.taken(),
        outcome.gone());
    // the library has them on disk now
    deployments.takeOff(bench, sums);
  }

  /** The output so far of a run that goes on; empty when it does not. */
  Optional<String> outputSoFar(long workspace, long run) {
    return Optional.ofNullable(live.get(workspace))
        .filter(l -> l.run() == run)
        .map(l -> l.program().output());
  }
}
