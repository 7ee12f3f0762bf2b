package ironing.core.combinedfiles;

import ironing.core.combinedfiles.Node.Layout;
import ironing.core.combinedfiles.Tree.Unfit;
import ironing.core.game.GoesOn;
import ironing.core.plugin.Prints;
import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;
import java.util.Set;

/** Reads texts whose entries are lines: INI, properties, and lists. */
final class LineTrees {
  private LineTrees() {}

  /** A line: where it begins, and where its end does. */
  private record Line(int from, int to) {}

  private static List<Line> lines(String text) {
    List<Line> lines = new ArrayList<>();
    int at = 0;
    while (at < text.length()) {
      int end = at;
      while (end < text.length() && text.charAt(end) != '\n' && text.charAt(end) != '\r') end++;
      lines.add(new Line(at, end));
      boolean two = end + 1 < text.length() && text.startsWith("\r\n", end);
      at = end + (two ? 2 : 1);
    }
    return lines;
  }

  private static int skipBlanks(String text, int from, int to) {
    int at = from;
    while (at < to && (text.charAt(at) == ' ' || text.charAt(at) == '\t')) at++;
    return at;
  }

  private static int trimBlanks(String text, int from, int to) {
    int at = to;
    while (at > from && (text.charAt(at - 1) == ' ' || text.charAt(at - 1) == '\t')) at--;
    return at;
  }

  private static long sum(List<Node> children) {
    long sum = 0;
    for (Node c : children) sum += Prints.mix(Prints.name(c.key), c.print);
    return Prints.mix(5, sum);
  }

  private static Node root(String text, List<Node> children) {
    int end = text.length();
    return Node.keyed("", "", Layout.LINES, 0, end, 0, end, 0, end, children, sum(children));
  }

  /**
   * {@code key = value} under {@code [section]}; names compare without case. A key that stands
   * twice in a section makes the section whole.
   *
   * @param goesOn what makes a value go on over the end of its line
   */
  static Tree ini(String text, Set<GoesOn> goesOn) throws Unfit {
    List<Node> sections = new ArrayList<>();
    List<Node> keys = new ArrayList<>();
    String name = "";
    int start = 0, open = 0;
    List<Line> lines = lines(text);
    for (int i = 0; i < lines.size(); i++) {
      Line l = lines.get(i);
      int from = skipBlanks(text, l.from, l.to), to = trimBlanks(text, from, l.to);
      if (from == to || text.charAt(from) == ';' || text.charAt(from) == '#') continue;
      if (text.charAt(from) == '[') {
        if (text.charAt(to - 1) != ']')
          throw new Unfit("It is not INI (line " + (i + 1) + "): the section is not closed.");
        sections.add(section(text, name, start, open, keys));
        keys = new ArrayList<>();
        name = text.substring(from + 1, to - 1).strip();
        start = from;
        open = to;
        continue;
      }
      int equals = text.indexOf('=', from);
      if (equals < 0 || equals >= to)
        throw new Unfit("It is not INI (line " + (i + 1) + "): there is no “=”.");
      int last = lastOfValue(text, lines, i, equals + 1, goesOn);
      if (last > i) to = trimBlanks(text, equals + 1, lines.get(last).to);
      i = last;
      String key = text.substring(from, trimBlanks(text, from, equals));
      int value = skipBlanks(text, equals + 1, to);
      long print = Prints.name(text.substring(value, to));
      if (keys.isEmpty() && name.isEmpty()) start = open = from;
      keys.add(Node.whole(key.toLowerCase(Locale.ROOT), " " + key, from, to, value, to, print));
    }
    sections.add(section(text, name, start, open, keys));
    if (!Node.unique(sections))
      throw new Unfit("The section " + Node.twice(sections) + " stands twice.");
    return new Tree(text, root(text, sections));
  }

