package ironing.core.combinedfiles;

import ironing.core.combinedfiles.Node.Layout;
import ironing.core.combinedfiles.Tree.Unfit;
import ironing.core.game.GameDefinition.ElementKey;
import ironing.core.plugin.Prints;
import ironing.core.yaml.YamlDepth;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.composer.Composer;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;
import org.snakeyaml.engine.v2.parser.ParserImpl;
import org.snakeyaml.engine.v2.scanner.StreamReader;

/**
 * Reads YAML 1.2 of one document with the places of its values; mappings and arrays as {@link
 * JsonTree}. Anchors tie places together and cannot be told by keys.
 */
final class YamlTree {
  private static final LoadSettings SETTINGS =
      LoadSettings.builder()
          .setAllowDuplicateKeys(true)
          .setMaxAliasesForCollections(0)
          .setCodePointLimit(1 << 26)
          .build();
  private static final int DEEPEST = 500;
  private final String text;
  private final ArrayNames arrays;
  private final Set<Object> met = Collections.newSetFromMap(new IdentityHashMap<>());
  // the characters that take two places in the text, by their number among all
  private final int[] wide;

  private YamlTree(String text, ArrayNames arrays) {
    this.text = text;
    this.arrays = arrays;
    int[] points = text.codePoints().toArray();
    this.wide = IntStream.range(0, points.length).filter(i -> points[i] > 0xFFFF).toArray();
  }

  static Tree read(String text, Map<String, ElementKey> arrays) throws Unfit {
    if (YamlDepth.deeper(SETTINGS, text, DEEPEST).isPresent())
      throw new Unfit("It is nested deeper than " + DEEPEST + ".");
    try {
      ParserImpl parser =
          new ParserImpl(SETTINGS, new StreamReader(SETTINGS, new StringReader(text)));
      Composer composer = new Composer(SETTINGS, parser);
      if (!composer.hasNext()) throw new Unfit("It is empty.");
      org.snakeyaml.engine.v2.nodes.Node root = composer.next();
      if (composer.hasNext()) throw new Unfit("It has several documents.");
      ArrayNames names = new ArrayNames(arrays);
      YamlTree tree = new YamlTree(text, names);
      Node read = tree.asRoot(tree.value(root, "", "", -1, ""));
      return new Tree(text, read, names.met(), names.unfit());
    } catch (MarkedYamlEngineException e) {
      String where =
          e.getProblemMark()
              .map(m -> " (line " + (m.getLine() + 1) + ", column " + (m.getColumn() + 1) + ")")
              .orElse("");
      throw new Unfit("It is not YAML" + where + ": " + e.getProblem());
    } catch (YamlEngineException e) {
      throw new Unfit("It is not YAML: " + e.getMessage());
    }
  }

  // what stands around the entries of the topmost mapping is part of the text too
  private Node asRoot(Node n) {
    if (n.layout != Layout.LINES) {
      return n;
    }
    int end = text.length();
    return Node.keyed("", "", Layout.LINES, 0, end, 0, end, 0, end, n.children, n.print)
        .emptyAs(n.empty());
  }

  private int at(org.snakeyaml.engine.v2.exceptions.Mark m) {
    int before = Arrays.binarySearch(wide, m.getIndex());
    return m.getIndex() + (before < 0 ? -before - 1 : before);
  }

  private Node value(
      org.snakeyaml.engine.v2.nodes.Node n, String key, String label, int start, String pointer)
      throws Unfit {
    if (n.getAnchor().isPresent() || !met.add(n))
      throw new Unfit("It has anchors, which tie places together.");
    int from = at(n.getStartMark().orElseThrow());
    int begin = start < 0 ? from : start;
    if (n instanceof MappingNode m) return mapping(m, key, label, begin, from, pointer);
    if (n instanceof SequenceNode s) return sequence(s, key, label, begin, from, pointer);
    int to = trimmed(from, at(n.getEndMark().orElseThrow()));
    // a value that is not written stands right behind its key
    int end = Math.max(begin, to);
    return Node.whole(
        key, label, begin, Math.max(end, from), from, Math.max(to, from), print((ScalarNode) n));
  }

  private int trimmed(int from, int to) {
    int at = to;
    while (at > from && Character.isWhitespace(text.charAt(at - 1))) at--;
    return at;
  }

  private static long print(ScalarNode s) {
    Tag tag = s.getTag();
    if (tag.equals(Tag.INT) || tag.equals(Tag.FLOAT))
      return Prints.name("#" + JsonTree.number(s.getValue()));
    return Prints.name(tag.getValue() + " " + s.getValue());
  }

  private Node mapping(MappingNode m, String key, String label, int start, int from, String pointer)
      throws Unfit {
    boolean flow = m.getFlowStyle() == FlowStyle.FLOW;
    List<Node> children = new ArrayList<>();
    long sum = 0;
    for (NodeTuple t : m.getValue()) {
      if (!(t.getKeyNode() instanceof ScalarNode name))
        throw new Unfit("One of its keys is no text.");
      String word = name.getValue();
      if (word.equals("<<")) throw new Unfit("It has anchors, which tie places together.");
      int at = at(name.getStartMark().orElseThrow());
      Node child =
          value(t.getValueNode(), word, "/" + word, at, pointer + "/" + JsonTree.escaped(word));
      children.add(child);
      sum += Prints.mix(Prints.name(word), child.print);
    }
    int to = flow ? at(m.getEndMark().orElseThrow()) : children.get(children.size() - 1).end;
    if (!Node.unique(children))
      return Node.whole(key, label, start, to, from, to, Prints.name(text.substring(from, to)))
          .doubted("“" + Node.twice(children) + "” stands twice in one mapping.");
    Layout layout = flow ? Layout.COMMAS : Layout.LINES;
    int open = flow ? from + 1 : from, close = flow ? to - 1 : to;
    return Node.keyed(
            key, label, layout, start, to, from, to, open, close, children, Prints.mix(1, sum))
        .emptyAs("{}");
  }

  private Node sequence(
      SequenceNode s, String key, String label, int start, int from, String pointer) throws Unfit {
    boolean flow = s.getFlowStyle() == FlowStyle.FLOW;
    List<Node> elements = new ArrayList<>();
    for (org.snakeyaml.engine.v2.nodes.Node item : s.getValue()) {
      int at = at(item.getStartMark().orElseThrow());
      elements.add(value(item, "", "", flow ? -1 : dashBefore(at), pointer + "/*"));
    }
    int to = flow ? at(s.getEndMark().orElseThrow()) : elements.get(elements.size() - 1).end;
    Optional<List<Node>> keyed = arrays.keyed(text, elements, pointer);
    if (keyed.isEmpty())
      return Node.whole(key, label, start, to, from, to, Elements.inOrder(elements));
    Layout layout = flow ? Layout.COMMAS : Layout.LINES;
    int open = flow ? from + 1 : from, close = flow ? to - 1 : to;
    long print = Elements.anyOrder(keyed.get());
    return Node.keyed(key, label, layout, start, to, from, to, open, close, keyed.get(), print)
        .emptyAs("[]");
  }

  private int dashBefore(int at) {
    int dash = text.lastIndexOf('-', at - 1);
    return dash < 0 ? at : dash;
  }
}
