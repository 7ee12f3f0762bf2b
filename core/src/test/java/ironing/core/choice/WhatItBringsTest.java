package ironing.core.choice;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.choice.ChoiceAnswer.Found;
import ironing.core.choice.ChoiceAnswer.Member;
import ironing.core.choice.ChoiceAnswer.None;
import ironing.core.choice.ChoiceAnswer.WhichVariant;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class WhatItBringsTest {
  private static final Duration LONG = Duration.ofSeconds(60);

  @Property(tries = 6_000, seed = "24")
  void is_the_best_of_all_sets(@ForAll long seed) {
    RandomWorld world = new RandomWorld(new Random(seed), 5, 3);
    ChoiceQuestion question = world.question();
    AllSets all = new AllSets(question, world.byMod);
    ChoiceAnswer answer = WhatItBrings.answer(question, LONG);
    if (answer instanceof WhichVariant) return;
    Optional<Map<String, Candidate>> best = all.best(question.givenUp());
    if (best.isEmpty()) {
      assertThat(answer).isInstanceOf(None.class);
      smallestContradiction(all, question, (None) answer);
      return;
    }
    assertThat(answer).isInstanceOf(Found.class);
    assertThat(keys(after(world, (Found) answer))).isEqualTo(keys(best.get()));
    assertThat(((Found) answer).best()).isTrue();
    ((Found) answer).off().forEach(o -> assertThat(o.because()).isPresent());
  }

  @Test
  void fewer_newer_releases_are_left_out_rather_than_the_first_mod_be_the_newest() {
    FixedWorld world = new FixedWorld();
    world.offered("wish", "1").needs("a", "*").needs("b", "*");
    world.offered("a", "3").clashes("b", ">=2");
    world.offered("a", "2");
    for (String v : List.of("1", "2", "3")) world.offered("b", v);
    assertThat(world.told("wish")).containsExactly("wish 1 FETCHED", "a 2 FETCHED", "b 3 FETCHED");
  }

  @Test
  void an_older_release_of_a_wish_comes_only_where_no_set_has_the_newest() {
    FixedWorld world = new FixedWorld();
    world.offered("wish", "3").needs("nowhere", "*");
    world.offered("wish", "2").needs("a", ">=2");
    world.offered("wish", "1");
    world.on("other", "1").needs("a", "<2");
    world.on("a", "1");
    world.offered("a", "2");
    assertThat(world.told("wish"))
        .containsExactly("wish 2 FETCHED", "a 2 CHANGED", "- other NEED a <2");
  }

  @Test
  void one_need_is_off_and_one_is_too_old() {
    FixedWorld world = new FixedWorld();
    world.offered("wish", "1").needs("off", ">=1").needs("old", ">=1.2");
    world.off("off", "1.4");
    world.on("old", "1.1");
    world.offered("old", "1.2");
    world.offered("old", "1.3");
    assertThat(world.told("wish"))
        .containsExactly("wish 1 FETCHED", "off 1.4 SWITCHED_ON", "old 1.3 CHANGED");
  }

  @Test
  void what_the_wish_does_not_touch_stays_as_it_is_and_is_named() {
    FixedWorld world = new FixedWorld();
    world.offered("wish", "1");
    world.on("lacking", "1").needs("wish", ">=2");
    world.on("near", "1").needs("nowhere", "*");
    assertThat(world.told("wish")).containsExactly("wish 1 FETCHED", "unmet lacking NEED wish >=2");
  }

  @Test
  void a_contradiction_is_told_with_its_ways_out() {
    FixedWorld world = new FixedWorld();
    world.offered("fog", "2").needs("rope", ">=2");
    world.offered("ledger", "1").needs("rope", "<2");
    world.offered("rope", "1");
    world.offered("rope", "2");
    None none = (None) WhatItBrings.answer(world.question("fog", "ledger"), LONG);
    assertThat(FixedWorld.words(none.together()))
        .containsExactly("WISH fog", "WISH ledger", "fog NEED rope >=2", "ledger NEED rope <2");
    assertThat(none.waysOut().stream().map(FixedWorld::words))
        .containsExactly(
            List.of("WISH fog"),
            List.of("WISH ledger"),
            List.of("fog NEED rope >=2"),
            List.of("ledger NEED rope <2"));
  }

  @Test
  void what_is_nowhere_cannot_be_wished_for() {
    FixedWorld world = new FixedWorld();
    world.on("fog", "1");
    None none = (None) WhatItBrings.answer(world.question("unknown", "fog"), LONG);
    assertThat(FixedWorld.words(none.together())).containsExactly("WISH unknown");
    assertThat(none.waysOut().stream().map(FixedWorld::words))
        .containsExactly(List.of("WISH unknown"));
    assertThat(world.told("fog")).containsExactly("fog 1 STAYS");
    assertThat(world.told("fog", "fog")).as("twice").containsExactly("fog 1 STAYS");
    assertThat(world.told()).as("nothing").isEmpty();
  }

  @Test
  void whatever_is_missing_switches_nothing_off() {
    FixedWorld world = new FixedWorld();
    world.on("one", "1").needs("lib", ">=2");
    world.on("two", "1").needs("lib", "<2").needs("nowhere", "*");
    world.off("lib", "1");
    world.offered("lib", "2");
    assertThat(world.missing())
        .containsExactly("lib 1 SWITCHED_ON", "unmet one NEED lib >=2", "unmet two NEED nowhere *");
  }

  @Test
  void a_variant_is_asked_for_where_none_is_meant() {
    FixedWorld world = new FixedWorld();
    world.offered("hull", "1").variant("large");
    world.offered("hull", "1").variant("small");
    assertThat(WhatItBrings.answer(world.question("hull"), LONG))
        .isEqualTo(new WhichVariant("hull", List.of("large", "small")));
    world.offered("hull", "0.9");
    assertThat(world.told("hull")).containsExactly("hull 0.9 FETCHED");
  }

  /** What is on afterwards, by what the answer says of before. */
  private static Map<String, Candidate> after(RandomWorld world, Found found) {
    Map<String, Candidate> out = new TreeMap<>();
    world.on().forEach(c -> out.put(c.mod(), c));
    found.off().forEach(o -> out.remove(o.candidate().mod()));
    for (Member m : found.members()) out.put(m.candidate().mod(), m.candidate());
    return out;
  }

  private static Map<String, String> keys(Map<String, Candidate> set) {
    Map<String, String> out = new TreeMap<>();
    set.forEach((m, c) -> out.put(m, c.key()));
    return out;
  }

  /**
   * By trying: what is told contradicts, nothing smaller does; what to give up helps, nothing
   * smaller does.
   */
  private static void smallestContradiction(AllSets all, ChoiceQuestion question, None none) {
    assertThat(none.smallest()).isTrue();
    List<Statement> statements = List.copyOf(all.statements());
    Set<Statement> others = new HashSet<>(statements);
    none.together().forEach(others::remove);
    others.addAll(question.givenUp());
    assertThat(all.best(others)).as("what is told contradicts").isEmpty();
    for (List<Statement> way : none.waysOut()) {
      assertThat(all.best(plus(question.givenUp(), way))).as("giving up %s", way).isPresent();
    }
    int size = none.waysOut().get(0).size();
    if (statements.size() > 10) return;
    List<List<Statement>> ways = new ArrayList<>();
    for (int bits = 0; bits < 1 << statements.size(); bits++) {
      List<Statement> some = new ArrayList<>();
      for (int i = 0; i < statements.size(); i++)
        if ((bits >> i & 1) == 1) some.add(statements.get(i));
      if (some.size() < size) {
        assertThat(all.best(plus(question.givenUp(), some))).as("smaller way %s", some).isEmpty();
      } else if (some.size() == size && all.best(plus(question.givenUp(), some)).isPresent()) {
        ways.add(some);
      }
      if (some.size() < none.together().size() && some.size() < 4) {
        Set<Statement> rest = new HashSet<>(statements);
        some.forEach(rest::remove);
        assertThat(all.best(plus(question.givenUp(), rest)))
            .as("smaller contradiction %s", some)
            .isPresent();
      }
    }
    if (ways.size() <= Contradiction.MOST_WAYS)
      assertThat(none.waysOut()).containsExactlyInAnyOrderElementsOf(ways);
  }

  private static Set<Statement> plus(Set<Statement> givenUp, Iterable<Statement> more) {
    Set<Statement> out = new HashSet<>(givenUp);
    more.forEach(out::add);
    return out;
  }
}
