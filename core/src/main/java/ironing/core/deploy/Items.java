package ironing.core.deploy;

import ironing.core.deploy.LaidOut.Item;
import java.util.AbstractMap;
import java.util.AbstractSet;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Items by path, in path order. Immutable. Hundreds of thousands are passed on without a copy, and
 * gone through side by side with others in the same order.
 */
final class Items extends AbstractMap<String, Item> {
  // a search among hundreds of thousands costs about as much as so many steps through them
  private static final int FEW = 32;
  private final Item[] sorted;
  // open addressing: one more than the place in the order, 0 for nothing
  private volatile int[] table;

  /**
   * @param sorted by path, none twice; not to be changed any more
   */
  Items(Item[] sorted) {
    this.sorted = sorted;
  }

  static Items of(Map<String, Item> files) {
    if (files instanceof Items items) return items;
    Item[] sorted = files.values().toArray(Item[]::new);
    Arrays.sort(sorted, Comparator.comparing(Item::path));
    return new Items(sorted);
  }

  Item at(int n) {
    return sorted[n];
  }

  /** The place of a path in the order; -1 where it is none of them. */
  int find(String path) {
    int[] t = table();
    for (int at = spread(path) & t.length - 1; t[at] != 0; at = at + 1 & t.length - 1)
      if (sorted[t[at] - 1].path().equals(path)) return t[at] - 1;
    return -1;
  }

  /** Whether any of them lies in a folder, or below it. */
  boolean anyBelow(String folder) {
    String start = folder + "/";
    int at = from(start);
    return at < sorted.length && sorted[at].path().startsWith(start);
  }

  /** The place of the first that does not come before a path. */
  private int from(String path) {
    int low = 0, high = sorted.length;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (sorted[middle].path().compareTo(path) < 0) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /**
   * The same with others in their places.
   *
   * @param others by path; all of them are there already
   */
  Items with(Map<String, Item> others) {
    if (others.isEmpty()) return this;
    Item[] next = sorted.clone();
    if (others.size() < sorted.length / FEW) {
      for (Item i : others.values()) next[from(i.path())] = i;
      return new Items(next);
    }
    for (int n = 0; n < next.length; n++) {
      Item other = others.get(next[n].path());
      if (other != null) next[n] = other;
    }
    return new Items(next);
  }

  // made at the first question; two threads that make it at once make the same
  private int[] table() {
    int[] t = table;
    if (t != null) return t;
    t = new int[Math.max(4, Integer.highestOneBit(Math.max(1, sorted.length)) << 2)];
    for (int i = 0; i < sorted.length; i++) {
      int at = spread(sorted[i].path()) & t.length - 1;
      while (t[at] != 0) at = at + 1 & t.length - 1;
      t[at] = i + 1;
    }
    table = t;
    return t;
  }

  private static int spread(String path) {
    int hash = path.hashCode() * 0x9E3779B9;
    return hash ^ hash >>> 15;
  }

  @Override
  public Item get(Object path) {
    int n = path instanceof String p ? find(p) : -1;
    return n < 0 ? null : sorted[n];
  }

  @Override
  public boolean containsKey(Object path) {
    return path instanceof String p && find(p) >= 0;
  }

  @Override
  public int size() {
    return sorted.length;
  }

  @Override
  public Collection<Item> values() {
    List<Item> all = Arrays.asList(sorted);
    return Collections.unmodifiableList(all);
  }

  @Override
  public Set<Entry<String, Item>> entrySet() {
    return new AbstractSet<>() {
      @Override
      public Iterator<Entry<String, Item>> iterator() {
        Iterator<Item> each = Arrays.asList(sorted).iterator();
        return new Iterator<>() {
          @Override
          public boolean hasNext() {
            return each.hasNext();
          }

          @Override
          public Entry<String, Item> next() {
            Item i = each.next();
            return Map.entry(i.path(), i);
          }
        };
      }

      @Override
      public int size() {
        return sorted.length;
      }
    };
  }
}
