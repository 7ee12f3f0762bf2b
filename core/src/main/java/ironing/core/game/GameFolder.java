package ironing.core.game;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.core.archive.PackFile;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.function.IntConsumer;

/**
 * Looking at a game's folder: is it that game, in which version, and what is in it. Never writes.
 */
public final class GameFolder {
  /** The name of the definition that a game may carry in its own folder. */
  public static final String DEFINITION = "game.yaml";

  /** A file as it lies there. Paths are game paths. */
  public record Seen(String path, long sizeBytes, long modifiedMillis, String sha256) {}

  /** A file inside a pack. */
  public record Packed(String pack, String path, long sizeBytes, String sha256) {}

  private GameFolder() {}

  /**
   * @throws IroningException with code {@code game-folder-wrong} naming all that is missing
   */
  public static void requireGame(GameDefinition game, Path folder) {
    requireFolder(folder);
    List<Problem> missing = new ArrayList<>();
    for (String d : game.detect()) {
      if (!Files.exists(GamePath.resolve(folder, d))) {
        missing.add(
            new Problem(
                "game-folder-wrong",
                folder.toString(),
                "This is not the folder of " + game.title() + ": “" + d + "” is not in it.",
                "Name the folder in which the game lies."));
      }
    }
    if (!missing.isEmpty()) throw new IroningException(missing);
  }

  /**
   * @throws IroningException with code {@code game-folder-gone}
   */
  public static void requireFolder(Path folder) {
    if (!Files.isDirectory(folder)) {
      throw IroningException.of(
          "game-folder-gone",
          folder.toString(),
          "There is no such folder.",
          "Put the game back there, connect its drive, or name the folder again.");
    }
  }

  /**
   * The version as written, trimmed; empty when the definition names none or the file does not
   * tell.
   */
  public static Optional<String> version(GameDefinition game, Path folder) {
    return version(game, path -> GamePath.resolve(folder, path));
  }

