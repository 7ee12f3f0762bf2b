package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.deploy.Deployer.Recovered;
import ironing.core.testkit.FaultyDisk;
import ironing.core.testkit.PowerCutDisk;
import ironing.core.testkit.Refused;
import ironing.core.testkit.Trees;
import ironing.core.testkit.Tries;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class DeployerTest {
  @TempDir Path temp;
  private Path game;
  private Path library;
  private Map<String, String> unmodded;

  @BeforeEach
  void aGameAndALibrary() {
    game = temp.resolve("game");
    library = temp.resolve("library");
    makeGame();
    for (String f : List.of("stone-1", "stone-2", "deep", "ini"))
      Trees.write(library.resolve(f), f + " of a mod");
  }

  private void makeGame() {
    Trees.remove(game);
    Trees.write(game.resolve("data/stone.png"), "the game's stone");
    Trees.write(game.resolve("data/wood.png"), "the game's wood");
    Trees.write(game.resolve("settings/own.ini"), "speed = 1\n");
    unmodded = Trees.of(game);
  }

  private Wanted link(String path, String file) {
    return file(path, file, false);
  }

  private Wanted file(String path, String file, boolean gameWrites) {
    try {
      Path place = library.resolve(file);
      return new Wanted(
          path,
          ContentHash.of(place),
          Files.size(place),
          1,
          "Mod",
          gameWrites ? Writer.GAME : Writer.NOBODY,
          new Content.File(file));
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  private static Wanted text(String path, String text) {
    byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
    return new Wanted(
        path,
        ContentHash.of(utf8),
        utf8.length,
        0,
        "Ironing",
        Writer.NOBODY,
        new Content.Text(utf8));
  }

  private List<Wanted> first() {
    return List.of(
        link("data/stone.png", "stone-1"),
        link("at-the-top.txt", "stone-1"),
        link("data/new/deep/a.png", "deep"),
        file("settings/own.ini", "ini", true),
        text("settings/list.txt", "use A\n"));
  }

  private List<Wanted> second() {
    return List.of(
        link("data/wood.png", "stone-2"),
        link("also-at-the-top.txt", "stone-2"),
        link("data/other/a.png", "deep"),
        file("settings/own.ini", "ini", true),
        text("settings/list.txt", "use B\n"));
  }

  private LaidOut deploy(Disk disk, List<Wanted> wanted, String now) {
    Deployer d = new Deployer(disk, game);
    return d.apply(
        DeployPlan.make(wanted, d.laidOut(), Optional.empty(), d.look(), now),
        (mod, file) -> library.resolve(file),
        n -> {});
  }

  private LaidOut deploy(List<Wanted> wanted) {
    // without flushes: these tests stop the program, not the power
    return deploy(FaultyDisk.sound(), wanted, "2026-01-01T00:00:00Z");
  }

  @Test
  void files_are_linked_or_copied_and_noted() throws IOException {
    LaidOut out = deploy(new RealDisk(), first(), "2026-01-01T00:00:00Z");
    assertThat(game.resolve("data/stone.png")).hasContent("stone-1 of a mod");
    assertThat(Files.isSameFile(game.resolve("data/stone.png"), library.resolve("stone-1")))
        .isTrue();
    assertThat(Files.isSameFile(game.resolve("settings/own.ini"), library.resolve("ini")))
        .as("the game writes to it")
        .isFalse();
    assertThat(out.files().get("data/stone.png").how()).isEqualTo(LaidOut.How.LINK);
    assertThat(out.files().get("settings/own.ini").how()).isEqualTo(LaidOut.How.COPY);
    assertThat(out.folders()).containsExactly("data/new", "data/new/deep");
    assertThat(game.resolve(".ironing/kept/data/stone.png")).hasContent("the game's stone");
    assertThat(new Deployer(new RealDisk(), game).laidOut()).isEqualTo(out);
    assertThat(game.resolve(".ironing/staging")).doesNotExist();
    assertThat(game.resolve(".ironing/journal")).doesNotExist();
  }

  /** The reference: GNU coreutils' sha256sum, whose check format is that of SHA256SUMS. */
  @Test
  void gnu_sha256sum_finds_every_deployed_file_as_written() throws Exception {
    Trees.write(library.resolve("odd"), "odd");
    List<Wanted> wanted = new ArrayList<>(first());
    wanted.add(link("data/with blank and ö.png", "odd"));
    deploy(wanted);
    Process check =
        new ProcessBuilder("sha256sum", "--check", "--strict", ".ironing/SHA256SUMS")
            .directory(game.toFile())
            .redirectErrorStream(true)
            .start();
    String said = new String(check.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(check.waitFor()).as(said).isZero();
    assertThat(said.lines().filter(l -> l.endsWith(": OK"))).hasSize(6);
    Files.delete(game.resolve("data/stone.png"));
    Trees.write(game.resolve("data/stone.png"), "changed");
    assertThat(
            new ProcessBuilder("sha256sum", "--check", "--quiet", ".ironing/SHA256SUMS")
                .directory(game.toFile())
                .redirectErrorStream(true)
                .start()
                .waitFor())
        .isNotZero();
  }

  /** Checked against GNU sha256sum, which passes over comments (coreutils, cksum.c). */
  @Test
  void sums_that_follow_small_changes_are_those_of_what_is_there() throws Exception {
    for (int change = 0; change < 40; change++) {
      deploy(many(change % 3));
      Path sums = game.resolve(".ironing/SHA256SUMS");
      long live = Files.readAllLines(sums).stream().filter(l -> !l.startsWith("#")).count();
      LaidOut note = new Deployer(new RealDisk(), game).laidOut();
      assertThat(live).isEqualTo(note.files().size()).isEqualTo(many(change % 3).size());
      if (change % 5 != 4) continue;
      Process check =
          new ProcessBuilder("sha256sum", "--check", "--strict", "--quiet", ".ironing/SHA256SUMS")
              .directory(game.toFile())
              .inheritIO()
              .start();
      assertThat(check.waitFor()).as("change " + change).isZero();
    }
    try (Stream<Path> changes = Files.list(game.resolve(".ironing/changes"))) {
      assertThat(changes.count()).as("now and then all is written anew").isLessThan(17);
    }
    deploy(List.of());
    assertThat(game.resolve(".ironing")).doesNotExist();
    assertThat(Trees.of(game)).isEqualTo(unmodded);
  }

  @Test
  void changes_that_a_whole_note_holds_already_count_no_more() throws IOException {
    deploy(many(0));
    deploy(many(1));
    Path left = game.resolve(".ironing/changes/1.json");
    byte[] text = Files.readAllBytes(left);
    deploy(second());
    assertThat(left).doesNotExist();
    LaidOut note = new Deployer(new RealDisk(), game).laidOut();
    Files.createDirectories(left.getParent());
    Files.write(left, text);
    assertThat(new Deployer(new RealDisk(), game).laidOut()).isEqualTo(note);
  }

  @Test
  void names_that_need_it_are_escaped_as_sha256sum_does() {
    assertThat(Sums.line("ab", "a\\b")).isEqualTo("\\ab  a\\\\b");
    assertThat(Sums.line("ab", "plain")).isEqualTo("ab  plain");
  }

  @Test
  void undeploying_leaves_the_game_byte_for_byte_as_it_was() {
    deploy(first());
    deploy(second());
    assertThat(deploy(List.of()).files()).isEmpty();
    assertThat(Trees.of(game)).isEqualTo(unmodded);
    assertThat(game.resolve(".ironing")).doesNotExist();
  }

  @Test
  void what_the_game_wrote_stays_while_deployed_and_is_set_aside_when_undeployed() {
    deploy(first());
    Trees.write(game.resolve("settings/own.ini"), "written by the game\n");
    deploy(second());
    assertThat(game.resolve("settings/own.ini"))
        .as("deploying again does not reset it")
        .hasContent("written by the game\n");
    deploy(List.of());
    assertThat(Trees.of(game)).isEqualTo(unmodded);
    assertThat(game.resolve(".ironing/changed/2026-01-01T00-00-00Z/settings/own.ini"))
        .hasContent("written by the game\n");
  }

  @Test
  void what_somebody_changed_is_set_aside_and_never_overwritten_by_a_later_change()
      throws IOException {
    deploy(first());
    for (String text : List.of("first change", "second change")) {
      Files.delete(game.resolve("data/stone.png"));
      Trees.write(game.resolve("data/stone.png"), text);
      deploy(first());
      assertThat(game.resolve("data/stone.png")).hasContent("stone-1 of a mod");
    }
    assertThat(game.resolve(".ironing/changed/2026-01-01T00-00-00Z/data/stone.png"))
        .hasContent("first change");
    assertThat(game.resolve(".ironing/changed/2026-01-01T00-00-00Z-2/data/stone.png"))
        .hasContent("second change");
    assertThat(library.resolve("stone-1")).hasContent("stone-1 of a mod");
  }

  @Test
  void a_folder_of_ours_stays_while_somebody_elses_file_lies_in_it() {
    deploy(first());
    Trees.write(game.resolve("data/new/deep/note.txt"), "mine");
    deploy(List.of());
    assertThat(game.resolve("data/new/deep/note.txt")).hasContent("mine");
    assertThat(game.resolve("data/new/deep/a.png")).doesNotExist();
  }

  @Test
  void a_second_deployment_of_the_same_changes_nothing() {
    deploy(first());
    Deployer d = new Deployer(new RealDisk(), game);
    assertThat(DeployPlan.make(first(), d.laidOut(), Optional.empty(), d.look(), "later").isEmpty())
        .isTrue();
  }

  /** What a change starts from and leads to. */
  private enum Change {
    FIRST_DEPLOYMENT,
    ANOTHER_DEPLOYMENT,
    /** Of which the note is written as a change alone. */
    SMALL_DEPLOYMENT,
    SECOND_SMALL_DEPLOYMENT,
    UNDEPLOYMENT,
    UNDEPLOYMENT_AFTER_SMALL
  }

  private void startOf(Change change) {
    makeGame();
    switch (change) {
      case FIRST_DEPLOYMENT -> {}
      case ANOTHER_DEPLOYMENT, UNDEPLOYMENT -> deploy(first());
      case SMALL_DEPLOYMENT -> deploy(many(0));
      case SECOND_SMALL_DEPLOYMENT, UNDEPLOYMENT_AFTER_SMALL -> {
        deploy(many(0));
        deploy(many(1));
        assertThat(game.resolve(".ironing/changes/1.json")).exists();
      }
    }
  }

  /** Enough files for a change of two of them to be little. */
  private List<Wanted> many(int version) {
    List<Wanted> many = new ArrayList<>(first());
    for (int i = 0; i < 20; i++) many.add(link("data/many/" + i + ".png", "deep"));
    many.add(link("data/changing.png", version == 1 ? "stone-1" : "stone-2"));
    many.add(link(version == 2 ? "data/last/a.png" : "data/then/a.png", "deep"));
    if (version == 0) many.add(link("data/gone/a.png", "deep"));
    return many;
  }

  private List<Wanted> endOf(Change change) {
    return switch (change) {
      case FIRST_DEPLOYMENT -> first();
      case ANOTHER_DEPLOYMENT -> second();
      case SMALL_DEPLOYMENT -> many(1);
      case SECOND_SMALL_DEPLOYMENT -> many(2);
      case UNDEPLOYMENT, UNDEPLOYMENT_AFTER_SMALL -> List.of();
    };
  }

  @Test
  void a_folder_put_in_the_place_of_a_file_of_ours_between_a_crash_and_recovery_is_not_lost()
      throws IOException {
    int found = 0;
    FaultyDisk counting = FaultyDisk.sound();
    startOf(Change.UNDEPLOYMENT);
    deploy(counting, List.of(), "now");
    for (int step = 1; step <= counting.changes(); step++) {
      startOf(Change.UNDEPLOYMENT);
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, List.of(), "now")).isInstanceOf(FaultyDisk.Died.class);
      // wherever it has got to by then
      List<Path> ours;
      try (Stream<Path> all = Files.walk(game)) {
        ours =
            all.filter(p -> p.endsWith("deep/a.png"))
                .filter(p -> !p.startsWith(game.resolve(".ironing/changed")))
                .toList();
      }
      if (ours.isEmpty()) continue;
      Files.delete(ours.get(0));
      Trees.write(ours.get(0).resolve("mine.txt"), "somebody's");
      boolean undone = !Files.exists(game.resolve(".ironing/laid-out.json"));
      new Deployer(FaultyDisk.sound(), game).recover();
      // by then only what is thrown away lies in the staging
      if (undone) continue;
      try (Stream<Path> all = Files.walk(game)) {
        assertThat(all.filter(p -> p.endsWith("mine.txt"))).as("step " + step).hasSize(1);
      }
      found++;
    }
    assertThat(found).isGreaterThan(3);
  }

  @ParameterizedTest
  @EnumSource(Change.class)
  void after_a_crash_at_any_step_recovery_leaves_the_old_tree_or_the_new_one_never_a_mixture(
      Change change) throws IOException {
    startOf(change);
    Map<String, String> before = Trees.of(game);
    LaidOut noteBefore = new Deployer(new RealDisk(), game).laidOut();
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, endOf(change), "now");
    Map<String, String> after = Trees.of(game);
    LaidOut noteAfter = new Deployer(new RealDisk(), game).laidOut();
    assertThat(counting.changes()).isGreaterThan(15);
    int finished = 0;
    for (int step = 1; step <= counting.changes(); step++) {
      startOf(change);
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, endOf(change), "now"))
          .isInstanceOf(FaultyDisk.Died.class);
      Deployer anew = new Deployer(FaultyDisk.sound(), game);
      Recovered did = anew.recover();
      boolean isAfter = Trees.of(game).equals(after);
      assertThat(Trees.of(game))
          .as("died before change " + step + ", then " + did)
          .isIn(before, after);
      assertThat(unstamped(anew.laidOut()))
          .as("the note agrees, step " + step)
          .isEqualTo(unstamped(isAfter ? noteAfter : noteBefore));
      for (LaidOut.Item i : anew.laidOut().files().values())
        assertThat(new RealDisk().stamp(game.resolve(i.path()))).isEqualTo(i.stamp().orElseThrow());
      assertThat(game.resolve(".ironing/journal")).doesNotExist();
      assertThat(game.resolve(".ironing/staging")).doesNotExist();
      if (isAfter) finished++;
      else assertThat(finished).as("once decided, never back").isZero();
      deploy(List.of());
      assertThat(Trees.of(game))
          .as("and the game can still be had back, step " + step)
          .isEqualTo(unmodded);
    }
    assertThat(finished).isPositive();
  }

  @ParameterizedTest
  @EnumSource(Change.class)
  void after_the_power_went_at_any_step_it_is_the_old_tree_or_the_new_one(Change change)
      throws IOException {
    startOf(change);
    Map<String, String> before = Trees.of(game);
    Path backups = Files.createDirectories(temp.resolve("backups"));
    PowerCutDisk counting = new PowerCutDisk(backups, 0);
    deploy(counting, endOf(change), "now");
    Map<String, String> after = Trees.of(game);
    Random random = new Random(8);
    for (int step = 1; step <= counting.changes() + 1; step++) {
      // once nothing of what was not flushed is on the disk, then a part of it
      for (int round = 0; round < 1 + Tries.ways(3); round++) {
        startOf(change);
        PowerCutDisk disk = new PowerCutDisk(backups, step);
        boolean confirmed = step > counting.changes();
        if (confirmed) deploy(disk, endOf(change), "now");
        else
          assertThatThrownBy(() -> deploy(disk, endOf(change), "now"))
              .isInstanceOf(FaultyDisk.Died.class);
        disk.losePower(round == 0 ? null : random);
        disk.loseContents(game);
        String when = "power gone before change " + step + ", round " + round;
        Deployer anew = new Deployer(FaultyDisk.sound(), game);
        Recovered did = anew.recover();
        if (confirmed) assertThat(Trees.of(game)).as(when).isEqualTo(after);
        else assertThat(Trees.of(game)).as(when + ", then " + did).isIn(before, after);
        deploy(List.of());
        assertThat(Trees.of(game)).as("the game can be had back, " + when).isEqualTo(unmodded);
        assertThat(library.resolve("deep")).hasContent("deep of a mod");
      }
    }
  }

  @Test
  void what_an_update_wrote_over_a_deployed_file_is_left_to_the_game_whole_or_not_at_all()
      throws IOException {
    FaultyDisk counting = FaultyDisk.sound();
    updated();
    letGo(counting);
    int steps = counting.changes();
    int finished = 0;
    for (int step = 1; step <= steps; step++) {
      updated();
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> letGo(dying)).isInstanceOf(FaultyDisk.Died.class);
      Deployer anew = new Deployer(FaultyDisk.sound(), game);
      anew.recover();
      String when = "died before change " + step;
      assertThat(game.resolve("data/stone.png")).as(when).hasContent("the game's newer stone");
      boolean done = !anew.laidOut().files().containsKey("data/stone.png");
      Path kept = game.resolve(".ironing/kept/data/stone.png");
      Path aside = game.resolve(".ironing/changed/2026-02-02T00-00-00Z/data/stone.png");
      assertThat(done ? aside : kept).as(when).hasContent("the game's stone");
      assertThat(done ? kept : aside).as(when).doesNotExist();
      if (!done) continue;
      finished++;
      deploy(first());
      assertThat(game.resolve("data/stone.png")).hasContent("stone-1 of a mod");
      deploy(List.of());
      Map<String, String> updated = new TreeMap<>(unmodded);
      updated.put("data/stone.png", Trees.of(game).get("data/stone.png"));
      assertThat(game.resolve("data/stone.png")).hasContent("the game's newer stone");
      assertThat(Trees.of(game)).as(when).isEqualTo(updated);
    }
    assertThat(finished).isGreaterThan(1).isLessThan(steps);
  }

  private void updated() throws IOException {
    makeGame();
    deploy(first());
    Files.delete(game.resolve("data/stone.png"));
    Trees.write(game.resolve("data/stone.png"), "the game's newer stone");
  }

  private void letGo(Disk disk) {
    Deployer d = new Deployer(disk, game);
    d.apply(
        DeployPlan.letGo(Set.of("data/stone.png"), d.laidOut(), "2026-02-02T00:00:00Z"),
        (mod, file) -> library.resolve(file),
        n -> {});
  }

  /** What does not depend on which numbers the drive gave its files. */
  private static LaidOut unstamped(LaidOut note) {
    Map<String, LaidOut.Item> files = new TreeMap<>();
    for (LaidOut.Item i : note.files().values())
      files.put(
          i.path(),
          new LaidOut.Item(
              i.path(), i.sha256(), i.sizeBytes(), i.mod(), i.from(), i.how(), i.replaced()));
    return new LaidOut(note.at(), files, note.folders(), note.profile());
  }

  @Test
  void a_look_believes_the_note_the_stamps_or_only_the_bytes() throws IOException {
    deploy(first());
    Deployer d = new Deployer(new RealDisk(), game);
    Path stone = game.resolve("data/stone.png");
    assertThat(found(d.look(), "data/stone.png")).isEqualTo(Found.AS_LAID_OUT);
    // as long as before and with the time of before, as some programs write: only its bytes tell
    FileTime time = Files.getLastModifiedTime(stone);
    Files.writeString(stone, "STONE-1 of a mod");
    Files.setLastModifiedTime(stone, time);
    assertThat(found(d.look(), "data/stone.png")).isEqualTo(Found.AS_LAID_OUT);
    assertThat(found(d.thorough(), "data/stone.png")).isEqualTo(Found.DRIFTED);
    // another file with the bytes of before is the same
    Files.delete(stone);
    Trees.write(stone, "stone-1 of a mod");
    assertThat(found(d.look(), "data/stone.png")).isEqualTo(Found.AS_LAID_OUT);
    Trees.write(stone, "stone-2 of a mod");
    assertThat(found(d.look(), "data/stone.png")).isEqualTo(Found.DRIFTED);
    Files.delete(stone);
    assertThat(found(d.look(), "data/stone.png")).isEqualTo(Found.ABSENT);
    assertThat(found(d.trusting(), "data/stone.png")).isEqualTo(Found.AS_LAID_OUT);
  }

  private Found found(DeployPlan.Look look, String path) {
    LaidOut note = new Deployer(new RealDisk(), game).laidOut();
    return look.at(path, Optional.of(note.files().get(path)));
  }

  @Test
  void where_the_library_lies_on_another_drive_files_are_copied() {
    Disk noLinks =
        (Disk)
            Proxy.newProxyInstance(
                Disk.class.getClassLoader(),
                new Class<?>[] {Disk.class},
                (self, method, args) -> {
                  if (method.getName().equals("link")) return false;
                  try {
                    return method.invoke(new RealDisk(), args);
                  } catch (InvocationTargetException e) {
                    throw e.getCause();
                  }
                });
    LaidOut out = deploy(noLinks, first(), "now");
    assertThat(out.files().values()).extracting(LaidOut.Item::how).containsOnly(LaidOut.How.COPY);
    assertThat(game.resolve("data/new/deep/a.png")).hasContent("deep of a mod");
    assertThat(new Deployer(new RealDisk(), game).laidOut()).isEqualTo(out);
    deploy(List.of());
    assertThat(Trees.of(game)).isEqualTo(unmodded);
  }

  @Test
  void a_file_that_came_meanwhile_where_one_was_to_be_linked_is_not_touched() {
    Deployer d = new Deployer(new RealDisk(), game);
    DeployPlan plan = DeployPlan.make(first(), d.laidOut(), Optional.empty(), d.look(), "now");
    Trees.write(game.resolve("data/new/deep/a.png"), "somebody's");
    assertThatThrownBy(() -> d.apply(plan, (mod, file) -> library.resolve(file), n -> {}))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("data/new/deep/a.png");
    assertThat(game.resolve("data/new/deep/a.png")).hasContent("somebody's");
    assertThat(game.resolve("data/stone.png")).hasContent("the game's stone");
    assertThat(game.resolve(".ironing")).doesNotExist();
  }

  @Test
  void thousands_of_files_go_in_and_out_on_all_processors_and_a_crash_among_them_is_taken_back() {
    Map<String, Wanted> many = new TreeMap<>();
    for (int i = 0; i < 3_000; i++) {
      Trees.write(library.resolve("many/" + i), "file " + i);
      String path = "data/many-" + i % 70 + "/" + i + ".dat";
      many.put(path, link(path, "many/" + i));
    }
    List<Wanted> wanted = List.copyOf(many.values());
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, wanted, "now");
    int last = counting.changes();
    Map<String, String> after = Trees.of(game);
    assertThat(after).hasSize(3_000 + 70 + unmodded.size());
    deploy(List.of());
    for (int step : new int[] {500, last - 12, last - 8, last - 4, last}) {
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, wanted, "now")).isInstanceOf(FaultyDisk.Died.class);
      new Deployer(FaultyDisk.sound(), game).recover();
      assertThat(Trees.of(game)).as("died at " + step).isIn(unmodded, after);
      deploy(List.of());
    }
    deploy(wanted);
    FaultyDisk dying = FaultyDisk.dyingAt(1_500);
    assertThatThrownBy(() -> deploy(dying, List.of(), "now")).isInstanceOf(FaultyDisk.Died.class);
    assertThat(new Deployer(FaultyDisk.sound(), game).recover())
        .as("the folders went whole, and were emptied meanwhile")
        .isEqualTo(Recovered.LITTER_REMOVED);
    assertThat(Trees.of(game)).isEqualTo(unmodded);
    assertThat(game.resolve(".ironing")).doesNotExist();
    deploy(wanted);
    Trees.write(game.resolve("data/many-3/deep/mine.txt"), "mine");
    deploy(List.of());
    assertThat(game.resolve("data/many-3/deep/mine.txt")).hasContent("mine");
    Trees.remove(game.resolve("data/many-3"));
    assertThat(Trees.of(game)).isEqualTo(unmodded);
  }

  @Test
  void a_file_put_into_a_folder_of_ours_between_a_crash_and_recovery_is_set_aside_not_lost() {
    deploy(first());
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, List.of(), "now");
    int rescued = 0;
    for (int step = 1; step <= counting.changes(); step++) {
      startOf(Change.UNDEPLOYMENT);
      FaultyDisk dying = FaultyDisk.dyingAt(step);
      assertThatThrownBy(() -> deploy(dying, List.of(), "now")).isInstanceOf(FaultyDisk.Died.class);
      if (!Files.isDirectory(game.resolve("data/new/deep"))) continue;
      Trees.write(game.resolve("data/new/deep/mine.txt"), "mine");
      new Deployer(FaultyDisk.sound(), game).recover();
      Path aside = game.resolve(".ironing/changed/2026-01-01T00-00-00Z/data/new/deep/mine.txt");
      if (Files.exists(aside)) rescued++;
      else assertThat(game.resolve("data/new/deep/mine.txt")).as("step " + step).hasContent("mine");
    }
    assertThat(rescued).as("where the folder was to go whole").isPositive();
  }

  @ParameterizedTest
  @EnumSource(
      value = Change.class,
      names = {"FIRST_DEPLOYMENT", "ANOTHER_DEPLOYMENT", "SMALL_DEPLOYMENT", "UNDEPLOYMENT"})
  void a_crash_during_recovery_is_recovered_from(Change change) {
    startOf(change);
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, endOf(change), "now");
    Map<String, String> after = Trees.of(game);
    for (int step = 1; step <= counting.changes(); step += 3) {
      for (int again = 1; again <= 12; again += 2) {
        startOf(change);
        Map<String, String> before = Trees.of(game);
        FaultyDisk dying = FaultyDisk.dyingAt(step), dyingAgain = FaultyDisk.dyingAt(again);
        assertThatThrownBy(() -> deploy(dying, endOf(change), "now"))
            .isInstanceOf(FaultyDisk.Died.class);
        try {
          new Deployer(dyingAgain, game).recover();
        } catch (FaultyDisk.Died expected) {
          // it may also have been through before that
        }
        new Deployer(FaultyDisk.sound(), game).recover();
        assertThat(Trees.of(game)).as("step " + step + ", then " + again).isIn(before, after);
      }
    }
  }

  @ParameterizedTest
  @EnumSource(Change.class)
  void when_the_disk_refuses_any_step_the_folder_is_as_before_or_done(Change change) {
    startOf(change);
    Map<String, String> before = Trees.of(game);
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, endOf(change), "now");
    Map<String, String> after = Trees.of(game);
    int refused = 0;
    for (int step = 1; step <= counting.changes(); step++) {
      startOf(change);
      FaultyDisk refusing = FaultyDisk.refusingAt(step, "No space left on device");
      try {
        deploy(refusing, endOf(change), "now");
      } catch (IroningException e) {
        refused++;
        assertThat(e.problems().get(0).code()).isEqualTo("disk-full");
        assertThat(e.problems().get(0).remedy()).contains("Free some space");
      }
      new Deployer(FaultyDisk.sound(), game).recover();
      assertThat(Trees.of(game)).as("refused change " + step).isIn(before, after);
    }
    assertThat(refused).isGreaterThan(10);
  }

  /** Somebody moves the game’s folder while files are put into it. */
  @ParameterizedTest
  @EnumSource(Change.class)
  void a_folder_that_is_moved_away_at_any_step_is_as_before_or_done_wherever_it_went(Change change)
      throws IOException {
    startOf(change);
    Map<String, String> before = Trees.of(game);
    FaultyDisk counting = FaultyDisk.sound();
    deploy(counting, endOf(change), "now");
    Map<String, String> after = Trees.of(game);
    Path elsewhere = temp.resolve("elsewhere");
    for (int step = 1; step <= counting.changes(); step++) {
      startOf(change);
      int at = step;
      FaultyDisk moving =
          FaultyDisk.telling(
              n -> {
                try {
                  if (n == at) Files.move(game, elsewhere);
                } catch (IOException e) {
                  throw new UncheckedIOException(e);
                }
              });
      String when = "moved before change " + step;
      try {
        deploy(moving, endOf(change), "now");
      } catch (IroningException told) {
        assertThat(told.problems().get(0).code()).as(when).startsWith("game-folder");
      }
      new Deployer(FaultyDisk.sound(), elsewhere).recover();
      assertThat(Trees.of(elsewhere)).as(when).isIn(before, after);
      // what is left at the old place is nothing of anybody's
      if (Files.exists(game)) assertThat(Trees.of(game)).as(when).isEmpty();
      Trees.remove(game);
      Files.move(elsewhere, game);
      new Deployer(FaultyDisk.sound(), game).recover();
      deploy(List.of());
      assertThat(Trees.of(game)).as(when).isEqualTo(unmodded);
    }
  }

  @Test
  void cancelling_while_files_are_staged_leaves_everything_as_it_was() {
    Deployer d = new Deployer(new RealDisk(), game);
    DeployPlan plan = DeployPlan.make(first(), d.laidOut(), Optional.empty(), d.look(), "now");
    assertThatThrownBy(
            () ->
                d.apply(
                    plan,
                    (mod, file) -> library.resolve(file),
                    n -> {
                      if (n == 3) throw new CancellationException();
                    }))
        .isInstanceOf(CancellationException.class);
    assertThat(Trees.of(game)).isEqualTo(unmodded);
    assertThat(game.resolve(".ironing")).doesNotExist();
  }

  @Test
  void an_original_that_is_gone_is_named_before_anything_is_touched() throws IOException {
    deploy(first());
    Map<String, String> deployed = Trees.of(game);
    Files.delete(game.resolve(".ironing/kept/data/stone.png"));
    IroningException e = catchThrowableOfType(IroningException.class, () -> deploy(List.of()));
    assertThat(e.problems())
        .singleElement()
        .satisfies(
            p -> {
              assertThat(p.code()).isEqualTo("original-gone");
              assertThat(p.thing()).isEqualTo(".ironing/kept/data/stone.png");
              assertThat(p.remedy()).contains("fresh copy of the game");
            });
    assertThat(Trees.of(game)).isEqualTo(deployed);
    Trees.write(game.resolve(".ironing/kept/data/stone.png"), "the game's stone");
    deploy(List.of());
    assertThat(Trees.of(game)).isEqualTo(unmodded);
  }

  @ParameterizedTest
  @ValueSource(strings = {"data", ".ironing"})
  void nothing_is_written_through_a_link_that_leads_outside(String folder) throws IOException {
    Path outside = Files.createDirectories(temp.resolve("outside"));
    Trees.remove(game.resolve(folder));
    Files.createSymbolicLink(game.resolve(folder), outside);
    assertThatThrownBy(() -> deploy(List.of(link("data/a.png", "deep"))))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("leads outside")
        .hasMessageContaining(folder);
    try (var inside = Files.walk(outside)) {
      assertThat(inside.filter(Files::isRegularFile)).isEmpty();
    }
  }

  @Test
  void a_folder_in_the_place_of_a_file_is_named() throws IOException {
    Files.createDirectories(game.resolve("data/new.png"));
    assertThatThrownBy(() -> deploy(List.of(link("data/new.png", "deep"))))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("A folder lies where a file is to go");
    assertThat(Refused.code(() -> deploy(List.of(link("data/new.png", "deep")))))
        .isEqualTo("folder-in-the-way");
  }

  @Test
  void a_folder_that_somebody_put_in_the_place_of_a_deployed_file_is_set_aside_whole()
      throws IOException {
    deploy(first());
    Files.delete(game.resolve("data/stone.png"));
    Trees.write(game.resolve("data/stone.png/mine.txt"), "mine");
    deploy(List.of());
    assertThat(Trees.of(game)).isEqualTo(unmodded);
    try (Stream<Path> aside = Files.walk(game.resolve(".ironing/changed"))) {
      Path mine =
          aside.filter(p -> p.endsWith("data/stone.png/mine.txt")).findFirst().orElseThrow();
      assertThat(mine).hasContent("mine");
    }
  }

  @Test
  void a_file_that_somebody_put_in_the_place_of_a_deployed_folder_is_kept() throws IOException {
    deploy(first());
    Trees.remove(game.resolve("data/new"));
    Trees.write(game.resolve("data/new"), "mine");
    deploy(List.of());
    Map<String, String> left = Trees.of(game);
    assertThat(left.remove("data/new")).isEqualTo("mine");
    assertThat(left).isEqualTo(unmodded);
  }

  @Test
  void a_file_that_is_spelled_otherwise_from_now_on_lies_there_once() {
    deploy(List.of(link("data/Lamps/Oil.png", "deep")));
    deploy(List.of(link("data/lamps/oil.png", "deep")));
    Map<String, String> there = Trees.of(game);
    assertThat(there).containsKey("data/lamps/oil.png");
    assertThat(there).doesNotContainKeys("data/Lamps", "data/Lamps/Oil.png");
    deploy(List.of());
    assertThat(Trees.of(game)).isEqualTo(unmodded);
  }

  @Test
  void a_game_that_has_files_open_reads_on_in_those_that_it_opened() throws IOException {
    try (InputStream own = Files.newInputStream(game.resolve("data/stone.png"))) {
      deploy(first());
      assertThat(own.readAllBytes()).asString().isEqualTo("the game's stone");
    }
    try (InputStream ours = Files.newInputStream(game.resolve("data/stone.png"))) {
      deploy(List.of());
      assertThat(ours.readAllBytes()).asString().isEqualTo("stone-1 of a mod");
    }
    assertThat(Trees.of(game)).isEqualTo(unmodded);
  }

  @Test
  void a_note_that_cannot_be_read_is_said_and_nothing_is_guessed() {
    deploy(first());
    Trees.write(game.resolve(".ironing/laid-out.json"), "{");
    assertThatThrownBy(() -> deploy(second()))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("laid-out.json")
        .hasMessageContaining("backup");
    assertThat(Refused.code(() -> deploy(second()))).isEqualTo("laid-out-unreadable");
  }

  /** Run as an unprivileged account by ./ironing test: for root nothing is read-only. */
  @Test
  @Tag("permissions")
  void a_read_only_file_is_replaced_and_comes_back_read_only() throws IOException {
    Set<PosixFilePermission> readOnly = PosixFilePermissions.fromString("r--r--r--");
    Files.setPosixFilePermissions(game.resolve("data/stone.png"), readOnly);
    Files.setPosixFilePermissions(library.resolve("ini"), readOnly);
    deploy(first());
    assertThat(game.resolve("data/stone.png")).hasContent("stone-1 of a mod");
    assertThat(game.resolve("settings/own.ini")).hasContent("ini of a mod");
    // the game writes to it, whatever the mod's author had
    Files.writeString(game.resolve("settings/own.ini"), "changed by the game");
    deploy(List.of());
    assertThat(Trees.of(game)).isEqualTo(unmodded);
    assertThat(Files.getPosixFilePermissions(game.resolve("data/stone.png"))).isEqualTo(readOnly);
  }

  /** Run as an unprivileged account by ./ironing test: root passes through permissions. */
  @Test
  @Tag("permissions")
  void a_folder_that_may_not_be_written_to_is_named_and_left_alone() throws IOException {
    assertThat(System.getProperty("user.name"))
        .as("this group must not run as root")
        .isNotEqualTo("root");
    game.toFile().setWritable(false);
    try {
      IroningException e = catchThrowableOfType(IroningException.class, () -> deploy(first()));
      assertThat(e.problems().get(0))
          .satisfies(
              p -> {
                assertThat(p.code()).isEqualTo("game-folder-refused");
                assertThat(p.thing()).contains(game.toString());
                assertThat(p.remedy()).contains("right to write");
              });
    } finally {
      game.toFile().setWritable(true);
    }
    assertThat(Trees.of(game)).isEqualTo(unmodded);
  }

  @Test
  @Tag("permissions")
  void one_folder_that_may_not_be_written_to_takes_the_whole_back() throws IOException {
    game.resolve("settings").toFile().setWritable(false);
    try {
      assertThatThrownBy(() -> deploy(first()))
          .isInstanceOf(IroningException.class)
          .hasMessageContaining("settings");
    } finally {
      game.resolve("settings").toFile().setWritable(true);
    }
    assertThat(Trees.of(game)).isEqualTo(unmodded);
    assertThat(game.resolve(".ironing")).doesNotExist();
  }
}
