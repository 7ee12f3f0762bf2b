package ironing.core.mends;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.archive.ContentHash;
import ironing.core.combinedfiles.Choice;
import ironing.core.combinedfiles.CombinedFile;
import ironing.core.combinedfiles.FileChoices;
import ironing.core.game.GameDefinition;
import ironing.core.mends.Contests.Left;
import ironing.core.mends.RepeatedNames.Repeated;
import ironing.core.mends.RepeatedNames.Where;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.testkit.TestWorld;
import ironing.core.workspace.FilePlaces;
import ironing.core.workspace.FormerFile;
import ironing.core.workspace.Memo;
import ironing.core.workspace.Mod;
import ironing.core.workspace.Workspace;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Who contends for a file, what against, and what combining comes to. */
class ContestsTest {
  private static final GameDefinition GAME =
      TestWorld.game(
          TestWorld.DEFINITION
              + "combine:\n"
              + "  - { match: \"tables/*.txt\", as: text, once: \"^routine (\\\\S+)\" }\n");
  private static final String PATH = "data/tables/tide.txt";
  private static final String BASE = "a\nb\nc\nd\ne\n";

  @TempDir Path folder;
  private final Contests contests = new Contests();
  private final TestWorld world = new TestWorld(GAME).file(0, PATH, BASE);

  private Workspace workspace() throws IOException {
    return world.workspace(folder, null, world.arrangement());
  }

  private static String text(CombinedFile f) {
    return new String(f.outcome().orElseThrow(), StandardCharsets.UTF_8);
  }

  @Test
  void two_mods_that_change_a_file_of_the_game_are_measured_against_it() throws IOException {
    world.file(1, PATH, "A\nb\nc\nd\ne\n").file(2, PATH, "a\nb\nc\nd\nE\n").file(3, PATH, BASE);
    Workspace w = workspace();
    Contest c = contests.all(w).get(0);
    assertThat(c.base().id()).isEmpty();
    assertThat(c.contenders()).extracting(FileSide::id).containsExactly("mod1", "mod2");
    assertThat(c.known()).isTrue();
    assertThat(c.isTwins()).isFalse();
    assertThat(text(contests.combine(w, c))).isEqualTo("A\nb\nc\nd\nE\n");
    assertThat(contests.outline(w, c)).isEqualTo(new Contests.Outline(true, 0, List.of()));
    assertThat(contests.at(w, "DATA/tables/TIDE.txt")).isPresent();
    assertThat(contests.at(w, "data/tables/none.txt")).isEmpty();
  }

  @Test
  void one_who_changes_it_alone_and_a_mend_contend_with_nobody() throws IOException {
    world.file(1, PATH, "A\nb\nc\nd\ne\n").file(2, PATH, BASE);
    world.mend(3).file(3, PATH, "made\n");
    assertThat(contests.all(workspace())).isEmpty();
  }

  @Test
  void all_who_have_the_same_are_twins() throws IOException {
    world.file(1, PATH, "new\n").file(2, PATH, "new\n");
    assertThat(contests.all(workspace()).get(0).isTwins()).isTrue();
    assertThat(contests.asked(workspace())).isEmpty();
  }

  @Test
  void what_is_asked_is_settled_by_a_choice_and_the_base_can_be_chosen() throws IOException {
    world.file(1, PATH, "1\nb\nc\nd\ne\n").file(2, PATH, "2\nb\nc\nd\ne\n");
    Workspace w = workspace();
    Contest c = contests.all(w).get(0);
    CombinedFile asked = contests.combine(w, c);
    assertThat(asked.asked()).isEqualTo(1);
    assertThat(contests.asked(w)).containsExactly(PATH);
    String place = asked.places().get(0).key();
    Arrangement chosen =
        world
            .arrangement()
            .withFileChoices(
                PATH, FileChoices.NONE.with(place, Optional.of(Choice.of("mod2", "mod1"))));
    Workspace settled = world.workspace(folder, w, chosen);
    assertThat(text(contests.combine(settled, contests.all(settled).get(0))))
        .isEqualTo("2\n1\nb\nc\nd\ne\n");
    Arrangement based =
        world.arrangement().withFileChoices(PATH, FileChoices.NONE.withBase(Optional.of("mod1")));
    Workspace other = world.workspace(folder, w, based);
    assertThat(contests.all(other)).as("the other alone has changed what the base has").isEmpty();
  }

  @Test
  void what_the_user_has_ruled_on_is_decided() throws IOException {
    world.file(1, PATH, "1\n").file(2, PATH, "2\n");
    Arrangement ruled = world.arrangement().withRulings(List.of(new Ruling(PATH, 1)));
    Workspace w = world.workspace(folder, null, ruled);
    assertThat(contests.all(w)).isEmpty();
    assertThat(contests.left(w, "mod1")).containsExactly(new Left(PATH, true, List.of(2L)));
  }

