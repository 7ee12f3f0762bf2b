package ironing.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.catalogue.OfferedMod.Change;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.testkit.Schemas;
import ironing.core.version.ModVersion;
import java.io.ByteArrayInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class PartLinesTest {
  private static final String WHOLE =
      """
      {"mod":"fogbound-weather","name":"Fogbound Weather","game":"skerry-line","tags":["weather"],"releases":[{"version":"4.1.0","at":"2026-11-20","kind":"old","variant":"small","file":{"name":"f.zip","href":"files/f.zip","size":48211,"sha256":"%s"},"game":">=1.4 <2","harmless":true,"needs":[{"mod":"rope-locker","versions":">=1.2","variant":""},{"mod":"gulls"}],"clashes":[{"mod":"coal","why":"both"}],"for":[{"mod":"a"}],"change":"fix","changes":"*x*","withdrawn":"no"}]}
      """
          .formatted("a".repeat(64))
          .strip();

  private final List<PartLines.Line> mods = new ArrayList<>();
  private final List<PartLines.Mistake> mistakes = new ArrayList<>();

  @Test
  void a_line_is_read() throws IOException {
    read(WHOLE);
    assertThat(Schemas.errorsInJson("catalogue-line", WHOLE)).isEmpty();
    assertThat(Schemas.errorsInJson("catalogue-line", WHOLE.replace("48211", "-1"))).isNotEmpty();
    assertThat(mistakes).isEmpty();
    Release r = mods.get(0).mod().releases().get(0);
    assertThat(r.version()).isEqualTo(ModVersion.of("4.1"));
    assertThat(r.kind()).isEqualTo(Kind.OLD);
    assertThat(r.change()).isEqualTo(Change.FIX);
    assertThat(r.game().contains(ModVersion.of("1.9"))).isTrue();
    assertThat(r.needs().get(0).variant()).as("the plain one").isEqualTo(Optional.of(""));
    assertThat(r.needs().get(1).variant()).as("any").isEmpty();
    assertThat(r.needs().get(1).versions().toString()).isEqualTo("*");
    assertThat(r.bridges()).hasSize(1);
    assertThat(PartLines.again(mods.get(0).text()).mod()).isEqualTo("fogbound-weather");
  }

  @Test
  void a_line_that_cannot_be_read_is_told_and_the_others_are_used() throws IOException {
    String other = WHOLE.replace("fogbound-weather", "gulls");
    read(
        String.join(
            "\n",
            WHOLE,
            "",
            "no json",
            WHOLE.replace("\"48211\"", "x").replace("48211", "-1"),
            WHOLE.replace("f.zip\",\"href", "../f.zip\",\"href"),
            WHOLE.replace("4.1.0\",\"at\":\"2026-11-20", "4.1.0\",\"at\":\"2026-11-31"),
            WHOLE.replace(">=1.4 <2", ">="),
            WHOLE.replace("\"fogbound-weather\"", "\"Fog\\u0000\""),
            other + "\r",
            "{\"mod\":\"" + "x".repeat(PartLines.LONGEST) + "\"}",
            other.replace("gulls\",\"name", "terns\",\"name")));
    assertThat(mods.stream().map(l -> l.line() + " " + l.mod().mod()))
        .containsExactly("1 fogbound-weather", "9 gulls", "11 terns");
    assertThat(mistakes.stream().map(PartLines.Mistake::line))
        .containsExactly(3, 4, 5, 6, 7, 8, 10);
    assertThat(mistakes.get(1).reason()).contains("/releases/0/file/size is no whole number");
    assertThat(mistakes.get(2).reason()).contains("/releases/0/file/name is no name of a file");
    assertThat(mistakes.get(3).reason()).contains("/releases/0/at is no day");
    assertThat(mistakes.get(4).reason()).contains("/releases/0/game is no range of versions");
    assertThat(mistakes.get(6).reason()).contains("has more than 1 MiB");
  }

  @Test
  void what_is_too_long_to_be_kept_in_an_index_is_a_mistake() throws IOException {
    String longRange = ">=1 || ".repeat(100) + "<2";
    read(
        String.join(
            "\n",
            WHOLE.replace(">=1.4 <2", longRange),
            WHOLE.replace(">=1.2", longRange),
            WHOLE.replace("4.1.0", "1.".repeat(200) + "0"),
            WHOLE.replace("small", "s".repeat(201)),
            WHOLE.replace("\"weather\"", "\"" + "w".repeat(201) + "\""),
            WHOLE.replace("Fogbound Weather", "F".repeat(501))));
    assertThat(mods).isEmpty();
    assertThat(mistakes).hasSize(6).allMatch(m -> m.reason().contains("has more than "));
  }

  @Test
  void where_the_stream_hands_out_few_bytes_at_a_time_nothing_is_another() throws IOException {
    byte[] text =
        (WHOLE + "\n" + WHOLE.replace("fogbound-weather", "ü-no-id") + "\n" + WHOLE)
            .getBytes(StandardCharsets.UTF_8);
    PartLines.read(
        new FilterInputStream(new ByteArrayInputStream(text)) {
          @Override
          public int read(byte[] b, int off, int len) throws IOException {
            return super.read(b, off, Math.min(len, 7));
          }
        },
        mods::add,
        mistakes::add);
    assertThat(mods.stream().map(PartLines.Line::line)).containsExactly(1, 3);
    assertThat(mistakes.stream().map(PartLines.Mistake::line)).containsExactly(2);
  }

  private void read(String text) throws IOException {
    PartLines.read(
        new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)), mods::add, mistakes::add);
  }
}
