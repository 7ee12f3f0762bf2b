package ironing.server.platform;

import ironing.core.IroningException;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.Optional;
import org.springframework.transaction.TransactionSystemException;

/** Tells a database that does not answer, or ended in the middle of the work, from other errors. */
public final class DatabaseGone {
  public static final String CODE = "database-gone";

  private DatabaseGone() {}

  /** What to say of it; empty when an error is another. */
  public static Optional<IroningException> told(Throwable error) {
    if (!isGone(error)) return Optional.empty();
    return Optional.of(
        IroningException.of(
            CODE,
            "The database",
            "PostgreSQL does not answer, or ended while this was done.",
            "Start Ironing again, or wait until your PostgreSQL server is back; what was"
                + " confirmed before is on disk.",
            error));
  }

  private static boolean isGone(Throwable error) {
    for (Throwable t = error; t != null; t = t.getCause()) {
      if (t instanceof SQLException sql && isGone(sql)) return true;
      // a transaction that can be neither ended nor taken back has lost its connection
      if (t instanceof TransactionSystemException) return true;
    }
    return false;
  }

  // classes 08 and 57 of SQLSTATE: connection exceptions, and operators who end sessions
  // (PostgreSQL documentation, appendix A); a pool that gets no connection names no state
  private static boolean isGone(SQLException e) {
    String state = e.getSQLState();
    return state == null
        ? e instanceof SQLTransientConnectionException
        : state.startsWith("08") || state.startsWith("57P");
  }
}
