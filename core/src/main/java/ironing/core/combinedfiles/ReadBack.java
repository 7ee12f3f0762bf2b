package ironing.core.combinedfiles;

import ironing.core.combinedfiles.Node.Layout;
import ironing.core.combinedfiles.Place.How;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Whether a text that entries were put together to, read again, says at every place what was
 * decided there. What stands beside an entry can change how it is read: behind a value that goes on
 * in the next line, the entry that comes next is a part of that value.
 *
 * <p>Cost: linear in what was changed, beside reading the text.
 */
final class ReadBack {
  private final Set<String> typed = new HashSet<>();

  /**
   * @param places as they were settled
   */
  ReadBack(List<Place> places) {
    for (Place p : places) if (p.how() == How.DECIDED && p.from().isEmpty()) typed.add(p.where());
  }

  /**
   * The first place that would be read as something else; empty where there is none.
   *
   * @param outcome what the text is read as
   */
  Optional<String> astray(Tree base, List<Tree> sides, Tree outcome) {
    Node[] roots = sides.stream().map(Tree::root).toArray(Node[]::new);
    return Optional.ofNullable(astray(base.root(), roots, outcome.root(), ""));
  }

  private String astray(Node b, Node[] s, Node got, String where) {
    List<Integer> changed = new ArrayList<>();
    for (int i = 0; i < s.length; i++) if (!TreeMerge.isSame(b, s[i])) changed.add(i);
    Node first = changed.isEmpty() ? (b != null ? b : got) : TreeMerge.first(b, s, changed);
    String here = first == null ? where : where + first.label();
    if (changed.isEmpty()) return TreeMerge.isSame(b, got) ? null : here;
    if (TreeMerge.isOpen(b, s, changed)) return within(b, s, changed, got, here);
    if (typed.contains(here)) return null;
    boolean asOne = changed.stream().anyMatch(i -> TreeMerge.isSame(s[i], got));
    boolean alike = changed.stream().allMatch(i -> TreeMerge.isSame(s[changed.get(0)], s[i]));
    return asOne || !alike && TreeMerge.isSame(b, got) ? null : here;
  }

  private String within(Node b, Node[] s, List<Integer> changed, Node got, String here) {
    if (b != null && b.layout == Layout.ELEMENT) {
      if (got == null || got.layout != Layout.ELEMENT) return here;
      for (int part = 0; part < 2; part++) {
        Node[] of = TreeMerge.parts(b, s, changed, part);
        String astray = astray(b.children.get(part), of, got.children.get(part), here);
        if (astray != null) return astray;
      }
      return null;
    }
    Set<String> keys = new LinkedHashSet<>();
    addKeys(b, keys);
    changed.forEach(i -> addKeys(s[i], keys));
    for (String key : keys) {
      Node child = b == null ? null : b.child(key);
      Node[] of = new Node[s.length];
      for (int i = 0; i < s.length; i++) of[i] = child;
      for (int i : changed) of[i] = s[i].child(key);
      String astray = astray(child, of, got == null ? null : got.child(key), here);
      if (astray != null) return astray;
    }
    if (got != null)
      for (Node more : got.children) if (!keys.contains(more.key)) return here + more.label();
    return null;
  }

  private static void addKeys(Node of, Set<String> keys) {
    if (of != null) of.children.forEach(c -> keys.add(c.key));
  }
}
