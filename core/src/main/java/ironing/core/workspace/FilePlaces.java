package ironing.core.workspace;

import ironing.core.deploy.Deployer;
import ironing.core.documents.DocumentReader;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.picture.Picture;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;

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
    Path kept = Deployer.keptOriginal(bytes.roots(), path);
    return Files.exists(kept) ? kept : bytes.roots().at(path);
  }

  /** The records of a plugin that is open text, or why it cannot be read. */
  public PluginTables.TableOrFlaw read(PluginFiles plugin, GameDefinition game) {
    return tables.of(plugin, game, Shapes.of(game), documents());
  }

  /** A plugin of several files, or one document. */
  public PluginFormat.Source source(PluginFiles plugin) {
    return PluginTables.source(plugin, documents());
  }

  /** How the plugins of the game are read and written. */
  public PluginFormat format(GameDefinition game) {
    return tables.format(game);
  }

  /** The bytes of a plugin's part. */
  DocumentReader.Bytes documents() {
    return part -> Files.readAllBytes(locate(part.mod(), part.spelled()));
  }

  /** What the picture asks of plugins. */
  public Picture.Headers headers(GameDefinition game) {
    Shapes shapes = Shapes.of(game);
    return new Picture.Headers() {
      @Override
      public Picture.NamedHeader document(PluginFiles files) {
        PluginTables.TableOrFlaw t = tables.of(files, game, shapes, documents());
        String name = t.table().map(RecordTable::name).orElseGet(() -> toldAs(game, files));
        return new Picture.NamedHeader(name, new Picture.HeaderOrFlaw(t.header(), t.flaw()));
      }

      @Override
      public Optional<byte[]> own(String path) {
        return bytes(locate(Holdings.GAME, path));
      }

      @Override
      public Optional<byte[]> part(PluginFiles.Part part) {
        return bytes(locate(part.mod(), part.spelled()));
      }

      @Override
      public Picture.HeaderOrFlaw header(String name, long mod, String path, String sha256) {
        PluginTables.TableOrFlaw t = tables.of(game, sha256, name, shapes, locate(mod, path));
        return new Picture.HeaderOrFlaw(t.header(), t.flaw());
      }

      @Override
      public boolean isMend(long mod) {
        return mods.containsKey(mod) && mods.get(mod).isMend();
      }
    };
  }

  private static Optional<byte[]> bytes(Path file) {
    try {
      return Optional.of(Files.readAllBytes(file));
    } catch (IOException e) {
      // that it is away is told where it is missed
      return Optional.empty();
    }
  }

  // one that cannot be read has no name of its own
  private static String toldAs(GameDefinition game, PluginFiles files) {
    boolean folder = game.plugins().filter(GameDefinition.Plugins::areFolders).isPresent();
    return folder && !files.folder().isEmpty()
        ? GamePath.name(files.folder())
        : GamePath.name(files.manifest());
  }
}
