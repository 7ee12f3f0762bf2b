package ironing.core.layers;

import ironing.core.order.Ordering;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;

/**
 * How all files stand under one order of sources: the file in play at every path, and for every
 * source how many of its files are in play alone, cover others, are covered, or are twins. A ruling
 * of the user's puts one file in play whatever the order says.
 *
 * <p>Idea: each source has a rank, and the winner of a path is its holder of the highest rank. When
 * the order changes, the sources outside a longest common run of old and new order are the ones
 * that moved; only paths that they hold can change hands, and only those are looked at again. So a
 * move costs what the moved mods hold, plus copying one int a path.
 *
 * <p>Immutable; {@link #reordered} gives a new one. Threads: any number of readers.
 */
public final class Standing {
  /** Which of four ways a file stands; their counts make a mod's bar. */
  public enum Way {
    IN_PLAY,
    COVERING,
    COVERED,
    TWIN
  }

  /** A path whose file in play is another than before. Slots of {@link Holdings}, -1 for none. */
  public record Change(int path, int before, int after) {}

  /** For an order that decides everything. */
  public static final int[] NO_RULINGS = {};

  private static final int ABSENT = -1;

  private final Holdings holdings;
  private final int[] order;
  private final int[] rank;
  // slots that the user keeps out of the game; never altered once it is here
  private final BitSet held;
  // by path the slot that a ruling puts in play if it stands, -1 for none; never altered
  private final int[] ruled;
  private final int[] winner;
  private final int[][] tally;

  // reordered() counts with two of these over one tally: the old ranks take away, the new ones add.
  private Standing(
      Holdings holdings,
      int[] order,
      int[] rank,
      BitSet held,
      int[] ruled,
      int[] winner,
      int[][] tally) {
    this.holdings = holdings;
    this.order = order;
    this.rank = rank;
    this.held = held;
    this.ruled = ruled;
    this.winner = winner;
    this.tally = tally;
  }

  /**
   * @param order source ids from the lowest; what is not named is out of the game
   */
  public static Standing of(Holdings holdings, int[] order) {
    return of(holdings, order, new BitSet(), NO_RULINGS);
  }

  /**
   * @param held slots of {@link Holdings} that are held back: they do not stand
   * @param ruled by path the slot that is in play whatever the order says, if it stands; {@link
   *     #NO_RULINGS} where there are none
   */
  public static Standing of(Holdings holdings, int[] order, BitSet held, int[] ruled) {
    int[] winner = new int[holdings.pathCount()];
    Arrays.fill(winner, ABSENT);
    int[][] tally = new int[holdings.sourceCount()][Way.values().length];
    Standing s =
        new Standing(holdings, order.clone(), ranks(holdings, order), held, ruled, winner, tally);
    for (int p = 0; p < winner.length; p++) {
      winner[p] = s.highest(p);
      s.count(p, 1);
    }
    return s;
  }

  /** The standing under another order, with the same files held back and the same rulings. */
  public Standing reordered(int[] newOrder) {
    return reordered(newOrder, held, ruled);
  }

  /**
   * The standing under another order, with other files held back, under other rulings. Cost:
   * O(sources log sources + files of the sources that moved + paths copied).
   */
  public Standing reordered(int[] newOrder, BitSet newHeld, int[] newRuled) {
    if (Arrays.equals(order, newOrder) && held.equals(newHeld) && ruled == newRuled) return this;
    int[][] newTally = new int[tally.length][];
    for (int s = 0; s < tally.length; s++) newTally[s] = tally[s].clone();
    Standing next =
        new Standing(
            holdings,
            newOrder.clone(),
            ranks(holdings, newOrder),
            newHeld,
            newRuled,
            winner.clone(),
            newTally);
    BitSet touched = new BitSet(winner.length);
    for (int s : moved(order, rank, newOrder, next.rank))
      for (int p : holdings.pathsOf(s)) touched.set(p);
    BitSet turned = (BitSet) held.clone();
    turned.xor(newHeld);
    turned.stream().forEach(slot -> touched.set(holdings.pathAt(slot)));
    if (ruled != newRuled) {
      for (int p = 0; p < winner.length; p++)
        if (ruledSlot(ruled, p) != ruledSlot(newRuled, p)) touched.set(p);
    }
    Standing before = new Standing(holdings, order, rank, held, ruled, winner, newTally);
    touched.stream()
        .forEach(
            p -> {
              before.count(p, -1);
              next.winner[p] = next.highest(p);
              next.count(p, 1);
            });
    return next;
  }

