package ironing.server.testkit;

import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;

/** The server as a process of its own, which can be killed as a power cut would. */
public final class ServerProcess implements AutoCloseable {
  private final Path home;
  private final Database database;
  private final int port;
  private final List<String> command;
  private Process process;

  public ServerProcess(Path home) throws IOException {
    this(home, Launch.command());
  }

  /** A second one with the same home and database. */
  public ServerProcess(ServerProcess first) throws IOException {
    this(first.home, first.database, first.command);
  }

  /** One with the same database and a home of its own. */
  public ServerProcess(ServerProcess first, Path home) throws IOException {
    this(Files.createDirectories(home), first.database, first.command);
  }

  ServerProcess(Path home, List<String> command) throws IOException {
    this(Files.createDirectories(home), Database.create(), command);
  }

  private ServerProcess(Path home, Database database, List<String> command) throws IOException {
    this.home = home;
    this.database = database;
    this.command = command;
    try (ServerSocket free = new ServerSocket(0)) {
      port = free.getLocalPort();
    }
  }

  /** Starts it, and waits until it answers. */
  public Api up() throws IOException {
    File log = home.resolve("server.log").toFile();
    ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
    builder.redirectOutput(ProcessBuilder.Redirect.appendTo(log));
    builder.environment().put("IRONING_HOME", home.toString());
    builder.environment().put("IRONING_PORT", Integer.toString(port));
    builder.environment().put("IRONING_DB_URL", database.url());
    process = builder.start();
    Api api = new Api("http://127.0.0.1:" + port);
    Patience.until(() -> !process.isAlive() || answers(api), done -> done);
    if (!process.isAlive()) throw new IllegalStateException(Files.readString(log.toPath()));
    return api;
  }

  private static boolean answers(Api api) {
    try {
      return api.ask("GET", "/actuator/health", null, Map.of()).status() == 200;
    } catch (UncheckedIOException notYet) {
      return false;
    }
  }

  /** Ends it as its user does. */
  void down() {
    process.destroy();
    process.onExit().join();
  }

  /** Kills it after that time, without a word to it. */
  public CompletableFuture<Void> killIn(long millis) {
    Process victim = process;
    return Patience.in(millis, () -> victim.destroyForcibly().waitFor());
  }

  /** Does something during which the server may die; its answer is of no interest then. */
  public void whileItLasts(Runnable work) {
    try {
      work.run();
    } catch (UncheckedIOException itDied) {
      // that is what was asked for
    }
  }

  @Override
  public void close() {
    if (process != null) process.destroyForcibly().onExit().join();
    database.close();
  }
}
