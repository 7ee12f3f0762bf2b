package ironing.core.workspace;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.FINDINGS;
import static ironing.core.workspace.Stages.HARMLESS;
import static ironing.core.workspace.Stages.RECORDS;
import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.Deployer;
import ironing.core.game.GameDefinition;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.path.GameRoots;
import ironing.core.picture.Arrangement;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.records.Collisions;
import ironing.core.records.Decided;
import ironing.core.records.RecordIndex;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import ironing.core.testkit.Trees;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is worked out from the state before is what is worked out with nothing known. */
class StagesTest {
  private static final GameDefinition GAME =
      TestWorld.game(TestWorld.DEFINITION + "harmless: [ \"textures/\" ]\n");

  @TempDir Path folder;

  @Property(tries = 60, seed = "2210")
  void after_each_change_every_stage_is_as_with_nothing_known(@ForAll long seed)
      throws IOException {
    Path at = Files.createTempDirectory("stages");
    try {
      new Walk(seed, at).go();
    } finally {
      Trees.remove(at);
    }
  }

  /** A world of random plugins that is changed step by step. */
  private static final class Walk {
    private final Random random;
    private final Path at;
    private final TestWorld world = new TestWorld(GAME);
    private final List<Plugin> plugins;
    private Arrangement arrangement;

    Walk(long seed, Path at) {
      this.random = new Random(seed);
      this.at = at;
      this.plugins = new ArrayList<>(RandomPlugins.of(seed, 5));
    }

    void go() throws IOException {
      for (int i = 0; i < plugins.size(); i++) put(i);
      world.file(7, "data/textures/hull.dds", "h");
      arrangement = world.arrangement();
      Workspace before = world.workspace(at, null, arrangement);
      for (int step = 0; step < 8; step++) {
        change();
        Workspace now = world.workspace(at, before, arrangement);
        agree(now, step);
        // somebody may still hold the state before
        if (random.nextBoolean()) agree(before, step);
        before = now;
      }
    }

    private void put(int i) {
      Plugin p = plugins.get(i);
      world.file(i, "data/" + p.name(), PluginCodec.encode(p));
    }

    private void change() {
      int i = 1 + random.nextInt(plugins.size() - 1);
      switch (random.nextInt(5)) {
        case 0 -> {
          // another version of one plugin
          Plugin other = RandomPlugins.of(random.nextLong(), plugins.size()).get(i);
          plugins.set(i, other);
          put(i);
        }
        case 1 -> {
          List<Arrangement.Layer> layers = new ArrayList<>(arrangement.layers());
          Collections.shuffle(layers, random);
          arrangement = arrangement.withLayers(layers);
        }
        case 2 -> {
          List<Wish> wishes = new ArrayList<>();
          for (Plugin p : plugins) wishes.add(new Wish(p.name(), random.nextInt(4) > 0));
          Collections.shuffle(wishes, random);
          arrangement = arrangement.withPlugins(wishes);
        }
        case 3 -> world.file(i, "data/textures/mesh" + random.nextInt(3) + ".nif", "m");
        default -> arrangement = arrangement.withDecisions(decided());
      }
    }

    private Map<String, Map<String, Decided>> decided() {
      Map<String, Map<String, Decided>> words = new HashMap<>(arrangement.decisions());
      RecordIndex index = TestWorld.index(plugins, Set.of());
      int r = random.nextInt(index.size());
      if (words.remove(index.key(r).toString()) == null)
        words.put(index.key(r).toString(), Map.of("speed", Decided.take(plugins.get(0).name())));
      return words;
    }

    private static void agree(Workspace now, int step) {
      Workspace anew =
          new Workspace(
              now.game(),
              now.gameVersion(),
              now.files(),
              now.former(),
              now.picture(),
              Memo.ofItsOwn());
      String as = "step " + step;
      assertThat(told(now.get(RECORDS).index())).as(as).isEqualTo(told(anew.get(RECORDS).index()));
      assertThat(told(now.get(COLLISIONS))).as(as).isEqualTo(told(anew.get(COLLISIONS)));
      assertThat(now.get(FINDINGS)).as(as).isEqualTo(anew.get(FINDINGS));
      for (long mod : now.mods().keySet())
        assertThat(now.get(HARMLESS).contains(mod)).isEqualTo(anew.get(HARMLESS).contains(mod));
    }

    private static List<String> told(RecordIndex index) {
      return IntStream.range(0, index.size())
          .mapToObj(r -> index.key(r) + " " + index.versions(r))
          .toList();
    }

    private static List<String> told(Collisions all) {
      return IntStream.range(0, all.size())
          .mapToObj(
              i ->
                  all.index().key(all.record(i))
                      + " "
                      + all.state(i)
                      + " "
                      + all.lost(i)
                      + " "
                      + all.asked(i)
                      + " "
                      + all.wantsPatch(i)
                      + all.decisionsOn(all.record(i)))
          .toList();
    }
  }

  @Test
  void no_record_is_indexed_again_when_no_plugin_has_changed() throws IOException {
    TestWorld world = new TestWorld(GAME);
    List<Plugin> plugins = RandomPlugins.of(5, 3);
    for (int i = 0; i < 3; i++)
      world.file(i, "data/" + plugins.get(i).name(), PluginCodec.encode(plugins.get(i)));
    Workspace first = world.workspace(folder, null, world.arrangement());
    RecordIndex index = first.get(RECORDS).index();
    Collisions collisions = first.get(COLLISIONS);
    world.file(8, "data/tables/a.csv", "a").file(9, "data/tables/a.csv", "b");
    Workspace second = world.workspace(folder, first, world.arrangement());
    assertThat(second.get(RECORDS).index()).isSameAs(index);
    assertThat(second.get(COLLISIONS)).isSameAs(collisions);
    Workspace third =
        world.workspace(
            folder,
            second,
            world
                .arrangement()
                .withPlugins(
                    List.of(
                        new Wish(plugins.get(1).name(), false),
                        new Wish(plugins.get(2).name(), true))));
    assertThat(third.get(RECORDS).index().pluginCount()).isEqualTo(2);
    assertThat(third.get(COLLISIONS)).isNotSameAs(collisions);
  }

  @Test
  void a_file_is_located_where_it_was_edited_and_a_replaced_one_of_the_game_among_the_originals()
      throws IOException {
    TestWorld world =
        new TestWorld().file(0, "data/tables/a.csv", "game").file(1, "data/tables/a.csv", "mod");
    Workspace w = world.workspace(folder, null, world.arrangement());
    assertThat(w.locateInPlay("data/tables/a.csv")).hasContent("mod");
    assertThat(w.locate(0, "data/tables/a.csv")).hasContent("game");
    Path kept = Deployer.keptOriginal(GameRoots.of(folder.resolve("game")), "data/tables/a.csv");
    Files.createDirectories(kept.getParent());
    Files.writeString(kept, "original");
    assertThat(w.locate(0, "data/tables/a.csv")).hasContent("original");
    Mod m = w.mods().get(1L);
    Path edited = folder.resolve(m.folder()).resolve("edited/1");
    Files.createDirectories(edited.getParent());
    Files.writeString(edited, "edited");
    Mod with = TestWorld.like(m, m.strand(), Map.of("data/tables/a.csv", "edited/1"));
    FilePlaces places = new FilePlaces(Map.of(1L, with), w.files().bytes(), w.files().tables());
    assertThat(places.locate(1, "data/tables/a.csv")).hasContent("edited");
  }
}
