package ironing.core.trouble;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.testkit.Tries;
import ironing.core.trouble.FaultyWorld.Course;
import ironing.core.trouble.Members.Need;
import ironing.core.trouble.Next.Why;
import ironing.core.trouble.TriedSets.Tried;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.function.Predicate;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class FaultSearchTest {
  private static BitSet set(int... members) {
    BitSet out = new BitSet();
    for (int m : members) out.set(m);
    return out;
  }

  private static FaultSearch plain(int n) {
    double[] alike = new double[n];
    Arrays.fill(alike, 1);
    return new FaultSearch(new Members(n, List.of()), alike, true);
  }

  private static Answer told(boolean shows) {
    return shows ? Answer.FAILS : Answer.WORKS;
  }

  @Property(tries = 1000, seed = "25")
  void it_ends_with_the_culprits_and_what_they_need_and_tries_closed_sets_only(@ForAll long seed) {
    FaultyWorld world = FaultyWorld.random(new Random(seed), 64, 3, seed % 2 == 0);
    Course course = world.followed(s -> told(world.shows(s)));
    assertThat(course.end()).isEqualTo(new Next.Found(world.smallest(), new BitSet()));
    for (Next.Try t : course.asked()) assertThat(world.members().isClosed(t.set())).isTrue();
  }

  // any set may show the fault, however little sense that makes
  @Property(tries = 400, seed = "25")
  void whatever_the_game_does_what_is_found_is_smallest(@ForAll long seed) {
    Random random = new Random(seed);
    FaultyWorld world = FaultyWorld.random(random, 12, 3, false);
    int n = world.members().count();
    byte[] outcomes = new byte[1 << n];
    for (int i = 0; i < outcomes.length; i++) outcomes[i] = (byte) random.nextInt(4);
    outcomes[outcomes.length - 1] = 0;
    Course course =
        world.followed(
            s -> s.isEmpty() ? Answer.WORKS : Answer.values()[outcomes[(int) s.toLongArray()[0]]]);
    assertThat(course.end()).isInstanceOf(Next.Found.class);
    Next.Found found = (Next.Found) course.end();
    assertThat(outcomes[(int) found.set().toLongArray()[0]]).isZero();
    for (int m = 0; m < n; m++) {
      if (!found.set().get(m)) continue;
      BitSet less = world.members().without(found.set(), m);
      int outcome = less.isEmpty() ? 1 : outcomes[(int) less.toLongArray()[0]];
      assertThat(outcome).isNotZero();
      assertThat(found.unproved().get(m)).isEqualTo(outcome != 1);
    }
  }

  @Property(tries = 300, seed = "25")
  void sets_that_cannot_be_told_cost_tries_and_never_the_outcome(@ForAll long seed) {
    FaultyWorld world = FaultyWorld.random(new Random(seed), 40, 2, true);
    int deaf = new Random(seed).nextInt(world.members().count());
    // without one member the game does not even start
    Course course =
        world.followed(
            s -> !s.isEmpty() && !s.get(deaf) ? Answer.CANNOT_TELL : told(world.shows(s)));
    Next.Found found = (Next.Found) course.end();
    assertThat(world.shows(found.set())).isTrue();
    for (int m = found.set().nextSetBit(0); m >= 0; m = found.set().nextSetBit(m + 1)) {
      BitSet less = world.members().without(found.set(), m);
      assertThat(found.unproved().get(m)).isEqualTo(!less.isEmpty() && !less.get(deaf));
    }
  }

  @Property(tries = 300, seed = "25")
  void it_can_be_stopped_anywhere_and_an_answer_can_be_taken_back(@ForAll long seed) {
    Random random = new Random(seed);
    FaultyWorld world = FaultyWorld.random(random, 40, 3, true);
    List<Tried> tries = new ArrayList<>();
    int wrong = random.nextInt(8);
    Next next = world.search().next(new TriedSets(tries));
    for (int i = 0; next instanceof Next.Try t; i++) {
      boolean lied = i == wrong && t.why() == Why.NARROW;
      tries.add(new Tried(t.set(), told(world.shows(t.set()) != lied)));
      if (lied && random.nextBoolean()) {
        world.search().next(new TriedSets(tries));
        tries.remove(tries.size() - 1);
      } else if (lied) {
        tries.set(tries.size() - 1, new Tried(t.set(), told(world.shows(t.set()))));
      }
      // a new search each time: nothing but the answers is needed
      next = world.search().next(new TriedSets(tries));
    }
    assertThat(next).isEqualTo(new Next.Found(world.smallest(), new BitSet()));
  }

  @Property(tries = 200, seed = "25")
  void a_fault_that_comes_sometimes_is_tried_until_it_is_told(@ForAll long seed) {
    Random random = new Random(seed);
    FaultyWorld world = FaultyWorld.random(random, 24, 2, true);
    List<Tried> tries = new ArrayList<>();
    // that it comes sometimes is known from the first set
    for (Answer a : List.of(Answer.FAILS, Answer.WORKS))
      tries.add(new Tried(world.members().all(), a));
    Next next = world.search().next(new TriedSets(tries));
    while (next instanceof Next.Try t) {
      boolean shows = world.shows(t.set()) && random.nextInt(2) == 0;
      tries.add(new Tried(t.set(), told(shows)));
      next = world.search().next(new TriedSets(tries));
      assertThat(tries.size()).isLessThan(2000);
    }
    Next.Found found = (Next.Found) next;
    assertThat(world.shows(found.set())).isTrue();
    TriedSets told = new TriedSets(tries);
    assertThat(told.comesSometimes()).isTrue();
    for (int m = found.set().nextSetBit(0); m >= 0; m = found.set().nextSetBit(m + 1)) {
      BitSet less = world.members().without(found.set(), m);
      if (!found.unproved().get(m))
        assertThat(told.triesOf(less)).isGreaterThanOrEqualTo(told.triesToTrust());
    }
  }

  @Test
  void a_game_that_fails_by_itself_and_a_fault_that_does_not_show_are_said_at_once() {
    Course own = FaultyWorld.followed(plain(9), s -> Answer.FAILS);
    assertThat(own.end()).isEqualTo(new Next.GoesWithNone());
    assertThat(own.asked()).hasSize(2);
    Course none = FaultyWorld.followed(plain(9), s -> Answer.WORKS);
    assertThat(none.end()).isEqualTo(new Next.NotShown());
    assertThat(none.asked()).hasSize(1);
  }

  @Property(tries = 200, seed = "25")
  void it_need_not_ask_first_whether_nothing_shows_it(@ForAll long seed) {
    FaultyWorld world = FaultyWorld.random(new Random(seed), 40, 3, true);
    FaultSearch search = new FaultSearch(world.members(), world.suspicion(), false);
    Course course = FaultyWorld.followed(search, s -> told(world.shows(s)));
    assertThat(course.end()).isEqualTo(new Next.Found(world.smallest(), new BitSet()));
    Course own = FaultyWorld.followed(search, s -> Answer.FAILS);
    assertThat(own.end()).isEqualTo(new Next.GoesWithNone());
  }

  @Property(tries = 300, seed = "25")
  void a_build_up_stops_at_the_first_step_that_fails_and_ends_with_the_same_set(@ForAll long seed) {
    Random random = new Random(seed);
    FaultyWorld world = FaultyWorld.random(random, 40, 2, false);
    List<List<Integer>> steps = new ArrayList<>();
    BitSet placed = new BitSet();
    while (placed.cardinality() < world.members().count()) {
      BitSet step = world.members().withNeeds(random.nextInt(world.members().count()));
      step.andNot(placed);
      if (step.isEmpty()) continue;
      placed.or(step);
      steps.add(step.stream().boxed().toList());
    }
    Course course = FaultyWorld.followed(world.search().builtUp(steps), s -> told(world.shows(s)));
    assertThat(course.end()).isEqualTo(new Next.Found(world.smallest(), new BitSet()));
    List<Next.Try> asked = course.asked();
    int first = 0;
    while (first < asked.size() && !world.shows(asked.get(first).set())) first++;
    BitSet failing = asked.get(first).set();
    assertThat(asked.get(first).why()).isEqualTo(Why.STEP);
    for (Next.Try t : asked.subList(first, asked.size())) {
      BitSet more = (BitSet) t.set().clone();
      more.andNot(failing);
      assertThat(more.isEmpty()).as("nothing of later steps").isTrue();
    }
    Course fine = FaultyWorld.followed(world.search().builtUp(steps), s -> Answer.WORKS);
    assertThat(fine.end()).isEqualTo(new Next.NotShown());
    assertThat(fine.asked()).hasSize(steps.size() + 1);
  }

  @Test
  void another_fault_says_nothing_of_the_one_that_is_searched_for() {
    // 2 and 5 make the fault; 7 without 3 stops the game before
    Course course =
        FaultyWorld.followed(
            plain(10),
            s -> s.get(7) && !s.get(3) ? Answer.ANOTHER_FAULT : told(s.get(2) && s.get(5)));
    assertThat(((Next.Found) course.end()).set()).isEqualTo(set(2, 5));
  }

  /**
   * A linear build-up as git bisect has it: each of 64 needs the one before. Halving 64 commits
   * takes 6 tries (git-bisect(1): "roughly N steps" is log2).
   */
  @Test
  void a_chain_of_64_takes_no_more_tries_than_halving() {
    List<Need> needs = new ArrayList<>();
    for (int i = 1; i < 64; i++) needs.add(new Need(i, i - 1));
    double[] alike = new double[64];
    Arrays.fill(alike, 1);
    for (int bad = 0; bad < 64; bad++) {
      int first = bad;
      FaultSearch search = new FaultSearch(new Members(64, needs), alike, true);
      Course course = FaultyWorld.followed(search, s -> told(s.get(first)));
      long halvings = course.asked().stream().filter(t -> t.why() == Why.NARROW).count();
      assertThat(halvings).isLessThanOrEqualTo(6);
      assertThat(((Next.Found) course.end()).set().cardinality()).isEqualTo(bad + 1);
    }
  }

  @Test
  void what_is_left_at_most_is_never_too_little_where_one_member_is_behind_it() {
    for (int culprit = 0; culprit < 50; culprit++) {
      int bad = culprit;
      Course course = FaultyWorld.followed(plain(50), s -> told(s.get(bad)));
      for (int i = 0; i < course.asked().size(); i++)
        assertThat(course.asked().get(i).atMostLeft())
            .isGreaterThanOrEqualTo(course.asked().size() - i);
    }
  }

  /** Example and bounds of the paper; see {@link DeltaDebugging}. Values from memory. */
  @Test
  void the_yardstick_does_as_published() {
    Predicate<BitSet> fails = s -> s.get(1) && s.get(7) && s.get(8);
    DeltaDebugging paper = new DeltaDebugging(new Members(9, List.of()), fails);
    assertThat(paper.minimised()).isEqualTo(set(1, 7, 8));
    // at worst n² + 3n tries (proposition 12), at best 2 log2 n for one member (proposition 13)
    assertThat(paper.tries()).isLessThanOrEqualTo(9 * 9 + 3 * 9);
    for (int culprit = 0; culprit < 64; culprit++) {
      int bad = culprit;
      DeltaDebugging one = new DeltaDebugging(new Members(64, List.of()), s -> s.get(bad));
      assertThat(one.minimised()).isEqualTo(set(bad));
      assertThat(one.tries()).isLessThanOrEqualTo(12);
    }
  }

  @Test
  void a_ranking_saves_tries_and_none_costs_none() {
    double ranked = ratio(true), random = ratio(false);
    assertThat(ranked).isLessThanOrEqualTo(0.7);
    assertThat(random).isLessThanOrEqualTo(1.0);
  }

  private static double ratio(boolean inFront) {
    int ours = 0, yardstick = 0;
    for (int i = 0; i < Math.max(1000, Tries.of(1000)); i++) {
      FaultyWorld world = FaultyWorld.random(new Random(i), 64, 3, inFront);
      ours += world.followed(s -> told(world.shows(s))).steps();
      DeltaDebugging dd = new DeltaDebugging(world.members(), world::shows);
      assertThat(dd.minimised()).isEqualTo(world.smallest());
      yardstick += dd.tries();
    }
    return (double) ours / yardstick;
  }

  @Test
  void the_whole_set_is_tried_as_often_as_is_asked_to_see_how_often_the_fault_comes() {
    FaultSearch search =
        new FaultSearch(new Members(4, List.of()), new double[] {1, 1, 1, 1}, true);
    BitSet all = new Members(4, List.of()).all();
    List<Tried> tries = new ArrayList<>();
    for (Answer a : List.of(Answer.WORKS, Answer.FAILS, Answer.WORKS)) {
      assertThat(search.next(new TriedSets(tries, 3)))
          .isInstanceOfSatisfying(
              Next.Try.class, t -> assertThat(t.why()).isEqualTo(Next.Why.EVERYTHING));
      tries.add(new Tried(all, a));
    }
    TriedSets told = new TriedSets(tries, 3);
    assertThat(told.shown()).isEqualTo(1);
    assertThat(told.told()).isEqualTo(3);
    assertThat(search.next(told))
        .isInstanceOfSatisfying(
            Next.Try.class, t -> assertThat(t.why()).isEqualTo(Next.Why.NOTHING));
    // where it did not come once, it was not tried once only
    List<Tried> never = tries.stream().map(t -> new Tried(all, Answer.WORKS)).toList();
    assertThat(search.next(new TriedSets(never, 3))).isEqualTo(new Next.NotShown());
  }
}
