package ironing.core.path;

import ironing.core.IroningException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * Where game paths lie on this machine: below the game folder, or below one of the places beside
 * it. A path in a place is written {@code @id/path}; a top folder of the game itself that begins
 * with {@code @} is written with {@code @@} where the game has places.
 *
 * <p>Threads: immutable.
 *
 * @param folder of the game
 * @param places folders by the id of their place
 */
public record GameRoots(Path folder, SortedMap<String, Path> places) {
  /** The folder in which Ironing keeps its own things, in the game’s and in each place. */
  public static final String HOME = ".ironing";

  private static final char MARK = '@';
  private static final int TAG_BYTES = 8;

  public GameRoots {
    folder = folder.toAbsolutePath().normalize();
    SortedMap<String, Path> all = new TreeMap<>();
    places.forEach((id, p) -> all.put(id, p.toAbsolutePath().normalize()));
    places = Collections.unmodifiableSortedMap(all);
  }

  /** A game all of which lies in its folder. */
  public static GameRoots of(Path folder) {
    return of(folder, Map.of());
  }

  /** A game with places beside its folder. */
  public static GameRoots of(Path folder, Map<String, Path> places) {
    return new GameRoots(folder, new TreeMap<>(places));
  }

  /** How the root of a place is written. */
  public static String top(String id, String below) {
    return below.isEmpty() || below.equals(".") ? MARK + id : MARK + id + "/" + below;
  }

  /** A path below the game folder as a game path. */
  public static String escaped(String path, boolean hasPlaces) {
    return hasPlaces && path.startsWith("@") ? MARK + path : path;
  }

  /** Nothing for the game folder, and {@code @id} for each place. */
  public List<String> tops() {
    List<String> all = new ArrayList<>(List.of(""));
    places.keySet().forEach(id -> all.add(MARK + id));
    return all;
  }

  /** Of these the one that a game path lies below. */
  public String top(String path) {
    if (places.isEmpty() || !isPlaced(path)) return "";
    int slash = path.indexOf('/');
    return slash < 0 ? path : path.substring(0, slash);
  }

  /** A game path as seen from its top; empty for the top itself. */
  public String below(String path) {
    String top = top(path);
    if (top.isEmpty()) return path;
    return path.length() == top.length() ? "" : path.substring(top.length() + 1);
  }

  /** A path that was found below a top, as a game path. */
  public String path(String top, String found) {
    return top.isEmpty() ? escaped(found, !places.isEmpty()) : top + "/" + found;
  }

  /**
   * The folder that a game path lies below.
   *
   * @throws IroningException with code {@code place-unknown} when the game has no such place
   */
  public Path root(String path) {
    String top = top(path);
    if (top.isEmpty()) return folder;
    Path place = places.get(top.substring(1));
    if (place != null) return place;
    throw IroningException.of(
        "place-unknown",
        path,
        "It is not known where “" + top.substring(1) + "” lies, a place of this game.",
        "Say in Overview which folder that is.");
  }

  /**
   * Where a game path lies; an empty one, or the name of a place alone, is the folder itself.
   *
   * @throws IroningException with code {@code path-unsafe} or {@code place-unknown}
   */
  public Path at(String path) {
    return under(root(path), path);
  }

  /** The same below another folder that stands for the top of the path. */
  public Path under(Path root, String path) {
    String below = below(path);
    if (below.isEmpty()) return root;
    boolean escaped = !places.isEmpty() && path.startsWith("@@");
    return GamePath.resolve(root, escaped ? below.substring(1) : below);
  }

  /** How a program that runs in the game folder names a file: in a place by its full path. */
  public String named(String path) {
    if (places.isEmpty()) return path;
    if (!top(path).isEmpty()) return at(path).toString();
    return path.startsWith("@@") ? path.substring(1) : path;
  }

  /** A full path of this machine as a game path; anything else stays as it is. */
  public String told(String path) {
    if (!path.startsWith("/") || path.indexOf('\u0000') >= 0) return path;
    Path file = Path.of(path).normalize();
    for (String top : tops()) {
      Path root = at(top);
      if (file.startsWith(root) && !file.equals(root))
        return path(top, GamePath.of(root.relativize(file)));
    }
    return path;
  }

  /**
   * Where Ironing keeps what it needs for a game path, as a game path: on the same drive, and in a
   * place apart from what other games keep there.
   */
  public String home(String path) {
    String top = top(path);
    return top.isEmpty() ? HOME : top + "/" + HOME + "/" + tag();
  }

  /** What tells this game from others in a place that they share. */
  public String tag() {
    try {
      byte[] hash =
          MessageDigest.getInstance("SHA-256")
              .digest(folder.toString().getBytes(StandardCharsets.UTF_8));
      return HexFormat.of().formatHex(hash, 0, TAG_BYTES);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }

  /**
   * @param top of {@link #tops}
   * @throws IroningException with code {@code place-gone} when that place is not there
   */
  public void require(String top) {
    if (top.isEmpty() || Files.isDirectory(at(top))) return;
    throw IroningException.of(
        "place-gone",
        at(top).toString(),
        "This folder is not there, though the game keeps things in it (“"
            + top.substring(1)
            + "”).",
        "Connect its drive, or say in Overview where it is now.");
  }

  /**
   * @throws IroningException with code {@code place-gone} when one of the places is not there
   */
  public void requirePlaces() {
    tops().forEach(this::require);
  }

  private static boolean isPlaced(String path) {
    return path.startsWith("@") && !path.startsWith("@@");
  }
}
