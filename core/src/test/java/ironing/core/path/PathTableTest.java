package ironing.core.path;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;

class PathTableTest {
  @Provide
  Arbitrary<List<String>> paths() {
    // letters that fold to one another, some of them from outside ASCII into it
    return Arbitraries.strings()
        .withChars("aAkK\u212Aſsß/éÉø")
        .ofMinLength(1)
        .ofMaxLength(4)
        .list()
        .ofMaxSize(60);
  }

  /** Beside a map by the folded text, whose folding is held to ICU in PathCaseTest. */
  @Property(tries = 1000, seed = "8160")
  void paths_are_one_exactly_where_their_keys_are(
      @ForAll("paths") List<String> paths, @ForAll PathCase pathCase) {
    PathTable table = new PathTable(pathCase);
    Map<String, Integer> byKey = new HashMap<>();
    List<String> first = new ArrayList<>();
    for (String p : paths) {
      Integer known = byKey.get(pathCase.key(p));
      assertThat(table.idOf(p)).isEqualTo(known == null ? -1 : known);
      int id = table.intern(p);
      assertThat(id).isEqualTo(known == null ? first.size() : known);
      if (known == null) {
        byKey.put(pathCase.key(p), id);
        first.add(p);
      }
      assertThat(table.pathOf(id)).as("the first spelling is kept").isEqualTo(first.get(id));
    }
    assertThat(table.size()).isEqualTo(first.size());
    for (String p : paths) assertThat(table.idOf(p)).isEqualTo(byKey.get(pathCase.key(p)));
  }

  /** The same of two tables that are read as one: ids have no gap, and what is equal meets. */
  @Property(tries = 500, seed = "8160")
  void two_tables_are_read_as_one(@ForAll("paths") List<String> paths, @ForAll PathCase pathCase) {
    List<PathTable> parts = List.of(new PathTable(pathCase), new PathTable(pathCase, 40));
    Map<String, String> first = new HashMap<>();
    for (String p : paths) {
      byte[] utf8 = p.getBytes(StandardCharsets.UTF_8);
      long hash = parts.get(0).hash(utf8, 0, utf8.length);
      parts.get(SplitPaths.partOf(hash)).intern(hash, utf8, 0, utf8.length);
      first.putIfAbsent(pathCase.key(p), p);
    }
    SplitPaths all = new SplitPaths(parts);
    assertThat(all.size()).isEqualTo(first.size());
    Set<Integer> ids = new TreeSet<>();
    first.forEach(
        (key, p) -> {
          ids.add(all.idOf(p));
          assertThat(all.pathOf(all.idOf(p))).isEqualTo(p);
        });
    assertThat(ids).containsExactlyElementsOf(IntStream.range(0, all.size()).boxed().toList());
    for (String p : paths) assertThat(all.idOf(p)).isEqualTo(all.idOf(first.get(pathCase.key(p))));
    assertThat(all.idOf("nobody has it")).isEqualTo(-1);
  }

  @Test
  void many_long_paths_are_told_apart() {
    PathTable table = new PathTable(PathCase.INSENSITIVE);
    String folder = "Data/" + "x".repeat(250) + "/";
    for (int i = 0; i < 20_000; i++) assertThat(table.intern(folder + i)).isEqualTo(i);
    for (int i = 0; i < 20_000; i++)
      assertThat(table.idOf(folder.toUpperCase(java.util.Locale.ROOT) + i)).isEqualTo(i);
  }
}
