package ironing.server.workbench;

import ironing.core.IroningException;
import ironing.core.layers.Holdings;
import ironing.core.path.GamePath;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.server.platform.Folders;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
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
   */
  public Path locate(long workspace, Path gameFolder, long mod, String path) {
    if (mod != Holdings.GAME) return GamePath.resolve(folders.content(workspace, mod), path);
    Path kept = gameFolder.resolve(".ironing/kept").resolve(path);
    return Files.exists(kept) ? kept : GamePath.resolve(gameFolder, path);
  }

  public Decoding plugin(
      long workspace, Path gameFolder, String name, long mod, String path, String sha256) {
    String key = sha256 + "/" + name;
    synchronized (decoded) {
      Decoding known = decoded.get(key);
      if (known != null) return known;
    }
    Decoding fresh = decode(workspace, gameFolder, name, mod, path);
    synchronized (decoded) {
      decoded.put(key, fresh);
    }
    return fresh;
  }

  /** The headers of a workspace's plugins, for the picture. */
  Picture.Headers headers(long workspace, Path gameFolder) {
    return (name, mod, path, sha256) -> {
      Decoding d = plugin(workspace, gameFolder, name, mod, path, sha256);
      return new Picture.HeaderOrFlaw(d.plugin().map(Plugin::header), d.flaw());
    };
  }

  private Decoding decode(long workspace, Path gameFolder, String name, long mod, String path) {
    try {
      byte[] bytes = Files.readAllBytes(locate(workspace, gameFolder, mod, path));
      return new Decoding(Optional.of(PluginCodec.decode(name, bytes).plugin()), Optional.empty());
    } catch (IroningException e) {
      return new Decoding(Optional.empty(), Optional.of(e.problems().get(0).reason()));
    } catch (IOException e) {
      return new Decoding(
          Optional.empty(), Optional.of("The file cannot be read: " + e.getMessage() + "."));
    }
  }
}
