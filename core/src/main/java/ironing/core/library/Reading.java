package ironing.core.library;

import ironing.core.path.GamePath;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import org.mozilla.universalchardet.UniversalDetector;

/** What in a mod is there for people to read, and how its bytes become text. */
public final class Reading {
  /** What a file is for its reader. The order is that in which they are shown. */
  public enum Kind {
    READ_ME,
    CHANGES,
    LICENCE,
    TEXT,
    IMAGE
  }

  /** What is larger is no reading matter. */
  public static final long LARGEST_BYTES = 16L << 20;

  private static final String TEXT_ENDS = "\\.(md|markdown|txt|text|rst|nfo|log|adoc)";

  /**
   * A regular expression that is found, whatever the case, in every path whose name can be that of
   * a text to read; as Java and PostgreSQL have them.
   */
  public static final String TEXT_NAMES = TEXT_ENDS + "$|(^|/)[^./]+$";

  private static final Pattern TEXT = Pattern.compile(".*" + TEXT_ENDS);
  private static final Pattern IMAGE = Pattern.compile(".*\\.(png|jpe?g|gif|webp|bmp|svg)");
  private static final Pattern BARE = Pattern.compile("[^.]+");
  private static final Charset FALLBACK = Charset.forName("windows-1252");
  // a zero in every other of the first bytes is what ASCII looks like in UTF-16
  private static final int LOOK_AT = 512;

  private Reading() {}

  /** What a file is by its name; empty when it is nothing to read. */
  public static Optional<Kind> kind(String path) {
    String name = GamePath.name(path).toLowerCase(Locale.ROOT);
    if (IMAGE.matcher(name).matches()) return Optional.of(Kind.IMAGE);
    if (!TEXT.matcher(name).matches() && !BARE.matcher(name).matches()) return Optional.empty();
    if (name.matches("(read[ _-]?me|lies[ _-]?mich|start[ _-]?here|install).*"))
      return Optional.of(Kind.READ_ME);
    if (name.matches("(change|history|news|release[ _-]?notes|what'?s[ _-]?new).*"))
      return Optional.of(Kind.CHANGES);
    if (name.matches("(licen[cs]e|copying|permission|credits|notice).*"))
      return Optional.of(Kind.LICENCE);
    return TEXT.matcher(name).matches() ? Optional.of(Kind.TEXT) : Optional.empty();
  }

  /** Whether it is to be shown as Markdown (CommonMark). */
  public static boolean isMarkdown(String path) {
    return path.toLowerCase(Locale.ROOT).matches(".*\\.(md|markdown)");
  }

  /**
   * A text and how it was written.
   *
   * @param encoding the charset's name, as the IANA registers it
   */
  public record Decoded(String text, String encoding) {}

  /**
   * Reads bytes as text: by their byte order mark, else as UTF-8 where valid, else as what they
   * look like. Never fails; what is no text comes out as odd letters.
   */
  public static Decoded text(byte[] bytes) {
    for (Mark m : Mark.values())
      if (m.begins(bytes))
        return new Decoded(
            new String(bytes, m.bytes.length, bytes.length - m.bytes.length, m.charset),
            m.charset.name());
    Optional<Charset> wide = withoutMark(bytes);
    if (wide.isPresent()) return new Decoded(new String(bytes, wide.get()), wide.get().name());
    try {
      return new Decoded(
          StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString(), "UTF-8");
    } catch (CharacterCodingException other) {
      Charset guess = guess(bytes);
      return new Decoded(new String(bytes, guess), guess.name());
    }
  }

  /** Whether bytes are no text in any encoding that is read here: they hold a zero. */
  public static boolean isBinary(byte[] bytes) {
    for (Mark m : Mark.values()) if (m.begins(bytes)) return false;
    if (withoutMark(bytes).isPresent()) return false;
    for (int i = 0; i < Math.min(bytes.length, 8192); i++) if (bytes[i] == 0) return true;
    return false;
  }

  private enum Mark {
    UTF8(StandardCharsets.UTF_8, 0xEF, 0xBB, 0xBF),
    UTF32LE(Charset.forName("UTF-32LE"), 0xFF, 0xFE, 0, 0),
    UTF16LE(StandardCharsets.UTF_16LE, 0xFF, 0xFE),
    UTF16BE(StandardCharsets.UTF_16BE, 0xFE, 0xFF);

    private final Charset charset;

    @SuppressWarnings("ImmutableEnumChecker")
    private final int[] bytes;

    Mark(Charset charset, int... bytes) {
      this.charset = charset;
      this.bytes = bytes;
    }

    boolean begins(byte[] text) {
      if (text.length < bytes.length) return false;
      for (int i = 0; i < bytes.length; i++) if ((text[i] & 0xff) != bytes[i]) return false;
      return true;
    }
  }

  private static Optional<Charset> withoutMark(byte[] bytes) {
    int n = Math.min(bytes.length, LOOK_AT) & ~1, even = 0, odd = 0;
    if (n < 8) return Optional.empty();
    for (int i = 0; i < n; i += 2) {
      if (bytes[i] == 0) even++;
      if (bytes[i + 1] == 0) odd++;
    }
    if (odd > n * 0.4 && even < n * 0.05) return Optional.of(StandardCharsets.UTF_16LE);
    if (even > n * 0.4 && odd < n * 0.05) return Optional.of(StandardCharsets.UTF_16BE);
    return Optional.empty();
  }

  private static Charset guess(byte[] bytes) {
    UniversalDetector detector = new UniversalDetector(null);
    detector.handleData(bytes, 0, bytes.length);
    detector.dataEnd();
    String name = detector.getDetectedCharset();
    return name != null && Charset.isSupported(name) ? Charset.forName(name) : FALLBACK;
  }
}
