package ironing.standins.game;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;

/**
 * Starts the game on a folder: {@code java -jar game.jar FOLDER}. Ends with 0 when the day was
 * played to its end, 3 when a fault stopped it, 2 when the folder is no game.
 */
public final class SkerryLine {
  private static final int PLAYED = 0;
  private static final int NO_GAME = 2;
  private static final int STOPPED = 3;

  private SkerryLine() {}

  public static void main(String[] args) throws IOException {
    PrintStream screen = new PrintStream(System.out, true, StandardCharsets.UTF_8);
    if (args.length != 1 || !Files.isRegularFile(Path.of(args[0], "skerry.json"))) {
      System.err.println("usage: game.jar FOLDER, where FOLDER holds skerry.json");
      System.exit(NO_GAME);
    }
    System.exit(play(Path.of(args[0]), screen));
  }

  static int play(Path game, PrintStream screen) throws IOException {
    try (Journal journal = new Journal(game, screen)) {
      int code;
      try {
        JsonNode card = new ObjectMapper().readTree(game.resolve("skerry.json").toFile());
        String version = card.path("version").asText();
        journal.event("start", e -> e.put("game", version));
        settings(game, journal);
        DataFiles files = new DataFiles(game, journal);
        World world = World.load(game, version, files, journal);
        new Day(world, files, journal).play();
        save(game);
        code = PLAYED;
      } catch (GameFault f) {
        journal.event(
            "fault",
            e -> {
              e.put("code", f.code).put("text", f.getMessage());
              if (f.path != null) e.put("path", f.path);
              if (f.plugin != null) e.put("plugin", f.plugin);
              if (f.record != null) e.put("record", f.record);
            });
        code = STOPPED;
      }
      int end = code;
      journal.event("end", e -> e.put("code", end));
      return code;
    }
  }

  /** The settings; the game writes back how often it was started, as games do. */
  private static void settings(Path game, Journal journal) throws IOException {
    Path ini = game.resolve("settings/skerry.ini");
    if (!Files.exists(ini)) return;
    int starts = 0;
    StringBuilder out = new StringBuilder();
    for (String line : Files.readAllLines(ini)) {
      if (line.startsWith("units"))
        journal.report(
            "Units on the bridge",
            line.substring(line.indexOf('=') + 1).trim(),
            null,
            "settings/skerry.ini");
      if (line.startsWith("starts"))
        starts = Integer.parseInt(line.substring(line.indexOf('=') + 1).trim());
      else out.append(line).append('\n');
    }
    Files.writeString(ini, out + "starts = " + (starts + 1) + "\n");
  }

  private static void save(Path game) throws IOException {
    Path saves = Files.createDirectories(game.resolve("saves"));
    long count;
    try (Stream<Path> all = Files.list(saves)) {
      count = all.count();
    }
    Files.writeString(
        saves.resolve(String.format("day-%03d.json", count + 1)),
        "{\"day\":" + (count + 1) + "}\n");
  }
}
