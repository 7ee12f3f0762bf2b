package ironing.core.picture;

import ironing.core.picture.Arrangement.Layer;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The layer of a mod that leaves, so that it can come back to it.
 *
 * @param place how many layers lay below it
 */
public record Stood(int place, boolean on, long section, boolean kept) {
  /** On top of all, switched off: for a mod of which nobody knows where it stood. */
  public static final Stood ON_TOP_OFF = new Stood(Integer.MAX_VALUE, false, 0, false);

  /** The layer of a mod; empty when it has none. */
  public static Optional<Stood> of(Arrangement a, long mod) {
    for (int i = 0; i < a.layers().size(); i++) {
      Layer l = a.layers().get(i);
      if (l.mod() == mod) return Optional.of(new Stood(i, l.on(), l.section(), l.kept()));
    }
    return Optional.empty();
  }

  /**
   * An arrangement with a mod back in this layer: with fewer layers than then, on top; where its
   * section has moved away, with those that it stands among.
   */
  public Arrangement back(Arrangement a, long mod) {
    List<Layer> layers = new ArrayList<>(a.layers());
    layers.add(Math.min(place, layers.size()), new Layer(mod, on, section, kept));
    return a.withLayers(Sections.settled(layers));
  }
}
