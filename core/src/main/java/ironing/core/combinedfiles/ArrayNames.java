package ironing.core.combinedfiles;

import ironing.core.game.GameDefinition.ElementKey;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * The arrays that a definition names, for one text. In its pointers a step {@code *} is any member
 * of an object or element of an array. Of several that fit, the one with the fewest such steps
 * counts, then the first.
 *
 * <p>Threads: one text, one thread.
 */
final class ArrayNames {
  private record Named(String pointer, String[] steps, int any, ElementKey key) {}

  private final Map<String, Named> plain = new LinkedHashMap<>();
  private final List<Named> wild = new ArrayList<>();
  private final Set<String> met = new LinkedHashSet<>();
  private final List<String> unfit = new ArrayList<>();

  ArrayNames(Map<String, ElementKey> arrays) {
    arrays.forEach(
        (pointer, key) -> {
          String[] steps = pointer.split("/", -1);
          int any = 0;
          for (String s : steps) if (s.equals("*")) any++;
          Named n = new Named(pointer, steps, any, key);
          if (any == 0) plain.put(pointer, n);
          else wild.add(n);
        });
    wild.sort((a, b) -> Integer.compare(a.any, b.any));
  }

  boolean isEmpty() {
    return plain.isEmpty() && wild.isEmpty();
  }

  /** Which of the named pointers an array of the text stood at. */
  Set<String> met() {
    return met;
  }

  /** What is to be said of named arrays that could not be told by their keys. */
  List<String> unfit() {
    return unfit;
  }

  /**
   * The elements of an array under their keys; empty where the definition does not name it, some
   * element has no key, or one stands twice.
   *
   * @param pointer of the array, in which elements of arrays are {@code *}
   */
  Optional<List<Node>> keyed(String text, List<Node> elements, String pointer) {
    Named named = named(pointer);
    if (named == null) return Optional.empty();
    met.add(named.pointer);
    Optional<List<Node>> keyed = Elements.keyed(text, elements, named.key);
    if (keyed.isEmpty())
      unfit.add(
          "The array at "
              + (pointer.isEmpty() ? "the top" : pointer)
              + " is taken whole: an element has no “"
              + named.key.key().orElse("")
              + "”, or two have the same.");
    return keyed;
  }

  private Named named(String pointer) {
    Named found = plain.get(pointer);
    if (found != null || wild.isEmpty()) return found;
    String[] steps = pointer.split("/", -1);
    for (Named n : wild) if (fits(n.steps, steps)) return n;
    return null;
  }

  private static boolean fits(String[] named, String[] steps) {
    if (named.length != steps.length) return false;
    for (int i = 0; i < steps.length; i++)
      if (!named[i].equals("*") && !named[i].equals(steps[i])) return false;
    return true;
  }
}
