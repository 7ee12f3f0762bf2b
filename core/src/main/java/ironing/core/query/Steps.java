package ironing.core.query;

/**
 * How many places an expression may look at, so that none runs for ever.
 *
 * <p>Threads: for one query at a time.
 */
public final class Steps {
  /** Enough for every record of the largest file that is read. */
  public static final long MOST = 20_000_000;

  private long left;

  public Steps() {
    this(MOST);
  }

  public Steps(long most) {
    left = most;
  }

  /**
   * @throws TooMany when the last one is used up
   */
  void take() {
    if (--left < 0) throw new TooMany();
  }

  /** An expression that looks at more than it may. */
  public static final class TooMany extends RuntimeException {
    private static final long serialVersionUID = 1;

    TooMany() {
      super("the expression looks at too many places");
    }
  }
}
