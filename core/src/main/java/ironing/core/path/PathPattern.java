package ironing.core.path;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * A pattern over game paths, as in docs/formats: {@code *} and {@code ?} do not cross a slash, a
 * whole step {@code **} is any number of folders, a trailing slash means all below, and a pattern
 * with no slash matches in the top folder only. Immutable.
 *
 * <p>Cost: one pass of a compiled expression; prefixes ({@code textures/}) do not touch it.
 */
public final class PathPattern {
  private final String text;
  private final PathCase pathCase;
  private final String prefix;
  private final Pattern regex;
  private final String tail;
  private final boolean forAnything;

  private PathPattern(String text, PathCase pathCase, String prefix, Pattern regex) {
    this.text = text;
    this.pathCase = pathCase;
    this.prefix = prefix;
    this.regex = regex;
    this.tail = tail(text);
    this.forAnything = text.matches("(\\*\\*/)*\\*\\*?");
  }

  public static PathPattern of(String text, PathCase pathCase) {
    String key = pathCase.key(text);
    boolean plainFolder = key.endsWith("/") && key.indexOf('*') < 0 && key.indexOf('?') < 0;
    if (plainFolder) return new PathPattern(text, pathCase, key, null);
    String whole = key.endsWith("/") ? key + "**" : key;
    StringBuilder regex = new StringBuilder();
    String[] steps = whole.split("/", -1);
    for (int i = 0; i < steps.length; i++) {
      boolean last = i == steps.length - 1;
      if (steps[i].equals("**")) {
        regex.append(last ? ".+" : "(?:[^/]+/)*");
      } else {
        appendStep(regex, steps[i]);
        if (!last) regex.append('/');
      }
    }
    return new PathPattern(text, pathCase, null, Pattern.compile(regex.toString(), Pattern.DOTALL));
  }

  public static List<PathPattern> all(List<String> texts, PathCase pathCase) {
    List<PathPattern> patterns = new ArrayList<>();
    for (String t : texts) patterns.add(of(t, pathCase));
    return List.copyOf(patterns);
  }

  public static boolean anyMatches(List<PathPattern> patterns, String path) {
    for (PathPattern p : patterns) if (p.matches(path)) return true;
    return false;
  }

  public boolean matches(String path) {
    // most paths end otherwise, and that is seen at no cost
    if (!path.regionMatches(true, path.length() - tail.length(), tail, 0, tail.length())) {
      return false;
    }
    String key = pathCase.key(path);
    if (prefix != null) return key.length() > prefix.length() && key.startsWith(prefix);
    return regex.matcher(key).matches();
  }

  /**
   * What every path ends in that it matches, in ASCII of whatever case; may be empty. A letter of
   * it may be another one in the path that folds to it.
   */
  public String tail() {
    return tail;
  }

  // folding leaves nothing but ASCII as long as it was
  private static String tail(String text) {
    int from = text.length();
    while (from > 0 && isPlain(text.charAt(from - 1))) from--;
    return text.endsWith("/") ? "" : text.substring(from);
  }

  private static boolean isPlain(char c) {
    return c != '*' && c != '?' && c != '/' && c < 128;
  }

  /** Whether it says nothing of what it matches: {@code **}, {@code *} and the like. */
  public boolean isForAnything() {
    return forAnything;
  }

  /** The folder below which everything lies that it can match; empty for the top. */
  public String below() {
    int wild = 0;
    while (wild < text.length() && text.charAt(wild) != '*' && text.charAt(wild) != '?') wild++;
    int slash = text.substring(0, wild).lastIndexOf('/');
    return slash < 0 ? "" : text.substring(0, slash);
  }

  /** A path that it matches. */
  public String example() {
    String path = text.replace('*', 'x').replace('?', 'x');
    return path.endsWith("/") ? path + "x" : path;
  }

  private static void appendStep(StringBuilder regex, String step) {
    StringBuilder literal = new StringBuilder();
    for (int i = 0; i < step.length(); i++) {
      char c = step.charAt(i);
      if (c != '*' && c != '?') {
        literal.append(c);
        continue;
      }
      if (literal.length() > 0) regex.append(Pattern.quote(literal.toString()));
      literal.setLength(0);
      regex.append(c == '*' ? "[^/]*" : "[^/]");
    }
    if (literal.length() > 0) regex.append(Pattern.quote(literal.toString()));
  }

  @Override
  public String toString() {
    return text;
  }
}
