package ironing.core.layers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.archive.ContentHash;
import ironing.core.layers.Standing.Way;
import ironing.core.path.PathCase;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Holdings that others came from, beside those that are gathered of the same files at once. */
class HoldingsChangeTest {
  /** Files of one mod by pack, {@code ""} for loose ones: path to content. */
  private record Mod(TreeMap<String, TreeMap<String, String>> packs) {}

  private static String sha(String content) {
    return ContentHash.of(content.getBytes(StandardCharsets.UTF_8));
  }

  private static Holdings gathered(Map<Long, Mod> mods, PathCase pathCase) {
    HoldingsBuilder b = new HoldingsBuilder(pathCase);
    new TreeMap<>(mods)
        .forEach(
            (id, mod) ->
                mod.packs()
                    .forEach(
                        (pack, files) -> {
                          int s = b.source(id, Optional.of(pack).filter(p -> !p.isEmpty()));
                          files.forEach((path, c) -> b.file(s, path, c.length(), sha(c)));
                        }));
    return b.build();
  }

  private static Mod random(Random random) {
    TreeMap<String, TreeMap<String, String>> packs = new TreeMap<>();
    for (String pack : List.of("", "p.crate", "q.crate")) {
      if (random.nextInt(3) == 0) continue;
      TreeMap<String, String> files = new TreeMap<>();
      for (int p = 0; p < 12; p++) {
        String path = random.nextBoolean() ? "f" + p % 3 + "/p" + p : "F" + p % 3 + "/P" + p;
        if (random.nextInt(3) == 0) files.put(path, "c".repeat(1 + random.nextInt(3)));
      }
      if (!files.isEmpty()) packs.put(pack, files);
    }
    return new Mod(packs);
  }

  private static Mod edited(Mod mod, Random random) {
    TreeMap<String, TreeMap<String, String>> packs = new TreeMap<>();
    mod.packs().forEach((pack, files) -> packs.put(pack, new TreeMap<>(files)));
    for (TreeMap<String, String> files : packs.values()) {
      String path = List.copyOf(files.keySet()).get(random.nextInt(files.size()));
      if (random.nextInt(4) == 0 && files.size() > 1) files.remove(path);
      else files.put(path, "edited " + random.nextInt(3));
    }
    return new Mod(packs);
  }

  /** All that is to be asked of holdings, in words that know no ids. */
  private static Map<String, Object> told(Holdings h) {
    Map<String, Object> told = new TreeMap<>();
    int files = 0;
    for (int p = 0; p < h.pathCount(); p++) {
      if (!h.isHeld(p)) continue;
      assertThat(h.idOf(h.path(p))).isEqualTo(p);
      List<String> holders = new ArrayList<>();
      for (int slot = h.firstSlot(p); slot < h.endSlot(p); slot++, files++) {
        assertThat(h.pathAt(slot)).isEqualTo(p);
        assertThat(h.slotOf(p, h.holderAt(slot).id())).isEqualTo(slot);
        holders.add(word(h, slot));
      }
      told.put(h.path(p), holders);
    }
    assertThat(h.fileCount()).isEqualTo(files);
    Map<Long, List<String>> sources = new TreeMap<>();
    for (Holdings.Source s : h.sources()) {
      assertThat(h.source(s.id())).isEqualTo(s);
      sources
          .computeIfAbsent(s.mod(), m -> new ArrayList<>())
          .add(s.pack() + " " + paths(h, s) + " " + h.foldersOf(s.id()));
      told.put("mod " + s.mod(), h.holdsAny(s.mod(), path -> path.endsWith("7")));
    }
    told.put("", sources);
    told.put("7", new TreeSet<>(h.modsHolding("p7")));
    told.put(
        "ending", Arrays.stream(h.pathsEnding("1", p -> true)).mapToObj(h::path).sorted().toList());
    return told;
  }

  private static List<String> paths(Holdings h, Holdings.Source s) {
    return Arrays.stream(h.pathsOf(s.id())).mapToObj(h::path).toList();
  }

