package ironing.core.game;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.game.DocumentPlugins.Form;
import ironing.core.game.DocumentPlugins.IdOf;
import ironing.core.game.DocumentPlugins.Is;
import ironing.core.game.DocumentPlugins.ManifestForm;
import ironing.core.game.DocumentPlugins.Masters;
import ironing.core.game.DocumentPlugins.OrderNumber;
import ironing.core.game.DocumentPlugins.PatchForm;
import ironing.core.game.DocumentPlugins.Reading;
import ironing.core.game.DocumentPlugins.RecordFiles;
import ironing.core.game.DocumentPlugins.Removed;
import ironing.core.game.DocumentPlugins.Spot;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import ironing.core.query.JsonPath;
import ironing.core.query.QuerySyntax;
import ironing.core.query.XPathQuery;
import ironing.core.yaml.YamlDocument.Section;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Reads what a definition says of plugins that are open text. */
final class DocumentPluginsReader {
  private static final String TYPE = "[a-z0-9-]{1,32}";

  private final String in;
  private final PathCase pathCase;

  private DocumentPluginsReader(String in, PathCase pathCase) {
    this.in = in;
    this.pathCase = pathCase;
  }

  /**
   * Empty for plugins of a format that is none of text.
   *
   * @param in the place that they lie in, as a game path; empty for the game folder
   */
  static Optional<DocumentPlugins> read(Section plugins, String in, PathCase pathCase) {
    boolean any = plugins.has("header") || plugins.has("records") || plugins.has("is");
    return any
        ? Optional.of(new DocumentPluginsReader(in, pathCase).plugins(plugins))
        : Optional.empty();
  }

  private DocumentPlugins plugins(Section s) {
    Is is = is(s);
    if (s.has("format"))
      s.reject(
          "format",
          "plugins of text have no format of their own",
          "Leave format out, or leave header, records and is out.");
    ManifestForm header =
        s.section("header")
            .map(this::header)
            .orElseGet(
                () ->
                    new ManifestForm(
                        new Reading(Form.JSON, false),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty()));
    List<RecordFiles> records = new ArrayList<>();
    for (Section r : s.sections("records")) records.add(records(r));
    Optional<PatchForm> patch = s.section("patch").map(p -> patch(p, header));
    if (patch.isPresent() && is == Is.FILE)
      s.reject(
          "patch",
          "a patch can only be written where a plugin is a folder",
          "Write is: folder, or leave patch out.");
    Optional<OrderNumber> number = s.section("number").map(this::number);
    return new DocumentPlugins(is, header, List.copyOf(records), patch, number);
  }

  private static Is is(Section s) {
    String word = s.text("is").orElse("file");
    for (Is is : Is.values()) if (is.name().toLowerCase(Locale.ROOT).equals(word)) return is;
    s.reject("is", "“" + word + "” is nothing that a plugin can be", "Write file or folder.");
    return Is.FILE;
  }

  private Reading reading(Section s, Form... allowed) {
    String word = s.required("as");
    List<String> words = new ArrayList<>();
    for (Form f : allowed) {
      words.add(f.name().toLowerCase(Locale.ROOT));
      if (words.get(words.size() - 1).equals(word))
        return new Reading(f, f == Form.JSON && s.truth("lenient", false));
    }
    if (s.has("as"))
      s.reject(
          "as",
          "“" + word + "” is no form that is read here",
          "Write one of: " + String.join(", ", words) + ".");
    s.known("lenient");
    return new Reading(allowed[0], false);
  }

  private static Map<String, String> names(Section s) {
    Map<String, String> names = new LinkedHashMap<>();
    s.section("names")
        .ifPresent(n -> n.keys().forEach(k -> n.text(k).ifPresent(uri -> names.put(k, uri))));
    return names;
  }

