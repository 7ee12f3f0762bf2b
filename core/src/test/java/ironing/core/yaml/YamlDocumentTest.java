package ironing.core.yaml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.Problem;
import java.util.List;
import org.junit.jupiter.api.Test;

class YamlDocumentTest {
  private static List<Problem> problemsOf(String text, YamlDocument.Reading<Object> reading) {
    IroningException e =
        catchThrowableOfType(
            IroningException.class, () -> YamlDocument.read("x.yaml", text, reading));
    assertThat(e).isNotNull();
    return e.problems();
  }

  @Test
  void words_and_versions_stay_as_written() {
    String text =
        YamlDocument.read(
                "x.yaml",
                "a: on\nb: 1.10\nc: no\n",
                top -> top.text("a").get() + top.text("b").get() + top.text("c").get())
            .value();
    assertThat(text).isEqualTo("on1.10no");
  }

  @Test
  void every_mistake_is_told_at_once_with_its_place() {
    List<Problem> problems =
        problemsOf(
            "a: [1]\nb:\n  c: x\nn: many\n",
            top -> List.of(top.text("a"), top.texts("b"), top.number("n", 0), top.required("z")));
    assertThat(problems)
        .extracting(Problem::thing)
        .containsExactly(
            "x.yaml, line 1, column 4",
            "x.yaml, line 3, column 3",
            "x.yaml, line 4, column 4",
            "x.yaml, line 1, column 1");
    assertThat(problems).allSatisfy(p -> assertThat(p.remedy()).isNotBlank());
  }

  @Test
  void broken_yaml_names_line_and_column() {
    assertThat(problemsOf("a: [1, 2\nb: 3\n", top -> "").get(0))
        .satisfies(
            p -> {
              assertThat(p.thing()).startsWith("x.yaml, line 2");
              assertThat(p.reason()).startsWith("This is not YAML");
            });
  }

  @Test
  void unknown_keys_are_a_warning_only() {
    var read =
        YamlDocument.read(
            "x.yaml",
            "known: 1\nunheard-of: 2\n",
            top -> {
              String v = top.required("known");
              top.warnOfUnknownKeys();
              return v;
            });
    assertThat(read.value()).isEqualTo("1");
    assertThat(read.warnings())
        .singleElement()
        .satisfies(w -> assertThat(w.sentence()).contains("unheard-of").contains("line 2"));
  }

  @Test
  void aliases_doubled_keys_and_empty_files_are_refused() {
    assertThat(problemsOf("a: &x [1]\nb: *x\n", top -> "")).hasSize(1);
    assertThat(problemsOf("a: 1\na: 2\n", top -> top.text("a")).get(0).reason())
        .contains("twice")
        .contains("a");
    assertThat(problemsOf("", top -> "").get(0).reason()).contains("no keys");
    assertThat(problemsOf("- a\n- b\n", top -> "").get(0).reason()).contains("no keys");
  }

  @Test
  void a_byte_order_mark_is_passed_over() {
    assertThat(YamlDocument.read("x.yaml", "\uFEFFa: 1\n", top -> top.required("a")).value())
        .isEqualTo("1");
  }

  @Test
  void what_is_nested_too_deep_is_refused_with_its_place() {
    List<String> deep =
        List.of(
            "a: " + "[".repeat(200_000),
            "a: " + "{b: ".repeat(50_000) + "x" + "}".repeat(50_000),
            "- ".repeat(30_000) + "x");
    for (String text : deep)
      assertThat(problemsOf(text, top -> "").get(0))
          .satisfies(
              p -> {
                assertThat(p.thing()).startsWith("x.yaml, line 1, column ");
                assertThat(p.reason()).contains("nested more than 100 deep");
              });
    // brackets in a text, and a long list, are not deep
    String flat = "a: \"" + "[".repeat(5_000) + "\"\nb:\n" + "  - x\n".repeat(5_000);
    assertThat(
            YamlDocument.read("x.yaml", flat, top -> top.texts("b").size() + top.text("a").get())
                .value())
        .startsWith("5000[");
  }

  @Test
  void aliases_are_refused_where_they_stand_before_they_are_followed() {
    StringBuilder bomb = new StringBuilder("a: &a [x, x, x]\n");
    for (char c = 'b'; c <= 'z'; c++)
      bomb.append(c)
          .append(": &")
          .append(c)
          .append(" [")
          .append(("*" + (char) (c - 1) + ", ").repeat(9))
          .append("x]\n");
    assertThat(problemsOf(bomb.toString(), top -> "").get(0).thing())
        .isEqualTo("x.yaml, line 2, column 8");
  }
}