  private static String word(Holdings h, int slot) {
    Holdings.Source s = h.holderAt(slot);
    return String.join(
        " ",
        Long.toString(s.mod()),
        s.pack().toString(),
        h.spellingAt(slot),
        h.shaAt(slot),
        Long.toString(h.sizeAt(slot)));
  }

  @Property(tries = 500, seed = "8160")
  void a_change_gives_what_gathering_anew_would(@ForAll PathCase pathCase, @ForAll long seed) {
    Random random = new Random(seed);
    Map<Long, Mod> mods = new HashMap<>();
    for (long id = 0; id < 5; id++) mods.put(id, random(random));
    Holdings grown = gathered(mods, pathCase), first = grown;
    Standing standing = null;
    for (int step = 0; step < 6; step++) {
      Set<Long> gone = new TreeSet<>();
      Map<Long, Mod> come = new HashMap<>();
      for (long id = 0; id < 8; id++) {
        switch (random.nextInt(8)) {
          case 0 -> gone.add(id);
          case 1 -> come.put(id, random(random));
          case 2 -> {
            if (mods.containsKey(id)) come.put(id, edited(mods.get(id), random));
          }
          default -> {}
        }
      }
      mods.keySet().removeAll(gone);
      mods.putAll(come);
      gone.addAll(come.keySet());
      Holdings before = grown;
      if (standing == null) standing = Standing.of(before, order(before, random));
      grown = before.with(gone, gathered(come, pathCase));
      Map<String, Object> expected = told(gathered(mods, pathCase));
      assertThat(told(grown)).isEqualTo(expected);
      assertThat(told(grown.gathered(pathCase))).isEqualTo(expected);
      assertThat(grown.isFrom(first)).isTrue();
      untouchedAreTheSame(first, grown);
      standing = stands(standing.over(grown), grown, random);
    }
  }

  private static void untouchedAreTheSame(Holdings before, Holdings after) {
    BitSet touched = after.touchedSince(before);
    for (int p = 0; p < after.pathCount(); p++) {
      if (touched.get(p)) continue;
      assertThat(p).isLessThan(before.pathCount());
      assertThat(holders(after, p)).isEqualTo(holders(before, p));
    }
  }

  private static List<String> holders(Holdings h, int path) {
    List<String> holders = new ArrayList<>();
    for (int slot = h.firstSlot(path); slot < h.endSlot(path); slot++) holders.add(word(h, slot));
    return holders;
  }

  private static int[] order(Holdings h, Random random) {
    List<Integer> ids = new ArrayList<>(h.sources().stream().map(Holdings.Source::id).toList());
    Collections.shuffle(ids, random);
    return ids.subList(0, ids.size() - ids.size() / 4).stream().mapToInt(i -> i).toArray();
  }

  private static Standing stands(Standing over, Holdings h, Random random) {
    isAsAnew(over, h);
    for (int s : over.order()) assertThat(h.sources()).contains(h.source(s));
    BitSet held = new BitSet();
    int[] ruled = new int[h.pathCount()];
    Arrays.fill(ruled, -1);
    for (int p = 0; p < ruled.length; p++)
      for (int slot = h.firstSlot(p); slot < h.endSlot(p); slot++) {
        if (random.nextInt(6) == 0) held.set(slot);
        if (random.nextInt(6) == 0) ruled[p] = slot;
      }
    Standing next = over.reordered(order(h, random), held, ruled);
    isAsAnew(next, h);
    return next;
  }

  private static void isAsAnew(Standing s, Holdings h) {
    Standing anew = Standing.of(h, s.order(), s.heldBack(), s.ruled());
    for (int p = 0; p < h.pathCount(); p++) {
      assertThat(s.inPlay(p)).isEqualTo(anew.inPlay(p));
      assertThat(s.isRuled(p)).isEqualTo(anew.isRuled(p));
    }
    for (int source = 0; source < h.sourceCount(); source++)
      for (Way w : Way.values()) assertThat(s.count(source, w)).isEqualTo(anew.count(source, w));
  }

