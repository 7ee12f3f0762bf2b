package ironing.core;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testkit.Schemas;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The files of the sample world, which are read elsewhere, are also as docs/formats says. */
class SampleWorldSchemasTest {
  private static final Path WORLD = Path.of("../demo/world");

  private static List<Path> files(String ending) throws IOException {
    try (Stream<Path> all = Files.walk(WORLD)) {
      return all.filter(f -> f.getFileName().toString().endsWith(ending)).sorted().toList();
    }
  }

  private static String text(Path file) {
    try {
      return Files.readString(file);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Test
  void game_definition() throws IOException {
    assertThat(files("game.yaml"))
        .isNotEmpty()
        .allSatisfy(f -> assertThat(Schemas.errorsInYaml("game", text(f))).isEmpty());
  }

  @Test
  void mod_cards() throws IOException {
    assertThat(files("mod-card.yaml"))
        .hasSizeGreaterThan(10)
        .allSatisfy(f -> assertThat(Schemas.errorsInYaml("mod-card", text(f))).isEmpty());
    String card = text(files("mod-card.yaml").get(0));
    assertThat(Schemas.errorsInYaml("mod-card", card.replaceFirst("(?m)^id:.*$", "id: Not An Id!")))
        .isNotEmpty();
  }

  @Test
  void plugins_in_their_text_form() throws IOException {
    assertThat(files(".plug.jsonl"))
        .hasSizeGreaterThan(10)
        .allSatisfy(
            f ->
                assertThat(text(f).lines())
                    .allSatisfy(
                        l -> assertThat(Schemas.errorsInJson("plugin-text-line", l)).isEmpty()));
    assertThat(
            Schemas.errorsInJson("plugin-text-line", "{\"type\":\"vessel\",\"id\":\"A.plug/7\"}"))
        .as("a record line without fields")
        .isNotEmpty();
    assertThat(
            Schemas.errorsInJson(
                "plugin-text-line", "{\"type\":\"vessel\",\"id\":\"A.plug/07\",\"fields\":null}"))
        .as("an id with a zero before it")
        .isNotEmpty();
  }
}