  /**
   * The standing of holdings that came from these, with the sources that are left; one that came
   * with them does not stand yet. What is held back or ruled stays so where its holder has the path
   * still. Cost: O(sources + files at the paths that were touched + paths copied).
   *
   * @param next see {@link Holdings#isFrom}
   */
  public Standing over(Holdings next) {
    int[] left = Arrays.stream(order).filter(s -> next.source(s).mod() != Holdings.GONE).toArray();
    int[][] newTally = new int[next.sourceCount()][];
    for (int s = 0; s < newTally.length; s++)
      newTally[s] = s < tally.length ? tally[s].clone() : new int[Way.values().length];
    int[] newWinner = Arrays.copyOf(winner, next.pathCount());
    Arrays.fill(newWinner, winner.length, newWinner.length, ABSENT);
    BitSet newHeld = (BitSet) held.clone();
    int[] newRuled = ruled.length == 0 ? NO_RULINGS : Arrays.copyOf(ruled, newWinner.length);
    if (ruled.length > 0) Arrays.fill(newRuled, ruled.length, newRuled.length, ABSENT);
    Standing before = new Standing(holdings, order, rank, held, ruled, winner, newTally);
    BitSet touched = next.touchedSince(holdings);
    for (int p = touched.nextSetBit(0); p >= 0; p = touched.nextSetBit(p + 1)) {
      if (p >= winner.length) break;
      before.count(p, -1);
      for (int slot = holdings.firstSlot(p); slot < holdings.endSlot(p); slot++) {
        int now = next.slotOf(p, holdings.sourceAt(slot));
        if (held.get(slot)) {
          newHeld.clear(slot);
          if (now >= 0) newHeld.set(now);
        }
        if (ruledSlot(ruled, p) == slot) newRuled[p] = now;
      }
    }
    Standing after =
        new Standing(next, left, ranks(next, left), newHeld, newRuled, newWinner, newTally);
    for (int p = touched.nextSetBit(0); p >= 0; p = touched.nextSetBit(p + 1)) {
      newWinner[p] = after.highest(p);
      after.count(p, 1);
    }
    return after;
  }

  // the height of a slot's source, or that it does not stand
  private int rankAt(int slot) {
    return held.get(slot) ? ABSENT : rank[holdings.sourceAt(slot)];
  }

  private static int ruledSlot(int[] ruled, int path) {
    return ruled.length == 0 ? ABSENT : ruled[path];
  }

  // what a slot has to say at its path: its rank, or above all ranks by a ruling
  private int heightAt(int path, int slot) {
    int r = rankAt(slot);
    return r != ABSENT && ruledSlot(ruled, path) == slot ? Integer.MAX_VALUE : r;
  }

  /**
   * What differs in the game between another standing over the same holdings and this one. Cost:
   * O(paths).
   */
  public List<Change> changesSince(Standing before) {
    List<Change> changes = new ArrayList<>();
    for (int p = 0; p < winner.length; p++) {
      int a = before.winner[p], b = winner[p];
      if (a != b && (a == ABSENT || b == ABSENT || !holdings.sameContent(a, b)))
        changes.add(new Change(p, a, b));
    }
    return changes;
  }

  private static int[] moved(int[] order, int[] rank, int[] newOrder, int[] newRank) {
    List<Integer> moved = new ArrayList<>();
    for (int s : order) if (newRank[s] == ABSENT) moved.add(s);
    int[] common = Arrays.stream(newOrder).filter(s -> rank[s] != ABSENT).toArray();
    BitSet kept = Ordering.longestRising(Arrays.stream(common).map(s -> rank[s]).toArray());
    for (int i = 0; i < common.length; i++) if (!kept.get(i)) moved.add(common[i]);
    for (int s : newOrder) if (rank[s] == ABSENT) moved.add(s);
    return moved.stream().mapToInt(Integer::intValue).toArray();
  }

  private static int[] ranks(Holdings holdings, int[] order) {
    int[] rank = new int[holdings.sourceCount()];
    Arrays.fill(rank, ABSENT);
    for (int i = 0; i < order.length; i++) {
      if (rank[order[i]] != ABSENT)
        throw new IllegalArgumentException("source " + order[i] + " stands in the order twice");
      rank[order[i]] = i;
    }
    return rank;
  }

  private int highest(int path) {
    int best = ABSENT, bestRank = ABSENT;
    for (int slot = holdings.firstSlot(path); slot < holdings.endSlot(path); slot++) {
      int r = heightAt(path, slot);
      if (r > bestRank) {
        best = slot;
        bestRank = r;
      }
    }
    return best;
  }

  private void count(int path, int by) {
    int w = winner[path];
    if (w == ABSENT) return;
    for (int slot = holdings.firstSlot(path); slot < holdings.endSlot(path); slot++) {
      int s = holdings.sourceAt(slot);
      if (rankAt(slot) == ABSENT) continue;
      if (slot != w) tally[s][wayOfLoser(slot, w).ordinal()] += by;
    }
    tally[holdings.sourceAt(w)][(isContested(path) ? Way.COVERING : Way.IN_PLAY).ordinal()] += by;
  }

  private Way wayOfLoser(int slot, int winnerSlot) {
    return holdings.sameContent(slot, winnerSlot) ? Way.TWIN : Way.COVERED;
  }

  public Holdings holdings() {
    return holdings;
  }

  /** The slots that are held back. This object's own: read only. */
  public BitSet heldBack() {
    return held;
  }

  /** By path the slot that a ruling speaks for. This object's own: read only. */
  public int[] ruled() {
    return ruled;
  }

  /** Whether a file is held back; asked by slot. */
  public boolean isHeldBack(int slot) {
    return held.get(slot);
  }

