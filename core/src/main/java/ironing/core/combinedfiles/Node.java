package ironing.core.combinedfiles;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A part of a text that can be told by a key: where it stands, what it means and what is in it.
 *
 * <p>All places are offsets in the text. An entry goes from {@code start} to {@code end} and holds
 * its key and its value; the value goes from {@code from} to {@code to}. In a value that has
 * entries, these stand between {@code open} and {@code close}.
 */
final class Node {
  /** How the entries of a value stand beside one another. */
  enum Layout {
    /** It has no entries: it is taken as a whole. */
    NONE,
    /** Parted by commas. */
    COMMAS,
    /** Each on lines of its own. */
    LINES,
    /** Parted by blanks, such as attributes. */
    BLANKS,
    /** Elements of XML, and what blanks and comments stand between them. */
    MARKUP,
    /** An element of XML: its attributes, and then its content. */
    ELEMENT
  }

  private static final int FEW = 8;

  final String key;
  private final String label;
  final Layout layout;
  final int start, end, from, to, open, close;
  final List<Node> children;

  /** The same for values that mean the same. */
  final long print;

  /** How one of its kind is written that has no entries; empty where nothing is written. */
  private String empty = "";

  /** The quote between a pair of which the value stands; 0 where it stands in none. */
  private char quote;

  /** Why its entries cannot be told by keys, so that it is whole; empty for all others. */
  private String doubt = "";

  private Map<String, Node> byKey;

  private Node(String key, String label, Layout layout, int[] at, List<Node> children, long print) {
    this.key = key;
    this.label = label;
    this.layout = layout;
    this.start = at[0];
    this.end = at[1];
    this.from = at[2];
    this.to = at[3];
    this.open = at[4];
    this.close = at[5];
    this.children = List.copyOf(children);
    this.print = print;
  }

  /** One that is taken as a whole. */
  static Node whole(String key, String label, int start, int end, int from, int to, long print) {
    int[] at = {start, end, from, to, from, to};
    return new Node(key, label, Layout.NONE, at, List.of(), print);
  }

  /** One with entries, each under a key of its own. */
  static Node keyed(
      String key,
      String label,
      Layout layout,
      int start,
      int end,
      int from,
      int to,
      int open,
      int close,
      List<Node> children,
      long print) {
    int[] at = {start, end, from, to, open, close};
    return new Node(key, label, layout, at, children, print);
  }

  /** The same under another key. */
  Node renamed(String newKey, String newLabel) {
    int[] at = {start, end, from, to, open, close};
    return new Node(newKey, newLabel, layout, at, children, print)
        .emptyAs(empty)
        .quotedBy(quote)
        .doubted(doubt);
  }

  /** The same, of a kind that is written so where it has no entries. */
  Node emptyAs(String written) {
    empty = written;
    return this;
  }

  String empty() {
    return empty;
  }

  /** The same, with a value between a pair of quotes of XML. */
  Node quotedBy(char with) {
    quote = with;
    return this;
  }

  /** The same, whole only because of something in it. */
  Node doubted(String why) {
    doubt = why;
    return this;
  }

  String doubt() {
    return doubt;
  }

  /** A value written so that it can stand where this one's value stands. */
  String fitted(String value) {
    if (quote == 0) return value;
    return value.replace(String.valueOf(quote), quote == '"' ? "&quot;" : "&apos;");
  }

  /** Whether the entries of both are of one kind, so that those of one can go to the other. */
  boolean isKindOf(Node o) {
    if (!key.equals(o.key) || !empty.equals(o.empty) || !hasEntries() || !o.hasEntries())
      return false;
    return layout == o.layout || children.isEmpty() || o.children.isEmpty();
  }

  boolean hasEntries() {
    return layout != Layout.NONE;
  }

  /** What it is called in the way to it: as RFC 6901 has it, where nothing else is said. */
  String label() {
    if (label != null) return label;
    boolean plain = key.indexOf('~') < 0 && key.indexOf('/') < 0;
    return "/" + (plain ? key : key.replace("~", "~0").replace("/", "~1"));
  }

  /** The entry under a key, or null. */
  Node child(String wanted) {
    if (children.size() <= FEW) {
      for (Node c : children) if (c.key.equals(wanted)) return c;
      return null;
    }
    if (byKey == null) {
      byKey = new HashMap<>(children.size() * 2);
      children.forEach(c -> byKey.put(c.key, c));
    }
    return byKey.get(wanted);
  }

  /** What the first that stands twice is called; empty where none does. */
  static String twice(List<Node> children) {
    Set<String> keys = new HashSet<>();
    for (Node c : children) if (!keys.add(c.key)) return c.label().strip().replaceFirst("^/", "");
    return "";
  }

  /** Whether no key stands twice. */
  static boolean unique(List<Node> children) {
    if (children.size() <= FEW) {
      for (int i = 1; i < children.size(); i++)
        for (int k = 0; k < i; k++)
          if (children.get(i).key.equals(children.get(k).key)) return false;
      return true;
    }
    Map<String, Node> keys = new HashMap<>(children.size() * 2);
    for (Node c : children) if (keys.put(c.key, c) != null) return false;
    return true;
  }
}
