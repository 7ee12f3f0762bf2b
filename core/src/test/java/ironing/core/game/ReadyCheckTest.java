package ironing.core.game;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.game.ReadyCheck.Failed;
import ironing.core.game.ReadyCheck.Lying;
import ironing.core.path.GameRoots;
import ironing.core.testkit.Schemas;
import ironing.core.testkit.TestWorld;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ReadyCheckTest {
  private static final String GAME =
      """
      format: ironing/game@1
      id: plain
      title: Plain files
      mounts:
        - { id: all, at: ., holds: [ "**" ] }
      """;
  private static final String CHECKS =
      """
      ready:
        - { has: "bin/engine", says: "no engine" }
        - { lacks: "old.lib" }
        - { version: ">=1.4 <2" }
        - { plugins: true }
        - { firstRun: "settings/own.ini" }
      """;

  @TempDir Path temp;

  private List<String> failed(Optional<String> version, String... missingPlugins) {
    GameDefinition game = TestWorld.game(GAME + CHECKS);
    Lying lying = new Lying(GameRoots.of(temp), version, List.of(missingPlugins));
    return game.ready().stream()
        .flatMap(c -> c.failed(lying).stream())
        .map(ReadyCheckTest::told)
        .toList();
  }

  private static String told(Failed f) {
    return f.expected() + "; " + f.found();
  }

  @Test
  void what_does_not_hold_says_what_was_expected_and_what_was_found() throws IOException {
    Trees.write(temp.resolve("old.lib"), "x");
    assertThat(failed(Optional.of("1.3"), "Base.plug"))
        .containsExactly(
            "bin/engine is there; it is not",
            "old.lib is not there; it is",
            "the version is >=1.4 <2; it is 1.3",
            "the game’s own plugins are all there; Base.plug is not",
            "settings/own.ini is there, which the game writes when it is started; it is not");
    assertThat(failed(Optional.empty())).contains("the version is >=1.4 <2; it tells none");
  }

  @Test
  void a_game_that_is_as_it_has_to_be_fails_nothing() throws IOException {
    Trees.write(temp.resolve("bin/engine/part"), "a folder counts too");
    Trees.write(temp.resolve("settings/own.ini"), "");
    assertThat(failed(Optional.of("1.9"))).isEmpty();
  }

  @Test
  void a_check_says_one_thing_and_stays_in_the_folder() {
    assertThat(Schemas.errorsInYaml("game", GAME + CHECKS)).isEmpty();
    for (String check :
        List.of(
            "{ }",
            "{ has: a, lacks: b }",
            "{ has: ../a }",
            "{ version: \">\" }",
            "{ has: \"\" }")) {
      String yaml = GAME + "ready: [ " + check + " ]\n";
      assertThat(
              catchThrowableOfType(
                  IroningException.class, () -> GameDefinitionReader.read("game.yaml", yaml)))
          .as(check)
          .isNotNull();
    }
  }
}
