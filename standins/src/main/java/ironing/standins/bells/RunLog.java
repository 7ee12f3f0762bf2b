package ironing.standins.bells;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.HexFormat;
import java.util.function.Consumer;

/** What a run says: a line for each thing, to the screen and to logs/last-run.jsonl. */
final class RunLog implements Closeable {
  private static final ObjectMapper JSON = new ObjectMapper();
  private final Path game;
  private final Writer file;

  RunLog(Path game) throws IOException {
    this.game = game;
    Path log = game.resolve("logs/last-run.jsonl");
    Files.createDirectories(log.getParent());
    this.file = Files.newBufferedWriter(log);
  }

  void say(String event, Consumer<ObjectNode> with) {
    ObjectNode line = JSON.createObjectNode();
    line.put("at", Instant.now().toString()).put("event", event);
    with.accept(line);
    System.out.println(line);
    try {
      file.write(line + "\n");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Notes that a file was read, with its hash. */
  void read(Path path) throws IOException {
    String sha = sha256(Files.readAllBytes(path));
    // what lies beside the game's folder has its full path
    String name =
        (path.startsWith(game) ? game.relativize(path) : path).toString().replace('\\', '/');
    say("read", e -> e.put("path", name).put("sha256", sha));
  }

  static String sha256(byte[] bytes) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  @Override
  public void close() throws IOException {
    file.close();
  }
}
