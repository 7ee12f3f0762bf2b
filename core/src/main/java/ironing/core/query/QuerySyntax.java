package ironing.core.query;

/** What is thrown for an expression that cannot be read, with the place of the fault in it. */
public final class QuerySyntax extends RuntimeException {
  private static final long serialVersionUID = 1;

  private final int column;

  QuerySyntax(int column, String reason) {
    super(reason);
    this.column = column;
  }

  /** The place in the expression, counted from 1; 0 where only the whole is known to be wrong. */
  public int column() {
    return column;
  }
}
