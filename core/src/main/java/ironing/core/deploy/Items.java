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
  private final Item[] sorted;

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

  private int find(Object path) {
    if (!(path instanceof String wanted)) return -1;
    int low = 0, high = sorted.length - 1;
    while (low <= high) {
      int middle = (low + high) >>> 1;
      int side = sorted[middle].path().compareTo(wanted);
      if (side == 0) return middle;
      if (side < 0) low = middle + 1;
      else high = middle - 1;
    }
    return -1;
  }

  @Override
  public Item get(Object path) {
    int n = find(path);
    return n < 0 ? null : sorted[n];
  }

  @Override
  public boolean containsKey(Object path) {
    return find(path) >= 0;
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
