package ironing.core.layers;

/**
 * Files one behind the other, as columns.
 *
 * @param source by slot whose file lies there
 * @param size in bytes
 * @param spelling by slot how its holder spells the path, where that is another way than the path
 *     is kept; empty where nobody does
 * @param path by slot the path; empty where they lie path by path, so that it can be told from
 *     where those begin
 */
record Slots(int[] source, long[] size, Contents contents, String[] spelling, int[] path) {
  static final Slots NONE =
      new Slots(new int[0], new long[0], new Contents(0), new String[0], new int[0]);

  int count() {
    return source.length;
  }

  /** How the holder spells the path; null for as it is kept. */
  String spelled(int slot) {
    return spelling.length == 0 ? null : spelling[slot];
  }
}
