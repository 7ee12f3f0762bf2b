package ironing.core.text;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.io.JsonStringEncoder;
import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * One place in a JSON document (RFC 8259; with comments and last commas where they are allowed)
 * that is written while all else keeps its bytes. A place is the names that lead to it.
 *
 * <p>Threads: stateless. Cost: linear in the document.
 */
public final class JsonPlace {
  private static final int DEEPEST = 500;

  private JsonPlace() {}

  /** A document in which a place cannot be written; the message says why. */
  public static final class NoPlace extends Exception {
    private static final long serialVersionUID = 1;

    NoPlace(String reason) {
      super(reason);
    }
  }

  /**
   * Where the value of a place stands, or where it would have to.
   *
   * @param to behind the value; the same as {@code from} where it is still to be made
   * @param missing the names that are not there yet
   * @param first whether it would be the first member of its object
   */
  private record Spot(int from, int to, List<String> missing, boolean first) {}

  /**
   * The document with another value at a place. A name that is not there is made, at the end of its
   * parent.
   *
   * @param text the document; blank for none yet
   * @param json the value as it is to be written
   */
  public static String put(String text, boolean lenient, List<String> names, String json)
      throws NoPlace {
    if (text.isBlank()) return nested(names, json) + "\n";
    Spot at = find(text, lenient, names);
    if (at.missing().isEmpty())
      return text.substring(0, at.from()) + json + text.substring(at.to());
    String made =
        quoted(at.missing().get(0))
            + ":"
            + nested(at.missing().subList(1, at.missing().size()), json);
    String before = at.first() ? "" : ",";
    return text.substring(0, at.from()) + before + made + text.substring(at.from());
  }

  private static String nested(List<String> names, String json) {
    StringBuilder out = new StringBuilder();
    for (String n : names) out.append('{').append(quoted(n)).append(':');
    return out.append(json).append("}".repeat(names.size())).toString();
  }

  private static Spot find(String text, boolean lenient, List<String> names) throws NoPlace {
    JsonFactory factory =
        JsonFactory.builder()
            .streamReadConstraints(StreamReadConstraints.builder().maxNestingDepth(DEEPEST).build())
            .configure(JsonReadFeature.ALLOW_JAVA_COMMENTS, lenient)
            .configure(JsonReadFeature.ALLOW_TRAILING_COMMA, lenient)
            .build();
    try (JsonParser in = factory.createParser(text)) {
      in.nextToken();
      Spot spot = find(in, names, 0);
      // all of it must be JSON, or what is changed in it may not be what the game reads
      while (in.nextToken() != null) {}
      return spot;
    } catch (JsonProcessingException e) {
      JsonLocation at = e.getLocation();
      throw new NoPlace(
          "it is not JSON"
              + (at == null
                  ? ""
                  : " (line " + at.getLineNr() + ", column " + at.getColumnNr() + ")")
              + ": "
              + e.getOriginalMessage());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static int start(JsonParser in) {
    return (int) in.currentTokenLocation().getCharOffset();
  }

  private static int end(JsonParser in) throws IOException {
    // a scalar is read to its end before the place behind it is known
    if (in.currentToken().isScalarValue()) in.getText();
    return (int) in.currentLocation().getCharOffset();
  }

  private static Spot find(JsonParser in, List<String> names, int depth)
      throws IOException, NoPlace {
    if (depth == names.size()) {
      int from = start(in);
      in.skipChildren();
      return new Spot(from, end(in), List.of(), false);
    }
    if (in.currentToken() != JsonToken.START_OBJECT)
      throw new NoPlace(
          depth == 0
              ? "it is no object"
              : "what stands at “" + names.get(depth - 1) + "” is no object");
    Spot found = null;
    int behind = end(in);
    boolean first = true;
    while (in.nextToken() != JsonToken.END_OBJECT) {
      boolean here = in.currentName().equals(names.get(depth));
      in.nextToken();
      if (here && found != null)
        throw new NoPlace("“" + names.get(depth) + "” stands twice in one object");
      if (here) found = find(in, names, depth + 1);
      else in.skipChildren();
      behind = end(in);
      first = false;
    }
    if (found != null) return found;
    return new Spot(behind, behind, names.subList(depth, names.size()), first);
  }

  /** A value in the form that RFC 8785 gives it; of numbers only whole ones. */
  public static String canonical(JsonNode value) {
    if (value.isObject()) {
      Map<String, JsonNode> sorted = new TreeMap<>();
      value.properties().forEach(e -> sorted.put(e.getKey(), e.getValue()));
      List<String> members = new ArrayList<>();
      sorted.forEach((k, v) -> members.add(quoted(k) + ":" + canonical(v)));
      return "{" + String.join(",", members) + "}";
    }
    if (value.isArray()) {
      List<String> items = new ArrayList<>();
      value.forEach(v -> items.add(canonical(v)));
      return "[" + String.join(",", items) + "]";
    }
    return value.isTextual() ? quoted(value.textValue()) : value.asText();
  }

  public static String quoted(String text) {
    return "\"" + new String(JsonStringEncoder.getInstance().quoteAsString(text)) + "\"";
  }
}
