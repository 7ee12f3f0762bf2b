package ironing.server.workspace;

import ironing.core.game.GameDefinition;
import ironing.core.path.GameRoots;
import java.nio.file.Path;

/** Where the game of a workspace lies: what is known of it before its mods are read. */
public record Site(long workspace, GameRoots roots, GameDefinition game) {
  public Path gameFolder() {
    return roots.folder();
  }
}
