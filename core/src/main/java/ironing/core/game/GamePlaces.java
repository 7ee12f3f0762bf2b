package ironing.core.game;

import ironing.core.game.GameDefinition.Place;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import ironing.core.yaml.YamlDocument.Section;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** The places that a definition has, for reading the paths in the rest of it. */
final class GamePlaces {
  private final Set<String> ids;

  GamePlaces(List<Place> places) {
    ids = new TreeSet<>(places.stream().map(Place::id).toList());
  }

  /** What the definition says of them. */
  static List<Place> read(Section top) {
    List<Place> out = new ArrayList<>();
    top.section("places")
        .ifPresent(
            all -> {
              for (String id : all.keys()) {
                if (!id.matches("[a-z0-9-]{1,32}"))
                  all.reject(
                      id,
                      "“" + id + "” is no id of a place",
                      "Use lower-case letters, digits and hyphens, at most 32.");
                all.section(id).ifPresent(s -> out.add(place(id, s)));
              }
            });
    return List.copyOf(out);
  }

  private static Place place(String id, Section s) {
    List<String> at = s.texts("at");
    for (String a : at) {
      // after the base comes nothing, or a slash and a path
      String rest = a.replaceFirst("^(\\{(home|config|data)}|/)", "");
      boolean based = a.startsWith("{");
      boolean sound =
          !rest.equals(a)
              && (rest.isEmpty() ? based : !based || rest.startsWith("/"))
              && (rest.isEmpty() || GamePath.whyUnsafe(strip(rest)) == null);
      if (!sound || rest.indexOf('{') >= 0)
        s.reject(
            "at",
            "“" + a + "” is no folder of this machine",
            "Begin with {home}, {config}, {data} or /, as in {data}/bell-foundry.");
    }
    Place place = new Place(id, List.copyOf(at), s.text("what").orElse(""));
    s.warnOfUnknownKeys();
    return place;
  }

  private static String strip(String path) {
    return path.startsWith("/") ? path.substring(1) : path;
  }

  /** Refuses a path that names a place which there is not. */
  void require(Section s, String key, String path) {
    if (!isIn(path)) return;
    String id = path.substring(1).replaceFirst("/.*", "");
    if (!ids.contains(id)) reject(s, key, id);
  }

  /** Whether a path is one in a place. */
  boolean isIn(String path) {
    return !ids.isEmpty() && path.startsWith("@") && !path.startsWith("@@");
  }

  private void reject(Section s, String key, String id) {
    s.reject(
        key,
        "there is no place “" + id + "”",
        ids.isEmpty()
            ? "Say in places where it lies."
            : "Name one of: " + String.join(", ", ids) + ".");
  }

  /** Patterns of game paths. */
  List<PathPattern> patterns(Section s, String key, PathCase pathCase) {
    List<String> texts = s.texts(key);
    texts.forEach(t -> require(s, key, t));
    return PathPattern.all(texts, pathCase);
  }

  /** A path or a pattern of the place that a section says it is in. */
  String in(Section s, String path) {
    Optional<String> in = s.text("in");
    if (in.isEmpty()) return path;
    if (!ids.contains(in.get())) reject(s, "in", in.get());
    return GameRoots.top(in.get(), path);
  }
}
