package ironing.standins.game;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.SAXException;
import org.xml.sax.helpers.DefaultHandler;

/** One day of the ferry company, told line by line. */
final class Day {
  private final World world;
  private final DataFiles files;
  private final Journal journal;

  Day(World world, DataFiles files, Journal journal) {
    this.world = world;
    this.files = files;
    this.journal = journal;
  }

  void play() throws IOException {
    weather();
    fares();
    vessels();
    harboursAndLights();
    timetable();
    panels();
    textures();
    Scripts scripts = new Scripts(files.all("scripts/", ".sks"));
    for (String line : scripts.play("day")) {
      journal.report("Said on the quay", line, null, "data/scripts");
    }
    for (DataFiles.Entry e : files.all("sound/", ".wav")) {
      journal.report("Sound, " + e.name(), e.bytes().length, "bytes", e.from());
    }
  }

  private void weather() throws IOException {
    for (World.Current w : world.ofType("weather")) {
      Map<String, Object> f = w.fields();
      String seen =
          f.get("sea") + ", wind " + show(f.get("wind")) + ", sight " + show(f.get("visibility"));
      journal.report("Weather, " + f.get("name"), seen, null, w.whence());
    }
    for (CSVRecord r : table("tables/weather.csv")) {
      if (cell(r, "month").equals("november")) {
        journal.report("Fog days in November", cell(r, "fogDays"), "d", "data/tables/weather.csv");
      }
    }
  }

  private void fares() throws IOException {
    Map<String, Double> surcharges = new HashMap<>();
    for (CSVRecord r : table("tables/tariffs.csv")) {
      surcharges.put(cell(r, "id"), number("tables/tariffs.csv", cell(r, "surcharge")));
    }
    for (World.Current t : world.ofType("tariff")) {
      String kind = String.valueOf(t.fields().getOrDefault("surcharge", "none"));
      double fare = t.number("fare") + surcharges.getOrDefault(kind, 0.0);
      journal.report("Fare, " + t.fields().get("name"), fare, "crowns", t.whence());
    }
  }

  private void vessels() throws IOException {
    for (World.Current v : world.ofType("vessel")) {
      String name = String.valueOf(v.fields().get("name"));
      journal.report(name + ", speed", v.number("speed"), "kn", v.whence());
      journal.report(name + ", home berth", world.name(v.fields().get("berth")), null, v.whence());
      journal.report(name + ", crew", names(v.fields().get("crew")), null, v.whence());
      journal.report(name + ", hold", hold(v.fields().get("hold")), null, v.whence());
      String mesh = String.valueOf(v.fields().getOrDefault("mesh", "hulls/none.obj"));
      String texture = "textures/" + mesh.replaceFirst("\\.obj$", ".png");
      DataFiles.Entry e = files.read(texture);
      if (e != null) {
        journal.report(name + ", hull", e.bytes().length, "bytes", e.from());
        continue;
      }
      String text = name + " has no hull texture at " + texture + ".";
      journal.event(
          "warning",
          w -> w.put("code", "texture-missing").put("text", text).put("path", "data/" + texture));
    }
  }

  private void harboursAndLights() {
    for (World.Current b : world.ofType("beacon")) {
      journal.report(b.fields().get("name") + ", range", b.number("range"), "nmi", b.whence());
    }
    for (World.Current h : world.ofType("harbour")) {
      String name = String.valueOf(h.fields().get("name"));
      journal.report(name + ", depth", h.number("depth"), "m", h.whence());
      journal.report(name + ", harbour dues", h.number("dues"), "crowns", h.whence());
    }
  }

  private void timetable() throws IOException {
    Map<String, World.Current> byName = new HashMap<>();
    world.ofType("vessel").forEach(v -> byName.put(String.valueOf(v.fields().get("name")), v));
    for (CSVRecord r : table("tables/timetable.csv")) {
      World.Current v = byName.get(cell(r, "vessel"));
      double speed = v == null ? 0 : v.number("speed");
      double miles = number("tables/timetable.csv", cell(r, "miles"));
      String sails =
          speed <= 0
              ? cell(r, "vessel") + " does not sail"
              : cell(r, "vessel")
                  + " to "
                  + cell(r, "to")
                  + ", "
                  + Math.round(miles / speed * 60)
                  + " min";
      journal.report("Departure " + cell(r, "departs"), sails, null, "data/tables/timetable.csv");
    }
  }

