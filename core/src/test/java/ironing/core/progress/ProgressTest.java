package ironing.core.progress;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.LaidOut;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.progress.Progress.OfMod;
import ironing.core.progress.Progress.Reached;
import ironing.core.testkit.TestWorld;
import ironing.core.testrun.RunLog;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class ProgressTest {
  private static TestWorld world() {
    return new TestWorld()
        .plugin(0, "Base.plug", 0)
        .file(1, "data/textures/a", "a")
        .file(1, "data/textures/b", "b")
        .plugin(1, "One.plug", 5);
  }

  private static LaidOut laidOut(TestWorld w, String... paths) {
    Map<String, LaidOut.Item> files = new HashMap<>();
    for (String p : paths)
      files.put(
          p,
          new LaidOut.Item(
              p, ContentHash.of(w.content(1, p)), 1, 1, "Mod", LaidOut.How.LINK, Optional.empty()));
    return new LaidOut("then", files, List.of(), Optional.empty());
  }

  private static Optional<RunLog.Summary> run(TestWorld w, String... paths) {
    List<String> lines = new ArrayList<>();
    for (String p : paths)
      lines.add(
          "{\"event\":\"read\",\"path\":\""
              + p.toUpperCase(Locale.ROOT)
              + "\",\"sha256\":\""
              + ContentHash.of(w.content(1, p))
              + "\"}");
    lines.add("{\"event\":\"read\",\"plugin\":\"one.plug\",\"slot\":2}");
    return Optional.of(RunLog.summarise(lines));
  }

  @Test
  void a_mod_goes_from_the_library_to_the_game() {
    TestWorld w = world();
    Picture p = w.picture();
    String[] all = {"data/textures/a", "data/textures/b", "data/One.plug"};
    assertThat(new Progress(p, LaidOut.nothing(), Optional.empty(), false).mod(1).reached())
        .isEqualTo(Reached.ON);
    assertThat(new Progress(p, laidOut(w, "data/textures/a"), Optional.empty(), false).mod(1))
        .isEqualTo(new OfMod(true, 3, 1, Optional.empty()));
    assertThat(new Progress(p, laidOut(w, all), Optional.empty(), true).mod(1).reached())
        .isEqualTo(Reached.DEPLOYED);
    OfMod read = new Progress(p, laidOut(w, all), run(w, "data/textures/b"), true).mod(1);
    assertThat(read).isEqualTo(new OfMod(true, 3, 3, Optional.of(1)));
    assertThat(read.reached()).isEqualTo(Reached.READ);
  }

  /** Kept as a difference it is what a fresh look finds. */
  @Property(tries = 500, seed = "8160")
  void another_arrangement_is_as_if_looked_at_anew(@ForAll long seed) {
    Random random = new Random(seed);
    TestWorld w = world();
    for (long mod = 0; mod <= 4; mod++) {
      for (String p : List.of("data/textures/a", "data/textures/b", "data/textures/c"))
        if (random.nextBoolean() && mod != 1) w.file(mod, p, "content " + random.nextInt(2));
      if (random.nextBoolean())
        w.packed(mod, "data/p" + mod + ".crate", "data/textures/d", "packed " + mod);
    }
    LaidOut laidOut = laidOut(w, "data/textures/a", "data/One.plug");
    Optional<RunLog.Summary> run =
        random.nextBoolean() ? Optional.empty() : run(w, "data/textures/a", "data/textures/b");
    Picture picture = w.picture();
    Progress kept = new Progress(picture, laidOut, run, true);
    for (int step = 0; step < 4; step++) {
      List<Arrangement.Layer> layers = new ArrayList<>(w.arrangement().layers());
      Collections.shuffle(layers, random);
      layers.replaceAll(l -> l.withOn(random.nextInt(4) > 0));
      Arrangement next = picture.arrangement().withLayers(layers);
      long changed = 2L + random.nextInt(3);
      if (random.nextBoolean()) {
        picture = picture.rearranged(next);
      } else {
        w.without(changed).file(changed, "data/textures/" + "abe".charAt(step % 3), "other");
        if (random.nextBoolean())
          w.packed(changed, "data/p" + changed + ".crate", "data/textures/d", "other");
        picture = w.over(picture, next, Set.of(changed));
      }
      assertThat(kept.leadsTo(picture)).isTrue();
      kept = kept.rearranged(picture, true);
      Progress fresh = new Progress(picture, laidOut, run, true);
      for (long mod = 1; mod <= 4; mod++) assertThat(kept.mod(mod)).isEqualTo(fresh.mod(mod));
      for (String plugin : List.of("One.plug", "Base.plug"))
        assertThat(kept.plugin(plugin)).isEqualTo(fresh.plugin(plugin));
    }
  }

  @Test
  void without_a_log_it_cannot_be_told_and_that_is_not_no() {
    TestWorld w = world();
    assertThat(
            new Progress(w.picture(), laidOut(w, "data/textures/a"), Optional.empty(), true)
                .mod(1)
                .read())
        .isEmpty();
    assertThat(new Progress(w.picture(), laidOut(w, "data/textures/a"), run(w), true).mod(1).read())
        .contains(0);
  }

  @Test
  void a_switched_off_mod_is_in_the_library_whatever_lies_in_the_folder() {
    TestWorld w = world();
    Picture off = w.picture(w.arrangement().withLayers(List.of(new Arrangement.Layer(1, false))));
    assertThat(
            new Progress(off, laidOut(w, "data/textures/a"), Optional.empty(), true)
                .mod(1)
                .reached())
        .isEqualTo(Reached.LIBRARY);
    assertThat(new Progress(off, laidOut(w), Optional.empty(), true).mod(99).reached())
        .isEqualTo(Reached.LIBRARY);
  }

  @Test
  void a_plugin_is_there_when_its_file_and_the_list_are() {
    TestWorld w = world();
    LaidOut there = laidOut(w, "data/One.plug");
    assertThat(
            new Progress(w.picture(), there, Optional.empty(), false).plugin("ONE.plug").reached())
        .isEqualTo(Reached.ON);
    assertThat(
            new Progress(w.picture(), there, Optional.empty(), true).plugin("One.plug").reached())
        .isEqualTo(Reached.DEPLOYED);
    assertThat(new Progress(w.picture(), there, run(w), true).plugin("One.plug").slot())
        .contains(2);
    assertThat(
            new Progress(w.picture(), LaidOut.nothing(), Optional.empty(), false)
                .plugin("Base.plug")
                .reached())
        .as("the game's own needs no list")
        .isEqualTo(Reached.DEPLOYED);
  }

  @Test
  void another_content_than_now_was_not_read() {
    TestWorld w = world();
    List<String> lines =
        List.of(
            "{\"event\":\"read\",\"path\":\"data/textures/a\",\"sha256\":\"other\"}",
            "{\"event\":\"read\",\"path\":\"data/One.plug\",\"sha256\":\"other\",\"plugin\":\"One.plug\",\"slot\":1}");
    Progress j =
        new Progress(
            w.picture(),
            laidOut(w, "data/textures/a", "data/One.plug"),
            Optional.of(RunLog.summarise(lines)),
            true);
    assertThat(j.mod(1).read()).contains(0);
    assertThat(j.plugin("One.plug").slot()).isEmpty();
  }

  @Test
  void what_is_in_a_pack_is_there_when_the_pack_is() {
    TestWorld w = new TestWorld().packed(1, "data/one.crate", "data/textures/x", "x");
    assertThat(
            new Progress(w.picture(), LaidOut.nothing(), Optional.empty(), true).mod(1).deployed())
        .isZero();
    assertThat(
            new Progress(w.picture(), laidOut(w, "data/one.crate"), Optional.empty(), true).mod(1))
        .isEqualTo(new OfMod(true, 2, 2, Optional.empty()));
  }
}
