package ironing.core.text;

import static java.nio.charset.StandardCharsets.UTF_16BE;
import static java.nio.charset.StandardCharsets.UTF_16LE;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.AlphaChars;
import net.jqwik.api.constraints.Chars;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;

class DecodedTextTest {
  @Property(tries = 300, seed = "8160")
  void text_comes_back_from_utf_8_and_from_utf_16_with_a_mark(
      @ForAll @AlphaChars @Chars({'ß', 'Ж', '猫', ' ', '\n'}) String text) {
    assertThat(DecodedText.of(text.getBytes(UTF_8))).isEqualTo(plain(text, false));
    assertThat(DecodedText.of(("\uFEFF" + text).getBytes(UTF_8))).isEqualTo(plain(text, true));
    for (Charset c : List.of(UTF_16LE, UTF_16BE)) {
      DecodedText d = DecodedText.of(("\uFEFF" + text).getBytes(c));
      assertThat(d.text()).isEqualTo(text);
      assertThat(d.remark()).contains("It is written in UTF-16.");
    }
  }

  private static DecodedText plain(String text, boolean mark) {
    return new DecodedText(text, new TextForm(UTF_8, mark), Optional.empty());
  }

  @Property(tries = 300, seed = "8160")
  void what_was_decoded_is_written_back_byte_for_byte(
      @ForAll @AlphaChars @Chars({'é', 'Ö', '\n'}) String text) {
    for (String form : List.of("UTF-8", "windows-1252", "UTF-16LE", "UTF-16BE")) {
      String marked = form.startsWith("UTF-16") ? "\uFEFF" + text : text;
      byte[] bytes = marked.getBytes(Charset.forName(form));
      DecodedText d = DecodedText.of(bytes);
      assertThat(d.form().encode(d.text())).contains(bytes);
    }
  }

  @Test
  void a_character_that_the_set_lacks_is_not_written_as_another() {
    TextForm windows = DecodedText.of("é".getBytes(Charset.forName("windows-1252"))).form();
    assertThat(windows.encode("猫")).isEmpty();
  }

  @Property(tries = 300, seed = "8160")
  void any_bytes_are_some_text(@ForAll byte[] bytes) {
    assertThat(DecodedText.of(bytes).text()).isNotNull();
  }

  @Property(tries = 200, seed = "8160")
  void what_is_not_utf_8_is_read_as_windows_1252(
      @ForAll @AlphaChars @Chars({'é', 'Ö', 'ñ'}) @StringLength(min = 1, max = 20) String text) {
    byte[] bytes = (text + "é.").getBytes(Charset.forName("windows-1252"));
    assertThat(DecodedText.of(bytes).text()).isEqualTo(text + "é.");
    assertThat(DecodedText.of(bytes).remark()).isPresent();
  }

  @Test
  void nothing_is_nothing() {
    assertThat(DecodedText.of(new byte[0])).isEqualTo(plain("", false));
  }
}
