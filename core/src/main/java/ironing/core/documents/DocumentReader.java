package ironing.core.documents;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.game.DocumentPlugins;
import ironing.core.game.DocumentPlugins.Form;
import ironing.core.game.DocumentPlugins.ManifestForm;
import ironing.core.game.DocumentPlugins.RecordFiles;
import ironing.core.game.DocumentPlugins.Spot;
import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginException;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.query.JsonPath;
import ironing.core.query.QuerySyntax;
import ironing.core.query.Steps;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.w3c.dom.Document;
import org.w3c.dom.Node;

/**
 * Reads a plugin that is open text.
 *
 * <p>Invariant: the same files give the same table, in whatever order they are given. Of a type and
 * id that stands twice the later counts, by the path's bytes and the place in the file; it is told.
 *
 * <p>Threads: immutable. Cost: linear in the files.
 */
public final class DocumentReader {
  /** The header's keys for what a manifest says beside masters. */
  public static final String AFTER = "after", BEFORE = "before", CLASHES = "clashes";

  private static final int LONGEST_NAME = 128;
  private static final int MOST_REMARKS = 50;
  // the table numbers the names of fields, and those of types, with 15 bits
  private static final int MOST_NAMES = 30_000;

  /** The plugins that a manifest names under one of these keys. */
  public static List<String> names(Header header, String key) {
    return header.other().get(key) instanceof Value.Array a
        ? a.items().stream().map(v -> ((Value.Text) v).value()).toList()
        : List.of();
  }

  private final DocumentPlugins form;
  private final List<String> own;
  private final Map<String, RecordType> types;
  private final Shapes shapes;

  public DocumentReader(GameDefinition game, Shapes shapes) {
    this.form = game.plugins().flatMap(GameDefinition.Plugins::documents).orElseThrow();
    this.own = game.plugins().orElseThrow().own();
    this.types = game.records();
    this.shapes = shapes;
  }

  /** The bytes of the parts of a plugin. */
  public interface Bytes {
    byte[] of(PluginFiles.Part part) throws IOException;
  }

  /**
   * @throws PluginException when its manifest cannot be read, or gives it no name
   * @throws IOException when a file cannot be read
   */
  public RecordTable read(PluginFiles files, Bytes bytes) throws IOException {
    List<String> remarks = new ArrayList<>();
    PluginFiles.Part manifest = files.parts().get(0);
    String unnamed = unnamed(files);
    Header header;
    String name;
    byte[] first = bytes.of(manifest);
    try {
      Said said = said(first);
      name = said.name.orElse(unnamed);
      requireName(name, files.manifest());
      header = said.header(name, remarks);
    } catch (Unreadable | QuerySyntax | Steps.TooMany e) {
      throw PluginException.of(files.manifest(), "its manifest says nothing: " + e.getMessage());
    }
    Markup markup = new Markup();
    Map<Ref, FoundRecord> found = new LinkedHashMap<>();
    RecordReader reader =
        new RecordReader(
            types,
            remarks::add,
            markup,
            r -> {
              Ref key = Ref.named(r.type(), r.id());
              r.fields().ifPresent(f -> markup.fields(r.type(), f.map().keySet()));
              FoundRecord before = found.remove(key);
              found.put(key, r);
              if (before != null)
                remarks.add(
                    "The %s %s stands twice, at %s and at %s; the later counts."
                        .formatted(r.type(), String.join(", ", r.id()), before.place(), r.place()));
            });
    for (PluginFiles.Part part : files.parts()) {
      byte[] content = null;
      for (RecordFiles from : form.records()) {
        if (!from.files().matches(part.below())) continue;
        if (content == null) content = part.equals(manifest) ? first : bytes.of(part);
        reader.read(from, part.below(), content);
      }
    }
    return table(name, header, found, markup, remarks);
  }

  private RecordTable table(
      String name,
      Header header,
      Map<Ref, FoundRecord> found,
      Markup markup,
      List<String> remarks) {
    List<Plugin.Record> records = new ArrayList<>(found.size());
    found.forEach((key, r) -> records.add(new Plugin.Record(r.type(), key, r.fields())));
    if (fieldNames(records) > MOST_NAMES)
      throw PluginException.of(
          name, "its records have more than " + MOST_NAMES + " different fields");
    return RecordTable.named(
        name,
        markup.isEmpty() ? header : with(header, Markup.HEADER, markup.asValue()),
        List.copyOf(found.keySet()),
        records,
        seen(name, header),
        shapes,
        told(remarks));
  }

  /** How many different fields there are; some number below the limit where all are fewer. */
  private static int fieldNames(List<Plugin.Record> records) {
    int all = 0;
    for (Plugin.Record r : records) all += r.fields().map(f -> f.map().size()).orElse(0);
    if (all <= MOST_NAMES) return all;
    Set<String> names = new HashSet<>();
    for (Plugin.Record r : records) r.fields().ifPresent(f -> names.addAll(f.map().keySet()));
    return names.size();
  }

  private static List<String> told(List<String> remarks) {
    if (remarks.size() <= MOST_REMARKS) return remarks;
    List<String> some = new ArrayList<>(remarks.subList(0, MOST_REMARKS));
    some.add("And " + (remarks.size() - MOST_REMARKS) + " more.");
    return some;
  }

