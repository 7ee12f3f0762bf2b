package ironing.server.workbench;

import ironing.core.IroningException;
import ironing.core.deploy.Deployer;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.server.platform.Folders;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.springframework.stereotype.Component;

/**
 * Finds the bytes of a file in play, and keeps plugins decoded by content, so that a change of
 * order decodes nothing again.
 */
@Component
public class ContentStore {
  private static final int REMEMBERED = 5_000;
  private final Folders folders;
  private final Map<String, Decoding> decoded =
      new LinkedHashMap<>(64, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Decoding> eldest) {
          return size() > REMEMBERED;
        }
      };

  ContentStore(Folders folders) {
    this.folders = folders;
  }

  /** A decoded plugin, or why it cannot be. */
  public record Decoding(Optional<Plugin> plugin, Optional<String> flaw) {}

  /**
   * Where the bytes of a file lie. A file of the game that a mod has replaced lies among the kept
   * originals.
   *
   * @param path as its holder spells it
   */
  public Path locate(Bench bench, long mod, String path) {
    return locate(bench.workspace(), bench.gameFolder(), bench.mods(), mod, path);
  }

  private Path locate(
      long workspace, Path gameFolder, Map<Long, Bench.Mod> mods, long mod, String path) {
    if (mod != Holdings.GAME) {
      Bench.Mod m = mods.get(mod);
      String stored = m.edited().get(path);
      return stored == null
          ? GamePath.resolve(folders.content(workspace, m.folder()), path)
          : GamePath.resolve(folders.mods(workspace).resolve(m.folder()), stored);
    }
    Path kept = Deployer.keptOriginal(gameFolder, path);
    return Files.exists(kept) ? kept : GamePath.resolve(gameFolder, path);
  }

  /**
   * The first bytes of a file, be it loose or in a pack.
   *
   * @param slot as the holdings number it
   */
  public byte[] read(Bench bench, int slot, int most) throws IOException {
    Holdings holdings = bench.picture().holdings();
    Holdings.Source source = holdings.holderAt(slot);
    String spelled = holdings.spellingAt(slot);
    if (source.pack().isEmpty()) {
      try (InputStream in = Files.newInputStream(locate(bench, source.mod(), spelled))) {
        return in.readNBytes(most);
      }
    }
    Path pack = locate(bench, source.mod(), source.pack().get());
    try (ZipFile zip = new ZipFile(pack.toFile())) {
      ZipEntry entry = zip.getEntry(bench.game().nameInPack(spelled));
      if (entry == null) throw new NoSuchFileException(pack + ": " + spelled);
      return zip.getInputStream(entry).readNBytes(most);
    }
  }

  /** The plugins that are on and decode, in load order: what the game reads. */
  public List<Plugin> active(Bench bench) {
    List<Plugin> plugins = new ArrayList<>();
    bench
        .picture()
        .loadOrder()
        .active()
        .forEach(
            e -> {
              String path = bench.game().pluginPath(e.name());
              plugin(bench, e.name(), e.plugin().mod(), path, e.plugin().sha256())
                  .plugin()
                  .ifPresent(plugins::add);
            });
    return plugins;
  }

  public Decoding plugin(Bench bench, String name, long mod, String path, String sha256) {
    return plugin(sha256, name, locate(bench, mod, spelled(bench, path)));
  }

  /** The path as the holder in play spells it, which is how it lies in the library. */
  private static String spelled(Bench bench, String path) {
    int id = bench.picture().holdings().idOf(path);
    int slot = id < 0 ? -1 : bench.picture().standing().inPlay(id);
    return slot < 0 ? path : bench.picture().holdings().spellingAt(slot);
  }

  /** A plugin by its content, wherever the file lies. */
  public Decoding plugin(String sha256, String name, Path file) {
    String key = sha256 + "/" + name;
    synchronized (decoded) {
      Decoding known = decoded.get(key);
      if (known != null) return known;
    }
    Decoding fresh;
    try {
      fresh = decode(name, Files.readAllBytes(file));
    } catch (IOException e) {
      // not remembered: the drive may be connected again at the next look
      return new Decoding(
          Optional.empty(), Optional.of("The file cannot be read: " + e.getMessage() + "."));
    }
    synchronized (decoded) {
      decoded.put(key, fresh);
    }
    return fresh;
  }

  /** The headers of a workspace's plugins, for the picture. */
  Picture.Headers headers(long workspace, Path gameFolder, Map<Long, Bench.Mod> mods) {
    return new Picture.Headers() {
      @Override
      public Picture.HeaderOrFlaw header(String name, long mod, String path, String sha256) {
        Decoding d = plugin(sha256, name, locate(workspace, gameFolder, mods, mod, path));
        return new Picture.HeaderOrFlaw(d.plugin().map(Plugin::header), d.flaw());
      }

      @Override
      public boolean isMend(long mod) {
        return mods.containsKey(mod) && mods.get(mod).isMend();
      }
    };
  }

  private static Decoding decode(String name, byte[] bytes) {
    try {
      return new Decoding(Optional.of(PluginCodec.decode(name, bytes).plugin()), Optional.empty());
    } catch (IroningException e) {
      return new Decoding(Optional.empty(), Optional.of(e.problems().get(0).reason()));
    }
  }
}
