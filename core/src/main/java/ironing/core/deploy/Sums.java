package ironing.core.deploy;

import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Lines as GNU {@code sha256sum} writes them, so that {@code sha256sum -c} in the game folder
 * proves a deployment: files in places beside it stand there by their full paths.
 */
final class Sums {
  private static final int SUM_AND_BLANKS = 66;
  private static final int HASHES = 1 << 17;

  private Sums() {}

  static String lines(LaidOut laidOut, GameRoots roots) {
    StringBuilder out = new StringBuilder(128 * laidOut.files().size());
    for (LaidOut.Item i : laidOut.files().values())
      append(out, i.sha256(), roots.named(i.path())).append('\n');
    return out.toString();
  }

  /**
   * Has written sums follow a small change: lines that no longer hold become comments, which {@code
   * sha256sum -c} passes over, and new ones come to the end.
   *
   * @return whether it has: else there are none, or they are mostly comments by now, and are to be
   *     written anew
   */
  static boolean amend(Disk disk, Path file, NoteChange change, GameRoots roots)
      throws IOException {
    if (!disk.exists(file)) return false;
    Set<String> stale = new HashSet<>();
    for (LaidOut.Item i : change.put()) stale.add(escaped(roots.named(i.path())));
    for (String path : change.gone()) stale.add(escaped(roots.named(path)));
    BitSet hashes = new BitSet(HASHES);
    for (String name : stale) hashes.set(hash(name.getBytes(StandardCharsets.UTF_8)) & HASHES - 1);
    byte[] text = disk.read(file);
    List<Long> marks = new ArrayList<>();
    int live = 0, dead = 0;
    for (int from = 0, end; from < text.length; from = end + 1) {
      end = from;
      int hash = 0, name = from + SUM_AND_BLANKS + (text[from] == '\\' ? 1 : 0);
      for (; end < text.length && text[end] != '\n'; end++)
        if (end >= name) hash = 31 * hash + text[end];
      if (text[from] == '#') {
        dead++;
        continue;
      }
      live++;
      // few have the hash of one that is meant: only these are read as text
      if (!hashes.get(hash & HASHES - 1)) continue;
      String path = new String(text, name, end - name, StandardCharsets.UTF_8);
      if (stale.contains(path)) marks.add((long) from);
    }
    if (dead + marks.size() > live / 2) return false;
    StringBuilder tail = new StringBuilder();
    for (LaidOut.Item i : change.put())
      append(tail, i.sha256(), roots.named(i.path())).append('\n');
    disk.amend(file, marks, tail.toString().getBytes(StandardCharsets.UTF_8));
    return true;
  }

  private static int hash(byte[] name) {
    int hash = 0;
    for (byte b : name) hash = 31 * hash + b;
    return hash;
  }

  /**
   * A name with a backslash or a line end is escaped, and the line then begins with a backslash
   * (coreutils manual, "md5sum invocation").
   */
  static String line(String sha256, String path) {
    return append(new StringBuilder(), sha256, path).toString();
  }

  private static String escaped(String path) {
    return path.replace("\\", "\\\\").replace("\n", "\\n").replace("\r", "\\r");
  }

  private static StringBuilder append(StringBuilder out, String sha256, String path) {
    String escaped = escaped(path);
    if (!escaped.equals(path)) out.append('\\');
    return out.append(sha256).append("  ").append(escaped);
  }
}
