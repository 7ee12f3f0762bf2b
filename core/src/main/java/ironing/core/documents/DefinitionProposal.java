package ironing.core.documents;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.game.DocumentPlugins.Form;
import ironing.core.game.DocumentPlugins.Reading;
import ironing.core.path.GamePath;
import ironing.core.text.JsonPlace;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;

/**
 * A first definition for a folder of a game whose mods are folders of open text, made of what lies
 * there: which files look like manifests, like records, like a list. Each guess says by what it was
 * made, and everything is for the user to correct.
 *
 * <p>Cost: at most {@link #MOST_READ} files are read, none larger than {@link #LARGEST}.
 *
 * @param definition the text of a game.yaml
 * @param guesses in the order of the definition
 */
public record DefinitionProposal(String definition, List<Guess> guesses) {
  private static final int MOST_READ = 400;
  private static final int LARGEST = 2 << 20;
  private static final List<String> NAMES = List.of("id", "name", "key", "uid", "modId");
  private static final List<String> NEEDS =
      List.of("needs", "requires", "dependencies", "depends", "masters", "dependsOn");

  /** One guess, and by what it was made. */
  public record Guess(String what, String evidence) {}

  /** A manifest that was chosen. */
  private record Manifest(
      String name, String parent, List<String> paths, JsonNode first, Form form, String nameKey) {}

  /**
   * @param title what the game is to be called
   * @param paths of the files of the folder
   * @return empty where nothing looks like a folder with a manifest
   */
  public static Optional<DefinitionProposal> of(
      String title, Collection<String> paths, DocumentPreview.Folder folder) {
    return new Looking(paths, folder).propose(title);
  }

  /** One look at a folder. */
  private static final class Looking {
    private final TreeSet<String> paths;
    private final DocumentPreview.Folder folder;
    private final List<Guess> guesses = new ArrayList<>();
    private final StringBuilder out = new StringBuilder();
    private final Set<String> types = new HashSet<>();
    private int read;

    Looking(Collection<String> paths, DocumentPreview.Folder folder) {
      this.paths = new TreeSet<>(paths);
      this.folder = folder;
    }

    Optional<DefinitionProposal> propose(String title) {
      Optional<Manifest> found = manifest();
      if (found.isEmpty()) return Optional.empty();
      Manifest m = found.get();
      String id = title.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
      id = id.replaceAll("^-|-$", "");
      line("format: ironing/game@1");
      line("id: " + (id.isEmpty() ? "my-game" : id.substring(0, Math.min(64, id.length()))));
      line("title: " + quoted(title));
      line("mounts:");
      line("  - { id: mods, at: " + quoted(m.parent()) + ", holds: [ \"*/**\" ] }");
      line("plugins:");
      line("  match: " + quoted(GamePath.join(m.parent(), "*/" + m.name())));
      line("  is: folder");
      header(m);
      records(m);
      patch(m);
      list(m);
      return Optional.of(new DefinitionProposal(out.toString(), List.copyOf(guesses)));
    }

    private void line(String text) {
      out.append(text).append('\n');
    }

    private static String quoted(String text) {
      return JsonPlace.quoted(text);
    }

    private void guess(String what, String evidence) {
      guesses.add(new Guess(what, evidence));
    }

    private Optional<byte[]> bytes(String path) {
      if (++read > MOST_READ) return Optional.empty();
      try {
        byte[] all = folder.bytes(path);
        return all.length > LARGEST ? Optional.empty() : Optional.of(all);
      } catch (IOException e) {
        // what cannot be read tells nothing
        return Optional.empty();
      }
    }

    private Optional<JsonNode> tree(String path) {
      boolean yaml = path.endsWith(".yaml") || path.endsWith(".yml");
      if (!yaml && !path.endsWith(".json")) return Optional.empty();
      Reading reading = new Reading(yaml ? Form.YAML : Form.JSON, !yaml);
      return bytes(path)
          .flatMap(
              b -> {
                try {
                  return Optional.of(Trees.tree(reading, b));
                } catch (Unreadable e) {
                  return Optional.empty();
                }
              });
    }

