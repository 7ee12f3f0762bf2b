package ironing.core.picture;

import ironing.core.loadorder.LoadOrder.Wish;
import java.util.List;

/**
 * What the user decided in one profile. Immutable.
 *
 * @param layers from the lowest; the game is not among them
 * @param plugins the load order as wished; may name plugins that are not in play
 */
public record Arrangement(List<Layer> layers, List<Wish> plugins) {
  public record Layer(long mod, boolean on) {}

  public Arrangement {
    layers = List.copyOf(layers);
    plugins = List.copyOf(plugins);
  }

  public Arrangement withLayers(List<Layer> layers) {
    return new Arrangement(layers, plugins);
  }

  public Arrangement withPlugins(List<Wish> plugins) {
    return new Arrangement(layers, plugins);
  }
}
