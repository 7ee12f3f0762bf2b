package ironing.server.library;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.library.KnownPlaces;
import ironing.core.library.Placing;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Memory;
import ironing.server.workbench.Workbenches;
import java.util.Iterator;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/** What the game of a workspace has by itself, as the evidence for where mods begin. */
@Component
class OwnPlaces {
  private static final long BYTES_OF_A_FILE = 100;
  private final Workbenches benches;

  /**
   * @param own the paths of each of the game's sources: the very arrays of the holdings, which stay
   *     the same as long as these files do
   */
  private record Known(GameDefinition game, List<int[]> own, Placing placing) {
    @SuppressWarnings("ReferenceEquality")
    boolean isOf(Bench bench) {
      return bench.game() == game && own(bench).equals(own);
    }

    long bytes() {
      return BYTES_OF_A_FILE * own.stream().mapToInt(paths -> paths.length).sum();
    }

    static List<int[]> own(Bench bench) {
      Holdings holdings = bench.picture().holdings();
      return holdings.sourcesOfMod(Holdings.GAME).stream()
          .map(s -> holdings.pathsOf(s.id()))
          .toList();
    }
  }

  // many archives are looked into one after another, between which the game stays as it is
  private final Memory.Kept<Known> known;

  OwnPlaces(Workbenches benches, Memory memory) {
    this.benches = benches;
    this.known = memory.keeping(Known::bytes);
  }

  /** The same, without a look at any file where the definition does not ask for it. */
  Placing of(long workspace) {
    GameDefinition game = benches.game(workspace);
    return KnownPlaces.matter(game) ? of(benches.get(workspace)) : Placing.of(game);
  }

  /** Cost: the game's files when they have changed since, else nothing. */
  Placing of(Bench bench) {
    return known
        .of(
            bench.workspace(),
            k ->
                k != null && k.isOf(bench)
                    ? k
                    : new Known(
                        bench.game(),
                        Known.own(bench),
                        new Placing(
                            bench.game(), KnownPlaces.of(bench.game(), () -> paths(bench)))))
        .placing();
  }

  /** The paths of the unmodded game, packed ones too. */
  Iterator<String> paths(Bench bench) {
    Holdings holdings = bench.picture().holdings();
    return holdings.sourcesOfMod(Holdings.GAME).stream()
        .flatMapToInt(s -> IntStream.of(holdings.pathsOf(s.id())))
        .mapToObj(holdings::path)
        .iterator();
  }
}
