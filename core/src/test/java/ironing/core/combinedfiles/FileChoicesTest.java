package ironing.core.combinedfiles;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class FileChoicesTest {
  @Test
  void a_choice_comes_and_goes_and_the_base_with_it_not() {
    FileChoices base = FileChoices.NONE.withBase(Optional.of(""));
    FileChoices one = base.with("line 2", Optional.of(Choice.of("a")));
    assertThat(one.places()).isEqualTo(Map.of("line 2", Choice.of("a")));
    assertThat(one.base()).as("the game’s").contains("");
    assertThat(one.with("line 2", Optional.empty())).isEqualTo(base);
    assertThat(base.isEmpty()).isFalse();
    assertThat(base.withBase(Optional.empty()).isEmpty()).isTrue();
  }
}
