package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.library.ContentDifference;
import ironing.core.path.GamePath;
import ironing.core.picture.Arrangement;
import ironing.core.plugin.Plugin;
import ironing.core.workspace.Mod;
import ironing.core.workspace.PluginTables;
import ironing.server.layers.DifferenceView;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.Changed;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** The versions of one mod: what another in its place would change, and putting it there. */
@Component
class Versions {
  private static final int SAMPLES = 500;
  private final LibraryMapper db;
  private final OpenWorkspaces workspaces;

  Versions(LibraryMapper db, OpenWorkspaces workspaces) {
    this.db = db;
    this.workspaces = workspaces;
  }

  /** A file of a version that is not installed yet, or of one that is. */
  record FileOf(String path, String sha256, Path place) {}

  /** Files that two mods both have. */
  record Collision(long mod, String name, int paths) {}

  /** A plugin whose masters are not those that it had. Absent lists: it comes, or goes. */
  record PluginChange(
      String name, @MayBeAbsent List<String> before, @MayBeAbsent List<String> after) {}

  /** Paths, and how many there are in all. */
  record Paths(int total, List<String> first) {
    static Paths of(List<String> all) {
      return new Paths(all.size(), all.stream().limit(SAMPLES).toList());
    }
  }

  /**
   * What another version in a mod's place would change.
   *
   * @param collisionsNew paths that only the new version shares with others, by mod
   * @param game the difference in what the game would see; absent when the version is not installed
   */
  record Replacement(
      long mod,
      String name,
      String version,
      Paths added,
      Paths gone,
      Paths different,
      List<Collision> collisionsNew,
      List<Collision> collisionsGone,
      List<PluginChange> plugins,
      @MayBeAbsent DifferenceView game) {}

  /** What the game would see differently, and how the files differ, with another version in use. */
  Replacement compare(long workspace, long mod, long other) {
    OpenWorkspace open = workspaces.get(workspace);
    Mod before = open.required(mod), after = open.required(other);
    if (before.strand() != after.strand()) {
      throw IroningException.of(
          "other-mod",
          after.card().name(),
          "It is no version of " + before.card().name() + ".",
          "Choose one of its versions.");
    }
    List<FileOf> files =
        db.allFiles(other).stream()
            .filter(f -> f.pack().isEmpty())
            .map(f -> new FileOf(f.path(), f.sha256(), open.value().locate(other, f.path())))
            .toList();
    DifferenceView game =
        open.inUse(mod) ? DifferenceView.of(Changed.as(open, with(open, mod, other))) : null;
    return replacement(open, before, files, game);
  }

  private static Arrangement with(OpenWorkspace open, long mod, long other) {
    return open.picture().arrangement().withInstead(mod, other);
  }

  /** The same for a version that only lies unpacked. */
  Replacement compare(OpenWorkspace open, long mod, Collection<FileOf> files) {
    return replacement(open, open.required(mod), files, null);
  }

  private Replacement replacement(
      OpenWorkspace open, Mod mod, Collection<FileOf> files, DifferenceView game) {
    Map<String, String> before = new TreeMap<>(), after = new TreeMap<>();
    for (FileRow f : db.allFiles(mod.id()))
      if (f.pack().isEmpty()) before.put(f.path(), f.sha256());
    for (FileOf f : files) after.put(f.path(), f.sha256());
    ContentDifference d = ContentDifference.between(open.game().pathCase(), before, after);
    Set<Long> own = Intake.strandOf(open, mod.id());
    return new Replacement(
        mod.id(),
        mod.card().name(),
        mod.card().shownVersion(),
        Paths.of(d.added()),
        Paths.of(d.gone()),
        Paths.of(d.different()),
        collisions(open, d.added(), own),
        collisions(open, d.gone(), own),
        plugins(open, mod, before, files),
        game);
  }

  /**
   * Who holds some of these paths, and stands; most paths first.
   *
   * @param without mods that do not count
   */
  static List<Collision> collisions(
      OpenWorkspace open, Collection<String> paths, Set<Long> without) {
    Holdings holdings = open.picture().holdings();
    Standing standing = open.picture().standing();
    Map<Long, Integer> counts = new HashMap<>();
    for (String path : paths) {
      int id = holdings.idOf(path);
      if (id < 0) continue;
      standing.holders(id).stream()
          .map(slot -> holdings.holderAt(slot).mod())
          .distinct()
          .filter(m -> !without.contains(m))
          .forEach(m -> counts.merge(m, 1, Integer::sum));
    }
    return counts.entrySet().stream()
        .map(e -> new Collision(e.getKey(), open.nameOf(e.getKey()), e.getValue()))
        .sorted((a, b) -> b.paths() - a.paths())
        .toList();
  }

  private List<PluginChange> plugins(
      OpenWorkspace open, Mod mod, Map<String, String> before, Collection<FileOf> files) {
    // a manifest of text is among the files that are compared, line by line
    if (open.game().hasDocumentPlugins()) return List.of();
    Map<String, List<String>> was = new TreeMap<>(), is = new TreeMap<>();
    before.forEach(
        (path, sha) -> {
          if (open.game().isPlugin(path))
            was.put(
                GamePath.name(path), masters(open, path, sha, open.value().locate(mod.id(), path)));
        });
    for (FileOf f : files)
      if (open.game().isPlugin(f.path()))
        is.put(GamePath.name(f.path()), masters(open, f.path(), f.sha256(), f.place()));
    List<PluginChange> out = new ArrayList<>();
    was.forEach(
        (name, masters) -> {
          if (!masters.equals(is.get(name))) out.add(new PluginChange(name, masters, is.get(name)));
        });
    is.forEach(
        (name, masters) -> {
          if (!was.containsKey(name)) out.add(new PluginChange(name, null, masters));
        });
    return out;
  }

  private static List<String> masters(OpenWorkspace open, String path, String sha, Path file) {
    PluginTables tables = open.value().files().tables();
    return tables
        .of(open.game(), sha, GamePath.name(path), open.shapes(), file)
        .header()
        .map(Plugin.Header::masters)
        .orElse(List.of());
  }

  /** Puts another version in a mod's place: one step of the timeline. */
  OpenWorkspace use(long workspace, Expected expected, long mod, long other) {
    return workspaces
        .change(
            workspace,
            expected,
            open ->
                "Put "
                    + open.mods().get(other).card().spoken()
                    + " in place of "
                    + open.mods().get(mod).card().spoken(),
            open -> {
              if (open.required(mod).strand() != open.required(other).strand())
                throw IroningException.of(
                    "not-a-version",
                    open.nameOf(other),
                    "It is no version of “" + open.nameOf(mod) + "”, but another mod.",
                    "Take a version of the same mod; another mod has a layer of its own.");
              if (!open.inUse(mod)) {
                throw IroningException.of(
                    "changed-meanwhile",
                    open.nameOf(mod),
                    "This version is not the one in use any more.",
                    "Look at it as it is now, and do it again.");
              }
              return open.picture().arrangement().withInstead(mod, other);
            })
        .after();
  }

  /** The mods of a card's id, by number. */
  List<Long> ofId(long workspace, String cardId) {
    return db.modsOfId(workspace, cardId);
  }
}
