package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.path.GameRoots;
import ironing.core.testkit.FaultyDisk;
import ironing.core.testkit.PowerCutDisk;
import ironing.core.testkit.Schemas;
import ironing.core.testkit.TestWorld;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Two profiles of one game, Main and Trial, with saves of some same names. */
class ProfileSavesTest {
  private static final String GAME =
      """
      format: ironing/game@1
      id: plain
      title: Plain
      pathCase: insensitive
      mounts: [ { id: data, at: data, holds: [ "*.plug" ] } ]
      protect: [ "saves/**", "shared/**" ]
      perProfile: [ "saves/**", "settings/own.ini" ]
      """;

  private static final String NOW = "2026-11-26T10:00:00Z";
  private final GameDefinition definition = TestWorld.game(GAME);
  @TempDir Path temp;
  private Path game;

  @BeforeEach
  void aGameWithSaves() {
    game = temp.resolve("game");
    Trees.remove(game);
    Trees.write(game.resolve("plain.bin"), "the game");
    Trees.write(game.resolve("settings/own.ini"), "speed = 1");
    Trees.write(game.resolve("shared/scores.txt"), "all of us");
    Trees.write(game.resolve("saves/one.sav"), "Main's first");
    Trees.write(game.resolve("saves/deep/two.sav"), "Main's second");
  }

  private ProfileSaves saves(Disk disk) {
    return new ProfileSaves(disk, GameRoots.of(game), definition);
  }

  private void bring(Disk disk, String key) {
    saves(disk).bring(key, "main", NOW);
  }

  /** What a profile has, by path, wherever it lies. */
  private Map<String, String> of(String key) throws IOException {
    Map<String, String> texts = new TreeMap<>();
    for (ProfileSaves.Save s : saves(FaultyDisk.sound()).of(key, "main"))
      texts.put(s.path(), Files.readString(s.lies()));
    return texts;
  }

  private static final Map<String, String> MAINS =
      Map.of("saves/one.sav", "Main's first", "saves/deep/two.sav", "Main's second");

  private static final Map<String, String> TRIALS =
      Map.of("saves/one.sav", "Trial's first", "saves/new.sav", "Trial's own");

  /** Trial has played once; then it is Main's turn again, with nothing done yet. */
  private void trialHasPlayed() throws IOException {
    aGameWithSaves();
    bring(FaultyDisk.sound(), "trial");
    TRIALS.forEach((path, text) -> Trees.write(game.resolve(path), text));
  }

  @Test
  void each_profile_finds_its_own_saves_and_nothing_else_is_moved() throws IOException {
    assertThat(saves(FaultyDisk.sound()).whose()).isEmpty();
    assertThat(of("main")).isEqualTo(MAINS);
    assertThat(of("trial")).isEmpty();
    bring(FaultyDisk.sound(), "main");
    assertThat(game.resolve(".ironing")).as("nothing was to be done").doesNotExist();

    bring(FaultyDisk.sound(), "trial");
    assertThat(saves(FaultyDisk.sound()).whose()).contains("trial");
    String mark = Files.readString(game.resolve(ProfileSaves.MARK));
    assertThat(Schemas.errorsInJson("saves", mark)).isEmpty();
    assertThat(game.resolve("saves/one.sav")).doesNotExist();
    assertThat(game.resolve("saves")).as("the game may need it").isDirectory();
    assertThat(game.resolve("shared/scores.txt")).hasContent("all of us");
    assertThat(game.resolve("settings/own.ini")).hasContent("speed = 1");
    assertThat(of("main")).isEqualTo(MAINS);

    TRIALS.forEach((path, text) -> Trees.write(game.resolve(path), text));
    assertThat(of("trial")).isEqualTo(TRIALS);
    bring(FaultyDisk.sound(), "main");
    assertThat(game.resolve("saves/one.sav")).hasContent("Main's first");
    assertThat(of("main")).isEqualTo(MAINS);
    assertThat(of("trial")).isEqualTo(TRIALS);
  }

