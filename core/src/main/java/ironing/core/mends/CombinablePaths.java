package ironing.core.mends;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.workspace.Stage;
import ironing.core.workspace.Workspace;
import java.util.Arrays;
import java.util.BitSet;
import java.util.stream.IntStream;

/** The paths that a definition says how to combine, by number in the holdings. */
final class CombinablePaths {
  static final Stage<CombinablePaths> STAGE = new OfHoldings();

  private final GameDefinition game;
  private final Holdings holdings;
  private final BitSet paths;

  private CombinablePaths(GameDefinition game, Holdings holdings, BitSet paths) {
    this.game = game;
    this.holdings = holdings;
    this.paths = paths;
  }

  int[] paths() {
    return paths.stream().toArray();
  }

  /** Of paths that are known already nobody is asked again. */
  private static final class OfHoldings implements Stage<CombinablePaths> {
    @Override
    public CombinablePaths of(Workspace now) {
      Holdings h = now.picture().holdings();
      BitSet all = new BitSet();
      Arrays.stream(
              IntStream.range(0, h.pathCount())
                  .parallel()
                  .filter(p -> now.game().combines(h.path(p)).isPresent())
                  .toArray())
          .forEach(all::set);
      return new CombinablePaths(now.game(), h, all);
    }

    @SuppressWarnings("ReferenceEquality")
    @Override
    public CombinablePaths next(Workspace now, CombinablePaths known) {
      Holdings next = now.picture().holdings();
      if (now.game() != known.game || !next.isFrom(known.holdings)) return of(now);
      BitSet all = (BitSet) known.paths.clone();
      next.touchedSince(known.holdings).stream()
          .filter(p -> known.game.combines(next.path(p)).isPresent())
          .forEach(all::set);
      return new CombinablePaths(known.game, next, all);
    }

    @Override
    public long bytes(CombinablePaths value) {
      return value.paths.size() / Byte.SIZE;
    }
  }
}
