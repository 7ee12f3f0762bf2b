package ironing.server.workbench;

import ironing.core.IroningException;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** One use of a game folder at a time: the game runs there, or its files are changed. */
@Component
public class FolderUse {
  private final Map<Long, Use> uses = new ConcurrentHashMap<>();

  /** What a folder is in use for. */
  public enum Use {
    RUNNING("The game is running.", "Wait until it ends, or stop it."),
    TOOL("A tool is running there.", "Wait until it ends, or stop it."),
    CHANGING("Files are being put into its folder.", "Wait until that is done.");

    private final String reason;
    private final String remedy;

    Use(String reason, String remedy) {
      this.reason = reason;
      this.remedy = remedy;
    }
  }

  /**
   * Takes the folder for one use, until {@link #end}.
   *
   * @throws IroningException with code {@code busy} when it is in use
   */
  public void begin(Bench bench, Use use) {
    Use present = uses.putIfAbsent(bench.workspace(), use);
    if (present != null) throw busy(bench, present);
  }

  /** What it is in use for now; empty for nothing. */
  public Optional<Use> present(long workspace) {
    return Optional.ofNullable(uses.get(workspace));
  }

  public void end(long workspace) {
    uses.remove(workspace);
  }

  /**
   * @throws IroningException with code {@code busy} when the game or a tool runs
   */
  public void requireStill(Bench bench) {
    Use use = uses.get(bench.workspace());
    if (use == Use.RUNNING || use == Use.TOOL) throw busy(bench, use);
  }

  private static IroningException busy(Bench bench, Use use) {
    return IroningException.of("busy", bench.title(), use.reason, use.remedy);
  }
}
