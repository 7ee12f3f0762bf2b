package ironing.core.records;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.game.RecordType;
import ironing.core.mends.PatchBuilder;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Prints;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
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

  private static String header(List<String> masters) {
    return masters.stream()
        .map(m -> "\"" + m + "\"")
        .collect(Collectors.joining(",", "{\"format\":\"ironing/plugin@1\",\"masters\":[", "]}"));
  }

  /** Types, owners and ids at random: the game reads the last version of a key, whatever it is. */
  @Property(tries = 300, seed = "8160")
  void the_last_version_of_a_key_in_load_order_is_the_one_in_use(@ForAll long seed) {
    Random random = new Random(seed);
    List<String> names = List.of("A.plug", "B.plug", "C.plug", "D.plug");
    List<Plugin> order = new ArrayList<>();
    Map<Value.Ref, Plugin.Record> last = new HashMap<>();
    Map<Value.Ref, String> by = new HashMap<>();
    Map<Value.Ref, Set<String>> types = new HashMap<>();
    Set<Value.Ref> owned = new HashSet<>();
    for (int p = 0; p < names.size(); p++) {
      List<String> masters = names.subList(0, p);
      Map<Value.Ref, Plugin.Record> records = new HashMap<>();
      for (int i = random.nextInt(6); i > 0; i--) {
        Value.Ref key = new Value.Ref(names.get(random.nextInt(p + 1)), 1 + random.nextInt(3));
        String type = random.nextBoolean() ? "vessel" : "harbour";
        Optional<Value.Fields> fields =
            random.nextInt(5) == 0
                ? Optional.empty()
                : Optional.of(new Value.Fields(Map.of("name", new Value.Text("n" + p))));
        records.put(key, new Plugin.Record(type, key, fields));
      }
      order.add(
          new Plugin(
              names.get(p),
              PluginText.parse(names.get(p), header(masters)).header(),
              List.copyOf(records.values())));
      for (Plugin.Record r : records.values()) {
        last.put(r.key(), r);
        by.put(r.key(), names.get(p));
        types.computeIfAbsent(r.key(), k -> new HashSet<>()).add(r.type());
        if (r.key().owner().equals(names.get(p))) owned.add(r.key());
      }
    }
    RecordIndex index = TestWorld.index(order, Set.of());
    assertThat(index.size()).isEqualTo(last.size());
    last.forEach(
        (key, record) -> {
          int at = index.find(key);
          assertThat(index.used(at).plugin()).isEqualTo(by.get(key));
          assertThat(index.used(at).type()).isEqualTo(record.type());
          assertThat(index.used(at).fields()).isEqualTo(record.fields());
          assertThat(index.isOdd(at)).isEqualTo(!owned.contains(key) || types.get(key).size() > 1);
        });
    Collisions all = agree(index);
    for (int i = 0; i < all.size(); i++) assertThat(index.isOdd(all.record(i))).isFalse();
  }

  @Test
  void what_it_is_made_of_tells_a_change_of_version_order_or_word() {
    List<Plugin> order = RandomPlugins.of(11, 4);
    Collisions now = Collisions.in(TestWorld.GAME, TestWorld.index(order, Set.of()), Map.of());
    Collisions again = Collisions.in(TestWorld.GAME, TestWorld.index(order, Set.of()), Map.of());
    int record = now.record(0);
    String key = now.of(record).key().toString();
    Map<String, Map<String, Decided>> word = Map.of(key, Map.of("name", Decided.own("\"X\"")));
    Collisions decided = Collisions.in(TestWorld.GAME, TestWorld.index(order, Set.of()), word);
    assertThat(again.madeOf(record)).isEqualTo(now.madeOf(record));
    assertThat(decided.madeOf(record))
        .as("what was made under the words of the first version is fresh still")
        .isEqualTo(Prints.mix(now.madeOf(record), Prints.name("name=/value \"X\"")))
        .isNotEqualTo(now.madeOf(record));
  }

  @Test
  void shapes_of_one_game_are_equal_and_of_another_are_not() {
    assertThat(Shapes.of(TestWorld.GAME))
        .isEqualTo(Shapes.of(TestWorld.game(TestWorld.DEFINITION)));
    String sensitive = TestWorld.DEFINITION.replace("pathCase: insensitive", "pathCase: sensitive");
    assertThat(Shapes.of(TestWorld.game(sensitive))).isNotEqualTo(Shapes.of(TestWorld.GAME));
  }
}
