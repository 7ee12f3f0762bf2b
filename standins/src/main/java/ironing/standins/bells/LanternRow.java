package ironing.standins.bells;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * A tiny game whose folders say by a number when they are read: the smallest first, and of two with
 * one number the one whose folder comes first.
 */
public final class LanternRow {
  private static final ObjectMapper JSON = new ObjectMapper();

  private record Shade(Path folder, String name, long rank) {}

  private LanternRow() {}

  public static void main(String[] args) throws IOException {
    if (args.length != 1 || !Files.isRegularFile(Path.of(args[0], "row.json"))) {
      System.err.println("usage: LanternRow FOLDER, where FOLDER holds row.json");
      System.exit(2);
    }
    light(Path.of(args[0]));
  }

  /** The lamps of a game folder by name, each with its colour and height. */
  public static Map<String, String> lamps(Path game) throws IOException {
    Map<String, String> lamps = new TreeMap<>();
    for (Shade s : shades(game))
      if (Files.exists(s.folder().resolve("lamps.json")))
        JSON.readTree(s.folder().resolve("lamps.json").toFile())
            .path("lamps")
            .properties()
            .forEach(
                l ->
                    lamps.put(
                        l.getKey(),
                        l.getValue().path("colour").asText()
                            + " at "
                            + l.getValue().path("height").asText()));
    return lamps;
  }

  private static List<Shade> shades(Path game) throws IOException {
    List<Shade> all = new ArrayList<>();
    try (Stream<Path> folders = Files.list(game.resolve("shades"))) {
      for (Path folder : folders.sorted().toList()) {
        Path manifest = folder.resolve("shade.json");
        if (!Files.isRegularFile(manifest)) continue;
        JsonNode said = JSON.readTree(manifest.toFile());
        all.add(new Shade(folder, said.path("name").asText(), said.path("rank").asLong()));
      }
    }
    all.sort(Comparator.comparingLong(Shade::rank));
    return all;
  }

  /** What the user likes lies in a folder of the user's, and so does what an evening leaves. */
  private static void taste(RunLog log) throws IOException {
    String user = System.getenv("LANTERN_USER");
    if (user == null || !Files.isRegularFile(Path.of(user, "taste.json"))) return;
    Path taste = Path.of(user, "taste.json").toAbsolutePath();
    log.read(taste);
    String glow = JSON.readTree(taste.toFile()).path("glow").asText();
    log.say("report", e -> e.put("name", "glow").put("value", glow));
    Path evenings = Files.createDirectories(Path.of(user, "evenings"));
    int n = 1;
    while (Files.exists(evenings.resolve("evening-" + n + ".json"))) n++;
    Files.writeString(evenings.resolve("evening-" + n + ".json"), "{\"glow\":\"" + glow + "\"}\n");
  }

  private static void light(Path game) throws IOException {
    try (RunLog log = new RunLog(game)) {
      JsonNode row = JSON.readTree(game.resolve("row.json").toFile());
      log.say("start", e -> e.put("version", row.path("version").asText()));
      List<Shade> shades = shades(game);
      for (int i = 0; i < shades.size(); i++) {
        int slot = i;
        log.read(shades.get(i).folder().resolve("shade.json"));
        if (Files.exists(shades.get(i).folder().resolve("lamps.json")))
          log.read(shades.get(i).folder().resolve("lamps.json"));
        log.say("read", e -> e.put("plugin", shades.get(slot).name()).put("slot", slot));
      }
      log.say("loaded", e -> {});
      taste(log);
      lamps(game)
          .forEach((name, says) -> log.say("report", e -> e.put("name", name).put("value", says)));
      log.say("end", e -> e.put("code", 0));
    }
  }
}
