package ironing.core.game;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.GameDefinition.Place;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PlaceSearchTest {
  private static final Place PLACE =
      new Place("user", List.of("{config}/bells", "{data}/bells", "{home}", "/opt/bells"), "");
  @TempDir Path home;

  /** As the XDG Base Directory Specification 0.8 has it, under “Environment variables”. */
  @Test
  void bases_are_those_of_the_environment_and_else_below_the_home() {
    assertThat(PlaceSearch.of(home, Map.of()).of(PLACE))
        .containsExactly(
            home.resolve(".config/bells"),
            home.resolve(".local/share/bells"),
            home,
            Path.of("/opt/bells"));
    Map<String, String> set = Map.of("XDG_CONFIG_HOME", "/c", "XDG_DATA_HOME", "/d");
    assertThat(PlaceSearch.of(home, set).of(PLACE))
        .startsWith(Path.of("/c/bells"), Path.of("/d/bells"));
    Map<String, String> odd = Map.of("XDG_CONFIG_HOME", "relative", "XDG_DATA_HOME", "");
    assertThat(PlaceSearch.of(home, odd).of(PLACE))
        .as("paths that are not absolute are to be ignored")
        .startsWith(home.resolve(".config/bells"), home.resolve(".local/share/bells"));
  }

  @Test
  void the_first_that_is_there_is_found() throws IOException {
    PlaceSearch search = PlaceSearch.of(home, Map.of());
    assertThat(search.found(PLACE)).contains(home);
    Files.createDirectories(home.resolve(".local/share/bells"));
    assertThat(search.found(PLACE)).contains(home.resolve(".local/share/bells"));
    assertThat(search.found(new Place("x", List.of("{home}/nowhere"), ""))).isEmpty();
  }
}
