package ironing.core.trouble;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.loadorder.LoadOrder;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Record;
import ironing.core.plugin.PluginCodec;
import ironing.core.testkit.RandomPlugins;
import ironing.core.testkit.TestWorld;
import ironing.core.testkit.Trees;
import ironing.core.trouble.Part.Level;
import ironing.core.trouble.SearchedInside.Named;
import ironing.core.trouble.SearchedMods.InSets;
import ironing.core.trouble.SearchedMods.MendsOf;
import ironing.core.trouble.Suspicions.Reason;
import ironing.core.workspace.Workspace;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/** Parts left out of random worlds: what stays is as it was, and has what it needs. */
class SearchedPartsTest {
  private static final int MODS = 6;
  private static final MendsOf NO_MENDS = new MendsOf(Map.of(), Map.of(), InSets.KEPT, Set.of());

  private interface Check {
    void of(Random random, Workspace workspace, List<Plugin> plugins) throws IOException;
  }

  private static void inWorld(long seed, Check check) throws IOException {
    Path at = Files.createTempDirectory("searched");
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
      check.of(random, world.workspace(at, null, world.arrangement()), plugins);
    } finally {
      Trees.remove(at);
    }
  }

  private static BitSet some(Random random, int count) {
    BitSet out = new BitSet();
    for (int i = 0; i < count; i++) if (random.nextBoolean()) out.set(i);
    return out;
  }

  private static Set<String> masters(Picture picture) {
    Set<String> out = new HashSet<>();
    for (LoadOrder.Entry e : picture.loadOrder().entries())
      if (e.on()) out.add(PathCase.fold(e.name()));
    return out;
  }

  @Property(tries = 60, seed = "2501")
  void a_closed_set_of_mods_has_every_master_that_was_there(@ForAll long seed) throws IOException {
    inWorld(
        seed,
        (random, w, plugins) -> {
          Arrangement base = w.picture().arrangement();
          SearchedParts searched = SearchedMods.of(w, NO_MENDS, Map.of(), Set.of(), false);
          BitSet set = searched.members().closure(some(random, searched.parts().size()));
          Arrangement arranged = searched.arranged(base, set);
          assertThat(arranged.layers().stream().map(Layer::mod))
              .as("who stands where")
              .containsExactlyElementsOf(base.layers().stream().map(Layer::mod).toList());
          Picture picture = w.picture().rearranged(arranged);
          Set<String> was = masters(w.picture()), is = masters(picture);
          for (LoadOrder.Entry e : picture.loadOrder().entries())
            for (String m : e.plugin().masters())
              if (e.on() && was.contains(PathCase.fold(m)))
                assertThat(is).contains(PathCase.fold(m));
          assertThat(searched.arranged(base, searched.members().all()).layers())
              .isEqualTo(base.layers());
        });
  }

  @Property(tries = 60, seed = "2505")
  void what_the_fault_is_about_is_in_play_in_every_set_with_what_it_needs(@ForAll long seed)
      throws IOException {
    inWorld(
        seed,
        (random, w, plugins) -> {
          SearchedParts all = SearchedMods.of(w, NO_MENDS, Map.of(), Set.of(), false);
          int about = random.nextInt(all.parts().size());
          Set<Long> always = new HashSet<>();
          all.members().withNeeds(about).stream()
              .forEach(m -> always.add(all.parts().get(m).mod()));
          long mod = all.parts().get(about).mod();
          SearchedParts searched = SearchedMods.of(w, NO_MENDS, Map.of(), Set.of(mod), false);
          assertThat(searched.always()).containsExactlyInAnyOrderElementsOf(always);
          BitSet set = searched.members().closure(some(random, searched.parts().size()));
          Set<Long> on = new HashSet<>(always);
          set.stream().forEach(m -> on.add(searched.parts().get(m).mod()));
          for (Layer l : searched.arranged(w.picture().arrangement(), set).layers())
            assertThat(l.on()).isEqualTo(on.contains(l.mod()));
          // the same set of the search that may leave out all is closed
          BitSet same = new BitSet();
          for (int i = 0; i < all.parts().size(); i++)
            if (on.contains(all.parts().get(i).mod())) same.set(i);
          assertThat(all.members().isClosed(same)).isTrue();
        });
  }

  @Property(tries = 60, seed = "2502")
  void of_files_just_those_are_held_back_that_are_left_out(@ForAll long seed) throws IOException {
    inWorld(
        seed,
        (random, w, plugins) -> {
          List<Long> mods = w.picture().arrangement().layers().stream().map(Layer::mod).toList();
          SearchedParts files = SearchedInside.files(w, mods, Named.NOTHING);
          BitSet set = some(random, files.parts().size());
          Picture picture = w.picture().rearranged(files.arranged(w.picture().arrangement(), set));
          for (int i = 0; i < files.parts().size(); i++) {
            Part p = files.parts().get(i);
            int id = picture.holdings().idOf(p.path());
            int slot = picture.holdings().slotOfMod(id, p.mod());
            assertThat(picture.standing().isHeldBack(slot)).isEqualTo(!set.get(i));
          }
        });
  }

  @Property(tries = 60, seed = "2503")
  void of_records_and_fields_the_plugin_has_just_those_that_are_kept(@ForAll long seed)
      throws IOException {
    inWorld(
        seed,
        (random, w, plugins) -> {
          Plugin plugin = plugins.get(random.nextInt(plugins.size()));
          long mod = w.picture().loadOrder().find(plugin.name()).orElseThrow().plugin().mod();
          Part file = Part.ofFile(mod, "data/" + plugin.name());
          SearchedParts records = SearchedInside.records(w, List.of(file), Named.NOTHING);
          BitSet set = some(random, records.parts().size());
          assertThat(records(w, records, List.of(file), set, plugin))
              .containsExactlyInAnyOrderElementsOf(
                  plugin.records().stream()
                      .filter(
                          r ->
                              set.get(records.parts().indexOf(file.withRecord(r.key().toString()))))
                      .toList());
          List<Part> known = new ArrayList<>(List.of(file));
          known.addAll(records.parts());
          SearchedParts fields = SearchedInside.fields(w, records.parts());
          assertThat(records(w, fields, known, fields.members().all(), plugin))
              .as("with all fields it is as it was")
              .containsExactlyInAnyOrderElementsOf(plugin.records());
          BitSet one = new BitSet();
          if (fields.parts().isEmpty()) return;
          one.set(random.nextInt(fields.parts().size()));
          Part kept = fields.parts().get(one.nextSetBit(0));
          for (Record r : records(w, fields, known, one, plugin)) {
            Record was =
                plugin.records().stream()
                    .filter(o -> o.key().equals(r.key()))
                    .findFirst()
                    .orElseThrow();
            if (!r.key().toString().equals(kept.record()) || was.fields().isEmpty()) continue;
            assertThat(r.fields().orElseThrow().map().get(kept.field()))
                .isEqualTo(was.fields().orElseThrow().map().get(kept.field()));
          }
        });
  }

  private static List<Record> records(
      Workspace w, SearchedParts searched, List<Part> known, BitSet set, Plugin plugin)
      throws IOException {
    byte[] bytes = SearchedInside.contents(w, searched, known, set).get("data/" + plugin.name());
    return PluginCodec.decode(plugin.name(), bytes).plugin().records();
  }

  @Property(tries = 40, seed = "2504")
  void two_that_are_swapped_stand_in_each_others_places(@ForAll long seed) throws IOException {
    inWorld(
        seed,
        (random, w, plugins) -> {
          Arrangement base = w.picture().arrangement();
          SearchedParts mods = SearchedMods.of(w, NO_MENDS, Map.of(), Set.of(), false);
          SearchedParts order = SearchedInside.order(w, mods.parts(), mods);
          for (Part p : order.parts()) {
            BitSet all = order.members().all();
            all.clear(order.parts().indexOf(p));
            List<Long> was = base.layers().stream().map(Layer::mod).toList();
            List<Long> is = order.arranged(base, all).layers().stream().map(Layer::mod).toList();
            assertThat(is.indexOf(p.mod())).isEqualTo(was.indexOf(p.above()));
            assertThat(is.indexOf(p.above())).isEqualTo(was.indexOf(p.mod()));
            assertThat(is).containsExactlyInAnyOrderElementsOf(was);
          }
          assertThat(order.arranged(base, order.members().all())).isEqualTo(base);
          assertThat(order.level()).isEqualTo(Level.ORDER);
        });
  }

  @Property(tries = 40, seed = "2505")
  void suspects_are_those_that_changed_and_those_that_hold_what_is_named(@ForAll long seed)
      throws IOException {
    inWorld(
        seed,
        (random, w, plugins) -> {
          Arrangement now = w.picture().arrangement();
          List<Layer> then = new ArrayList<>(now.layers());
          Layer come = then.get(random.nextInt(then.size()));
          then.replaceAll(l -> l.mod() == come.mod() ? l.withOn(false) : l);
          int path = random.nextInt(w.picture().holdings().pathCount());
          String named = w.picture().holdings().path(path);
          Map<Long, Set<Reason>> found =
              Suspects.of(
                  w,
                  new Suspects.Known(
                      Optional.of(now.withLayers(then)), new Named(named, "", ""), Map.of()));
          for (Layer l : now.layers()) {
            if (l.mod() == 0) continue;
            Set<Reason> reasons = found.getOrDefault(l.mod(), Set.of());
            assertThat(reasons.contains(Reason.CHANGED)).isEqualTo(l.mod() == come.mod());
            int slot = w.picture().holdings().slotOfMod(path, l.mod());
            boolean inPlay = slot >= 0 && w.picture().standing().inPlay(path) == slot;
            assertThat(reasons.contains(Reason.NAMED)).isEqualTo(inPlay);
            assertThat(reasons.contains(Reason.MEETS_NAMED)).isEqualTo(slot >= 0 && !inPlay);
          }
        });
  }
}
