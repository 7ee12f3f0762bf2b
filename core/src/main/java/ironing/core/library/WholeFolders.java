package ironing.core.library;

import ironing.core.library.ContentLayout.Placed;
import ironing.core.path.GamePath;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Folders of an archive that can be moved as they are: all that lies in them goes to one folder of
 * the game, under the same names, and nothing else goes there. To move one costs as much as to move
 * a file.
 */
public final class WholeFolders {
  private WholeFolders() {}

  /**
   * The highest such folders, with where each goes; never the top of the archive or of the game.
   * Cost: the files times their depth.
   *
   * @param entries all of the archive
   * @param placed what goes into the game
   */
  public static Map<String, String> of(Collection<String> entries, List<Placed> placed) {
    Map<String, Integer> inFolder = new HashMap<>(), inTarget = new HashMap<>();
    Map<String, Integer> placedFrom = new HashMap<>();
    for (String e : entries) countUp(inFolder, e);
    Map<String, String> targetOf = new HashMap<>();
    Map<String, Integer> agree = new HashMap<>();
    for (Placed p : placed) {
      countUp(inTarget, p.gamePath());
      countUp(placedFrom, p.entry());
      String from = p.entry(), to = p.gamePath();
      while (GamePath.name(from).equals(GamePath.name(to))) {
        from = GamePath.folder(from);
        to = GamePath.folder(to);
        if (from.isEmpty() || to.isEmpty()) break;
        if (targetOf.merge(from, to, (a, b) -> a.equals(b) ? a : "").equals(to))
          agree.merge(from, 1, Integer::sum);
      }
    }
    Map<String, String> whole = new LinkedHashMap<>();
    for (Placed p : placed) {
      // one that goes to two places is there twice, and its folders are not whole
      String highest = null;
      for (String f = GamePath.folder(p.entry()); !f.isEmpty(); f = GamePath.folder(f))
        if (placedFrom.get(f).equals(inFolder.get(f))
            && isWhole(f, targetOf, agree, inFolder, inTarget)) highest = f;
      if (highest != null) whole.put(highest, targetOf.get(highest));
    }
    return whole;
  }

  private static boolean isWhole(
      String folder,
      Map<String, String> targetOf,
      Map<String, Integer> agree,
      Map<String, Integer> inFolder,
      Map<String, Integer> inTarget) {
    String target = targetOf.getOrDefault(folder, "");
    int all = inFolder.getOrDefault(folder, 0);
    return !target.isEmpty()
        && agree.getOrDefault(folder, 0) == all
        && inTarget.getOrDefault(target, 0) == all;
  }

  private static void countUp(Map<String, Integer> counts, String path) {
    for (String f = GamePath.folder(path); !f.isEmpty(); f = GamePath.folder(f))
      counts.merge(f, 1, Integer::sum);
  }
}