    /** Of the files that say a name of themselves, those of the name that most folders have. */
    private Optional<Manifest> manifest() {
      Map<String, List<String>> byPlace = new TreeMap<>();
      for (String p : paths) {
        String folder = GamePath.folder(p);
        if (folder.isEmpty() || !p.matches(".*\\.(json|ya?ml)")) continue;
        byPlace
            .computeIfAbsent(
                GamePath.folder(folder) + "\n" + GamePath.name(p), k -> new ArrayList<>())
            .add(p);
      }
      List<List<String>> most = new ArrayList<>(byPlace.values());
      // many folders first, and of as many the ones that lie higher
      most.sort(
          Comparator.<List<String>>comparingInt(l -> -l.size())
              .thenComparingInt(l -> l.get(0).split("/").length));
      for (List<String> candidates : most) {
        String path = candidates.get(0);
        Optional<JsonNode> said = tree(path);
        if (said.isEmpty() || !said.get().isObject()) continue;
        Optional<String> key =
            NAMES.stream().filter(k -> said.get().path(k).isTextual()).findFirst();
        if (key.isEmpty()) continue;
        String parent = GamePath.folder(GamePath.folder(path));
        guess(
            "plugins are the folders with a " + GamePath.name(path),
            "%d %s one, and %s says “%s: %s”"
                .formatted(
                    candidates.size(),
                    candidates.size() == 1 ? "folder has" : "folders beside one another have",
                    path,
                    key.get(),
                    said.get().path(key.get()).textValue()));
        Form form = path.endsWith(".json") ? Form.JSON : Form.YAML;
        return Optional.of(
            new Manifest(
                GamePath.name(path),
                parent.isEmpty() ? "." : parent,
                candidates,
                said.get(),
                form,
                key.get()));
      }
      return Optional.empty();
    }

    private void header(Manifest m) {
      List<String> parts = new ArrayList<>();
      parts.add("as: " + m.form().name().toLowerCase(Locale.ROOT));
      if (m.form() == Form.JSON) parts.add("lenient: true");
      parts.add("name: \"$." + m.nameKey() + "\"");
      for (String title : List.of("title", "name"))
        if (!title.equals(m.nameKey()) && m.first().path(title).isTextual()) {
          parts.add("title: \"$." + title + "\"");
          break;
        }
      if (m.first().path("version").isValueNode()) parts.add("version: \"$.version\"");
      needs(m).ifPresent(parts::add);
      line("  header: { " + String.join(", ", parts) + " }");
      // what lies there now is the game's, whoever brought it
      List<String> own = new ArrayList<>();
      for (String path : m.paths())
        tree(path)
            .map(t -> t.path(m.nameKey()))
            .filter(JsonNode::isTextual)
            .ifPresent(n -> own.add(quoted(n.textValue())));
      line("  own: [ " + String.join(", ", own) + " ]");
      guess("the game’s own: " + String.join(", ", own), "they lie in the folder now");
    }

    private Optional<String> needs(Manifest m) {
      for (String path : m.paths()) {
        Optional<JsonNode> said = tree(path);
        if (said.isEmpty()) continue;
        for (String key : NEEDS) {
          JsonNode list = said.get().path(key);
          if (!list.isArray()) continue;
          JsonNode item = list.path(0);
          guess("who needs whom stands in “" + key + "”", path + " has a list of that name");
          for (String name : NAMES)
            if (item.path(name).isTextual())
              return Optional.of("masters: { at: \"$." + key + "[*]\", name: \"$." + name + "\" }");
          return Optional.of(
              item.isMissingNode()
                  ? "masters: { at: \"$." + key + "[*]\", name: \"$." + m.nameKey() + "\" }"
                  : "masters: \"$." + key + "[*]\"");
        }
      }
      return Optional.empty();
    }

    private void records(Manifest m) {
      Map<String, String> entries = new LinkedHashMap<>();
      for (String path : m.paths()) {
        String at = GamePath.folder(path);
        for (String p : paths.subSet(at + "/", at + "0")) {
          if (p.equals(path)) continue;
          String below = p.substring(at.length() + 1);
          String ending = below.substring(below.lastIndexOf('.') + 1);
          String top = below.contains("/") ? below.substring(0, below.indexOf('/')) : "";
          String files = top.isEmpty() ? below : top + "/**/*." + ending;
          if (!entries.containsKey(files))
            entry(p, files, top).ifPresent(e -> entries.put(files, e));
        }
      }
      if (entries.isEmpty()) return;
      line("  records:");
      entries.values().forEach(e -> line("    - { " + e + " }"));
    }

