package ironing.server.workspace;

import com.google.common.cache.Cache;
import com.google.common.cache.CacheBuilder;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.function.Supplier;
import java.util.function.ToLongFunction;
import java.util.function.UnaryOperator;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * What is in memory of workspaces: each one's open workspace, and whatever has been worked out of
 * it. All of them together take no more than a part of the heap: the workspace that nobody has
 * looked at for longest leaves it, whole, and is read anew when somebody asks. What leaves is never
 * of use to anybody but for the time that it saves.
 *
 * <p>The one that was looked at last stays, however large it is.
 *
 * <p>Threads: any. One at a time works something out for a workspace, be it slow or from the
 * database, once for however many ask; those that ask for another workspace or for another thing do
 * not wait for it.
 */
@Component
public class Memory {
  private static final int KIB = 1024;

  private final Cache<Long, Entry> entries;
  private final int mostKib;

  /** Of one workspace. */
  private static final class Entry {
    private final Map<Kept<?>, Cell<?>> cells = new ConcurrentHashMap<>();

    long bytes() {
      return cells.values().stream().mapToLong(Cell::bytes).sum();
    }
  }

  private static final class Cell<V> {
    private final ToLongFunction<V> bytes;
    private volatile V value;

    Cell(ToLongFunction<V> bytes) {
      this.bytes = bytes;
    }

    long bytes() {
      V now = value;
      return now == null ? 0 : bytes.applyAsLong(now);
    }
  }

  /**
   * @param share of the heap, from 0 to 1
   */
  @Autowired
  Memory(@Value("${ironing.memory.share}") double share) {
    this((long) (Runtime.getRuntime().maxMemory() * share));
  }

  Memory(long mostBytes) {
    this.mostKib = (int) Math.min(Math.max(mostBytes / KIB, 1), Integer.MAX_VALUE);
    this.entries =
        CacheBuilder.newBuilder()
            // one row of all, so that the eldest of all leaves
            .concurrencyLevel(1)
            .maximumWeight(mostKib)
            // one that is larger than all may be would leave at once
            .<Long, Entry>weigher((w, e) -> (int) Math.min(e.bytes() / KIB + 1, mostKib))
            .build();
  }

  /**
   * A place for one kind of thing, one of each workspace.
   *
   * @param bytes about how many a thing takes, beside what it shares with the open workspace
   */
  public <V> Kept<V> keeping(ToLongFunction<V> bytes) {
    return new Kept<>(bytes);
  }

  /** The same for what is so small that nobody need count it. */
  public <V> Kept<V> keepingLittle() {
    return new Kept<>(v -> 0);
  }

  /** All of one kind. */
  public final class Kept<V> {
    private final ToLongFunction<V> bytes;

    private Kept(ToLongFunction<V> bytes) {
      this.bytes = bytes;
    }

    /**
     * @param next gives the thing from that of before, which is null where there is none; null to
     *     keep none
     */
    @SuppressWarnings("ReferenceEquality")
    public V of(long workspace, UnaryOperator<V> next) {
      Entry entry = entry(workspace);
      Cell<V> cell = cell(entry);
      V before;
      V value;
      synchronized (cell) {
        before = cell.value;
        value = next.apply(before);
        cell.value = value;
      }
      if (value != before) weigh(workspace, entry);
      return value;
    }

    /** The thing, worked out where there is none. */
    public V of(long workspace, Supplier<V> first) {
      return of(workspace, known -> known == null ? first.get() : known);
    }

    /** What there is, without waiting for what is being worked out. */
    public Optional<V> peek(long workspace) {
      Entry entry = entries.getIfPresent(workspace);
      return entry == null ? Optional.empty() : Optional.ofNullable(cell(entry).value);
    }

    /** What is being worked out while this is called is not kept either. */
    public void forget(long workspace) {
      Entry entry = entries.getIfPresent(workspace);
      if (entry != null) entry.cells.remove(this);
    }

    @SuppressWarnings("unchecked")
    private Cell<V> cell(Entry entry) {
      return (Cell<V>) entry.cells.computeIfAbsent(this, k -> new Cell<V>(bytes));
    }
  }

  /** Something in memory of a workspace has become larger or smaller since it was put there. */
  void weigh(long workspace) {
    Entry entry = entries.getIfPresent(workspace);
    if (entry != null) weigh(workspace, entry);
  }

  // one that has left meanwhile stays away
  private void weigh(long workspace, Entry entry) {
    entries.asMap().replace(workspace, entry, entry);
  }

  private Entry entry(long workspace) {
    try {
      return entries.get(workspace, Entry::new);
    } catch (ExecutionException e) {
      throw new IllegalStateException("making an entry cannot fail", e);
    }
  }

  /** Whether anything is in memory of a workspace. Does not count as a look at it. */
  boolean knows(long workspace) {
    return entries.asMap().containsKey(workspace);
  }

  /** Lets go of all that is in memory of a workspace. */
  void forget(long workspace) {
    entries.invalidate(workspace);
  }
}
