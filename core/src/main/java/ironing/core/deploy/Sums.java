package ironing.core.deploy;

/**
 * Lines as GNU {@code sha256sum} writes them, so that {@code sha256sum -c} in the game folder
 * proves a deployment.
 */
final class Sums {
  private Sums() {}

  static String lines(LaidOut laidOut) {
    StringBuilder out = new StringBuilder();
    for (LaidOut.Item i : laidOut.files().values())
      out.append(line(i.sha256(), i.path())).append('\n');
    return out.toString();
  }

  /**
   * A name with a backslash or a line end is escaped, and the line then begins with a backslash
   * (coreutils manual, "md5sum invocation").
   */
  static String line(String sha256, String path) {
    String escaped = path.replace("\\", "\\\\").replace("\n", "\\n").replace("\r", "\\r");
    return (escaped.equals(path) ? "" : "\\") + sha256 + "  " + escaped;
  }
}
