package ironing.core.path;

import static org.assertj.core.api.Assertions.assertThat;

import java.text.Normalizer;
import java.util.Locale;
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
