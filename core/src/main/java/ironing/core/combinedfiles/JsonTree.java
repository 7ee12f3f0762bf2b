package ironing.core.combinedfiles;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import ironing.core.combinedfiles.Node.Layout;
import ironing.core.combinedfiles.Tree.Unfit;
import ironing.core.game.GameDefinition.ElementKey;
import ironing.core.plugin.Prints;
import java.io.IOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Reads JSON (RFC 8259) with the places of its values. Objects have entries; arrays those that the
 * definition names ({@link ArrayNames}).
 */
final class JsonTree {
  private static final int DEEPEST = 500;
  // digits of numbers that need no reckoning to be told from others
  private static final int PLAIN = 18;
  private static final int LONGEST = 1 << 26;
  private static final JsonFactory JSON =
      JsonFactory.builder()
          .streamReadConstraints(
              StreamReadConstraints.builder()
                  .maxNestingDepth(DEEPEST)
                  .maxStringLength(LONGEST)
                  .maxNumberLength(10_000)
                  .build())
          .build();
  private final String text;
  private final ArrayNames arrays;
  private final JsonParser in;

  private JsonTree(String text, ArrayNames arrays, JsonParser in) {
    this.text = text;
    this.arrays = arrays;
    this.in = in;
  }

  static Tree read(String text, Map<String, ElementKey> arrays) throws Unfit {
    try (JsonParser in = JSON.createParser(text)) {
      if (in.nextToken() == null) throw new Unfit("It is empty.");
      ArrayNames names = new ArrayNames(arrays);
      Node root = new JsonTree(text, names, in).value("", "", -1, "");
      if (in.nextToken() != null) throw new Unfit("Something stands behind its value.");
      return new Tree(text, root, names.met(), names.unfit());
    } catch (JsonProcessingException e) {
      JsonLocation at = e.getLocation();
      String where =
          at == null ? "" : " (line " + at.getLineNr() + ", column " + at.getColumnNr() + ")";
      throw new Unfit("It is not JSON" + where + ": " + e.getOriginalMessage());
    } catch (IOException e) {
      throw new Unfit("It cannot be read: " + e.getMessage());
    }
  }

  private int at() {
    return (int) in.currentTokenLocation().getCharOffset();
  }

  /**
   * @param start where the entry begins; -1 for where the value does
   */
  private Node value(String key, String label, int start, String pointer) throws IOException {
    int from = at();
    int begin = start < 0 ? from : start;
    JsonToken t = in.currentToken();
    if (t == JsonToken.START_OBJECT) return object(key, label, begin, from, pointer);
    if (t == JsonToken.START_ARRAY) return array(key, label, begin, from, pointer);
    // reads it to its end, and refuses one that has none, before we look for that
    long print = print(t);
    int to = endOfScalar(from, t);
    return Node.whole(key, label, begin, to, from, to, print);
  }

  private int endOfScalar(int from, JsonToken t) throws IOException {
    if (t != JsonToken.VALUE_STRING) return from + in.getTextLength();
    return endOfString(from);
  }

  private int endOfString(int from) {
    int at = from + 1;
    while (text.charAt(at) != '"') at += text.charAt(at) == '\\' ? 2 : 1;
    return at + 1;
  }

  private long print(JsonToken t) throws IOException {
    return switch (t) {
      case VALUE_STRING -> Prints.name("\"" + in.getText());
      case VALUE_NUMBER_INT -> Prints.name(whole(in.getText()));
      case VALUE_NUMBER_FLOAT -> Prints.name("#" + number(in.getText()));
      default -> Prints.name(in.getText());
    };
  }

  private static String whole(String written) {
    return "#" + (written.length() < PLAIN && !written.endsWith("0") ? written : number(written));
  }

  /** Numbers compare by value; those of huge exponents as they are written. */
  static String number(String written) {
    try {
      BigDecimal n = new BigDecimal(written);
      return n.signum() == 0 ? "0" : n.stripTrailingZeros().toString();
    } catch (NumberFormatException | ArithmeticException e) {
      return written;
    }
  }

  private Node object(String key, String label, int start, int from, String pointer)
      throws IOException {
    List<Node> children = new ArrayList<>();
    long sum = 0, inOrder = 1;
    while (in.nextToken() != JsonToken.END_OBJECT) {
      String name = in.currentName();
      int at = at();
      in.nextToken();
      Node child = value(name, null, at, below(pointer, name));
      children.add(child);
      long print = Prints.mix(Prints.name(name), child.print);
      sum += print;
      inOrder = Prints.mix(inOrder, print);
    }
    int to = at() + 1;
    // a key that stands twice means nothing that is sure
    if (!Node.unique(children))
      return Node.whole(key, label, start, to, from, to, Prints.mix(3, inOrder))
          .doubted("“" + Node.twice(children) + "” stands twice in one object.");
    return Node.keyed(
            key,
            label,
            Layout.COMMAS,
            start,
            to,
            from,
            to,
            from + 1,
            to - 1,
            children,
            Prints.mix(1, sum))
        .emptyAs("{}");
  }

  // no pointer is made up where no array is named
  private String below(String pointer, String name) {
    return arrays.isEmpty() ? "" : pointer + "/" + escaped(name);
  }

  // as RFC 6901 has it
  static String escaped(String name) {
    return name.indexOf('~') < 0 && name.indexOf('/') < 0
        ? name
        : name.replace("~", "~0").replace("/", "~1");
  }

  private Node array(String key, String label, int start, int from, String pointer)
      throws IOException {
    List<Node> elements = new ArrayList<>();
    while (in.nextToken() != JsonToken.END_ARRAY)
      elements.add(value("", "", -1, below(pointer, "*")));
    int to = at() + 1;
    Optional<List<Node>> keyed = arrays.keyed(text, elements, pointer);
    if (keyed.isEmpty())
      return Node.whole(key, label, start, to, from, to, Elements.inOrder(elements));
    List<Node> entries = keyed.get();
    long print = Elements.anyOrder(entries);
    return Node.keyed(
            key, label, Layout.COMMAS, start, to, from, to, from + 1, to - 1, entries, print)
        .emptyAs("[]");
  }
}
