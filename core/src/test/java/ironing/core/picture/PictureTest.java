package ironing.core.picture;

import static ironing.core.testkit.TestWorld.inPlay;
import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.records.Decided;
import ironing.core.testkit.TestWorld;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class PictureTest {
  private static byte[] naming(String plugin, String... packs) {
    Plugin.Header h =
        new Plugin.Header(
            5,
            List.of(),
            1,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            List.of(packs),
            Map.of());
    return PluginCodec.encode(new Plugin(plugin, h, List.of()));
  }

  private static TestWorld packs() {
    return new TestWorld()
        .packed(0, "data/base.crate", "data/textures/a", "game")
        .packed(1, "data/one.crate", "data/textures/a", "one")
        .packed(2, "data/two.crate", "data/textures/a", "two")
        .file(1, "data/One.plug", naming("One.plug", "one.crate"));
  }

  @Test
  void the_packs_of_nobody_stand_by_layer_above_the_games_own() {
    assertThat(inPlay(packs().picture(packs().arrangement(2)), "data/textures/a"))
        .isEqualTo("2 in two.crate");
    assertThat(inPlay(packs().picture(packs().arrangement()), "data/textures/a"))
        .isEqualTo("1 in one.crate");
  }

  @Test
  void a_named_pack_stands_where_its_plugin_loads_above_those_of_nobody() {
    Picture p = packs().picture();
    assertThat(inPlay(p, "data/textures/a"))
        .as("two.crate is of a higher layer, but nobody names it")
        .isEqualTo("1 in one.crate");
  }

  @Test
  void a_named_pack_is_not_read_while_its_plugin_is_off() {
    Picture p = packs().wish("One.plug", false).picture();
    assertThat(inPlay(p, "data/textures/a")).isEqualTo("2 in two.crate");
    assertThat(p.packInPlay("one.crate")).as("its file is there all the same").isTrue();
  }

  @Test
  void any_loose_file_stands_before_any_packed_one() {
    Picture p = packs().file(0, "data/textures/a", "loose, of the game").picture();
    assertThat(inPlay(p, "DATA/Textures/A")).isEqualTo("0");
  }

  @Test
  void among_named_packs_the_load_order_decides_and_within_a_plugin_its_header() {
    TestWorld w =
        new TestWorld()
            .packed(1, "data/p.crate", "data/textures/x", "p")
            .packed(1, "data/q.crate", "data/textures/x", "q")
            .packed(2, "data/r.crate", "data/textures/x", "r")
            .file(1, "data/Early.plug", naming("Early.plug", "q.crate", "p.crate"))
            .file(2, "data/Late.plug", naming("Late.plug", "r.crate"));
    assertThat(inPlay(w.picture(w.arrangement(1)), "data/textures/x")).isEqualTo("1 in p.crate");
    assertThat(inPlay(w.picture(), "data/textures/x")).isEqualTo("2 in r.crate");
    assertThat(
            inPlay(w.wish("Late.plug", true).wish("Early.plug", true).picture(), "data/textures/x"))
        .isEqualTo("1 in p.crate");
  }

  @Test
  void a_pack_that_another_layer_covers_is_not_read() {
    TestWorld w =
        new TestWorld()
            .packed(1, "data/same.crate", "data/textures/one", "1")
            .packed(2, "data/same.crate", "data/textures/two", "2");
    assertThat(inPlay(w.picture(), "data/textures/one")).isEqualTo("nobody");
    assertThat(inPlay(w.picture(), "data/textures/two")).isEqualTo("2 in same.crate");
  }

  @Test
  void what_the_unmodded_game_reads_is_told_by_its_own_plugins_whatever_mods_do() {
    TestWorld w =
        new TestWorld()
            .packed(0, "data/first.crate", "data/textures/a", "read by the game")
            .packed(0, "data/second.crate", "data/textures/a", "covered by it")
            .packed(0, "data/second.crate", "data/textures/b", "only here")
            .file(0, "data/Base.plug", naming("Base.plug", "second.crate", "first.crate"));
    Picture alone = w.picture();
    int a = alone.holdings().idOf("data/textures/a");
    assertThat(alone.standing().isContested(a)).as("no mod has it").isFalse();
    assertThat(alone.standing().contested()).isEmpty();
    Picture modded =
        w.packed(1, "data/first.crate", "data/textures/c", "in the place of the game's pack")
            .file(2, "data/textures/a", "of a mod")
            .picture();
    for (Picture p : List.of(alone, modded)) {
      int slot = p.unmodded(p.holdings().idOf("data/textures/a"));
      assertThat(p.holdings().holderAt(slot).pack()).contains("data/first.crate");
      assertThat(p.holdings().holderAt(slot).mod()).isZero();
    }
    assertThat(modded.unmodded(modded.holdings().idOf("data/textures/c"))).isEqualTo(-1);
    assertThat(modded.standing().isContested(modded.holdings().idOf("data/textures/a"))).isTrue();
  }

  @Test
  void a_switched_off_layer_takes_its_plugins_along() {
    TestWorld w =
        new TestWorld()
            .plugin(0, "Base.plug", 0)
            .plugin(1, "One.plug", 5, "Base.plug")
            .plugin(2, "Two.plug", 5, "Base.plug");
    assertThat(w.picture().loadOrder().entries())
        .extracting(Entry::name)
        .containsExactly("Base.plug", "One.plug", "Two.plug");
    Picture less =
        w.picture()
            .rearranged(
                w.arrangement()
                    .withLayers(
                        List.of(new Arrangement.Layer(1, false), new Arrangement.Layer(2, true))));
    assertThat(less.loadOrder().entries())
        .extracting(Entry::name)
        .containsExactly("Base.plug", "Two.plug");
  }

  @Property(tries = 200, seed = "8160")
  void rearranging_gives_what_starting_anew_would(@ForAll long seed) {
    TestWorld w =
        packs()
            .file(2, "data/textures/b", "2")
            .file(1, "data/textures/b", "1")
            .plugin(2, "Two.plug", 5);
    Random random = new Random(seed);
    Picture p = w.picture();
    for (int i = 0; i < 3; i++) {
      List<Arrangement.Layer> layers =
          new ArrayList<>(
              List.of(
                  new Arrangement.Layer(1, random.nextBoolean()),
                  new Arrangement.Layer(2, random.nextBoolean())));
      Collections.shuffle(layers, random);
      Arrangement next = w.arrangement().withLayers(layers);
      p = p.rearranged(next);
      Picture anew = w.picture(next);
      for (int path = 0; path < p.holdings().pathCount(); path++)
        assertThat(p.standing().inPlay(path)).isEqualTo(anew.standing().inPlay(path));
      assertThat(p.loadOrder().entries()).isEqualTo(anew.loadOrder().entries());
    }
  }

  /** Installing, removing and editing, in words that know no ids. */
  @Property(tries = 300, seed = "8160")
  void files_that_changed_give_what_starting_anew_would(@ForAll long seed) {
    Random random = new Random(seed);
    TestWorld w = packs();
    Picture grown = w.picture();
    for (int step = 0; step < 5; step++) {
      long mod = random.nextInt(5);
      w.without(mod);
      if (mod == 0) w.plugin(0, "Base.plug", 0);
      for (String path : List.of("data/textures/b", "data/TEXTURES/B", "data/textures/c"))
        if (random.nextInt(3) == 0) w.file(mod, path, "content " + random.nextInt(2));
      if (random.nextBoolean()) w.plugin(mod, "P" + random.nextInt(3) + ".plug", 5);
      if (random.nextInt(3) == 0)
        w.packed(mod, "data/p" + random.nextInt(2) + ".crate", "data/textures/b", "packed");
      Arrangement next = random(w.arrangement(), random);
      grown = w.over(grown, next, Set.of(mod));
      assertThat(told(grown)).isEqualTo(told(w.picture(next)));
    }
  }

  private static Arrangement random(Arrangement of, Random random) {
    List<Arrangement.Layer> layers = new ArrayList<>(of.layers());
    Collections.shuffle(layers, random);
    layers.replaceAll(l -> l.withOn(random.nextInt(4) > 0));
    Arrangement next = of.withLayers(layers);
    if (random.nextInt(3) == 0 && !layers.isEmpty())
      next = next.withHeldBack(layers.get(0).mod(), Set.of("data/textures/"));
    if (random.nextInt(2) == 0)
      next =
          next.withRulings(
              List.of(
                  new Arrangement.Ruling("data/textures/*", random.nextInt(5)),
                  new Arrangement.Ruling("data/textures/c", random.nextInt(5))));
    return next;
  }

  private static Map<String, Object> told(Picture p) {
    Holdings h = p.holdings();
    Map<String, Object> told = new TreeMap<>();
    for (int path = 0; path < h.pathCount(); path++) {
      if (!h.isHeld(path)) continue;
      List<String> holders = new ArrayList<>();
      for (int slot : p.standing().holders(path)) holders.add(word(h, slot));
      int unmodded = p.unmodded(path), top = p.standing().inPlay(path);
      String spelled = top < 0 ? "" : p.spelling().of(path) + " " + word(h, top);
      told.put(
          h.path(path),
          List.of(
              holders,
              spelled,
              p.standing().isRuled(path),
              p.standing().isContested(path),
              unmodded < 0 ? "" : word(h, unmodded)));
    }
    Map<Long, List<Integer>> counts = new TreeMap<>();
    for (Holdings.Source s : h.sources())
      for (Standing.Way way : Standing.Way.values())
        counts
            .computeIfAbsent(s.mod(), m -> new ArrayList<>())
            .add(p.standing().count(s.id(), way));
    told.put("counts", counts);
    told.put("plugins", p.loadOrder().entries());
    return told;
  }

  private static String word(Holdings h, int slot) {
    return h.holderAt(slot).mod() + " " + h.holderAt(slot).pack() + " " + h.shaAt(slot);
  }

  @Test
  void a_difference_names_files_plugins_and_order() {
    TestWorld w =
        new TestWorld()
            .plugin(0, "Base.plug", 0)
            .file(1, "data/textures/a", "1")
            .file(2, "data/textures/a", "2")
            .file(2, "data/textures/twin", "t")
            .file(1, "data/textures/twin", "t")
            .plugin(1, "One.plug", 5)
            .plugin(2, "Two.plug", 5);
    Picture now = w.picture(w.arrangement(1, 2));
    Difference swapped = Difference.between(now, now.rearranged(w.arrangement(2, 1)));
    assertThat(swapped.files())
        .as("a twin is no difference")
        .singleElement()
        .satisfies(c -> assertThat(now.holdings().path(c.path())).isEqualTo("data/textures/a"));
    assertThat(swapped.orderChanges()).isTrue();
    Difference off = Difference.between(now, now.rearranged(w.arrangement(1)));
    assertThat(off.pluginsGo()).containsExactly("Two.plug");
    assertThat(off.pluginsCome()).isEmpty();
    assertThat(off.orderChanges()).isFalse();
    assertThat(Difference.between(now, now.rearranged(w.arrangement(1, 2))).isNone()).isTrue();
  }

  @Test
  void decisions_are_kept_and_an_empty_one_is_taken_out() {
    Arrangement a =
        new TestWorld()
            .arrangement()
            .withDecisions("Base.plug/1", Map.of("speed", Decided.take("One.plug")));
    assertThat(a.decisionsOn("Base.plug/1")).containsEntry("speed", Decided.take("One.plug"));
    assertThat(a.withDecisions("Base.plug/1", Map.of()).decisions()).isEmpty();
    assertThat(a.withLayers(List.of()).withPlugins(List.of()).decisions()).isEqualTo(a.decisions());
  }

  private static TestWorld three() {
    return new TestWorld()
        .file(0, "data/tables/a.csv", "game")
        .file(1, "data/tables/a.csv", "one")
        .file(1, "data/tables/b.csv", "one")
        .file(2, "Data/Tables/A.csv", "two")
        .file(2, "data/tables/b.csv", "two")
        .packed(3, "data/three.crate", "data/tables/a.csv", "three");
  }

  private static Picture ruled(TestWorld w, Arrangement.Ruling... rulings) {
    return w.picture(w.arrangement().withRulings(List.of(rulings)));
  }

  @Test
  void a_ruling_puts_a_file_in_play_whatever_the_order_says() {
    Picture p = ruled(three(), new Arrangement.Ruling("data/tables/A.CSV", 1));
    assertThat(inPlay(p, "data/tables/a.csv")).isEqualTo("1");
    assertThat(inPlay(p, "data/tables/b.csv")).isEqualTo("2");
    assertThat(
            inPlay(
                ruled(three(), new Arrangement.Ruling("data/tables/a.csv", 0)),
                "data/tables/a.csv"))
        .as("the game's own")
        .isEqualTo("0");
    assertThat(
            inPlay(
                ruled(three(), new Arrangement.Ruling("data/tables/a.csv", 3)),
                "data/tables/a.csv"))
        .as("a packed one, above loose ones")
        .isEqualTo("3 in three.crate");
  }

  @Test
  void of_rulings_the_one_of_the_very_path_decides_else_the_last_whose_mod_is_on() {
    TestWorld w = three();
    Arrangement.Ruling folder = new Arrangement.Ruling("data/tables/", 1);
    Picture p =
        ruled(
            w,
            new Arrangement.Ruling("data/tables/a.csv", 2),
            new Arrangement.Ruling("**/*.csv", 0),
            folder);
    assertThat(inPlay(p, "data/tables/a.csv")).isEqualTo("2");
    assertThat(inPlay(p, "data/tables/b.csv")).isEqualTo("1");
    Arrangement off =
        p.arrangement()
            .withLayers(
                p.arrangement().layers().stream().map(l -> l.withOn(l.mod() != 2)).toList());
    assertThat(inPlay(p.rearranged(off), "data/tables/a.csv")).isEqualTo("1");
    assertThat(inPlay(p.rearranged(off).rearranged(p.arrangement()), "data/tables/a.csv"))
        .isEqualTo("2");
  }

  @Test
  void a_version_that_takes_the_place_of_another_has_its_section_rulings_and_what_was_held_back() {
    Arrangement a =
        Arrangement.EMPTY
            .withLayers(
                List.of(new Arrangement.Layer(1, true, 7, true), new Arrangement.Layer(2, false)),
                List.of(new Arrangement.Section(7, "Looks"), new Arrangement.Section(8, "Empty")))
            .withHeldBack(1, Set.of("x"))
            .withRulings(List.of(new Arrangement.Ruling("data/", 1)));
    Arrangement next = a.withInstead(1, 5);
    assertThat(next.layers().get(0)).isEqualTo(new Arrangement.Layer(5, true, 7, true));
    assertThat(next.rulings()).containsExactly(new Arrangement.Ruling("data/", 5));
    assertThat(next.heldBack()).containsOnlyKeys(5L);
    assertThat(next.sections())
        .as("a section with no layer is gone")
        .extracting("name")
        .containsExactly("Looks");
  }

  @Test
  void a_layer_whose_section_has_gone_is_in_none() {
    Arrangement a =
        Arrangement.EMPTY.withLayers(
            List.of(
                new Arrangement.Layer(1, true, 7, false), new Arrangement.Layer(2, true, 8, false)),
            List.of(new Arrangement.Section(8, "Looks")));
    assertThat(a.layers()).extracting(Arrangement.Layer::section).containsExactly(0L, 8L);
  }
}
