package ironing.server.catalogue;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * The words of a text, for what is kept and for what is looked for alike: runs of letters and
 * digits. The database by itself takes “2.0”, “-12” or “harbour.example” for words of their own
 * kinds, whose parts nobody would find.
 */
final class Words {
  private static final Pattern BETWEEN = Pattern.compile("[^\\p{L}\\p{N}\\p{M}]+");

  /** What a database keeps of the words of one mod has a bound. */
  private static final int MOST = 1_000;

  private static final int LONGEST = 100;

  private Words() {}

  /** The first of them; very long ones only by their beginning. */
  static List<String> in(String text) {
    List<String> words = new ArrayList<>();
    for (String w : BETWEEN.split(Normalizer.normalize(text, Normalizer.Form.NFKC)))
      if (!w.isEmpty() && words.size() < MOST)
        words.add(w.substring(0, Math.min(LONGEST, w.length())));
    return words;
  }

  /** All of them, with a blank between two. */
  static String of(String text) {
    return String.join(" ", in(text));
  }
}
