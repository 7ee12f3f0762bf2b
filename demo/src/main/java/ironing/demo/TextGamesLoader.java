package ironing.demo;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Brings in the two sample games whose mods are folders of open text, through the same API as the
 * page.
 *
 * <p>Usage: {@code TextGamesLoader URL WORLD TARGET}; they lie beside WORLD. Does nothing where
 * that was done once; goes on where it was cut off.
 */
public final class TextGamesLoader {
  /** By game its archives, the lowest layer first. */
  public static final Map<String, List<String>> GAMES =
      Map.of(
          "bells",
          List.of(
              "heavier-tenors-1.1.zip",
              "true-names-0.9.zip",
              "richer-tones-2.0.zip",
              "early-risers-1.3.zip",
              "long-peals-1.0.zip",
              "cheap-tin-1.0.zip",
              "market-days-1.4.zip",
              "winter-ring-1.2.zip",
              "sound-metal-1.0.zip",
              "painted-tower-1.0.zip",
              "lighter-marl-1.0.zip",
              "distant-carillon-0.2.zip"),
          "lanterns",
          List.of("blue-hour-1.0.zip", "tall-posts-1.0.zip", "red-quay-1.0.zip"));

  // one needs what nobody has, and the other says of the great bell what another says too
  private static final Set<String> OFF_AT_FIRST = Set.of("Distant Carillon", "Lighter Marl");

  private final ApiClient api;

  private TextGamesLoader(String url) {
    this.api = new ApiClient(url);
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    TextGamesLoader loader = new TextGamesLoader(args[0]);
    Path target = Path.of(args[2]).toAbsolutePath().normalize();
    for (String game : List.of("bells", "lanterns"))
      loader.load(Path.of(args[1]).resolveSibling(game), target.resolve(game), GAMES.get(game));
  }

  private void load(Path world, Path target, List<String> order)
      throws IOException, InterruptedException {
    Path loaded = Files.createDirectories(target).resolve("loaded");
    if (Files.exists(loaded)) return;
    DemoPacker.packText(world, target);
    Path game = target.resolve("game").toRealPath();
    long workspace =
        api.workspaceOf(game).isPresent() ? api.workspaceOf(game).get() : api.newWorkspace(game);
    Set<String> there = new HashSet<>();
    for (JsonNode m : api.get("/workspaces/" + workspace + "/library").path("mods"))
      there.add(m.path("archiveName").asText());
    for (String archive : order)
      if (!there.contains(archive))
        api.bringIn(workspace, target.resolve("archives").resolve(archive));
    String path = "/workspaces/" + workspace + "/layers";
    JsonNode layers = api.get(path);
    List<Long> off = new java.util.ArrayList<>();
    for (JsonNode l : layers.path("layers"))
      if (OFF_AT_FIRST.contains(l.path("name").asText())) off.add(l.path("mod").asLong());
    if (!off.isEmpty())
      api.change(
          path + "/switch", layers.path("revision").asLong(), Map.of("mods", off, "on", false));
    Files.createFile(loaded);
  }
}
