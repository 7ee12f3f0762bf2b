package ironing.core.picture;

import ironing.core.loadorder.LoadOrder.Wish;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * What the user decided in one profile. Immutable.
 *
 * @param layers from the lowest; the game is not among them
 * @param plugins the load order as wished; may name plugins that are not in play
 * @param decisions record key to place to choice, as {@link ironing.core.records.Combiner#combine}
 *     takes them
 */
public record Arrangement(
    List<Layer> layers, List<Wish> plugins, Map<String, Map<String, String>> decisions) {
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
  }

  public Arrangement withLayers(List<Layer> layers) {
    return new Arrangement(layers, plugins, decisions);
  }

  public Arrangement withPlugins(List<Wish> plugins) {
    return new Arrangement(layers, plugins, decisions);
  }

  /** With the user's choices for one record replaced; none of them takes the record out. */
  public Arrangement withDecisions(String record, Map<String, String> places) {
    Map<String, Map<String, String>> next = new TreeMap<>(decisions);
    next.put(record, places);
    return new Arrangement(layers, plugins, next);
  }

  public Map<String, String> decisionsOn(String record) {
    return decisions.getOrDefault(record, Map.of());
  }
}
