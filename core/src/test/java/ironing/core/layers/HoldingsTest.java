package ironing.core.layers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.archive.ContentHash;
import ironing.core.arrayfile.ArrayFileReader;
import ironing.core.arrayfile.ArrayFileWriter;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class HoldingsTest {
  private static String sha(Object content) {
    return ContentHash.of(content.toString().getBytes(StandardCharsets.UTF_8));
  }

  private static Holdings three() {
    HoldingsBuilder b = new HoldingsBuilder(PathCase.INSENSITIVE);
    int game = b.source(Holdings.GAME, Optional.empty());
    int loose = b.source(1, Optional.empty());
    int packed = b.source(1, Optional.of("data/p.crate"));
    b.file(game, "data/Tex/A.png", 10, sha("a"));
    b.file(loose, "DATA/tex/a.PNG", 20, sha("b")).file(loose, "data/tex/b.png", 30, sha("a"));
    b.file(packed, "data/tex/a.png", 40, sha("c")).file(packed, "data/snd/Ö.ogg", 50, sha("d"));
    return b.build();
  }

  @Test
  void a_path_is_one_however_it_is_spelled_and_each_holder_keeps_its_spelling() {
    Holdings h = three();
    assertThat(h.pathCount()).isEqualTo(3);
    assertThat(h.fileCount()).isEqualTo(5);
    int a = h.idOf("data/TEX/A.png");
    assertThat(h.path(a)).isEqualTo("data/Tex/A.png");
    assertThat(h.spellingAt(h.slotOf(a, 1))).isEqualTo("DATA/tex/a.PNG");
    assertThat(h.sizeAt(h.slotOf(a, 1))).isEqualTo(20);
    assertThat(h.shaAt(h.slotOf(a, 2))).isEqualTo(sha("c"));
    assertThat(h.idOf("data/snd/ö.OGG")).isGreaterThanOrEqualTo(0);
    assertThat(h.idOf("data/none")).isEqualTo(-1);
  }

  @Test
  void a_mods_loose_file_goes_before_its_packed_one() {
    Holdings h = three();
    int a = h.idOf("data/tex/a.png"), snd = h.idOf("data/snd/ö.ogg");
    assertThat(h.holderAt(h.slotOfMod(a, 1)).pack()).isEmpty();
    assertThat(h.holderAt(h.slotOfMod(snd, 1)).pack()).contains("data/p.crate");
    assertThat(h.slotOfMod(snd, 0)).isEqualTo(-1);
    int[] byPath = new int[h.pathCount()];
    Arrays.fill(byPath, -1);
    h.slotsOf(1, p -> p.endsWith(".png"), byPath);
    assertThat(byPath[a]).isEqualTo(h.slotOfMod(a, 1));
    assertThat(byPath[snd]).isEqualTo(-1);
    assertThat(h.holdsAny(1, p -> p.contains("snd"))).isTrue();
    assertThat(h.holdsAny(0, p -> p.contains("snd"))).isFalse();
  }

  @Test
  void mods_are_found_by_a_part_of_a_path() {
    Holdings h = three();
    assertThat(h.modsHolding("tex/a")).containsExactlyInAnyOrder(0L, 1L);
    assertThat(h.modsHolding("b.png")).containsExactly(1L);
    assertThat(h.modsHolding("nothing")).isEmpty();
  }

  @Test
  void contents_are_told_apart_however_many_there_are() {
    Random random = new Random(2);
    HoldingsBuilder b = new HoldingsBuilder(PathCase.SENSITIVE);
    int source = b.source(1, Optional.empty());
    Map<String, String> given = new HashMap<>();
    for (int i = 0; i < 20_000; i++) {
      String path = "f" + i, content = sha(random.nextInt(9_000));
      given.put(path, content);
      b.file(source, path, i, content);
    }
    Holdings h = b.build();
    List<String> wrong = new ArrayList<>();
    given.forEach(
        (path, content) -> {
          if (!h.shaAt(h.slotOf(h.idOf(path), source)).equals(content)) wrong.add(path);
        });
    assertThat(wrong).isEmpty();
  }

  /** A file that a source brought. */
  private record Brought(String spelling, long size, String sha) {}

  /**
   * So many that they are taken in by several threads, beside maps of the JDK by the folded path:
   * letters that fold to one another, some of them from outside ASCII into it.
   */
  @Property(tries = 6, seed = "8160")
  void many_files_are_held_as_plain_maps_have_them(
      @ForAll PathCase pathCase, @ForAll @IntRange(max = 1000) int seed) {
    Random random = new Random(seed);
    HoldingsBuilder b = new HoldingsBuilder(pathCase, random.nextInt(20_000));
    List<Map<String, Brought>> bySource = new ArrayList<>();
    Map<String, String> kept = new HashMap<>();
    String letters = "aAkK\u212Aéß";
    for (int s = 0; s < 4; s++) {
      int source = b.source(s, Optional.empty());
      Map<String, Brought> of = new LinkedHashMap<>();
      for (int f = 0; f < 5_000; f++) {
        char letter = letters.charAt(random.nextInt(letters.length()));
        String path = letter + "/" + letter + random.nextInt(3_000);
        String sha = sha(random.nextInt(500));
        b.file(source, path, f, sha);
        of.putIfAbsent(pathCase.key(path), new Brought(path, f, sha));
        kept.putIfAbsent(pathCase.key(path), path);
      }
      bySource.add(of);
    }
    Holdings built = b.build();
    assertHolds(built, kept, bySource);
    assertHolds(writtenAndRead(built, pathCase), kept, bySource);
  }

  private static void assertHolds(
      Holdings h, Map<String, String> kept, List<Map<String, Brought>> bySource) {
    assertThat(h.pathCount()).isEqualTo(kept.size());
    assertThat(h.fileCount()).isEqualTo(bySource.stream().mapToInt(Map::size).sum());
    Set<Integer> ids = new HashSet<>();
    kept.forEach(
        (key, path) -> {
          ids.add(h.idOf(path));
          assertThat(h.path(h.idOf(path))).isEqualTo(path);
        });
    assertThat(ids).hasSize(kept.size()).allMatch(id -> id >= 0 && id < kept.size());
    for (int s = 0; s < bySource.size(); s++) {
      List<String> had = Arrays.stream(h.pathsOf(s)).mapToObj(h::path).toList();
      assertThat(had)
          .as("in the order in which they came")
          .isEqualTo(bySource.get(s).keySet().stream().map(kept::get).toList());
      for (Map.Entry<String, Brought> e : bySource.get(s).entrySet()) {
        int slot = h.slotOf(h.idOf(kept.get(e.getKey())), s);
        assertThat(new Brought(h.spellingAt(slot), h.sizeAt(slot), h.shaAt(slot)))
            .isEqualTo(e.getValue());
      }
    }
  }

  private static Holdings writtenAndRead(Holdings h, PathCase pathCase) {
    try {
      Path file = Files.createTempFile("holdings", "");
      try (ArrayFileWriter out = new ArrayFileWriter(file)) {
        h.write(out);
        out.finish();
      }
      try (ArrayFileReader in = new ArrayFileReader(file)) {
        return Holdings.read(pathCase, in);
      } finally {
        Files.delete(file);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Test
  void packs_folders_and_spellings_are_there_again_after_they_were_written() {
    Holdings h = writtenAndRead(three(), PathCase.INSENSITIVE);
    assertThat(h.sources()).isEqualTo(three().sources());
    for (int s = 0; s < 3; s++) assertThat(h.foldersOf(s)).isEqualTo(three().foldersOf(s));
    assertThat(h.foldersOf(1)).containsExactly("DATA/tex", "data/tex");
    for (int slot = 0; slot < 5; slot++) {
      assertThat(h.spellingAt(slot)).isEqualTo(three().spellingAt(slot));
      assertThat(h.holderAt(slot)).isEqualTo(three().holderAt(slot));
      for (int other = 0; other < 5; other++)
        assertThat(h.sameContent(slot, other)).isEqualTo(three().sameContent(slot, other));
    }
    Holdings nothing =
        writtenAndRead(new HoldingsBuilder(PathCase.SENSITIVE).build(), PathCase.SENSITIVE);
    assertThat(nothing.pathCount()).isZero();
    assertThat(nothing.idOf("a")).isEqualTo(-1);
  }

  /** Beside the pattern itself, asked of every path. */
  @Property(tries = 500, seed = "8160")
  void no_path_is_missed_by_a_look_at_its_end(
      @ForAll PathCase pathCase, @ForAll @IntRange(max = 100_000) int seed) {
    Random random = new Random(seed);
    // some of them fold to letters of the pattern, from outside ASCII
    String letters = "aAkK\u212As\u017F./é";
    HoldingsBuilder b = new HoldingsBuilder(pathCase);
    int source = b.source(1, Optional.empty());
    for (int f = 0; f < 30; f++) {
      StringBuilder path = new StringBuilder();
      for (int n = random.nextInt(7); n >= 0; n--)
        path.append(letters.charAt(random.nextInt(letters.length())));
      b.file(source, path.toString(), 1, sha(f));
    }
    Holdings h = b.build();
    PathPattern pattern =
        PathPattern.of(List.of("*.ask", "**/*.Ks", "*", "a/").get(random.nextInt(4)), pathCase);
    assertThat(h.pathsEnding(pattern.tail(), pattern::matches))
        .isEqualTo(
            IntStream.range(0, h.pathCount()).filter(p -> pattern.matches(h.path(p))).toArray());
  }

  @Test
  void what_is_no_hash_is_refused() {
    HoldingsBuilder b = new HoldingsBuilder(PathCase.SENSITIVE);
    int source = b.source(1, Optional.empty());
    assertThatThrownBy(() -> b.file(source, "a", 1, "abc"))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> b.file(source, "a", 1, "abcd"))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
