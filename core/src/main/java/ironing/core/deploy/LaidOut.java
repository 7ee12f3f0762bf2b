package ironing.core.deploy;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.IroningException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What is deployed in a game folder: {@code .ironing/laid-out.json}. It is enough to take
 * everything out again with no database at hand.
 *
 * @param at when it was deployed, RFC 3339
 * @param files by the path on disk
 * @param folders that deploying made, and that go when they are empty
 * @param profile the number of the profile whose settings files lie there; empty where none was
 *     said
 */
public record LaidOut(
    String at, Map<String, Item> files, List<String> folders, Optional<Long> profile) {
  public static final String FORMAT = "ironing/laid-out@1";
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final LaidOut NOTHING = new LaidOut("", Map.of(), List.of(), Optional.empty());

  /** How a file got there. */
  public enum How {
    LINK,
    COPY
  }

  /**
   * @param from the mod, in words for people; for the plugin list "Ironing"
   * @param mod its number in the library, 0 for none
   * @param replaced the SHA-256 of the original that is kept, empty when nothing was there
   */
  public record Item(
      String path,
      String sha256,
      long sizeBytes,
      long mod,
      String from,
      How how,
      Optional<String> replaced) {
    /** The same, put there in this way. */
    Item put(How how) {
      return new Item(path, sha256, sizeBytes, mod, from, how, replaced);
    }
  }

  public LaidOut {
    files = Collections.unmodifiableMap(new TreeMap<>(files));
    folders = List.copyOf(folders);
  }

  public static LaidOut nothing() {
    return NOTHING;
  }

  public String toJson() {
    ObjectNode root = JSON.createObjectNode().put("format", FORMAT).put("at", at);
    profile.ifPresent(p -> root.put("profile", p));
    ArrayNode items = root.putArray("files");
    for (Item i : files.values()) {
      ObjectNode n =
          items
              .addObject()
              .put("path", i.path())
              .put("sha256", i.sha256())
              .put("size", i.sizeBytes())
              .put("mod", i.mod())
              .put("from", i.from())
              .put("how", i.how() == How.LINK ? "link" : "copy");
      i.replaced().ifPresent(r -> n.put("replaced", r));
    }
    folders.forEach(root.putArray("folders")::add);
    return root.toPrettyString() + "\n";
  }

  /**
   * @throws IroningException with code {@code laid-out-unreadable}
   */
  public static LaidOut parse(String json) {
    try {
      JsonNode root = JSON.readTree(json);
      if (!FORMAT.equals(root.path("format").asText()))
        throw unreadable("its format is not " + FORMAT, null);
      Map<String, Item> files = new TreeMap<>();
      for (JsonNode n : root.path("files")) {
        Optional<String> replaced =
            n.has("replaced") ? Optional.of(n.get("replaced").asText()) : Optional.empty();
        Item i =
            new Item(
                n.path("path").asText(),
                n.path("sha256").asText(),
                n.path("size").asLong(),
                n.path("mod").asLong(),
                n.path("from").asText(),
                n.path("how").asText().equals("link") ? How.LINK : How.COPY,
                replaced);
        files.put(i.path(), i);
      }
      List<String> folders = new ArrayList<>();
      root.path("folders").forEach(f -> folders.add(f.asText()));
      Optional<Long> profile =
          root.path("profile").canConvertToLong()
              ? Optional.of(root.path("profile").asLong())
              : Optional.empty();
      return new LaidOut(root.path("at").asText(), files, folders, profile);
    } catch (JsonProcessingException e) {
      throw unreadable("it is not JSON", e);
    }
  }

  private static IroningException unreadable(String why, Throwable cause) {
    return IroningException.of(
        "laid-out-unreadable",
        ".ironing/laid-out.json",
        "The note of what is deployed cannot be read: " + why + ".",
        "Restore it from a backup of the game folder; the originals are in .ironing/kept.",
        cause);
  }
}
