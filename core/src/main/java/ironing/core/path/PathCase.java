package ironing.core.path;

import com.ibm.icu.lang.UCharacter;
import com.ibm.icu.text.Normalizer2;
import java.util.Locale;

/**
 * How a game compares paths.
 *
 * <p>Source: Unicode Standard, section 3.13 (simple case folding, the C and S lines of
 * CaseFolding.txt) over NFC; ICU4J carries the tables.
 */
public enum PathCase {
  /** By bytes: two spellings are two files. */
  SENSITIVE {
    @Override
    public String key(String path) {
      return path;
    }
  },
  /** By simple case folding of the NFC form, whatever the locale. */
  INSENSITIVE {
    @Override
    public String key(String path) {
      return fold(path);
    }
  };

  /** The text by which two paths are equal or not. Cost: linear in the path's length. */
  public abstract String key(String path);

  /** The folded form by which plugin names always compare, whatever the game does with paths. */
  public static String fold(String name) {
    if (isPlainLower(name)) return name;
    // what folding does to ASCII, without the tables
    if (isAscii(name)) return name.toLowerCase(Locale.ROOT);
    String nfc = Normalizer2.getNFCInstance().normalize(name);
    StringBuilder folded = new StringBuilder(nfc.length());
    nfc.codePoints().forEach(c -> folded.appendCodePoint(UCharacter.foldCase(c, true)));
    return folded.toString();
  }

  private static boolean isAscii(String s) {
    for (int i = 0; i < s.length(); i++) if (s.charAt(i) >= 0x80) return false;
    return true;
  }

  // Most paths of most games are lower-case ASCII already: nothing to fold, nothing to allocate.
  private static boolean isPlainLower(String s) {
    for (int i = 0; i < s.length(); i++) {
      char c = s.charAt(i);
      if (c >= 0x80 || (c >= 'A' && c <= 'Z')) return false;
    }
    return true;
  }
}