  /** The game's own count as seen by all others, and by each other in their order. */
  private List<String> seen(String name, Header header) {
    List<String> seen = new ArrayList<>(header.masters());
    for (String o : own) {
      if (PathCase.fold(o).equals(PathCase.fold(name))) break;
      seen.add(o);
    }
    return seen;
  }

  private String unnamed(PluginFiles files) {
    if (form.is() == DocumentPlugins.Is.FILE) return GamePath.name(files.manifest());
    String folder = files.folder();
    return folder.isEmpty() ? GamePath.name(files.manifest()) : GamePath.name(folder);
  }

  private static void requireName(String name, String manifest) {
    boolean fits =
        !name.isBlank()
            && name.codePointCount(0, name.length()) <= LONGEST_NAME
            && name.chars().noneMatch(Character::isISOControl);
    if (!fits)
      throw PluginException.of(
          manifest, "a plugin’s name is a text of 1 to 128 characters, without control characters");
  }

  private static Header with(Header h, String key, Value value) {
    Map<String, Value> other = new LinkedHashMap<>(h.other());
    other.put(key, value);
    return new Header(
        h.stage(),
        h.masters(),
        h.nextId(),
        h.title(),
        h.author(),
        h.version(),
        h.about(),
        h.game(),
        h.packs(),
        other);
  }

  /** What a manifest says. */
  private record Said(
      Optional<String> name,
      Optional<String> title,
      Optional<String> version,
      List<String> masters,
      Map<String, List<String>> others) {

    Header header(String name, List<String> remarks) {
      List<String> kept = new ArrayList<>();
      for (String m : masters) {
        if (PathCase.fold(m).equals(PathCase.fold(name)))
          remarks.add("It needs itself; that is passed over.");
        else if (kept.stream().noneMatch(k -> PathCase.fold(k).equals(PathCase.fold(m))))
          kept.add(m);
      }
      Map<String, Value> other = new LinkedHashMap<>();
      others.forEach(
          (key, names) -> {
            if (!names.isEmpty())
              other.put(key, new Value.Array(names.stream().<Value>map(Value.Text::new).toList()));
          });
      return new Header(
          Plugin.DEFAULT_STAGE,
          kept,
          1,
          title,
          Optional.empty(),
          version,
          Optional.empty(),
          Optional.empty(),
          List.of(),
          other);
    }
  }

  private Said said(byte[] manifest) throws Unreadable {
    ManifestForm h = form.header();
    Look look =
        h.reading().as() == Form.XML
            ? new InXml(Trees.xml(manifest))
            : new InJson(Trees.tree(h.reading(), manifest));
    List<String> masters = new ArrayList<>();
    if (h.masters().isPresent())
      masters.addAll(look.texts(h.masters().get().at(), h.masters().get().name()));
    Map<String, List<String>> others = new LinkedHashMap<>();
    h.after().ifPresent(s -> others.put(AFTER, look.texts(s, Optional.empty())));
    h.before().ifPresent(s -> others.put(BEFORE, look.texts(s, Optional.empty())));
    h.clashes().ifPresent(s -> others.put(CLASHES, look.texts(s, Optional.empty())));
    Optional<String> name = first(look, h.name());
    if (h.name().isPresent() && name.isEmpty())
      throw new Unreadable("there is no text at " + h.name().get());
    return new Said(name, first(look, h.title()), first(look, h.version()), masters, others);
  }

  private static Optional<String> first(Look look, Optional<Spot> spot) {
    return spot.flatMap(s -> look.texts(s, Optional.empty()).stream().findFirst());
  }

  /** The texts that stand at places of a document. */
  private sealed interface Look {
    List<String> texts(Spot at, Optional<Spot> inside);
  }

  private record InJson(JsonNode root) implements Look {
    @Override
    public List<String> texts(Spot at, Optional<Spot> inside) {
      List<String> texts = new ArrayList<>();
      for (JsonPath.Hit h : ((Spot.InJson) at).path().find(root, new Steps())) {
        Optional<JsonNode> v = Optional.of(h.value());
        // a list may hold plain names beside objects that have one
        if (inside.isPresent() && !h.value().isTextual())
          v = ((Spot.InJson) inside.get()).path().first(h.value());
        v.filter(InJson::isName).map(JsonNode::asText).ifPresent(texts::add);
      }
      return texts;
    }

    // versions are often written as numbers, and names at times
    private static boolean isName(JsonNode n) {
      return n.isTextual() || n.isNumber() && n.asText().matches("[0-9]{1,18}(\\.[0-9]{1,18})?");
    }
  }

  private record InXml(Document doc) implements Look {
    @Override
    public List<String> texts(Spot at, Optional<Spot> inside) {
      List<String> texts = new ArrayList<>();
      for (Node n : ((Spot.InXml) at).path().find(doc)) {
        List<Node> found =
            inside.isPresent() ? ((Spot.InXml) inside.get()).path().find(n) : List.of(n);
        for (Node f : found) if (!Values.textOf(f).isBlank()) texts.add(Values.textOf(f).strip());
      }
      return texts;
    }
  }
}
