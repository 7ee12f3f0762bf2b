package ironing.core.query;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.XMLConstants;
import javax.xml.namespace.NamespaceContext;
import javax.xml.xpath.XPath;
import javax.xml.xpath.XPathConstants;
import javax.xml.xpath.XPathExpressionException;
import javax.xml.xpath.XPathFactory;
import org.w3c.dom.Attr;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.w3c.dom.NodeList;

/**
 * An XPath 1.0 expression that finds elements and attributes. What could look at a document again
 * for each of its elements is refused: {@code //}, axes other than child, attribute and self, and
 * in a predicate a way that leaves the element.
 *
 * <p>Threads: immutable. Cost: the elements that it passes; of one that is only steps down nothing
 * but those is looked at.
 */
public final class XPathQuery {
  private static final int LONGEST = 1_000;
  private static final String NAME = "[\\p{L}_][\\p{L}\\p{N}_.-]*(?::[\\p{L}_][\\p{L}\\p{N}_.-]*)?";
  private static final Pattern STEPS =
      Pattern.compile("/?(?:" + NAME + "/)*(?:@?" + NAME + "|\\.)");
  private static final Pattern AXIS = Pattern.compile("([A-Za-z-]+)\\s*::");
  private static final List<String> AXES = List.of("child", "attribute", "self");

  private final String text;
  private final Map<String, String> names;
  private final Optional<List<String>> steps;

  private XPathQuery(String text, Map<String, String> names, Optional<List<String>> steps) {
    this.text = text;
    this.names = Map.copyOf(names);
    this.steps = steps;
  }

  /**
   * @param names the namespace that each prefix in it means
   * @throws QuerySyntax with the place, where it is known
   */
  public static XPathQuery of(String text, Map<String, String> names) {
    if (text.length() > LONGEST)
      throw new QuerySyntax(LONGEST, "the expression is longer than " + LONGEST);
    String plain = withoutTexts(text);
    int everywhere = plain.indexOf("//");
    if (everywhere >= 0) throw new QuerySyntax(everywhere + 1, "// looks everywhere: name the way");
    Matcher axis = AXIS.matcher(plain);
    while (axis.find())
      if (!AXES.contains(axis.group(1)))
        throw new QuerySyntax(axis.start() + 1, "the axis " + axis.group(1) + " is not followed");
    refuseWaysOut(plain);
    try {
      compiled(text, names);
    } catch (XPathExpressionException e) {
      throw new QuerySyntax(0, "it is no XPath 1.0: " + said(e));
    }
    boolean simple = STEPS.matcher(text).matches();
    return new XPathQuery(
        text, new TreeMap<>(names), simple ? Optional.of(split(text)) : Optional.empty());
  }

  private static List<String> split(String text) {
    return text.equals(".")
        ? List.of()
        : Arrays.asList((text.startsWith("/") ? text.substring(1) : text).split("/"));
  }

  /** The same length, with blanks for what stands in quotes. */
  private static String withoutTexts(String text) {
    StringBuilder out = new StringBuilder(text);
    int from = -1;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (from < 0 && (c == '\'' || c == '"')) from = i;
      else if (from >= 0 && c == text.charAt(from)) {
        for (int k = from; k <= i; k++) out.setCharAt(k, ' ');
        from = -1;
      }
    }
    return out.toString();
  }

  private static void refuseWaysOut(String plain) {
    int open = 0;
    for (int i = 0; i < plain.length(); i++) {
      char c = plain.charAt(i);
      if (c == '[') open++;
      else if (c == ']') open--;
      else if (open > 0 && plain.startsWith("..", i))
        throw new QuerySyntax(i + 1, "a predicate does not leave its element");
      else if (open > 0 && c == '/' && beginsWay(plain, i))
        throw new QuerySyntax(i + 1, "a predicate does not begin at the root again");
    }
  }

  private static boolean beginsWay(String plain, int at) {
    int before = at - 1;
    while (before >= 0 && Character.isWhitespace(plain.charAt(before))) before--;
    char c = before < 0 ? '[' : plain.charAt(before);
    return !(Character.isLetterOrDigit(c) || "_-.*)]".indexOf(c) >= 0);
  }

  private static String said(Exception e) {
    String message = e.getMessage() == null ? "" : e.getMessage();
    return message.substring(message.lastIndexOf(':') + 1).strip();
  }

  private static javax.xml.xpath.XPathExpression compiled(String text, Map<String, String> names)
      throws XPathExpressionException {
    XPath xpath = XPathFactory.newDefaultInstance().newXPath();
    xpath.setNamespaceContext(new Prefixes(names));
    return xpath.compile(text);
  }

  private record Prefixes(Map<String, String> names) implements NamespaceContext {
    @Override
    public String getNamespaceURI(String prefix) {
      return names.getOrDefault(prefix, XMLConstants.NULL_NS_URI);
    }

    @Override
    public String getPrefix(String uri) {
      return null;
    }

    @Override
    public Iterator<String> getPrefixes(String uri) {
      return List.<String>of().iterator();
    }
  }

  /**
   * The elements and attributes that it matches, in the order of the document.
   *
   * @param from a document or an element
   * @throws QuerySyntax where it gives something else, such as a number
   */
  public List<Node> find(Node from) {
    if (steps.isPresent()) return walked(from);
    try {
      NodeList found = (NodeList) compiled(text, names).evaluate(from, XPathConstants.NODESET);
      List<Node> all = new ArrayList<>();
      for (int i = 0; i < found.getLength(); i++) all.add(found.item(i));
      return all;
    } catch (XPathExpressionException e) {
      throw new QuerySyntax(0, "it does not lead to elements or attributes: " + said(e));
    }
  }

  private List<Node> walked(Node from) {
    Node begin =
        text.startsWith("/") && !(from instanceof Document) ? from.getOwnerDocument() : from;
    List<Node> at = List.of(begin);
    for (String step : steps.get()) {
      List<Node> next = new ArrayList<>();
      for (Node n : at) {
        if (step.startsWith("@")) {
          if (n instanceof Element e) attribute(e, step.substring(1)).ifPresent(next::add);
        } else {
          for (Node c = n.getFirstChild(); c != null; c = c.getNextSibling())
            if (c instanceof Element && isCalled(c, step)) next.add(c);
        }
      }
      at = next;
    }
    return at;
  }

  private Optional<Attr> attribute(Element e, String name) {
    int colon = name.indexOf(':');
    return Optional.ofNullable(
        colon < 0
            ? e.getAttributeNodeNS(null, name)
            : e.getAttributeNodeNS(names.get(name.substring(0, colon)), name.substring(colon + 1)));
  }

  private boolean isCalled(Node n, String name) {
    int colon = name.indexOf(':');
    String uri = colon < 0 ? null : names.get(name.substring(0, colon));
    return name.substring(colon + 1).equals(n.getLocalName())
        && Objects.equals(uri, n.getNamespaceURI());
  }

  /** What a place says: the text of an attribute, or of an element with all in it. */
  public static String textOf(Node n) {
    return n instanceof Attr a ? a.getValue() : n.getTextContent();
  }

  /** The steps down that it is made of; empty where it has predicates or anything else. */
  public Optional<List<String>> steps() {
    return steps;
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof XPathQuery q && q.text.equals(text) && q.names.equals(names);
  }

  @Override
  public int hashCode() {
    return text.hashCode();
  }

  /** As it was written. */
  @Override
  public String toString() {
    return text;
  }
}
