package ironing.server.testkit;

import ironing.server.IroningServer;
import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** The server as a process of its own, which can be killed as a power cut would. */
public final class ServerProcess implements AutoCloseable {
  private static final int PATIENCE_SECONDS = 60;
  private final Path home;
  private final Database database;
  private final int port;
  private Process process;

  public ServerProcess(Path home) throws IOException {
    this(Files.createDirectories(home), Database.create());
  }

  /** A second one with the same home and database. */
  public ServerProcess(ServerProcess first) throws IOException {
    this(first.home, first.database);
  }

  private ServerProcess(Path home, Database database) throws IOException {
    this.home = home;
    this.database = database;
    try (ServerSocket free = new ServerSocket(0)) {
      port = free.getLocalPort();
    }
  }

  /** Starts it, and waits until it answers. */
  public Api up() throws IOException, InterruptedException {
    List<String> command =
        List.of(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-cp",
            System.getProperty("java.class.path"),
            IroningServer.class.getName());
    File log = home.resolve("server.log").toFile();
    ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
    builder.redirectOutput(ProcessBuilder.Redirect.appendTo(log));
    builder.environment().put("IRONING_HOME", home.toString());
    builder.environment().put("IRONING_PORT", Integer.toString(port));
    builder.environment().put("IRONING_DB_URL", database.url());
    process = builder.start();
    Api api = new Api("http://127.0.0.1:" + port);
    for (int i = 0; i < PATIENCE_SECONDS * 10; i++) {
      if (!process.isAlive()) throw new IllegalStateException(Files.readString(log.toPath()));
      if (answers(api)) return api;
      Thread.sleep(100);
    }
    throw new IllegalStateException(
        "the server does not come up: " + Files.readString(log.toPath()));
  }

  private static boolean answers(Api api) {
    try {
      return api.ask("GET", "/actuator/health", null, Map.of()).status() == 200;
    } catch (UncheckedIOException notYet) {
      return false;
    }
  }

  /** Kills it after that time, without a word to it. */
  public Thread killIn(long millis) {
    Process victim = process;
    Thread killer =
        new Thread(
            () -> {
              try {
                Thread.sleep(millis);
                victim.destroyForcibly().waitFor();
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
              }
            });
    killer.start();
    return killer;
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
  public void close() throws InterruptedException {
    if (process != null) {
      process.destroyForcibly();
      process.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS);
    }
    database.close();
  }
}