  /** The line on which a value ends that begins on another. */
  private static int lastOfValue(
      String text, List<Line> lines, int first, int from, Set<GoesOn> goesOn) throws Unfit {
    if (goesOn.isEmpty()) return first;
    int open = 0, at = first, begin = from;
    boolean quoted = false;
    while (true) {
      Line l = lines.get(at);
      for (int i = begin; i < l.to; i++) {
        char c = text.charAt(i);
        if (c == '"') quoted = !quoted;
        else if (!quoted && c == '{') open++;
        else if (!quoted && c == '}') open--;
      }
      // a quote that is not closed on its line is no quote of a text
      quoted = false;
      boolean braces = goesOn.contains(GoesOn.BRACES) && open > 0;
      boolean backslash = goesOn.contains(GoesOn.BACKSLASH) && goesOn(text, begin, l.to);
      if (!braces && !backslash) return at;
      if (at + 1 == lines.size()) {
        if (!braces) return at;
        throw new Unfit(
            "It is not INI (line " + (first + 1) + "): a brace of the value is not closed.");
      }
      begin = lines.get(++at).from;
    }
  }

  private static Node section(String text, String name, int start, int open, List<Node> keys) {
    int end = keys.isEmpty() ? open : keys.get(keys.size() - 1).end;
    String key = name.toLowerCase(Locale.ROOT);
    String label = name.isEmpty() ? "" : "[" + name + "]";
    if (!Node.unique(keys))
      return Node.whole(key, label, start, end, start, end, Prints.name(text.substring(start, end)))
          .doubted(
              "“"
                  + Node.twice(keys)
                  + "” stands twice"
                  + (label.isEmpty() ? "." : " in " + label + "."));
    return Node.keyed(key, label, Layout.LINES, start, end, start, end, open, end, keys, sum(keys));
  }

  /** As Java's {@link Properties} reads them. A key that stands twice cannot be told apart. */
  static Tree properties(String text) throws Unfit {
    List<Node> entries = new ArrayList<>();
    List<Line> lines = lines(text);
    for (int i = 0; i < lines.size(); i++) {
      Line l = lines.get(i);
      int from = l.from;
      while (from < l.to && isBlank(text.charAt(from))) from++;
      if (from == l.to || text.charAt(from) == '#' || text.charAt(from) == '!') continue;
      int to = l.to;
      while (goesOn(text, from, to) && i + 1 < lines.size()) to = lines.get(++i).to;
      String logical = text.substring(from, to);
      Map.Entry<Object, Object> e = parsed(logical);
      int value = from + valueAt(logical);
      String key = e.getKey().toString();
      long print = Prints.name(e.getValue().toString());
      entries.add(Node.whole(key, key, from, to, value, to, print));
    }
    if (!Node.unique(entries)) throw new Unfit("“" + Node.twice(entries) + "” stands twice.");
    return new Tree(text, root(text, entries));
  }

  private static boolean isBlank(char c) {
    return c == ' ' || c == '\t' || c == '\f';
  }

  private static boolean goesOn(String text, int from, int to) {
    int slashes = 0;
    while (to - slashes > from && text.charAt(to - slashes - 1) == '\\') slashes++;
    return slashes % 2 == 1;
  }

  private static Map.Entry<Object, Object> parsed(String logical) throws Unfit {
    Properties p = new Properties();
    try {
      p.load(new StringReader(logical));
    } catch (IllegalArgumentException e) {
      throw new Unfit("It has an escape that means nothing: " + logical.strip());
    } catch (IOException e) {
      throw new Unfit("It cannot be read: " + e.getMessage());
    }
    if (p.size() != 1) throw new Unfit("A line is no key with a value: " + logical.strip());
    return p.entrySet().iterator().next();
  }

  // behind the key, its blanks and one = or :
  private static int valueAt(String logical) {
    int at = 0;
    while (at < logical.length() && "=: \t\f".indexOf(logical.charAt(at)) < 0)
      at += logical.charAt(at) == '\\' ? 2 : 1;
    at = Math.min(at, logical.length());
    boolean parted = false;
    while (at < logical.length()) {
      char c = logical.charAt(at);
      if (isBlank(c)) at++;
      else if (!parted && (c == '=' || c == ':')) {
        parted = true;
        at++;
      } else break;
    }
    return at;
  }

  /**
   * Lines as a set that keeps its order: blank ones are none, one that stands again counts once.
   */
  static Tree list(String text) {
    List<Node> entries = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    for (Line l : lines(text)) {
      int from = skipBlanks(text, l.from, l.to), to = trimBlanks(text, from, l.to);
      String line = text.substring(from, to);
      if (line.isEmpty() || !seen.add(line)) continue;
      entries.add(Node.whole(line, line, from, to, from, to, Prints.name(line)));
    }
    return new Tree(text, root(text, entries));
  }
}
