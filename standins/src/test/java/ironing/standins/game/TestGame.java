package ironing.standins.game;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.dataformat.cbor.CBORFactory;
import com.fasterxml.jackson.dataformat.cbor.CBORGenerator;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * A small game folder. Plugins are written by Jackson's CBOR module, which knows nothing of ours.
 */
final class TestGame {
  private final Path folder;

  TestGame(Path folder) throws IOException {
    this.folder = folder;
    file("skerry.json", "{\"version\":\"1.4.2\"}");
    plugin(
        "Skerry.plug",
        List.of(),
        Map.of("stage", 0),
        record("harbour", 0, 1, Map.of("name", "Lyngholm", "dues", 3, "depth", 6.5)));
    plugin("Isles.plug", List.of("Skerry.plug"), Map.of("stage", 1));
  }

  /** What a reference looks like in the fields given here: owner's index and id. */
  record Ref(int owner, int id) {}

  record Item(String type, int owner, int id, Map<String, Object> fields) {}

  static Item record(String type, int owner, int id, Map<String, Object> fields) {
    return new Item(type, owner, id, fields);
  }

  TestGame file(String path, String text) throws IOException {
    Path file = folder.resolve(path);
    Files.createDirectories(file.getParent());
    Files.writeString(file, text);
    return this;
  }

  TestGame crate(String name, Map<String, String> files) throws IOException {
    Files.createDirectories(folder.resolve("data"));
    try (ZipOutputStream zip =
        new ZipOutputStream(Files.newOutputStream(folder.resolve("data").resolve(name)))) {
      for (Map.Entry<String, String> f : files.entrySet()) {
        zip.putNextEntry(new ZipEntry(f.getKey()));
        zip.write(f.getValue().getBytes(StandardCharsets.UTF_8));
      }
    }
    return this;
  }

  TestGame plugin(String name, List<String> masters, Map<String, Object> header, Item... records)
      throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (CBORGenerator g = new CBORFactory(new ObjectMapper()).createGenerator(out)) {
      g.writeTag(55799);
      g.writeStartObject();
      g.writeStringField("format", "ironing/plugin@1");
      g.writeFieldName("masters");
      value(g, masters);
      for (Map.Entry<String, Object> h : header.entrySet()) {
        g.writeFieldName(h.getKey());
        value(g, h.getValue());
      }
      g.writeEndObject();
      for (Item r : records) {
        g.writeStartArray();
        g.writeString(r.type());
        g.writeNumber(r.owner());
        g.writeNumber(r.id());
        value(g, r.fields());
        g.writeEndArray();
      }
    }
    Files.createDirectories(folder.resolve("data"));
    Files.write(folder.resolve("data").resolve(name), out.toByteArray());
    return this;
  }

  private static void value(CBORGenerator g, Object v) throws IOException {
    if (v instanceof Ref r) {
      g.writeTag(39);
      g.writeStartArray();
      g.writeNumber(r.owner());
      g.writeNumber(r.id());
      g.writeEndArray();
    } else if (v instanceof Map<?, ?> map) {
      g.writeStartObject();
      for (Map.Entry<?, ?> e : map.entrySet()) {
        g.writeFieldName((String) e.getKey());
        value(g, e.getValue());
      }
      g.writeEndObject();
    } else if (v instanceof List<?> list) {
      g.writeStartArray();
      for (Object o : list) value(g, o);
      g.writeEndArray();
    } else if (v == null) g.writeNull();
    else if (v instanceof Integer i) g.writeNumber(i);
    else if (v instanceof Double d) g.writeNumber(d);
    else g.writeString((String) v);
  }

  /**
   * @param lines as the roster has them
   */
  TestGame roster(String... lines) throws IOException {
    return file("settings/roster.txt", String.join("\n", lines) + "\n");
  }

  /** How the day went. */
  record Played(int code, List<JsonNode> events) {
    JsonNode fault() {
      return events.stream()
          .filter(e -> e.path("event").asText().equals("fault"))
          .findFirst()
          .orElseThrow();
    }

    String report(String name) {
      return events.stream()
          .filter(e -> e.path("name").asText().equals(name))
          .map(e -> e.path("value").asText())
          .findFirst()
          .orElse("nothing");
    }

    List<String> warnings() {
      return events.stream()
          .filter(e -> e.path("event").asText().equals("warning"))
          .map(e -> e.path("code").asText())
          .toList();
    }
  }

  Played play() throws IOException {
    ByteArrayOutputStream screen = new ByteArrayOutputStream();
    int code = SkerryLine.play(folder, new PrintStream(screen, true, StandardCharsets.UTF_8));
    List<JsonNode> events = new ArrayList<>();
    for (String line : Files.readAllLines(folder.resolve("logs/last-run.jsonl")))
      events.add(new ObjectMapper().readTree(line));
    return new Played(code, events);
  }
}
