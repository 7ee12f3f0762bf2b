package ironing.core.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.combinedfiles.FileChoices;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.Arrangement.Section;
import ironing.core.records.Decided;
import ironing.core.testkit.TestWorld;
import ironing.core.workspace.CarriedOver.Part;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Each part is carried over by itself, and nothing else with it. */
class CarriedOverTest {
  @TempDir Path folder;
  private Workspace here;
  private Arrangement there;

  @BeforeEach
  void make() throws IOException {
    TestWorld world =
        new TestWorld()
            .plugin(0, "Base.plug", 1)
            .plugin(1, "One.plug", 1, "Base.plug")
            .plugin(2, "Two.plug", 1, "Base.plug")
            .file(3, "data/tables/c.csv", "c");
    here = world.workspace(folder, null, world.arrangement());
    there =
        Arrangement.EMPTY
            .withLayers(
                List.of(
                    new Layer(3, true), new Layer(2, true, 7, true), new Layer(1, false, 7, false)),
                List.of(new Section(7, "Looks")))
            .withPlugins(List.of(new Wish("Two.plug", false), new Wish("One.plug", true)))
            .withRulings(List.of(new Ruling("data/tables/c.csv", 3)))
            .withHeldBack(Map.of(3L, Set.of("data/tables/c.csv")))
            .withDecisions("Base.plug/1", Map.of("speed", Decided.take("One.plug")))
            .withFileChoices("data/a.txt", FileChoices.NONE.withBase(Optional.of("")));
  }

  private Arrangement carried(Set<Long> mods, Set<Part> parts) {
    return CarriedOver.of(here, there, mods, parts);
  }

  private static List<Long> order(Arrangement a) {
    return a.layers().stream().map(Layer::mod).toList();
  }

  @ParameterizedTest
  @EnumSource(Part.class)
  void a_part_comes_alone(Part part) {
    Arrangement a = carried(Set.of(), EnumSet.of(part)), now = here.picture().arrangement();
    boolean order = part == Part.ORDER;
    assertThat(order(a)).isEqualTo(order(order ? there : now));
    assertThat(a.sections()).isEqualTo(order ? there.sections() : now.sections());
    assertThat(a.layers()).as("no switch comes with it").allMatch(Layer::on);
    assertThat(a.rulings()).isEqualTo(part == Part.RULINGS ? there.rulings() : List.of());
    assertThat(a.heldBack()).isEqualTo(part == Part.HELD_BACK ? there.heldBack() : Map.of());
    assertThat(a.decisions()).isEqualTo(part == Part.DECISIONS ? there.decisions() : Map.of());
    assertThat(a.fileChoices()).isEqualTo(part == Part.DECISIONS ? there.fileChoices() : Map.of());
    if (part == Part.LOAD_ORDER) assertThat(a.plugins()).isEqualTo(there.plugins());
    else
      assertThat(here.picture().rearranged(a).loadOrder().asWishes())
          .as("a place in the install order says nothing about records")
          .isEqualTo(here.picture().loadOrder().asWishes());
  }

  @Test
  void a_mod_brings_its_switch_and_nothing_of_its_place() {
    Arrangement a = carried(Set.of(1L), Set.of());
    assertThat(order(a)).isEqualTo(order(here.picture().arrangement()));
    assertThat(a.layers()).filteredOn(l -> !l.on()).extracting(Layer::mod).containsExactly(1L);
  }

  @Test
  void a_mod_brings_the_version_that_is_in_use_there() throws IOException {
    TestWorld world =
        new TestWorld().file(1, "data/a.txt", "1").file(2, "data/a.txt", "2").file(3, "b.txt", "3");
    Workspace all = world.workspace(folder.resolve("v"), null, world.arrangement(1, 3));
    Map<Long, Mod> mods = new TreeMap<>(all.mods());
    mods.computeIfPresent(2L, (id, m) -> TestWorld.like(m, 1, Map.of()));
    here =
        new Workspace(
            all.game(),
            Optional.empty(),
            new FilePlaces(mods, all.files().bytes(), all.files().tables()),
            Map.of(),
            all.picture(),
            Memo.ofItsOwn());
    there = world.arrangement(3, 2).withHeldBack(Map.of(2L, Set.of("data/a.txt")));
    assertThat(order(carried(Set.of(1L), Set.of()))).containsExactly(2L, 3L);
    assertThat(order(carried(Set.of(), EnumSet.of(Part.ORDER)))).containsExactly(3L, 1L);
    assertThat(carried(Set.of(), EnumSet.of(Part.HELD_BACK)).heldBack())
        .as("of a version that is not in use here nothing is held back")
        .isEmpty();
    assertThat(carried(Set.of(1L), EnumSet.of(Part.HELD_BACK)).heldBack())
        .isEqualTo(there.heldBack());
  }
}
