package ironing.core.deploy;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.deploy.DeployPlan.Act;
import ironing.core.deploy.DeployPlan.Step;
import ironing.core.deploy.Markers.Lodger;
import ironing.core.path.GameRoots;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Other games that have files deployed in a place that this one shares with them. Their files are
 * neither this game’s own nor strays, and are never replaced by it.
 */
public final class Neighbours {
  private Neighbours() {}

  /**
   * What other games have put into the places of this one, where nothing was before.
   *
   * @return game paths of this game
   */
  public static Set<String> files(GameRoots roots) {
    Set<String> all = new HashSet<>();
    for (String top : roots.places().isEmpty() ? List.<String>of() : roots.tops()) {
      if (top.isEmpty()) continue;
      for (Lodger l : new Markers(new RealDisk(), roots).others(top))
        files(l)
            .ifPresent(
                items -> {
                  for (LaidOut.Item i : items)
                    if (i.replaced().isEmpty())
                      all.add(top + i.path().substring(l.place().length() + 1));
                });
    }
    return all;
  }

  /** What a neighbour has deployed in the place; empty where that cannot be told now. */
  private static Optional<List<LaidOut.Item>> files(Lodger l) {
    if (!Files.isDirectory(l.folder())) return Optional.empty();
    LaidOut note;
    try {
      note = new Deployer(new RealDisk(), l.folder()).laidOut();
    } catch (IroningException unreadable) {
      // a broken note of another game does not stop this one
      return Optional.empty();
    }
    String prefix = GameRoots.top(l.place(), "") + "/";
    return Optional.of(
        note.files().values().stream().filter(i -> i.path().startsWith(prefix)).toList());
  }

  /**
   * @throws IroningException with code {@code place-shared} when a plan would replace what another
   *     game has in a place, or when that cannot be told
   */
  static void requireNone(GameRoots roots, DeployPlan plan) {
    List<Problem> shared = new ArrayList<>();
    for (String top : roots.tops()) {
      if (top.isEmpty()) continue;
      List<String> replaced =
          plan.steps().stream()
              .filter(s -> s.act() == Act.REPLACE && roots.top(s.path()).equals(top))
              .map(Step::path)
              .toList();
      if (replaced.isEmpty()) continue;
      for (Lodger l : new Markers(new RealDisk(), roots).others(top))
        problem(roots, l, top, replaced).ifPresent(shared::add);
    }
    if (!shared.isEmpty()) throw new IroningException(shared);
  }

  private static Optional<Problem> problem(
      GameRoots roots, Lodger l, String top, List<String> replaced) {
    Optional<List<LaidOut.Item>> items = files(l);
    if (items.isEmpty())
      return Optional.of(
          shared(
              roots.at(replaced.get(0)),
              "Files that are there would be replaced, and it cannot be told whether they belong to a game that is not there now: "
                  + l.folder()
                  + ".",
              "Connect the drive of that game, then try again."));
    Set<String> theirs = new HashSet<>();
    for (LaidOut.Item i : items.get()) theirs.add(top + i.path().substring(l.place().length() + 1));
    return replaced.stream()
        .filter(theirs::contains)
        .findFirst()
        .map(
            path ->
                shared(
                    roots.at(path),
                    "Another game has put this file there: " + l.folder() + ".",
                    "Take its mods out first, or keep such a file out of one of the two."));
  }

  private static Problem shared(Path place, String reason, String remedy) {
    return new Problem("place-shared", place.toString(), reason, remedy);
  }
}
