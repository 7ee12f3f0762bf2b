package ironing.core.testkit;

/**
 * How many of its tries a test makes. {@code ./ironing test} makes a fifth of them, with the same
 * values each time; {@code scripts/stress.sh} sets {@code ironing.tries} to make all of them, or
 * many times as many, with fresh values.
 */
public final class Tries {
  private Tries() {}

  /** So few are cheap enough to be made in every run. */
  private static final int ALWAYS = 20;

  private static final double TIMES =
      Double.parseDouble(System.getProperty("ironing.tries", "0.2"));

  /**
   * @param all how many tries are meant
   * @return how many this run makes, at least one
   */
  public static int of(int all) {
    return Math.max((int) Math.ceil(all * TIMES), Math.min(all, ALWAYS));
  }

  /**
   * @param all how many random ways one case is tried in
   * @return how many of them this run takes, at least one
   */
  public static int ways(int all) {
    return Math.max((int) Math.ceil(all * TIMES), 1);
  }

  /** Whether this run looks for what nobody has seen yet. */
  static boolean fresh() {
    return TIMES >= 1;
  }
}
