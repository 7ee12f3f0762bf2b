package ironing.core.order;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.BitSet;

/**
 * Largest matchings between two copies of the same things, and what follows from them.
 *
 * <p>Source, from memory: Hopcroft and Karp, “An n^5/2 algorithm for maximum matchings in bipartite
 * graphs”, 1973. Cost: O(pairs · √n).
 */
final class Matching {
  private static final int NONE = -1;
  private final BitSet[] pairs;
  private final int[] rightOf, leftOf, layer;

  private Matching(BitSet[] pairs) {
    this.pairs = pairs;
    this.rightOf = new int[pairs.length];
    this.leftOf = new int[pairs.length];
    this.layer = new int[pairs.length];
    Arrays.fill(rightOf, NONE);
    Arrays.fill(leftOf, NONE);
    while (layers()) {
      BitSet[] left = new BitSet[pairs.length];
      for (int i = 0; i < pairs.length; i++) if (rightOf[i] == NONE) augment(i, left);
    }
  }

  /**
   * A largest set no two members of which are a pair.
   *
   * @param pairs by i all j with i before j in a partial order (it holds from i to k when it does
   *     from i to j and from j to k)
   */
  static BitSet largestAntichain(BitSet[] pairs) {
    Matching m = new Matching(pairs);
    // König: what can be reached from the unmatched on the left, going there by a pair and back by
    // a
    // matched one, leaves the smallest cover; what it covers on neither side are no two of a pair
    BitSet left = new BitSet(), right = new BitSet();
    ArrayDeque<Integer> queue = new ArrayDeque<>();
    for (int i = 0; i < pairs.length; i++) {
      if (m.rightOf[i] == NONE) {
        left.set(i);
        queue.add(i);
      }
    }
    while (!queue.isEmpty()) {
      BitSet fresh = (BitSet) pairs[queue.poll()].clone();
      fresh.andNot(right);
      right.or(fresh);
      for (int j = fresh.nextSetBit(0); j >= 0; j = fresh.nextSetBit(j + 1)) {
        int back = m.leftOf[j];
        if (back != NONE && !left.get(back)) {
          left.set(back);
          queue.add(back);
        }
      }
    }
    left.andNot(right);
    return left;
  }

  /** How far each on the left is from an unmatched one; whether a longer matching is in reach. */
  private boolean layers() {
    ArrayDeque<Integer> queue = new ArrayDeque<>();
    Arrays.fill(layer, NONE);
    for (int i = 0; i < pairs.length; i++) {
      if (rightOf[i] == NONE) {
        layer[i] = 0;
        queue.add(i);
      }
    }
    boolean open = false;
    BitSet seen = new BitSet();
    while (!queue.isEmpty()) {
      int i = queue.poll();
      BitSet fresh = (BitSet) pairs[i].clone();
      fresh.andNot(seen);
      seen.or(fresh);
      for (int j = fresh.nextSetBit(0); j >= 0; j = fresh.nextSetBit(j + 1)) {
        int next = leftOf[j];
        if (next == NONE) {
          open = true;
        } else if (layer[next] == NONE) {
          layer[next] = layer[i] + 1;
          queue.add(next);
        }
      }
    }
    return open;
  }

  // each pair is tried once in a round: what did not lead on is struck off
  private boolean augment(int i, BitSet[] left) {
    if (left[i] == null) left[i] = (BitSet) pairs[i].clone();
    for (int j = left[i].nextSetBit(0); j >= 0; j = left[i].nextSetBit(j + 1)) {
      left[i].clear(j);
      int next = leftOf[j];
      if (next == NONE || layer[next] == layer[i] + 1 && augment(next, left)) {
        rightOf[i] = j;
        leftOf[j] = i;
        return true;
      }
    }
    return false;
  }
}
