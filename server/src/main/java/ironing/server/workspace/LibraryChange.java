package ironing.server.workspace;

import ironing.core.picture.Arrangement;
import ironing.core.picture.Stood;
import java.util.Optional;

/** What becomes of the layers when the library changes, and whether that can be undone. */
public sealed interface LibraryChange {
  /** No layer comes or goes: a version beside the one in use, a card that was edited. */
  LibraryChange BESIDE = new Beside();

  /** See {@link #BESIDE}. */
  record Beside() implements LibraryChange {}

  /** A new mod lies on top of all layers. */
  record OnTop(boolean on) implements LibraryChange {}

  /** A mod has another content. It can be undone; the work gives the number of the old content. */
  record OtherContent(long mod) implements LibraryChange {}

  /** A change of the layers that there are. */
  sealed interface OfLayers extends LibraryChange {
    /**
     * @param mod that the work gave
     */
    Arrangement after(Arrangement present, long mod);
  }

  /**
   * A new version takes the layer of another. It can be undone.
   *
   * @param replaced that has the layer now
   */
  record Instead(long replaced) implements OfLayers {
    @Override
    public Arrangement after(Arrangement present, long mod) {
      return present.withInstead(replaced, mod);
    }
  }

  /**
   * A mod leaves.
   *
   * @param heir the version that gets its layer; empty when the layer goes too
   */
  record Leaves(Optional<Long> heir) implements OfLayers {
    @Override
    public Arrangement after(Arrangement present, long mod) {
      return heir.map(h -> present.withInstead(mod, h))
          .orElseGet(
              () ->
                  present.withLayers(
                      present.layers().stream().filter(l -> l.mod() != mod).toList()));
    }
  }

  /**
   * A mod comes back.
   *
   * @param stood the layer that it gets; empty when another version has that
   */
  record Returns(Optional<Stood> stood) implements OfLayers {
    @Override
    public Arrangement after(Arrangement present, long mod) {
      return stood.map(s -> s.back(present, mod)).orElse(present);
    }
  }
}
