package ironing.core.combinedfiles;

import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The names that may stand only once in all files of a kind, such as those of routines.
 *
 * <p>Threads: immutable. Cost: one pass of a compiled expression.
 */
public final class OnceNames {
  private final Pattern pattern;

  /**
   * @param pattern whose first group is the name; {@code ^} and {@code $} are those of a line
   */
  public OnceNames(String pattern) {
    this.pattern = Pattern.compile(pattern, Pattern.MULTILINE);
  }

  /** How often each name stands in a text. */
  public Map<String, Integer> in(String text) {
    Map<String, Integer> names = new TreeMap<>();
    Matcher m = pattern.matcher(text);
    while (m.find()) names.merge(m.group(1), 1, Integer::sum);
    return names;
  }
}
