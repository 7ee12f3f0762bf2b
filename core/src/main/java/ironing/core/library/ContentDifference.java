package ironing.core.library;

import ironing.core.path.PathCase;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * How the files of two versions of one mod differ, as the game compares paths.
 *
 * @param added paths that only the second has, and so on; each in the order of the paths
 */
public record ContentDifference(List<String> added, List<String> gone, List<String> different) {
  /**
   * @param before and {@code after}: game path to SHA-256
   */
  public static ContentDifference between(
      PathCase pathCase, Map<String, String> before, Map<String, String> after) {
    Map<String, String> old = new TreeMap<>();
    before.keySet().forEach(p -> old.put(pathCase.key(p), p));
    List<String> added = new ArrayList<>(), different = new ArrayList<>();
    for (String path : new TreeMap<>(after).keySet()) {
      String was = old.remove(pathCase.key(path));
      if (was == null) added.add(path);
      else if (!before.get(was).equals(after.get(path))) different.add(path);
    }
    return new ContentDifference(
        List.copyOf(added), List.copyOf(old.values()), List.copyOf(different));
  }

  public boolean isNone() {
    return added.isEmpty() && gone.isEmpty() && different.isEmpty();
  }
}
