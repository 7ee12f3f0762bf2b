package ironing.core.deploy;

import java.nio.file.Path;

/**
 * Where the bytes of a wanted file lie. How a library is laid out is none of the core's business.
 */
public interface Locator {
  /**
   * @param mod {@link ironing.core.layers.Holdings#GAME} for the game's own
   * @param spelled the path as that holder spells it
   */
  Path locate(long mod, String spelled);
}
