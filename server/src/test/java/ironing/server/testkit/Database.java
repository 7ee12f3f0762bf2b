package ironing.server.testkit;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.UUID;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfo;

/** A database of its own on the PostgreSQL that {@code ./ironing test} has started. */
public final class Database implements AutoCloseable {
  private static final String SERVER = "IRONING_TEST_DB_URL";
  private static final int LOCK = 8160;
  private final String server;
  private final String name = "t_" + UUID.randomUUID().toString().replace("-", "");

  private Database(String server) {
    this.server = server;
  }

  /** One with the schema of today: a copy of one that was migrated once for all tests. */
  public static Database create() {
    Database database = new Database(server());
    database.run("create database " + database.name + " template " + template(database.server));
    // what tells one installation from another is no part of the copy
    run(database.url(), "update installation set id = default");
    return database;
  }

  /** One with nothing in it. */
  public static Database empty() {
    Database database = new Database(server());
    database.run("create database " + database.name);
    return database;
  }

  // fails, never skips, when there is no server: what was not run must not look well
  private static String server() {
    String server = System.getenv(SERVER);
    if (server != null) return server;
    throw new IllegalStateException(SERVER + " is not set; run these tests by ./ironing test");
  }

  /** The database that others are copied from; made by the first test of any process that asks. */
  private static synchronized String template(String server) {
    String name = "template_" + migrations();
    try (Connection c = DriverManager.getConnection(server);
        Statement s = c.createStatement()) {
      s.execute("select pg_advisory_lock(" + LOCK + ")");
      if (!exists(s, name)) {
        String unfinished = name + "_unfinished";
        s.execute("drop database if exists " + unfinished);
        s.execute("create database " + unfinished);
        Flyway.configure().dataSource(of(server, unfinished), null, null).load().migrate();
        s.execute("alter database " + unfinished + " rename to " + name);
      }
      return name;
    } catch (SQLException e) {
      throw new IllegalStateException(name, e);
    }
  }

  private static boolean exists(Statement s, String name) throws SQLException {
    try (ResultSet found =
        s.executeQuery("select 1 from pg_database where datname = '" + name + "'")) {
      return found.next();
    }
  }

  /** What stands for the content of all migrations, so that none of another day is copied. */
  private static String migrations() {
    int sum = 1;
    for (MigrationInfo m : Flyway.configure().dataSource(server(), null, null).load().info().all())
      sum = 31 * sum + m.getVersion().hashCode() * 31 + m.getResolvedChecksum();
    return Integer.toHexString(sum);
  }

  private static String of(String server, String name) {
    return server.replaceFirst("/postgres\\?", "/" + name + "?");
  }

  /** What the product takes as IRONING_DB_URL. */
  public String url() {
    return of(server, name);
  }

  @Override
  public void close() {
    run("drop database if exists " + name + " with (force)");
  }

  private void run(String sql) {
    run(server, sql);
  }

  private static void run(String database, String sql) {
    try (Connection c = DriverManager.getConnection(database);
        Statement s = c.createStatement()) {
      s.execute(sql);
    } catch (SQLException e) {
      throw new IllegalStateException(sql, e);
    }
  }
}
