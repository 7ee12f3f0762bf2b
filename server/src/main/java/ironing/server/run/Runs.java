package ironing.server.run;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.path.GamePath;
import ironing.core.run.RunLog;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.run.RunMapper.RunRow;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import jakarta.annotation.PreDestroy;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Starts games and listens to them. One run of a workspace at a time. */
@Component
public class Runs {
  private static final Logger LOG = LoggerFactory.getLogger(Runs.class);
  private static final int MAX_OUTPUT_CHARS = 4_000_000;
  private final RunMapper db;
  private final Workbenches benches;
  private final Folders folders;
  private final Events events;
  private final Map<Long, Live> live = new ConcurrentHashMap<>();
  private final Map<Long, Summarised> summaries = new ConcurrentHashMap<>();

  private record Live(long run, Process process, StringBuffer output) {}

  private record Summarised(long run, RunLog.Summary summary) {}

  Runs(RunMapper db, Workbenches benches, Folders folders, Events events) {
    this.db = db;
    this.benches = benches;
    this.folders = folders;
    this.events = events;
  }

  /**
   * @throws IroningException with code {@code busy}, {@code no-command} or {@code
   *     game-will-not-start}
   */
  synchronized long start(long workspace) {
    Bench bench = benches.get(workspace);
    if (live.containsKey(workspace))
      throw IroningException.of(
          "busy", bench.title(), "The game is running.", "Wait until it ends, or stop it.");
    GameDefinition.Run run =
        bench
            .game()
            .run()
            .orElseThrow(
                () ->
                    IroningException.of(
                        "no-command",
                        bench.title(),
                        "The definition of this game does not say how to start it.",
                        "Add run: { command: [ … ] } to its game.yaml."));
    GameFolder.requireFolder(bench.gameFolder());
    List<String> command =
        run.command().stream()
            .map(
                a ->
                    a.replace("{game}", bench.gameFolder().toString())
                        .replace("{standins}", folders.standins()))
            .toList();
    Optional<FileTime> logBefore = logTime(bench, run);
    Process process;
    try {
      // a list of arguments, never a shell: a folder's name cannot become a command
      process =
          new ProcessBuilder(command)
              .directory(bench.gameFolder().toFile())
              .redirectErrorStream(true)
              .start();
    } catch (IOException e) {
      throw IroningException.of(
          "game-will-not-start",
          command.get(0),
          "It cannot be started: " + e.getMessage() + ".",
          "Check the command in the game's definition.",
          e);
    }
    long id = db.add(workspace);
    Live l = new Live(id, process, new StringBuffer());
    live.put(workspace, l);
    Thread listener = new Thread(() -> listen(bench, run, l, logBefore), "run-" + id);
    listener.setDaemon(true);
    listener.start();
    events.tell(workspace, "run", Map.of("run", id));
    return id;
  }

  private void listen(Bench bench, GameDefinition.Run run, Live l, Optional<FileTime> logBefore) {
    int code = -1;
    try (BufferedReader in =
        new BufferedReader(
            new InputStreamReader(l.process().getInputStream(), StandardCharsets.UTF_8))) {
      for (String line = in.readLine(); line != null; line = in.readLine()) {
        if (l.output().length() < MAX_OUTPUT_CHARS) l.output().append(line).append('\n');
        events.tell(bench.workspace(), "run-line", Map.of("run", l.run(), "line", line));
      }
      code = l.process().waitFor();
    } catch (IOException e) {
      LOG.warn("the output of run {} broke off: {}", l.run(), e.getMessage());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    } finally {
      db.end(
          l.run(),
          code,
          withoutNul(l.output().toString()),
          withoutNul(freshLog(bench, run, logBefore)));
      live.remove(bench.workspace());
      events.tell(bench.workspace(), "run", Map.of("run", l.run()));
    }
  }

  // PostgreSQL's text cannot hold U+0000, and a game may print anything
  private static String withoutNul(String text) {
    return text.replace("\u0000", "\uFFFD");
  }

  private static Optional<FileTime> logTime(Bench bench, GameDefinition.Run run) {
    if (run.log().isEmpty()) return Optional.empty();
    try {
      return Optional.of(
          Files.getLastModifiedTime(GamePath.resolve(bench.gameFolder(), run.log().get())));
    } catch (IOException notYet) {
      return Optional.empty();
    }
  }

  /** The log that this run wrote; a log left by an earlier run says nothing of this one. */
  private static String freshLog(Bench bench, GameDefinition.Run run, Optional<FileTime> before) {
    Optional<FileTime> after = logTime(bench, run);
    if (after.isEmpty() || after.equals(before)) return "";
    try {
      Path log = GamePath.resolve(bench.gameFolder(), run.log().get());
      return Files.size(log) > MAX_OUTPUT_CHARS ? "" : Files.readString(log);
    } catch (IOException unreadable) {
      return "";
    }
  }

  void stop(long workspace) {
    Live l = live.get(workspace);
    if (l != null) l.process().destroy();
  }

  /** The output so far of a run that goes on; empty when it does not. */
  Optional<String> outputSoFar(long workspace, long run) {
    Live l = live.get(workspace);
    return l != null && l.run() == run ? Optional.of(l.output().toString()) : Optional.empty();
  }

  /** What the last run that ended said; empty when there was none, or it wrote no log. */
  public Optional<RunLog.Summary> lastSummary(long workspace) {
    RunRow row = db.lastEnded(workspace);
    if (row == null || row.log().isBlank()) return Optional.empty();
    Summarised known = summaries.get(workspace);
    if (known == null || known.run() != row.id()) {
      known = new Summarised(row.id(), RunLog.summarise(row.log().lines().toList()));
      summaries.put(workspace, known);
    }
    return Optional.of(known.summary());
  }

  @PreDestroy
  void stopAll() {
    live.values().forEach(l -> l.process().destroy());
  }
}
