package ironing.core.deploy;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
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
 * @param laidOut what to write as laid-out.json at the end
 * @param folders to make before the first rename
 * @param made folders that were not there before; they go again when the change is taken back
 * @param leaving folders to remove at the end if they are empty
 */
record Journal(
    List<Move> moves,
    String laidOut,
    List<String> folders,
    List<String> made,
    List<String> leaving) {
  private static final ObjectMapper JSON = new ObjectMapper();

  enum Kind {
    ASIDE,
    IN
  }

  /** Paths are relative to the game folder. */
  record Move(Kind kind, String from, String to) {}

  String toJson() {
    ObjectNode root = JSON.createObjectNode().put("format", "ironing/journal@1");
    ArrayNode list = root.putArray("moves");
    for (Move m : moves)
      list.addObject().put("kind", m.kind().name()).put("from", m.from()).put("to", m.to());
    root.put("laidOut", laidOut);
    folders.forEach(root.putArray("folders")::add);
    made.forEach(root.putArray("made")::add);
    leaving.forEach(root.putArray("leaving")::add);
    return root.toString();
  }

  static Journal parse(String json) throws JsonProcessingException {
    JsonNode root = JSON.readTree(json);
    List<Move> moves = new ArrayList<>();
    for (JsonNode m : root.path("moves"))
      moves.add(
          new Move(
              Kind.valueOf(m.path("kind").asText()),
              m.path("from").asText(),
              m.path("to").asText()));
    return new Journal(
        moves,
        root.path("laidOut").asText(),
        texts(root.path("folders")),
        texts(root.path("made")),
        texts(root.path("leaving")));
  }

  private static List<String> texts(JsonNode list) {
    List<String> out = new ArrayList<>();
    list.forEach(n -> out.add(n.asText()));
    return out;
  }
}
