package ironing.core.workspace;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.RECORDS;
import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collisions;
import ironing.core.records.Decided;
import ironing.core.records.RecordIndex;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import ironing.core.testkit.Trees;
import ironing.core.workspace.LookAhead.Becomes;
import ironing.core.workspace.LookAhead.Meeting;
import ironing.core.workspace.LookAhead.RecordChange;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** A look ahead says what comparing the two states one by one says. */
class LookAheadTest {
  private static final int MODS = 6;

  @Property(tries = 80, seed = "2412")
  void it_says_what_comparing_one_by_one_says(@ForAll long seed) throws IOException {
    Path at = Files.createTempDirectory("ahead");
    try {
      Random random = new Random(seed);
      TestWorld world = new TestWorld();
      List<Plugin> plugins = RandomPlugins.of(seed, MODS);
      for (int i = 0; i < MODS; i++) {
        world.file(i, "data/" + plugins.get(i).name(), PluginCodec.encode(plugins.get(i)));
        for (int f = 0; f < 6; f++)
          if (random.nextBoolean())
            world.file(i, "data/textures/f" + f, "content " + random.nextInt(3));
      }
      Arrangement all = world.arrangement();
      RecordIndex index = TestWorld.index(plugins, Set.of());
      Map<String, Map<String, Decided>> decided = new HashMap<>();
      for (int i = 0; i < 3; i++)
        decided.put(
            index.key(random.nextInt(index.size())).toString(),
            Map.of("speed", Decided.take(plugins.get(0).name())));
      Workspace before = world.workspace(at, null, some(all, random).withDecisions(decided));
      Workspace after = world.workspace(at, before, some(all, random).withDecisions(decided));
      LookAhead ahead = LookAhead.between(before, after);
      assertThat(ahead.meetings()).containsExactlyInAnyOrderElementsOf(meetings(before, after));
      assertThat(ahead.records().stream().map(LookAheadTest::told))
          .containsExactlyInAnyOrderElementsOf(records(before, after));
      assertThat(ahead.decisions()).containsExactlyInAnyOrderElementsOf(decisions(before, after));
      assertThat(LookAhead.between(after, after))
          .as("nothing is ahead of itself")
          .matches(l -> l.difference().isNone() && l.meetings().isEmpty())
          .matches(l -> l.records().isEmpty() && l.decisions().isEmpty());
    } finally {
      Trees.remove(at);
    }
  }

  /** Some of the layers off. */
  private static Arrangement some(Arrangement all, Random random) {
    List<Layer> layers = new ArrayList<>();
    for (Layer l : all.layers()) layers.add(l.withOn(random.nextInt(3) > 0));
    List<Wish> wishes = List.of();
    return all.withLayers(layers).withPlugins(wishes);
  }

  private static List<Meeting> meetings(Workspace before, Workspace after) {
    List<Meeting> out = new ArrayList<>();
    for (long a = 1; a < MODS; a++)
      for (long b = a + 1; b < MODS; b++) {
        Set<Integer> was = met(before, a, b), is = met(after, a, b);
        Set<Integer> come = new HashSet<>(is), gone = new HashSet<>(was);
        come.removeAll(was);
        gone.removeAll(is);
        if (come.size() + gone.size() > 0) out.add(new Meeting(a, b, come.size(), gone.size()));
      }
    return out;
  }

  private static Set<Integer> met(Workspace now, long a, long b) {
    Holdings holdings = now.picture().holdings();
    Set<Integer> met = new HashSet<>();
    for (int path = 0; path < holdings.pathCount(); path++) {
      Set<Long> there = new HashSet<>();
      for (int slot : now.picture().standing().holders(path))
        there.add(holdings.holderAt(slot).mod());
      if (there.contains(a) && there.contains(b)) met.add(path);
    }
    return met;
  }

  private static String told(RecordChange c) {
    return c.becomes() + " " + c.key();
  }

  private static List<String> records(Workspace before, Workspace after) {
    Map<String, String> was = read(before), is = read(after);
    List<String> out = new ArrayList<>();
    Set<String> keys = new TreeSet<>(was.keySet());
    keys.addAll(is.keySet());
    for (String key : keys) {
      if (!was.containsKey(key)) out.add(Becomes.NEW + " " + key);
      else if (!is.containsKey(key)) out.add(Becomes.GONE + " " + key);
      else if (!was.get(key).equals(is.get(key))) out.add(Becomes.OTHER + " " + key);
    }
    return out;
  }

  /** What the game reads, by key, with the values themselves. */
  private static Map<String, String> read(Workspace now) {
    RecordIndex index = now.get(RECORDS).index();
    Map<String, String> out = new TreeMap<>();
    for (int r = 0; r < index.size(); r++)
      out.put(index.key(r).toString(), index.used(r).type() + index.used(r).fields());
    return out;
  }

  private static List<String> decisions(Workspace before, Workspace after) {
    return after.picture().arrangement().decisions().keySet().stream()
        .filter(key -> !sides(before, key).equals(sides(after, key)))
        .toList();
  }

  /** The versions that take sides, with their values. */
  private static String sides(Workspace now, String key) {
    Collisions collisions = now.get(COLLISIONS);
    int r = Ref.parse(key).map(collisions.index()::find).orElse(-1);
    if (r < 0) return "nobody";
    StringBuilder out = new StringBuilder();
    for (int v = 0; v < collisions.index().versionCount(r); v++)
      out.append(collisions.index().name(collisions.index().positionOf(r, v)))
          .append(collisions.index().version(r, v).fields())
          .append('\n');
    return out.toString();
  }
}
