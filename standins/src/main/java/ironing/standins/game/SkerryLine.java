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

  /** Plays one day; everything it sees goes to the screen and to the log. */
  public static int play(Path game, PrintStream screen) throws IOException {
    try (Journal journal = new Journal(game, screen)) {
      int code;
      try {
        JsonNode card = new ObjectMapper().readTree(game.resolve("skerry.json").toFile());
        String version = card.path("version").asText();
        journal.event("start", e -> e.put("version", version));
        settings(game, journal);
        DataFiles files = new DataFiles(game, journal);
        World world = World.load(game, version, files, journal);
        journal.event("loaded", e -> {});
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
    byte[] bytes = Files.readAllBytes(ini);
    journal.event(
        "read", e -> e.put("path", "settings/skerry.ini").put("sha256", DataFiles.sha256(bytes)));
    int starts = 0, number = 0;
    StringBuilder out = new StringBuilder();
    for (String line : new String(bytes, StandardCharsets.UTF_8).split("\\R")) {
      number++;
      if (line.isBlank() || line.startsWith("[") || line.startsWith(";")) {
        out.append(line).append('\n');
        continue;
      }
      int equals = line.indexOf('=');
      if (equals < 0) throw broken(number, line);
      String key = line.substring(0, equals).trim(), value = line.substring(equals + 1).trim();
      if (key.equals("starts")) {
        if (!value.matches("\\d{1,9}")) throw broken(number, line);
        starts = Integer.parseInt(value);
        continue;
      }
      if (key.equals("units")) {
        journal.report("Units on the bridge", value, null, "settings/skerry.ini");
      }
      out.append(line).append('\n');
    }
    Files.writeString(ini, out + "starts = " + (starts + 1) + "\n");
  }

  private static GameFault broken(int number, String line) {
    String text = "Line " + number + " of settings/skerry.ini makes no sense: “" + line + "”.";
    return new GameFault("data-broken", text, "settings/skerry.ini", null, null);
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
