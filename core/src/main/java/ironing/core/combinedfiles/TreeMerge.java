package ironing.core.combinedfiles;

import ironing.core.combinedfiles.Node.Layout;
import ironing.core.combinedfiles.Place.How;
import ironing.core.combinedfiles.Place.Side;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/**
 * Combines texts that have entries under keys, cell by cell. Whatever nobody changed stays as the
 * base has it written: its order, its comments, its blanks. Additions come behind the base's
 * entries, in layer order.
 *
 * <p>Threads: one merge, one thread. Cost: linear in what was changed, beside one pass over the
 * base.
 */
final class TreeMerge {
  /** A longer line has no indent that anybody sees, and is not looked through again and again. */
  private static final int LONG_LINE = 4_096;

  private final Tree base;
  private final List<String> ids;
  private final List<Tree> sides;
  private final Places places;
  private final String endOfLine;
  private final StringBuilder out = new StringBuilder();

  /** By text, the place whose line was asked for last, and where that line begins. */
  private final IdentityHashMap<String, int[]> lines = new IdentityHashMap<>();

  /**
   * @param ids of the sides, in layer order
   */
  TreeMerge(Tree base, List<String> ids, List<Tree> sides, Places places) {
    this.base = base;
    this.ids = ids;
    this.sides = sides;
    this.places = places;
    this.endOfLine = Lines.usualEnd(base.text().isEmpty() ? sides.get(0).text() : base.text());
  }

  /**
   * Something that several changed, whose entries cannot be told by keys because of one of them.
   *
   * @param side whose text it is; -1 for the base
   */
  record Doubt(int side, String reason) {}

  private final Set<Doubt> doubts = new LinkedHashSet<>();

  /** What makes a place a question that need not be one; known once it is combined. */
  Set<Doubt> doubts() {
    return doubts;
  }

  /** The outcome; the places are gathered on the way. */
  String combine() {
    Node[] roots = new Node[sides.size()];
    for (int i = 0; i < roots.length; i++) roots[i] = sides.get(i).root();
    Node b = base.root();
    out.append(base.text(), 0, b.start);
    entry(b, roots, b, "", "");
    out.append(base.text(), b.end, base.text().length());
    return out.toString();
  }

  /** Some entry to write, and the text that it stands in. */
  private record Form(String text, Node node) {}

  private Form form(int side, Node n) {
    return new Form(sides.get(side).text(), n);
  }

  /**
   * Appends what comes out of an entry.
   *
   * @param b what the base has, or null
   * @param s what the sides have, or null; {@code b} itself where one has not changed it
   * @param beside an entry of the base that stands as this one is to stand; null where there is
   *     none
   * @param indent of the lines that an addition gets where nothing stands beside it
   * @return whether anything stands there
   */
  private boolean entry(Node b, Node[] s, Node beside, String indent, String where) {
    List<Integer> changed = new ArrayList<>();
    for (int i = 0; i < s.length; i++) if (!isSame(b, s[i])) changed.add(i);
    if (changed.isEmpty()) {
      if (b != null) out.append(base.text(), b.start, b.end);
      return b != null;
    }
    Node first = first(b, s, changed);
    String here = first == null ? where : where + first.label();
    if (isOpen(b, s, changed)) {
      container(b, s, changed, here, beside, indent);
      return true;
    }
    return cell(b, s, changed, here, beside, indent);
  }

  /** The first that there is: the base’s, or that of a side. */
  static Node first(Node b, Node[] s, List<Integer> changed) {
    if (b != null) return b;
    return changed.stream().map(i -> s[i]).filter(Objects::nonNull).findFirst().orElse(null);
  }

