package ironing.core.combinedfiles;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;

class OnceNamesTest {
  @Test
  void the_first_group_is_the_name_and_the_pattern_is_about_lines() {
    OnceNames names = new OnceNames("^routine\\s+(\\S+)");
    assertThat(names.in("routine day\n  ring\nend\nroutine night\nend\n"))
        .isEqualTo(Map.of("day", 1, "night", 1));
    assertThat(names.in("routine day\nend\nroutine day\nend\n")).isEqualTo(Map.of("day", 2));
    assertThat(names.in("  routine day\n# routine night\n")).isEmpty();
    assertThat(names.in("")).isEmpty();
  }
}
