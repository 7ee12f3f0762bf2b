package ironing.core.combinedfiles;

/**
 * How far two texts are from one another, in lines.
 *
 * <p>Threads: stateless. Cost: that of one comparison; see {@link LineMerge}.
 */
public final class LineDistance {
  private LineDistance() {}

  /** How many lines have to go and to come to make one of the other. */
  public static int of(String a, String b) {
    Lines.Numbers known = new Lines.Numbers(a.length() + b.length());
    Lines first = new Lines(a, known);
    return LineMerge.distance(first, new Lines(b, known, first));
  }
}