  /** Whether what changed is told entry by entry, and not as a whole. */
  static boolean isOpen(Node b, Node[] s, List<Integer> changed) {
    if (b != null && !b.hasEntries()) return false;
    Node first = first(b, s, changed);
    // of an element that several bring in nobody can tell what goes with what
    if (b == null && first.layout == Layout.ELEMENT) return false;
    for (int i : changed) if (s[i] == null || !first.isKindOf(s[i])) return false;
    return b != null || changed.stream().anyMatch(i -> !isSame(s[changed.get(0)], s[i]));
  }

  static boolean isSame(Node a, Node b) {
    if (a == null || b == null) return a == b;
    return a == b || a.print == b.print;
  }

  private boolean cell(
      Node b, Node[] s, List<Integer> changed, String where, Node beside, String indent) {
    List<String> of = new ArrayList<>();
    List<Optional<String>> texts = new ArrayList<>();
    List<Long> prints = new ArrayList<>();
    for (int i : changed) {
      of.add(ids.get(i));
      texts.add(Optional.ofNullable(s[i]).map(n -> valueOf(form(i, n))));
      prints.add(s[i] == null ? 0 : s[i].print);
    }
    List<Side> alike = Places.alike(of, texts, prints);
    if (alike.size() > 1) doubt(b, s, changed);
    Optional<String> was = Optional.ofNullable(b).map(n -> valueOf(new Form(base.text(), n)));
    Place p = places.add(where, where, was, alike, false);
    if (p.outcome().isEmpty()) return false;
    Optional<Integer> from =
        p.from().isEmpty()
            ? Optional.empty()
            : changed.stream().filter(i -> ids.get(i).equals(p.from().get(0))).findFirst();
    if (from.isPresent()) {
      write(b, form(from.get(), s[from.get()]), beside, indent);
    } else if (p.how() == How.DECIDED && p.outcome().equals(was)) {
      out.append(base.text(), b.start, b.end);
    } else {
      typed(b, s, changed, p.outcome().get(), beside, indent);
    }
    return true;
  }

  private void doubt(Node b, Node[] s, List<Integer> changed) {
    if (b != null && !b.doubt().isEmpty()) doubts.add(new Doubt(-1, b.doubt()));
    for (int i : changed)
      if (s[i] != null && !s[i].doubt().isEmpty()) doubts.add(new Doubt(i, s[i].doubt()));
  }

  private static String valueOf(Form f) {
    return f.text.substring(f.node.from, f.node.to);
  }

  /** A side's value under the base's key, or its whole entry where the base has none. */
  private void write(Node b, Form f, Node beside, String indent) {
    if (b == null) {
      append(f.text, f.node.start, f.node.end, f, indentAt(beside, indent));
      return;
    }
    String to = indentOf(base.text(), b.start);
    if (hasLines(base.text(), b) || hasLines(f.text, f.node)) {
      // a value that begins on a line of its own does not fit behind the key as it stands
      append(f.text, f.node.start, f.node.end, f, to);
      return;
    }
    out.append(base.text(), b.start, b.from);
    int from = out.length();
    append(f.text, f.node.from, f.node.to, f, to);
    String value = out.substring(from), fitted = b.fitted(value);
    if (!fitted.equals(value)) out.replace(from, out.length(), fitted);
    out.append(base.text(), b.to, b.end);
  }

  private static boolean hasLines(String text, Node n) {
    return endOfLineIn(text, n.start, n.from) >= 0;
  }

  /** The first end of a line in a stretch, or -1; what lies behind the stretch is not looked at. */
  private static int endOfLineIn(String text, int from, int to) {
    for (int at = from; at < to; at++) if (text.charAt(at) == '\n') return at;
    return -1;
  }

  private void typed(
      Node b, Node[] s, List<Integer> changed, String text, Node beside, String indent) {
    if (b != null) {
      out.append(base.text(), b.start, b.from).append(b.fitted(text));
      out.append(base.text(), b.to, b.end);
      return;
    }
    // under the key as one of those has it who brought it in
    int side = changed.stream().filter(i -> s[i] != null).findFirst().orElseThrow();
    Form f = form(side, s[side]);
    append(f.text, f.node.start, f.node.from, f, indentAt(beside, indent));
    out.append(f.node.fitted(text)).append(f.text, f.node.to, f.node.end);
  }

