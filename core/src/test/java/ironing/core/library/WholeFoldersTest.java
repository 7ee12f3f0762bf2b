package ironing.core.library;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.library.ContentLayout.Placed;
import ironing.core.path.GamePath;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class WholeFoldersTest {
  private static Placed placed(String entry, String path) {
    return new Placed(entry, path, "data");
  }

  @Test
  void the_highest_folder_that_goes_to_one_place_is_moved_whole() {
    assertThat(
            WholeFolders.of(
                List.of("Mod/textures/a/1", "Mod/textures/b/2", "Mod/read.me"),
                List.of(
                    placed("Mod/textures/a/1", "data/textures/a/1"),
                    placed("Mod/textures/b/2", "data/textures/b/2"))))
        .isEqualTo(Map.of("Mod/textures", "data/textures"));
  }

  @Test
  void a_folder_with_something_left_out_or_joined_by_another_is_not() {
    assertThat(
            WholeFolders.of(
                List.of("m/t/a/1", "m/t/b/2", "m/t/b/thumbs"),
                List.of(placed("m/t/a/1", "t/a/1"), placed("m/t/b/2", "t/b/2"))))
        .isEqualTo(Map.of("m/t/a", "t/a"));
    assertThat(
            WholeFolders.of(
                List.of("x/t/1", "y/t/2"), List.of(placed("x/t/1", "t/1"), placed("y/t/2", "t/2"))))
        .isEmpty();
    // one file to two places
    assertThat(
            WholeFolders.of(
                List.of("x/t/1"), List.of(placed("x/t/1", "t/1"), placed("x/t/1", "u/t/1"))))
        .isEmpty();
  }

  /** Moved whole or file by file, the same files come to the same places, and none is left over. */
  @Property(tries = 1000, seed = "8160")
  void moving_folders_brings_every_file_where_it_is_placed(@ForAll long seed) {
    Random r = new Random(seed);
    Set<String> entries = new LinkedHashSet<>();
    for (int i = 1 + r.nextInt(8); i > 0; i--) entries.add(path(r) + "/f" + r.nextInt(4));
    List<Placed> placed = new ArrayList<>();
    Map<String, String> targets = new HashMap<>();
    String root = r.nextBoolean() ? "" : "a";
    for (String e : entries) {
      if (r.nextInt(8) == 0) continue;
      boolean below = !root.isEmpty() && GamePath.isBelow(e, root);
      String path = "data/" + (below ? e.substring(root.length() + 1) : e);
      if (r.nextInt(10) == 0) path = "other/" + GamePath.name(e);
      if (targets.putIfAbsent(path, e) == null) placed.add(placed(e, path));
    }
    Map<String, String> whole = WholeFolders.of(entries, placed);
    Map<String, String> came = new TreeMap<>(), wanted = new TreeMap<>();
    placed.forEach(p -> wanted.put(p.gamePath(), p.entry()));
    Set<String> moved = new LinkedHashSet<>();
    whole.forEach(
        (from, to) -> {
          for (String e : entries) {
            if (!GamePath.isBelow(e, from)) continue;
            assertThat(moved.add(e)).as("one folder within another").isTrue();
            came.put(to + e.substring(from.length()), e);
          }
        });
    for (Placed p : placed) if (!moved.contains(p.entry())) came.put(p.gamePath(), p.entry());
    assertThat(came).isEqualTo(wanted);
    // where a folder is moved to, nothing else is
    whole.forEach(
        (from, to) ->
            wanted.forEach(
                (path, entry) -> {
                  if (GamePath.isBelow(path, to)) assertThat(entry).startsWith(from + "/");
                }));
  }

  private static String path(Random r) {
    StringBuilder path = new StringBuilder("abc".substring(r.nextInt(3)).substring(0, 1));
    for (int i = r.nextInt(3); i > 0; i--) path.append('/').append("xyz".charAt(r.nextInt(3)));
    return path.toString();
  }
}
