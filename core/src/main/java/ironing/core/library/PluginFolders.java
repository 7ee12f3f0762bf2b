package ironing.core.library;

import ironing.core.game.GameDefinition;
import ironing.core.path.GamePath;
import java.util.Collection;
import java.util.Optional;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The folders of an archive that are plugins of open text: each goes whole to where the game looks
 * for plugins, whatever its mounts hold.
 *
 * <p>Immutable. Cost: linear in the entries.
 */
final class PluginFolders {
  // mods/*/mod.json: one step for the plugin's own folder, and a manifest of one name in it
  private static final Pattern OF_FOLDERS = Pattern.compile("((?:[^*?]+/)?)\\*/([^*?/]+)");

  private final GameDefinition game;
  private final String at;
  private final String manifest;
  private final TreeSet<String> roots = new TreeSet<>();
  private final String top;

  private PluginFolders(GameDefinition game, String at, String manifest, String top) {
    this.game = game;
    this.at = at;
    this.manifest = manifest;
    this.top = top;
  }

  /**
   * @param entries of the archive
   * @param root where its content begins
   * @param top what a plugin is called by whose manifest lies at the top of the archive
   * @return empty for a game whose plugins are no folders in one place
   */
  static Optional<PluginFolders> of(
      GameDefinition game, Collection<String> entries, String root, String top) {
    Optional<Matcher> form = form(game);
    if (form.isEmpty()) return Optional.empty();
    String name = root.isEmpty() ? top : GamePath.name(root);
    PluginFolders folders = new PluginFolders(game, form.get().group(1), form.get().group(2), name);
    String prefix = root.isEmpty() ? "" : root + "/";
    for (String e : entries)
      if (e.startsWith(prefix) && folders.isManifest(e))
        folders.roots.add(GamePath.folder(e.substring(prefix.length())));
    return folders.roots.isEmpty() ? Optional.empty() : Optional.of(folders);
  }

  /** Of the folders with a manifest those that lie highest. */
  static Collection<String> highest(GameDefinition game, Collection<String> entries) {
    Optional<PluginFolders> all = of(game, entries, "", "");
    if (all.isEmpty()) return new TreeSet<>();
    int least = all.get().roots.stream().mapToInt(PluginFolders::steps).min().orElse(0);
    TreeSet<String> parents = new TreeSet<>();
    for (String r : all.get().roots) if (steps(r) == least) parents.add(GamePath.folder(r));
    return parents;
  }

  private static int steps(String folder) {
    return folder.isEmpty() ? 0 : folder.split("/").length;
  }

  private static Optional<Matcher> form(GameDefinition game) {
    return game.plugins()
        .filter(GameDefinition.Plugins::areFolders)
        .map(p -> OF_FOLDERS.matcher(GamePath.join(at(game, p), p.match().toString())))
        .filter(Matcher::matches);
  }

  private static String at(GameDefinition game, GameDefinition.Plugins plugins) {
    return game.mount(plugins.mount()).map(GameDefinition.Mount::at).orElse(".");
  }

  private boolean isManifest(String entry) {
    return game.pathCase().key(GamePath.name(entry)).equals(game.pathCase().key(manifest));
  }

  /**
   * Where a file of such a folder goes.
   *
   * @param relative from where the content begins
   * @return empty for a file of none
   */
  Optional<Placing.Place> place(String relative) {
    // the outermost: a manifest below another's folder is none
    String root = roots.contains("") ? "" : null;
    for (int slash = relative.indexOf('/');
        root == null && slash > 0;
        slash = relative.indexOf('/', slash + 1))
      if (roots.contains(relative.substring(0, slash))) root = relative.substring(0, slash);
    if (root == null) return Optional.empty();
    String below = root.isEmpty() ? relative : relative.substring(root.length() + 1);
    String folder = root.isEmpty() ? top : GamePath.name(root);
    String mount =
        game.mounts().stream()
            .filter(m -> (m.at().equals(".") ? "" : m.at() + "/").equals(at))
            .findFirst()
            .map(GameDefinition.Mount::id)
            .orElse("");
    return Optional.of(new Placing.Place(at + folder + "/" + below, mount, true));
  }
}