  private String indentAt(Node beside, String otherwise) {
    return beside == null ? otherwise : indentOf(base.text(), beside.start);
  }

  /** Appends a stretch of another text with its lines moved to where they stand now. */
  private void append(String text, int from, int to, Form f, String indent) {
    String was = indentOf(text, f.node.start);
    if (was.equals(indent)) {
      out.append(text, from, to);
      return;
    }
    int at = from;
    while (at < to) {
      int next = endOfLineIn(text, at, to);
      if (next < 0) break;
      out.append(text, at, next + 1);
      at = next + 1;
      if (text.startsWith(was, at) && at + was.length() <= to) {
        out.append(indent);
        at += was.length();
      }
    }
    out.append(text, at, to);
  }

  /** The blanks at the beginning of the line on which a place is. */
  private String indentOf(String text, int at) {
    int line = lineOf(text, at);
    if (at - line > LONG_LINE) return "";
    int end = line;
    while (end < at && (text.charAt(end) == ' ' || text.charAt(end) == '\t')) end++;
    return text.substring(line, end);
  }

  /** Where the line of a place begins; of a long one, anywhere farther than that away. */
  private int lineOf(String text, int at) {
    // mostly it is asked for one place after another, and only what lies between is new
    int[] last = lines.computeIfAbsent(text, t -> new int[2]);
    boolean onwards = at >= last[0] && at - last[0] <= LONG_LINE;
    int from = onwards ? last[0] : Math.max(0, at - LONG_LINE);
    int line = at;
    while (line > from && text.charAt(line - 1) != '\n') line--;
    if (line == from && onwards) line = last[1];
    else if (line == from && from > 0) line = from - 1;
    last[0] = at;
    last[1] = line;
    return line;
  }

  private void container(
      Node b, Node[] s, List<Integer> changed, String where, Node beside, String indent) {
    if (b != null && b.layout == Layout.ELEMENT) {
      element(b, s, changed, where);
      return;
    }
    boolean written = b != null && (!b.children.isEmpty() || isWrittenAlike(b, s, changed));
    if (written) {
      int mark = out.length();
      out.append(base.text(), b.start, b.open);
      if (entries(b, s, changed, where, b.layout)
          || b.layout != Layout.LINES
          || b.empty().isEmpty()) {
        out.append(base.text(), b.close, b.end);
        return;
      }
      out.setLength(mark);
      String lead = base.text().substring(b.start, b.from), key = lead.stripTrailing();
      // behind a comment nothing is read: there it stands on the line where the entries began
      boolean sameLine = key.indexOf('#') < 0;
      out.append(sameLine ? key : lead).append(sameLine && !key.isEmpty() ? " " : "");
      out.append(b.empty());
      return;
    }
    int side =
        changed.stream().filter(i -> !s[i].children.isEmpty()).findFirst().orElse(changed.get(0));
    Form f = form(side, s[side]);
    String to = indentAt(b != null ? b : beside, indent);
    append(f.text, f.node.start, f.node.open, f, to);
    additions(null, s, changed, where, f, to, true);
    append(f.text, f.node.close, f.node.end, f, to);
  }

  private void element(Node b, Node[] s, List<Integer> changed, String where) {
    Node attributes = b.children.get(0), content = b.children.get(1);
    out.append(base.text(), b.start, b.open);
    entry(attributes, parts(b, s, changed, 0), attributes, "", where);
    boolean closed = b.close == content.from && base.text().startsWith("/>", b.close);
    if (!closed) {
      int behindAttributes = attributes.end, beforeContent = content.start;
      out.append(base.text(), behindAttributes, beforeContent);
      entry(content, parts(b, s, changed, 1), content, "", where);
      out.append(base.text(), b.close, b.end);
      return;
    }
    // one that is written as empty is opened when something comes into it
    int mark = out.length();
    out.append('>');
    entry(content, parts(b, s, changed, 1), content, "", where);
    if (out.length() == mark + 1) {
      out.setLength(mark);
      out.append(base.text(), attributes.end, b.end);
      return;
    }
    String tag = base.text().substring(b.start + 1, b.open);
    out.append("</").append(tag).append('>');
  }

