package ironing.server.testkit;

import ironing.server.IroningServer;
import ironing.server.platform.Folders;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/** The whole server on a free port, with a home and a database of its own. */
public final class TestServer implements AutoCloseable {
  private final Path home;
  private final Optional<Database> database;
  private final String url;
  private final List<String> options;
  private ConfigurableApplicationContext context;

  private TestServer(Path home, Optional<Database> database, String url, List<String> options) {
    this.home = home;
    this.database = database;
    this.url = url;
    this.options = options;
  }

  /** With a database that somebody else ends. */
  public static TestServer start(Path home, String url) {
    TestServer server = new TestServer(home, Optional.empty(), url, List.of());
    server.up();
    return server;
  }

  /**
   * @param options of the server, {@code --name=value} each
   */
  public static TestServer start(Path home, String... options) {
    Database database = Database.create();
    TestServer server =
        new TestServer(home, Optional.of(database), database.url(), List.of(options));
    try {
      server.up();
    } catch (RuntimeException e) {
      database.close();
      throw e;
    }
    return server;
  }

  private void up() {
    context =
        new SpringApplicationBuilder(IroningServer.class)
            .run(
                Stream.concat(
                        Stream.of(
                            "--server.port=0",
                            "--spring.datasource.url=" + url,
                            "--spring.datasource.hikari.maximum-pool-size=4",
                            "--ironing.home=" + home,
                            // nobody waits for real servers here
                            "--ironing.fetch.first-wait=20ms",
                            "--ironing.catalogue.again-after=50ms",
                            "--ironing.standins="
                                + Path.of("../standins/target").toAbsolutePath().normalize()),
                        options.stream())
                    .toArray(String[]::new));
  }

  /** Ends the server and starts it again with the same home and database. */
  public void restart() {
    context.close();
    up();
  }

  /** Ends the server, so that a test can do to its home what a crash would. */
  public void down(Runnable meanwhile) {
    context.close();
    meanwhile.run();
    up();
  }

  public int port() {
    return ((WebServerApplicationContext) context).getWebServer().getPort();
  }

  public String url() {
    return "http://127.0.0.1:" + port();
  }

  public Api api() {
    return new Api(url());
  }

  /** A part of the server, for what cannot be seen from outside. */
  public <T> T bean(Class<T> type) {
    return context.getBean(type);
  }

  /** Where the library of a workspace lies. */
  public Path library(long workspace) {
    return bean(Folders.class).library(workspace);
  }

  @Override
  public void close() {
    context.close();
    database.ifPresent(Database::close);
  }
}
