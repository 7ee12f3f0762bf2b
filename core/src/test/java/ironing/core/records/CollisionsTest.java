package ironing.core.records;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.RecordType;
import ironing.core.mends.PatchBuilder;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

/** What is told by the prints of fields alone is what reading the values tells. */
class CollisionsTest {
  private static final Combiner COMBINER = new Combiner(PathCase.INSENSITIVE);

  @Property(tries = 400, seed = "8160")
  void prints_and_values_tell_the_same_of_every_record(
      @ForAll long seed, @ForAll @IntRange(min = 2, max = 7) int count) {
    List<Plugin> order = new ArrayList<>(RandomPlugins.of(seed, count));
    agree(TestWorld.index(order, Set.of()));
    Collisions all = Collisions.in(TestWorld.GAME, TestWorld.index(order, Set.of()), Map.of());
    List<Collision> wanted =
        IntStream.range(0, all.size())
            .filter(all::wantsPatch)
            .mapToObj(i -> all.of(all.record(i)))
            .toList();
    List<String> names = order.stream().map(Plugin::name).toList();
    order.add(PatchBuilder.build("Patch.plug", "Patch", "", names, wanted));
    Collisions with = agree(TestWorld.index(order, Set.of("patch.plug")));
    for (int i = 0; i < with.size(); i++) {
      int r = i;
      assertThat(with.state(i))
          .as("a patch of all that combines leaves nothing to combine")
          .isNotEqualTo(Collision.State.COMBINES);
      if (wanted.stream().anyMatch(c -> c.key().equals(with.of(with.record(r)).key()))) {
        assertThat(with.state(i)).isEqualTo(Collision.State.SETTLED);
        assertThat(with.wantsPatch(i)).isTrue();
      }
    }
  }

  private static Collisions agree(RecordIndex index) {
    Collisions all = Collisions.in(TestWorld.GAME, index, Map.of());
    for (int i = 0; i < all.size(); i++) {
      Collision c = all.of(all.record(i));
      String what = c.toString();
      assertThat(all.state(i)).as(what).isEqualTo(c.state());
      assertThat(all.lost(i)).as(what).isEqualTo(c.lost().size());
      assertThat(all.asked(i)).as(what).isEqualTo((int) c.combination().asked());
      assertThat(all.wantsPatch(i)).as(what).isEqualTo(c.wantsPatch(TestWorld.GAME));
      assertThat(Arrays.stream(all.leaves(all.record(i))).mapToObj(index::name))
          .containsExactlyElementsOf(
              c.combination().leaves().stream().map(Version::plugin).toList());
    }
    return all;
  }

  @Property(tries = 300, seed = "8160")
  void two_versions_have_one_print_exactly_when_they_say_the_same(@ForAll long seed) {
    RecordIndex index = TestWorld.index(RandomPlugins.of(seed, 4), Set.of());
    for (int r = 0; r < index.size(); r++) {
      RecordType type =
          TestWorld.GAME
              .records()
              .getOrDefault(index.type(r), RecordType.undescribed(index.type(r)));
      for (int a = 0; a < index.versionCount(r); a++)
        for (int b = 0; b < a; b++) same(index, type, r, a, b);
    }
  }

  private static void same(RecordIndex index, RecordType type, int r, int a, int b) {
    Version one = index.version(r, a), two = index.version(r, b);
    RecordTable t = index.table(one.position()), u = index.table(two.position());
    assertThat(t.print(index.rowOf(r, a)) == u.print(index.rowOf(r, b)))
        .isEqualTo(COMBINER.same(type, one.fields(), two.fields()));
    if (one.fields().isEmpty() || two.fields().isEmpty()) return;
    for (String name : one.fields().get().map().keySet()) {
      Optional<Value> x = Optional.of(one.fields().get().map().get(name)),
          y = Optional.ofNullable(two.fields().get().map().get(name));
      assertThat(
              fieldPrint(t, index.rowOf(r, a), name).equals(fieldPrint(u, index.rowOf(r, b), name)))
          .as(name + ": " + x + " and " + y)
          .isEqualTo(COMBINER.same(type.field(name), x, y));
    }
  }

  private static Optional<Long> fieldPrint(RecordTable t, int row, String name) {
    for (int f = t.fieldFrom(row); f < t.fieldFrom(row + 1); f++)
      if (t.fieldName(f).equals(name)) return Optional.of(t.fieldPrint(f));
    return Optional.empty();
  }

  @Property(tries = 200, seed = "8160")
  void the_index_finds_every_record_and_its_versions(@ForAll long seed) {
    List<Plugin> order = RandomPlugins.of(seed, 5);
    RecordIndex index = TestWorld.index(order, Set.of());
    for (int r = 0; r < index.size(); r++) {
      assertThat(index.find(index.key(r))).isEqualTo(r);
      Value.Ref key = index.key(r);
      List<String> has =
          order.stream()
              .filter(p -> p.records().stream().anyMatch(x -> x.key().equals(key)))
              .map(Plugin::name)
              .toList();
      assertThat(index.versions(r)).extracting(Version::plugin).containsExactlyElementsOf(has);
    }
    assertThat(index.size())
        .isEqualTo(
            (int)
                order.stream()
                    .flatMap(
                        p -> p.records().stream().filter(x -> x.key().owner().equals(p.name())))
                    .count());
    assertThat(index.odd()).isEmpty();
  }

  @Test
  void what_it_is_made_of_tells_a_change_of_version_order_or_word() {
    List<Plugin> order = RandomPlugins.of(11, 4);
    Collisions now = Collisions.in(TestWorld.GAME, TestWorld.index(order, Set.of()), Map.of());
    Collisions again = Collisions.in(TestWorld.GAME, TestWorld.index(order, Set.of()), Map.of());
    int record = now.record(0);
    String key = now.of(record).key().toString();
    Map<String, Map<String, String>> word = Map.of(key, Map.of("name", Combiner.VALUE + "\"X\""));
    Collisions decided = Collisions.in(TestWorld.GAME, TestWorld.index(order, Set.of()), word);
    assertThat(again.madeOf(record)).isEqualTo(now.madeOf(record));
    assertThat(decided.madeOf(record)).isNotEqualTo(now.madeOf(record));
  }

  @Test
  void shapes_of_one_game_are_equal_and_of_another_are_not() {
    assertThat(Shapes.of(TestWorld.GAME))
        .isEqualTo(Shapes.of(TestWorld.game(TestWorld.DEFINITION)));
    String sensitive = TestWorld.DEFINITION.replace("pathCase: insensitive", "pathCase: sensitive");
    assertThat(Shapes.of(TestWorld.game(sensitive))).isNotEqualTo(Shapes.of(TestWorld.GAME));
  }
}
