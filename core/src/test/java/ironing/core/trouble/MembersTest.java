package ironing.core.trouble;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.trouble.Members.Need;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

class MembersTest {
  /** Held to the plainest reading of the rule: add, or take away, until nothing changes. */
  @Property(tries = 300, seed = "25")
  void closures_are_as_the_plain_rule_has_them(@ForAll long seed) {
    Random random = new Random(seed);
    int n = 1 + random.nextInt(30);
    List<Need> needs = new ArrayList<>();
    for (int i = random.nextInt(2 * n); i > 0; i--)
      needs.add(new Need(random.nextInt(n), random.nextInt(n)));
    Members members = new Members(n, needs);
    BitSet some = new BitSet(), gone = new BitSet();
    for (int i = 0; i < n; i++) {
      if (random.nextBoolean()) some.set(i);
      if (random.nextInt(6) == 0) gone.set(i);
    }
    BitSet closed = (BitSet) some.clone();
    for (int round = 0; round < n; round++)
      for (Need need : needs) if (closed.get(need.member())) closed.set(need.other());
    assertThat(members.closure(some)).isEqualTo(closed);
    assertThat(members.isClosed(closed)).isTrue();
    BitSet without = (BitSet) closed.clone();
    without.andNot(gone);
    BitSet lost = (BitSet) gone.clone();
    for (int round = 0; round < n; round++) {
      for (Need need : needs) {
        if (!lost.get(need.other())) continue;
        lost.set(need.member());
        without.clear(need.member());
      }
    }
    assertThat(members.without(closed, gone)).isEqualTo(without);
    assertThat(members.isClosed(without)).isTrue();
    int one = random.nextInt(n);
    BitSet alone = new BitSet();
    alone.set(one);
    assertThat(members.withNeeds(one)).isEqualTo(members.closure(alone));
    assertThat(members.without(closed, one)).isEqualTo(members.without(closed, alone));
  }
}
