package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.deploy.Deployer.Recovered;
import ironing.core.drift.Drift;
import ironing.core.game.DefinitionPreview;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.game.GameFolder;
import ironing.core.game.Manifest;
import ironing.core.gameversion.BaseChange;
import ironing.core.path.GameRoots;
import ironing.core.testkit.FaultyDisk;
import ironing.core.testkit.PowerCutDisk;
import ironing.core.testkit.Trees;
import ironing.core.testkit.Tries;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A game that keeps things in two places beside its folder, one of them on another drive. */
class PlacesTest {
  @TempDir Path temp;
  private Path elsewhere;
  private Path library;
  private GameRoots roots;
  private Map<String, String> unmodded;

  @BeforeEach
  void games() throws IOException {
    elsewhere = Files.createTempDirectory(otherDrive(), "places-");
    library = temp.resolve("library");
    roots =
        GameRoots.of(
            temp.resolve("game"),
            Map.of("user", elsewhere.resolve("user"), "saves", temp.resolve("saves")));
    for (String f : List.of("one", "two", "three"))
      Trees.write(library.resolve(f), f + " of a mod");
    makeGame();
  }

  @AfterEach
  void tidy() {
    Trees.remove(elsewhere);
  }

  private Path otherDrive() throws IOException {
    for (Path p : List.of(Path.of("target").toAbsolutePath(), Path.of("/dev/shm")))
      if (Files.isWritable(p) && !Files.getFileStore(p).equals(Files.getFileStore(temp))) return p;
    return temp;
  }

  private void makeGame() {
    for (String top : roots.tops()) Trees.remove(roots.at(top));
    Trees.write(roots.at("data/stone.png"), "the game's stone");
    Trees.write(roots.at("@@odd/x.txt"), "in a folder called @odd");
    Trees.write(roots.at("@user/mods/base/a.json"), "{}");
    Trees.write(roots.at("@user/enabled.json"), "[]");
    Trees.write(roots.at("@saves/one.sav"), "a save");
    unmodded = trees();
  }

  /** All files of the game, by their game paths. */
  private Map<String, String> trees() {
    return trees(roots);
  }

  private static Map<String, String> trees(GameRoots of) {
    Map<String, String> all = new TreeMap<>();
    for (String top : of.tops())
      Trees.of(of.at(top)).forEach((path, text) -> all.put(of.path(top, path), text));
    return all;
  }

