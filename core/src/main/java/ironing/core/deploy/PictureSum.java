package ironing.core.deploy;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.picture.Picture;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;

/**
 * One SHA-256 for all that the game would read: two machines with the same have the same game. It
 * is that of the lines {@code HASH␠␠PATH\n} of every file in the picture, as GNU {@code sha256sum}
 * writes them, sorted by the bytes of the path; see docs/formats/game-folder.md.
 *
 * <p>Left out is what is protected, what each profile has a copy of, and the game's log. The plugin
 * list counts as it would be written.
 *
 * <p>Cost: one pass over all paths, and a sort.
 */
public final class PictureSum {
  private PictureSum() {}

  /** In lower-case hex. */
  public static String of(Picture picture) {
    return of(picture, Map.of());
  }

  /**
   * The same of a set that is tried.
   *
   * @param contents by game path, what lies there instead of what the picture has
   */
  public static String of(Picture picture, Map<String, byte[]> contents) {
    Map<String, String> instead = new HashMap<>();
    contents.forEach(
        (path, bytes) -> instead.put(picture.game().pathCase().key(path), ContentHash.of(bytes)));
    Holdings holdings = picture.holdings();
    Standing standing = picture.standing();
    Map<String, Wanted> ordering = new HashMap<>();
    for (Wanted w : WantedFiles.ordering(picture))
      ordering.put(picture.game().pathCase().key(w.path()), w);
    List<byte[][]> lines = new ArrayList<>();
    for (int p = 0; p < holdings.pathCount(); p++) {
      int slot = standing.inPlay(p);
      if (slot < 0 || picture.switchedOff().get(p)) continue;
      // a pack is a file by itself, but for what a ruling puts above loose files
      if (holdings.holderAt(slot).pack().isPresent() && !standing.isRuled(p)) continue;
      String path = picture.spelling().of(p);
      String key = picture.game().pathCase().key(path);
      if (isLeftOut(picture, path) || ordering.containsKey(key)) continue;
      String sha = instead.get(key);
      lines.add(line(sha == null ? holdings.shaAt(slot) : sha, path));
    }
    ordering.values().forEach(w -> lines.add(line(w.sha256(), w.path())));
    contents.forEach(
        (path, bytes) -> {
          if (holdings.idOf(path) < 0) lines.add(line(ContentHash.of(bytes), path));
        });
    lines.sort((a, b) -> Arrays.compareUnsigned(a[0], b[0]));
    MessageDigest digest = ContentHash.digest();
    for (byte[][] l : lines) digest.update(l[1]);
    return HexFormat.of().formatHex(digest.digest());
  }

  private static boolean isLeftOut(Picture picture, String path) {
    return picture.game().isProtected(path)
        || picture.game().isPerProfile(path)
        || picture.game().isLog(path);
  }

  private static byte[][] line(String sha256, String path) {
    return new byte[][] {
      path.getBytes(StandardCharsets.UTF_8),
      (Sums.line(sha256, path) + "\n").getBytes(StandardCharsets.UTF_8)
    };
  }
}
