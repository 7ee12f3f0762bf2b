package ironing.core.plugin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.util.Arrays;
import java.util.HexFormat;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * The examples of RFC 8949, appendix A, transcribed from memory into {@code
 * rfc8949-appendix-a.csv}: every value that a plugin may hold is decoded; those in preferred,
 * definite form are written back byte for byte; values outside the format are refused.
 */
class CborTest {
  private static final HexFormat HEX = HexFormat.of();

  private static Object decode(String hex) {
    CborReader in = new CborReader("x.plug", HEX.parseHex(hex));
    Object item = in.next();
    assertThat(in.atEnd()).isTrue();
    return item;
  }

  @ParameterizedTest(name = "{1} is {0}")
  @CsvFileSource(
      resources = "/rfc8949-appendix-a.csv",
      delimiter = ';',
      quoteCharacter = '`',
      numLinesToSkip = 1)
  void examples_decode_and_preferred_ones_come_back(String hex, String json, boolean preferred)
      throws IOException {
    Object item = decode(hex);
    assertThat(shown(item)).isEqualTo(new ObjectMapper().readTree(json));
    CborReader in = new CborReader("x.plug", HEX.parseHex(hex));
    in.next();
    assertThat(in.deterministic()).isEqualTo(preferred);
    CborWriter out = new CborWriter();
    out.item(item);
    if (preferred) assertThat(HEX.formatHex(out.bytes())).isEqualTo(hex);
    else
      assertThat(shown(decode(HEX.formatHex(out.bytes()))))
          .as("the same value in the preferred form")
          .isEqualTo(shown(item));
  }

  private static JsonNode shown(Object item) throws IOException {
    ObjectMapper json = new ObjectMapper();
    Object plain =
        item instanceof byte[] b
            ? "h'" + HEX.formatHex(b) + "'"
            : item instanceof CborReader.Tagged t
                ? t.tag() + "(" + shown(t.item()).asText() + ")"
                : item;
    return json.readTree(json.writeValueAsString(plain));
  }

  @ParameterizedTest(name = "{0}: {1}")
  @CsvSource({
    "1bffffffffffffffff, beyond 64 bits",
    "3bffffffffffffffff, beyond 64 bits",
    "f97c00, not finite",
    "f97e00, not finite",
    "faff800000, not finite",
    "fb7ff8000000000000, not finite",
    "f7, simple value 23",
    "f0, simple value 16",
    "f8ff, simple value 24",
    "a201020304, key of a map is no text",
    "a2616101616102, stands twice"
  })
  void values_that_no_plugin_may_hold_are_refused(String hex, String why) {
    assertThatThrownBy(() -> decode(hex))
        .isInstanceOf(PluginException.class)
        .hasMessageContaining(why)
        .hasMessageContaining("at byte");
  }

  @ParameterizedTest(name = "{0}: {1}")
  @CsvSource({
    "5f, ends in the middle",
    "1c, not well-formed",
    "ff, break stands",
    "9bffffffffffffffff, middle of a list",
    "bb7fffffffffffffff, middle of a map",
    "7affffffff, middle of a string",
    "62c328, not UTF-8",
    "7f61c361a8ff, not UTF-8",
    "5f6161ff, another kind",
    "1f, indefinite length",
    "1901, middle of a value"
  })
  void what_is_not_well_formed_is_refused_with_its_offset(String hex, String why) {
    assertThatThrownBy(() -> decode(hex))
        .isInstanceOf(PluginException.class)
        .hasMessageContaining(why);
  }

  @ParameterizedTest
  @CsvSource({"257, true", "255, false"})
  void depth_is_bounded(int arrays, boolean refused) {
    byte[] nested = new byte[arrays + 1];
    Arrays.fill(nested, (byte) 0x81);
    nested[arrays] = 0;
    if (refused)
      assertThatThrownBy(() -> new CborReader("x", nested).next())
          .hasMessageContaining("deeper than 256");
    else assertThat(new CborReader("x", nested).next()).isNotNull();
  }
}
