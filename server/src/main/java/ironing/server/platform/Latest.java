package ironing.server.platform;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;

/**
 * For each key what was worked out for it last.
 *
 * <p>Threads: one at a time works something out for a key, be it slow or from the database; those
 * that ask for another key do not wait for it.
 */
public final class Latest<K, V> {
  private static final class Cell<V> {
    private V value;
  }

  private final Map<K, Cell<V>> cells = new ConcurrentHashMap<>();

  /**
   * @param next gives the value from that of before, which is null where there is none
   */
  public V of(K key, UnaryOperator<V> next) {
    Cell<V> cell = cells.computeIfAbsent(key, k -> new Cell<>());
    synchronized (cell) {
      cell.value = next.apply(cell.value);
      return cell.value;
    }
  }

  /** The value, worked out where there is none. */
  public V of(K key, Supplier<V> first) {
    return of(key, known -> known == null ? first.get() : known);
  }

  /** What is being worked out while this is called is not kept either. */
  public void forget(K key) {
    cells.remove(key);
  }
}
