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
    if (path.getBytes(StandardCharsets.UTF_8).length > MAX_PATH_BYTES) {
      return "it is longer than " + MAX_PATH_BYTES + " bytes";
    }
    String[] steps = path.split("/", -1);
    if (steps.length > MAX_STEPS) return "it is more than " + MAX_STEPS + " folders deep";
    for (String step : steps) {
      if (step.isEmpty()) return "it has an empty step";
      if (step.equals(".") || step.equals(".."))
        return "it has the step “" + step + "”, which leads elsewhere";
      if (step.getBytes(StandardCharsets.UTF_8).length > MAX_STEP_BYTES) {
        return "one of its steps is longer than " + MAX_STEP_BYTES + " bytes";
      }
    }
    return null;
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

  /** The last step. */
  public static String name(String path) {
    return path.substring(path.lastIndexOf('/') + 1);
  }

  /** Everything before the last step, empty at the top. */
  public static String folder(String path) {
    int slash = path.lastIndexOf('/');
    return slash < 0 ? "" : path.substring(0, slash);
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