  static Node[] parts(Node b, Node[] s, List<Integer> changed, int part) {
    Node[] of = new Node[s.length];
    Arrays.fill(of, b.children.get(part));
    for (int i : changed) of[i] = s[i].children.get(part);
    return of;
  }

  private static boolean isWrittenAlike(Node b, Node[] s, List<Integer> changed) {
    return changed.stream().allMatch(i -> s[i].layout == b.layout);
  }

  /** Tells whether any entry is left. */
  private boolean entries(Node b, Node[] s, List<Integer> changed, String where, Layout layout) {
    String text = base.text();
    int at = b.open;
    boolean any = false;
    for (int c = 0; c < b.children.size(); c++) {
      Node child = b.children.get(c);
      Node[] of = new Node[s.length];
      boolean touched = false;
      for (int i = 0; i < s.length; i++) of[i] = child;
      for (int i : changed) {
        of[i] = s[i].child(child.key);
        touched |= !isSame(child, of[i]);
      }
      int mark = out.length();
      if (layout == Layout.COMMAS && !any && c > 0) {
        // the first one that is left stands where the first one stood
        out.append(text, b.open, b.children.get(0).start);
      } else {
        lead(layout, text, at, child.start, c > 0 && !any);
      }
      if (!touched) {
        out.append(text, child.start, child.end);
        any = true;
      } else if (entry(child, of, child, "", where)) {
        any = true;
      } else {
        out.setLength(mark);
        if (layout == Layout.LINES) keptOfLead(text, at, child.start, c == 0);
      }
      at = child.end;
    }
    Form like = null;
    if (!any) {
      int side = changed.stream().filter(i -> !s[i].children.isEmpty()).findFirst().orElse(-1);
      if (side >= 0) like = form(side, s[side]);
    }
    boolean added = additions(b, s, changed, where, like, indentOf(text, b.start), !any);
    boolean tailOfOther =
        added
            && !any
            && b.children.isEmpty()
            && (layout == Layout.COMMAS || layout == Layout.MARKUP);
    if (!tailOfOther) out.append(text, at, b.close);
    else append(like.text, endOfEntries(like.node), like.node.close, like, indentOf(text, b.start));
    if (added
        && layout == Layout.LINES
        && b.open == b.close
        && !endsLine()
        && b.close < text.length()) out.append(endOfLine);
    return any || added;
  }

  private static int endOfEntries(Node n) {
    return n.children.isEmpty() ? n.open : n.children.get(n.children.size() - 1).end;
  }

  private void lead(Layout layout, String text, int from, int to, boolean noneBefore) {
    int line = layout == Layout.LINES && noneBefore ? endOfLineIn(text, from, to) : -1;
    // it comes into the line of the one that is gone
    if (line >= 0 && cutBlanks()) out.append(text, line + 1, to);
    else out.append(text, from, to);
  }

  /** Of what stands before a line that goes, comments above a blank line stay. */
  private void keptOfLead(String text, int from, int to, boolean isFirst) {
    String lead = text.substring(from, to);
    int blank = Math.max(lead.lastIndexOf("\n\n"), lead.lastIndexOf("\n\r\n"));
    if (isFirst) {
      out.append(lead, 0, blank < 0 ? 0 : blank + 1);
    } else if (blank > 0) {
      out.append(lead, 0, blank);
    }
  }

