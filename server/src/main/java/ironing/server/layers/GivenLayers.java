package ironing.server.layers;

import ironing.core.workspace.Recent;
import ironing.server.layers.LayersViews.LayerStretch;
import ironing.server.layers.LayersViews.LayerView;
import ironing.server.layers.LayersViews.LayersSince;
import ironing.server.layers.LayersViews.LayersView;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.stereotype.Component;

/**
 * The lists of layers that were given lately: whoever has one of them is told only what is not as
 * it was. A list of two thousand layers is 770 kB, and a move alters a few rows of it.
 *
 * <p>Threads: any.
 */
@Component
class GivenLayers {
  /** Of all workspaces together. */
  private static final int REMEMBERED = 24;

  private record Key(long workspace, long tag) {}

  // tags of an earlier start are never met again
  private final AtomicLong tags = new AtomicLong(System.currentTimeMillis() * 1_000);
  private final Map<Key, LayersView> given = Recent.map(REMEMBERED);
  private final Map<Long, Long> last = Recent.map(REMEMBERED);

  /**
   * @param tag of the list that somebody has; of one that is not remembered all is told
   */
  LayersSince since(long workspace, long tag, LayersView now) {
    Optional<LayersView> before = Optional.ofNullable(given.get(new Key(workspace, tag)));
    long next = remember(workspace, now);
    if (before.isEmpty()) return new LayersSince(next, now, null);
    return new LayersSince(next, null, changes(before.get(), now));
  }

  private long remember(long workspace, LayersView now) {
    Long newest = last.get(workspace);
    if (newest != null && now.equals(given.get(new Key(workspace, newest)))) return newest;
    long tag = tags.incrementAndGet();
    given.put(new Key(workspace, tag), now);
    last.put(workspace, tag);
    return tag;
  }

  static LayersViews.LayersChanges changes(LayersView before, LayersView now) {
    Map<Long, LayerView> known = new HashMap<>();
    for (LayerView l : before.layers()) known.put(l.mod(), l);
    List<LayerView> rows =
        now.layers().stream()
            .filter(
                l -> {
                  LayerView was = known.get(l.mod());
                  return was == null || !was.at(l.position()).equals(l);
                })
            .toList();
    return new LayersViews.LayersChanges(
        now.revision(), now.game(), now.sections(), rows, stretch(mods(before), mods(now)));
  }

  private static List<Long> mods(LayersView view) {
    return view.layers().stream().map(LayerView::mod).toList();
  }

  /** What is otherwise between the ends that two orders share. */
  private static LayerStretch stretch(List<Long> before, List<Long> now) {
    int least = Math.min(before.size(), now.size());
    int from = 0;
    while (from < least && before.get(from).equals(now.get(from))) from++;
    if (from == before.size() && from == now.size()) return null;
    int same = 0;
    while (same < least - from
        && before.get(before.size() - 1 - same).equals(now.get(now.size() - 1 - same))) same++;
    return new LayerStretch(
        from, before.size() - same - from, now.subList(from, now.size() - same));
  }
}
