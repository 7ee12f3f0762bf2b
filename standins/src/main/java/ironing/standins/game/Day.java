package ironing.standins.game;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;

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
    timetable();
    bridge();
    Scripts scripts = new Scripts(files.all("scripts/", ".sks"));
    for (String line : scripts.play("day"))
      journal.report("Said on the quay", line, null, "data/scripts");
    if (files.has("sound/gulls.wav"))
      journal.report(
          "Gulls", files.read("sound/gulls.wav").bytes().length, "bytes", "data/sound/gulls.wav");
  }

  private void weather() throws IOException {
    for (World.Current w : world.ofType("weather")) {
      journal.report(
          "Weather, " + w.fields().get("name"),
          w.fields().get("sea")
              + ", wind "
              + show(w.fields().get("wind"))
              + ", sight "
              + show(w.fields().get("visibility")),
          null,
          from(w));
    }
    Map<String, String> months = new HashMap<>();
    for (CSVRecord r : table("tables/weather.csv")) months.put(r.get("month"), r.get("fogDays"));
    if (months.containsKey("november"))
      journal.report(
          "Fog days in November", months.get("november"), "d", "data/tables/weather.csv");
  }

  private void fares() throws IOException {
    Map<String, Double> surcharges = new HashMap<>();
    for (CSVRecord r : table("tables/tariffs.csv"))
      surcharges.put(r.get("id"), number("tables/tariffs.csv", r.get("surcharge")));
    for (World.Current t : world.ofType("tariff")) {
      double fare = ((Number) t.fields().getOrDefault("fare", 0.0)).doubleValue();
      String kind = String.valueOf(t.fields().getOrDefault("surcharge", "none"));
      journal.report(
          "Fare, " + t.fields().get("name"),
          fare + surcharges.getOrDefault(kind, 0.0),
          "crowns",
          from(t));
    }
  }

  private void vessels() throws IOException {
    for (World.Current v : world.ofType("vessel")) {
      String name = String.valueOf(v.fields().get("name"));
      journal.report(
          name + ", speed",
          ((Number) v.fields().getOrDefault("speed", 0.0)).doubleValue(),
          "kn",
          from(v));
      journal.report(name + ", home berth", world.name(v.fields().get("berth")), null, from(v));
      journal.report(name + ", crew", names(v.fields().get("crew")), null, from(v));
      journal.report(name + ", hold", hold(v.fields().get("hold")), null, from(v));
      String texture =
          "textures/"
              + String.valueOf(v.fields().getOrDefault("mesh", "hulls/none.obj"))
                  .replaceFirst("\\.obj$", ".png");
      DataFiles.Entry e = files.read(texture);
      if (e == null)
        journal.event(
            "warning",
            w ->
                w.put("code", "texture-missing")
                    .put("text", name + " has no hull texture at " + texture + ".")
                    .put("path", "data/" + texture));
      else journal.report(name + ", hull", e.bytes().length + " bytes", null, e.from());
    }
    for (World.Current b : world.ofType("beacon"))
      journal.report(
          b.fields().get("name") + ", range",
          ((Number) b.fields().getOrDefault("range", 0)).doubleValue(),
          "nmi",
          from(b));
    for (World.Current h : world.ofType("harbour"))
      journal.report(
          h.fields().get("name") + ", harbour dues",
          ((Number) h.fields().getOrDefault("dues", 0)).doubleValue(),
          "crowns",
          from(h));
  }

  private void timetable() throws IOException {
    Map<String, World.Current> byName = new HashMap<>();
    world.ofType("vessel").forEach(v -> byName.put(String.valueOf(v.fields().get("name")), v));
    for (CSVRecord r : table("tables/timetable.csv")) {
      World.Current v = byName.get(r.get("vessel"));
      double speed = v == null ? 0 : ((Number) v.fields().getOrDefault("speed", 0.0)).doubleValue();
      if (speed <= 0) {
        journal.report(
            "Departure " + r.get("departs"),
            r.get("vessel") + " does not sail",
            null,
            "data/tables/timetable.csv");
        continue;
      }
      long minutes = Math.round(number("tables/timetable.csv", r.get("miles")) / speed * 60);
      journal.report(
          "Departure " + r.get("departs"),
          r.get("vessel") + " to " + r.get("to") + ", " + minutes + " min",
          null,
          "data/tables/timetable.csv");
    }
  }

  private void bridge() throws IOException {
    DataFiles.Entry e = files.read("ui/bridge.json");
    if (e == null) return;
    List<String> panels = new ArrayList<>();
    try {
      JsonNode root = new ObjectMapper().readTree(DataFiles.text(e));
      root.path("widgets").forEach(w -> panels.add(w.path("label").asText(w.path("id").asText())));
    } catch (JsonProcessingException broken) {
      throw new GameFault(
          "data-broken",
          e.path() + " is not JSON: " + broken.getOriginalMessage(),
          e.path(),
          null,
          null);
    }
    journal.report("Panels on the bridge", panels.size(), null, e.from());
    journal.report("Bridge, from the left", String.join(", ", panels), null, e.from());
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
      throw new GameFault(
          "data-broken", e.path() + " is no table: " + broken.getMessage(), e.path(), null, null);
    }
  }

  private static double number(String path, String text) {
    try {
      return Double.parseDouble(text.trim());
    } catch (NumberFormatException e) {
      throw new GameFault(
          "data-broken",
          "data/" + path + " has “" + text + "” where a number should be.",
          "data/" + path,
          null,
          null);
    }
  }

  private String names(Object refs) {
    List<String> names = new ArrayList<>();
    if (refs instanceof List<?> list) list.forEach(r -> names.add(world.name(r)));
    return String.join(", ", names);
  }

  private String hold(Object rows) {
    List<String> parts = new ArrayList<>();
    if (rows instanceof List<?> list) {
      for (Object row : list)
        if (row instanceof Map<?, ?> m)
          parts.add(world.name(m.get("goods")) + " " + show(m.get("tonnes")));
    }
    return String.join(", ", parts);
  }

  private static String show(Object v) {
    return v instanceof Double d && d == Math.rint(d)
        ? String.valueOf(d.longValue())
        : String.valueOf(v);
  }

  private static String from(World.Current c) {
    return c.key().owner() + "/" + c.key().id() + " as " + c.from() + " has it";
  }
}
