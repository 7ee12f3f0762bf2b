package ironing.core.text;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import ironing.core.text.JsonPlace.NoPlace;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLInputFactory2;
import org.codehaus.stax2.XMLStreamReader2;

/**
 * The elements of one name below a place of an XML document, written anew while all else keeps its
 * bytes. A document type is refused.
 *
 * <p>Threads: immutable. Cost: linear in the document.
 */
public final class XmlListPlace {
  private static final XMLInputFactory XML = factory();

  /** An element of the list: what it says, and as it stands. */
  public record Element(Map<String, String> attributes, String text, String written) {}

  private final String text;
  private final List<String> steps;
  private final List<int[]> places = new ArrayList<>();
  private final List<Element> elements = new ArrayList<>();
  // of the deepest step that is there: how many steps it is, its tag's ends and its own end
  private int depth, tagFrom, tagTo, closeFrom;

  private XmlListPlace(String text, List<String> steps) {
    this.text = text;
    this.steps = steps;
  }

  private static XMLInputFactory factory() {
    XMLInputFactory f = new WstxInputFactory();
    f.setProperty(XMLInputFactory.IS_NAMESPACE_AWARE, false);
    f.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    f.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    f.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, 200);
    f.setProperty(XMLInputFactory2.P_LAZY_PARSING, false);
    return f;
  }

  /**
   * @param steps names of elements from the root to those of the list, two at the least
   * @throws NoPlace where the document is no XML, or has another root
   */
  public static XmlListPlace in(String text, List<String> steps) throws NoPlace {
    XmlListPlace place = new XmlListPlace(text, steps);
    try {
      XMLStreamReader2 in = (XMLStreamReader2) XML.createXMLStreamReader(new StringReader(text));
      while (in.hasNext()) {
        int event = in.next();
        if (event == XMLStreamConstants.DTD)
          throw new NoPlace("it has a document type, which is not followed");
        if (event != XMLStreamConstants.START_ELEMENT) continue;
        if (!in.getLocalName().equals(steps.get(0)))
          throw new NoPlace("its root is <" + in.getLocalName() + ">, not <" + steps.get(0) + ">");
        place.element(in, 1);
      }
      return place;
    } catch (XMLStreamException e) {
      String said = e.getMessage() == null ? "" : e.getMessage().lines().findFirst().orElse("");
      throw new NoPlace("it is not XML: " + said);
    }
  }

  public List<Element> elements() {
    return elements;
  }

  private static int start(XMLStreamReader2 in) {
    return (int) in.getLocationInfo().getStartingCharOffset();
  }

  private static int end(XMLStreamReader2 in) throws XMLStreamException {
    return (int) in.getLocationInfo().getEndingCharOffset();
  }

  /** Reads an element that is the n-th step, up to its end. */
  private void element(XMLStreamReader2 in, int n) throws XMLStreamException {
    boolean deepest = n > depth;
    if (deepest) {
      depth = n;
      tagFrom = start(in);
      tagTo = end(in);
    }
    boolean parent = n == steps.size() - 1;
    while (true) {
      int event = in.next();
      if (event == XMLStreamConstants.END_ELEMENT) break;
      if (event != XMLStreamConstants.START_ELEMENT) continue;
      boolean step = n < steps.size() && in.getLocalName().equals(steps.get(n));
      // of several parents of one name the first has the list
      if (step && parent && deepest) item(in);
      else if (step && !parent && n == depth) element(in, n + 1);
      else skip(in);
    }
    if (n == depth) closeFrom = start(in);
  }

  private static void skip(XMLStreamReader2 in) throws XMLStreamException {
    int open = 1;
    while (open > 0) {
      int event = in.next();
      if (event == XMLStreamConstants.START_ELEMENT) open++;
      if (event == XMLStreamConstants.END_ELEMENT) open--;
    }
  }

  private void item(XMLStreamReader2 in) throws XMLStreamException {
    int from = start(in);
    Map<String, String> attributes = new LinkedHashMap<>();
    for (int i = 0; i < in.getAttributeCount(); i++)
      attributes.put(in.getAttributeLocalName(i), in.getAttributeValue(i));
    StringBuilder said = new StringBuilder();
    int open = 1;
    while (open > 0) {
      int event = in.next();
      if (event == XMLStreamConstants.START_ELEMENT) open++;
      if (event == XMLStreamConstants.END_ELEMENT) open--;
      if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA)
        said.append(in.getText());
    }
    int to = end(in);
    places.add(new int[] {from, to});
    elements.add(new Element(attributes, said.toString().strip(), text.substring(from, to)));
  }

  /**
   * The document with other elements in the list.
   *
   * @param written each as it is to stand
   */
  public String with(List<String> written) {
    String newline = text.contains("\r\n") ? "\r\n" : "\n";
    String indent = indentOf(tagFrom);
    StringBuilder list = new StringBuilder();
    String inner = indent;
    for (int i = depth; i < steps.size() - 1; i++) {
      inner += "  ";
      list.append(newline).append(inner).append('<').append(steps.get(i)).append('>');
    }
    for (String w : written) list.append(newline).append(inner).append("  ").append(w);
    for (int i = steps.size() - 2; i >= depth; i--) {
      list.append(newline).append(inner).append("</").append(steps.get(i)).append('>');
      inner = inner.substring(2);
    }
    if (text.startsWith("/>", tagTo - 2))
      return list.isEmpty()
          ? text
          : text.substring(0, tagTo - 2).stripTrailing()
              + ">"
              + list
              + newline
              + indent
              + "</"
              + steps.get(depth - 1)
              + ">"
              + text.substring(tagTo);
    if (places.isEmpty()) {
      // what is made new stands at the end of its parent; entries of a list that is there, first
      boolean made = depth < steps.size() - 1;
      int at = made ? backOverBlanks(closeFrom) : tagTo;
      boolean closes =
          text.substring(at, closeFrom).isBlank()
              && text.indexOf('\n', at) < closeFrom
              && text.indexOf('\n', at) >= 0;
      boolean only = text.substring(at, closeFrom).isBlank();
      String behind = only && !closes && !list.isEmpty() ? newline + indent : "";
      return text.substring(0, at) + list + behind + text.substring(at);
    }
    StringBuilder out = new StringBuilder();
    int at = 0;
    for (int i = 0; i < places.size(); i++) {
      int from = backOverBlanks(places.get(i)[0]);
      out.append(text, at, from);
      if (i == 0) out.append(list);
      at = places.get(i)[1];
    }
    return out.append(text.substring(at)).toString();
  }

  private int backOverBlanks(int from) {
    int at = from;
    while (at > 0 && Character.isWhitespace(text.charAt(at - 1))) at--;
    return at;
  }

  private String indentOf(int at) {
    int line = text.lastIndexOf('\n', at - 1) + 1;
    String before = text.substring(line, at);
    return before.isBlank() ? before : "";
  }

  /** An element with attributes and text, as it is written. */
  public static String element(String tag, Map<String, String> attributes, String text) {
    StringBuilder out = new StringBuilder("<").append(tag);
    attributes.forEach(
        (name, value) ->
            out.append(' ').append(name).append("=\"").append(escaped(value)).append('"'));
    return text.isEmpty()
        ? out.append("/>").toString()
        : out.append('>').append(escaped(text)).append("</").append(tag).append('>').toString();
  }

  private static String escaped(String text) {
    return text.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }
}
