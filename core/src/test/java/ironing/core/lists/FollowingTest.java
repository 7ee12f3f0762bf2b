package ironing.core.lists;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.lists.Following.Followed;
import ironing.core.lists.Following.Here;
import ironing.core.lists.PublishedList.Entry;
import ironing.core.testkit.Orders;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class FollowingTest {
  private static Entry named(String id, String name, String version) {
    return new Entry(id, name, version, Optional.empty(), "", "", "");
  }

  private static Here here(long key, String id, String name, String version) {
    return new Here(key, id, name, version, true, false);
  }

  @Test
  void a_mod_is_known_by_its_id_else_by_its_name_and_version() {
    List<Here> here =
        List.of(
            here(1, "rope", "Rope Locker", "1.3"),
            here(2, "rope-old", "Rope  locker", "1.2"),
            here(3, "tar", "Tar", "1"));
    Followed f =
        Following.compare(
            "Coast",
            List.of(
                named("", "ROPE LOCKER", "1.2"),
                named("rope", "", "1.4"),
                named("kelp", "Kelp", "")),
            here);
    assertThat(f.places().stream().map(p -> p.map(Here::key)))
        .containsExactly(Optional.of(2L), Optional.of(1L), Optional.empty());
    assertThat(f.extra()).extracting(Here::key).containsExactly(3L);
    assertThat(Following.otherVersion(named("rope", "", "1.4"), here.get(0))).isTrue();
    assertThat(Following.otherVersion(named("rope", "", "v1.3.0"), here.get(0))).isFalse();
    assertThat(Following.otherVersion(named("rope", "", ""), here.get(0))).isFalse();
  }

  /** Checked against every order of up to seven. */
  @Property(tries = 300, seed = "8160")
  void no_fewer_moves_bring_the_list_about(@ForAll long seed) {
    Random random = new Random(seed);
    int n = 2 + random.nextInt(6);
    List<Here> here = new ArrayList<>();
    for (int i = 0; i < n; i++)
      here.add(new Here(i, "m" + i, "M" + i, "1", true, random.nextInt(5) == 0));
    List<Entry> entries = new ArrayList<>();
    for (int i : Orders.shuffled(n, random))
      if (random.nextInt(4) > 0) entries.add(named("m" + i, "", ""));
    Followed f = Following.compare("Coast", entries, here);

    List<Long> present = here.stream().map(Here::key).toList();
    Set<Long> moved = new HashSet<>(f.moves().keySet());
    List<Long> wanted =
        f.places().stream()
            .flatMap(Optional::stream)
            .map(Here::key)
            .filter(k -> !f.heldFast().contains(k))
            .toList();
    assertThat(f.whole().order().stream().filter(wanted::contains).toList()).isEqualTo(wanted);
    assertThat(here).noneMatch(h -> h.kept() && moved.contains(h.key()));
    Set<Long> kept = new HashSet<>();
    for (Here h : here) if (h.kept()) kept.add(h.key());
    int fewest =
        Orders.fewestMoves(
            present,
            order -> order.stream().filter(wanted::contains).toList().equals(wanted),
            kept);
    assertThat(moved).hasSize(fewest);
  }

  @Test
  void what_is_kept_here_against_the_list_is_said() {
    List<Here> here =
        List.of(
            new Here(1, "a", "A", "1", true, true),
            new Here(2, "b", "B", "1", true, true),
            new Here(3, "c", "C", "1", true, false));
    Followed f =
        Following.compare(
            "Coast", List.of(named("c", "", ""), named("b", "", ""), named("a", "", "")), here);
    assertThat(f.heldFast()).hasSize(1);
    assertThat(f.moves().keySet()).containsExactly(3L);
  }
}
