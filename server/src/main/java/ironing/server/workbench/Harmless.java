package ironing.server.workbench;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/**
 * Mods that only hold files of a kind that cannot break with a new version of the game. After an
 * update every mod is asked for, so what was found is remembered while the library stays.
 *
 * <p>Threads: any.
 */
@Component
public class Harmless {
  private final Memory.Kept<OfFiles> known;

  private record OfFiles(GameDefinition game, Holdings holdings, Map<Long, Boolean> mods) {}

  Harmless(Memory memory) {
    this.known = memory.keepingLittle();
  }

  /** Whether it is one. Cost: its files at the first time. */
  @SuppressWarnings("ReferenceEquality")
  public boolean is(Bench bench, long mod) {
    Holdings holdings = bench.picture().holdings();
    return known
        .of(
            bench.workspace(),
            k ->
                k != null && k.holdings() == holdings && k.game() == bench.game()
                    ? k
                    : new OfFiles(bench.game(), holdings, new ConcurrentHashMap<>()))
        .mods()
        .computeIfAbsent(mod, m -> find(bench.game(), holdings, m));
  }

  // a pack is what is in it
  private static boolean find(GameDefinition game, Holdings holdings, long mod) {
    return holdings.holdsAny(mod, game::isHarmless)
        && !holdings.holdsAny(mod, path -> !game.isHarmless(path) && !game.isPack(path));
  }
}
