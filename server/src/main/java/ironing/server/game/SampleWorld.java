package ironing.server.game;

import ironing.core.IroningException;
import ironing.core.disk.FolderTree;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.platform.Folders;
import ironing.server.process.Program;
import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/**
 * The sample game with its mods, to try things out: brought in by the program that ships with
 * Ironing, which uses the same API as the page, and removed without a trace.
 */
@Component
class SampleWorld {
  private static final long NO_WORKSPACE = 0;
  private static final long REMOVED_AFTER_MS = 600_000;
  private final String demo;
  private final Environment environment;
  private final Folders folders;
  private final WorkspaceMapper db;
  private final Removal removal;
  private final Jobs jobs;

  /**
   * @param demo the folder of the program and of what it packs; empty where there is none
   */
  SampleWorld(
      @Value("${ironing.demo}") String demo,
      Environment environment,
      Folders folders,
      WorkspaceMapper db,
      Removal removal,
      Jobs jobs) {
    this.demo = demo;
    this.environment = environment;
    this.folders = folders;
    this.db = db;
    this.removal = removal;
    this.jobs = jobs;
  }

  private Path classpath() {
    return Path.of(demo, "target", "classpath");
  }

  boolean available() {
    return !demo.isEmpty() && Files.isRegularFile(classpath());
  }

  /** The workspace of the sample; empty while it is not here. */
  Optional<Long> workspace() {
    try {
      Path game = folders.sample().resolve("game").toRealPath();
      return Optional.ofNullable(db.idOf(game.toString()));
    } catch (IOException notThere) {
      return Optional.empty();
    }
  }

  /**
   * Brings it in; what was cut off goes on. The job's result is the number of its workspace.
   *
   * @throws IroningException with code {@code sample-missing}
   */
  Job load() {
    if (!available())
      throw IroningException.of(
          "sample-missing",
          "The sample game",
          "This Ironing was started without it.",
          "Start it by ./ironing demo, or make a workspace of a game of yours.");
    return jobs.startWaiting(
        NO_WORKSPACE, Lane.INSTALL, "load-sample", "Bring in the sample game", this::loadNow);
  }

  private Long loadNow(Jobs.Progress progress) throws IOException, InterruptedException {
    String classes = Files.readString(classpath(), StandardCharsets.UTF_8).strip();
    String url = "http://127.0.0.1:" + environment.getProperty("local.server.port");
    Program program =
        Program.start(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx256m",
                "-cp",
                Path.of(demo, "target", "classes") + File.pathSeparator + classes,
                "ironing.demo.DemoLoader",
                url,
                Path.of(demo, "world").toString(),
                folders.sample().toString()),
            Path.of(demo),
            Map.of(),
            "See whether Java is installed as Ironing needs it.");
    try {
      int exit = program.listen(line -> progress.at(0, 0, "mods"));
      Optional<Long> made = workspace();
      if (exit == 0 && made.isPresent()) return made.get();
      throw IroningException.of(
          "sample-failed",
          "The sample game",
          "It could not be brought in: " + lastLine(program.output()),
          "Do it again; it goes on where it stopped.");
    } finally {
      program.stop();
    }
  }

  private static String lastLine(String output) {
    List<String> lines = output.lines().filter(l -> !l.isBlank()).toList();
    return lines.isEmpty() ? "it said nothing." : lines.get(lines.size() - 1);
  }

  /** Removes all workspaces of games in the sample's folder, and that folder. */
  Job remove() {
    return jobs.startWaiting(
        NO_WORKSPACE, Lane.INSTALL, "remove-sample", "Remove the sample game", p -> removeNow());
  }

  private Long removeNow() throws IOException {
    if (Files.notExists(folders.sample())) return null;
    for (long workspace : db.idsBelow(folders.sample().toRealPath() + File.separator)) {
      Job removed = removal.remove(workspace, false, true, true);
      Job ended = jobs.await(removed.id(), REMOVED_AFTER_MS);
      if (ended.state() == Job.State.FAILED) throw new IroningException(ended.problems());
    }
    FolderTree.remove(folders.sample());
    return null;
  }
}
