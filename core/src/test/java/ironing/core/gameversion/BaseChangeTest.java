package ironing.core.gameversion;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.RealDisk;
import ironing.core.drift.Drift.Own;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.game.GameFolder;
import ironing.core.game.Manifest;
import ironing.core.gameversion.BaseChange.Changed;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BaseChangeTest {
  private static final String GAME =
      """
      format: ironing/game@1
      id: fleet
      title: Fleet
      manifest: "fleet.sha256"
      mounts:
        - { id: data, at: "data", holds: [ "*" ] }
      writable: [ "settings/*.ini" ]
      protect: [ "saves/**" ]
      run: { command: [ "play" ], log: "logs/run.jsonl" }
      """;
  private static final Predicate<String> NOBODY = path -> false;

  @TempDir Path temp;
  private Path game;
  private Path library;
  private GameDefinition definition;
  private List<Own> before;
  private Deployer deployer;

  @BeforeEach
  void deployed() throws IOException {
    game = temp.resolve("game");
    library = temp.resolve("library");
    definition = GameDefinitionReader.read("game.yaml", GAME).value();
    for (String f : List.of("stone", "wood", "rope", "sail", "flag"))
      Trees.write(game.resolve("data/" + f), "the game's " + f);
    Trees.write(game.resolve("settings/own.ini"), "speed = 1\n");
    Trees.write(game.resolve("saves/day"), "1\n");
    before =
        GameFolder.scan(GameRoots.of(game), n -> {}).stream()
            .map(s -> new Own(s.path(), s.sizeBytes(), s.modifiedMillis(), s.sha256()))
            .toList();
    for (String f : List.of("stone", "rope", "lamp"))
      Trees.write(library.resolve(f), "a mod's " + f);
    deployer = new Deployer(new RealDisk(), game);
    deployer.apply(
        DeployPlan.make(
            List.of(
                wanted("data/stone", "stone"),
                wanted("data/rope", "rope"),
                wanted("data/lamp", "lamp")),
            deployer.laidOut(),
            Optional.empty(),
            deployer.look(),
            "2026-01-01T00:00:00Z"),
        (mod, file) -> library.resolve(file),
        n -> {});
  }

  private Wanted wanted(String path, String file) throws IOException {
    Path place = library.resolve(file);
    return new Wanted(
        path,
        ContentHash.of(place),
        Files.size(place),
        1,
        "Mod",
        Writer.NOBODY,
        new Content.File(file));
  }

  private BaseChange find(Optional<Manifest> manifest, Predicate<String> foreign) {
    return BaseChange.find(
        definition, GameRoots.of(game), deployer.laidOut(), before, manifest, foreign);
  }

  private static Map<String, String> told(BaseChange change) {
    Map<String, String> told = new TreeMap<>();
    for (Changed c : change.files())
      told.put(c.path(), c.kind() + (c.overDeployed() ? " over a mod" : ""));
    return told;
  }

  /** As an update does it: another file in the place of the one that was there. */
  private void update(String path, String text) throws IOException {
    Files.deleteIfExists(game.resolve(path));
    Trees.write(game.resolve(path), text);
  }

  private void updateAll() throws IOException {
    update("data/wood", "the game's newer wood");
    update("data/stone", "the game's newer stone");
    update("data/mast", "the game's mast");
    update("settings/own.ini", "speed = 5\n");
    update("saves/day", "2\n");
    update("saves/day-2", "2\n");
    update("logs/run.jsonl", "{}\n");
    Files.delete(game.resolve("data/flag"));
  }

  private Manifest manifest(Map<String, String> files) throws IOException {
    StringBuilder lines = new StringBuilder();
    files.forEach(
        (path, text) ->
            lines
                .append(ContentHash.of(text.getBytes(StandardCharsets.UTF_8)))
                .append("  ")
                .append(path)
                .append('\n'));
    Path folder = Files.createDirectories(temp.resolve("manifest"));
    Files.writeString(folder.resolve("fleet.sha256"), lines);
    return Manifest.of(definition, path -> GamePath.resolve(folder, path)).orElseThrow();
  }

  @Test
  void a_game_that_nobody_updated_has_not_changed() {
    BaseChange none = find(Optional.empty(), NOBODY);
    assertThat(none.isEmpty()).isTrue();
    assertThat(none.behind()).isEmpty();
  }

  @Test
  void an_update_is_told_by_what_it_did_beside_and_over_what_is_deployed() throws IOException {
    updateAll();
    BaseChange found = find(Optional.empty(), NOBODY);
    assertThat(told(found))
        .isEqualTo(
            Map.of(
                "data/wood", "CHANGED",
                "data/stone", "CHANGED over a mod",
                "data/mast", "ADDED",
                "data/flag", "GONE"));
    assertThat(found.overDeployed()).containsExactly("data/stone");
    Map<String, String> sums = new TreeMap<>();
    for (Changed c : found.files()) c.now().ifPresent(o -> sums.put(o.path(), o.sha256()));
    for (String path : List.of("data/wood", "data/stone", "data/mast"))
      assertThat(sums.get(path)).isEqualTo(ContentHash.of(game.resolve(path)));
    assertThat(sums).hasSize(3);
  }

  @Test
  void what_is_known_to_be_somebody_elses_is_none_of_the_games() throws IOException {
    updateAll();
    assertThat(told(find(Optional.empty(), "data/mast"::equals))).doesNotContainKey("data/mast");
  }

  @Test
  void without_a_manifest_a_changed_file_that_only_a_mod_had_stays_the_users() throws IOException {
    update("data/lamp", "somebody's lamp");
    Files.delete(game.resolve("data/rope"));
    assertThat(find(Optional.empty(), NOBODY).isEmpty()).isTrue();
  }

  @Test
  void without_a_manifest_only_the_user_can_say_who_took_a_file_with_the_mods_over_it()
      throws IOException {
    Files.delete(game.resolve("data/stone"));
    BaseChange found = find(Optional.empty(), NOBODY);
    assertThat(found.files()).isEmpty();
    assertThat(found.unsure()).containsExactly("data/stone");
    BaseChange said = found.withRemoved(Set.of("data/stone", "data/other"));
    assertThat(said.unsure()).isEmpty();
    assertThat(said.overDeployed()).containsExactly("data/stone");
    assertThat(said.files().get(0).kind()).isEqualTo(BaseChange.Kind.GONE);
  }

  @Test
  void an_original_that_came_back_is_no_change_of_the_game() throws IOException {
    update("data/stone", "the game's stone");
    assertThat(find(Optional.empty(), NOBODY).isEmpty()).isTrue();
  }

  @Test
  void the_manifest_tells_the_games_files_from_all_others() throws IOException {
    updateAll();
    update("data/lamp", "the game's lamp");
    update("data/tool", "what a tool wrote");
    Files.delete(game.resolve("data/rope"));
    Map<String, String> files = new TreeMap<>();
    files.put("data/stone", "the game's stone of yet another version");
    files.put("data/wood", "the game's newer wood");
    files.put("data/sail", "the game's sail");
    files.put("data/lamp", "the game's lamp");
    files.put("data/mast", "the game's mast");
    BaseChange found = find(Optional.of(manifest(files)), NOBODY);
    assertThat(told(found))
        .isEqualTo(
            Map.of(
                "data/wood", "CHANGED",
                "data/mast", "ADDED",
                "data/flag", "GONE",
                "data/lamp", "ADDED over a mod",
                // the game has none there any more
                "data/rope", "GONE over a mod"));
  }

  @Test
  void a_file_that_the_game_has_another_of_now_and_that_a_mod_stands_over_is_behind()
      throws IOException {
    BaseChange found =
        find(Optional.of(manifest(Map.of("data/rope", "the game's newer rope"))), NOBODY);
    assertThat(found.isEmpty()).isTrue();
    assertThat(found.behind()).containsExactly("data/rope");
  }

  @Test
  void an_update_that_brings_the_very_file_that_a_mod_had_there_is_told() throws IOException {
    Manifest wants = manifest(Map.of("data/rope", "a mod's rope"));
    // still our own link into the library
    assertThat(find(Optional.of(wants), NOBODY).behind()).containsExactly("data/rope");
    update("data/rope", "a mod's rope");
    BaseChange found = find(Optional.of(wants), NOBODY);
    assertThat(told(found)).isEqualTo(Map.of("data/rope", "CHANGED over a mod"));
    assertThat(found.behind()).isEmpty();
    assertThat(found.overDeployed()).isEqualTo(Set.of("data/rope"));
  }
}
