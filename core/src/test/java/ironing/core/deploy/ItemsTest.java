package ironing.core.deploy;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.deploy.LaidOut.How;
import ironing.core.deploy.LaidOut.Item;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;

class ItemsTest {
  private static Item item(int path, long size) {
    String sha = "0".repeat(64);
    return new Item("f/" + path, sha, size, 1, "Mod", How.LINK, Optional.empty());
  }

  /** Beside the map of the JDK, for the few that are searched for and the many that are not. */
  @Property(tries = 500, seed = "8160")
  void others_take_their_places(
      @ForAll @IntRange(min = 1, max = 200) int count,
      @ForAll @Size(max = 120) Set<@IntRange(max = 199) Integer> where) {
    TreeMap<String, Item> expected = new TreeMap<>(), others = new TreeMap<>();
    for (int i = 0; i < count; i++) expected.put("f/" + i, item(i, 1));
    Items before = Items.of(new TreeMap<>(expected));
    Map<String, Item> was = Map.copyOf(before);
    for (int i : where) if (i < count) others.put("f/" + i, item(i, 2));
    expected.putAll(others);
    Items after = before.with(others);
    assertThat(after).isEqualTo(expected);
    assertThat(after.values()).containsExactlyElementsOf(expected.values());
    assertThat(before).as("as it was").isEqualTo(was);
  }
}
