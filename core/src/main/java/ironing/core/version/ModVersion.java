package ironing.core.version;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * A version as its maker wrote it, with one total order over all of them.
 *
 * <p>A leading {@code v} and everything from {@code +} on do not count. Runs between points compare
 * digit runs as numbers, missing runs as 0; letters directly behind a number come after none
 * ({@code 1.19 < 1.19a < 1.20}), whatever their case; what follows a hyphen comes before none and
 * compares by SemVer 2.0.0, section 11, where the case counts. What begins with no number comes
 * before all numbers.
 *
 * <p>Cost: linear in the text. Immutable; equality follows the order, so {@code 3.0} equals {@code
 * 3}.
 */
public final class ModVersion implements Comparable<ModVersion> {
  private final String text;
  private final List<String> runs;
  private final List<String> prerelease;

  private ModVersion(String text, List<String> runs, List<String> prerelease) {
    this.text = text;
    this.runs = runs;
    this.prerelease = prerelease;
  }

  public static ModVersion of(String text) {
    String t = text.trim();
    if (t.length() > 1 && (t.charAt(0) | 0x20) == 'v' && isDigit(t.charAt(1))) t = t.substring(1);
    int plus = t.indexOf('+');
    if (plus >= 0) t = t.substring(0, plus);
    int hyphen = t.indexOf('-');
    List<String> pre = hyphen < 0 ? List.of() : List.of(t.substring(hyphen + 1).split("\\.", -1));
    // letters behind a number are a habit without a standard: 1.19A is 1.19a
    String core = (hyphen < 0 ? t : t.substring(0, hyphen)).toLowerCase(Locale.ROOT);
    List<String> runs = new ArrayList<>(List.of(core.split("\\.", -1)));
    while (runs.size() > 1 && isZero(runs.get(runs.size() - 1))) runs.remove(runs.size() - 1);
    return new ModVersion(text, List.copyOf(runs), pre);
  }

  @Override
  public int compareTo(ModVersion other) {
    boolean mine = startsWithNumber(), theirs = other.startsWithNumber();
    if (mine != theirs) return mine ? 1 : -1;
    for (int i = 0; i < Math.max(runs.size(), other.runs.size()); i++) {
      int c = compareRuns(run(i), other.run(i));
      if (c != 0) return c;
    }
    if (prerelease.isEmpty() || other.prerelease.isEmpty()) {
      return Boolean.compare(prerelease.isEmpty(), other.prerelease.isEmpty());
    }
    return comparePrereleases(prerelease, other.prerelease);
  }

  private boolean startsWithNumber() {
    return !runs.get(0).isEmpty() && isDigit(runs.get(0).charAt(0));
  }

  private String run(int i) {
    return i < runs.size() ? runs.get(i) : "0";
  }

  private static int compareRuns(String a, String b) {
    int da = digits(a), db = digits(b);
    if (da == 0 || db == 0) {
      // a run of letters alone comes before any number, as the whole version does
      if (da != db) return Integer.compare(da, db);
      return a.compareTo(b);
    }
    int c = compareNumbers(a.substring(0, da), b.substring(0, db));
    return c != 0 ? c : compareSuffixes(a.substring(da), b.substring(db));
  }

  private static int compareSuffixes(String a, String b) {
    // none < a < a2 < a10: letters as letters, digits as numbers, step by step
    while (!a.isEmpty() && !b.isEmpty()) {
      int da = digits(a), db = digits(b);
      if (da > 0 && db > 0) {
        int c = compareNumbers(a.substring(0, da), b.substring(0, db));
        if (c != 0) return c;
        a = a.substring(da);
        b = b.substring(db);
      } else {
        int c = Character.compare(a.charAt(0), b.charAt(0));
        if (c != 0) return c;
        a = a.substring(1);
        b = b.substring(1);
      }
    }
    return Boolean.compare(!a.isEmpty(), !b.isEmpty());
  }

  private static int comparePrereleases(List<String> a, List<String> b) {
    for (int i = 0; i < Math.min(a.size(), b.size()); i++) {
      String x = a.get(i), y = b.get(i);
      boolean nx = !x.isEmpty() && digits(x) == x.length();
      boolean ny = !y.isEmpty() && digits(y) == y.length();
      int c;
      if (nx && ny) c = compareNumbers(x, y);
      else if (nx != ny) c = nx ? -1 : 1;
      else c = x.compareTo(y);
      if (c != 0) return c;
    }
    return Integer.compare(a.size(), b.size());
  }

  private static int compareNumbers(String a, String b) {
    String x = a.replaceFirst("^0+", ""), y = b.replaceFirst("^0+", "");
    return x.length() != y.length() ? Integer.compare(x.length(), y.length()) : x.compareTo(y);
  }

  private static int digits(String s) {
    int n = 0;
    while (n < s.length() && isDigit(s.charAt(n))) n++;
    return n;
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  private static boolean isZero(String run) {
    return !run.isEmpty() && run.chars().allMatch(c -> c == '0');
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof ModVersion v && compareTo(v) == 0;
  }

  @Override
  public int hashCode() {
    List<String> canonical = runs.stream().map(r -> r.replaceFirst("^0+(?=\\d)", "")).toList();
    List<String> behind =
        prerelease.stream()
            .map(p -> digits(p) == p.length() ? p.replaceFirst("^0+(?=\\d)", "") : p)
            .toList();
    return 31 * canonical.hashCode() + behind.hashCode();
  }

  /** As it was written. */
  @Override
  public String toString() {
    return text;
  }
}
