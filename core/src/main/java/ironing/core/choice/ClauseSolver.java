package ironing.core.choice;

/**
 * Decides whether sentences over yes and no can all hold. A literal is the number of a variable, or
 * its negative for “not”.
 *
 * <p>One thread at a time.
 */
interface ClauseSolver {
  /** Time or effort is used up. */
  final class GaveUp extends Exception {
    private static final long serialVersionUID = 1;
  }

  /** A new variable, from 1 up. */
  int variable();

  /** At least one of these holds. */
  void clause(int... literals);

  /**
   * The weights of those that hold come to no more than a bound.
   *
   * @param guard a literal without which this does not have to be; 0 for always
   */
  void atMost(int[] literals, int[] weights, int bound, int guard);

  /**
   * Whether all can hold, these besides.
   *
   * @throws GaveUp when the deadline has passed before it is known
   */
  boolean solve(int... assumptions) throws GaveUp;

  /**
   * After a {@link #solve} that said no: assumptions that cannot hold together, often far from all.
   */
  int[] reason();

  /** Whether it is known since the last {@link #solve} that a literal holds in every outcome. */
  boolean isSettled(int literal);

  /** Whether a literal holds in the outcome of the last {@link #solve} that said yes. */
  boolean holds(int literal);
}
