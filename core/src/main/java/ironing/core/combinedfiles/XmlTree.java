package ironing.core.combinedfiles;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import ironing.core.combinedfiles.Node.Layout;
import ironing.core.combinedfiles.Tree.Unfit;
import ironing.core.plugin.Prints;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import javax.xml.stream.Location;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLInputFactory2;
import org.codehaus.stax2.XMLStreamReader2;

/**
 * Reads XML with the places of its elements and attributes. An element is known by its tag and its
 * key attribute, or by its tag alone where only one among its siblings has that; text beside
 * elements makes their parent's content whole.
 *
 * <p>A document type is refused, so no entity is ever looked up or unfolded.
 */
final class XmlTree {
  private static final int DEEPEST = 500;
  private static final XMLInputFactory XML = factory();
  private final String text;
  private final List<String> keys;
  private final XMLStreamReader2 in;

  private XmlTree(String text, List<String> keys, XMLStreamReader2 in) {
    this.text = text;
    this.keys = keys.stream().map(k -> k.startsWith("@") ? k.substring(1) : k).toList();
    this.in = in;
  }

  private static XMLInputFactory factory() {
    XMLInputFactory f = new WstxInputFactory();
    f.setProperty(XMLInputFactory.IS_NAMESPACE_AWARE, false);
    f.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    f.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    f.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, DEEPEST);
    // else what is wrong with a text is thrown later, when it is asked for
    f.setProperty(XMLInputFactory2.P_LAZY_PARSING, false);
    return f;
  }

  static Tree read(String text, List<String> keys) throws Unfit {
    try {
      XMLStreamReader2 in = (XMLStreamReader2) XML.createXMLStreamReader(new StringReader(text));
      Node root = null;
      while (in.hasNext()) {
        int event = in.next();
        if (event == XMLStreamConstants.DTD)
          throw new Unfit("It has a document type, which is not followed.");
        if (event == XMLStreamConstants.START_ELEMENT) root = new XmlTree(text, keys, in).element();
      }
      return new Tree(text, root);
    } catch (XMLStreamException e) {
      Location at = e.getLocation();
      String where =
          at == null
              ? ""
              : " (line " + at.getLineNumber() + ", column " + at.getColumnNumber() + ")";
      String said = e.getMessage().lines().findFirst().orElse("");
      throw new Unfit("It is not XML" + where + ": " + said);
    }
  }

  private int start() {
    return (int) in.getLocationInfo().getStartingCharOffset();
  }

  private int end() throws XMLStreamException {
    return (int) in.getLocationInfo().getEndingCharOffset();
  }

  private Node element() throws XMLStreamException {
    int from = start(), behindTag = end();
    String tag = in.getLocalName();
    String key = tag, label = "/" + tag;
    for (String k : keys) {
      String value = in.getAttributeValue(null, k);
      if (value == null) continue;
      key += " " + value;
      label += "[" + value + "]";
    }
    int open = from + 1 + tag.length();
    boolean closed = text.charAt(behindTag - 2) == '/';
    Node attributes = attributes(open);
    int contentFrom = closed ? behindTag - 2 : behindTag;
    Node content = content(contentFrom, closed);
    int to = end();
    long print = Prints.mix(Prints.name(tag), Prints.mix(attributes.print, content.print));
    int close = closed ? contentFrom : content.to;
    return Node.keyed(
        key,
        label,
        Layout.ELEMENT,
        from,
        to,
        from,
        to,
        open,
        close,
        List.of(attributes, content),
        print);
  }

  /** Finds the places of what the reader has already found to be attributes. */
  private Node attributes(int open) {
    List<Node> all = new ArrayList<>();
    long sum = 0;
    int at = open;
    for (int i = 0; i < in.getAttributeCount(); i++) {
      while (Character.isWhitespace(text.charAt(at))) at++;
      int start = at;
      int quote = text.indexOf('=', at) + 1;
      while (Character.isWhitespace(text.charAt(quote))) quote++;
      int to = text.indexOf(text.charAt(quote), quote + 1);
      String name = in.getAttributeLocalName(i);
      long print = Prints.name(in.getAttributeValue(i));
      all.add(
          Node.whole(name, "/@" + name, start, to + 1, quote + 1, to, print)
              .quotedBy(text.charAt(quote)));
      sum += Prints.mix(Prints.name(name), print);
      at = to + 1;
    }
    int end = all.isEmpty() ? open : at;
    return Node.keyed(
        "@", "", Layout.BLANKS, open, end, open, end, open, end, all, Prints.mix(7, sum));
  }

  /** Reads up to the end of the element. */
  private Node content(int from, boolean closed) throws XMLStreamException {
    List<Node> elements = new ArrayList<>();
    StringBuilder words = new StringBuilder();
    long inOrder = 8;
    boolean mixed = false;
    while (true) {
      int event = in.next();
      if (event == XMLStreamConstants.END_ELEMENT) break;
      if (event == XMLStreamConstants.START_ELEMENT) {
        Node e = element();
        elements.add(e);
        inOrder = Prints.mix(inOrder, e.print);
      } else if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA) {
        words.append(in.getText());
        if (!in.isWhiteSpace()) {
          mixed = true;
          inOrder = Prints.mix(inOrder, Prints.name(in.getText()));
        }
      }
    }
    int to = closed ? from : start();
    if (elements.isEmpty() && mixed)
      return Node.whole("content", " text", from, to, from, to, Prints.name(words.toString()));
    if (mixed || !Node.unique(elements))
      return Node.whole("content", " content", from, to, from, to, inOrder);
    long sum = 0;
    for (Node e : elements) sum += Prints.mix(Prints.name(e.key), e.print);
    return Node.keyed(
        "content", "", Layout.MARKUP, from, to, from, to, from, to, elements, Prints.mix(9, sum));
  }
}
