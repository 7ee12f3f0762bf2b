package ironing.server.platform;

import ironing.core.IroningException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.util.function.SingletonSupplier;

/**
 * Where things lie on this machine. All of it below IRONING_HOME, but for the games themselves.
 * Libraries lie below the name of the database that knows them.
 */
@Component
public class Folders {
  private final Path home;
  private final String standins;
  private final Supplier<String> database;

  Folders(
      @Value("${ironing.home}") String home,
      @Value("${ironing.standins}") String standins,
      InstallationMapper db) {
    this.home = Path.of(home).toAbsolutePath().normalize();
    this.standins = standins;
    this.database = SingletonSupplier.of(db::id);
  }

  public Path library(long workspace) {
    Path ofDatabase = home.resolve("libraries").resolve(database.get());
    return ofDatabase.resolve(Long.toString(workspace));
  }

  /** Where a workspace unpacks: whatever is in it after a crash is litter. */
  public Path incoming(long workspace) {
    return library(workspace).resolve("incoming");
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

  /** Removes a folder with all in it; links are removed, not followed. */
  public static void removeTree(Path folder) throws IOException {
    if (!Files.exists(folder, LinkOption.NOFOLLOW_LINKS)) return;
    List<Path> all;
    try (Stream<Path> walk = Files.walk(folder)) {
      all = walk.sorted(Comparator.reverseOrder()).toList();
    }
    for (Path p : all) Files.deleteIfExists(p);
  }
}
