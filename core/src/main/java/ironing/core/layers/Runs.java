package ironing.core.layers;

import java.util.BitSet;

/**
 * By path the slots in which its holders lie, one behind the other; in pages, so that a change of
 * some paths copies little. Immutable. Cost: 8 bytes a path.
 */
final class Runs {
  private static final int BITS = 12, PAGE = 1 << BITS;
  private final long[][] pages;

  private Runs(long[][] pages) {
    this.pages = pages;
  }

  /**
   * @param start by path where its slots begin, and where the last end
   */
  static Runs of(int[] start) {
    Change all = new Change(new long[0][], start.length - 1);
    for (int p = 0; p < start.length - 1; p++) all.set(p, start[p], start[p + 1]);
    return all.made();
  }

  int first(int path) {
    return (int) (pages[path >>> BITS][path & PAGE - 1] >>> Integer.SIZE);
  }

  int end(int path) {
    return (int) pages[path >>> BITS][path & PAGE - 1];
  }

  /** The same with room for so many paths, to be changed; what is not set holds nothing. */
  Change changed(int paths) {
    return new Change(pages, paths);
  }

  /** Runs on their way; those that they come from stay as they are. */
  static final class Change {
    private final long[][] pages;
    private final BitSet own = new BitSet();

    private Change(long[][] before, int paths) {
      this.pages = new long[(paths + PAGE - 1) >>> BITS][];
      System.arraycopy(before, 0, pages, 0, before.length);
      for (int i = before.length; i < pages.length; i++) {
        pages[i] = new long[PAGE];
        own.set(i);
      }
    }

    void set(int path, int first, int end) {
      int page = path >>> BITS;
      if (!own.get(page)) {
        pages[page] = pages[page].clone();
        own.set(page);
      }
      pages[page][path & PAGE - 1] = (long) first << Integer.SIZE | end;
    }

    Runs made() {
      return new Runs(pages);
    }
  }
}
