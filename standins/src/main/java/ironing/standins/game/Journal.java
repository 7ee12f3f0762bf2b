package ironing.standins.game;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.Closeable;
import java.io.IOException;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.function.Consumer;

/** The run log: the same JSON lines to the screen and to logs/last-run.jsonl. */
final class Journal implements Closeable {
  private static final ObjectMapper JSON = new ObjectMapper();
  private final PrintStream screen;
  private final Writer file;

  Journal(Path gameFolder, PrintStream screen) throws IOException {
    this.screen = screen;
    Path log = gameFolder.resolve("logs/last-run.jsonl");
    Files.createDirectories(log.getParent());
    this.file = Files.newBufferedWriter(log, StandardCharsets.UTF_8);
  }

  void event(String name, Consumer<ObjectNode> fill) {
    ObjectNode e = JSON.createObjectNode().put("at", Instant.now().toString()).put("event", name);
    fill.accept(e);
    screen.println(e);
    try {
      file.write(e + "\n");
    } catch (IOException io) {
      throw new UncheckedIOException(io);
    }
  }

  void report(String name, Object value, String unit, String from) {
    event(
        "report",
        e -> {
          e.put("name", name);
          if (value instanceof Double d) e.put("value", Math.round(d * 100) / 100.0);
          else if (value instanceof Integer i) e.put("value", i);
          else e.put("value", String.valueOf(value));
          if (unit != null) e.put("unit", unit);
          if (from != null) e.put("from", from);
        });
  }

  @Override
  public void close() throws IOException {
    file.close();
  }
}
