package ironing.server.library;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.library.KnownPlaces;
import ironing.core.library.Placing;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.util.Iterator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What the game of a workspace has by itself, as the evidence for where mods begin. */
@Component
class OwnPlaces {
  private final Workbenches benches;

  private record Last(Holdings holdings, GameDefinition game, Placing placing) {}

  // many archives are looked into one after another, between which nothing changes
  private volatile Last last;

  OwnPlaces(Workbenches benches) {
    this.benches = benches;
  }

  /** The same, without a look at any file where the definition does not ask for it. */
  Placing of(long workspace) {
    GameDefinition game = benches.game(workspace);
    return KnownPlaces.matter(game) ? of(benches.get(workspace)) : Placing.of(game);
  }

  /** Cost: the game's files when the installed files have changed since, else nothing. */
  Placing of(Bench bench) {
    Holdings holdings = bench.picture().standing().holdings();
    Last known = last;
    if (known != null && known.holdings() == holdings && known.game().equals(bench.game()))
      return known.placing();
    Placing placing =
        new Placing(bench.game(), KnownPlaces.of(bench.game(), () -> own(holdings).iterator()));
    last = new Last(holdings, bench.game(), placing);
    return placing;
  }

  /** The paths of the unmodded game, packed ones too. */
  Iterator<String> paths(Bench bench) {
    return own(bench.picture().standing().holdings()).iterator();
  }

  private static Stream<String> own(Holdings holdings) {
    return holdings.sources().stream()
        .filter(s -> s.mod() == Holdings.GAME)
        .flatMapToInt(s -> IntStream.of(holdings.pathsOf(s.id())))
        .mapToObj(holdings::path);
  }
}
