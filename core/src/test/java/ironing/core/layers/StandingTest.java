package ironing.core.layers;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.archive.ContentHash;
import ironing.core.layers.Standing.Change;
import ironing.core.layers.Standing.Way;
import ironing.core.path.PathCase;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StandingTest {
  /** Sources 0..n-1, each with some of the paths p0..p19, content one of three. */
  private static Holdings random(Random random, int sources) {
    HoldingsBuilder b = new HoldingsBuilder(PathCase.SENSITIVE);
    for (int s = 0; s < sources; s++) {
      b.source(s, Optional.empty());
      for (int p = 0; p < 20; p++)
        if (random.nextInt(3) == 0)
          b.file(s, "f" + p % 4 + "/p" + p, 1, sha("sha" + random.nextInt(3)));
    }
    return b.build();
  }

  private static String sha(String content) {
    return ContentHash.of(content.getBytes(StandardCharsets.UTF_8));
  }

  private static int[] randomOrder(Random random, int sources) {
    List<Integer> order = new ArrayList<>(IntStream.range(0, sources).boxed().toList());
    Collections.shuffle(order, random);
    return order.subList(0, random.nextInt(sources + 1)).stream()
        .mapToInt(Integer::intValue)
        .toArray();
  }

  private static int[] randomRulings(Random random, Holdings holdings) {
    int[] ruled = new int[holdings.pathCount()];
    Arrays.fill(ruled, -1);
    for (int slot = 0; slot < holdings.fileCount(); slot++)
      if (random.nextInt(8) == 0) ruled[holdings.pathAt(slot)] = slot;
    return ruled;
  }

  @Property(tries = 1000, seed = "8160")
  void a_change_of_order_gives_what_starting_anew_would(@ForAll long seed) {
    Random random = new Random(seed);
    Holdings holdings = random(random, 8);
    Standing moved = Standing.of(holdings, randomOrder(random, 8));
    for (int step = 0; step < 4; step++) {
      int[] next = randomOrder(random, 8);
      BitSet held = new BitSet();
      for (int i = 0; i < step * 3 && holdings.fileCount() > 0; i++)
        held.set(random.nextInt(holdings.fileCount()));
      Standing before = moved;
      int[] ruled = step == 0 ? Standing.NO_RULINGS : randomRulings(random, holdings);
      moved = moved.reordered(next, held, ruled);
      Standing anew = Standing.of(holdings, next, held, ruled);
      for (int slot = 0; slot < holdings.fileCount(); slot++)
        assertThat(moved.holders(holdings.pathAt(slot)).contains(slot))
            .isEqualTo(moved.isStanding(holdings.sourceAt(slot)) && !held.get(slot));
      for (int p = 0; p < holdings.pathCount(); p++)
        assertThat(moved.inPlay(p)).isEqualTo(anew.inPlay(p));
      for (int s = 0; s < 8; s++)
        for (Way w : Way.values()) assertThat(moved.count(s, w)).isEqualTo(anew.count(s, w));
      changesAreExactlyTheDifferences(before, moved);
    }
  }

  private static void changesAreExactlyTheDifferences(Standing before, Standing after) {
    Map<Integer, Change> told = new TreeMap<>();
    for (Change c : after.changesSince(before)) told.put(c.path(), c);
    Holdings h = after.holdings();
    for (int p = 0; p < h.pathCount(); p++) {
      String was = before.inPlay(p) < 0 ? "" : h.shaAt(before.inPlay(p)),
          is = after.inPlay(p) < 0 ? "" : h.shaAt(after.inPlay(p));
      assertThat(told.containsKey(p)).as(h.path(p)).isEqualTo(!was.equals(is));
    }
  }

  @Property(tries = 300, seed = "8160")
  void every_standing_file_is_counted_in_exactly_one_way(@ForAll long seed) {
    Random random = new Random(seed);
    Holdings holdings = random(random, 6);
    int[] order = randomOrder(random, 6);
    Standing s = Standing.of(holdings, order);
    for (int source : order) {
      int[] counted = new int[Way.values().length];
      for (int p : holdings.pathsOf(source)) {
        for (int slot : s.holders(p))
          if (holdings.sourceAt(slot) == source) counted[s.way(p, slot).ordinal()]++;
      }
      for (Way w : Way.values())
        assertThat(s.count(source, w)).as(w.name()).isEqualTo(counted[w.ordinal()]);
    }
  }

  /**
   * The reference: GNU cp -r of the layers one over another (the last copy wins), and sha256sum of
   * what is there then.
   */
  @Test
  void the_files_in_play_are_those_that_gnu_cp_would_leave(@TempDir Path temp) throws Exception {
    for (long seed = 0; seed < 5; seed++) {
      Random random = new Random(seed);
      Holdings holdings = random(random, 6);
      int[] order = randomOrder(random, 6);
      Path out = Files.createDirectories(temp.resolve("out" + seed));
      for (int source : order) {
        Path from = temp.resolve(seed + "-" + source);
        for (int p : holdings.pathsOf(source)) {
          for (int slot = holdings.firstSlot(p); slot < holdings.endSlot(p); slot++) {
            if (holdings.sourceAt(slot) == source)
              write(from.resolve(holdings.path(p)), source + holdings.shaAt(slot));
          }
        }
        if (Files.exists(from))
          assertThat(new ProcessBuilder("cp", "-r", from + "/.", out.toString()).start().waitFor())
              .isZero();
      }
      Standing standing = Standing.of(holdings, order);
      Map<String, String> expected = new TreeMap<>();
      for (int p = 0; p < holdings.pathCount(); p++) {
        int slot = standing.inPlay(p);
        if (slot >= 0)
          expected.put(holdings.path(p), sha(holdings.sourceAt(slot) + holdings.shaAt(slot)));
      }
      assertThat(tree(out)).isEqualTo(expected);
    }
  }

  private static void write(Path file, String text) throws IOException {
    Files.createDirectories(file.getParent());
    Files.writeString(file, text);
  }

  private static Map<String, String> tree(Path root) throws IOException {
    Process sums =
        new ProcessBuilder("find", ".", "-type", "f", "-exec", "sha256sum", "{}", "+")
            .directory(root.toFile())
            .start();
    Map<String, String> files = new TreeMap<>();
    for (String line :
        new String(sums.getInputStream().readAllBytes(), StandardCharsets.UTF_8).lines().toList())
      files.put(line.substring(68), line.substring(0, 64));
    return files;
  }

  private static Holdings three() {
    HoldingsBuilder b = new HoldingsBuilder(PathCase.INSENSITIVE);
    int game = b.source(Holdings.GAME, Optional.empty()),
        low = b.source(1, Optional.empty()),
        high = b.source(2, Optional.empty());
    b.file(game, "data/a", 1, sha("A")).file(game, "data/b", 1, sha("B"));
    b.file(low, "Data/A", 1, sha("A2"))
        .file(low, "data/c", 1, sha("C"))
        .file(low, "data/d", 1, sha("D"));
    b.file(high, "DATA/a", 1, sha("A3"))
        .file(high, "data/c", 1, sha("C"))
        .file(high, "data/e", 1, sha("E"));
    return b.build();
  }

  @Test
  void a_mods_files_stand_in_play_covering_covered_or_as_twins() {
    Standing s = Standing.of(three(), new int[] {0, 1, 2});
    assertThat(
            new int[] {
              s.count(1, Way.IN_PLAY),
              s.count(1, Way.COVERING),
              s.count(1, Way.COVERED),
              s.count(1, Way.TWIN)
            })
        .containsExactly(1, 0, 1, 1);
    assertThat(
            new int[] {
              s.count(2, Way.IN_PLAY),
              s.count(2, Way.COVERING),
              s.count(2, Way.COVERED),
              s.count(2, Way.TWIN)
            })
        .containsExactly(1, 2, 0, 0);
    assertThat(s.relationsOf(1).covers()).isEqualTo(Map.of(Holdings.GAME, 1));
    assertThat(s.relationsOf(1).coveredBy()).isEqualTo(Map.of(2L, 2));
    assertThat(s.pathsOfMod(2)).hasSize(3);
  }

  @Test
  void of_two_spellings_within_one_source_the_first_counts() {
    HoldingsBuilder b = new HoldingsBuilder(PathCase.INSENSITIVE);
    int mod = b.source(1, Optional.empty());
    Holdings h =
        b.file(mod, "data/A", 1, sha("first")).file(mod, "data/a", 1, sha("second")).build();
    Standing s = Standing.of(h, new int[] {mod});
    assertThat(h.fileCount()).isEqualTo(1);
    assertThat(h.shaAt(s.inPlay(h.idOf("DATA/A")))).isEqualTo(sha("first"));
    assertThat(s.count(mod, Way.IN_PLAY)).isEqualTo(1);
  }

  @Test
  void names_are_written_as_the_game_spells_them_else_as_the_highest_layer_does() {
    Holdings h = three();
    Spelling spelling = Spelling.of(Standing.of(h, new int[] {0, 1, 2}), PathCase.INSENSITIVE);
    assertThat(spelling.of(h.idOf("DATA/A"))).isEqualTo("data/a");
    HoldingsBuilder b = new HoldingsBuilder(PathCase.INSENSITIVE);
    int low = b.source(1, Optional.empty()), high = b.source(2, Optional.empty());
    b.file(low, "Tex/Sub/One.png", 1, sha("x"))
        .file(high, "tex/sub/ONE.png", 1, sha("y"))
        .file(high, "tex/SUB/two.png", 1, sha("z"));
    Holdings mods = b.build();
    Spelling s = Spelling.of(Standing.of(mods, new int[] {0, 1}), PathCase.INSENSITIVE);
    assertThat(s.of(mods.idOf("tex/sub/one.png")))
        .as("folders as the lowest, the name as the highest")
        .isEqualTo("Tex/Sub/ONE.png");
    assertThat(s.of(mods.idOf("tex/sub/two.png"))).isEqualTo("Tex/Sub/two.png");
  }
}