    private Optional<String> entry(String path, String files, String top) {
      String name = GamePath.name(path);
      String word = top.isEmpty() ? name.substring(0, name.lastIndexOf('.')) : top;
      String ending = path.substring(path.lastIndexOf('.') + 1);
      return switch (ending) {
        case "json", "yaml", "yml" -> tree(path).flatMap(t -> ofTree(t, path, files, word, ending));
        case "xml" -> bytes(path).flatMap(b -> ofXml(b, path, files, word));
        case "csv" -> bytes(path).flatMap(b -> ofTable(b, path, files, word));
        case "ini" ->
            bytes(path)
                .filter(b -> new String(b, java.nio.charset.StandardCharsets.UTF_8).contains("["))
                .map(
                    b -> {
                      guess("each section of " + path + " is a record", "it is INI with sections");
                      return one(files, "ini", "id: key", word, into(files, ending));
                    });
        default -> Optional.empty();
      };
    }

    private String one(String files, String as, String how, String word, String into) {
      String type = word.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
      // what holds many is called by one of them
      if (type.length() > 2 && type.endsWith("s") && !type.endsWith("ss"))
        type = type.substring(0, type.length() - 1);
      type = type.replaceAll("^-|-$", "");
      if (type.isEmpty()) type = "record";
      String free = type.substring(0, Math.min(28, type.length()));
      for (int i = 2; !types.add(free); i++) free = type + "-" + i;
      return "files: %s, as: %s, %s, type: %s%s".formatted(quoted(files), as, how, free, into);
    }

    private static String into(String files, String ending) {
      String into =
          files.contains("*")
              ? files.substring(0, files.indexOf('/')) + "/{plugin}." + ending
              : files;
      // a name that no path can have is only read
      return GamePath.whyUnsafe(into) == null ? ", into: " + quoted(into) : "";
    }

    private Optional<String> ofTree(
        JsonNode t, String path, String files, String word, String ending) {
      String as = ending.equals("json") ? "json" : "yaml";
      Map<String, JsonNode> lists = new LinkedHashMap<>();
      if (t.isArray()) lists.put("$[*]", t);
      t.properties()
          .forEach(
              e -> {
                if (e.getValue().isArray()) lists.put("$." + e.getKey() + "[*]", e.getValue());
              });
      for (Map.Entry<String, JsonNode> l : lists.entrySet()) {
        JsonNode item = l.getValue().path(0);
        for (String id : NAMES) {
          boolean known = item.path(id).isTextual() || item.path(id).isIntegralNumber();
          if (!known || !l.getKey().matches("\\$(\\.[A-Za-z_]\\w*)?\\[\\*]")) continue;
          guess(
              "each of “" + l.getKey() + "” in " + files + " is a record",
              path + " has %d there, each with “%s”".formatted(l.getValue().size(), id));
          return Optional.of(
              one(
                  files,
                  as,
                  "each: \"" + l.getKey() + "\", id: \"$." + id + "\"",
                  word,
                  into(files, ending)));
        }
      }
      if (!t.isObject() || t.isEmpty() || !lists.isEmpty()) return Optional.empty();
      // an object of one object holds what is known by its keys
      if (t.size() == 1 && t.elements().next().isObject()) {
        String only = t.fieldNames().next();
        if (!only.matches("[A-Za-z_]\\w*")) return Optional.empty();
        guess("each member of “" + only + "” in " + files + " is a record", path + " is made so");
        return Optional.of(
            one(files, as, "each: \"$." + only + ".*\", id: key", word, into(files, ending)));
      }
      guess("each member of " + files + " is a record", path + " is an object of " + t.size());
      return Optional.of(one(files, as, "each: \"$.*\", id: key", word, into(files, ending)));
    }

    private Optional<String> ofXml(byte[] bytes, String path, String files, String word) {
      Document doc;
      try {
        doc = Trees.xml(bytes);
      } catch (Unreadable e) {
        return Optional.empty();
      }
      Element root = doc.getDocumentElement();
      List<Element> children = new ArrayList<>();
      for (Node n = root.getFirstChild(); n != null; n = n.getNextSibling())
        if (n instanceof Element e) children.add(e);
      if (children.isEmpty() || root.getTagName().contains(":")) return Optional.empty();
      String tag = children.get(0).getTagName();
      for (String id : NAMES) {
        boolean all =
            children.stream().allMatch(c -> c.getTagName().equals(tag) && c.hasAttribute(id));
        if (!all) continue;
        guess(
            "each <" + tag + "> in " + files + " is a record",
            path + " has " + children.size() + ", each with “" + id + "”");
        return Optional.of(
            one(
                files,
                "xml",
                "each: \"/" + root.getTagName() + "/" + tag + "\", id: \"@" + id + "\"",
                word,
                into(files, "xml")));
      }
      return Optional.empty();
    }

