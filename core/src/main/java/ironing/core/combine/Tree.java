package ironing.core.combine;

/**
 * A text that was read as entries under keys.
 *
 * @param text all of it; whatever stands between the entries is in it and nowhere else
 */
record Tree(String text, Node root) {
  /** A text that is not what it should be, or has what cannot be told by keys. */
  static final class Unfit extends Exception {
    private static final long serialVersionUID = 1;

    Unfit(String reason) {
      super(reason, null, false, false);
    }
  }
}
