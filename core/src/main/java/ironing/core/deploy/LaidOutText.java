package ironing.core.deploy;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import ironing.core.IroningException;
import ironing.core.deploy.LaidOut.How;
import ironing.core.deploy.LaidOut.Item;
import ironing.core.deploy.LaidOut.Stamp;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * Writes and reads {@code laid-out.json}, one file a line and never the whole as a tree: it may
 * have hundreds of thousands.
 */
final class LaidOutText {
  private static final JsonFactory JSON = new JsonFactory();

  private LaidOutText() {}

  static byte[] write(LaidOut note) {
    ByteArrayOutputStream out = new ByteArrayOutputStream(256 + 256 * note.files().size());
    try (JsonGenerator to = JSON.createGenerator(out)) {
      to.writeStartObject();
      to.writeStringField("format", LaidOut.FORMAT);
      to.writeStringField("at", note.at());
      if (note.profile().isPresent()) to.writeNumberField("profile", note.profile().get());
      if (note.owner().isPresent()) to.writeStringField("owner", note.owner().get());
      to.writeArrayFieldStart("folders");
      for (String f : note.folders()) to.writeString(f);
      to.writeEndArray();
      to.writeArrayFieldStart("files");
      for (Item i : note.files().values()) write(to, i);
      to.writeRaw('\n');
      to.writeEndArray();
      to.writeEndObject();
      to.writeRaw('\n');
    } catch (IOException e) {
      throw new UncheckedIOException("into memory", e);
    }
    return out.toByteArray();
  }

  private static void write(JsonGenerator to, Item i) throws IOException {
    to.writeStartObject();
    to.writeRaw("\n  ");
    to.writeStringField("path", i.path());
    to.writeStringField("sha256", i.sha256());
    to.writeNumberField("size", i.sizeBytes());
    to.writeNumberField("mod", i.mod());
    to.writeStringField("from", i.from());
    to.writeStringField("how", i.how() == How.LINK ? "link" : "copy");
    if (i.replaced().isPresent()) to.writeStringField("replaced", i.replaced().get());
    if (i.stamp().isPresent()) {
      to.writeNumberField("modified", i.stamp().get().modifiedNanos());
      to.writeNumberField("inode", i.stamp().get().inode());
    }
    to.writeEndObject();
  }

  static LaidOut read(byte[] utf8) {
    Reading r = new Reading();
    try (JsonParser in = JSON.createParser(utf8)) {
      if (in.nextToken() != JsonToken.START_OBJECT) throw unreadable("it is no object", null);
      while (in.nextToken() == JsonToken.FIELD_NAME) r.field(in);
    } catch (IOException e) {
      throw unreadable("it is not JSON", e);
    }
    if (!LaidOut.FORMAT.equals(r.format))
      throw unreadable("its format is not " + LaidOut.FORMAT, null);
    return new LaidOut(r.at, r.files, r.folders, r.profile, r.owner);
  }

  /** What has been read so far. */
  private static final class Reading {
    private String format = "";
    private String at = "";
    private Optional<Long> profile = Optional.empty();
    private Optional<String> owner = Optional.empty();
    private final List<String> folders = new ArrayList<>();
    private final Map<String, Item> files = new TreeMap<>();
    // the same few names stand on every line
    private final Map<String, String> names = new HashMap<>();

    private void field(JsonParser in) throws IOException {
      String name = in.currentName();
      JsonToken value = in.nextToken();
      switch (name) {
        case "format" -> format = in.getText();
        case "at" -> at = in.getText();
        case "profile" -> {
          if (value == JsonToken.VALUE_NUMBER_INT) profile = Optional.of(in.getLongValue());
        }
        case "owner" -> owner = Optional.of(in.getText());
        case "folders" -> {
          while (in.nextToken() == JsonToken.VALUE_STRING) folders.add(in.getText());
        }
        case "files" -> {
          while (in.nextToken() == JsonToken.START_OBJECT) {
            Item i = item(in);
            files.put(i.path(), i);
          }
        }
        default -> in.skipChildren();
      }
    }

    private Item item(JsonParser in) throws IOException {
      String path = "", sha256 = "", from = "";
      Optional<String> replaced = Optional.empty();
      long size = 0, mod = 0, modified = 0, inode = 0;
      boolean stamped = false;
      How how = How.COPY;
      while (in.nextToken() == JsonToken.FIELD_NAME) {
        String name = in.currentName();
        in.nextToken();
        switch (name) {
          case "path" -> path = in.getText();
          case "sha256" -> sha256 = in.getText();
          case "size" -> size = in.getValueAsLong();
          case "mod" -> mod = in.getValueAsLong();
          case "from" -> from = names.computeIfAbsent(in.getText(), n -> n);
          case "how" -> how = in.getText().equals("link") ? How.LINK : How.COPY;
          case "replaced" -> replaced = Optional.of(in.getText());
          case "modified" -> {
            modified = in.getValueAsLong();
            stamped = true;
          }
          case "inode" -> inode = in.getValueAsLong();
          default -> in.skipChildren();
        }
      }
      Optional<Stamp> stamp = stamped ? Optional.of(new Stamp(modified, inode)) : Optional.empty();
      return new Item(path, sha256, size, mod, from, how, replaced, stamp);
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
