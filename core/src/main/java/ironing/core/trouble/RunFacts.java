package ironing.core.trouble;

import ironing.core.testrun.RunLog;
import java.util.Optional;

/**
 * What is known of a run that is over.
 *
 * @param exitCode empty where nobody knows it
 * @param log empty where the game wrote none
 * @param saidFault the line of its output that means a fault; empty for none
 * @param ms how long it took
 * @param cutOff whether it was ended because it took longer than it may
 * @param peakBytes the most memory that it had at a time; empty where nobody knows it
 */
public record RunFacts(
    Optional<Integer> exitCode,
    Optional<RunLog.Summary> log,
    String saidFault,
    long ms,
    boolean cutOff,
    Optional<Long> peakBytes) {
  /** Whether the game came to its end with nothing that stopped it. */
  boolean cameToItsEnd() {
    return !cutOff
        && exitCode.filter(c -> c == 0).isPresent()
        && saidFault.isEmpty()
        && log.flatMap(RunLog.Summary::fault).isEmpty()
        && log.map(l -> l.end().filter(e -> e == 0).isPresent()).orElse(true);
  }
}
