package ironing.core.path;

import ironing.core.keep.KeptReader;
import ironing.core.keep.KeptWriter;
import java.io.IOException;
import java.util.List;

/**
 * Two tables of paths read as one. Each path is in the one that its hash names, so that two threads
 * can fill them side by side, and what is equal meets in one of them.
 *
 * <p>Invariant: ids run 0..size()-1 without a gap, those of the first table before those of the
 * second.
 *
 * <p>Threads: any number of readers.
 */
public final class SplitPaths {
  /** How many tables there are. */
  public static final int PARTS = 2;

  private static final int PART_BIT = 31;
  private final PathTable first;
  private final PathTable second;

  /**
   * @param parts filled, and not to be altered any more
   */
  public SplitPaths(List<PathTable> parts) {
    this.first = parts.get(0);
    this.second = parts.get(1);
  }

  /** Reads what {@link #write} wrote of paths that compare in the same way. */
  public SplitPaths(PathCase pathCase, KeptReader in) throws IOException {
    this.first = new PathTable(pathCase, in);
    this.second = new PathTable(pathCase, in);
  }

  public void write(KeptWriter out) throws IOException {
    first.write(out);
    second.write(out);
  }

  /**
   * The table to which a path belongs.
   *
   * @param hash what {@link PathTable#hash} says
   */
  public static int partOf(long hash) {
    return (int) (hash >>> PART_BIT) & 1;
  }

  /** The id of what has an id in one of the tables. */
  public int id(int part, int idThere) {
    return part == 0 ? idThere : first.size() + idThere;
  }

  public int size() {
    return first.size() + second.size();
  }

  /** The path as it was spelled at first sight. */
  public String pathOf(int id) {
    return id < first.size() ? first.pathOf(id) : second.pathOf(id - first.size());
  }

  /** False when a path cannot end so; see {@link PathTable#mayEndIn}. */
  public boolean mayEndIn(int id, byte[] tail) {
    return id < first.size() ? first.mayEndIn(id, tail) : second.mayEndIn(id - first.size(), tail);
  }

  /** The id of a path that may be unknown, -1 then. */
  public int idOf(String path) {
    byte[] key = first.keyOf(path);
    int part = partOf(first.hashOfKey(key));
    int there = (part == 0 ? first : second).idOfKey(key);
    return there < 0 ? -1 : id(part, there);
  }
}
