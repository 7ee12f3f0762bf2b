package ironing.core.path;

import ironing.core.IroningException;
import java.nio.charset.StandardCharsets;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;

/** What a legal game path is, and the only ways from one to a place on disk. */
public final class GamePath {
  private static final int MAX_PATH_BYTES = 1000;
  private static final int MAX_STEP_BYTES = 255;
  private static final int MAX_STEPS = 64;

  private GamePath() {}

  /**
   * Checks a path from outside (an archive, a definition, a request) and gives it back unchanged.
   *
   * <p>Fails: {@link IroningException} with code {@code path-unsafe} when the path is absolute, has
   * an empty, {@code .} or {@code ..} step, a drive, a control character, or is too long.
   */
  public static String check(String path) {
    String why = whyUnsafe(path);
    if (why != null) throw unsafe(path, why);
    return path;
  }

  /** Why this path may not be used, or null when it may. */
  public static String whyUnsafe(String path) {
    if (path.isEmpty()) return "it is empty";
    if (path.startsWith("/") || path.startsWith("\\")) return "it begins at the root of the disk";
    if (path.length() > 1 && path.charAt(1) == ':' && Character.isLetter(path.charAt(0))) {
      return "it begins with a drive";
    }
    if (path.indexOf('\\') >= 0) return "it has a backslash in it";
    for (int i = 0; i < path.length(); i++) {
      if (path.charAt(i) < 0x20 || path.charAt(i) == 0x7f)
        return "it has a control character in it";
    }
    if (isLonger(path, 0, path.length(), MAX_PATH_BYTES)) {
      return "it is longer than " + MAX_PATH_BYTES + " bytes";
    }
    int steps = 0;
    for (int from = 0; from <= path.length(); steps++) {
      int slash = path.indexOf('/', from);
      int to = slash < 0 ? path.length() : slash;
      String why = whyUnsafe(path, from, to);
      if (why != null) return why;
      from = to + 1;
    }
    return steps > MAX_STEPS ? "it is more than " + MAX_STEPS + " folders deep" : null;
  }

  private static String whyUnsafe(String path, int from, int to) {
    if (from == to) return "it has an empty step";
    boolean dots = path.charAt(from) == '.' && to - from <= 2 && path.charAt(to - 1) == '.';
    if (dots) return "it has the step “" + path.substring(from, to) + "”, which leads elsewhere";
    if (isLonger(path, from, to, MAX_STEP_BYTES)) {
      return "one of its steps is longer than " + MAX_STEP_BYTES + " bytes";
    }
    return null;
  }

  // no letter takes more than three bytes of UTF-8 for each of its characters
  private static boolean isLonger(String path, int from, int to, int bytes) {
    if (3 * (to - from) <= bytes) return false;
    return path.substring(from, to).getBytes(StandardCharsets.UTF_8).length > bytes;
  }

  /**
   * The place of a game path below a root. Never outside of it, whatever the path says: it is
   * checked again here, so that no caller can forget.
   */
  public static Path resolve(Path root, String path) {
    check(path);
    Path base = root.toAbsolutePath().normalize();
    Path place;
    try {
      place = base.resolve(path).normalize();
    } catch (InvalidPathException e) {
      throw unsafe(path, "this machine cannot write such a name");
    }
    if (!place.startsWith(base) || place.equals(base))
      throw unsafe(path, "it leads outside its folder");
    return place;
  }

  /**
   * A relative path of this machine as a game path, unchecked. On this machine a backslash may be a
   * letter of a name: it stays one, and {@link #whyUnsafe} tells of it.
   */
  public static String of(Path relative) {
    StringBuilder out = new StringBuilder();
    for (Path step : relative) out.append(out.isEmpty() ? "" : "/").append(step);
    return out.toString();
  }

  /** The last step. */
  public static String name(String path) {
    return path.substring(path.lastIndexOf('/') + 1);
  }

  /** Everything before the last step, empty at the top. */
  public static String folder(String path) {
    int slash = path.lastIndexOf('/');
    return slash < 0 ? "" : path.substring(0, slash);
  }

  /** Whether a path lies below a folder; everything lies below the top, which is empty. */
  public static boolean isBelow(String path, String folder) {
    return folder.isEmpty()
        || (path.length() > folder.length()
            && path.charAt(folder.length()) == '/'
            && path.startsWith(folder));
  }

  /** A path below a mount's place, where {@code .} or nothing is the game folder itself. */
  public static String join(String at, String below) {
    return at.isEmpty() || at.equals(".") ? below : at + "/" + below;
  }

  private static IroningException unsafe(String path, String why) {
    return IroningException.of(
        "path-unsafe",
        path,
        "This path cannot be used: " + why + ".",
        "Ask whoever made the file for one with plain relative paths.");
  }
}
