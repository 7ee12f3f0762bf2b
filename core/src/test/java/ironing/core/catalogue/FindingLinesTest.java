package ironing.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.catalogue.Finding.OfSet;
import ironing.core.catalogue.Finding.Verdict;
import ironing.core.testkit.Schemas;
import ironing.core.version.ModVersion;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class FindingLinesTest {
  private static final String WHOLE =
      """
      {"mod":"gulls","versions":"=4.0.1","game":">=1.4","with":[{"mod":"coal-to-kelp","versions":">=2"}],"verdict":"works-with-care","says":"Loud \\u2013 at night.","at":"2026-11-29","by":"Tove"}
      """
          .strip();

  private final List<Finding> findings = new ArrayList<>();
  private final List<PartLines.Mistake> mistakes = new ArrayList<>();

  private void read(byte[] bytes) throws IOException {
    FindingLines.read(new ByteArrayInputStream(bytes), findings::add, mistakes::add);
  }

  private Finding read(String line) throws IOException {
    findings.clear();
    read(line.getBytes(StandardCharsets.UTF_8));
    assertThat(mistakes).isEmpty();
    return findings.get(0);
  }

  @Test
  void a_finding_is_read_and_written_as_it_was() throws IOException {
    assertThat(Schemas.errorsInJson("finding-line", WHOLE)).isEmpty();
    Finding f = read(WHOLE);
    assertThat(f.verdict()).isEqualTo(Verdict.WORKS_WITH_CARE);
    assertThat(f.says()).isEqualTo("Loud – at night.");
    String line = FindingLines.line(f);
    assertThat(Schemas.errorsInJson("finding-line", line)).isEmpty();
    assertThat(FindingLines.line(read(line))).isEqualTo(line);
    assertThat(Schemas.errorsInJson("finding-line", line.replace("works-with", "plays-with")))
        .isNotEmpty();
  }

  @Test
  void what_is_left_out_means_any() throws IOException {
    Finding f = read("{\"mod\":\"gulls\",\"verdict\":\"works\",\"at\":\"2026-11-29\"}");
    assertThat(f.versions()).hasToString("*");
    assertThat(f.game()).isEmpty();
    assertThat(f.with()).isEmpty();
    assertThat(f.by()).isEmpty();
  }

  @Test
  void a_line_that_cannot_be_read_is_told_and_the_others_are_used() throws IOException {
    read(
        String.join(
                "\n",
                WHOLE,
                "nothing",
                WHOLE.replace("works-with-care", "fine"),
                WHOLE.replace("\"verdict\":\"works-with-care\",", ""),
                WHOLE.replace("2026-11-29", "yesterday"),
                WHOLE.replace(",\"at\":\"2026-11-29\"", ""),
                WHOLE.replace("=4.0.1", ">="),
                WHOLE.replace("\"gulls\"", "\"Gulls!\""),
                WHOLE)
            .getBytes(StandardCharsets.UTF_8));
    assertThat(findings).hasSize(2);
    assertThat(mistakes.stream().map(m -> m.line() + " " + m.reason()))
        .containsExactly(
            "2 is no JSON: Unrecognized token 'nothing': was expecting (JSON String, Number,"
                + " Array, Object or token 'null', 'true' or 'false')",
            "3 /verdict is none of works, works-with-care, broken",
            "4 /verdict is missing",
            "5 /at is no day such as 2026-11-20; /at is missing",
            "6 /at is missing",
            "7 /versions is no range of versions",
            "8 /mod is no id: lower-case letters, digits and hyphens, at most 64");
  }

  @Property(tries = 500, seed = "2421")
  void no_bytes_end_the_reading(@ForAll byte[] bytes) throws IOException {
    read(bytes);
    assertThat(findings).isEmpty();
  }

  /** What jq (Debian’s) writes is read, and it reads what is written, of texts of Debian’s own. */
  @Test
  void texts_that_nobody_here_shaped_go_there_and_back() throws Exception {
    List<Path> texts;
    try (Stream<Path> all = Files.list(Path.of("/usr/share/common-licenses"))) {
      texts = all.filter(Files::isRegularFile).sorted().toList();
    }
    assertThat(texts).hasSizeGreaterThan(5);
    Path lines = Files.createTempFile("findings", ".jsonl");
    List<String> command =
        new ArrayList<>(
            List.of(
                "jq",
                "-c",
                "-R",
                "-s",
                "split(\"\\n\") | map(select(length > 0)) | to_entries[] | {mod: \"gulls\", verdict:"
                    + " \"works\", at: \"2026-11-29\", says: .value, by: (.key % 7 | tostring)}"));
    texts.forEach(t -> command.add(t.toString()));
    Process jq = new ProcessBuilder(command).redirectOutput(lines.toFile()).start();
    assertThat(jq.waitFor()).isZero();
    read(Files.readAllBytes(lines));
    assertThat(mistakes).isEmpty();
    assertThat(findings).hasSizeGreaterThan(1_000);
    Path ours = Files.createTempFile("findings", ".jsonl");
    Files.write(ours, findings.stream().map(FindingLines::line).toList());
    Process back = new ProcessBuilder("jq", "-r", ".says", ours.toString()).start();
    String told = new String(back.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(back.waitFor()).isZero();
    assertThat(told.lines().toList()).isEqualTo(findings.stream().map(Finding::says).toList());
    assertThat(Finding.counting(findings)).as("the last of each of seven people").hasSize(7);
    Files.delete(lines);
    Files.delete(ours);
  }

  @Test
  void it_speaks_of_a_set_that_has_all_that_it_names() throws IOException {
    Finding f = read(WHOLE);
    ModVersion right = ModVersion.of("4.0.1"), two = ModVersion.of("2");
    Optional<ModVersion> game = Optional.of(ModVersion.of("1.4"));
    assertThat(f.speaksOf(new OfSet(Map.of("gulls", right, "coal-to-kelp", two), game))).isTrue();
    assertThat(f.speaksOf(new OfSet(Map.of("gulls", two, "coal-to-kelp", two), game))).isFalse();
    assertThat(f.speaksOf(new OfSet(Map.of("gulls", right), game))).isFalse();
    assertThat(f.speaksOf(new OfSet(Map.of("gulls", right, "coal-to-kelp", two), Optional.empty())))
        .as("the game's version is not known")
        .isFalse();
  }

  @Test
  void of_one_person_the_newest_counts_and_unsigned_ones_all_do() throws IOException {
    String plain = "{\"mod\":\"gulls\",\"verdict\":\"%s\",\"at\":\"%s\"%s}";
    List<String> lines =
        List.of(
            plain.formatted("broken", "2026-11-03", ",\"by\":\"Tove\""),
            plain.formatted("works", "2026-11-02", ",\"by\":\"Tove\""),
            plain.formatted("works", "2026-11-03", ",\"by\":\"Tove\""),
            plain.formatted("broken", "2026-11-01", ",\"by\":\"Ask\""),
            plain.formatted("broken", "2026-11-01", ""),
            plain.formatted("broken", "2026-11-01", ""),
            WHOLE);
    for (String l : lines) read(l.getBytes(StandardCharsets.UTF_8));
    assertThat(Finding.counting(findings))
        .extracting(findings::indexOf)
        .as("with other mods on it is another question")
        .containsExactly(2, 3, 4, 5, 6);
  }
}
