package ironing.core.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.picture.Arrangement;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.core.records.Decided;
import ironing.core.records.PluginPairs;
import ironing.core.records.RecordIndex;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.IntPredicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** What is found is what looking at each record by itself finds. */
class RecordQueryTest {
  private static final RecordQuery ALL =
      new RecordQuery("", Set.of(), "", List.of(), OptionalInt.empty(), OptionalInt.empty(), false);

  private Workspace workspace;
  private Collisions all;
  private RecordIndex index;

  @Property(tries = 60, seed = "4410")
  void every_condition_keeps_the_records_that_meet_it(@ForAll long seed) throws IOException {
    Path at = Files.createTempDirectory("query");
    try {
      TestWorld world = new TestWorld();
      List<Plugin> plugins = RandomPlugins.of(seed, 5);
      for (int i = 0; i < plugins.size(); i++)
        world.file(i, "data/" + plugins.get(i).name(), PluginCodec.encode(plugins.get(i)));
      RecordIndex there = TestWorld.index(plugins, Set.of());
      Set<String> decided =
          new Random(seed)
              .ints(2, 0, there.size())
              .mapToObj(r -> there.key(r).toString())
              .collect(Collectors.toSet());
      Arrangement arrangement = world.arrangement();
      for (String key : decided)
        arrangement = arrangement.withDecisions(key, Map.of("speed", Decided.own("12")));
      workspace = world.workspace(at, null, arrangement);
      all = workspace.get(Stages.COLLISIONS);
      index = all.index();
      check();
      RecordQuery own =
          new RecordQuery(
              "", Set.of(), "", List.of(), OptionalInt.empty(), OptionalInt.empty(), true);
      assertThat(own.matching(workspace))
          .as("on an odd record nothing is decided")
          .isEqualTo(those(r -> decided.contains(index.key(r).toString()) && !index.isOdd(r)));
    } finally {
      Trees.remove(at);
    }
  }

  private void check() {
    assertThat(ALL.matching(workspace)).isEqualTo(IntStream.range(0, index.size()).toArray());
    for (State s : State.values()) {
      int[] found = with(EnumSet.of(s), "", List.of(), OptionalInt.empty());
      assertThat(found).isEqualTo(those(r -> stateOf(r) == s));
    }
    int[] several = with(EnumSet.allOf(State.class), "", List.of(), OptionalInt.empty());
    assertThat(Arrays.stream(several).mapToObj(this::stateOf).toList())
        .as("what waits for the user first")
        .isSorted();
    assertThat(with(Set.of(), "vessel", List.of(), OptionalInt.empty()))
        .isEqualTo(those(r -> index.type(r).equals("vessel")));
    for (int p = 0; p < index.pluginCount(); p++) {
      String name = index.name(p);
      assertThat(with(Set.of(), "", List.of(0, p), OptionalInt.empty()))
          .isEqualTo(those(r -> namesOf(r).contains(name) && namesOf(r).contains(index.name(0))));
      assertThat(with(Set.of(), "", List.of(), OptionalInt.of(p)))
          .isEqualTo(
              those(
                  r ->
                      all.find(r) >= 0
                          && all.of(r).lost().size() > 0
                          && all.of(r).losesOf(workspace.game(), name)));
    }
    for (int to = 0; to < index.size(); to++) {
      Ref key = index.key(to);
      RecordQuery refers =
          new RecordQuery(
              "", Set.of(), "", List.of(), OptionalInt.empty(), OptionalInt.of(to), false);
      for (int r : refers.matching(workspace))
        assertThat(index.versions(r).toString()).contains(key.toString());
    }
    pairs();
  }

  private void pairs() {
    Map<String, Integer> expected = new TreeMap<>();
    for (int i = 0; i < all.size(); i++) {
      int[] leaves = all.leaves(all.record(i));
      for (int a : leaves)
        for (int b : leaves) if (a < b) expected.merge(a + " " + b, 1, Integer::sum);
    }
    List<PluginPairs.PluginPair> pairs = PluginPairs.of(all, i -> true);
    assertThat(
            pairs.stream()
                .collect(Collectors.toMap(p -> p.first() + " " + p.second(), p -> p.records())))
        .isEqualTo(expected);
    assertThat(pairs).extracting(p -> -p.records()).isSorted();
    assertThat(PluginPairs.of(all, i -> false)).isEmpty();
  }

  private int[] with(Set<State> states, String type, List<Integer> plugins, OptionalInt losesOf) {
    return new RecordQuery("", states, type, plugins, losesOf, OptionalInt.empty(), false)
        .matching(workspace);
  }

  private int[] those(IntPredicate which) {
    return IntStream.range(0, index.size()).filter(which).toArray();
  }

  private Set<String> namesOf(int record) {
    return index.versions(record).stream()
        .map(v -> v.plugin())
        .collect(Collectors.toCollection(TreeSet::new));
  }

  private State stateOf(int record) {
    if (index.isOdd(record)) return State.ODD;
    return IntStream.range(0, all.size())
        .filter(i -> all.record(i) == record)
        .mapToObj(all::state)
        .findFirst()
        .orElse(null);
  }
}
