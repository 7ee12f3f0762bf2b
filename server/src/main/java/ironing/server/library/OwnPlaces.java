package ironing.server.library;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.library.KnownPlaces;
import ironing.core.library.Placing;
import ironing.server.workspace.Memory;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.Iterator;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/** What the game of a workspace has by itself, as the evidence for where mods begin. */
@Component
class OwnPlaces {
  private static final long BYTES_OF_A_FILE = 100;
  private final OpenWorkspaces workspaces;

  /**
   * @param own the paths of each of the game's sources: the very arrays of the holdings, which stay
   *     the same as long as these files do
   */
  private record Known(GameDefinition game, List<int[]> own, Placing placing) {
    @SuppressWarnings("ReferenceEquality")
    boolean isOf(OpenWorkspace open) {
      return open.game() == game && own(open).equals(own);
    }

    long bytes() {
      return BYTES_OF_A_FILE * own.stream().mapToInt(paths -> paths.length).sum();
    }

    static List<int[]> own(OpenWorkspace open) {
      Holdings holdings = open.picture().holdings();
      return holdings.sourcesOfMod(Holdings.GAME).stream()
          .map(s -> holdings.pathsOf(s.id()))
          .toList();
    }
  }

  // many archives are looked into one after another, between which the game stays as it is
  private final Memory.Kept<Known> known;

  OwnPlaces(OpenWorkspaces workspaces, Memory memory) {
    this.workspaces = workspaces;
    this.known = memory.keeping(Known::bytes);
  }

  /** The same, without a look at any file where the definition does not ask for it. */
  Placing of(long workspace) {
    GameDefinition game = workspaces.game(workspace);
    return KnownPlaces.matter(game) ? of(workspaces.get(workspace)) : Placing.of(game);
  }

  /** Cost: the game's files when they have changed since, else nothing. */
  Placing of(OpenWorkspace open) {
    return known
        .of(
            open.workspace(),
            k ->
                k != null && k.isOf(open)
                    ? k
                    : new Known(
                        open.game(),
                        Known.own(open),
                        new Placing(open.game(), KnownPlaces.of(open.game(), () -> paths(open)))))
        .placing();
  }

  /** The paths of the unmodded game, packed ones too. */
  Iterator<String> paths(OpenWorkspace open) {
    Holdings holdings = open.picture().holdings();
    return holdings.sourcesOfMod(Holdings.GAME).stream()
        .flatMapToInt(s -> IntStream.of(holdings.pathsOf(s.id())))
        .mapToObj(holdings::path)
        .iterator();
  }
}
