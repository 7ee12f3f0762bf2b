package ironing.server.platform;

import ironing.core.IroningException;
import ironing.core.disk.FolderTree;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.DependsOn;
import org.springframework.stereotype.Component;
import org.springframework.util.function.SingletonSupplier;

/**
 * Where things lie on this machine. All of it below IRONING_HOME, but for the games themselves and
 * libraries whose user chose a place. Libraries lie below the name of the database that knows them.
 * Whoever uses them may end and clear what another server left, so both locks are taken before.
 */
@Component
@DependsOn({"homeLock", "databaseLock"})
public class Folders {
  private final Path home;
  private final String standins;
  private final Supplier<String> database;
  private final InstallationMapper db;
  private final Latest<Long, Path> libraries = new Latest<>();

  Folders(
      @Value("${ironing.home}") String home,
      @Value("${ironing.standins}") String standins,
      InstallationMapper db) {
    this.home = Path.of(home).toAbsolutePath().normalize();
    this.standins = standins;
    this.database = SingletonSupplier.of(db::id);
    this.db = db;
  }

  /** Where Ironing keeps what is its own. */
  public Path home() {
    return home;
  }

  /** The name of the database that knows all this. */
  public String installation() {
    return database.get();
  }

  public Path library(long workspace) {
    return libraries.of(
        workspace,
        () -> libraryIn(workspace, Optional.ofNullable(db.libraryFolder(workspace)).map(Path::of)));
  }

  /**
   * Where the library of a workspace lies or would lie.
   *
   * @param chosen the folder that its user chose; empty for the home
   */
  public Path libraryIn(long workspace, Optional<Path> chosen) {
    // a name of its own: what else lies in a folder of the user's is none of ours
    return chosen
        .map(f -> f.resolve("ironing-library-" + database.get() + "-" + workspace))
        .orElseGet(
            () ->
                home.resolve("libraries")
                    .resolve(database.get())
                    .resolve(Long.toString(workspace)));
  }

  /** To call when another place was written down for a library. */
  public void libraryMoved(long workspace) {
    libraries.forget(workspace);
  }

  /** Uploads on their way in, of all workspaces. */
  public Path uploads() {
    return home.resolve("uploads").resolve(database.get());
  }

  /** What was worked out and can be again: anything in it may be removed at any time. */
  public Path kept() {
    return home.resolve("kept").resolve(database.get());
  }

  /** Where a workspace unpacks: whatever is in it after a crash is litter. */
  public Path incoming(long workspace) {
    return library(workspace).resolve("incoming");
  }

  /** What is being fetched: parts of files, to be gone on with after a restart. */
  public Path downloads(long workspace) {
    return library(workspace).resolve("downloads");
  }

  /** Archives that were unpacked so that their contents can be looked at. */
  public Path staged(long workspace) {
    return library(workspace).resolve("staged");
  }

  /** Archives, each named by its SHA-256. */
  public Path archives(long workspace) {
    return library(workspace).resolve("archives");
  }

  public Path mods(long workspace) {
    return library(workspace).resolve("mods");
  }

  /** The files of a mod that the game may see, below their game paths. */
  public Path content(long workspace, String modFolder) {
    return mods(workspace).resolve(modFolder).resolve("content");
  }

  /** Where the sample game lies, with the archives of its mods. */
  public Path sample() {
    return home.resolve("demo");
  }

  /** What {standins} means in a game's command. */
  public String standins() {
    return standins;
  }

  /** A folder that a user named. @throws IroningException with code {@code folder-wrong} */
  public static Path named(String text) {
    try {
      Path path = Path.of(text.strip());
      if (!path.isAbsolute())
        throw IroningException.of(
            "folder-wrong",
            text,
            "This is not a full path.",
            "Name the folder from the root of the disk on.");
      if (!Files.isDirectory(path))
        throw IroningException.of(
            "folder-wrong",
            text,
            "There is no such folder on this machine.",
            "Check its spelling, or connect its drive.");
      return path.toRealPath();
    } catch (InvalidPathException | IOException e) {
      throw IroningException.of(
          "folder-wrong",
          text,
          "This folder cannot be opened.",
          "Check its spelling and whether you may read it.",
          e);
    }
  }

  /**
   * Whether a file of a folder is a link to something that lies elsewhere, which may be anybody's.
   * A link within the folder is as good as the file that it leads to.
   */
  public static boolean leadsOutside(Path folder, Path file) throws IOException {
    return !file.toRealPath().startsWith(folder.toRealPath());
  }

  /**
   * @throws IroningException with code {@code leads-outside} for such a link
   */
  public static void requireInside(Path folder, Path file) throws IOException {
    if (leadsOutside(folder, file))
      throw IroningException.of(
          "leads-outside",
          file.toString(),
          "It is a link that leads out of its folder, and is not followed.",
          "Put the file itself there, or name the folder that it lies in.");
  }

  /** Removes all that lies in a folder, but for entries of these names. */
  public static void clearBut(Path folder, Set<String> known) throws IOException {
    if (!Files.isDirectory(folder)) return;
    List<Path> there;
    try (Stream<Path> list = Files.list(folder)) {
      there = list.toList();
    }
    for (Path p : there) if (!known.contains(p.getFileName().toString())) FolderTree.remove(p);
  }
}
