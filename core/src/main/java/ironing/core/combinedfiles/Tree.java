package ironing.core.combinedfiles;

import java.util.List;
import java.util.Set;

/**
 * A text that was read as entries under keys.
 *
 * @param text all of it; whatever stands between the entries is in it and nowhere else
 * @param arrays which of the definition's pointers an array of it stood at
 * @param unfit what is to be said of arrays that are named and taken whole all the same
 */
record Tree(String text, Node root, Set<String> arrays, List<String> unfit) {
  Tree(String text, Node root) {
    this(text, root, Set.of(), List.of());
  }

  /** A text that is not what it should be, or has what cannot be told by keys. */
  static final class Unfit extends Exception {
    private static final long serialVersionUID = 1;

    Unfit(String reason) {
      super(reason, null, false, false);
    }
  }
}
