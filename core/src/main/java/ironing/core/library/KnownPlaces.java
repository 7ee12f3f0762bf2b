package ironing.core.library;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinition.Mount;
import ironing.core.path.PathPattern;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * What the unmodded game has in the places of its mounts: the evidence for where the content of an
 * archive begins when a mount holds anything. Immutable; case counts as the game counts it.
 */
public final class KnownPlaces {
  /** Nothing is known of the game's own files. */
  public static final KnownPlaces NONE = new KnownPlaces(Set.of());

  // by mount and first step; a folder ends in a slash
  private final Set<String> steps;

  private KnownPlaces(Set<String> steps) {
    this.steps = steps;
  }

  /** Whether a mount of the game holds anything, so that what the game has makes a difference. */
  public static boolean matter(GameDefinition game) {
    return game.mounts().stream().anyMatch(KnownPlaces::holdsAnything);
  }

  private static boolean holdsAnything(Mount m) {
    return m.holds().stream().anyMatch(PathPattern::isForAnything);
  }

  /**
   * Cost: the paths times the mounts that hold anything; none where there are no such mounts.
   *
   * @param own the game's own files, packed ones too, by game path
   */
  public static KnownPlaces of(GameDefinition game, Iterable<String> own) {
    List<Mount> mounts = game.mounts().stream().filter(KnownPlaces::holdsAnything).toList();
    if (mounts.isEmpty()) return NONE;
    Set<String> steps = new HashSet<>();
    for (String path : own) {
      for (Mount m : mounts) {
        String below = game.below(m.at(), path);
        if (below != null) steps.add(step(game, m, below));
      }
    }
    return new KnownPlaces(Set.copyOf(steps));
  }

  /** Whether the game has the file, or the first folder of it, in a mount's place. */
  boolean has(GameDefinition game, Mount mount, String below) {
    return steps.contains(step(game, mount, below));
  }

  private static String step(GameDefinition game, Mount mount, String below) {
    int slash = below.indexOf('/');
    String first = slash < 0 ? below : below.substring(0, slash + 1);
    return mount.id() + "/" + game.pathCase().key(first);
  }
}
