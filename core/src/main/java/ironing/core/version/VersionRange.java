package ironing.core.version;

import ironing.core.IroningException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A wish about versions: comparisons joined by blanks (and) or {@code ||} (or); {@code *} is any.
 */
public final class VersionRange {
  private static final Pattern COMPARISON = Pattern.compile("(<=|>=|<|>|=)?\\s*([^\\s<>=|]+)\\s*");
  private final String text;
  private final List<List<Comparison>> anyOf;

  private record Comparison(IntPredicate holds, ModVersion version) {}

  private VersionRange(String text, List<List<Comparison>> anyOf) {
    this.text = text;
    this.anyOf = anyOf;
  }

  /**
   * @throws IroningException with code {@code range-invalid} when the text is none
   */
  public static VersionRange of(String text) {
    List<List<Comparison>> anyOf = new ArrayList<>();
    for (String part : text.split("\\|\\|", -1)) anyOf.add(allOf(text, part.trim()));
    return new VersionRange(text, anyOf);
  }

  public boolean contains(ModVersion v) {
    return anyOf.stream()
        .anyMatch(all -> all.stream().allMatch(c -> c.holds.test(v.compareTo(c.version))));
  }

  private static List<Comparison> allOf(String whole, String part) {
    List<Comparison> all = new ArrayList<>();
    if (part.equals("*")) return all;
    Matcher m = COMPARISON.matcher(part);
    int end = 0;
    while (end < part.length() && m.find(end) && m.start() == end) {
      end = m.end();
      all.add(new Comparison(test(m.group(1)), ModVersion.of(m.group(2))));
    }
    if (end < part.length() || all.isEmpty()) {
      throw IroningException.of(
          "range-invalid",
          "“" + whole + "”",
          "This is no range of versions.",
          "Write it like “>=1.4 <2”.");
    }
    return all;
  }

  private static IntPredicate test(String operator) {
    if (operator == null) return c -> c == 0;
    return switch (operator) {
      case "<" -> c -> c < 0;
      case "<=" -> c -> c <= 0;
      case ">" -> c -> c > 0;
      case ">=" -> c -> c >= 0;
      default -> c -> c == 0;
    };
  }

  @Override
  public String toString() {
    return text;
  }
}
