package ironing.core.combinedfiles;

import ironing.core.game.GameDefinition.ElementKey;
import ironing.core.plugin.Prints;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** The elements of arrays, told by a key or by themselves. */
final class Elements {
  private Elements() {}

  /** Elements under their keys; empty where some element has none, or one stands twice. */
  static Optional<List<Node>> keyed(String text, List<Node> elements, ElementKey known) {
    List<Node> keyed = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    for (Node e : elements) {
      Node name = known.key().map(e::child).orElse(e);
      if (name == null || known.key().isPresent() && name.hasEntries()) return Optional.empty();
      String key = Long.toHexString(name.print);
      // an element of a set counts once; one that stands again is no entry and stays where it is
      if (known.key().isEmpty() && !seen.add(key)) continue;
      keyed.add(e.renamed(key, "[" + plain(text, name) + "]"));
    }
    return Node.unique(keyed) ? Optional.of(keyed) : Optional.empty();
  }

  private static String plain(String text, Node n) {
    String written = text.substring(n.from, n.to);
    boolean quoted = written.length() > 1 && written.startsWith("\"") && written.endsWith("\"");
    return quoted ? written.substring(1, written.length() - 1) : written;
  }

  /** The print of an array that is whole. */
  static long inOrder(List<Node> elements) {
    long print = 2;
    for (Node e : elements) print = Prints.mix(print, e.print);
    return Prints.mix(2, print);
  }

  /** The print of one whose elements have keys. */
  static long anyOrder(List<Node> keyed) {
    long sum = 0;
    for (Node e : keyed) sum += Prints.mix(Prints.name(e.key), e.print);
    return Prints.mix(4, sum);
  }
}
