package ironing.core.drift;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.RealDisk;
import ironing.core.drift.Drift.Cause;
import ironing.core.drift.Drift.Own;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.game.GameFolder;
import ironing.core.path.GameRoots;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DriftTest {
  private static final String GAME =
      """
      format: ironing/game@1
      id: fleet
      title: Fleet
      pathCase: sensitive
      mounts:
        - { id: data, at: "data", holds: [ "*" ] }
      writable: [ "settings/*.ini" ]
      protect: [ "saves/**" ]
      run: { command: [ "play" ], log: "logs/run.jsonl" }
      """;

  @TempDir Path temp;
  private Path game;
  private Path library;
  private GameDefinition definition;
  private List<Own> own;
  private Deployer deployer;

  @BeforeEach
  void deployed() throws IOException {
    game = temp.resolve("game");
    library = temp.resolve("library");
    definition = GameDefinitionReader.read("game.yaml", GAME).value();
    Trees.write(game.resolve("data/stone.png"), "the game's stone");
    Trees.write(game.resolve("data/wood.png"), "the game's wood");
    Trees.write(game.resolve("settings/own.ini"), "speed = 1\n");
    own =
        GameFolder.scan(GameRoots.of(game), n -> {}).stream()
            .map(s -> new Own(s.path(), s.sizeBytes(), s.modifiedMillis(), s.sha256()))
            .toList();
    Trees.write(library.resolve("stone"), "stone of a mod");
    Trees.write(library.resolve("lamp"), "lamp of a mod");
    Trees.write(library.resolve("ini"), "speed = 2\n");
    deployer = new Deployer(new RealDisk(), game);
    apply(
        List.of(
            wanted("data/stone.png", "stone", false),
            wanted("data/new/lamp.png", "lamp", false),
            wanted("settings/own.ini", "ini", true)));
  }

  private Wanted wanted(String path, String file, boolean gameWrites) throws IOException {
    Path place = library.resolve(file);
    return new Wanted(
        path,
        ContentHash.of(place),
        Files.size(place),
        1,
        "Mod",
        gameWrites ? Writer.GAME : Writer.NOBODY,
        new Content.File(file));
  }

  private void apply(List<Wanted> wanted) {
    deployer.apply(
        DeployPlan.make(
            wanted, deployer.laidOut(), Optional.empty(), deployer.look(), "2026-01-01T00:00:00Z"),
        (mod, file) -> library.resolve(file),
        n -> {});
  }

  private Map<String, Cause> found(boolean thorough) {
    Map<String, Cause> found = new TreeMap<>();
    Drift.find(definition, GameRoots.of(game), deployer.laidOut(), own, thorough)
        .forEach(d -> found.put(d.path(), d.cause()));
    return found;
  }

  private static void replace(Path file, String text) throws IOException {
    Files.deleteIfExists(file);
    Trees.write(file, text);
  }

  @Test
  void a_folder_as_it_was_deployed_has_none() {
    assertThat(found(false)).isEmpty();
    assertThat(found(true)).isEmpty();
  }

  @Test
  void what_happened_to_a_deployed_file_is_told_as_far_as_it_can_be_seen() throws IOException {
    replace(game.resolve("data/stone.png"), "the game's stone");
    assertThat(found(false)).isEqualTo(Map.of("data/stone.png", Cause.PUT_BACK));
    replace(game.resolve("data/stone.png"), "another stone");
    assertThat(found(false)).isEqualTo(Map.of("data/stone.png", Cause.CHANGED));
    Files.delete(game.resolve("data/stone.png"));
    assertThat(found(false)).isEqualTo(Map.of("data/stone.png", Cause.MISSING));
    Files.createDirectories(game.resolve("data/stone.png"));
    assertThat(found(false)).as("a folder in its place").containsValue(Cause.CHANGED);
  }

  @Test
  void a_tool_that_writes_through_a_link_is_told_from_one_that_writes_anew() throws IOException {
    Files.writeString(game.resolve("data/new/lamp.png"), "written through");
    assertThat(library.resolve("lamp")).as("the mod's file too").hasContent("written through");
    assertThat(found(false)).isEqualTo(Map.of("data/new/lamp.png", Cause.THROUGH_LINK));
  }

  @Test
  void the_games_own_files_and_what_was_kept_of_them_are_looked_at_too() throws IOException {
    replace(game.resolve("data/wood.png"), "newer wood");
    Files.delete(game.resolve(".ironing/kept/data/stone.png"));
    assertThat(found(false))
        .isEqualTo(Map.of("data/wood.png", Cause.GAME_CHANGED, "data/stone.png", Cause.KEPT_LOST));
    Files.delete(game.resolve("data/wood.png"));
    assertThat(found(false)).containsEntry("data/wood.png", Cause.GAME_MISSING);
  }

  @Test
  void only_a_thorough_look_finds_what_keeps_size_and_time() throws IOException {
    for (String path : List.of("data/wood.png", ".ironing/kept/data/stone.png")) {
      Path file = game.resolve(path);
      FileTime time = Files.getLastModifiedTime(file);
      Files.writeString(file, Files.readString(file).replace("game", "GAME"));
      Files.setLastModifiedTime(file, time);
    }
    assertThat(found(false)).isEmpty();
    assertThat(found(true))
        .isEqualTo(Map.of("data/wood.png", Cause.GAME_CHANGED, "data/stone.png", Cause.KEPT_LOST));
  }

  @Test
  void what_the_game_writes_and_what_is_protected_is_none_and_the_rest_is_new() throws IOException {
    replace(game.resolve("settings/own.ini"), "speed = 3\n");
    Trees.write(game.resolve("saves/1.sav"), "save");
    Trees.write(game.resolve("data/hand.png"), "installed by hand");
    Trees.write(game.resolve("logs/run.jsonl"), "{}\n");
    assertThat(found(false)).isEqualTo(Map.of("data/hand.png", Cause.NEW));
  }

  @Test
  void new_files_are_set_aside_and_ours_never() throws IOException {
    Trees.write(game.resolve("data/hand.png"), "one");
    Set<String> both = Set.of("data/hand.png", "data/stone.png", "data/nothing.png");
    assertThat(deployer.setAside(both, "2026-01-01T00:00:00Z")).isOne();
    Trees.write(game.resolve("data/hand.png"), "two");
    assertThat(deployer.setAside(both, "2026-01-01T00:00:00Z")).isOne();
    assertThat(game.resolve("data/stone.png")).hasContent("stone of a mod");
    assertThat(found(false))
        .isEqualTo(
            Map.of(
                ".ironing/changed/2026-01-01T00-00-00Z/data/hand.png",
                Cause.SET_ASIDE,
                ".ironing/changed/2026-01-01T00-00-00Z-2/data/hand.png",
                Cause.SET_ASIDE));
  }
}
