package ironing.core.path;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PathPatternTest {
  @ParameterizedTest
  @CsvSource({
    "*.plug, A.plug, true",
    "*.plug, sub/A.plug, false",
    "textures/, textures/a/b.png, true",
    "textures/, textures, false",
    "textures/, textures2/a.png, false",
    "scripts/**/*.sks, scripts/a.sks, true",
    "scripts/**/*.sks, scripts/lib/deep/a.sks, true",
    "scripts/**/*.sks, other/a.sks, false",
    "**/*.ini, a.ini, true",
    "**/*.ini, x/y/a.ini, true",
    "saves/**, saves/a/b, true",
    "saves/**, saves, false",
    "a?c, abc, true",
    "a?c, a/c, false",
    "a*c, a/c, false",
    "a.c, abc, false"
  })
  void a_pattern_matches_as_the_formats_say(String pattern, String path, boolean matches) {
    assertThat(PathPattern.of(pattern, PathCase.SENSITIVE).matches(path)).isEqualTo(matches);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {"*.plug", "textures/", "saves/**", "scripts/**/*.sks", "**/*.ini", "a?c", "S/*/"})
  void a_pattern_matches_its_example(String pattern) {
    for (PathCase pathCase : PathCase.values()) {
      PathPattern p = PathPattern.of(pattern, pathCase);
      assertThat(p.matches(p.example())).as(p.example()).isTrue();
    }
  }

  @Test
  void case_counts_only_where_the_game_says_so() {
    assertThat(PathPattern.of("UI/*.XML", PathCase.INSENSITIVE).matches("ui/Weather.xml")).isTrue();
    assertThat(PathPattern.of("UI/*.XML", PathCase.SENSITIVE).matches("ui/Weather.xml")).isFalse();
  }

  /** A second, slow reading of the rules: step by step, character by character. */
  private static boolean slow(List<String> pattern, List<String> path) {
    if (pattern.isEmpty()) return path.isEmpty();
    if (pattern.get(0).equals("**")) {
      boolean last = pattern.size() == 1;
      if (last) return !path.isEmpty();
      for (int i = 0; i <= path.size(); i++) {
        if (slow(pattern.subList(1, pattern.size()), path.subList(i, path.size()))) return true;
      }
      return false;
    }
    return !path.isEmpty()
        && slowStep(pattern.get(0), path.get(0))
        && slow(pattern.subList(1, pattern.size()), path.subList(1, path.size()));
  }

  private static boolean slowStep(String pattern, String step) {
    if (pattern.isEmpty()) return step.isEmpty();
    char c = pattern.charAt(0);
    if (c == '*') {
      for (int i = 0; i <= step.length(); i++)
        if (slowStep(pattern.substring(1), step.substring(i))) return true;
      return false;
    }
    if (step.isEmpty()) return false;
    return (c == '?' || c == step.charAt(0)) && slowStep(pattern.substring(1), step.substring(1));
  }

  @Provide
  Arbitrary<String> patterns() {
    Arbitrary<String> step =
        Arbitraries.strings()
            .withChars("ab*?.")
            .ofMinLength(1)
            .ofMaxLength(3)
            .filter(s -> !s.contains("**"));
    Arbitrary<String> any = Arbitraries.oneOf(step, step, Arbitraries.just("**"));
    return any.list().ofMinSize(1).ofMaxSize(4).map(l -> String.join("/", l));
  }

  @Provide
  Arbitrary<String> paths() {
    return Arbitraries.strings()
        .withChars("ab.")
        .ofMinLength(1)
        .ofMaxLength(3)
        .list()
        .ofMinSize(1)
        .ofMaxSize(4)
        .map(l -> String.join("/", l));
  }

  @Property(tries = 2000, seed = "8160")
  void it_agrees_with_a_slow_reading_of_the_rules(
      @ForAll("patterns") String pattern, @ForAll("paths") String path) {
    assertThat(PathPattern.of(pattern, PathCase.SENSITIVE).matches(path))
        .isEqualTo(slow(Arrays.asList(pattern.split("/")), Arrays.asList(path.split("/"))));
  }

  @Test
  void what_a_pattern_can_match_lies_below_its_folder() {
    Map<String, String> below =
        Map.of(
            "settings/*.ini", "settings",
            "settings/", "settings",
            "a/b/**/c.ini", "a/b",
            "*.ini", "",
            "a?/x", "",
            "one.ini", "",
            "a/one.ini", "a");
    below.forEach(
        (text, folder) ->
            assertThat(PathPattern.of(text, PathCase.SENSITIVE).below())
                .as(text)
                .isEqualTo(folder));
  }

  @Test
  void the_end_of_a_pattern_compares_as_the_rest_does() {
    assertThat(PathPattern.of("ui/*.JSON", PathCase.INSENSITIVE).matches("ui/a.json")).isTrue();
    assertThat(PathPattern.of("ui/*.json", PathCase.INSENSITIVE).matches("UI/A.JSON")).isTrue();
    assertThat(PathPattern.of("ui/*.json", PathCase.SENSITIVE).matches("ui/a.JSON")).isFalse();
    assertThat(PathPattern.of("ui/*.json", PathCase.SENSITIVE).matches("json")).isFalse();
    assertThat(PathPattern.of("ui/*.ÄÖ", PathCase.INSENSITIVE).matches("ui/a.äö")).isTrue();
  }
}
