package ironing.server.workspace;

import ironing.core.game.GameDefinition;
import java.nio.file.Path;

/** Where the game of a workspace lies: what is known of it before its mods are read. */
public record Site(long workspace, Path gameFolder, GameDefinition game) {}