  /**
   * @param place where a file of the game lies, by its path
   */
  public static Optional<String> version(GameDefinition game, Function<String, Path> place) {
    if (game.version().isEmpty()) return Optional.empty();
    GameDefinition.VersionSource source = game.version().get();
    try {
      String text = Files.readString(place.apply(source.file()), StandardCharsets.UTF_8);
      if (source.pointer().isPresent()) {
        JsonNode node = new ObjectMapper().readTree(text).at(source.pointer().get());
        return node.isValueNode() ? Optional.of(node.asText().trim()) : Optional.empty();
      }
      return text.lines()
          .skip(source.line() - 1L)
          .findFirst()
          .map(String::trim)
          .filter(s -> !s.isEmpty());
    } catch (JsonProcessingException e) {
      return Optional.empty();
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  /**
   * Reads and hashes every file of the folder and its places, {@code .ironing} aside. Cost: one
   * pass over all bytes.
   *
   * @param progress told how many files are done; what it throws ends the work
   * @throws IroningException with code {@code game-folder-gone}, {@code place-gone} or {@code
   *     game-folder-unreadable}
   */
  public static List<Seen> scan(GameRoots roots, IntConsumer progress) {
    return scan(roots, roots.tops(), progress);
  }

  /**
   * The same of some of the tops.
   *
   * @param tops of {@link GameRoots#tops}
   */
  public static List<Seen> scan(GameRoots roots, List<String> tops, IntConsumer progress) {
    List<Seen> seen = new ArrayList<>();
    walk(
        roots,
        tops,
        (path, file, attrs) -> {
          long modified = attrs.lastModifiedTime().toMillis();
          seen.add(new Seen(path, attrs.size(), modified, ContentHash.of(file)));
          progress.accept(seen.size());
        });
    seen.sort(Comparator.comparing(Seen::path));
    return seen;
  }

  /** A file as it lies there, unread. */
  public record Glance(long sizeBytes, long modifiedMillis) {}

  /**
   * Every file by path, without reading any.
   *
   * @throws IroningException with code {@code game-folder-gone}, {@code place-gone} or {@code
   *     game-folder-unreadable}
   */
  public static Map<String, Glance> glance(GameRoots roots) {
    Map<String, Glance> files = new TreeMap<>();
    walk(
        roots,
        roots.tops(),
        (path, file, attrs) ->
            files.put(path, new Glance(attrs.size(), attrs.lastModifiedTime().toMillis())));
    return files;
  }

  /**
   * The content of a pack as game paths below the packs' mount.
   *
   * @throws IroningException with code {@code pack-unreadable}, also when it is a container of
   *     another kind than the definition says
   */
  public static List<Packed> packContent(GameDefinition game, String packPath, Path file) {
    List<Packed> out = new ArrayList<>();
    try (PackFile pack = PackFile.open(file)) {
      if (game.packs().filter(p -> p.container() != pack.container()).isPresent())
        throw new IOException("it is a " + pack.container().name().toLowerCase(Locale.ROOT));
      for (PackFile.Entry e : pack.entries()) {
        String path = GamePath.check(game.pathOfPacked(e.name()));
        try (var in = pack.read(e.name())) {
          out.add(new Packed(packPath, path, e.sizeBytes(), ContentHash.of(in)));
        }
      }
    } catch (IOException e) {
      throw IroningException.of(
          "pack-unreadable",
          packPath,
          "This pack cannot be read: " + e.getMessage() + ".",
          "Bring in a sound copy of its mod.",
          e);
    }
    return out;
  }

  /**
   * Files whose names cannot be game paths, such as with a backslash: they are none of the picture,
   * and nothing is ever done to them.
   *
   * @throws IroningException with code {@code game-folder-gone}, {@code place-gone} or {@code
   *     game-folder-unreadable}
   */
  public static List<Problem> unusable(GameRoots roots) {
    List<Problem> unusable = new ArrayList<>();
    walk(
        roots,
        roots.tops(),
        (path, file, attrs) -> {},
        (path, why) ->
            unusable.add(
                new Problem(
                    "name-unusable",
                    path,
                    "This file is left out of the picture: " + why + ".",
                    "Leave it as it is, or give it a plain name.")));
    return unusable;
  }

  private interface Visit {
    void file(String path, Path file, BasicFileAttributes attrs) throws IOException;
  }

  private static void walk(GameRoots roots, List<String> tops, Visit visit) {
    walk(roots, tops, visit, (path, why) -> {});
  }

  private static void walk(
      GameRoots roots, List<String> tops, Visit visit, BiConsumer<String, String> unusable) {
    requireFolder(roots.folder());
    tops.forEach(roots::require);
    for (String top : tops) walk(roots, top, visit, unusable);
  }

  private static void walk(
      GameRoots roots, String top, Visit visit, BiConsumer<String, String> unusable) {
    Path root = roots.at(top);
    try {
      Files.walkFileTree(
          root,
          new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path dir, BasicFileAttributes attrs) {
              return dir.equals(root.resolve(".ironing"))
                  ? FileVisitResult.SKIP_SUBTREE
                  : FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attrs)
                throws IOException {
              // links are not followed: what lies behind one is not the game's
              if (!attrs.isRegularFile()) return FileVisitResult.CONTINUE;
              String path = roots.path(top, GamePath.of(root.relativize(file)));
              String why = GamePath.whyUnsafe(path);
              if (why == null) visit.file(path, file, attrs);
              else unusable.accept(path, why);
              return FileVisitResult.CONTINUE;
            }
          });
    } catch (IOException e) {
      throw unreadable(root, e);
    }
  }

  private static IroningException unreadable(Path folder, IOException e) {
    boolean named = e instanceof FileSystemException f && f.getFile() != null;
    String thing = named ? ((FileSystemException) e).getFile() : folder.toString();
    boolean denied = e instanceof AccessDeniedException;
    return IroningException.of(
        "game-folder-unreadable",
        thing,
        denied ? "You may not read this." : "It cannot be read: " + e.getMessage() + ".",
        "Give yourself the right to read it, see that its drive is sound, and try again.",
        e);
  }
}
