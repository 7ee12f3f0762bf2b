package ironing.core.picture;

import ironing.core.archive.ContentHash;
import ironing.core.layers.Standing;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * One word for everything that the game will see: the SHA-256 of a text with a line for each path,
 * {@code HASH PATH}, as {@code sha256sum} writes it, in the order of the paths' bytes in UTF-8. Two
 * pictures have the same one only where all their paths have the same contents.
 *
 * <p>Cost: a line for each path.
 */
public final class PictureHash {
  /** Letters of a SHA-256 in hexadecimal. */
  private static final int HASH = 64;

  private PictureHash() {}

  public static String of(Picture picture) {
    Standing standing = picture.standing();
    byte[][] lines =
        IntStream.range(0, picture.holdings().pathCount())
            .filter(p -> standing.inPlay(p) >= 0)
            .mapToObj(
                p ->
                    (picture.holdings().shaAt(standing.inPlay(p))
                            + "  "
                            + picture.spelling().of(p)
                            + "\n")
                        .getBytes(StandardCharsets.UTF_8))
            .toArray(byte[][]::new);
    int path = HASH + 2;
    Arrays.parallelSort(
        lines, (a, b) -> Arrays.compareUnsigned(a, path, a.length, b, path, b.length));
    ByteArrayOutputStream text = new ByteArrayOutputStream();
    for (byte[] line : lines) text.writeBytes(line);
    return ContentHash.of(text.toByteArray());
  }
}
