package ironing.core.trouble;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.trouble.Members.Need;
import ironing.core.trouble.Next.Why;
import ironing.core.trouble.TriedSets.Tried;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class MeasuringTest {
  // 2 needs 1: who measures 1 leaves out both
  private static final Members MEMBERS = new Members(4, List.of(new Need(2, 1)));

  private static BitSet set(int... members) {
    BitSet out = new BitSet();
    IntStream.of(members).forEach(out::set);
    return out;
  }

  @Test
  void both_sets_are_run_in_turns_and_neither_is_always_first() {
    Measuring measuring = new Measuring(MEMBERS, 1, 3);
    List<Tried> tries = new ArrayList<>();
    List<Why> whys = new ArrayList<>();
    while (measuring.next(tries) instanceof Next.Try t) {
      assertThat(t.set()).isEqualTo(t.why() == Why.MEASURE_WITH ? set(0, 1, 2, 3) : set(0, 3));
      assertThat(t.atMostLeft()).isEqualTo(6 - tries.size());
      whys.add(t.why());
      tries.add(new Tried(t.set(), Answer.WORKS));
    }
    assertThat(measuring.next(tries)).isEqualTo(new Next.Measured());
    Why with = Why.MEASURE_WITH, without = Why.MEASURE_WITHOUT;
    assertThat(whys).containsExactly(with, without, without, with, with, without);
  }

  @Test
  void a_run_that_measures_nothing_is_made_again_but_not_for_ever() {
    Measuring measuring = new Measuring(MEMBERS, 3, 1);
    List<Tried> tries = new ArrayList<>();
    tries.add(new Tried(set(0, 1, 2, 3), Answer.CANNOT_TELL));
    assertThat(measuring.next(tries))
        .isInstanceOfSatisfying(
            Next.Try.class, t -> assertThat(t.why()).isEqualTo(Why.MEASURE_WITH));
    tries.add(new Tried(set(0, 1, 2, 3), Answer.ANOTHER_FAULT));
    tries.add(new Tried(set(0, 1, 2, 3), Answer.CANNOT_TELL));
    assertThat(measuring.next(tries)).isEqualTo(new Next.Untold(List.of(set(0, 1, 2, 3))));
  }

  @Test
  void a_middle_is_the_median() {
    assertThat(Spread.of(List.of())).isEmpty();
    assertThat(Spread.of(List.of(5L, 1L, 9L))).contains(new Spread(1, 5, 9, 3));
    assertThat(Spread.of(List.of(4L, 1L))).contains(new Spread(1, 2, 4, 2));
  }

  @Property
  void what_lies_apart_does_so_with_every_value(
      @ForAll @Size(min = 1, max = 5) List<@IntRange(max = 20) Integer> a,
      @ForAll @Size(min = 1, max = 5) List<@IntRange(max = 20) Integer> b) {
    boolean apart =
        a.stream().allMatch(x -> b.stream().allMatch(y -> x < y))
            || a.stream().allMatch(x -> b.stream().allMatch(y -> x > y));
    assertThat(spread(a).isApartFrom(spread(b))).isEqualTo(apart);
    assertThat(spread(a).middle()).isBetween(spread(a).least(), spread(a).most());
  }

  private static Spread spread(List<Integer> of) {
    return Spread.of(of.stream().map(Integer::longValue).toList()).orElseThrow();
  }
}
