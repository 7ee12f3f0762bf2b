package ironing.server.game;

import ironing.core.game.GameDefinition;
import ironing.core.path.GameRoots;
import ironing.server.platform.MayBeAbsent;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * A folder beside the game's own that belongs to it.
 *
 * @param what lies there; may be empty
 * @param folder absent where it is not known
 * @param there whether there is such a folder now
 * @param tried where it was looked for; none where it is known
 */
record GamePlaceView(
    String id, String what, @MayBeAbsent String folder, boolean there, List<String> tried) {
  static GamePlaceView of(Places.Offer o) {
    return new GamePlaceView(
        o.place().id(),
        o.place().what(),
        o.folder().map(Path::toString).orElse(null),
        o.folder().isPresent(),
        o.tried().stream().map(Path::toString).toList());
  }

  static GamePlaceView of(GameDefinition.Place p, GameRoots roots) {
    Path folder = roots.places().get(p.id());
    return new GamePlaceView(
        p.id(),
        p.what(),
        folder == null ? null : folder.toString(),
        folder != null && Files.isDirectory(folder),
        List.of());
  }

  /** Folders by place as a request names them. */
  static Map<String, String> named(Map<String, String> places) {
    Map<String, String> named = new TreeMap<>();
    if (places != null) places.forEach((id, folder) -> named.put(id, folder == null ? "" : folder));
    return named;
  }
}
