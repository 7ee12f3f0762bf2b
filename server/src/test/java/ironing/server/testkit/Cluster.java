package ironing.server.testkit;

import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;

/** A PostgreSQL of a test’s own, by the product’s script, to be stopped and killed. */
public final class Cluster implements AutoCloseable {
  private static final String START =
      """
      cd .. && ROOT=$PWD && . scripts/machine.sh && . scripts/database.sh &&
      database_start "$0" >&2 && echo "$DB_PID $DB_URL"
      """;
  private final Path folder;
  private long pid;
  private String url;

  private Cluster(Path folder) {
    this.folder = folder;
  }

  /**
   * Makes one, and starts it; what is confirmed is flushed, as it is not by the tests’ common one.
   */
  public static Cluster make() throws IOException, InterruptedException {
    // the database’s account must be able to enter
    Path folder =
        Files.createTempDirectory(
            "cluster",
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwxr-xr-x")));
    Cluster cluster = new Cluster(folder);
    cluster.up();
    return cluster;
  }

  /** Starts it again, at the same address. */
  public void up() throws IOException, InterruptedException {
    Process p =
        new ProcessBuilder("bash", "-c", START, folder.resolve("pg").toString())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
    if (p.waitFor() != 0) throw new IllegalStateException("PostgreSQL did not start: " + said);
    pid = Long.parseLong(said.substring(0, said.indexOf(' ')));
    url = said.substring(said.indexOf(' ') + 1);
  }

  public String url() {
    return url;
  }

  /** Ends all of its processes without a word to them. */
  public void kill() {
    ProcessHandle main = ProcessHandle.of(pid).orElseThrow();
    ProcessHandle[] all = main.descendants().toArray(ProcessHandle[]::new);
    main.destroyForcibly();
    for (ProcessHandle p : all) p.destroyForcibly();
    gone(main);
    for (ProcessHandle p : all) gone(p);
  }

  /** Ends it as its user does: open sessions are ended, what was confirmed is kept. */
  public void stop() throws IOException {
    ProcessHandle main = ProcessHandle.of(pid).orElseThrow();
    new ProcessBuilder("kill", "-INT", Long.toString(pid)).start();
    gone(main);
  }

  private static void gone(ProcessHandle p) {
    Patience.until(p::isAlive, alive -> !alive);
  }

  @Override
  public void close() throws IOException {
    if (ProcessHandle.of(pid).filter(ProcessHandle::isAlive).isPresent()) stop();
    Trees.remove(folder);
  }
}
