package ironing.standins.game;

import static ironing.standins.game.TestGame.record;
import static org.assertj.core.api.Assertions.assertThat;

import ironing.standins.game.TestGame.Ref;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The generating tool against the game: what it writes, the game must be able to play with. */
class HarbourLightsTest {
  @TempDir Path folder;
  private final ByteArrayOutputStream screen = new ByteArrayOutputStream();

  private int generate() throws IOException {
    return HarbourLights.generate(folder, new PrintStream(screen, true, StandardCharsets.UTF_8));
  }

  private PluginFile written() throws IOException {
    Path file = folder.resolve("data/Harbour Lights.plug");
    return new PluginFile("Harbour Lights.plug", Files.readAllBytes(file));
  }

  @Test
  void a_harbour_without_a_beacon_gets_one_and_one_that_has_it_does_not() throws IOException {
    TestGame game = new TestGame(folder);
    game.plugin(
        "Far.plug",
        List.of("Skerry.plug"),
        Map.of("stage", 5),
        record("harbour", 1, 1, Map.of("name", "Ytre vik", "depth", 3)),
        record("beacon", 1, 2, Map.of("name", "Vik light", "harbour", new Ref(1, 1))));
    game.file("settings/roster.txt", "use Far.plug\n");
    assertThat(generate()).isZero();
    PluginFile p = written();
    assertThat(p.masters).containsExactly("Skerry.plug", "Isles.plug");
    assertThat(p.records).hasSize(1);
    Map<String, Object> light = p.records.get(0).fields();
    assertThat(light.get("name")).isEqualTo("Lyngholm light");
    assertThat(light.get("range")).isEqualTo(7L);
    assertThat(light.get("harbour")).isEqualTo(new PluginFile.Ref("Skerry.plug", 1));
    assertThat(screen.toString(StandardCharsets.UTF_8)).contains("lights for 1 of 2 harbours");
  }

  @Test
  void it_passes_its_own_output_over_and_writes_the_same_again() throws IOException {
    TestGame game = new TestGame(folder);
    assertThat(generate()).isZero();
    byte[] first = written().bytes();
    game.file("settings/roster.txt", "use Harbour Lights.plug\n");
    assertThat(generate()).isZero();
    assertThat(written().bytes()).isEqualTo(first);
    assertThat(SkerryLine.play(folder, new PrintStream(screen, true, StandardCharsets.UTF_8)))
        .isZero();
  }

  @Test
  void a_plugin_that_is_missing_stops_it_and_nothing_is_written() throws IOException {
    new TestGame(folder).file("settings/roster.txt", "use Lost.plug\n");
    assertThat(generate()).isEqualTo(3);
    assertThat(folder.resolve("data/Harbour Lights.plug")).doesNotExist();
    assertThat(screen.toString(StandardCharsets.UTF_8)).contains("Lost.plug");
  }
}
