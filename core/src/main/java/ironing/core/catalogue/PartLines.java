package ironing.core.catalogue;

import ironing.core.catalogue.OfferedMod.Change;
import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.catalogue.OfferedMod.OfferedFile;
import ironing.core.catalogue.OfferedMod.Release;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.regex.Pattern;

/**
 * The lines of a part, one mod each. A line that cannot be read is told and left out; those around
 * it are used.
 *
 * <p>Cost: one line in memory at a time.
 */
public final class PartLines {
  /** The most bytes that a line may have, without its end. */
  public static final int LONGEST = JsonLines.LONGEST;

  private static final Pattern NO_FILE_NAME = Pattern.compile("[/\\\\\\p{Cntrl}]");

  /**
   * A mod and where it stood.
   *
   * @param line from 1
   * @param text the line itself
   */
  public record Line(int line, OfferedMod mod, String text) {}

  /**
   * A line that was left out.
   *
   * @param line from 1
   * @param reason what is wrong with it, such as “/name is missing”
   */
  public record Mistake(int line, String reason) {}

  private PartLines() {}

  /**
   * Reads a part to its end.
   *
   * @throws IOException when the stream fails; no line after that is told
   */
  public static void read(InputStream part, Consumer<Line> mods, Consumer<Mistake> mistakes)
      throws IOException {
    JsonLines.read(
        part,
        PartLines::mod,
        (number, mod, text) -> mods.accept(new Line(number, mod, text)),
        (number, reason) -> mistakes.accept(new Mistake(number, reason)));
  }

  /** A line that has been read before, and so has no mistake. */
  public static OfferedMod again(String line) {
    List<String> wrong = new ArrayList<>();
    CheckedJson json = CheckedJson.read(line.getBytes(StandardCharsets.UTF_8), wrong);
    OfferedMod mod = wrong.isEmpty() ? mod(json) : null;
    if (!wrong.isEmpty()) throw new IllegalArgumentException("a kept line " + wrong.get(0));
    return mod;
  }

  private static OfferedMod mod(CheckedJson line) {
    return new OfferedMod(
        line.id("mod"),
        line.name("name"),
        line.id("game"),
        line.text("summary"),
        line.texts("tags"),
        line.texts("authors"),
        line.text("page"),
        line.text("requests"),
        line.each("releases", PartLines::release));
  }

  private static Release release(CheckedJson r) {
    return new Release(
        r.version("version"),
        r.day("at"),
        r.oneOf("kind", Kind.class, Kind.MAIN),
        r.shortText("variant"),
        r.text("title"),
        file(r.object("file")),
        r.range("game"),
        r.flag("harmless"),
        r.each("needs", PartLines::need),
        r.each("clashes", c -> new Clash(c.id("mod"), c.range("versions"), c.text("why"))),
        r.each("for", PartLines::need),
        r.oneOf("change", Change.class, Change.UNKNOWN),
        r.text("changes"),
        r.text("withdrawn"));
  }

  private static Need need(CheckedJson n) {
    Optional<String> variant =
        n.has("variant") ? Optional.of(n.shortText("variant")) : Optional.empty();
    return new Need(n.id("mod"), n.range("versions"), variant);
  }

  private static OfferedFile file(CheckedJson f) {
    String name = f.required("name");
    if (NO_FILE_NAME.matcher(name).find() || name.equals(".") || name.equals(".."))
      f.wrong("name", "is no name of a file", "");
    if (name.getBytes(StandardCharsets.UTF_8).length > 240)
      f.wrong("name", "has more than 240 bytes", "");
    return new OfferedFile(name, f.required("href"), f.number("size"), f.sha256("sha256"));
  }
}