  private void panels() throws IOException {
    for (DataFiles.Entry e : files.all("ui/", ".json")) {
      List<String> panels = new ArrayList<>();
      json(e)
          .path("widgets")
          .forEach(w -> panels.add(w.path("label").asText(w.path("id").asText())));
      journal.report("Panels, " + e.name(), String.join(", ", panels), null, e.from());
    }
    for (DataFiles.Entry e : files.all("ui/", ".xml")) {
      List<String> panels = new ArrayList<>();
      NodeList list = xml(e).getElementsByTagName("panel");
      for (int i = 0; i < list.getLength(); i++) {
        panels.add(((Element) list.item(i)).getAttribute("title"));
      }
      journal.report("Panels, " + e.name(), String.join(", ", panels), null, e.from());
    }
  }

  /** Everything that is painted, and which file it came from. */
  private void textures() throws IOException {
    for (DataFiles.Entry e : files.all("textures/", ".png")) {
      String below = e.path().substring("data/textures/".length());
      journal.report("Texture, " + below, e.bytes().length, "bytes", e.from());
    }
  }

  private List<CSVRecord> table(String path) throws IOException {
    DataFiles.Entry e = files.read(path);
    if (e == null) return List.of();
    try {
      return CSVFormat.RFC4180
          .builder()
          .setHeader()
          .setSkipHeaderRecord(true)
          .get()
          .parse(new StringReader(DataFiles.text(e)))
          .getRecords();
    } catch (IOException | RuntimeException broken) {
      throw broken(e.path(), e.path() + " is no table: " + broken.getMessage());
    }
  }

  private static String cell(CSVRecord r, String column) {
    try {
      return r.get(column);
    } catch (IllegalArgumentException missing) {
      String text = "A table has no column “" + column + "” in row " + r.getRecordNumber() + ".";
      throw broken(null, text);
    }
  }

  private static JsonNode json(DataFiles.Entry e) throws IOException {
    try {
      return new ObjectMapper().readTree(DataFiles.text(e));
    } catch (JsonProcessingException broken) {
      throw broken(e.path(), e.path() + " is not JSON: " + broken.getOriginalMessage());
    }
  }

  private static Document xml(DataFiles.Entry e) throws IOException {
    try {
      DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
      factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
      factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
      DocumentBuilder builder = factory.newDocumentBuilder();
      builder.setErrorHandler(new DefaultHandler()); // it throws, and prints nothing on its own
      return builder.parse(new ByteArrayInputStream(e.bytes()));
    } catch (SAXException broken) {
      throw broken(e.path(), e.path() + " is not XML: " + broken.getMessage());
    } catch (ParserConfigurationException never) {
      throw new IllegalStateException("every Java reads XML", never);
    }
  }

  private static double number(String path, String text) {
    try {
      return Double.parseDouble(text.trim());
    } catch (NumberFormatException e) {
      String where = "data/" + path;
      throw broken(where, where + " has “" + text + "” where a number should be.");
    }
  }

  private static GameFault broken(String path, String text) {
    return new GameFault("data-broken", text, path, null, null);
  }

  private String names(Object refs) {
    List<String> names = new ArrayList<>();
    if (refs instanceof List<?> list) list.forEach(r -> names.add(world.name(r)));
    return String.join(", ", names);
  }

  private String hold(Object rows) {
    List<String> parts = new ArrayList<>();
    if (rows instanceof List<?> list) {
      for (Object row : list) {
        if (row instanceof Map<?, ?> m) {
          parts.add(world.name(m.get("goods")) + " " + show(m.get("tonnes")));
        }
      }
    }
    return String.join(", ", parts);
  }

  private static String show(Object v) {
    boolean whole = v instanceof Double d && d == Math.rint(d);
    return whole ? String.valueOf(((Double) v).longValue()) : String.valueOf(v);
  }
}
