package ironing.core.picture;

import ironing.core.loadorder.LoadOrder.Wish;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What the user decided in one profile. Immutable.
 *
 * @param layers from the lowest; the game is not among them
 * @param plugins the load order as wished; may name plugins that are not in play
 * @param decisions record key to place to choice, as {@link ironing.core.records.Combiner#combine}
 *     takes them
 * @param heldBack by mod: game paths of files, and of folders with {@code /} at the end, that the
 *     user keeps out of the game
 */
public record Arrangement(
    List<Layer> layers,
    List<Wish> plugins,
    Map<String, Map<String, String>> decisions,
    Map<Long, Set<String>> heldBack) {
  public record Layer(long mod, boolean on) {}

  public Arrangement {
    layers = List.copyOf(layers);
    plugins = List.copyOf(plugins);
    Map<String, Map<String, String>> copy = new TreeMap<>();
    decisions.forEach(
        (record, places) -> {
          if (!places.isEmpty())
            copy.put(record, Collections.unmodifiableMap(new TreeMap<>(places)));
        });
    decisions = Collections.unmodifiableMap(copy);
    Map<Long, Set<String>> held = new TreeMap<>();
    // one that was written down before files could be held back has none
    if (heldBack != null)
      heldBack.forEach(
          (mod, paths) -> {
            if (!paths.isEmpty()) held.put(mod, Collections.unmodifiableSet(new TreeSet<>(paths)));
          });
    heldBack = Collections.unmodifiableMap(held);
  }

  /** With nothing held back. */
  public Arrangement(
      List<Layer> layers, List<Wish> plugins, Map<String, Map<String, String>> decisions) {
    this(layers, plugins, decisions, Map.of());
  }

  public Arrangement withLayers(List<Layer> layers) {
    return new Arrangement(layers, plugins, decisions, heldBack);
  }

  public Arrangement withPlugins(List<Wish> plugins) {
    return new Arrangement(layers, plugins, decisions, heldBack);
  }

  /** With the user's choices for one record replaced; none of them takes the record out. */
  public Arrangement withDecisions(String record, Map<String, String> places) {
    Map<String, Map<String, String>> next = new TreeMap<>(decisions);
    next.put(record, places);
    return new Arrangement(layers, plugins, next, heldBack);
  }

  /** With what is held back of one mod replaced. */
  public Arrangement withHeldBack(long mod, Set<String> paths) {
    Map<Long, Set<String>> next = new TreeMap<>(heldBack);
    next.put(mod, paths);
    return new Arrangement(layers, plugins, decisions, next);
  }

  /** With another mod in one's place: its layer, its switch, and what is held back of it. */
  public Arrangement withInstead(long mod, long other) {
    Map<Long, Set<String>> held = new TreeMap<>(heldBack);
    Set<String> paths = held.remove(mod);
    if (paths != null) held.put(other, paths);
    return new Arrangement(
        layers.stream().map(l -> l.mod() == mod ? new Layer(other, l.on()) : l).toList(),
        plugins,
        decisions,
        held);
  }

  public Map<String, String> decisionsOn(String record) {
    return decisions.getOrDefault(record, Map.of());
  }
}