  @Test
  void a_file_that_was_edited_touches_its_path_and_no_other() {
    Map<String, String> files = new TreeMap<>();
    for (int i = 0; i < 100; i++) files.put("a/" + i, "x");
    Map<Long, Mod> mods = Map.of(0L, loose(Map.of("a/1", "own")), 1L, loose(files));
    Holdings before = gathered(mods, PathCase.INSENSITIVE);
    files.put("a/1", "y");
    Holdings after =
        before.with(Set.of(1L), gathered(Map.of(1L, loose(files)), PathCase.INSENSITIVE));
    int path = after.idOf("A/1");
    assertThat(after.touchedSince(before).stream()).containsExactly(path);
    assertThat(after.shaAt(after.slotOfMod(path, 1))).isEqualTo(sha("y"));
    assertThat(before.shaAt(before.slotOfMod(path, 1))).isEqualTo(sha("x"));
    assertThat(after.sources()).isEqualTo(before.sources());
  }

  @Test
  void what_nobody_holds_any_more_is_not_found_until_it_is_back() {
    Map<Long, Mod> mods = Map.of(0L, loose(Map.of("own", "1")), 1L, loose(Map.of("New", "2")));
    Holdings before = gathered(mods, PathCase.INSENSITIVE);
    Holdings without = before.with(Set.of(1L), gathered(Map.of(), PathCase.INSENSITIVE));
    assertThat(without.idOf("new")).isEqualTo(-1);
    assertThat(without.pathsEnding("w", p -> true)).isEmpty();
    assertThat(without.fileCount()).isEqualTo(1);
    assertThatThrownBy(() -> without.write(null)).isInstanceOf(IllegalStateException.class);
    Holdings back =
        without.with(
            Set.of(), gathered(Map.of(7L, loose(Map.of("nEW", "3"))), PathCase.INSENSITIVE));
    assertThat(back.path(back.idOf("new"))).isEqualTo("nEW");
    assertThat(back.sourcesOf(back.idOf("new")))
        .extracting(Holdings.Source::mod)
        .containsExactly(7L);
  }

  @Test
  void holdings_of_another_line_are_not_compared() {
    Map<Long, Mod> mods = Map.of(1L, loose(Map.of("a", "1")));
    Holdings one = gathered(mods, PathCase.SENSITIVE), other = gathered(mods, PathCase.SENSITIVE);
    Holdings branch = one.with(Set.of(1L), gathered(Map.of(), PathCase.SENSITIVE));
    Holdings beside = one.with(Set.of(1L), gathered(Map.of(), PathCase.SENSITIVE));
    assertThat(one.isFrom(other)).isFalse();
    assertThat(branch.isFrom(beside)).isFalse();
    assertThat(one.isFrom(branch)).isFalse();
    assertThatThrownBy(() -> branch.touchedSince(beside))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void so_much_that_came_late_is_gathered_anew() {
    Map<String, String> many = new TreeMap<>();
    for (int i = 0; i < 60_000; i++) many.put("m/" + i, "x");
    Holdings small = gathered(Map.of(0L, loose(Map.of("own", "1"))), PathCase.SENSITIVE);
    Holdings grown = small.with(Set.of(), gathered(Map.of(1L, loose(many)), PathCase.SENSITIVE));
    assertThat(small.isScattered()).isFalse();
    assertThat(grown.isScattered()).isTrue();
    Holdings anew = grown.gathered(PathCase.SENSITIVE);
    Holdings emptied = anew.with(Set.of(1L), gathered(Map.of(), PathCase.SENSITIVE));
    assertThat(emptied.isScattered()).isTrue();
    assertThat(emptied.gathered(PathCase.SENSITIVE).pathCount()).isEqualTo(1);
    assertThat(anew.isScattered()).isFalse();
    assertThat(anew.isFrom(grown)).isFalse();
    assertThat(anew.fileCount()).isEqualTo(60_001);
  }

  private static Mod loose(Map<String, String> files) {
    return new Mod(new TreeMap<>(Map.of("", new TreeMap<>(files))));
  }
}
