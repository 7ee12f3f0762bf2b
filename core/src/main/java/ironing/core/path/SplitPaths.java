package ironing.core.path;

import ironing.core.arrayfile.ArrayFileReader;
import ironing.core.arrayfile.ArrayFileWriter;
import java.io.IOException;
import java.util.List;

/**
 * Two tables of paths read as one, and behind them a third of the paths that came later. Each path
 * is in the one of the two that its hash names, so that two threads can fill them side by side, and
 * what is equal meets in one of them; one that is in neither of them may be in the third.
 *
 * <p>Invariant: ids run 0..size()-1 without a gap, those of the first table before those of the
 * second, those of the third behind. A path keeps its id in {@link #extended}.
 *
 * <p>Threads: any number of readers, once it is filled.
 */
public final class SplitPaths {
  /** How many tables there are. */
  public static final int PARTS = 2;

  private static final int PART_BIT = 31;
  private final PathTable first;
  private final PathTable second;
  private final PathTable late;
  private final int early;

  /**
   * @param parts filled, and not to be altered any more
   */
  public SplitPaths(List<PathTable> parts) {
    this(parts.get(0), parts.get(1), parts.get(0).emptied());
  }

  private SplitPaths(PathTable first, PathTable second, PathTable late) {
    this.first = first;
    this.second = second;
    this.late = late;
    this.early = first.size() + second.size();
  }

  /** Reads what {@link #write} wrote of paths that compare in the same way. */
  public SplitPaths(PathCase pathCase, ArrayFileReader in) throws IOException {
    this(new PathTable(pathCase, in), new PathTable(pathCase, in), new PathTable(pathCase));
  }

  /** Writes it as long as no path has come later. */
  public void write(ArrayFileWriter out) throws IOException {
    if (late.size() > 0) throw new IllegalStateException("paths have come later");
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

  /** The same paths, to which more can be added. Cost: those that came later, copied. */
  public SplitPaths extended() {
    return new SplitPaths(first, second, new PathTable(late));
  }

  /** The id of a path, a new one at first sight. Only while nobody else has these. */
  public int add(String path) {
    int known = idOf(path);
    return known >= 0 ? known : early + late.intern(path);
  }

  /** The id of what has an id in one of the two tables. */
  public int id(int part, int idThere) {
    return part == 0 ? idThere : first.size() + idThere;
  }

  public int size() {
    return early + late.size();
  }

  /** How much memory they take. */
  public long bytes() {
    return first.bytes() + second.bytes() + late.bytes();
  }

  /** The path as it was spelled at first sight. */
  public String pathOf(int id) {
    if (id >= early) return late.pathOf(id - early);
    return id < first.size() ? first.pathOf(id) : second.pathOf(id - first.size());
  }

  /** False when a path cannot end so; see {@link PathTable#mayEndIn}. */
  public boolean mayEndIn(int id, byte[] tail) {
    if (id >= early) return late.mayEndIn(id - early, tail);
    return id < first.size() ? first.mayEndIn(id, tail) : second.mayEndIn(id - first.size(), tail);
  }

  /** The id of a path that may be unknown, -1 then. */
  public int idOf(String path) {
    byte[] key = first.keyOf(path);
    int part = partOf(first.hashOfKey(key));
    int there = (part == 0 ? first : second).idOfKey(key);
    if (there >= 0) return id(part, there);
    int behind = late.size() == 0 ? -1 : late.idOfKey(key);
    return behind < 0 ? -1 : early + behind;
  }
}
