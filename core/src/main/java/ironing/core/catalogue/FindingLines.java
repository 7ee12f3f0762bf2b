package ironing.core.catalogue;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.catalogue.Finding.Verdict;
import ironing.core.catalogue.Finding.With;
import ironing.core.catalogue.PartLines.Mistake;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * The format {@code ironing/findings@1}: one finding a line, as JSON. A line that cannot be read is
 * told and left out; the others are used.
 */
public final class FindingLines {
  private static final JsonMapper JSON = new JsonMapper();

  private FindingLines() {}

  /**
   * Reads to the end.
   *
   * @throws IOException when the stream fails; no line after that is told
   */
  public static void read(InputStream lines, Consumer<Finding> findings, Consumer<Mistake> mistakes)
      throws IOException {
    JsonLines.read(
        lines,
        FindingLines::finding,
        (number, finding, text) -> findings.accept(finding),
        (number, reason) -> mistakes.accept(new Mistake(number, reason)));
  }

  /** Lines that have been read before, and so have no mistake. */
  public static List<Finding> again(List<String> lines) {
    List<Finding> out = new ArrayList<>();
    for (String line : lines) {
      List<String> wrong = new ArrayList<>();
      CheckedJson json = CheckedJson.read(line.getBytes(StandardCharsets.UTF_8), wrong);
      if (wrong.isEmpty()) out.add(finding(json));
      if (!wrong.isEmpty()) throw new IllegalArgumentException("a kept line " + wrong.get(0));
    }
    return out;
  }

  private static Finding finding(CheckedJson f) {
    if (f.required("verdict").isEmpty()) return null;
    String at = f.day("at");
    if (at.isEmpty()) f.wrong("at", "is missing", "");
    return new Finding(
        f.id("mod"),
        f.range("versions"),
        f.has("game") ? Optional.of(f.range("game")) : Optional.empty(),
        f.each("with", w -> new With(w.id("mod"), w.range("versions"))),
        f.oneOf("verdict", Verdict.class, Verdict.WORKS),
        f.notLonger("says", f.text("says"), 2_000),
        at,
        f.shortText("by"));
  }

  /** A finding as a line, without its end. */
  public static String line(Finding f) {
    ObjectNode out = JSON.createObjectNode();
    out.put("mod", f.mod());
    out.put("versions", f.versions().toString());
    f.game().ifPresent(g -> out.put("game", g.toString()));
    if (!f.with().isEmpty()) {
      ArrayNode with = out.putArray("with");
      for (With w : f.with())
        with.addObject().put("mod", w.mod()).put("versions", w.versions().toString());
    }
    out.put("verdict", word(f.verdict()));
    if (!f.says().isEmpty()) out.put("says", f.says());
    out.put("at", f.at());
    if (!f.by().isEmpty()) out.put("by", f.by());
    try {
      return JSON.writeValueAsString(out);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a tree of texts can be written", e);
    }
  }

  /** A verdict as the format has it. */
  public static String word(Verdict verdict) {
    return verdict.name().toLowerCase(Locale.ROOT).replace('_', '-');
  }
}
