package ironing.core.game;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.core.path.PathCase;
import ironing.core.testkit.Refused;
import ironing.core.testkit.TestWorld;
import ironing.core.testkit.Trees;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ManifestTest {
  private static final String SUM = "0123456789abcdef".repeat(4);

  @TempDir Path temp;

  /** Checked against GNU sha256sum, escaped names among them. */
  @Test
  void what_gnu_sha256sum_writes_is_read() throws Exception {
    List<String> names = List.of("plain.txt", "data/with blank.txt", "back\\slash", "line\nend");
    for (String n : names) Trees.write(temp.resolve("game").resolve(n), n + " of the game");
    for (String mode : List.of("--text", "--binary")) {
      Path sums = temp.resolve("sums" + mode);
      List<String> command = new java.util.ArrayList<>(List.of("sha256sum", mode, "--"));
      command.addAll(names);
      Process p =
          new ProcessBuilder(command)
              .directory(temp.resolve("game").toFile())
              .redirectOutput(sums.toFile())
              .redirectError(new File("/dev/null"))
              .start();
      assertThat(p.waitFor()).isZero();
      // a path of the game has neither a backslash nor a line end
      List<String> lines =
          Files.readAllLines(sums).stream().filter(l -> !l.startsWith("\\")).toList();
      assertThat(lines).hasSize(2);
      Manifest read = Manifest.parse("sums", String.join("\n", lines), PathCase.SENSITIVE);
      assertThat(read.size()).isEqualTo(2);
      for (String n : names.subList(0, 2))
        assertThat(read.sha256(n)).hasValue(ContentHash.of(temp.resolve("game").resolve(n)));
    }
  }

  @Test
  void paths_compare_as_the_games_do_and_a_leading_dot_goes() {
    Manifest read =
        Manifest.parse(
            "m", SUM.toUpperCase(Locale.ROOT) + "  ./Data/Stone.png\r\n", PathCase.INSENSITIVE);
    assertThat(read.sha256("data/stone.PNG")).hasValue(SUM);
    assertThat(read.names("data/other")).isFalse();
    assertThat(read.sums()).containsOnlyKeys("Data/Stone.png");
  }

  @Test
  void lines_that_are_none_are_named_with_their_number() {
    String text = SUM + "  good\n\nbad line\n" + SUM + "  ../outside\n";
    IroningException refused =
        catchThrowableOfType(
            IroningException.class, () -> Manifest.parse("game.sha256", text, PathCase.SENSITIVE));
    assertThat(refused.problems())
        .extracting(Problem::code)
        .containsExactly("manifest-wrong", "manifest-wrong");
    assertThat(refused.problems())
        .extracting(Problem::thing)
        .containsExactly("game.sha256, line 3", "game.sha256, line 4");
  }

  @Test
  void a_game_without_one_has_none() throws IOException {
    String yaml =
        "format: ironing/game@1\nid: g\ntitle: G\nmanifest: m.sha256\nmounts: [ { id: all, at: \".\", holds: [ \"**\" ] } ]\n";
    GameDefinition game = GameDefinitionReader.read("game.yaml", yaml).value();
    assertThat(Manifest.of(game, temp::resolve)).isEmpty();
    Files.writeString(temp.resolve("m.sha256"), SUM + "  a\n");
    assertThat(Manifest.of(game, temp::resolve).orElseThrow().names("a")).isTrue();
  }

  @Test
  void what_is_not_as_it_says_is_told_but_for_what_the_game_writes_to() {
    GameDefinition game =
        TestWorld.game(
            """
            format: ironing/game@1
            id: plain
            title: Plain
            pathCase: insensitive
            mounts: [ { id: data, at: data, holds: [ "*" ] } ]
            protect: [ "saves/**" ]
            writable: [ "own.ini" ]
            run: { command: [ "play" ], log: "log.jsonl" }
            """);
    String one = "1".repeat(64), two = "2".repeat(64);
    StringBuilder lines = new StringBuilder();
    for (String f : List.of("A", "data/b", "data/c", "own.ini", "saves/0", "log.jsonl"))
      lines.append(one).append("  ").append(f).append('\n');
    Manifest manifest = Manifest.parse("m", lines.toString(), PathCase.INSENSITIVE);
    Map<String, String> there =
        Map.of("a", one, "DATA/B", two, "own.ini", two, "saves/0", two, "data/more", two);
    assertThat(manifest.unlike(game, there))
        .containsExactly(new Manifest.Unlike("data/b", false), new Manifest.Unlike("data/c", true));
  }

  @Test
  void a_manifest_that_cannot_be_read_is_told() throws IOException {
    GameDefinition game = TestWorld.game(TestWorld.DEFINITION + "manifest: sums.txt\n");
    Files.createDirectories(temp.resolve("sums.txt"));
    assertThat(Refused.code(() -> Manifest.of(game, temp::resolve)))
        .isEqualTo("manifest-unreadable");
    Files.delete(temp.resolve("sums.txt"));
    assertThat(Manifest.of(game, temp::resolve)).isEmpty();
  }
}
