package ironing.core.catalogue;

import ironing.core.IroningException;
import ironing.core.Problem;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What {@code catalogue.json} says: a state of a catalogue, and in which parts its mods lie.
 *
 * @param games the ids of the games that it is for
 * @param sequence grows from state to state
 * @param expires after this it may be out of date; empty where it does not say
 * @param hosts origins besides the catalogue's own at which files may lie
 * @param defaultVariant by mod, the variant that is meant where nobody says one
 * @param key the Ed25519 public key of its maker, 32 bytes in base64; empty where it is not signed
 * @param nextKey the key that takes its place; empty where none does
 */
public record Catalogue(
    String id,
    String title,
    List<String> games,
    long sequence,
    Optional<Instant> at,
    Optional<Instant> expires,
    List<Part> parts,
    Optional<Part> findings,
    List<String> hosts,
    Map<String, String> defaultVariant,
    String key,
    String nextKey) {
  public static final String FORMAT = "ironing/catalogue@1";

  /** The most bytes that catalogue.json may have. */
  public static final int LARGEST = 16 << 20;

  /**
   * A file of lines that the catalogue is made of.
   *
   * @param size in bytes
   */
  public record Part(String href, String sha256, long size) {}

  /**
   * @throws IroningException with code {@code catalogue-invalid} for every mistake
   */
  public static Catalogue read(byte[] bytes) {
    List<String> mistakes = new ArrayList<>();
    if (bytes.length > LARGEST) {
      mistakes.add("has more than 16 MiB");
      throw refused(mistakes);
    }
    CheckedJson top = CheckedJson.read(bytes, mistakes);
    if (!mistakes.isEmpty()) throw refused(mistakes);
    String format = top.required("format");
    if (!format.isEmpty() && !format.equals(FORMAT)) top.wrong("format", "is not " + FORMAT, "");
    Map<String, String> variants = new TreeMap<>();
    if (top.has("defaultVariant")) {
      CheckedJson said = top.object("defaultVariant");
      for (String mod : said.keys()) variants.put(mod, said.text(mod));
    }
    Catalogue read =
        new Catalogue(
            top.id("id"),
            top.name("title"),
            top.texts("games"),
            top.number("sequence"),
            instant(top, "at"),
            instant(top, "expires"),
            top.each("parts", Catalogue::part),
            top.has("findings") ? Optional.of(part(top.object("findings"))) : Optional.empty(),
            top.texts("hosts"),
            Map.copyOf(variants),
            key(top, "key"),
            key(top, "nextKey"));
    if (!read.nextKey.isEmpty() && read.key.isEmpty())
      top.wrong("nextKey", "is there, but no key that would sign it", "");
    if (read.parts.stream().map(Part::sha256).distinct().count() < read.parts.size())
      top.wrong("parts", "names a part twice", "");
    if (!mistakes.isEmpty()) throw refused(mistakes);
    return read;
  }

  private static Part part(CheckedJson p) {
    return new Part(p.required("href"), p.sha256("sha256"), p.number("size"));
  }

  private static Optional<Instant> instant(CheckedJson top, String key) {
    String text = top.text(key);
    if (text.isEmpty()) return Optional.empty();
    try {
      return Optional.of(Instant.parse(text));
    } catch (DateTimeException e) {
      return top.wrong(key, "is no time such as 2026-11-29T10:00:00Z", Optional.empty());
    }
  }

  private static String key(CheckedJson top, String key) {
    String text = top.text(key);
    if (text.isEmpty()) return "";
    try {
      if (Base64.getDecoder().decode(text).length == Signature.KEY_BYTES) return text;
    } catch (IllegalArgumentException e) {
      // told below
    }
    return top.wrong(key, "is not the base64 of 32 bytes", "");
  }

  private static IroningException refused(List<String> mistakes) {
    return new IroningException(
        mistakes.stream()
            .map(
                m ->
                    new Problem(
                        "catalogue-invalid",
                        "catalogue.json",
                        "It " + (m.startsWith("/") ? "has a mistake: " : "") + m + ".",
                        "Tell whoever keeps the catalogue."))
            .toList());
  }
}
