package ironing.core.path;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Gives each distinct game path a small int, so that everything behind it works on int arrays.
 *
 * <p>Invariant: ids run 0..size()-1 without a gap, in order of first sight, and are never reused.
 * The spelling kept is the first one seen.
 *
 * <p>Threads: one writer while it is filled; any number of readers afterwards.
 *
 * <p>Cost: idOf is linear in the path's length, pathOf constant.
 */
public final class PathTable {
  private final PathCase pathCase;
  private final Map<String, Integer> ids = new HashMap<>();
  private final List<String> spellings = new ArrayList<>();

  public PathTable(PathCase pathCase) {
    this.pathCase = pathCase;
  }

  /** The id of a path, a new one at first sight. */
  public int intern(String path) {
    String key = pathCase.key(path);
    Integer known = ids.get(key);
    if (known != null) return known;
    ids.put(key, spellings.size());
    spellings.add(path);
    return spellings.size() - 1;
  }

  /** The id of a path that may be unknown, -1 then. */
  public int idOf(String path) {
    return ids.getOrDefault(pathCase.key(path), -1);
  }

  public String pathOf(int id) {
    return spellings.get(id);
  }

  public int size() {
    return spellings.size();
  }
}
