package ironing.core.game;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import ironing.core.game.GameDefinition.ListFile;
import ironing.core.game.GameDefinition.ListInside;
import ironing.core.query.JsonPath;
import ironing.core.query.QuerySyntax;
import ironing.core.query.XPathQuery;
import ironing.core.yaml.YamlDocument.Section;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Reads what a definition says of the list by which the game is told the load order. */
final class ListFileReader {
  private ListFileReader() {}

  static ListFile read(Section s, GamePlaces places) {
    for (String p : GameDefinitionReader.paths(s, "file")) places.require(s, "file", p);
    String on = s.text("on").orElse("{name}");
    if (!on.contains("{name}"))
      s.reject(
          "on", "the line of a plugin needs {name} in it", "Write it like on: \"use {name}\".");
    String newline = s.text("newline").orElse("lf");
    if (!newline.equals("lf") && !newline.equals("crlf")) {
      s.reject("newline", "“" + newline + "” is no line end", "Write lf or crlf.");
    }
    ListFile list =
        new ListFile(
            places.in(s, s.required("file")),
            on,
            s.text("off"),
            s.text("own").orElse("omit").equals("omit"),
            newline.equals("crlf") ? "\r\n" : "\n",
            listInside(s));
    s.warnOfUnknownKeys();
    return list;
  }

  /** Where the list stands inside of a document; empty for one that is lines. */
  private static Optional<ListInside> listInside(Section s) {
    String as = s.text("as").orElse("lines");
    if (as.equals("lines")) return Optional.empty();
    if (as.equals("xml")) return Optional.of(listInXml(s));
    if (!as.equals("json")) {
      s.reject("as", "“" + as + "” is no form of a list", "Write lines, json or xml.");
      return Optional.empty();
    }
    String at = s.required("at");
    Optional<List<String>> names = Optional.empty();
    try {
      names = JsonPath.of(at).names();
      if (names.isEmpty())
        s.reject("at", "the place of a list is plain names", "Write it like $.order.");
    } catch (QuerySyntax e) {
      if (s.has("at"))
        s.reject(
            "at",
            "“" + at + "” cannot be read at its place " + e.column() + ": " + e.getMessage(),
            "Write it like $.order.");
    }
    JsonNode entry = s.tree("entry").orElse(TextNode.valueOf("{name}"));
    if (!entry.toString().contains("{name}"))
      s.reject("entry", "an entry needs {name} in it", "Write it like { id: \"{name}\" }.");
    return Optional.of(
        new ListInside(false, names.orElse(List.of()), entry, s.truth("keep", false)));
  }

  private static ListInside listInXml(Section s) {
    String at = s.required("at");
    List<String> steps = List.of();
    try {
      steps = XPathQuery.of(at, Map.of()).steps().orElse(List.of());
      boolean plain = at.startsWith("/") && steps.size() > 1 && at.indexOf('@') < 0;
      if (!plain && s.has("at"))
        s.reject("at", "the place of a list is steps down", "Write it like /config/mods/mod.");
    } catch (QuerySyntax e) {
      if (s.has("at"))
        s.reject(
            "at",
            "“" + at + "” cannot be read: " + e.getMessage(),
            "Write it like /config/mods/mod.");
    }
    JsonNode entry = s.tree("entry").orElse(TextNode.valueOf("{name}"));
    boolean ofAttributes = entry.isObject();
    for (Map.Entry<String, JsonNode> e : entry.properties())
      ofAttributes &=
          e.getKey().matches("@[\\p{L}_][\\p{L}\\p{N}_.-]*") && e.getValue().isValueNode();
    if (!entry.isTextual() && !ofAttributes)
      s.reject(
          "entry",
          "an entry is a text or has attributes",
          "Write it like { \"@id\": \"{name}\" }.");
    if (!entry.toString().contains("{name}"))
      s.reject("entry", "an entry needs {name} in it", "Write it like { \"@id\": \"{name}\" }.");
    return new ListInside(true, steps, entry, s.truth("keep", false));
  }
}
