package ironing.core.library;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.library.Reading.Kind;
import ironing.core.path.PathCase;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReadingTest {
  @ParameterizedTest
  @CsvSource({
    "docs/README.md, READ_ME",
    "Read Me First.txt, READ_ME",
    "LICENSE, LICENCE",
    "licence.txt, LICENCE",
    "CHANGELOG.md, CHANGES",
    "notes.txt, TEXT",
    "shots/one.PNG, IMAGE",
    "a.plug, ",
    "Makefile, ",
    "textures/hull.dds, "
  })
  void what_there_is_to_read_goes_by_its_name(String path, Kind kind) {
    assertThat(Reading.kind(path).orElse(null)).isEqualTo(kind);
  }

  @ParameterizedTest
  @CsvSource({
    "UTF-8",
    "UTF-16LE",
    "UTF-16BE",
    "windows-1252",
    "windows-1251",
    "Shift_JIS",
    "GB18030"
  })
  void any_common_encoding_becomes_the_text_that_it_was(String encoding) {
    String text =
        switch (encoding) {
          case "windows-1251" ->
              "Это сборник исправлений для гавани, прочтите его перед установкой. ".repeat(4);
          case "Shift_JIS" -> "これは港の修正をまとめたものです。入れる前に読んでください。".repeat(4);
          case "GB18030" -> "这是港口修正的合集，安装之前请先阅读说明文件。".repeat(4);
          default ->
              "Für die Fähre: größere Lichter, schönere Köge, bitte zuerst lesen. ".repeat(4);
        };
    Reading.Decoded read = Reading.text(text.getBytes(Charset.forName(encoding)));
    assertThat(read.text()).isEqualTo(text);
  }

  @ParameterizedTest
  @CsvSource({"UTF-8", "UTF-16LE", "UTF-16BE", "UTF-32LE"})
  void a_byte_order_mark_decides_and_is_no_part_of_the_text(String encoding) {
    byte[] bytes = "\uFEFFplain".getBytes(Charset.forName(encoding));
    assertThat(Reading.text(bytes)).isEqualTo(new Reading.Decoded("plain", encoding));
    assertThat(Reading.isBinary(bytes)).isFalse();
  }

  @Test
  void bytes_with_zeros_are_no_text() {
    assertThat(Reading.isBinary(new byte[] {1, 2, 0, 4, 5, 6, 7, 8, 9})).isTrue();
    assertThat(Reading.isBinary("plain".getBytes(StandardCharsets.UTF_8))).isFalse();
  }

  @Test
  void two_versions_differ_in_what_is_new_gone_and_different() {
    ContentDifference d =
        ContentDifference.between(
            PathCase.INSENSITIVE,
            Map.of("data/A.png", "1", "data/b.png", "2", "data/gone.txt", "3"),
            Map.of("data/a.png", "1", "data/b.png", "9", "data/new.txt", "3"));
    assertThat(d)
        .isEqualTo(
            new ContentDifference(
                List.of("data/new.txt"), List.of("data/gone.txt"), List.of("data/b.png")));
    assertThat(d.isNone()).isFalse();
  }

  @Property(tries = 500, seed = "8160")
  void every_text_to_read_has_a_name_of_the_expression(
      @ForAll @CharRange(from = ' ', to = '~') @StringLength(max = 12) String before,
      @ForAll("ends") String end) {
    String path = "a.b/" + before + end;
    boolean text = Reading.kind(path).filter(k -> k != Reading.Kind.IMAGE).isPresent();
    boolean found =
        Pattern.compile(Reading.TEXT_NAMES, Pattern.CASE_INSENSITIVE).matcher(path).find();
    if (text) assertThat(found).as(path).isTrue();
  }

  @Provide
  Arbitrary<String> ends() {
    return Arbitraries.of(
        "", ".txt", ".MD", "readme", "/Licence", ".map", ".nfo.png", "CHANGES.rst");
  }
}
