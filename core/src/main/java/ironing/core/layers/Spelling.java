package ironing.core.layers;

import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * How paths are written to disk when the game ignores case: a file as the unmodded game spells it,
 * else as the highest layer does; a folder as the lowest layer that has it.
 *
 * <p>Cost: one pass over the folders of every standing layer. Immutable.
 */
public final class Spelling {
  private final Standing standing;
  private final PathCase pathCase;
  private final Map<String, String> folders = new HashMap<>();

  private Spelling(Standing standing, PathCase pathCase) {
    this.standing = standing;
    this.pathCase = pathCase;
  }

  public static Spelling of(Standing standing, PathCase pathCase) {
    Spelling s = new Spelling(standing, pathCase);
    if (pathCase == PathCase.INSENSITIVE) s.collectFolders();
    return s;
  }

  private void collectFolders() {
    Holdings holdings = standing.holdings();
    for (int source : standing.order()) {
      if (holdings.source(source).pack().isPresent()) continue;
      holdings.foldersOf(source).forEach(this::folder);
    }
  }

  /** The folder as it is spelled on disk, learning this spelling where none is known yet. */
  private String folder(String folder) {
    if (folder.isEmpty()) return "";
    String key = pathCase.key(folder);
    String known = folders.get(key);
    if (known != null) return known;
    String spelled = join(folder(GamePath.folder(folder)), GamePath.name(folder));
    folders.put(key, spelled);
    return spelled;
  }

  /** The path as it is to be on disk. Asked only of paths that have a file in play. */
  public String of(int path) {
    Holdings holdings = standing.holdings();
    if (pathCase == PathCase.SENSITIVE) return holdings.path(path);
    List<Integer> holders = standing.holders(path);
    for (int slot : holders) {
      Holdings.Source s = holdings.holderAt(slot);
      if (s.mod() == Holdings.GAME && s.pack().isEmpty()) return holdings.spellingAt(slot);
    }
    String top = holdings.spellingAt(holders.get(0));
    String key = pathCase.key(GamePath.folder(top));
    return join(folders.getOrDefault(key, GamePath.folder(top)), GamePath.name(top));
  }

  private static String join(String folder, String name) {
    return folder.isEmpty() ? name : folder + "/" + name;
  }
}
