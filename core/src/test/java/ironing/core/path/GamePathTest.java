package ironing.core.path;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import java.nio.file.Path;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class GamePathTest {
  @ParameterizedTest
  @ValueSource(strings = {"a", "data/textures/x.png", "a b/c", "ö/字.txt", "...", "a..b", ".hidden"})
  void plain_relative_paths_are_taken(String path) {
    assertThat(GamePath.check(path)).isEqualTo(path);
  }

  @ParameterizedTest
  @CsvSource({
    "'', empty",
    "/etc/passwd, root of the disk",
    "\\windows, root of the disk",
    "C:/x, drive",
    "c:x, drive",
    "a\\b, backslash",
    "a//b, empty step",
    "a/, empty step",
    "../a, leads elsewhere",
    "a/../../b, leads elsewhere",
    "a/./b, leads elsewhere"
  })
  void what_may_lead_elsewhere_is_refused_with_the_reason(String path, String reason) {
    assertThatThrownBy(() -> GamePath.check(path))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining(reason)
        .satisfies(
            e ->
                assertThat(((IroningException) e).problems().get(0).code())
                    .isEqualTo("path-unsafe"));
  }

  @Test
  void control_characters_and_overlong_names_are_refused() {
    assertThat(GamePath.whyUnsafe("a\u0000b")).contains("control character");
    assertThat(GamePath.whyUnsafe("a\nb")).contains("control character");
    assertThat(GamePath.whyUnsafe("x".repeat(256))).contains("255 bytes");
    assertThat(GamePath.whyUnsafe("ö".repeat(128)))
        .as("bytes count, not letters")
        .contains("255 bytes");
    assertThat(GamePath.whyUnsafe("x".repeat(255))).isNull();
    assertThat(GamePath.whyUnsafe(("x".repeat(200) + "/").repeat(5) + "x")).contains("1000 bytes");
    assertThat(GamePath.whyUnsafe("a/".repeat(64) + "a")).contains("folders deep");
  }

  @Property(seed = "8160")
  void no_text_whatever_resolves_outside_its_root(@ForAll String text) {
    Path root = Path.of("/srv/game");
    try {
      assertThat(GamePath.resolve(root, text).startsWith(root)).isTrue();
    } catch (IroningException refused) {
      assertThat(refused.problems()).isNotEmpty();
    }
  }

  @Test
  void a_path_is_taken_apart_and_joined() {
    assertThat(GamePath.name("a/b/c.txt")).isEqualTo("c.txt");
    assertThat(GamePath.folder("a/b/c.txt")).isEqualTo("a/b");
    assertThat(GamePath.folder("c.txt")).isEmpty();
    assertThat(GamePath.join(".", "x")).isEqualTo("x");
    assertThat(GamePath.join("data", "x")).isEqualTo("data/x");
  }
}
