package ironing.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.path.PathPattern;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.RuledPaths.Count;
import ironing.core.testkit.TestWorld;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class RuledPathsTest {
  private static final List<String> PATHS =
      List.of("data/textures/a", "data/textures/b", "data/textures/a[1]", "data/tables/t");
  private static final List<String> TEXTS =
      List.of(
          "data/textures/a",
          "DATA/textures/B",
          "data/textures/a[1]",
          "data/textures/",
          "data/textures/*",
          "**",
          "nowhere/*");

  private static TestWorld world(Random random) {
    TestWorld w = new TestWorld();
    for (long mod = 0; mod < 4; mod++)
      for (String p : PATHS)
        if (random.nextInt(3) > 0) w.file(mod, p, "content " + random.nextInt(2));
    return w;
  }

  private static List<Ruling> rulings(Random random) {
    List<Ruling> rulings = new ArrayList<>();
    for (String text : TEXTS)
      if (random.nextBoolean()) rulings.add(new Ruling(text, random.nextInt(4)));
    return rulings;
  }

  /** Beside the plain way: a picture for each ruling alone says where it speaks. */
  @Property(tries = 500, seed = "8160")
  void each_ruling_speaks_where_it_would_decide_alone(@ForAll long seed) {
    Random random = new Random(seed);
    TestWorld w = world(random);
    List<Ruling> rulings = rulings(random);
    Collections.shuffle(rulings, random);
    Arrangement arranged = w.arrangement().withRulings(rulings);
    Picture picture = w.picture(arranged), bare = w.picture(w.arrangement());
    List<Count> counts = new RuledPaths(picture).counts();
    assertThat(counts).hasSize(rulings.size());
    for (int i = 0; i < rulings.size(); i++) {
      Picture alone = w.picture(w.arrangement().withRulings(List.of(rulings.get(i))));
      int changing = 0, needless = 0;
      for (int p = 0; p < picture.holdings().pathCount(); p++) {
        boolean speaks = alone.standing().isRuled(p) && picture.standing().isRuled(p);
        if (!speaks || alone.standing().inPlay(p) != picture.standing().inPlay(p)) continue;
        if (bare.standing().inPlay(p) == picture.standing().inPlay(p)) needless++;
        else changing++;
      }
      assertThat(counts.get(i))
          .as(rulings.get(i).toString())
          .isEqualTo(new Count(changing, needless));
      assertThat(counts.get(i).isIdle()).isEqualTo(changing + needless == 0);
    }
  }

  @Property(tries = 500, seed = "8160")
  void without_the_ruling_that_decides_another_does_or_none(@ForAll long seed) {
    Random random = new Random(seed);
    TestWorld w = world(random);
    List<Ruling> rulings = rulings(random);
    Picture picture = w.picture(w.arrangement().withRulings(rulings));
    RuledPaths ruled = new RuledPaths(picture);
    for (int p = 0; p < picture.holdings().pathCount(); p++) {
      if (!picture.standing().isRuled(p)) continue;
      Ruling deciding = ruled.deciding(p);
      assertThat(deciding.mod())
          .isEqualTo(picture.holdings().holderAt(picture.standing().inPlay(p)).mod());
      String path = picture.holdings().path(p);
      boolean ofThePath = picture.holdings().idOf(deciding.at()) == p;
      assertThat(
              ofThePath || PathPattern.of(deciding.at(), picture.game().pathCase()).matches(path))
          .isTrue();
    }
  }

  @Test
  void a_ruling_of_a_very_path_is_no_pattern_and_decides_before_one() {
    TestWorld w = new TestWorld();
    for (long mod = 1; mod <= 2; mod++)
      w.file(mod, "data/textures/a[1]", "x" + mod).file(mod, "data/textures/a1", "y" + mod);
    Ruling exact = new Ruling("data/textures/a[1]", 1), wide = new Ruling("data/textures/", 1);
    Picture p = w.picture(w.arrangement().withRulings(List.of(exact, wide)));
    RuledPaths ruled = new RuledPaths(p);
    assertThat(ruled.deciding(p.holdings().idOf("data/textures/a[1]"))).isEqualTo(exact);
    assertThat(ruled.deciding(p.holdings().idOf("data/textures/a1"))).isEqualTo(wide);
    assertThat(ruled.counts()).containsExactly(new Count(1, 0), new Count(2, 0));
  }

  @Test
  void where_no_ruling_speaks_none_decides() {
    TestWorld w = new TestWorld().file(1, "data/textures/a", "x");
    RuledPaths ruled = new RuledPaths(w.picture());
    assertThatThrownBy(() -> ruled.deciding(0)).isInstanceOf(IllegalArgumentException.class);
  }
}
