package ironing.core.deploy;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;

/**
 * The whole of a change as renames inside the game folder, written and flushed before the first of
 * them is done. Its being there at all means: go forward. A crash before it leaves only staged
 * files, which are thrown away.
 *
 * <p>Every rename can be asked whether it was done: an {@code aside} has a target of its own that
 * nothing else uses, so it is done when the target is there; an {@code in} has a source of its own,
 * so it is done when the source is gone. That makes doing the list again, from the start, safe.
 *
 * @param moves in order
 * @param folders to make before the first rename
 * @param made folders that were not there before; they go again when the change is taken back
 * @param leaving folders to remove at the end if they are empty
 */
record Journal(List<Move> moves, List<String> folders, List<String> made, List<String> leaving) {
  static final String FORMAT = "ironing/journal@2";
  private static final ObjectMapper JSON = new ObjectMapper();

  enum Kind {
    ASIDE,
    IN
  }

  /** Paths are relative to the game folder. */
  record Move(Kind kind, String from, String to) {}

  byte[] toBytes() {
    ByteArrayOutputStream out = new ByteArrayOutputStream(256 + 128 * moves.size());
    try (JsonGenerator to = JSON.getFactory().createGenerator(out)) {
      to.writeStartObject();
      to.writeStringField("format", FORMAT);
      to.writeArrayFieldStart("moves");
      for (Move m : moves) {
        to.writeStartObject();
        to.writeStringField("kind", m.kind().name());
        to.writeStringField("from", m.from());
        to.writeStringField("to", m.to());
        to.writeEndObject();
      }
      to.writeEndArray();
      write(to, "folders", folders);
      write(to, "made", made);
      write(to, "leaving", leaving);
      to.writeEndObject();
    } catch (IOException e) {
      throw new UncheckedIOException("into memory", e);
    }
    return out.toByteArray();
  }

  private static void write(JsonGenerator to, String name, List<String> texts) throws IOException {
    to.writeArrayFieldStart(name);
    for (String t : texts) to.writeString(t);
    to.writeEndArray();
  }

  static Journal parse(byte[] utf8) throws IOException {
    JsonNode root = JSON.readTree(utf8);
    List<Move> moves = new ArrayList<>();
    for (JsonNode m : root.path("moves"))
      moves.add(
          new Move(
              Kind.valueOf(m.path("kind").asText()),
              m.path("from").asText(),
              m.path("to").asText()));
    return new Journal(
        moves, texts(root.path("folders")), texts(root.path("made")), texts(root.path("leaving")));
  }

  private static List<String> texts(JsonNode list) {
    List<String> out = new ArrayList<>();
    list.forEach(n -> out.add(n.asText()));
    return out;
  }
}
