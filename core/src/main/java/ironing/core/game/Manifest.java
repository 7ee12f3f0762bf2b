package ironing.core.game;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What the unmodded game is made of, as the game itself says: lines as {@code sha256sum} writes
 * them (GNU coreutils manual, "cksum output modes"). Immutable.
 *
 * <p>Lines with an escaped name are none: a path of a game has neither a backslash nor a line end.
 */
public final class Manifest {
  // the second space is a star for a file that was read as binary
  private static final Pattern LINE = Pattern.compile("([0-9a-fA-F]{64}) [ *](.+)");
  private static final int TOLD = 5;

  private final PathCase pathCase;
  private final Map<String, String> sums = new HashMap<>();
  private final TreeMap<String, String> spelled = new TreeMap<>();

  private Manifest(PathCase pathCase) {
    this.pathCase = pathCase;
  }

  /**
   * The manifest of a game.
   *
   * @param place where a file of the game lies, by its path
   * @return empty where the definition names none, or the game brings none
   * @throws IroningException with code {@code manifest-wrong} naming the lines that are none, or
   *     {@code manifest-unreadable}
   */
  public static Optional<Manifest> of(GameDefinition game, Function<String, Path> place) {
    if (game.manifest().isEmpty()) return Optional.empty();
    Path file = place.apply(game.manifest().get());
    try {
      return Optional.of(
          parse(file.toString(), Files.readString(file, StandardCharsets.UTF_8), game.pathCase()));
    } catch (NoSuchFileException none) {
      return Optional.empty();
    } catch (IOException e) {
      throw IroningException.of(
          "manifest-unreadable",
          file.toString(),
          "The game’s manifest cannot be read: " + e.getMessage() + ".",
          "Let the game’s own repair bring it back, or take “manifest” out of its definition.");
    }
  }

  static Manifest parse(String name, String text, PathCase pathCase) {
    Manifest manifest = new Manifest(pathCase);
    List<Problem> problems = new ArrayList<>();
    int n = 0;
    for (String line : text.split("\r?\n", -1)) {
      n++;
      if (line.isBlank()) continue;
      if (manifest.add(line)) continue;
      problems.add(
          new Problem(
              "manifest-wrong",
              name + ", line " + n,
              "This is no SHA-256 with a path of the game behind it.",
              "Let the game’s own repair bring the manifest back, or take “manifest” out of its"
                  + " definition."));
      if (problems.size() == TOLD) break;
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
    return manifest;
  }

  private boolean add(String line) {
    Matcher m = LINE.matcher(line);
    if (!m.matches()) return false;
    String path = m.group(2);
    if (path.startsWith("./")) path = path.substring(2);
    try {
      GamePath.check(path);
    } catch (IroningException leadsOutside) {
      return false;
    }
    String sha256 = m.group(1).toLowerCase(Locale.ROOT);
    sums.put(pathCase.key(path), sha256);
    spelled.put(path, sha256);
    return true;
  }

  /** The SHA-256 of the game’s file at a path; empty when the game has none there. */
  public Optional<String> sha256(String path) {
    return Optional.ofNullable(sums.get(pathCase.key(path)));
  }

  /** Whether the file is one of the game’s, whatever its content is. */
  public boolean names(String path) {
    return sums.containsKey(pathCase.key(path));
  }

  /** By path, as it is spelled there. */
  public Map<String, String> sums() {
    return Collections.unmodifiableMap(spelled);
  }

  public int size() {
    return spelled.size();
  }

  /**
   * A file that is not as the manifest says.
   *
   * @param gone whether there is none
   */
  public record Unlike(String path, boolean gone) {}

  /**
   * What of a game is not as the manifest says, in the order of the paths; not what the game or the
   * user writes to.
   *
   * @param there the SHA-256 of each file of the game, by path
   */
  public List<Unlike> unlike(GameDefinition game, Map<String, String> there) {
    Map<String, String> byKey = new HashMap<>();
    there.forEach((path, sha256) -> byKey.put(pathCase.key(path), sha256));
    List<Unlike> unlike = new ArrayList<>();
    spelled.forEach(
        (path, sha256) -> {
          if (game.isWritable(path) || game.isProtected(path) || game.isLog(path)) return;
          String is = byKey.get(pathCase.key(path));
          if (!sha256.equals(is)) unlike.add(new Unlike(path, is == null));
        });
    return unlike;
  }
}