  private ManifestForm header(Section s) {
    Reading reading = reading(s, Form.JSON, Form.YAML, Form.XML);
    Map<String, String> names = names(s);
    Optional<Masters> masters = Optional.empty();
    if (s.has("masters") && s.isText("masters"))
      masters = spot(s, "masters", reading, names).map(at -> new Masters(at, Optional.empty()));
    else if (s.has("masters"))
      masters =
          s.section("masters")
              .flatMap(
                  m -> {
                    m.required("at");
                    Optional<Spot> at = spot(m, "at", reading, names);
                    Optional<Spot> name = spot(m, "name", reading, names);
                    m.known("versions");
                    m.warnOfUnknownKeys();
                    return at.map(a -> new Masters(a, name));
                  });
    ManifestForm form =
        new ManifestForm(
            reading,
            spot(s, "name", reading, names),
            spot(s, "title", reading, names),
            spot(s, "version", reading, names),
            masters,
            spot(s, "after", reading, names),
            spot(s, "before", reading, names),
            spot(s, "clashes", reading, names));
    s.warnOfUnknownKeys();
    return form;
  }

  private static Optional<Spot> spot(
      Section s, String key, Reading reading, Map<String, String> names) {
    return s.text(key).flatMap(text -> spot(s, key, text, reading, names));
  }

  private static Optional<Spot> spot(
      Section s, String key, String text, Reading reading, Map<String, String> names) {
    boolean xml = reading.as() == Form.XML;
    try {
      return Optional.of(
          xml ? new Spot.InXml(XPathQuery.of(text, names)) : new Spot.InJson(JsonPath.of(text)));
    } catch (QuerySyntax e) {
      s.reject(
          key,
          "“"
              + text
              + "” cannot be read"
              + (e.column() > 0 ? " at its place " + e.column() : "")
              + ": "
              + e.getMessage(),
          xml
              ? "Write an XPath such as /rules/rule or @name."
              : "Write a JSONPath such as $.id or $.casts[*].");
      return Optional.empty();
    }
  }

  private RecordFiles records(Section s) {
    Reading reading = reading(s, Form.JSON, Form.YAML, Form.XML, Form.TABLE, Form.INI);
    Map<String, String> names = names(s);
    String type = s.required("type");
    if (s.has("type") && !type.matches(TYPE))
      s.reject(
          "type",
          "a type has lower-case letters, digits and hyphens, at most 32",
          "Write one such as bell.");
    PathPattern files = PathPattern.of(s.required("files"), pathCase);
    Optional<Spot> each = Optional.empty();
    Optional<PathPattern> sections = Optional.empty();
    if (reading.as() == Form.INI)
      sections = Optional.of(PathPattern.of(s.text("each").orElse("*"), PathCase.SENSITIVE));
    else if (reading.as() != Form.TABLE) {
      s.required("each");
      each = spot(s, "each", reading, names);
    } else if (s.has("each"))
      s.reject("each", "every row of a table is a record", "Leave each out.");
    IdOf id = id(s, reading, names);
    Optional<Removed> removed = s.section("removed").flatMap(r -> removed(r, reading, names));
    Optional<Spot> records = each;
    Optional<String> into =
        s.text("into").filter(path -> isWritable(s, path, files, records, reading));
    s.warnOfUnknownKeys();
    return new RecordFiles(files, reading, each, sections, id, type, removed, into);
  }

  private static IdOf id(Section s, Reading reading, Map<String, String> names) {
    List<String> texts = s.texts("id");
    if (!s.has("id")) s.required("id");
    // as a list they are columns, or places, of that name
    boolean word = s.has("id") && s.isText("id");
    if (word && texts.get(0).equals("file")) return new IdOf.FileName();
    if (word && texts.get(0).equals("key") && reading.as() != Form.TABLE) {
      if (reading.as() == Form.XML)
        s.reject("id", "only members of JSON and YAML, and sections, have a key", "Name a place.");
      return new IdOf.Key();
    }
    if (reading.as() == Form.TABLE) {
      if (texts.isEmpty() && s.has("id"))
        s.reject("id", "a row needs a column to be known by", "Write id: [ column ].");
      return new IdOf.Columns(List.copyOf(texts));
    }
    if (reading.as() == Form.INI) {
      if (s.has("id")) s.reject("id", "a section is known by its name", "Write id: key.");
      return new IdOf.Key();
    }
    List<Spot> spots = new ArrayList<>();
    for (String text : texts) spot(s, "id", text, reading, names).ifPresent(spots::add);
    return new IdOf.At(List.copyOf(spots));
  }

