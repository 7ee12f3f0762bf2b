package ironing.core.order;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class WaysOutTest {
  /** The first ring that nothing has been taken out of; null where there is none. */
  private static List<Integer> closed(List<List<Integer>> rings, Set<Integer> out) {
    return rings.stream().filter(r -> r.stream().noneMatch(out::contains)).findFirst().orElse(null);
  }

  /** Beside every set of up to eight rules. */
  @Property(tries = 500, seed = "8160")
  void all_sets_of_the_smallest_size_are_found(@ForAll long seed) {
    Random random = new Random(seed);
    List<List<Integer>> rings = new ArrayList<>();
    for (int r = random.nextInt(6); r > 0; r--) {
      Set<Integer> ring = new HashSet<>();
      for (int i = 1 + random.nextInt(3); i > 0; i--) ring.add(random.nextInt(8));
      rings.add(List.copyOf(ring));
    }
    Set<Set<Integer>> smallest = new HashSet<>();
    int size = 9;
    for (int mask = 0; mask < 1 << 8; mask++) {
      Set<Integer> out = new HashSet<>();
      for (int i = 0; i < 8; i++) if ((mask >> i & 1) == 1) out.add(i);
      if (closed(rings, out) != null || out.size() > size) continue;
      if (out.size() < size) smallest.clear();
      size = out.size();
      smallest.add(out);
    }
    WaysOut.Found<Integer> found = WaysOut.smallest(out -> closed(rings, out), 10_000);
    assertThat(found.whole()).isTrue();
    assertThat(new HashSet<>(found.sets())).isEqualTo(smallest);
    assertThat(found.sets()).doesNotHaveDuplicates();
  }

  @Test
  void a_search_that_is_ended_says_so() {
    List<List<Integer>> rings = List.of(List.of(1, 2, 3), List.of(4, 5, 6), List.of(7, 8, 9));
    WaysOut.Found<Integer> found = WaysOut.smallest(out -> closed(rings, out), 5);
    assertThat(found.whole()).isFalse();
    assertThat(found.sets()).isEmpty();
  }

  @Test
  void a_ring_that_nobody_can_open_has_no_way_out() {
    WaysOut.Found<Integer> found = WaysOut.smallest(out -> List.of(), 100);
    assertThat(found.sets()).isEmpty();
    assertThat(found.whole()).isTrue();
  }
}
