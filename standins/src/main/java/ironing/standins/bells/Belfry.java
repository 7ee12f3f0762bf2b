package ironing.standins.bells;

import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.w3c.dom.NodeList;
import org.xml.sax.SAXException;

/**
 * All that is in play in Kelder Bells: what each folder that is on brings, the later one in place
 * of the earlier.
 */
public final class Belfry {
  private static final ObjectMapper JSON =
      JsonMapper.builder()
          .enable(JsonReadFeature.ALLOW_JAVA_COMMENTS, JsonReadFeature.ALLOW_TRAILING_COMMA)
          .build();

  /** By kind and id, such as {@code cast great}, what it says. */
  private final Map<String, Map<String, String>> things = new TreeMap<>();

  /** The folders that were read, by the name of each, in their order. */
  private final List<String> order = new ArrayList<>();

  private final List<Path> read = new ArrayList<>();

  /** By kind and id, by field what it says; lists in square brackets. */
  public Map<String, Map<String, String>> things() {
    return things;
  }

  /** The names of the folders that were read, in their order. */
  public List<String> order() {
    return order;
  }

  List<Path> read() {
    return read;
  }

  /**
   * Reads a game folder; what is missing or broken ends it, with the words for it in the message.
   */
  public static Belfry open(Path game) throws IOException {
    try {
      return read(game);
    } catch (CannotRing e) {
      throw new IOException(e.getMessage(), e);
    }
  }

  static Belfry read(Path game) throws IOException, CannotRing {
    Map<String, Path> folders = new HashMap<>();
    Map<String, JsonNode> manifests = new HashMap<>();
    try (Stream<Path> all = Files.list(game.resolve("bells"))) {
      for (Path folder : all.sorted().toList()) {
        Path manifest = folder.resolve("foundry.json");
        if (!Files.isRegularFile(manifest)) continue;
        JsonNode said = JSON.readTree(manifest.toFile());
        folders.put(said.path("id").asText(), folder);
        manifests.put(said.path("id").asText(), said);
      }
    }
    Belfry belfry = new Belfry();
    belfry.take("base", folders, manifests);
    Path list = game.resolve("enabled.json");
    if (Files.isRegularFile(list)) {
      belfry.read.add(list);
      for (JsonNode entry : JSON.readTree(list.toFile()).path("order"))
        if (entry.path("on").asBoolean())
          belfry.take(entry.path("id").asText(), folders, manifests);
    }
    return belfry;
  }

  private void take(String name, Map<String, Path> folders, Map<String, JsonNode> manifests)
      throws IOException, CannotRing {
    if (order.contains(name)) return;
    Path folder = folders.get(name);
    if (folder == null) throw new CannotRing("no folder is called " + name);
    for (JsonNode need : manifests.get(name).path("needs"))
      if (!order.contains(need.path("id").asText()))
        throw new CannotRing(name + " needs " + need.path("id").asText() + " before it");
    read.add(folder.resolve("foundry.json"));
    order.add(name);
    casts(folder);
    rules(folder);
    alloys(folder);
    words(folder);
  }

  private static List<Path> files(Path folder, String ending) throws IOException {
    if (!Files.isDirectory(folder)) return List.of();
    try (Stream<Path> all = Files.walk(folder)) {
      return all.filter(p -> p.toString().endsWith(ending)).sorted().toList();
    }
  }

  private void casts(Path folder) throws IOException {
    for (Path file : files(folder.resolve("casts"), ".json")) {
      read.add(file);
      for (JsonNode cast : JSON.readTree(file.toFile()).path("casts")) {
        String thing = "cast " + cast.path("id").asText();
        if (cast.path("melted").asBoolean()) {
          things.remove(thing);
          continue;
        }
        Map<String, String> says = new TreeMap<>();
        cast.properties()
            .forEach(
                f -> {
                  if (!f.getKey().equals("id") && !f.getKey().equals("melted"))
                    says.put(f.getKey(), said(f.getValue()));
                });
        things.put(thing, says);
      }
    }
  }

  private static String said(JsonNode value) {
    if (!value.isArray()) return value.asText();
    List<String> items = new ArrayList<>();
    value.forEach(v -> items.add(v.asText()));
    return items.toString();
  }

  private void rules(Path folder) throws IOException, CannotRing {
    if (!Files.isDirectory(folder.resolve("rules"))) return;
    List<Path> all;
    try (Stream<Path> list = Files.list(folder.resolve("rules"))) {
      all = list.filter(p -> p.toString().endsWith(".xml")).sorted().toList();
    }
    for (Path file : all) {
      read.add(file);
      NodeList rules = xml(file).getElementsByTagName("rule");
      for (int i = 0; i < rules.getLength(); i++) {
        Element rule = (Element) rules.item(i);
        Map<String, String> says = new TreeMap<>();
        for (int a = 0; a < rule.getAttributes().getLength(); a++) {
          Node attribute = rule.getAttributes().item(a);
          if (!attribute.getNodeName().equals("name"))
            says.put(attribute.getNodeName(), attribute.getNodeValue());
        }
        for (Element child : children(rule)) {
          List<String> inside = new ArrayList<>();
          for (Element item : children(child)) inside.add(item.getTextContent().strip());
          says.put(
              child.getTagName(),
              inside.isEmpty() ? child.getTextContent().strip() : inside.toString());
        }
        things.put("rule " + rule.getAttribute("name"), says);
      }
    }
  }

  private static List<Element> children(Element of) {
    List<Element> all = new ArrayList<>();
    for (Node n = of.getFirstChild(); n != null; n = n.getNextSibling())
      if (n instanceof Element e) all.add(e);
    return all;
  }

  private static Element xml(Path file) throws IOException, CannotRing {
    try {
      DocumentBuilderFactory f = DocumentBuilderFactory.newDefaultInstance();
      f.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
      return f.newDocumentBuilder().parse(file.toFile()).getDocumentElement();
    } catch (SAXException | ParserConfigurationException e) {
      throw new CannotRing(file.getFileName() + " is broken: " + e.getMessage());
    }
  }

  private void alloys(Path folder) throws IOException {
    Path file = folder.resolve("alloys.csv");
    if (!Files.isRegularFile(file)) return;
    read.add(file);
    try (Reader in = Files.newBufferedReader(file)) {
      for (CSVRecord row :
          CSVFormat.RFC4180.builder().setHeader().setSkipHeaderRecord(true).get().parse(in)) {
        Map<String, String> says = new LinkedHashMap<>(row.toMap());
        String thing = "alloy " + says.remove("copper") + "/" + says.remove("tin");
        things.put(thing, new TreeMap<>(says));
      }
    }
  }

  private void words(Path folder) throws IOException {
    for (Path file : files(folder.resolve("words"), ".json")) {
      read.add(file);
      JSON.readTree(file.toFile())
          .properties()
          .forEach(f -> things.put("word " + f.getKey(), Map.of("", f.getValue().asText())));
    }
  }
}
