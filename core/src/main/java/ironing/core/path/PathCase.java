package ironing.core.path;

import com.ibm.icu.lang.UCharacter;
import com.ibm.icu.text.Normalizer2;

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
    if (isAscii(name)) return asciiLower(name);
    String nfc = Normalizer2.getNFCInstance().normalize(name);
    StringBuilder folded = new StringBuilder(nfc.length());
    nfc.codePoints().forEach(c -> folded.appendCodePoint(UCharacter.foldCase(c, true)));
    return folded.toString();
  }

  private static boolean isAscii(String s) {
    for (int i = 0; i < s.length(); i++) if (s.charAt(i) >= 0x80) return false;
    return true;
  }

  // what folding does to ASCII, without the tables and whatever the locale
  private static String asciiLower(String s) {
    char[] lower = s.toCharArray();
    for (int i = 0; i < lower.length; i++)
      if (lower[i] >= 'A' && lower[i] <= 'Z') lower[i] += 'a' - 'A';
    return new String(lower);
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
