package ironing.core.testrun;

/** How a run of the game went, as far as that can be told. */
public enum RunOutcome {
  /** It ended well, and its log says what it read. */
  PLAYED,
  /** It ended with code 0 and wrote no log: what it read cannot be told. */
  ENDED,
  /** It ended with another code, said that something was wrong, or nobody knows how it ended. */
  STOPPED;

  /**
   * @param exitCode null where nobody knows it
   * @param logged whether the run wrote a log
   * @param saidFault the line of its output that means a fault; empty for none
   */
  public static RunOutcome of(Integer exitCode, boolean logged, String saidFault) {
    if (exitCode == null || exitCode != 0 || !saidFault.isEmpty()) return STOPPED;
    return logged ? PLAYED : ENDED;
  }
}
