package ironing.server.game;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.deploy.Markers;
import ironing.core.game.GameDefinition;
import ironing.core.game.PlaceSearch;
import ironing.core.path.GameRoots;
import ironing.server.platform.Folders;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** Which folders of this machine the places are that a game's definition names. */
@Component
class Places {
  private final WorkspaceMapper db;
  private final Folders folders;
  private final PlaceSearch search =
      PlaceSearch.of(Path.of(System.getProperty("user.home", "/")), System.getenv());

  Places(WorkspaceMapper db, Folders folders) {
    this.db = db;
    this.folders = folders;
  }

  /**
   * A place with the folder that is offered for it.
   *
   * @param folder empty where none of those that were tried is there
   */
  record Offer(GameDefinition.Place place, Optional<Path> folder, List<Path> tried) {}

  /** One for each place, in the order of the definition. */
  List<Offer> offers(GameDefinition game, Path gameFolder) {
    SortedMap<String, Path> noted = Markers.places(gameFolder);
    return game.places().stream()
        .map(
            p ->
                new Offer(
                    p,
                    Optional.ofNullable(noted.get(p.id()))
                        .filter(Files::isDirectory)
                        .or(() -> search.found(p)),
                    search.of(p)))
        .toList();
  }

  /**
   * The game with those of its places that are known or found.
   *
   * @param kept folders by place, there or not
   * @param given folders by place, as the user named them
   */
  GameRoots known(
      GameDefinition game, Path gameFolder, Map<String, Path> kept, Map<String, String> given) {
    Map<String, Path> places = new TreeMap<>();
    for (Offer o : offers(game, gameFolder)) {
      String id = o.place().id(), named = given.getOrDefault(id, "");
      Optional<Path> folder =
          named.isBlank()
              ? Optional.ofNullable(kept.get(id)).or(o::folder)
              : Optional.of(Folders.named(named));
      folder.ifPresent(f -> places.put(id, f));
    }
    return GameRoots.of(gameFolder, places);
  }

  /**
   * The game with all of its places.
   *
   * @param kept folders by place, there or not
   * @param given folders by place, as the user named them; for others the one that is kept or found
   * @param workspace that it is for; empty for one that is to be made
   * @throws IroningException with code {@code place-unknown} or {@code place-wrong} for each that
   *     is not known or cannot be one
   */
  GameRoots settled(
      GameDefinition game,
      Path gameFolder,
      Map<String, Path> kept,
      Map<String, String> given,
      Optional<Long> workspace) {
    GameRoots roots = known(game, gameFolder, kept, given);
    List<Problem> wrong = new ArrayList<>();
    for (GameDefinition.Place p : game.places()) {
      if (!roots.places().containsKey(p.id())) wrong.add(unknown(p));
      else
        whyNone(roots, p.id(), workspace)
            .ifPresent(
                why ->
                    wrong.add(
                        new Problem(
                            "place-wrong",
                            roots.places().get(p.id()).toString(),
                            "It cannot be the place “" + p.id() + "”: " + why + ".",
                            "Name the folder that holds nothing but what belongs to this game.")));
    }
    if (!wrong.isEmpty()) throw new IroningException(wrong);
    return roots;
  }

  private Problem unknown(GameDefinition.Place p) {
    List<Path> tried = search.of(p);
    String looked =
        tried.isEmpty()
            ? ""
            : " Looked for at "
                + String.join(", ", tried.stream().map(Path::toString).toList())
                + ".";
    return new Problem(
        "place-unknown",
        p.id(),
        "The game has a folder beside its own"
            + (p.what().isEmpty() ? "" : " (" + p.what() + ")")
            + ", and it is not known where that is."
            + looked,
        "Start the game once so that it makes the folder, or name another.");
  }

  private Optional<String> whyNone(GameRoots roots, String id, Optional<Long> workspace) {
    Path folder = roots.places().get(id);
    Path home = search.home();
    if (home.startsWith(folder)) return Optional.of("all that you have lies in it");
    if (meet(folder, roots.folder()))
      return Optional.of("the game’s own folder and it have parts in common");
    for (Map.Entry<String, Path> other : roots.places().entrySet())
      if (!other.getKey().equals(id) && meet(folder, other.getValue()))
        return Optional.of("the place “" + other.getKey() + "” and it have parts in common");
    // the sample games lie there with all that is theirs
    boolean sample = roots.folder().startsWith(folders.home());
    if (folders.home().startsWith(folder) || !sample && folder.startsWith(folders.home()))
      return Optional.of("Ironing keeps its own things there");
    for (WorkspaceMapper.Row w : db.all())
      if (!Optional.of(w.id()).equals(workspace) && meet(folder, Path.of(w.gameFolder())))
        return Optional.of("the game folder of “" + w.title() + "” and it have parts in common");
    return Optional.empty();
  }

  private static boolean meet(Path one, Path other) {
    return one.startsWith(other) || other.startsWith(one);
  }

  /** Writes down where they are. Inside the caller’s transaction. */
  void keep(long workspace, GameRoots roots) {
    db.forgetPlaces(workspace);
    roots.places().forEach((id, folder) -> db.addPlace(workspace, id, folder.toString()));
  }
}