  @Test
  void whatever_moment_it_dies_at_both_have_their_saves() throws IOException {
    trialHasPlayed();
    FaultyDisk counting = FaultyDisk.sound();
    bring(counting, "main");
    assertThat(counting.changes()).isGreaterThan(15);
    for (int step = 1; step <= counting.changes(); step++) {
      trialHasPlayed();
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> bring(dying, "main")).isInstanceOf(FaultyDisk.Died.class);
      saves(FaultyDisk.sound()).recover(NOW);
      assertThat(of("main")).as("step " + step).isEqualTo(MAINS);
      assertThat(of("trial")).as("step " + step).isEqualTo(TRIALS);
      bring(FaultyDisk.sound(), "main");
      assertThat(of("main")).as("after step " + step).isEqualTo(MAINS);
      assertThat(game.resolve("saves/one.sav")).hasContent("Main's first");
      assertThat(of("trial")).as("after step " + step).isEqualTo(TRIALS);
    }
  }

  @Test
  void whatever_the_disk_refuses_all_is_as_before_and_can_be_tried_again() throws IOException {
    trialHasPlayed();
    FaultyDisk counting = FaultyDisk.sound();
    bring(counting, "main");
    for (int step = 1; step <= counting.changes(); step++) {
      trialHasPlayed();
      FaultyDisk refusing = FaultyDisk.refusingAt(step, "Permission denied");
      try {
        bring(refusing, "main");
      } catch (IroningException told) {
        assertThat(told.problems().get(0).code()).isEqualTo("game-folder-refused");
        saves(FaultyDisk.sound()).recover(NOW);
      }
      assertThat(of("main")).as("step " + step).isEqualTo(MAINS);
      assertThat(of("trial")).as("step " + step).isEqualTo(TRIALS);
      bring(FaultyDisk.sound(), "main");
      assertThat(game.resolve("saves/one.sav")).hasContent("Main's first");
      assertThat(of("trial")).as("after step " + step).isEqualTo(TRIALS);
    }
  }

  @Test
  void when_the_power_goes_no_save_is_lost() throws IOException {
    Path backups = Files.createDirectories(temp.resolve("backups"));
    trialHasPlayed();
    PowerCutDisk counting = new PowerCutDisk(backups, 0);
    bring(counting, "main");
    Random random = new Random(8);
    for (int step = 1; step <= counting.changes(); step++) {
      for (int round = 0; round < 4; round++) {
        trialHasPlayed();
        PowerCutDisk disk = new PowerCutDisk(backups, step);
        assertThatThrownBy(() -> bring(disk, "main")).isInstanceOf(FaultyDisk.Died.class);
        disk.losePower(round == 0 ? null : random);
        String when = "power gone before change " + step + ", round " + round;
        saves(FaultyDisk.sound()).recover(NOW);
        assertThat(of("main")).as(when).isEqualTo(MAINS);
        assertThat(of("trial")).as(when).isEqualTo(TRIALS);
      }
    }
  }

  @Test
  void a_save_put_where_another_is_to_go_is_set_aside() throws IOException {
    trialHasPlayed();
    Trees.write(game.resolve(".ironing/saves/trial/saves/one.sav"), "put there by hand");
    bring(FaultyDisk.sound(), "main");
    assertThat(of("trial")).isEqualTo(TRIALS);
    assertThat(game.resolve(".ironing/changed/2026-11-26T10-00-00Z/saves/one.sav"))
        .hasContent("put there by hand");
  }

  @Test
  void a_folder_of_saves_is_known_however_it_is_spelled() throws IOException {
    Files.move(game.resolve("saves"), game.resolve("Saves"));
    bring(FaultyDisk.sound(), "trial");
    assertThat(game.resolve("Saves/one.sav")).doesNotExist();
    bring(FaultyDisk.sound(), "main");
    assertThat(game.resolve("Saves/one.sav")).hasContent("Main's first");
  }

  @ParameterizedTest
  @ValueSource(strings = {"saves", "SAVES", "saves/deep"})
  void saves_behind_a_link_are_not_moved(String link) throws IOException {
    Path elsewhere = Files.createDirectories(temp.resolve("elsewhere"));
    Files.move(game.resolve("saves/one.sav"), elsewhere.resolve("one.sav"));
    Trees.remove(game.resolve("saves"));
    Files.createDirectories(game.resolve(link).getParent());
    Files.createSymbolicLink(game.resolve(link), elsewhere);
    // one that leads elsewhere but to no saves is none of it
    Files.createSymbolicLink(game.resolve("music"), elsewhere);
    assertThatThrownBy(() -> bring(FaultyDisk.sound(), "trial"))
        .isInstanceOfSatisfying(
            IroningException.class,
            e -> assertThat(e.problems().get(0).code()).isEqualTo("game-folder-leads-outside"));
    assertThat(elsewhere.resolve("one.sav")).hasContent("Main's first");
    assertThat(game.resolve(".ironing")).doesNotExist();
  }

  @Test
  void another_profiles_saves_are_copied_beside_the_own_ones() throws IOException {
    trialHasPlayed();
    FileTime then = FileTime.from(Instant.parse("2020-02-02T10:00:00Z"));
    Files.setLastModifiedTime(game.resolve(ProfileSaves.HOME + "/main/saves/deep/two.sav"), then);
    assertThat(saves(FaultyDisk.sound()).copy("main", "trial", "main")).isEqualTo(1);
    assertThat(Files.getLastModifiedTime(game.resolve("saves/deep/two.sav"))).isEqualTo(then);
    Map<String, String> both = new TreeMap<>(MAINS);
    both.putAll(TRIALS);
    assertThat(of("trial")).as("what it has by that name stays").isEqualTo(both);
    assertThat(of("main")).isEqualTo(MAINS);
    assertThat(saves(FaultyDisk.sound()).copy("trial", "main", "main")).isEqualTo(1);
    assertThat(of("main")).containsEntry("saves/new.sav", "Trial's own");
    assertThat(game.resolve(ProfileSaves.HOME + "/coming")).doesNotExist();
  }

  @Test
  void copying_leaves_what_a_deployment_has_moved_aside_and_not_finished() throws IOException {
    trialHasPlayed();
    Trees.write(game.resolve(Deployer.STAGING + "/old-1"), "the game's own");
    Trees.write(game.resolve(ProfileSaves.HOME + "/coming" + "/0"), "left by a crash");
    assertThat(saves(FaultyDisk.sound()).copy("main", "trial", "main")).isEqualTo(1);
    assertThat(game.resolve(Deployer.STAGING + "/old-1")).hasContent("the game's own");
    assertThat(game.resolve("saves/deep/two.sav")).hasContent("Main's second");
    assertThat(game.resolve(ProfileSaves.HOME + "/coming")).doesNotExist();
  }

  @Test
  void deploying_and_undeploying_leave_the_saves_of_all_profiles() throws IOException {
    trialHasPlayed();
    Deployer deployer = new Deployer(FaultyDisk.sound(), game);
    DeployPlan.Wanted mods =
        WantedFiles.settingsFile("settings/own.ini", "speed = 2".getBytes(StandardCharsets.UTF_8));
    for (List<DeployPlan.Wanted> wanted : List.of(List.of(mods), List.<DeployPlan.Wanted>of()))
      deployer.apply(
          DeployPlan.make(wanted, deployer.laidOut(), Optional.empty(), deployer.look(), NOW),
          (mod, path) -> null,
          n -> {});
    assertThat(game.resolve("settings/own.ini")).hasContent("speed = 1");
    assertThat(of("main")).isEqualTo(MAINS);
    assertThat(of("trial")).isEqualTo(TRIALS);
  }

  @Test
  void a_link_planted_between_a_crash_and_recovery_leads_no_save_outside() throws IOException {
    Path elsewhere = Files.createDirectories(temp.resolve("elsewhere"));
    trialHasPlayed();
    FaultyDisk counting = FaultyDisk.sound();
    bring(counting, "main");
    int refused = 0;
    for (int step = 1; step <= counting.changes(); step++) {
      trialHasPlayed();
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> bring(dying, "main")).isInstanceOf(FaultyDisk.Died.class);
      Files.move(game.resolve("saves"), game.resolve("saves-moved"));
      Files.createSymbolicLink(game.resolve("saves"), elsewhere);
      try {
        saves(FaultyDisk.sound()).recover(NOW);
      } catch (IroningException e) {
        assertThat(e.problems().get(0).code()).isEqualTo("game-folder-leads-outside");
        refused++;
      }
      assertThat(elsewhere).as("step " + step).isEmptyDirectory();
      Files.delete(game.resolve("saves"));
      Files.move(game.resolve("saves-moved"), game.resolve("saves"));
      saves(FaultyDisk.sound()).recover(NOW);
      assertThat(of("main")).as("step " + step).isEqualTo(MAINS);
      assertThat(of("trial")).as("step " + step).isEqualTo(TRIALS);
    }
    assertThat(refused).isPositive();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{\"format\": \"something else\"}",
        "{",
        "{\"format\":\"ironing/saves@1\",\"whose\":\"a\",\"next\":\"b\",\"half\":\"WHOLE\"}"
      })
  void a_mark_that_cannot_be_read_is_told_and_nothing_is_moved(String mark) throws IOException {
    trialHasPlayed();
    Trees.write(game.resolve(ProfileSaves.MARK), mark);
    Map<String, String> before = Trees.of(game);
    assertThatThrownBy(() -> bring(FaultyDisk.sound(), "main"))
        .isInstanceOfSatisfying(
            IroningException.class,
            e -> assertThat(e.problems().get(0).code()).isEqualTo("saves-unreadable"));
    assertThat(Trees.of(game)).isEqualTo(before);
  }

  @Test
  void only_a_game_that_says_so_has_them() {
    assertThat(definition.hasOwnSaves()).isTrue();
    assertThat(TestWorld.game(GAME.replace("\"saves/**\", \"settings", "\"settings")).hasOwnSaves())
        .isFalse();
    assertThat(
            TestWorld.game(
                    GAME.replace("perProfile: [ \"saves/**\"", "perProfile: [ \"saves/*.sav\""))
                .hasOwnSaves())
        .isTrue();
    assertThat(definition.isOwnSave("saves/a")).isTrue();
    assertThat(definition.isOwnSave("shared/a")).isFalse();
    assertThat(definition.isOwnSave("settings/own.ini")).isFalse();
  }
}
