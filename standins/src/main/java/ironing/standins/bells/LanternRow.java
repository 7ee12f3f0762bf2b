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
 * one number the one whose folder comes first. Those of the user's lie in a folder of the user's,
 * which {@code LANTERN_USER} names.
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
  public static Map<String, String> lamps(Path game, Path user) throws IOException {
    Map<String, String> lamps = new TreeMap<>();
    for (Shade s : shades(game, user))
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

  private static List<Shade> shades(Path game, Path user) throws IOException {
    List<Shade> all = new ArrayList<>();
    for (Path in : List.of(game.resolve("shades"), user.resolve("shades"))) {
      if (!Files.isDirectory(in)) continue;
      try (Stream<Path> folders = Files.list(in)) {
        for (Path folder : folders.sorted().toList()) {
          Path manifest = folder.resolve("shade.json");
          if (!Files.isRegularFile(manifest)) continue;
          JsonNode said = JSON.readTree(manifest.toFile());
          all.add(new Shade(folder, said.path("name").asText(), said.path("rank").asLong()));
        }
      }
    }
    all.sort(Comparator.comparingLong(Shade::rank));
    return all;
  }

  /** What the user likes lies in a folder of the user's, and so does what an evening leaves. */
  private static void taste(RunLog log, Path user) throws IOException {
    Path taste = user.resolve("taste.json");
    if (!Files.isRegularFile(taste)) return;
    log.read(taste);
    String glow = JSON.readTree(taste.toFile()).path("glow").asText();
    log.say("report", e -> e.put("name", "glow").put("value", glow));
    Path evenings = Files.createDirectories(user.resolve("evenings"));
    int n = 1;
    while (Files.exists(evenings.resolve("evening-" + n + ".json"))) n++;
    Files.writeString(evenings.resolve("evening-" + n + ".json"), "{\"glow\":\"" + glow + "\"}\n");
  }

  private static void light(Path game) throws IOException {
    try (RunLog log = new RunLog(game)) {
      JsonNode row = JSON.readTree(game.resolve("row.json").toFile());
      log.say("start", e -> e.put("version", row.path("version").asText()));
      String named = System.getenv("LANTERN_USER");
      Path user = Path.of(named == null ? "." : named).toAbsolutePath();
      List<Shade> shades = shades(game, user);
      for (int i = 0; i < shades.size(); i++) {
        int slot = i;
        log.read(shades.get(i).folder().resolve("shade.json"));
        if (Files.exists(shades.get(i).folder().resolve("lamps.json")))
          log.read(shades.get(i).folder().resolve("lamps.json"));
        log.say("read", e -> e.put("plugin", shades.get(slot).name()).put("slot", slot));
      }
      log.say("loaded", e -> {});
      taste(log, user);
      lamps(game, user)
          .forEach((name, says) -> log.say("report", e -> e.put("name", name).put("value", says)));
      log.say("end", e -> e.put("code", 0));
    }
  }
}