    private Optional<String> ofTable(byte[] bytes, String path, String files, String word) {
      try (CSVParser in = CSVFormat.RFC4180.parse(Trees.reader(bytes))) {
        List<CSVRecord> rows = in.getRecords();
        if (rows.size() < 2) return Optional.empty();
        List<String> columns = rows.get(0).toList();
        Set<String> key = new LinkedHashSet<>();
        for (int n = 1; n <= columns.size(); n++) {
          key.add(columns.get(n - 1));
          Set<List<String>> seen = new HashSet<>();
          boolean unique = true;
          for (CSVRecord r : rows.subList(1, rows.size()))
            unique &= r.size() < columns.size() || seen.add(r.toList().subList(0, key.size()));
          if (!unique) continue;
          List<String> names = key.stream().map(Looking::quoted).toList();
          guess(
              "each row of " + files + " is a record",
              path
                  + " has "
                  + (rows.size() - 1)
                  + ", and no two have one "
                  + String.join(" and ", key));
          return Optional.of(
              one(
                  files,
                  "table",
                  "id: [ " + String.join(", ", names) + " ]",
                  word,
                  into(files, "csv")));
        }
        return Optional.empty();
      } catch (IOException | java.io.UncheckedIOException | IllegalStateException | Unreadable e) {
        return Optional.empty();
      }
    }

    private void patch(Manifest m) {
      List<String> parts = new ArrayList<>();
      parts.add(m.nameKey() + ": \"{name}\"");
      for (Map.Entry<String, JsonNode> e : m.first().properties()) {
        if (e.getKey().equals(m.nameKey())) continue;
        if (e.getKey().equals("title") || e.getKey().equals("name"))
          parts.add(e.getKey() + ": \"{title}\"");
        if (e.getKey().equals("version")) parts.add("version: \"1\"");
      }
      guesses.stream()
          .filter(g -> g.what().startsWith("who needs whom"))
          .findFirst()
          .ifPresent(g -> parts.add(needsOfPatch()));
      line("  patch:");
      line("    at: " + quoted(GamePath.join(m.parent(), "{name}/" + m.name())));
      line("    manifest: { " + String.join(", ", parts) + " }");
    }

    private String needsOfPatch() {
      java.util.regex.Matcher of =
          java.util.regex.Pattern.compile(
                  "masters: (?:\\{ at: )?\"\\$\\.(\\w+)\\[\\*]\"(?:, name: \"\\$\\.(\\w+)\")?")
              .matcher(out);
      if (!of.find()) return "needs: [ \"{master}\" ]";
      return of.group(2) == null
          ? of.group(1) + ": [ \"{master}\" ]"
          : of.group(1) + ": [ { " + of.group(2) + ": \"{master}\" } ]";
    }

    /** A document outside of the plugins with a list in which a plugin could stand. */
    private void list(Manifest m) {
      for (String path : paths) {
        boolean inside =
            m.paths().stream().anyMatch(p -> GamePath.isBelow(path, GamePath.folder(p)));
        if (inside || !path.endsWith(".json")) continue;
        Optional<JsonNode> t = tree(path);
        if (t.isEmpty() || !t.get().isObject()) continue;
        for (Map.Entry<String, JsonNode> e : t.get().properties()) {
          String key = e.getKey().toLowerCase(Locale.ROOT);
          boolean named = key.matches(".*(order|enabled|active|mods|plugins|load).*");
          if (!e.getValue().isArray() || !named || !e.getKey().matches("[A-Za-z_]\\w*")) continue;
          JsonNode item = e.getValue().path(0);
          String entry = "\"{name}\"";
          if (item.isObject() || item.isMissingNode())
            entry = "{ " + m.nameKey() + ": \"{name}\", on: \"{on}\" }";
          line(
              "  list: { file: %s, as: json, at: \"$.%s\", entry: %s, keep: true }"
                  .formatted(quoted(path), e.getKey(), entry));
          guess(
              "the order stands in " + path + " at “" + e.getKey() + "”",
              item.isMissingNode()
                  ? "it is an empty list of that name; look at what the game writes into it"
                  : "it is a list of that name");
          return;
        }
      }
    }
  }
}