  @Test
  void of_one_mod_alone_it_is_measured_with_what_would_be_in_play_without_it() throws IOException {
    world.file(1, PATH, "A\nb\nc\nd\ne\n").file(2, PATH, "a\nB\nc\nd\ne\n");
    world.file(3, PATH, "a\nb\nc\nd\nE\n").file(3, "data/textures/x.dds", "3");
    world.file(1, "data/textures/x.dds", "1");
    Workspace w = workspace();
    assertThat(contests.carried(w, "mod1"))
        .singleElement()
        .satisfies(
            c -> {
              assertThat(c.contenders()).extracting(FileSide::id).containsExactly("mod1", "mod3");
              assertThat(text(contests.combine(w, c))).isEqualTo("A\nb\nc\nd\nE\n");
            });
    assertThat(contests.left(w, "mod1"))
        .as("no rule says how it combines")
        .containsExactly(new Left("data/textures/x.dds", false, List.of(3L)));
    assertThat(contests.carried(w, "nobody")).isEmpty();
  }

  @Test
  void a_mod_is_measured_against_the_game_as_it_was_when_that_is_nearer() throws IOException {
    String before = "a\nb\nc\nd\nold\n";
    world.file(1, PATH, "A\nb\nc\nd\nold\n").file(2, PATH, "a\nb\nC\nd\ne\n");
    String sha = ContentHash.of(before.getBytes(StandardCharsets.UTF_8));
    Files.createDirectories(folder.resolve("former"));
    Files.writeString(folder.resolve("former").resolve(sha), before);
    Workspace now = workspace();
    Workspace w =
        new Workspace(
            GAME,
            Optional.of("2.0"),
            now.files(),
            Map.of(GAME.pathCase().key(PATH), List.of(new FormerFile("1.0", sha))),
            now.picture(),
            Memo.ofItsOwn());
    Contest c = contests.all(w).get(0);
    assertThat(c.isBeforeUpdate()).isTrue();
    assertThat(c.base().id()).isEqualTo("@1.0");
    assertThat(Ancestors.isFormer(c.base().id())).isTrue();
    assertThat(c.contenders()).extracting(FileSide::id).containsExactly("", "mod1", "mod2");
    assertThat(text(contests.combine(w, c))).isEqualTo("A\nb\nC\nd\ne\n");
    Workspace lost =
        new Workspace(
            GAME,
            Optional.of("2.0"),
            now.files(),
            Map.of(GAME.pathCase().key(PATH), List.of(new FormerFile("1.0", "0".repeat(64)))),
            now.picture(),
            Memo.ofItsOwn());
    assertThat(contests.all(lost).get(0).base().id())
        .as("one whose bytes are away is near to nothing")
        .isEmpty();
  }

  @Test
  void an_older_version_that_is_kept_can_be_the_base() throws IOException {
    world.file(1, PATH, "new 1\n").file(2, PATH, "old 1\n").file(3, PATH, "other\n");
    Arrangement without =
        world
            .arrangement()
            .withLayers(world.arrangement().layers().stream().filter(l -> l.mod() != 2).toList());
    Workspace all = world.workspace(folder, null, without);
    Map<Long, Mod> mods = new TreeMap<>(all.mods());
    mods.computeIfPresent(2L, (id, m) -> TestWorld.like(m, 1, Map.of()));
    Workspace w =
        new Workspace(
            GAME,
            Optional.empty(),
            new FilePlaces(mods, all.files().bytes(), all.files().tables()),
            Map.of(),
            all.picture(),
            Memo.ofItsOwn());
    Contest c = contests.all(w).get(0);
    assertThat(c.older()).extracting(FileSide::mod).containsExactly(2L);
    assertThat(c.older().get(0).id()).isEqualTo(Ancestors.idOf(mods.get(2L)));
    assertThat(c.bases()).extracting(FileSide::mod).containsExactly(0L, 1L, 3L, 2L);
  }

  @Test
  void a_name_that_may_stand_once_is_told_when_a_mod_has_it_a_second_time() throws IOException {
    world
        .file(0, "data/tables/own.txt", "routine twice\nroutine twice\n")
        .file(1, "data/tables/a.txt", "routine quay\nroutine gulls\n")
        .file(2, "data/tables/b.txt", "routine quay\nroutine lamp\n");
    List<Repeated> told = new RepeatedNames().of(workspace());
    assertThat(told)
        .singleElement()
        .satisfies(
            r -> {
              assertThat(r.names()).containsExactly("quay");
              assertThat(r.files())
                  .containsExactly(
                      new Where("data/tables/a.txt", 1), new Where("data/tables/b.txt", 2));
            });
    Arrangement off =
        world.arrangement().withLayers(List.of(new Layer(1, true), new Layer(2, false)));
    assertThat(new RepeatedNames().of(world.workspace(folder, null, off))).isEmpty();
  }
}