  private Wanted file(String path, String file, Writer writer) {
    try {
      Path place = library.resolve(file);
      return new Wanted(
          path, ContentHash.of(place), Files.size(place), 1, "Mod", writer, new Content.File(file));
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  private static Wanted text(String path, String text) {
    return WantedFiles.made(path, text.getBytes(StandardCharsets.UTF_8));
  }

  private List<Wanted> first() {
    return List.of(
        file("data/stone.png", "one", Writer.NOBODY),
        file("data/new/a.png", "two", Writer.NOBODY),
        file("@user/mods/base/a.json", "one", Writer.NOBODY),
        file("@user/mods/more/deep/b.json", "two", Writer.NOBODY),
        file("@user/settings.ini", "three", Writer.GAME),
        file("@@odd/x.txt", "three", Writer.NOBODY),
        text("top.txt", "one"),
        text("@user/enabled.json", "[\"more\"]"));
  }

  private List<Wanted> second() {
    return List.of(
        file("data/new/a.png", "three", Writer.NOBODY),
        file("@user/mods/other/c.json", "two", Writer.NOBODY),
        file("@saves/extra.sav", "one", Writer.NOBODY),
        text("top.txt", "other"),
        text("@user/enabled.json", "[\"other\"]"));
  }

  private LaidOut deploy(Disk disk, List<Wanted> wanted) {
    return deploy(disk, roots, wanted);
  }

  private LaidOut deploy(Disk disk, GameRoots to, List<Wanted> wanted) {
    Deployer d = new Deployer(disk, to, Optional.empty());
    return d.apply(
        DeployPlan.make(wanted, d.laidOut(), Optional.empty(), d.look(), "2026-01-01T00:00:00Z"),
        (mod, file) -> library.resolve(file),
        n -> {});
  }

  private Deployer sound() {
    return new Deployer(FaultyDisk.sound(), roots, Optional.empty());
  }

  @Test
  void what_is_deployed_into_places_comes_out_again_and_leaves_nothing() {
    LaidOut out = deploy(new RealDisk(), first());
    assertThat(out.files()).hasSize(8);
    assertThat(roots.at("@user/mods/more/deep/b.json")).hasContent("two of a mod");
    assertThat(elsewhere.resolve("user/enabled.json")).hasContent("[\"more\"]");
    assertThat(roots.folder().resolve("@odd/x.txt")).hasContent("three of a mod");
    assertThat(Markers.places(roots.folder())).isEqualTo(roots.places());
    deploy(new RealDisk(), second());
    assertThat(roots.at("@user/mods/base/a.json")).hasContent("{}");
    deploy(new RealDisk(), List.of());
    assertThat(trees()).isEqualTo(unmodded);
  }

  /** GNU sha256sum, run in the game folder, proves what is deployed in all places. */
  @Test
  void sha256sum_checks_what_lies_in_places_too() throws Exception {
    List<Wanted> many = new ArrayList<>(first());
    for (int i = 0; i < 40; i++)
      many.add(file("@user/mods/many/" + i + ".json", "two", Writer.NOBODY));
    deploy(new RealDisk(), many);
    assertThat(checked()).hasSize(48).allMatch(line -> line.endsWith(": OK"));
    many.remove(many.size() - 1);
    many.set(0, file("@@odd/y.txt", "one", Writer.NOBODY));
    many.set(many.size() - 1, file("@user/mods/many/38.json", "three", Writer.NOBODY));
    deploy(new RealDisk(), many);
    assertThat(checked()).hasSize(47).allMatch(line -> line.endsWith(": OK"));
    Trees.write(roots.at("@user/mods/many/7.json"), "somebody's");
    assertThat(checked()).anyMatch(line -> line.endsWith("many/7.json: FAILED"));
  }

  private List<String> checked() throws Exception {
    Process p =
        new ProcessBuilder("sha256sum", "-c", ".ironing/SHA256SUMS")
            .directory(roots.folder().toFile())
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    p.waitFor();
    return said.lines().toList();
  }

  @Test
  void after_a_crash_at_any_step_all_places_are_as_before_or_all_as_after() {
    deploy(FaultyDisk.sound(), first());
    Map<String, String> before = trees();
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, second());
    Map<String, String> after = trees();
    int finished = 0;
    for (int step = 1; step <= counting.changes(); step++) {
      makeGame();
      deploy(FaultyDisk.sound(), first());
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, second())).isInstanceOf(FaultyDisk.Died.class);
      Recovered did = sound().recover();
      Map<String, String> now = trees();
      assertThat(now).as("died before change " + step + ", then " + did).isIn(before, after);
      if (now.equals(after)) finished++;
      else assertThat(finished).as("once decided, never back").isZero();
      deploy(FaultyDisk.sound(), List.of());
      assertThat(trees()).as("the game can be had back, step " + step).isEqualTo(unmodded);
    }
    assertThat(finished).isPositive();
  }

  @Test
  void a_crash_while_the_first_or_the_last_files_go_in_or_out_leaves_nothing_behind() {
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, first());
    Map<String, String> after = trees();
    for (int step = 1; step <= counting.changes(); step++) {
      makeGame();
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, first())).isInstanceOf(FaultyDisk.Died.class);
      sound().recover();
      assertThat(trees()).as("died before change " + step).isIn(unmodded, after);
    }
    makeGame();
    deploy(FaultyDisk.sound(), first());
    FaultyDisk out = FaultyDisk.sound();
    deploy(out, List.of());
    for (int step = 1; step <= out.changes(); step++) {
      makeGame();
      deploy(FaultyDisk.sound(), first());
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, List.of())).isInstanceOf(FaultyDisk.Died.class);
      sound().recover();
      Map<String, String> now = trees();
      if (now.equals(after)) deploy(FaultyDisk.sound(), List.of());
      assertThat(trees()).as("died before change " + step).isEqualTo(unmodded);
    }
  }

  @Test
  void after_the_power_went_at_any_step_all_places_are_as_before_or_all_as_after()
      throws IOException {
    // lost and found on one drive: what the test keeps for it is renamed
    roots =
        GameRoots.of(
            temp.resolve("game"),
            Map.of("user", temp.resolve("user"), "saves", temp.resolve("saves")));
    makeGame();
    Path backups = Files.createDirectories(temp.resolve("backups"));
    deploy(FaultyDisk.sound(), first());
    Map<String, String> before = trees();
    PowerCutDisk counting = new PowerCutDisk(backups, 0);
    deploy(counting, second());
    Map<String, String> after = trees();
    Random random = new Random(26);
    for (int step = 1; step <= counting.changes(); step++) {
      for (int round = 0; round < 1 + Tries.ways(2); round++) {
        makeGame();
        deploy(FaultyDisk.sound(), first());
        PowerCutDisk disk = new PowerCutDisk(backups, step);
        assertThatThrownBy(() -> deploy(disk, second())).isInstanceOf(FaultyDisk.Died.class);
        disk.losePower(round == 0 ? null : random);
        for (String top : roots.tops()) disk.loseContents(roots.at(top));
        String when = "power gone before change " + step + ", round " + round;
        sound().recover();
        assertThat(trees()).as(when).isIn(before, after);
        deploy(FaultyDisk.sound(), List.of());
        assertThat(trees()).as("the game can be had back, " + when).isEqualTo(unmodded);
      }
    }
  }

  @Test
  void where_the_disk_refuses_at_any_step_all_is_as_before_or_gets_finished() {
    deploy(FaultyDisk.sound(), first());
    Map<String, String> before = trees();
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, second());
    Map<String, String> after = trees();
    int refused = 0;
    for (int step = 1; step <= counting.changes(); step++) {
      makeGame();
      deploy(FaultyDisk.sound(), first());
      FaultyDisk refusing = FaultyDisk.refusingAt(step, "Read-only file system");
      try {
        deploy(refusing, second());
      } catch (IroningException told) {
        refused++;
        assertThat(told.problems().get(0).code()).isEqualTo("game-folder-refused");
      }
      sound().recover();
      assertThat(trees()).as("refused change " + step).isIn(before, after);
      deploy(FaultyDisk.sound(), List.of());
      assertThat(trees()).as("the game can be had back, step " + step).isEqualTo(unmodded);
    }
    assertThat(refused).isGreaterThan(10);
  }

  @Test
  void while_a_place_is_gone_nothing_is_changed_and_what_was_begun_goes_on_when_it_is_back()
      throws IOException {
    deploy(FaultyDisk.sound(), first());
    Map<String, String> before = trees();
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, second());
    Map<String, String> after = trees();
    int waited = 0;
    for (int step = 1; step <= counting.changes(); step++) {
      makeGame();
      deploy(FaultyDisk.sound(), first());
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, second())).isInstanceOf(FaultyDisk.Died.class);
      Path away = elsewhere.resolve("away");
      Files.move(roots.at("@user"), away);
      Map<String, String> left = Trees.of(roots.folder());
      try {
        sound().recover();
      } catch (IroningException gone) {
        assertThat(gone.problems().get(0).code()).isEqualTo("place-gone");
        assertThat(Trees.of(roots.folder())).isEqualTo(left);
        waited++;
      }
      assertThat(roots.at("@user")).as("nothing is made where it was").doesNotExist();
      Files.move(away, roots.at("@user"));
      sound().recover();
      assertThat(trees()).as("died before change " + step).isIn(before, after);
      deploy(FaultyDisk.sound(), List.of());
      assertThat(trees()).as("the game can be had back, step " + step).isEqualTo(unmodded);
    }
    assertThat(waited).isGreaterThan(5);
    Files.move(roots.at("@user"), elsewhere.resolve("away"));
    assertThatThrownBy(() -> deploy(FaultyDisk.sound(), first()))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining(roots.places().get("user").toString());
    assertThat(Trees.of(roots.folder())).isEqualTo(gameOf(unmodded));
  }

  private static Map<String, String> gameOf(Map<String, String> all) {
    Map<String, String> game = new TreeMap<>();
    all.forEach(
        (path, text) -> {
          if (path.startsWith("@@")) game.put(path.substring(1), text);
          else if (!path.startsWith("@")) game.put(path, text);
        });
    return game;
  }

  /** Another game that keeps its mods in the same folder, and calls it otherwise. */
  private GameRoots neighbour() {
    GameRoots other =
        GameRoots.of(temp.resolve("other"), Map.of("shared", roots.places().get("user")));
    Trees.write(other.at("data/x.txt"), "another game");
    return other;
  }

  @Test
  void two_games_share_a_place_and_neither_touches_what_is_the_others() {
    GameRoots other = neighbour();
    Map<String, String> otherUnmodded = Trees.of(other.folder());
    List<Wanted> others =
        List.of(
            file("@shared/mods/second/z.json", "one", Writer.NOBODY),
            file("data/x.txt", "two", Writer.NOBODY));
    deploy(FaultyDisk.sound(), first());
    deploy(FaultyDisk.sound(), other, others);
    assertThat(Neighbours.files(other))
        .containsExactlyInAnyOrder("@shared/mods/more/deep/b.json", "@shared/settings.ini");
    assertThat(Neighbours.files(roots)).containsExactly("@user/mods/second/z.json");
    assertThatThrownBy(
            () ->
                deploy(
                    FaultyDisk.sound(),
                    other,
                    List.of(file("@shared/mods/more/deep/b.json", "one", Writer.NOBODY))))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining(roots.folder().toString());
    assertThat(other.at("@shared/mods/more/deep/b.json")).hasContent("two of a mod");
    deploy(FaultyDisk.sound(), List.of());
    assertThat(other.at("@shared/mods/second/z.json")).hasContent("one of a mod");
    deploy(FaultyDisk.sound(), other, List.of());
    assertThat(trees()).isEqualTo(unmodded);
    assertThat(Trees.of(other.folder())).isEqualTo(otherUnmodded);
  }

  @Test
  void a_change_of_one_game_that_was_cut_short_is_not_touched_by_the_other() {
    GameRoots other = neighbour();
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, first());
    Map<String, String> after = trees();
    for (int step = 1; step <= counting.changes(); step++) {
      makeGame();
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, first())).isInstanceOf(FaultyDisk.Died.class);
      Deployer theirs = new Deployer(FaultyDisk.sound(), other, Optional.empty());
      theirs.recover();
      List<Wanted> wanted = List.of(file("@shared/mods/second/z.json", "one", Writer.NOBODY));
      deploy(FaultyDisk.sound(), other, wanted);
      deploy(FaultyDisk.sound(), other, List.of());
      sound().recover();
      assertThat(trees()).as("died before change " + step).isIn(unmodded, after);
    }
  }

  @Test
  void where_a_neighbour_is_away_nothing_of_unknown_hands_is_replaced() throws IOException {
    GameRoots other = neighbour();
    List<Wanted> theirs = List.of(file("@shared/mods/second/z.json", "one", Writer.NOBODY));
    deploy(FaultyDisk.sound(), other, theirs);
    Files.move(other.folder(), temp.resolve("away"));
    List<Wanted> ours = List.of(file("@user/mods/second/z.json", "two", Writer.NOBODY));
    assertThatThrownBy(() -> deploy(FaultyDisk.sound(), ours))
        .isInstanceOf(IroningException.class)
        .extracting(e -> ((IroningException) e).problems().get(0).code())
        .isEqualTo("place-shared");
    deploy(FaultyDisk.sound(), List.of(file("@user/mods/third/y.json", "two", Writer.NOBODY)));
    assertThat(roots.at("@user/mods/third/y.json")).hasContent("two of a mod");
  }

  /** What lies in the home of a place may be anybody's. */
  @Test
  void marks_that_nobody_of_us_has_written_mean_nothing() throws IOException {
    String[] odd = {
      "no JSON",
      "[]",
      "{\"format\":\"ironing/place-of@1\"}",
      "{\"format\":\"ironing/place-of@1\",\"game\":\"\\u0000\",\"place\":\"user\"}",
      "{\"format\":\"ironing/place-of@1\",\"game\":\"not/from/the/root\",\"place\":7}"
    };
    for (int i = 0; i < odd.length; i++) {
      Trees.write(roots.at("@user/.ironing/odd-" + i + "/game.json"), odd[i]);
      Trees.write(roots.folder().resolve(".ironing/places.json"), odd[i]);
      assertThat(Markers.places(roots.folder())).isEmpty();
    }
    Trees.write(
        roots.folder().resolve(".ironing/places.json"),
        "{\"format\":\"ironing/places@1\",\"places\":{\"user\":\"\\u0000\",\"saves\":3}}");
    assertThat(Markers.places(roots.folder())).isEmpty();
    assertThat(Neighbours.files(roots)).isEmpty();
    deploy(FaultyDisk.sound(), first());
    deploy(FaultyDisk.sound(), List.of());
    assertThat(roots.at("@user/mods/base/a.json")).hasContent("{}");
  }

  @Test
  void drift_in_places_is_found_and_what_a_neighbour_has_there_is_none() throws IOException {
    GameDefinition game =
        GameDefinitionReader.read(
                "game.yaml",
                """
                format: ironing/game@1
                id: bells
                title: Bells
                places:
                  user: { at: [ "{home}/x" ] }
                  saves: { at: [ "{home}/y" ] }
                protect: [ "@saves/**", "nothing/**" ]
                writable: [ "@user/settings.ini" ]
                mounts:
                  - { id: mods, in: user, at: mods, holds: [ "**" ] }
                """)
            .value();
    List<Drift.Own> own = new ArrayList<>();
    for (GameFolder.Seen s : GameFolder.scan(roots, n -> {}))
      own.add(new Drift.Own(s.path(), s.sizeBytes(), s.modifiedMillis(), s.sha256()));
    deploy(FaultyDisk.sound(), first());
    deploy(
        FaultyDisk.sound(),
        neighbour(),
        List.of(file("@shared/mods/second/z.json", "one", Writer.NOBODY)));
    LaidOut note = sound().laidOut();
    assertThat(Drift.find(game, roots, note, own, true)).isEmpty();
    Trees.write(roots.at("@user/settings.ini"), "the game has written");
    Trees.write(roots.at("@saves/two.sav"), "a save more");
    Files.delete(roots.at("@user/mods/base/a.json"));
    Trees.write(roots.at("@user/stranger.txt"), "?");
    assertThat(
            Drift.find(game, roots, note, own, true).stream().map(d -> d.cause() + " " + d.path()))
        .containsExactly("MISSING @user/mods/base/a.json", "NEW @user/stranger.txt");
  }

  private static final String WITH_SAVES =
      """
      format: ironing/game@1
      id: bells
      title: Bells
      places:
        user: { at: [ "{home}/x" ] }
        saves: { at: [ "{home}/y" ] }
      protect: [ "@saves/**", "own/**" ]
      perProfile: [ "@saves/**", "own/**" ]
      writable: [ "@user/settings.ini" ]
      mounts:
        - { id: mods, in: user, at: mods, holds: [ "**" ] }
      """;

  private static Map<String, String> withoutMark(Map<String, String> tree) {
    Map<String, String> saves = new TreeMap<>(tree);
    saves.keySet().removeIf(p -> p.startsWith(".ironing"));
    return saves;
  }

  @Test
  void the_saves_of_each_profile_go_out_of_and_into_all_places_together() {
    GameDefinition game = GameDefinitionReader.read("game.yaml", WITH_SAVES).value();
    Trees.write(roots.at("own/two.sav"), "a second save");
    ProfileSaves saves = new ProfileSaves(FaultyDisk.sound(), roots, game);
    Map<String, String> mine = withoutMark(trees());
    saves.bring("other", "mine", "now");
    assertThat(roots.at("@saves/one.sav")).doesNotExist();
    assertThat(roots.at("own/two.sav")).doesNotExist();
    Trees.write(roots.at("@saves/one.sav"), "a save of the other");
    assertThat(saves.of("mine", "mine"))
        .extracting(ProfileSaves.Save::path)
        .containsExactly("own/two.sav", "@saves/one.sav");
    assertThat(saves.copy("mine", "other", "mine")).isEqualTo(1);
    assertThat(roots.at("own/two.sav")).hasContent("a second save");
    assertThat(roots.at("@saves/one.sav")).hasContent("a save of the other");
    Map<String, String> others = withoutMark(trees());
    FaultyDisk counting = FaultyDisk.sound();
    new ProfileSaves(counting, roots, game).bring("mine", "mine", "now");
    assertThat(withoutPlaceHomes(trees())).isEqualTo(withoutPlaceHomes(mine));
    for (int step = 1; step <= counting.changes(); step++) {
      new ProfileSaves(FaultyDisk.sound(), roots, game).bring("other", "mine", "now");
      assertThat(withoutPlaceHomes(trees())).isEqualTo(withoutPlaceHomes(others));
      ProfileSaves dying = new ProfileSaves(FaultyDisk.dyingAt(step), roots, game);
      assertThatThrownBy(() -> dying.bring("mine", "mine", "now"))
          .isInstanceOf(FaultyDisk.Died.class);
      ProfileSaves after = new ProfileSaves(FaultyDisk.sound(), roots, game);
      after.recover("now");
      boolean isMine = after.whose().orElseThrow().equals("mine");
      assertThat(withoutPlaceHomes(trees()))
          .as("died before change " + step)
          .isEqualTo(withoutPlaceHomes(isMine ? mine : others));
      after.bring("mine", "mine", "now");
      assertThat(after.of("other", "mine")).as("died before change " + step).hasSize(2);
    }
  }

  private static Map<String, String> withoutPlaceHomes(Map<String, String> tree) {
    Map<String, String> rest = withoutMark(tree);
    rest.keySet().removeIf(p -> p.contains("/.ironing"));
    // empty folders of saves may stay
    rest.values().removeIf("/"::equals);
    return rest;
  }

  @Test
  void what_the_game_has_written_in_a_place_is_there_again_after_a_trial() {
    GameDefinition game = GameDefinitionReader.read("game.yaml", WITH_SAVES).value();
    deploy(FaultyDisk.sound(), first());
    Trees.write(roots.at("@user/settings.ini"), "the game has written");
    BeforeTrials trials = new BeforeTrials(FaultyDisk.sound(), roots);
    trials.keep(sound().laidOut(), game, sound().look(), "now");
    assertThat(trials.written(1, "@user/settings.ini")).isPresent();
    Trees.write(roots.at("@user/settings.ini"), "three of a mod");
    FaultyDisk counting = FaultyDisk.sound();
    new BeforeTrials(counting, roots).giveBack(sound().laidOut(), game, "now");
    assertThat(roots.at("@user/settings.ini")).hasContent("the game has written");
    for (int step = 1; step <= counting.changes(); step++) {
      new BeforeTrials(FaultyDisk.sound(), roots)
          .keep(sound().laidOut(), game, sound().look(), "now");
      Trees.write(roots.at("@user/settings.ini"), "three of a mod");
      BeforeTrials dying = new BeforeTrials(FaultyDisk.dyingAt(step), roots);
      assertThatThrownBy(() -> dying.giveBack(sound().laidOut(), game, "now"))
          .isInstanceOf(FaultyDisk.Died.class);
      new BeforeTrials(FaultyDisk.sound(), roots).giveBack(sound().laidOut(), game, "now");
      assertThat(roots.at("@user/settings.ini"))
          .as("died before change " + step)
          .hasContent("the game has written");
    }
    deploy(FaultyDisk.sound(), List.of());
    Map<String, String> left = trees();
    left.keySet().removeIf(p -> p.contains(".ironing"));
    assertThat(left).isEqualTo(unmodded);
  }

  /** A manifest names what lies in the game's folder: of places it says nothing. */
  @Test
  void an_update_is_not_told_by_what_comes_and_goes_in_a_place() throws IOException {
    GameDefinition game =
        GameDefinitionReader.read("game.yaml", WITH_SAVES + "manifest: sums.txt\n").value();
    Trees.write(
        roots.at("sums.txt"),
        ContentHash.of("the game's stone".getBytes(StandardCharsets.UTF_8)) + "  data/stone.png\n");
    Manifest manifest = Manifest.of(game, roots::at).orElseThrow();
    List<Drift.Own> own = new ArrayList<>();
    for (GameFolder.Seen s : GameFolder.scan(roots, n -> {})) {
      own.add(new Drift.Own(s.path(), s.sizeBytes(), s.modifiedMillis(), s.sha256()));
      boolean besideAlone = s.path().equals("@@odd/x.txt");
      assertThat(DefinitionPreview.isBeside(game, manifest, s.path()))
          .as(s.path())
          .isEqualTo(besideAlone);
    }
    deploy(FaultyDisk.sound(), List.of(file("@user/mods/base/a.json", "one", Writer.NOBODY)));
    Trees.write(roots.at("@user/mods/new.json"), "{}");
    Files.delete(roots.at("@user/enabled.json"));
    Files.delete(roots.at("@user/mods/base/a.json"));
    BaseChange change =
        BaseChange.find(game, roots, sound().laidOut(), own, Optional.of(manifest), p -> false);
    assertThat(change.files().stream().map(c -> c.kind() + " " + c.path()))
        .containsExactly("GONE @user/enabled.json");
    assertThat(change.unsure()).as("only the user knows").containsExactly("@user/mods/base/a.json");
  }

  @Test
  void a_link_in_a_place_leads_nowhere() throws IOException {
    Path outside = Files.createDirectories(temp.resolve("outside"));
    Files.createSymbolicLink(roots.at("@user/mods/more"), outside);
    assertThatThrownBy(() -> deploy(FaultyDisk.sound(), first()))
        .isInstanceOf(IroningException.class)
        .extracting(e -> ((IroningException) e).problems().get(0).code())
        .isEqualTo("game-folder-leads-outside");
    try (Stream<Path> there = Files.list(outside)) {
      assertThat(there).isEmpty();
    }
    assertThat(Set.of(roots.at("data/stone.png")))
        .allSatisfy(p -> assertThat(p).hasContent("the game's stone"));
  }

  @Test
  void a_path_of_a_place_that_is_not_known_is_refused() {
    assertThatThrownBy(() -> roots.at("@elsewhere/x"))
        .isInstanceOf(IroningException.class)
        .extracting(e -> ((IroningException) e).problems().get(0).code())
        .isEqualTo("place-unknown");
    assertThatThrownBy(() -> roots.at("@user/../x")).isInstanceOf(IroningException.class);
    assertThat(GameRoots.of(temp).at("@user/x")).isEqualTo(temp.resolve("@user/x"));
  }
}
