package ironing.demo;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Brings the sample world into a running Ironing, through the same API that the page uses: the
 * workspace, the archives in their order, what is switched off at first, archives that wait in the
 * inbox, and a published list to follow.
 *
 * <p>Usage: {@code DemoLoader URL WORLD TARGET [CATALOGUE]}, the last being the address at which
 * the catalogue is served; without it, the workspace reads its folder. Does nothing when that was
 * done once, whatever the user has made of it since; goes on where a loading was cut off.
 */
public final class DemoLoader {
  // it takes coal out of the game, which others refer to: a fault to try out, not to begin with
  private static final Set<String> OFF_AT_FIRST = Set.of("Coal to Kelp Conversion");
  private static final Map<String, Object> LIGHTS =
      Map.of(
          "name", "Harbour Lights",
          "command",
              List.of(
                  "java",
                  "-cp",
                  "{standins}/game.jar",
                  "ironing.standins.game.HarbourLights",
                  "{game}"),
          "reads", List.of("data/*.plug"),
          "writes", List.of("data/Harbour Lights.plug"));
  private final ApiClient api;

  private DemoLoader(String url) {
    this.api = new ApiClient(url);
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    DemoLoader loader = new DemoLoader(args[0]);
    Optional<String> served = args.length > 3 ? Optional.of(args[3]) : Optional.empty();
    Path target = Path.of(args[2]).toAbsolutePath().normalize();
    long workspace = loader.load(Path.of(args[1]), target, served);
    System.out.println(args[0] + "/workspaces/" + workspace);
  }

  private long load(Path world, Path target, Optional<String> served)
      throws IOException, InterruptedException {
    DemoPacker.pack(world, target);
    Path catalogue = DemoCatalogue.write(world, target);
    String address =
        served.map(s -> s + "/catalogue.json").orElse(catalogue.toRealPath().toString());
    Path game = target.resolve("game").toRealPath();
    Path loaded = target.resolve("loaded");
    Optional<Long> there = api.workspaceOf(game);
    if (there.isPresent() && Files.exists(loaded)) {
      know(there.get(), address);
      return there.get();
    }
    Files.deleteIfExists(loaded);
    long workspace = there.isPresent() ? there.get() : api.newWorkspace(game);
    know(workspace, address);
    Set<String> mods = archivesOfMods(workspace);
    for (String archive : DemoPacker.installOrder()) {
      if (!mods.contains(archive))
        api.bringIn(workspace, target.resolve("archives").resolve(archive));
    }
    switchOff(workspace);
    try (Stream<Path> inbox = Files.list(target.resolve("inbox"))) {
      for (Path archive : inbox.sorted().toList()) api.store(workspace, archive);
    }
    if (api.get("/workspaces/" + workspace + "/lists").isEmpty()) {
      try (Stream<Path> lists = Files.list(world.resolve("lists"))) {
        for (Path list : lists.sorted().toList()) api.follow(workspace, list);
      }
    }
    if (api.get("/workspaces/" + workspace + "/tools").isEmpty())
      api.post("/workspaces/" + workspace + "/tools", LIGHTS);
    Files.createFile(loaded);
    return workspace;
  }

  /**
   * The catalogue is at another address where its port is another: what was known of it is let go.
   */
  private void know(long workspace, String address) throws IOException, InterruptedException {
    String path = "/workspaces/" + workspace + "/catalogues";
    for (JsonNode c : api.get(path)) {
      if (c.path("address").asText().equals(address)) return;
      if (c.path("title").asText().equals("Harbour Board"))
        api.delete(path + "/" + c.path("id").asLong());
    }
    api.job(path, Map.of("address", address));
  }

  private Set<String> archivesOfMods(long workspace) throws IOException, InterruptedException {
    Set<String> names = new HashSet<>();
    for (JsonNode m : api.get("/workspaces/" + workspace + "/library").path("mods"))
      names.add(m.path("archiveName").asText());
    return names;
  }

  private void switchOff(long workspace) throws IOException, InterruptedException {
    String path = "/workspaces/" + workspace + "/layers";
    JsonNode layers = api.get(path);
    List<Long> mods = new ArrayList<>();
    for (JsonNode l : layers.path("layers")) {
      if (OFF_AT_FIRST.contains(l.path("name").asText())) mods.add(l.path("mod").asLong());
    }
    long revision = layers.path("revision").asLong();
    api.change(path + "/switch", revision, Map.of("mods", mods, "on", false));
  }
}
