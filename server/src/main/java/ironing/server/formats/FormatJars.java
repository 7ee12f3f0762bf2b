package ironing.server.formats;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.format.FormatJar;
import ironing.core.format.PluginFormats;
import ironing.core.plugin.PluginFormat;
import ironing.server.formats.FormatJarMapper.JarRow;
import ironing.server.platform.Folders;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.stereotype.Component;

/**
 * The jars in the folder {@code formats} of the home. One is loaded only when the user has
 * confirmed its SHA-256; what is loaded then is a copy, by that name, that nobody has changed.
 */
@Component
class FormatJars implements SmartInitializingSingleton {
  private static final Logger LOG = LoggerFactory.getLogger(FormatJars.class);

  /** A larger one is no format. In bytes. */
  private static final long LARGEST = 64L << 20;

  private final FormatJarMapper db;
  private final PluginFormats formats;
  private final Folders folders;
  private final OpenWorkspaces workspaces;
  private final Map<String, Loaded> loaded = new HashMap<>();

  FormatJars(
      FormatJarMapper db, PluginFormats formats, Folders folders, OpenWorkspaces workspaces) {
    this.db = db;
    this.formats = formats;
    this.folders = folders;
    this.workspaces = workspaces;
  }

  /**
   * What became of a confirmed jar.
   *
   * @param ids of its formats
   * @param why it cannot be used; empty where it is
   */
  private record Loaded(List<String> ids, Optional<String> why) {}

  /**
   * A jar in the folder, or one that was confirmed before.
   *
   * @param ids of the formats that it has brought; none before it is confirmed
   * @param why it cannot be used; empty where it can, or is not confirmed
   */
  record Jar(
      String name,
      String sha256,
      long sizeBytes,
      boolean confirmed,
      List<String> ids,
      Optional<String> why) {}

  @Override
  public void afterSingletonsInstantiated() {
    for (JarRow row : db.all()) {
      try {
        load(row.sha256());
      } catch (IroningException | UncheckedIOException e) {
        // what is in its format is told with each plugin; all else goes on
        LOG.warn("format {}: {}", row.name(), e.getMessage());
        String why =
            e instanceof IroningException told
                ? told.problems().get(0).reason()
                : "The copy of the jar that was confirmed cannot be read.";
        loaded.put(row.sha256(), new Loaded(List.of(), Optional.of(why)));
      }
    }
  }

  Path folder() {
    return folders.home().resolve("formats");
  }

  private Path copy(String sha256) {
    return folder().resolve("confirmed").resolve(sha256 + ".jar");
  }

  /** Those that lie there, by name; then those that are confirmed and lie there no more. */
  synchronized List<Jar> all() {
    List<Jar> jars = new ArrayList<>();
    Map<String, String> confirmed = new HashMap<>();
    for (JarRow row : db.all()) confirmed.put(row.sha256(), row.name());
    try {
      for (Path p : there()) {
        String sha256 = ContentHash.of(p);
        boolean known = confirmed.remove(sha256) != null;
        jars.add(jar(p.getFileName().toString(), sha256, Files.size(p), known));
      }
    } catch (IOException e) {
      throw failed(e);
    }
    confirmed.forEach((sha256, name) -> jars.add(jar(name, sha256, 0, true)));
    return jars;
  }

  private Jar jar(String name, String sha256, long size, boolean confirmed) {
    Loaded l = loaded.get(sha256);
    return new Jar(
        name,
        sha256,
        size,
        confirmed,
        l == null ? List.of() : l.ids(),
        l == null ? Optional.empty() : l.why());
  }

  private List<Path> there() throws IOException {
    if (!Files.isDirectory(folder())) return List.of();
    try (Stream<Path> all = Files.list(folder())) {
      List<Path> jars = new ArrayList<>();
      for (Path p : all.sorted().toList())
        if (p.toString().endsWith(".jar")
            && Files.isRegularFile(p, LinkOption.NOFOLLOW_LINKS)
            && Files.size(p) <= LARGEST) jars.add(p);
      return jars;
    }
  }

  /**
   * Takes the jar with this content into use.
   *
   * @throws IroningException with code {@code not-found}, or {@code format-jar-wrong} when no
   *     format can be taken from it
   */
  synchronized Jar confirm(String sha256) {
    try {
      for (Path p : there()) {
        byte[] bytes = Files.readAllBytes(p);
        if (!ContentHash.of(bytes).equals(sha256)) continue;
        Path copy = copy(sha256);
        Files.createDirectories(copy.getParent());
        Path half = copy.resolveSibling(sha256 + ".new");
        Files.write(half, bytes);
        Files.move(half, copy, StandardCopyOption.ATOMIC_MOVE);
        load(sha256);
        db.add(sha256, p.getFileName().toString());
        workspaces.readAgain();
        return jar(p.getFileName().toString(), sha256, bytes.length, true);
      }
    } catch (IOException e) {
      throw failed(e);
    }
    throw notFound(sha256);
  }

  private void load(String sha256) {
    Path copy = copy(sha256);
    try {
      if (!Files.isRegularFile(copy) || !ContentHash.of(copy).equals(sha256))
        throw IroningException.of(
            "format-jar-wrong",
            copy.toString(),
            "The copy of the jar that was confirmed is gone or is another.",
            "Put the jar into the folder formats again, and confirm it.");
    } catch (IOException e) {
      throw failed(e);
    }
    List<PluginFormat> brought = FormatJar.load(copy);
    List<String> ids = brought.stream().map(PluginFormat::id).sorted().toList();
    for (Map.Entry<String, Loaded> other : loaded.entrySet())
      for (String id : other.getKey().equals(sha256) ? List.<String>of() : other.getValue().ids())
        if (ids.contains(id))
          throw IroningException.of(
              "format-jar-wrong",
              id,
              "Another jar that is in use brings this format already.",
              "Take that one out of use first.");
    formats.add(brought);
    loaded.put(sha256, new Loaded(ids, Optional.empty()));
  }

  /**
   * Takes a jar out of use; the file in the folder stays.
   *
   * @throws IroningException with code {@code not-found}
   */
  synchronized void forget(String sha256) {
    if (db.remove(sha256) == 0) throw notFound(sha256);
    Loaded l = loaded.remove(sha256);
    if (l != null) formats.remove(l.ids());
    try {
      Files.deleteIfExists(copy(sha256));
    } catch (IOException e) {
      throw failed(e);
    }
    workspaces.readAgain();
  }

  private static IroningException notFound(String sha256) {
    return IroningException.of(
        "not-found",
        sha256,
        "No such jar lies in the folder formats.",
        "Look at the list again: the file may have changed.");
  }

  private UncheckedIOException failed(IOException e) {
    return new UncheckedIOException("the folder " + folder(), e);
  }
}
