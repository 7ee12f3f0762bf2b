package ironing.core.workspace;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Difference;
import ironing.core.picture.Picture;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * What other layers would do to a set of mods, before anything is done: files, who meets whom,
 * records, and the user's decisions that would be about something else.
 *
 * @param meetings the pairs of mods that would meet at other paths than now; the largest first
 * @param records what the game would read otherwise, by key
 * @param decisions the records, by key, whose versions would be others than those that the user has
 *     decided on
 */
public record LookAhead(
    Difference difference,
    List<Meeting> meetings,
    List<RecordChange> records,
    List<String> decisions) {

  /**
   * Two mods, each in the version that is on afterwards or else before, with the paths at which
   * both have a file.
   *
   * @param come at how many paths they would meet and do not
   * @param gone at how many they do and would not
   */
  public record Meeting(long mod, long other, int come, int gone) {}

  /** What becomes of what the game reads of a record. */
  public enum Becomes {
    NEW,
    OTHER,
    GONE
  }

  /**
   * A record of which the game would read something else.
   *
   * @param label what people know it by
   */
  public record RecordChange(String key, String type, String label, Becomes becomes) {}

  /**
   * @param after over the same holdings
   *     <p>Cost: O(paths + the files of mods that come, go or are in another version + records of
   *     both).
   */
  public static LookAhead between(Workspace before, Workspace after) {
    return new LookAhead(
        Difference.between(before.picture(), after.picture()),
        meetings(before, after),
        records(before.get(RECORDS).index(), after.get(RECORDS).index()),
        decisions(before, after));
  }

  private record Pair(long low, long high) {
    static Pair of(long a, long b) {
      return a < b ? new Pair(a, b) : new Pair(b, a);
    }
  }

  private static List<Meeting> meetings(Workspace before, Workspace after) {
    Set<Long> was = on(before.picture()), is = on(after.picture());
    Set<Long> gone = new TreeSet<>(was), come = new TreeSet<>(is);
    gone.removeAll(is);
    come.removeAll(was);
    Map<Pair, Set<Integer>> earlier = met(before, gone, was), later = met(after, come, is);
    // versions of one mod are one
    Map<Long, Long> shown = new HashMap<>();
    for (long mod : was) shown.put(before.mods().get(mod).strand(), mod);
    for (long mod : is) shown.put(after.mods().get(mod).strand(), mod);
    Set<Pair> pairs = new HashSet<>(earlier.keySet());
    pairs.addAll(later.keySet());
    List<Meeting> out = new ArrayList<>();
    for (Pair p : pairs) {
      Set<Integer> then = earlier.getOrDefault(p, Set.of()), now = later.getOrDefault(p, Set.of());
      Meeting m =
          new Meeting(shown.get(p.low), shown.get(p.high), without(now, then), without(then, now));
      if (m.come + m.gone > 0) out.add(m);
    }
    out.sort(
        Comparator.comparingInt((Meeting m) -> -(m.come + m.gone))
            .thenComparingLong(Meeting::mod)
            .thenComparingLong(Meeting::other));
    return out;
  }

  private static Set<Long> on(Picture picture) {
    Set<Long> out = new TreeSet<>();
    for (Layer l : picture.arrangement().layers()) if (l.on()) out.add(l.mod());
    return out;
  }

  private static int without(Set<Integer> these, Set<Integer> those) {
    return (int) these.stream().filter(p -> !those.contains(p)).count();
  }

  /** By pairs of strands, the paths at which some mods meet those that are on. */
  private static Map<Pair, Set<Integer>> met(Workspace now, Set<Long> mods, Set<Long> on) {
    Standing standing = now.picture().standing();
    Holdings holdings = standing.holdings();
    Map<Pair, Set<Integer>> out = new HashMap<>();
    for (long mod : mods) {
      for (int path : standing.pathsOfMod(mod)) {
        for (int slot : standing.holders(path)) {
          long other = holdings.holderAt(slot).mod();
          if (other == mod || !on.contains(other)) continue;
          Pair pair = Pair.of(now.mods().get(mod).strand(), now.mods().get(other).strand());
          out.computeIfAbsent(pair, p -> new HashSet<>()).add(path);
        }
      }
    }
    return out;
  }

  @SuppressWarnings("ReferenceEquality")
  private static List<RecordChange> records(RecordIndex before, RecordIndex after) {
    List<RecordChange> out = new ArrayList<>();
    if (before == after) return out;
    for (int r = 0; r < after.size(); r++) {
      int was = before.find(after.key(r));
      if (was < 0) out.add(change(after, r, Becomes.NEW));
      else if (before.usedPrint(was) != after.usedPrint(r))
        out.add(change(after, r, Becomes.OTHER));
    }
    for (int r = 0; r < before.size(); r++)
      if (after.find(before.key(r)) < 0) out.add(change(before, r, Becomes.GONE));
    return out;
  }

  private static RecordChange change(RecordIndex index, int record, Becomes becomes) {
    return new RecordChange(
        index.key(record).toString(), index.type(record), index.label(record), becomes);
  }

  private static List<String> decisions(Workspace before, Workspace after) {
    Collisions was = before.get(COLLISIONS), is = after.get(COLLISIONS);
    return after.picture().arrangement().decisions().keySet().stream()
        .filter(key -> !madeOf(was, key).equals(madeOf(is, key)))
        .sorted(Comparator.comparing(PathCase::fold))
        .toList();
  }

  private static Optional<Long> madeOf(Collisions collisions, String key) {
    int record = Ref.parse(key).map(collisions.index()::find).orElse(-1);
    return record < 0 ? Optional.empty() : Optional.of(collisions.madeOf(record));
  }
}
