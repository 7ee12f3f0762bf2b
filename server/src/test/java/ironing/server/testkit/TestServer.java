package ironing.server.testkit;

import ironing.server.IroningServer;
import ironing.server.platform.Folders;
import java.nio.file.Path;
import java.util.Optional;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/** The whole server on a free port, with a home and a database of its own. */
public final class TestServer implements AutoCloseable {
  private final Path home;
  private final Optional<Database> database;
  private final String url;
  private ConfigurableApplicationContext context;

  private TestServer(Path home, Optional<Database> database, String url) {
    this.home = home;
    this.database = database;
    this.url = url;
  }

  /** With a database that somebody else ends. */
  public static TestServer start(Path home, String url) {
    TestServer server = new TestServer(home, Optional.empty(), url);
    server.up();
    return server;
  }

  public static TestServer start(Path home) {
    Database database = Database.create();
    TestServer server = new TestServer(home, Optional.of(database), database.url());
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
                "--server.port=0",
                "--spring.datasource.url=" + url,
                "--spring.datasource.hikari.maximum-pool-size=4",
                "--ironing.home=" + home,
                "--ironing.standins=" + Path.of("../standins/target").toAbsolutePath().normalize());
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

  /** Where the library of a workspace lies. */
  public Path library(long workspace) {
    return context.getBean(Folders.class).library(workspace);
  }

  @Override
  public void close() {
    context.close();
    database.ifPresent(Database::close);
  }
}