  /** The slots that would stand above the one in play if no ruling spoke. */
  public List<Integer> aboveByOrder(int path) {
    List<Integer> above = new ArrayList<>();
    int w = winner[path];
    for (int slot = holdings.firstSlot(path); slot < holdings.endSlot(path); slot++)
      if (w != ABSENT && rankAt(slot) > rankAt(w)) above.add(slot);
    return above;
  }

  /** Whether a ruling and not the order puts the file in play at a path. */
  public boolean isRuled(int path) {
    return winner[path] != ABSENT && ruledSlot(ruled, path) == winner[path];
  }

  /** Source ids from the lowest to the highest. */
  public int[] order() {
    return order.clone();
  }

  public boolean isStanding(int source) {
    return rank[source] != ABSENT;
  }

  /** The slot of the file in play at a path, -1 when every holder is off. */
  public int inPlay(int path) {
    return winner[path];
  }

  /**
   * The next path at which another slot is in play than somebody has noted; {@link
   * Holdings#pathCount} when there is none. Cost: a comparison of numbers for each path on the way.
   *
   * @param noted by path; it may be longer than there are paths
   */
  public int nextUnlike(int[] noted, int from) {
    int n = winner.length;
    int at = Arrays.mismatch(winner, Math.min(from, n), n, noted, Math.min(from, n), n);
    return at < 0 ? n : from + at;
  }

  /** Whether there are rulings. */
  public boolean hasRulings() {
    return ruled.length > 0;
  }

  /** How many files of a source stand in a way. */
  public int count(int source, Way way) {
    return tally[source][way.ordinal()];
  }

  /** The paths at which {@link #isContested}. Cost: O(files). */
  public int[] contested() {
    return IntStream.range(0, winner.length).parallel().filter(this::isContested).toArray();
  }

  /**
   * Whether more than one holder stands at a path, and not all of them are the game: what its own
   * packs have twice is no overlap.
   */
  public boolean isContested(int path) {
    int standing = 0;
    boolean modded = false;
    for (int slot = holdings.firstSlot(path); slot < holdings.endSlot(path); slot++) {
      if (rankAt(slot) == ABSENT) continue;
      standing++;
      modded |= holdings.holderAt(slot).mod() != Holdings.GAME;
      if (modded && standing > 1) return true;
    }
    return false;
  }

  /** Whether some standing holder has another content than the one in play. */
  public boolean differs(int path) {
    int w = winner[path];
    for (int slot = holdings.firstSlot(path); slot < holdings.endSlot(path); slot++) {
      if (rankAt(slot) != ABSENT && !holdings.sameContent(slot, w)) return true;
    }
    return false;
  }

  /** The slots of all holders that stand at a path, the one in play first, then downwards. */
  public List<Integer> holders(int path) {
    List<Integer> slots = new ArrayList<>();
    for (int slot = holdings.firstSlot(path); slot < holdings.endSlot(path); slot++) {
      if (rankAt(slot) != ABSENT) slots.add(slot);
    }
    slots.sort((a, b) -> Integer.compare(heightAt(path, b), heightAt(path, a)));
    return slots;
  }

  /** How one file stands. Asked only of sources that stand. */
  public Way way(int path, int slot) {
    int w = winner[path];
    if (slot != w) return wayOfLoser(slot, w);
    return isContested(path) ? Way.COVERING : Way.IN_PLAY;
  }

  /**
   * The relations of one mod: which mods it covers and is covered by, in how many paths.
   *
   * @param covers mod id to number of paths at which this mod stands above that one
   * @param coveredBy the same the other way about
   */
  public record Relations(Map<Long, Integer> covers, Map<Long, Integer> coveredBy) {}

  /** Cost: the files that the mod holds, times their holders. */
  public Relations relationsOf(long mod) {
    Map<Long, Integer> covers = new TreeMap<>(), coveredBy = new TreeMap<>();
    for (Holdings.Source source : holdings.sourcesOfMod(mod)) {
      if (rank[source.id()] == ABSENT) continue;
      for (int p : holdings.pathsOf(source.id())) {
        int own = holdings.slotOf(p, source.id());
        if (held.get(own)) continue;
        for (int slot = holdings.firstSlot(p); slot < holdings.endSlot(p); slot++) {
          long other = holdings.holderAt(slot).mod();
          if (other == mod || rankAt(slot) == ABSENT) continue;
          (heightAt(p, slot) < heightAt(p, own) ? covers : coveredBy).merge(other, 1, Integer::sum);
        }
      }
    }
    return new Relations(covers, coveredBy);
  }

  /**
   * The paths that a mod holds and that stand, in no order; a path held loose and packed comes
   * once.
   */
  public int[] pathsOfMod(long mod) {
    BitSet seen = new BitSet();
    for (Holdings.Source source : holdings.sourcesOfMod(mod)) {
      if (rank[source.id()] != ABSENT)
        for (int p : holdings.pathsOf(source.id()))
          if (!held.get(holdings.slotOf(p, source.id()))) seen.set(p);
    }
    return seen.stream().toArray();
  }
}
