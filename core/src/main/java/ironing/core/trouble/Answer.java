package ironing.core.trouble;

/** What trying a set has shown of the fault that is searched for. */
public enum Answer {
  /** The fault shows. */
  FAILS,
  /** It does not, and the game came as far as it would have to show. */
  WORKS,
  /** It cannot be told, such as when the game ended before. */
  CANNOT_TELL,
  /** The game stopped over something else. */
  ANOTHER_FAULT;

  /** Whether it says anything of the fault that is searched for. */
  public boolean tells() {
    return this == FAILS || this == WORKS;
  }
}
