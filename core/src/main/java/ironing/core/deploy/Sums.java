package ironing.core.deploy;

/**
 * Lines as GNU {@code sha256sum} writes them, so that {@code sha256sum -c} in the game folder
 * proves a deployment.
 */
final class Sums {
  private Sums() {}

  static String lines(LaidOut laidOut) {
    StringBuilder out = new StringBuilder(128 * laidOut.files().size());
    for (LaidOut.Item i : laidOut.files().values()) append(out, i.sha256(), i.path()).append('\n');
    return out.toString();
  }

  /**
   * A name with a backslash or a line end is escaped, and the line then begins with a backslash
   * (coreutils manual, "md5sum invocation").
   */
  static String line(String sha256, String path) {
    return append(new StringBuilder(), sha256, path).toString();
  }

  private static StringBuilder append(StringBuilder out, String sha256, String path) {
    String escaped = path.replace("\\", "\\\\").replace("\n", "\\n").replace("\r", "\\r");
    if (!escaped.equals(path)) out.append('\\');
    return out.append(sha256).append("  ").append(escaped);
  }
}
