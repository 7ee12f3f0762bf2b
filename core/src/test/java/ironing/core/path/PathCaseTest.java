package ironing.core.path;

import static org.assertj.core.api.Assertions.assertThat;

import com.ibm.icu.lang.UCharacter;
import com.ibm.icu.util.VersionInfo;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Single characters are lines of the Unicode Character Database's CaseFolding.txt, status C and S,
 * from memory.
 */
class PathCaseTest {
  @ParameterizedTest
  @CsvSource({
    "A, a",
    "Ä, ä",
    "Σ, σ",
    "ς, σ",
    "ẞ, ß",
    "\u212A, k",
    "\u01C5, \u01C6",
    "\u1E9B, \u1E61"
  })
  void simple_folding_follows_the_unicode_table(String from, String to) {
    assertThat(PathCase.fold(from)).isEqualTo(to);
  }

  /**
   * Every code point against Perl’s Unicode::UCD, which has the tables of CaseFolding.txt from
   * another hand than ours; those that are newer than its tables fold as they are for it.
   */
  @Test
  void every_code_point_folds_as_perl_has_it() throws Exception {
    String script =
        "use Unicode::UCD 'casefold'; for my $c (0..0x10FFFF) { my $f = casefold($c);"
            + " print \"$c $f->{simple}\\n\" if $f && $f->{simple} ne '' }"
            + " print Unicode::UCD::UnicodeVersion(), \"\\n\"";
    Process perl = new ProcessBuilder("perl", "-e", script).redirectErrorStream(true).start();
    List<String> lines =
        new String(perl.getInputStream().readAllBytes(), StandardCharsets.US_ASCII)
            .lines()
            .toList();
    assertThat(perl.waitFor()).as("%s", lines).isZero();
    VersionInfo known = VersionInfo.getInstance(lines.get(lines.size() - 1));
    Map<Integer, Integer> simple = new HashMap<>();
    for (String line : lines.subList(0, lines.size() - 1)) {
      String[] pair = line.split(" ");
      simple.put(Integer.valueOf(pair[0]), Integer.parseInt(pair[1], 16));
    }
    assertThat(simple).hasSizeGreaterThan(1_400);
    List<String> otherwise = new ArrayList<>();
    for (int c = 0; c <= Character.MAX_CODE_POINT; c++) {
      if (c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE) continue;
      if (UCharacter.getAge(c).compareTo(known) > 0) continue;
      // a character that NFC writes otherwise is folded as it is written then
      String composed = Normalizer.normalize(Character.toString(c), Normalizer.Form.NFC);
      StringBuilder wanted = new StringBuilder();
      composed.codePoints().forEach(p -> wanted.appendCodePoint(simple.getOrDefault(p, p)));
      if (!PathCase.fold(Character.toString(c)).contentEquals(wanted))
        otherwise.add(Integer.toHexString(c));
    }
    // CaseFolding.txt has a simple folding of U+FB05 since Unicode 15.1
    assertThat(otherwise).isSubsetOf("fb05");
  }

  @Test
  void full_and_turkic_foldings_are_not_used() {
    assertThat(PathCase.fold("ß")).as("F maps it to ss").isEqualTo("ß");
    assertThat(PathCase.fold("I")).as("T maps it to a dotless i").isEqualTo("i");
    Locale before = Locale.getDefault();
    try {
      Locale.setDefault(Locale.forLanguageTag("tr"));
      assertThat(PathCase.fold("TITLE.PNG")).isEqualTo("title.png");
    } finally {
      Locale.setDefault(before);
    }
  }

  @Test
  void composed_and_decomposed_spellings_are_one() {
    String decomposed = Normalizer.normalize("Vardøya/Åse.png", Normalizer.Form.NFD);
    assertThat(PathCase.INSENSITIVE.key(decomposed))
        .isEqualTo(PathCase.INSENSITIVE.key("vardøya/åse.png"));
    assertThat(PathCase.SENSITIVE.key("A")).isNotEqualTo(PathCase.SENSITIVE.key("a"));
  }

  @Property(seed = "8160")
  void on_ascii_it_is_what_everybody_expects(@ForAll @CharRange(from = ' ', to = '~') String text) {
    assertThat(PathCase.fold(text)).isEqualTo(text.toLowerCase(Locale.ROOT));
  }
}
