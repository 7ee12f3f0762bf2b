package ironing.core.workspace;

import ironing.core.deploy.Deployer;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.picture.Picture;
import ironing.core.plugin.Shapes;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;

/**
 * Where each file of the game and of the mods lies on this machine.
 *
 * <p>Threads: immutable.
 */
public record FilePlaces(Map<Long, Mod> mods, Bytes bytes, PluginTables tables) {
  /** The folder of what the game may see, in that of a mod. */
  public static final String CONTENT = "content";

  /**
   * A file of the game that a mod has replaced lies among the kept originals.
   *
   * @param mod 0 for the game
   * @param path as its holder spells it
   */
  public Path locate(long mod, String path) {
    if (mod != Holdings.GAME) {
      Mod m = mods.get(mod);
      Path folder = bytes.modFolder(m.folder());
      String stored = m.edited().get(path);
      return stored == null
          ? GamePath.resolve(folder.resolve(CONTENT), path)
          : GamePath.resolve(folder, stored);
    }
    Path kept = Deployer.keptOriginal(bytes.gameFolder(), path);
    return Files.exists(kept) ? kept : GamePath.resolve(bytes.gameFolder(), path);
  }

  /** What the picture asks of plugins. */
  public Picture.Headers headers(Shapes shapes) {
    return new Picture.Headers() {
      @Override
      public Picture.HeaderOrFlaw header(String name, long mod, String path, String sha256) {
        PluginTables.TableOrFlaw t = tables.of(sha256, name, shapes, locate(mod, path));
        return new Picture.HeaderOrFlaw(t.header(), t.flaw());
      }

      @Override
      public boolean isMend(long mod) {
        return mods.containsKey(mod) && mods.get(mod).isMend();
      }
    };
  }
}
