package ironing.server.platform;

import ironing.core.IroningException;
import jakarta.annotation.PreDestroy;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.stereotype.Component;

/**
 * One server for a database, whatever their homes: a second one would end the first one's runs and
 * change the same game folders. An advisory lock of PostgreSQL, which goes with its session.
 *
 * <p>Where PostgreSQL itself was started anew, the lock is taken again; if another server was
 * quicker, this one ends.
 */
@Component
class DatabaseLock {
  private static final Logger LOG = LoggerFactory.getLogger(DatabaseLock.class);
  private static final long KEY = 0x49726F6E696E67L;

  /** How long the session of a server that has just been killed may take to go, in seconds. */
  private static final int PATIENCE = 10;

  private static final int LOOK_EVERY = 5;
  private final DataSource database;
  private final ConfigurableApplicationContext server;
  private final ScheduledExecutorService looking =
      Executors.newSingleThreadScheduledExecutor(
          work -> {
            Thread t = new Thread(work, "database-lock");
            t.setDaemon(true);
            return t;
          });
  private Connection session;

  /**
   * @throws IroningException with code {@code database-in-use}
   */
  DatabaseLock(DataSource database, ConfigurableApplicationContext server) throws SQLException {
    this.database = database;
    this.server = server;
    Optional<Connection> mine = taken(PATIENCE);
    if (mine.isEmpty())
      throw IroningException.of(
          "database-in-use",
          "the database",
          "Another Ironing uses this database, with another home.",
          "Use that one, end it, or set IRONING_DB_URL to another database.");
    session = mine.get();
    ScheduledFuture<?> unused =
        looking.scheduleWithFixedDelay(this::look, LOOK_EVERY, LOOK_EVERY, TimeUnit.SECONDS);
  }

  /** The session that has the lock, if it can be had within some seconds. */
  private Optional<Connection> taken(int seconds) throws SQLException {
    Connection c = database.getConnection();
    try (PreparedStatement limit =
            c.prepareStatement("select set_config('lock_timeout', ?, false)");
        PreparedStatement lock = c.prepareStatement("select pg_advisory_lock(?)")) {
      limit.setString(1, seconds + "s");
      limit.execute();
      lock.setLong(1, KEY);
      lock.execute();
      return Optional.of(c);
    } catch (SQLException e) {
      // 55P03: lock_not_available (PostgreSQL, Appendix A)
      boolean held = "55P03".equals(e.getSQLState());
      try (c;
          Statement s = c.createStatement()) {
        if (held) s.execute("reset lock_timeout");
      }
      if (held) return Optional.empty();
      throw e;
    }
  }

  private synchronized void look() {
    try {
      if (isMine()) return;
      session.close();
      Optional<Connection> again = taken(1);
      if (again.isPresent()) {
        session = again.get();
        LOG.info("the database is back, and this server's own");
        return;
      }
      LOG.error("another Ironing has taken the database meanwhile: this one ends");
      new Thread(server::close, "ended").start();
    } catch (SQLException stillGone) {
      LOG.warn("the database cannot be reached: {}", stillGone.getMessage());
    }
  }

  private boolean isMine() {
    try (PreparedStatement held =
        session.prepareStatement(
            """
            select exists (select from pg_locks where locktype = 'advisory' and granted
              and pid = pg_backend_pid() and objsubid = 1
              and (classid::bigint << 32 | objid::bigint) = ?)
            """)) {
      held.setLong(1, KEY);
      try (ResultSet r = held.executeQuery()) {
        return r.next() && r.getBoolean(1);
      }
    } catch (SQLException gone) {
      return false;
    }
  }

  @PreDestroy
  void release() throws SQLException {
    looking.shutdownNow();
    synchronized (this) {
      try (Connection c = session;
          PreparedStatement free = c.prepareStatement("select pg_advisory_unlock(?)")) {
        free.setLong(1, KEY);
        free.execute();
      } catch (SQLException gone) {
        // the lock went with it
      }
    }
  }
}