  private static Optional<Removed> removed(Section s, Reading reading, Map<String, String> names) {
    String is = s.text("is").orElse("true");
    Optional<Spot> at = Optional.empty();
    if (reading.as() == Form.TABLE || reading.as() == Form.INI)
      s.reject("at", "rows and sections have no sign that removes them", "Leave removed out.");
    else at = spot(s, "at", reading, names);
    s.required("at");
    s.warnOfUnknownKeys();
    return at.map(a -> new Removed(a, is));
  }

  private static boolean isWritable(
      Section s, String into, PathPattern files, Optional<Spot> each, Reading reading) {
    String path = into.replace("{plugin}", "plugin").replace("{name}", "plugin");
    String why = GamePath.whyUnsafe(path);
    if (why != null) {
      s.reject(
          "into", "“" + into + "” is not a path below a plugin: " + why, "Write a relative path.");
      return false;
    }
    if (!files.matches(path)) {
      s.reject(
          "into",
          "what is written to “" + into + "” would not be read again: files is “" + files + "”",
          "Write a path that files matches.");
      return false;
    }
    boolean known =
        each.map(
                e ->
                    e instanceof Spot.InJson j
                        ? j.path().namesOfList().isPresent()
                        : ((Spot.InXml) e).path().steps().filter(t -> t.size() > 1).isPresent())
            .orElse(true);
    if (!known) {
      s.reject(
          "into",
          "records can only be written where each is plain names",
          reading.as() == Form.XML
              ? "Write each like /rules/rule, or leave into out."
              : "Write each like $.casts[*], or leave into out.");
    }
    return known;
  }

  private PatchForm patch(Section s, ManifestForm header) {
    String at = s.required("at");
    String why = GamePath.whyUnsafe(at.replace("{name}", "patch"));
    if (s.has("at") && (why != null || !at.contains("{name}")))
      s.reject(
          "at", "“" + at + "” is no path with {name}", "Write it like bells/{name}/foundry.json.");
    if (header.reading().as() == Form.XML)
      s.reject("manifest", "a manifest of XML cannot be written", "Leave patch out.");
    JsonNode manifest =
        s.tree("manifest")
            .orElseGet(
                () -> {
                  s.required("manifest");
                  return com.fasterxml.jackson.databind.node.NullNode.getInstance();
                });
    if (s.has("manifest") && !manifest.isObject())
      s.reject("manifest", "a manifest has keys of its own", "Write { id: \"{name}\" }.");
    s.warnOfUnknownKeys();
    return new PatchForm(GamePath.join(in, at), manifest);
  }

  private OrderNumber number(Section s) {
    Reading reading = reading(s, Form.JSON);
    Optional<Spot> at = spot(s, "at", reading, Map.of());
    s.required("at");
    at.filter(a -> ((Spot.InJson) a).path().names().isEmpty())
        .ifPresent(
            a -> s.reject("at", "the place of a number is plain names", "Write it like $.rank."));
    int step = s.number("step", 10);
    if (step == 0)
      s.reject("step", "a step of 0 leads nowhere", "Write 10, or -10 where more loads first.");
    String file = s.required("file");
    if (s.has("file") && GamePath.whyUnsafe(file) != null)
      s.reject("file", "“" + file + "” is no path below a plugin", "Write a relative path.");
    OrderNumber number =
        new OrderNumber(
            file,
            reading,
            at.orElseGet(() -> new Spot.InJson(JsonPath.of("$"))),
            s.number("from", 1),
            step);
    s.warnOfUnknownKeys();
    return number;
  }
}
