package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.path.GamePath;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFormat;
import ironing.server.workspace.OpenWorkspace;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** A plugin's header, for a look at it before it is in play. */
final class PluginLooks {
  private PluginLooks() {}

  /** What a plugin says of itself, and how many records it has. */
  record HeaderView(
      String name,
      int stage,
      List<String> masters,
      String title,
      String author,
      String version,
      String about,
      int records) {}

  /**
   * @throws IroningException when it does not decode, with the offset
   */
  static HeaderView header(OpenWorkspace open, String path, Path file) {
    try {
      Plugin p =
          open.value()
              .files()
              .format(open.game())
              .read(PluginFormat.Source.of(GamePath.name(path), Files.readAllBytes(file)));
      Plugin.Header h = p.header();
      return new HeaderView(
          p.name(),
          h.stage(),
          h.masters(),
          h.title().orElse(""),
          h.author().orElse(""),
          h.version().orElse(""),
          h.about().orElse(""),
          p.records().size());
    } catch (IOException e) {
      throw ModStore.failed(path, e);
    }
  }
}
