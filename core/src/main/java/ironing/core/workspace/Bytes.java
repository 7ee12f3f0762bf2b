package ironing.core.workspace;

import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.file.Path;

/**
 * Where the bytes of a workspace lie. How they are stored is none of the core's business.
 *
 * <p>Threads: any.
 */
public interface Bytes {
  /** Where the game’s own files lie. */
  GameRoots roots();

  /**
   * The folder of a mod: {@code content} below it holds what the game may see, under game paths;
   * beside that lies what was edited.
   *
   * @param folder as {@link Mod#folder} names it
   */
  Path modFolder(String folder);

  /**
   * A file of the game as it was before an update.
   *
   * @throws IOException where it is not kept
   */
  byte[] former(String sha256) throws IOException;
}
