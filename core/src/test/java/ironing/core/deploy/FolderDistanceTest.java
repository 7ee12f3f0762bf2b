package ironing.core.deploy;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.FolderDistance.Count;
import ironing.core.deploy.LaidOut.How;
import ironing.core.deploy.WantedFiles.Setting;
import ironing.core.layers.Holdings;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.Picture;
import ironing.core.testkit.TestWorld;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

class FolderDistanceTest {
  private static final List<String> PATHS =
      List.of(
          "data/textures/a.png",
          "data/textures/b.png",
          "data/tables/c.csv",
          "settings/own.ini",
          "settings/more.ini",
          "saves/day.json");

  private static TestWorld world(Random random) {
    TestWorld w = new TestWorld().plugin(0, "Base.plug", 5);
    for (long mod = 0; mod <= 4; mod++) fill(w, mod, random);
    return w;
  }

  private static void fill(TestWorld w, long mod, Random random) {
    for (String path : PATHS)
      if (random.nextInt(2) == 0) w.file(mod, path, "content " + random.nextInt(3));
    if (mod > 0 && random.nextBoolean()) w.plugin(mod, "P" + random.nextInt(2) + ".plug", 5);
    if (random.nextInt(3) == 0)
      w.packed(mod, "data/pack" + mod + ".crate", "data/textures/a.png", "packed");
  }

  /** Other files of one mod, or of the game. */
  private static Picture changed(TestWorld w, Picture picture, Random random) {
    long mod = random.nextInt(5);
    w.without(mod);
    fill(w, mod, random);
    return w.over(picture, arrangement(w.arrangement(), random), Set.of(mod));
  }

  private static Arrangement arrangement(Arrangement base, Random random) {
    List<Layer> layers = new ArrayList<>(base.layers());
    Collections.shuffle(layers, random);
    layers.replaceAll(l -> l.withOn(random.nextInt(4) > 0));
    Arrangement next = base.withLayers(layers);
    if (random.nextInt(3) == 0 && !layers.isEmpty())
      next = next.withHeldBack(layers.get(0).mod(), Set.of("data/textures/"));
    if (random.nextInt(3) == 0)
      next = next.withRulings(List.of(new Ruling(PATHS.get(0), random.nextInt(5))));
    return next;
  }

  /** The plain way: all that is wanted beside all that is laid out. */
  private static Count plainly(
      Picture picture, LaidOut laidOut, List<Setting> settings, List<PathPattern> byTools) {
    Holdings holdings = picture.holdings();
    Map<String, LaidOut.Item> left = new HashMap<>(laidOut.files());
    int add = 0, replace = 0;
    for (Wanted w : WantedFiles.of(picture, m -> "mod " + m, settings, byTools)) {
      LaidOut.Item item = left.remove(w.path());
      boolean unsafe = w.mustCopy() && item != null && item.how() == How.LINK;
      if (item != null && !unsafe && item.sha256().equals(w.sha256())) continue;
      int id = holdings.idOf(w.path());
      boolean ofGame =
          id >= 0
              && holdings.sourcesOf(id).stream()
                  .anyMatch(s -> s.mod() == Holdings.GAME && s.pack().isEmpty());
      if (item != null || ofGame) replace++;
      else add++;
    }
    return new Count(add, replace, left.size());
  }

  private static LaidOut laidOut(Picture picture, List<Setting> settings, Random random) {
    Map<String, LaidOut.Item> files = new HashMap<>();
    for (Wanted w : WantedFiles.of(picture, m -> "mod " + m, settings, List.of())) {
      if (random.nextInt(6) == 0) continue;
      String sha = random.nextInt(6) == 0 ? "0".repeat(64) : w.sha256();
      files.put(
          w.path(),
          new LaidOut.Item(
              w.path(),
              sha,
              w.sizeBytes(),
              w.mod(),
              w.from(),
              random.nextInt(4) == 0 ? How.LINK : How.COPY,
              Optional.empty()));
    }
    return new LaidOut("then", files, List.of(), Optional.empty());
  }

  @Property(tries = 1500, seed = "8160")
  void kept_as_a_difference_it_is_what_the_plain_way_finds(@ForAll long seed) {
    Random random = new Random(seed);
    TestWorld w = world(random);
    List<Setting> settings =
        random.nextBoolean()
            ? List.of()
            : List.of(
                new Setting("settings/own.ini", "mine".getBytes(UTF_8)),
                new Setting("settings/new.ini", "made".getBytes(UTF_8)));
    List<PathPattern> byTools =
        random.nextBoolean()
            ? List.of()
            : List.of(
                PathPattern.of(PATHS.get(random.nextInt(PATHS.size())), PathCase.INSENSITIVE));
    Picture picture = w.picture();
    LaidOut laidOut =
        random.nextInt(4) == 0
            ? LaidOut.nothing()
            : laidOut(picture.rearranged(arrangement(w.arrangement(), random)), settings, random);
    FolderDistance distance = new FolderDistance(picture, laidOut, byTools);
    for (int step = 0; step < 5; step++) {
      assertThat(distance.isOf(picture, laidOut)).isTrue();
      assertThat(distance.of(picture, settings))
          .as("step %d", step)
          .isEqualTo(plainly(picture, laidOut, settings, byTools));
      picture =
          random.nextInt(3) == 0
              ? changed(w, picture, random)
              : picture.rearranged(arrangement(w.arrangement(), random));
    }
  }
}
