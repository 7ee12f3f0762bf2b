package ironing.core.deploy;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * The two small files by which a game folder and the places beside it find each other with no
 * database at hand: {@code .ironing/places.json} in the game’s folder tells where the places lie,
 * and {@code .ironing/TAG/game.json} in a place which game has deployed something there.
 */
public final class Markers {
  private static final String PLACES = GameRoots.HOME + "/places.json";
  private static final String GAME = "game.json";
  private static final String PLACES_FORMAT = "ironing/places@1";
  private static final String GAME_FORMAT = "ironing/place-of@1";
  private static final ObjectMapper JSON = new ObjectMapper();

  private final Disk disk;
  private final GameRoots roots;

  Markers(Disk disk, GameRoots roots) {
    this.disk = disk;
    this.roots = roots;
  }

  /**
   * A game that has something deployed in a place.
   *
   * @param folder of the game
   * @param place what that game’s definition calls it
   */
  record Lodger(Path folder, String place) {}

  /**
   * Writes them where they are not there as they should be.
   *
   * @param homes paths in the homes of the tops that something is deployed to
   */
  void write(Collection<String> homes) throws IOException {
    if (roots.places().isEmpty()) return;
    ObjectNode places = JSON.createObjectNode().put("format", PLACES_FORMAT);
    ObjectNode folders = places.putObject("places");
    roots.places().forEach((id, p) -> folders.put(id, p.toString()));
    write(PLACES, places);
    for (String home : homes) {
      String top = roots.top(home);
      if (top.isEmpty()) continue;
      ObjectNode game = JSON.createObjectNode().put("format", GAME_FORMAT);
      game.put("game", roots.folder().toString()).put("place", top.substring(1));
      write(roots.home(top) + "/" + GAME, game);
    }
  }

  private void write(String path, ObjectNode what) throws IOException {
    Path file = roots.at(path);
    byte[] bytes = JSON.writeValueAsBytes(what);
    if (disk.exists(file) && Arrays.equals(disk.read(file), bytes)) return;
    disk.write(roots.at(path + ".new"), bytes);
    disk.move(roots.at(path + ".new"), file);
    disk.flushFolder(file.getParent());
  }

  /** Removes the one of a top when nothing else of ours is left beside it. */
  void removeLast(String top) throws IOException {
    Path home = roots.at(roots.home(top));
    Path mark = top.isEmpty() ? roots.at(PLACES) : home.resolve(GAME);
    Path half = mark.resolveSibling(mark.getFileName() + ".new");
    for (Path p : disk.below(home))
      if (!p.equals(home) && !p.equals(mark) && !p.equals(half)) return;
    disk.deleteIfThere(half);
    disk.deleteIfThere(mark);
  }

  /** Where the places of a game lay when something was deployed last; none where nothing is. */
  public static SortedMap<String, Path> places(Path gameFolder) {
    SortedMap<String, Path> places = new TreeMap<>();
    JsonNode told = read(gameFolder.resolve(PLACES));
    if (PLACES_FORMAT.equals(told.path("format").asText()))
      told.path("places")
          .properties()
          .forEach(e -> folder(e.getValue()).ifPresent(p -> places.put(e.getKey(), p)));
    return places;
  }

  /** Whether this game has something deployed in a folder, as the place of this name. */
  public static boolean isDeployedTo(GameRoots roots, String place) {
    String top = GameRoots.top(place, "");
    JsonNode told = read(roots.at(roots.home(top) + "/" + GAME));
    return GAME_FORMAT.equals(told.path("format").asText())
        && told.path("game").asText().equals(roots.folder().toString())
        && told.path("place").asText().equals(place);
  }

  /** The other games that have something deployed in a place. */
  List<Lodger> others(String top) {
    Path homes = roots.at(top).resolve(GameRoots.HOME);
    List<Lodger> all = new ArrayList<>();
    try {
      for (String name : disk.entries(homes)) {
        JsonNode told = read(homes.resolve(name).resolve(GAME));
        if (name.equals(roots.tag()) || !GAME_FORMAT.equals(told.path("format").asText())) continue;
        folder(told.path("game"))
            .ifPresent(game -> all.add(new Lodger(game, told.path("place").asText())));
      }
    } catch (IOException untold) {
      // whoever goes on to change something there is told why not
    }
    return all;
  }

  // anybody can have written it
  private static Optional<Path> folder(JsonNode told) {
    try {
      return Optional.of(Path.of(told.asText())).filter(Path::isAbsolute);
    } catch (InvalidPathException none) {
      return Optional.empty();
    }
  }

  private static JsonNode read(Path file) {
    try {
      return Files.isRegularFile(file)
          ? JSON.readTree(Files.readAllBytes(file))
          : JSON.missingNode();
    } catch (JsonProcessingException broken) {
      return JSON.missingNode();
    } catch (IOException gone) {
      return JSON.missingNode();
    }
  }
}
