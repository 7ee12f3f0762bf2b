package ironing.core.plugin;

import ironing.core.archive.ContentHash;
import ironing.core.path.GamePath;
import java.nio.charset.StandardCharsets;
import java.util.List;

/**
 * The files that a plugin is made of, as they are in play, whoever brought them. Immutable.
 *
 * @param manifest game path of its one file, or of its manifest
 * @param parts the manifest first, then those with records, by path
 */
public record PluginFiles(String manifest, List<Part> parts) {
  /**
   * @param below path below the plugin's folder
   * @param spelled game path as its holder spells it
   */
  public record Part(String below, long mod, String spelled, String sha256) {}

  public PluginFiles {
    parts = List.copyOf(parts);
  }

  /** Game path of its folder; empty for the game's own folder. */
  public String folder() {
    return GamePath.folder(manifest);
  }

  /**
   * By what manifests are sorted so that each folder stands right before the folders below it:
   * without the last slash, a/b would come before a of a/m.json, and a-b between a and a/b.
   */
  public static String sortedBy(String manifest) {
    return GamePath.folder(manifest) + "/";
  }

  /** The same for two that the game reads alike, wherever their files come from. */
  public String sha256() {
    StringBuilder all = new StringBuilder();
    for (Part p : parts) all.append(p.sha256()).append(' ').append(p.below()).append('\n');
    return ContentHash.of(all.toString().getBytes(StandardCharsets.UTF_8));
  }
}
