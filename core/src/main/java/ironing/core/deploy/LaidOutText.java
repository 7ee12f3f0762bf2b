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
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Writes and reads {@code laid-out.json} and the changes of it, one file a line and never the whole
 * as a tree: it may have hundreds of thousands.
 */
final class LaidOutText {
  private static final JsonFactory JSON = new JsonFactory();

  private LaidOutText() {}

  /**
   * @param through the number of the last change that is in it; 0 for none
   */
  static byte[] write(LaidOut note, long through) {
    ByteArrayOutputStream out = new ByteArrayOutputStream(256 + 256 * note.files().size());
    try (JsonGenerator to = JSON.createGenerator(out)) {
      to.writeStartObject();
      to.writeStringField("format", LaidOut.FORMAT);
      if (through > 0) to.writeNumberField("through", through);
      head(to, note.at(), note.profile(), note.owner());
      texts(to, "folders", note.folders());
      files(to, note.files().values());
    } catch (IOException e) {
      throw new UncheckedIOException("into memory", e);
    }
    return out.toByteArray();
  }

  static byte[] write(NoteChange change) {
    ByteArrayOutputStream out = new ByteArrayOutputStream(256 + 256 * change.put().size());
    try (JsonGenerator to = JSON.createGenerator(out)) {
      to.writeStartObject();
      to.writeStringField("format", NoteChange.FORMAT);
      to.writeNumberField("number", change.number());
      head(to, change.at(), change.profile(), change.owner());
      texts(to, "made", change.made());
      texts(to, "left", change.left());
      texts(to, "gone", change.gone());
      files(to, change.put());
    } catch (IOException e) {
      throw new UncheckedIOException("into memory", e);
    }
    return out.toByteArray();
  }

  private static void head(
      JsonGenerator to, String at, Optional<Long> profile, Optional<String> owner)
      throws IOException {
    to.writeStringField("at", at);
    if (profile.isPresent()) to.writeNumberField("profile", profile.get());
    if (owner.isPresent()) to.writeStringField("owner", owner.get());
  }

  private static void texts(JsonGenerator to, String name, List<String> texts) throws IOException {
    to.writeArrayFieldStart(name);
    for (String t : texts) to.writeString(t);
    to.writeEndArray();
  }

  private static void files(JsonGenerator to, Collection<Item> files) throws IOException {
    to.writeArrayFieldStart("files");
    for (Item i : files) write(to, i);
    to.writeRaw('\n');
    to.writeEndArray();
    to.writeEndObject();
    to.writeRaw('\n');
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

  /**
   * A whole note.
   *
   * @param through the number of the last change that is in it; 0 for none
   */
  record Whole(LaidOut note, long through) {}

  static Whole read(byte[] utf8) {
    Reading r = reading(Deployer.LAID_OUT, LaidOut.FORMAT, utf8);
    return new Whole(new LaidOut(r.at, r.files, r.folders, r.profile, r.owner), r.through);
  }

  static NoteChange readChange(String name, byte[] utf8) {
    Reading r = reading(name, NoteChange.FORMAT, utf8);
    return new NoteChange(
        r.number, r.at, r.profile, r.owner, List.copyOf(r.files.values()), r.gone, r.made, r.left);
  }

  private static Reading reading(String name, String format, byte[] utf8) {
    Reading r = new Reading();
    try (JsonParser in = JSON.createParser(utf8)) {
      if (in.nextToken() != JsonToken.START_OBJECT) throw unreadable(name, "it is no object", null);
      while (in.nextToken() == JsonToken.FIELD_NAME) r.field(in);
    } catch (IOException e) {
      throw unreadable(name, "it is not JSON", e);
    }
    if (!format.equals(r.format)) throw unreadable(name, "its format is not " + format, null);
    return r;
  }

  /** What has been read so far. */
  private static final class Reading {
    private String format = "";
    private String at = "";
    private Optional<Long> profile = Optional.empty();
    private Optional<String> owner = Optional.empty();
    private final List<String> folders = new ArrayList<>();
    private long through;
    private long number;
    private final List<String> made = new ArrayList<>();
    private final List<String> left = new ArrayList<>();
    private final List<String> gone = new ArrayList<>();
    private final Map<String, Item> files = new LinkedHashMap<>();
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
        case "through" -> through = in.getValueAsLong();
        case "number" -> number = in.getValueAsLong();
        case "folders" -> texts(in, folders);
        case "made" -> texts(in, made);
        case "left" -> texts(in, left);
        case "gone" -> texts(in, gone);
        case "files" -> {
          while (in.nextToken() == JsonToken.START_OBJECT) {
            Item i = item(in);
            files.put(i.path(), i);
          }
        }
        default -> in.skipChildren();
      }
    }

    private static void texts(JsonParser in, List<String> to) throws IOException {
      while (in.nextToken() == JsonToken.VALUE_STRING) to.add(in.getText());
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

  private static IroningException unreadable(String name, String why, Throwable cause) {
    return IroningException.of(
        "laid-out-unreadable",
        name,
        "The note of what is deployed cannot be read: " + why + ".",
        "Restore it from a backup of the game folder; the originals are in .ironing/kept.",
        cause);
  }
}
