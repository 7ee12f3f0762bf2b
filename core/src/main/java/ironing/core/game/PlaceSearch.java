package ironing.core.game;

import ironing.core.game.GameDefinition.Place;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Where the places beside a game's folder are looked for. Source of {@code config} and {@code
 * data}: XDG Base Directory Specification 0.8.
 *
 * @param home the user's own folder
 * @param config of what users set
 * @param data of what programs keep for them
 */
public record PlaceSearch(Path home, Path config, Path data) {
  /**
   * @param environment variables; a folder in them that is not absolute counts as none
   */
  public static PlaceSearch of(Path home, Map<String, String> environment) {
    return new PlaceSearch(
        home,
        base(environment.get("XDG_CONFIG_HOME")).orElse(home.resolve(".config")),
        base(environment.get("XDG_DATA_HOME")).orElse(home.resolve(".local/share")));
  }

  private static Optional<Path> base(String variable) {
    return Optional.ofNullable(variable)
        .filter(v -> !v.isBlank())
        .map(Path::of)
        .filter(Path::isAbsolute);
  }

  /** The folders to look for a place at, the first first. */
  public List<Path> of(Place place) {
    List<Path> all = new ArrayList<>();
    for (String at : place.at()) all.add(filled(at).normalize());
    return List.copyOf(all);
  }

  private Path filled(String at) {
    if (at.startsWith("/")) return Path.of(at);
    int end = at.indexOf('}');
    Path base =
        switch (at.substring(1, end)) {
          case "config" -> config;
          case "data" -> data;
          default -> home;
        };
    String below = at.substring(end + 1);
    return below.isEmpty() ? base : base.resolve(below.substring(1));
  }

  /** The first of them that is there. */
  public Optional<Path> found(Place place) {
    return of(place).stream().filter(Files::isDirectory).findFirst();
  }
}
