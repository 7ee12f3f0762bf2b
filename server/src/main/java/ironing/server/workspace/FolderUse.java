package ironing.server.workspace;

import ironing.core.IroningException;
import ironing.core.deploy.FolderLock;
import ironing.core.path.GameRoots;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * One use of a game folder at a time: the game runs there, or its files are changed. While it lasts
 * the folder is locked against other programs too; see {@link FolderLock}.
 *
 * <p>Invariant: nothing in a game folder is changed by us but by a thread that has it in use for
 * that; {@link #requireMine} holds it. A piece of work may go on with other uses of a folder that
 * it has in use already, so that nobody else comes in between; only the game itself is never
 * joined.
 */
@Component
public class FolderUse {
  private final Map<Long, Held> uses = new HashMap<>();

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
   * @param outer what the same work had it in use for before; null for nothing
   * @param locks of the outermost one: on the folder, and on the places beside it
   */
  private record Held(Use use, Thread by, Held outer, List<FolderLock> locks) {}

  /**
   * Takes the folder for one use, until {@link #end}.
   *
   * @throws IroningException with code {@code busy} when it is in use
   */
  public void begin(OpenWorkspace open, Use use) {
    begin(open.workspace(), open.roots(), open.title(), use);
  }

  /** The same for a workspace whose files were not read yet. */
  public void begin(Site site, Use use) {
    begin(site.workspace(), site.roots(), site.gameFolder().toString(), use);
  }

  private synchronized void begin(long workspace, GameRoots roots, String title, Use use) {
    Held present = uses.get(workspace);
    if (present != null) {
      boolean mine = present.by == Thread.currentThread() && present.use != Use.RUNNING;
      if (!mine || use == Use.RUNNING) throw busy(title, present.use);
      uses.put(workspace, new Held(use, present.by, present, List.of()));
      return;
    }
    uses.put(workspace, new Held(use, Thread.currentThread(), null, locks(roots)));
  }

  private static List<FolderLock> locks(GameRoots roots) {
    List<FolderLock> taken = new ArrayList<>();
    try {
      for (String top : roots.tops()) FolderLock.take(roots.at(top)).ifPresent(taken::add);
    } catch (RuntimeException held) {
      taken.forEach(FolderLock::close);
      throw held;
    }
    return taken;
  }

  /** What it is in use for now; empty for nothing. */
  public synchronized Optional<Use> present(long workspace) {
    return Optional.ofNullable(uses.get(workspace)).map(Held::use);
  }

  /** Ends the use that was begun last. */
  public synchronized void end(long workspace) {
    Held present = uses.remove(workspace);
    if (present == null) return;
    if (present.outer != null) uses.put(workspace, present.outer);
    present.locks.forEach(FolderLock::close);
  }

  /**
   * To call before a file of the folder is changed.
   *
   * @throws IllegalStateException when the caller does not have the folder in use
   */
  public synchronized void requireMine(long workspace) {
    Held present = uses.get(workspace);
    boolean mine =
        present != null && present.by == Thread.currentThread() && present.use != Use.RUNNING;
    if (!mine)
      throw new IllegalStateException(
          "files of workspace " + workspace + " are changed without having its folder in use");
  }

  /**
   * @throws IroningException with code {@code busy} when the game or a tool runs
   */
  public synchronized void requireStill(OpenWorkspace open) {
    Held present = uses.get(open.workspace());
    if (present == null || present.use == Use.CHANGING) return;
    if (present.by == Thread.currentThread() && present.use == Use.TOOL) return;
    throw busy(open.title(), present.use);
  }

  private static IroningException busy(String title, Use use) {
    return IroningException.of("busy", title, use.reason, use.remedy);
  }
}
