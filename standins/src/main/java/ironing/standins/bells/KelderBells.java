package ironing.standins.bells;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;

/**
 * Starts the game on a folder. Ends with 0 when all the bells were rung, 3 when something stopped
 * it, 2 when the folder is no game.
 */
public final class KelderBells {
  private static final ObjectMapper JSON = new ObjectMapper();

  private KelderBells() {}

  public static void main(String[] args) throws IOException {
    if (args.length != 1 || !Files.isRegularFile(Path.of(args[0], "foundry.json"))) {
      System.err.println("usage: KelderBells FOLDER, where FOLDER holds foundry.json");
      System.exit(2);
    }
    System.exit(ring(Path.of(args[0])));
  }

  private static int ring(Path game) throws IOException {
    try (RunLog log = new RunLog(game)) {
      String version =
          JSON.readTree(game.resolve("foundry.json").toFile()).path("version").asText();
      log.say("start", e -> e.put("version", version));
      int code = 0;
      try {
        ring(game, log);
      } catch (CannotRing e) {
        log.say("fault", f -> f.put("code", "cannot-ring").put("text", e.getMessage()));
        System.out.println("Can't ring: " + e.getMessage());
        code = 3;
      }
      int end = code;
      log.say("end", e -> e.put("code", end));
      return code;
    }
  }

  private static void ring(Path game, RunLog log) throws IOException, CannotRing {
    Belfry belfry = Belfry.read(game);
    for (Path file : belfry.read()) log.read(file);
    for (int slot = 0; slot < belfry.order().size(); slot++) {
      int at = slot;
      log.say("read", e -> e.put("plugin", belfry.order().get(at)).put("slot", at));
    }
    Path picture = game.resolve("pictures/tower.svg");
    if (Files.isRegularFile(picture)) log.read(picture);
    log.say("loaded", e -> {});
    for (Map.Entry<String, Map<String, String>> thing : belfry.things().entrySet()) {
      String name = thing.getValue().getOrDefault("name", thing.getKey());
      thing.getValue().forEach((field, says) -> report(log, thing.getKey(), name, field, says));
    }
    count(game);
  }

  private static void report(RunLog log, String thing, String name, String field, String says) {
    if (field.equals("name")) return;
    log.say(
        "report",
        e -> {
          e.put("name", field.isEmpty() ? thing : name + ", " + field);
          if (says.matches("-?[0-9]+(\\.[0-9]+)?")) e.put("value", Double.parseDouble(says));
          else e.put("value", says);
          if (field.equals("weight")) e.put("unit", "kg");
        });
  }

  /** How often the tower was rung: the game writes that itself. */
  private static void count(Path game) throws IOException {
    Path file = game.resolve("tower.json");
    int rung = Files.exists(file) ? JSON.readTree(file.toFile()).path("rung").asInt() : 0;
    ObjectNode out = JSON.createObjectNode().put("rung", rung + 1);
    Files.writeString(file, out + "\n");
  }
}
