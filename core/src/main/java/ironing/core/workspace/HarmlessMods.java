package ironing.core.workspace;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Mods that only hold files of a kind that cannot break with a new version of the game. After an
 * update every mod is asked for, so what was found is remembered while the library stays.
 *
 * <p>Threads: any.
 */
public final class HarmlessMods {
  private static final int BYTES_OF_EACH = 60;

  private final GameDefinition game;
  private final Holdings holdings;
  private final Map<Long, Boolean> known = new ConcurrentHashMap<>();

  private HarmlessMods(Workspace now) {
    this.game = now.game();
    this.holdings = now.picture().holdings();
  }

  /** Whether a mod is one. Cost: its files at the first time. */
  public boolean contains(long mod) {
    return known.computeIfAbsent(mod, this::look);
  }

  // a pack is what is in it
  private boolean look(long mod) {
    return holdings.holdsAny(mod, game::isHarmless)
        && !holdings.holdsAny(mod, path -> !game.isHarmless(path) && !game.isPack(path));
  }

  static final class OfLibrary implements Stage<HarmlessMods> {
    @Override
    public HarmlessMods of(Workspace now) {
      return new HarmlessMods(now);
    }

    @SuppressWarnings("ReferenceEquality")
    @Override
    public HarmlessMods next(Workspace now, HarmlessMods known) {
      boolean same = known.holdings == now.picture().holdings() && known.game == now.game();
      return same ? known : of(now);
    }

    @Override
    public long bytes(HarmlessMods value) {
      return (long) BYTES_OF_EACH * value.holdings.sourceCount();
    }
  }
}
