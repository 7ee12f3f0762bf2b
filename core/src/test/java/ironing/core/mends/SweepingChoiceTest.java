package ironing.core.mends;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.combinedfiles.Place;
import ironing.core.combinedfiles.Place.How;
import ironing.core.combinedfiles.Place.Side;
import ironing.core.combinedfiles.PlaceKind;
import ironing.core.game.GameDefinition;
import ironing.core.testkit.TestWorld;
import ironing.core.workspace.Workspace;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One mod's version at every place of several files that is still asked. */
class SweepingChoiceTest {
  private static final GameDefinition GAME =
      TestWorld.game(
          TestWorld.DEFINITION + "combine:\n  - { match: \"tables/*.txt\", as: text }\n");
  private static final String TIDE = "data/tables/tide.txt";
  private static final String WIND = "data/tables/wind.txt";

  @TempDir Path folder;
  private final Contests contests = new Contests();
  private final TestWorld world =
      new TestWorld(GAME)
          .file(0, TIDE, "a\nb\nc\nd\ne\n")
          .file(1, TIDE, "1\nb\nc\nd\n1\n")
          .file(2, TIDE, "2\nb\nc\nd\n2\n")
          .file(0, WIND, "a\nb\nc\nd\ne\n")
          .file(2, WIND, "2\nb\nc\nd\ne\n")
          .file(3, WIND, "b\nc\nd\ne\n");

  private SweepingChoice sweep(Workspace w, String take, Set<PlaceKind> kinds) {
    return SweepingChoice.of(w, contests, contests.all(w), take, kinds);
  }

  @Test
  void it_settles_what_the_mod_has_touched_and_leaves_the_rest_asked() throws IOException {
    Workspace w = world.workspace(folder, null, world.arrangement());
    SweepingChoice one = sweep(w, "mod1", Set.of());
    assertThat(one.choices()).containsOnlyKeys(TIDE);
    assertThat(one.places()).isEqualTo(2);
    assertThat(one.left()).as("of wind, which it has not").isEqualTo(1);
    Workspace settled =
        world.workspace(folder, w, world.arrangement().withFileChoices(one.choices()));
    assertThat(contests.asked(settled)).containsExactly(WIND);
    assertThat(sweep(settled, "mod1", Set.of()).places()).as("nothing is left for it").isZero();
    assertThat(sweep(settled, "mod1", Set.of()).choices()).isEmpty();
  }

  @Test
  void only_places_of_the_kinds_that_are_named() throws IOException {
    Workspace w = world.workspace(folder, null, world.arrangement());
    assertThat(sweep(w, "mod2", Set.of()).places()).isEqualTo(3);
    assertThat(sweep(w, "mod2", EnumSet.of(PlaceKind.REMOVED)).choices()).containsOnlyKeys(WIND);
    assertThat(sweep(w, "mod2", EnumSet.of(PlaceKind.CHANGED)).choices()).containsOnlyKeys(TIDE);
  }

  @Test
  void what_is_decided_already_stays() throws IOException {
    Workspace w = world.workspace(folder, null, world.arrangement());
    Workspace all =
        world.workspace(
            folder, w, world.arrangement().withFileChoices(sweep(w, "mod2", Set.of()).choices()));
    assertThat(contests.asked(all)).isEmpty();
    assertThat(sweep(all, "mod1", Set.of()).choices()).isEmpty();
  }

  @Test
  void a_place_is_of_the_kind_in_which_its_sides_differ() {
    Side one = new Side(List.of("a"), Optional.of("1"));
    Side other = new Side(List.of("b"), Optional.of("2"));
    Side none = new Side(List.of("c"), Optional.empty());
    assertThat(kind(Optional.of("0"), false, one, other)).isEqualTo(PlaceKind.CHANGED);
    assertThat(kind(Optional.of("0"), false, one, none)).isEqualTo(PlaceKind.REMOVED);
    assertThat(kind(Optional.empty(), false, one, other)).isEqualTo(PlaceKind.ADDED);
    assertThat(kind(Optional.of("0"), false, one)).isEqualTo(PlaceKind.ALIKE);
    assertThat(kind(Optional.empty(), true, one, other)).isEqualTo(PlaceKind.TWICE);
  }

  private static PlaceKind kind(Optional<String> base, boolean once, Side... sides) {
    return PlaceKind.of(
        new Place(
            "k", "line 1", base, List.of(sides), How.ASKED, List.of(), once, Optional.empty()));
  }
}