  /** Cuts the blanks off that the present line begins with; tells whether it has nothing else. */
  private boolean cutBlanks() {
    int kept = out.length();
    while (kept > 0 && (out.charAt(kept - 1) == ' ' || out.charAt(kept - 1) == '\t')) kept--;
    boolean blank = kept == 0 || out.charAt(kept - 1) == '\n';
    if (blank) out.setLength(kept);
    return blank;
  }

  private boolean endsLine() {
    return out.length() == 0 || out.charAt(out.length() - 1) == '\n';
  }

  /**
   * Appends the entries that only sides have.
   *
   * @param b the base's container, or null
   * @param like how they are parted where the base has no two entries; null where it does not
   *     matter
   * @param indent of the container
   * @param first whether none stands before them
   */
  private boolean additions(
      Node b,
      Node[] s,
      List<Integer> changed,
      String where,
      Form like,
      String indent,
      boolean first) {
    Set<String> done = new HashSet<>();
    boolean none = first, added = false;
    Layout layout = b != null ? b.layout : like.node.layout;
    for (int i : changed) {
      for (int c = 0; c < s[i].children.size(); c++) {
        Node child = s[i].children.get(c);
        if (b != null && b.child(child.key) != null || !done.add(child.key)) continue;
        Node[] of = new Node[s.length];
        Arrays.fill(of, null);
        for (int k : changed) of[k] = s[k].child(child.key);
        int mark = out.length();
        Node beside = b == null || b.children.isEmpty() ? null : b.children.get(0);
        String inner = indent;
        if (beside == null) {
          // all as they stand in the one whose form is taken
          Form from = like != null ? like : form(i, s[i]);
          String outer = indentOf(from.text, from.node.start);
          String own = indentOf(from.text, from.node.children.get(0).start);
          inner = own.startsWith(outer) ? indent + own.substring(outer.length()) : own;
        }
        String gap = gapOf(form(i, s[i]), c);
        out.append(leadOfAddition(layout, b, like, none, beside, inner, gap));
        if (entry(null, of, beside, inner, where)) {
          none = false;
          added = true;
        } else {
          out.setLength(mark);
        }
      }
    }
    return added;
  }

  private String leadOfAddition(
      Layout layout, Node b, Form like, boolean none, Node beside, String inner, String gap) {
    if (layout == Layout.BLANKS) return " ";
    if (layout == Layout.LINES) {
      if (none && cutBlanks()) return beside == null ? inner : indentOf(base.text(), beside.start);
      return endOfLine + (beside == null ? inner : indentOf(base.text(), beside.start));
    }
    String blanks;
    if (layout == Layout.MARKUP && b != null && !b.children.isEmpty()) {
      String before = base.text().substring(b.open, b.children.get(0).start);
      return before.substring(before.stripTrailing().length());
    }
    if (b != null && !b.children.isEmpty()) {
      blanks = base.text().substring(b.open, b.children.get(0).start);
      if (b.children.size() > 1 && !none)
        blanks = behindComma(base.text().substring(b.children.get(0).end, b.children.get(1).start));
      else if (!none && blanks.isEmpty()) blanks = gap;
    } else {
      String written = like.text.substring(like.node.open, like.node.children.get(0).start);
      int line = written.lastIndexOf('\n');
      blanks = line < 0 ? written : endOfLine + inner;
    }
    return none || layout == Layout.MARKUP ? blanks : "," + blanks;
  }

  /** The blanks between an entry and the one beside it, where they stand on one line. */
  private static String gapOf(Form container, int child) {
    List<Node> all = container.node.children;
    int at = Math.max(1, child);
    if (all.size() < 2) return " ";
    String gap = behindComma(container.text.substring(all.get(at - 1).end, all.get(at).start));
    return gap.indexOf('\n') < 0 ? gap : " ";
  }

  private static String behindComma(String gap) {
    return gap.substring(gap.lastIndexOf(',') + 1);
  }
}
