package ironing.server.testkit;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.UUID;

/** An empty database of its own on the PostgreSQL that {@code ./ironing test} has started. */
public final class Database implements AutoCloseable {
  private static final String SERVER = "IRONING_TEST_DB_URL";
  private final String server;
  private final String name = "t_" + UUID.randomUUID().toString().replace("-", "");

  private Database(String server) {
    this.server = server;
  }

  /** Fails, never skips, when there is no server: what was not run must not look well. */
  public static Database create() {
    String server = System.getenv(SERVER);
    if (server == null) {
      throw new IllegalStateException(SERVER + " is not set; run these tests by ./ironing test");
    }
    Database database = new Database(server);
    database.run("create database " + database.name);
    return database;
  }

  /** What the product takes as IRONING_DB_URL. */
  public String url() {
    return server.replaceFirst("/postgres\\?", "/" + name + "?");
  }

  @Override
  public void close() {
    run("drop database if exists " + name + " with (force)");
  }

  private void run(String sql) {
    try (Connection c = DriverManager.getConnection(server);
        Statement s = c.createStatement()) {
      s.execute(sql);
    } catch (SQLException e) {
      throw new IllegalStateException(sql, e);
    }
  }
}
