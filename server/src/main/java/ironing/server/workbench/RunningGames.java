package ironing.server.workbench;

import ironing.core.IroningException;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** Which games are running now: while one does, nobody may change the files under it. */
@Component
public class RunningGames {
  private final Set<Long> running = ConcurrentHashMap.newKeySet();

  /**
   * @throws IroningException with code {@code busy} when it runs already
   */
  public void started(Bench bench) {
    if (!running.add(bench.workspace())) throw busy(bench);
  }

  public void ended(long workspace) {
    running.remove(workspace);
  }

  /**
   * @throws IroningException with code {@code busy} when the game runs
   */
  public void requireStill(Bench bench) {
    if (running.contains(bench.workspace())) throw busy(bench);
  }

  private static IroningException busy(Bench bench) {
    return IroningException.of(
        "busy", bench.title(), "The game is running.", "Wait until it ends, or stop it.");
  }
}
