package ironing.core.workspace;

import java.lang.ref.WeakReference;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The last outcome of each stage, for a workspace and all that it becomes: of several states, the
 * one that was asked for last.
 *
 * <p>Threads: any. One at a time works out a stage, once for however many ask; whoever asks for
 * another stage, or for what is known, does not wait for it. A stage may ask for the stages before
 * it, and none for itself.
 */
public final class Memo {
  private final Map<Stage<?>, Cell<?>> cells = new ConcurrentHashMap<>();
  private final Memo original;
  private final Runnable grown;

  private static final class Cell<V> {
    private volatile Outcome<V> last;
  }

  // a state that nobody holds any more goes, though its outcomes are still known
  private record Outcome<V>(WeakReference<Workspace> of, V value, long bytes) {}

  private Memo(Memo original, Runnable grown) {
    this.original = original;
    this.grown = grown;
  }

  /**
   * @param grown is told when {@link #bytes} has changed, by the thread that asked
   */
  public static Memo telling(Runnable grown) {
    return new Memo(null, grown);
  }

  public static Memo ofItsOwn() {
    return new Memo(null, () -> {});
  }

  /**
   * A memo for a state that is only asked about: it starts from what is known here and leaves that
   * as it is.
   */
  Memo aside() {
    return new Memo(this, () -> {});
  }

  /** About how much memory all outcomes take. */
  public long bytes() {
    long all = 0;
    for (Cell<?> c : cells.values()) {
      Outcome<?> last = c.last;
      if (last != null) all += last.bytes();
    }
    return all;
  }

  <V> V of(Workspace now, Stage<V> stage) {
    Cell<V> cell = cell(stage);
    Outcome<V> last = cell.last;
    if (last != null && last.of().refersTo(now)) return last.value();
    V value;
    synchronized (cell) {
      last = cell.last;
      if (last == null && original != null) last = original.last(stage);
      if (last != null && last.of().refersTo(now)) return last.value();
      value = last == null ? stage.of(now) : stage.next(now, last.value());
      cell.last = stage.lasts(value) ? outcome(now, stage, value) : null;
    }
    grown.run();
    return value;
  }

  private static <V> Outcome<V> outcome(Workspace now, Stage<V> stage, V value) {
    return new Outcome<>(new WeakReference<>(now), value, stage.bytes(value));
  }

  private <V> Outcome<V> last(Stage<V> stage) {
    Outcome<V> last = cell(stage).last;
    return last == null && original != null ? original.last(stage) : last;
  }

  @SuppressWarnings("unchecked")
  private <V> Cell<V> cell(Stage<V> stage) {
    return (Cell<V>) cells.computeIfAbsent(stage, s -> new Cell<V>());
  }
}
