package ironing.core.workspace;

/**
 * A stage of the way of data: something that is worked out of a workspace and of nothing else.
 *
 * <p>Stages are told apart by identity: there is one object of each, in a constant.
 *
 * @param <V> what comes out; immutable, or fit for any number of threads
 */
public interface Stage<V> {
  /** Works it out with nothing known. */
  V of(Workspace now);

  /**
   * Works it out from what came out for another state of the same workspace, mostly the one before;
   * it is the same as {@link #of} gives, at a lower cost.
   *
   * @param known the outcome, which itself knows what it was worked out of: the state that it comes
   *     from may be gone
   */
  default V next(Workspace now, V known) {
    return of(now);
  }

  /** Whether an outcome is of use to whoever asks later. */
  default boolean lasts(V value) {
    return true;
  }

  /** About how many bytes of memory an outcome takes, beside what it shares with the workspace. */
  long bytes(V value);
}
