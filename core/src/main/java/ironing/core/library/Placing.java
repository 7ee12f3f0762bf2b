package ironing.core.library;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinition.Mount;
import ironing.core.path.PathPattern;
import java.util.List;
import java.util.Optional;

/**
 * Where a game would take a file of a mod in.
 *
 * <p>A path is tried as it is and with a mount's place taken off. What a pattern names is certain.
 * What only a pattern for anything holds ({@code **}) is certain where the archive names the
 * mount's place or the game has that folder or file already; else it is a guess, and comes after
 * all that is certain.
 *
 * @param known the game's own files
 * @param top what the folder of a plugin of text is called whose manifest lies at the top of the
 *     archive
 */
public record Placing(GameDefinition game, KnownPlaces known, String top) {
  public Placing(GameDefinition game, KnownPlaces known) {
    this(game, known, "plugin");
  }

  /** The same for an archive of a name. */
  public Placing ofArchive(String name) {
    return new Placing(game, known, ModCard.inferredFrom(name).id());
  }

  /** Where a file goes. */
  record Place(String gamePath, String mount, boolean certain) {}

  /** With nothing known of the game's own files. */
  public static Placing of(GameDefinition game) {
    return new Placing(game, KnownPlaces.NONE);
  }

  /**
   * @param relative path from where the content begins; not empty
   * @return empty when no mount holds it
   */
  Optional<Place> of(String relative) {
    Place guess = null;
    for (Mount m : game.mounts()) {
      String at = withoutPlace(m.at());
      String below = at.equals(".") ? null : game.below(at, relative);
      for (String path : below == null ? List.of(relative) : List.of(relative, below)) {
        boolean named = path.equals(below), held = false;
        String gamePath = game.gamePath(m, path);
        for (PathPattern p : m.holds()) {
          if (!p.matches(path)) continue;
          if (!p.isForAnything() || named || known.has(game, m, path))
            return Optional.of(new Place(gamePath, m.id(), true));
          held = true;
        }
        if (held && guess == null) guess = new Place(gamePath, m.id(), false);
      }
    }
    return Optional.ofNullable(guess);
  }

  // archives name the folders of a place as they name those of the game
  private String withoutPlace(String at) {
    if (!game.isPlaced(at)) return at;
    int slash = at.indexOf('/');
    return slash < 0 ? "." : at.substring(slash + 1);
  }
}
