package ironing.standins.game;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/**
 * The files below data/, as the game sees them: a loose file stands before one in a crate, a later
 * crate before an earlier one. Names do not tell upper from lower case.
 */
final class DataFiles {
  /**
   * @param crate the crate it lies in, null for a loose file
   */
  record Entry(String path, String crate, byte[] bytes) {
    /** The file's name without its folders. */
    String name() {
      return path.substring(path.lastIndexOf('/') + 1);
    }

    String from() {
      return crate == null ? path : crate + " › " + path;
    }
  }

  private final Path data;
  private final Journal journal;
  private final Map<String, Path> loose = new TreeMap<>();
  private final Map<String, Entry> packed = new TreeMap<>();

  DataFiles(Path gameFolder, Journal journal) throws IOException {
    this.data = gameFolder.resolve("data");
    this.journal = journal;
    try (Stream<Path> all = Files.walk(data)) {
      all.filter(Files::isRegularFile)
          .forEach(p -> loose.put(key(data.relativize(p).toString()), p));
    }
  }

  List<String> crates() {
    return loose.keySet().stream().filter(k -> k.endsWith(".crate") && k.indexOf('/') < 0).toList();
  }

  /** The loose plugins at the top of data/, whether or not the list names them. */
  List<String> plugins() {
    return loose.keySet().stream().filter(k -> k.endsWith(".plug") && k.indexOf('/') < 0).toList();
  }

  /** Opens a crate over those opened before. */
  void open(String crate) {
    Path file = loose.get(key(crate));
    if (file == null) {
      journal.event(
          "warning",
          e -> e.put("code", "crate-missing").put("text", "The crate " + crate + " is not there."));
      return;
    }
    String name = "data/" + data.relativize(file);
    try (ZipFile zip = new ZipFile(file.toFile())) {
      tell(name, Files.readAllBytes(file));
      for (ZipEntry e : Collections.list(zip.entries())) {
        if (e.isDirectory()) continue;
        try (InputStream in = zip.getInputStream(e)) {
          packed.put(key(e.getName()), new Entry("data/" + e.getName(), name, in.readAllBytes()));
        }
      }
    } catch (IOException e) {
      throw new GameFault(
          "crate-unreadable",
          "The crate " + crate + " does not open: " + e.getMessage(),
          name,
          null,
          null);
    }
  }

  /** Reads a file and notes it in the log, null when nobody has it. */
  Entry read(String path) throws IOException {
    Entry e = find(path);
    if (e != null) tell(e.path(), e.bytes());
    return e;
  }

  /** The same without a note in the log. */
  Entry find(String path) throws IOException {
    Path file = loose.get(key(path));
    if (file == null) return packed.get(key(path));
    return new Entry("data/" + data.relativize(file), null, Files.readAllBytes(file));
  }

  /** All files with an ending below a folder, by path, each once. */
  List<Entry> all(String folder, String ending) throws IOException {
    Map<String, String> paths = new LinkedHashMap<>();
    for (String k : packed.keySet())
      if (k.startsWith(folder) && k.endsWith(ending)) paths.put(k, k);
    for (String k : loose.keySet()) if (k.startsWith(folder) && k.endsWith(ending)) paths.put(k, k);
    List<Entry> out = new ArrayList<>();
    for (String k : paths.keySet().stream().sorted().toList()) out.add(read(k));
    return out;
  }

  private void tell(String path, byte[] bytes) {
    journal.event("read", e -> e.put("path", path).put("sha256", sha256(bytes)));
  }

  static String text(Entry e) {
    return new String(e.bytes(), StandardCharsets.UTF_8);
  }

  static String sha256(byte[] bytes) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  static String key(String path) {
    return Normalizer.normalize(path, Normalizer.Form.NFC)
        .replace('\\', '/')
        .toLowerCase(Locale.ROOT);
  }
}
