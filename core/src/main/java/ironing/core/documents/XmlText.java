package ironing.core.documents;

import org.w3c.dom.Attr;
import org.w3c.dom.Element;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;

/** Writes elements as XML 1.0 text. */
final class XmlText {
  private XmlText() {}

  static void write(Node n, StringBuilder out) {
    if (!(n instanceof Element e)) {
      out.append(escaped(n.getNodeValue(), false));
      return;
    }
    out.append('<').append(e.getTagName());
    NamedNodeMap all = e.getAttributes();
    for (int i = 0; i < all.getLength(); i++) {
      Attr a = (Attr) all.item(i);
      attribute(a.getName(), a.getValue(), out);
    }
    if (e.getFirstChild() == null) {
      out.append("/>");
      return;
    }
    out.append('>');
    for (Node c = e.getFirstChild(); c != null; c = c.getNextSibling()) write(c, out);
    out.append("</").append(e.getTagName()).append('>');
  }

  static void attribute(String name, String value, StringBuilder out) {
    out.append(' ').append(name).append("=\"").append(escaped(value, true)).append('"');
  }

  static String escaped(String text, boolean attribute) {
    StringBuilder out = new StringBuilder(text.length());
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      switch (c) {
        case '&' -> out.append("&amp;");
        case '<' -> out.append("&lt;");
        case '>' -> out.append("&gt;");
        case '"' -> out.append(attribute ? "&quot;" : "\"");
        case '\r' -> out.append("&#13;");
        case '\n', '\t' -> out.append(attribute ? "&#" + (int) c + ";" : String.valueOf(c));
        default -> out.append(c);
      }
    }
    return out.toString();
  }
}
