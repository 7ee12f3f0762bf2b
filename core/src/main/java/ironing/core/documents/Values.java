package ironing.core.documents;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.plugin.Value;
import ironing.core.query.XPathQuery;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.w3c.dom.Attr;
import org.w3c.dom.Element;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;

/** Values of records out of trees. */
final class Values {
  /** The one field of a record that is no object: its value is compared as a whole. */
  static final String WHOLE = "(value)";

  /** The field that holds the text of an element that has attributes beside it. */
  static final String TEXT = "text()";

  // RFC 8259, section 6
  private static final Pattern NUMBER =
      Pattern.compile("-?(?:0|[1-9][0-9]*)(?:\\.[0-9]+)?(?:[eE][+-]?[0-9]{1,4})?");

  private static final int FAITHFUL_DIGITS = 15, FAITHFUL_SCALE = 200;

  private Values() {}

  static Value of(JsonNode n) throws Unreadable {
    if (n.isTextual()) return new Value.Text(n.textValue());
    if (n.isNumber()) return number(n.decimalValue(), n.isIntegralNumber(), n.asText());
    if (n.isBoolean()) return new Value.Truth(n.booleanValue());
    if (n.isArray()) {
      List<Value> items = new ArrayList<>(n.size());
      for (JsonNode item : n) items.add(of(item));
      return new Value.Array(items);
    }
    return n.isObject() ? fields(n) : Value.NULL;
  }

  /** An object's members; of anything else one field that is the whole. */
  static Value.Fields fields(JsonNode n) throws Unreadable {
    return fields(n, List.of());
  }

  /**
   * @param without members that are no fields
   */
  static Value.Fields fields(JsonNode n, List<String> without) throws Unreadable {
    if (!n.isObject()) return new Value.Fields(Map.of(WHOLE, of(n)));
    Map<String, Value> map = new LinkedHashMap<>(n.size() * 2);
    for (Map.Entry<String, JsonNode> e : n.properties())
      if (!without.contains(e.getKey())) map.put(e.getKey(), of(e.getValue()));
    return new Value.Fields(map);
  }

  /**
   * @throws Unreadable for one that could only be held with other digits: two that differ would
   *     count as the same
   */
  private static Value number(BigDecimal n, boolean whole, String written) throws Unreadable {
    if (whole) {
      try {
        return new Value.Int(n.longValueExact());
      } catch (ArithmeticException e) {
        throw new Unreadable("the number " + written + " is too large to be compared");
      }
    }
    double d = n.doubleValue();
    // so few digits always come back from a double as they were (IEEE 754, 5.12.2)
    if (n.precision() <= FAITHFUL_DIGITS && Math.abs(n.scale()) <= FAITHFUL_SCALE)
      return new Value.Real(d);
    if (Double.isInfinite(d) || new BigDecimal(Double.toString(d)).compareTo(n) != 0)
      throw new Unreadable("the number " + written + " has more digits than can be compared");
    return new Value.Real(d);
  }

  /** A text of a table, of INI or of XML: a number only where the field is one and the text too. */
  static Value text(String text, Field field) {
    if (field.kind() != Kind.NUMBER || !NUMBER.matcher(text).matches()) return new Value.Text(text);
    boolean whole = text.indexOf('.') < 0 && text.indexOf('e') < 0 && text.indexOf('E') < 0;
    try {
      Value v = number(new BigDecimal(text), whole, text);
      // one that would be written otherwise stays as its author wrote it
      return spelled(v).equals(text) ? v : new Value.Text(text);
    } catch (Unreadable e) {
      return new Value.Text(text);
    }
  }

  /** How a value is written where all is text. */
  static String spelled(Value v) {
    if (v instanceof Value.Text t) return t.value();
    if (v instanceof Value.Int i) return Long.toString(i.value());
    if (v instanceof Value.Real r) return Double.toString(r.value());
    if (v instanceof Value.Truth t) return Boolean.toString(t.value());
    return "";
  }

  /**
   * What an element says: its attributes and children by their names.
   *
   * @param markup gets what the value does not tell and a writer has to know
   * @return null where its content means something only as a whole
   */
  static Value element(Element e, Field field, String path, Markup markup) {
    Map<String, Value> map = new LinkedHashMap<>();
    NamedNodeMap all = e.getAttributes();
    for (int i = 0; i < all.getLength(); i++) {
      Attr a = (Attr) all.item(i);
      map.put(a.getName(), text(a.getValue(), child(field, a.getName())));
      markup.attribute(path + "/" + a.getName());
    }
    List<Element> children = new ArrayList<>();
    StringBuilder words = new StringBuilder();
    for (Node c = e.getFirstChild(); c != null; c = c.getNextSibling()) {
      if (c instanceof Element child) children.add(child);
      else words.append(c.getNodeValue());
    }
    boolean said = !words.toString().isBlank();
    if (children.isEmpty()) {
      if (map.isEmpty()) return text(words.toString(), field);
      if (said) map.put(TEXT, text(words.toString(), child(field, TEXT)));
      return new Value.Fields(map);
    }
    if (said) return null;
    if (isList(field, children)) {
      if (!map.isEmpty()) return null;
      List<Value> items = new ArrayList<>();
      String name = children.get(0).getTagName();
      for (Element c : children) {
        Field of = field.kind() == Kind.ROWS ? field.row() : field.of().orElse(Field.WHOLE);
        Value item = element(c, of, path + "/" + name, markup);
        // items of several names could not be written again
        if (item == null || !c.getTagName().equals(name)) return null;
        items.add(item);
      }
      markup.items(path, name);
      return new Value.Array(items);
    }
    Set<String> seen = new HashSet<>(map.keySet());
    for (Element c : children) {
      if (!seen.add(c.getTagName())) return null;
      Value v = element(c, child(field, c.getTagName()), path + "/" + c.getTagName(), markup);
      if (v == null) return null;
      map.put(c.getTagName(), v);
    }
    return new Value.Fields(map);
  }

  private static boolean isList(Field field, List<Element> children) {
    if (field.kind() == Kind.SET || field.kind() == Kind.SEQUENCE || field.kind() == Kind.ROWS)
      return true;
    String name = children.get(0).getTagName();
    return children.size() > 1 && children.stream().allMatch(c -> c.getTagName().equals(name));
  }

  private static Field child(Field field, String name) {
    return field.fields().getOrDefault(name, Field.WHOLE);
  }

  /** The elements as text, for one that means something only as a whole. */
  static String markup(Node n) {
    StringBuilder out = new StringBuilder();
    XmlText.write(n, out);
    return out.toString();
  }

  static String textOf(Node n) {
    return XPathQuery.textOf(n);
  }
}
