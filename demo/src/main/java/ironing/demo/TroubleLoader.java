package ironing.demo;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Makes a second workspace of the sample game, in which something is wrong: a profile for each of
 * three troubles to find. The first one is in use, deployed, and was played twice: before it came,
 * and with it.
 *
 * <p>Usage: {@code TroubleLoader URL WORLD TARGET}, with the world and the target of {@link
 * DemoLoader}, which has packed the sample's own archives there. Does nothing when that was done
 * once; goes on where a loading was cut off.
 */
public final class TroubleLoader {
  private static final String TITLE = "Skerry Line, in trouble";

  /** On in every profile. */
  private static final List<String> QUIET =
      List.of("brass-lanterns-1.0.zip", "harbour-cats-1.2.zip", "chart-grid-0.3.zip");

  private record Trouble(String profile, List<String> archives, Set<String> mods) {}

  private static final List<Trouble> TROUBLES =
      List.of(
          new Trouble("The signals", List.of("signal-book-1.1.zip"), Set.of("Signal Book")),
          new Trouble(
              "Songs in the evening",
              List.of("late-lamps-0.8.zip", "songs-on-the-quay-2.0.zip"),
              Set.of("Late Lamps", "Songs on the Quay")),
          new Trouble(
              "The Sunnfisk lies still",
              List.of("tidy-registers-1.0.zip"),
              Set.of("Tidy Registers")));

  private final ApiClient api;

  private TroubleLoader(String url) {
    this.api = new ApiClient(url);
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    Path target = Path.of(args[2]).toAbsolutePath().normalize();
    new TroubleLoader(args[0]).load(Path.of(args[1]), target);
  }

  private void load(Path world, Path target) throws IOException, InterruptedException {
    Path home = Files.createDirectories(target.resolve("trouble"));
    Path loaded = home.resolve("loaded");
    if (Files.exists(loaded)) return;
    DemoPacker.packTrouble(world, home, TITLE);
    Path game = home.resolve("game").toRealPath();
    Optional<Long> there = api.workspaceOf(game);
    long workspace = there.isPresent() ? there.get() : api.newWorkspace(game);
    List<Path> usual = new ArrayList<>();
    // a plugin of the night ferry needs one of the lamplight’s to load before it
    List<String> order = new ArrayList<>(DemoPacker.installOrder());
    order.remove("lamplight-1.0.tar.gz");
    order.add(0, "lamplight-1.0.tar.gz");
    for (String a : order) usual.add(target.resolve("archives").resolve(a));
    for (String a : QUIET) usual.add(home.resolve("archives").resolve(a));
    for (Path archive : usual) bringIn(workspace, archive);
    switched(workspace, Set.of("Coal to Kelp Conversion"), false);
    played(workspace);
    for (Trouble t : TROUBLES) {
      for (String a : t.archives()) bringIn(workspace, home.resolve("archives").resolve(a));
      switched(workspace, t.mods(), false);
    }
    profiles(workspace);
    played(workspace);
    Files.createFile(loaded);
  }

  private void bringIn(long workspace, Path archive) throws IOException, InterruptedException {
    for (JsonNode m : api.get("/workspaces/" + workspace + "/library").path("mods"))
      if (m.path("archiveName").asText().equals(archive.getFileName().toString())) return;
    api.bringIn(workspace, archive);
  }

  private void switched(long workspace, Set<String> names, boolean on)
      throws IOException, InterruptedException {
    String path = "/workspaces/" + workspace + "/layers";
    JsonNode layers = api.get(path);
    List<Long> mods = new ArrayList<>();
    for (JsonNode l : layers.path("layers"))
      if (names.contains(l.path("name").asText())) mods.add(l.path("mod").asLong());
    api.change(path + "/switch", layers.path("revision").asLong(), Map.of("mods", mods, "on", on));
  }

  /** A profile for each trouble, that of the first one in use. */
  private void profiles(long workspace) throws IOException, InterruptedException {
    String path = "/workspaces/" + workspace + "/profiles";
    long first = api.get(path).get(0).path("id").asLong();
    List<Trouble> later = TROUBLES.subList(1, TROUBLES.size());
    for (Trouble t : later) {
      long made = api.post(path, Map.of("name", t.profile(), "from", first)).path("id").asLong();
      api.post(path + "/" + made + "/use", Map.of());
      switched(workspace, t.mods(), true);
    }
    api.post(path + "/" + first + "/use", Map.of());
    api.put(path + "/" + first, Map.of("name", TROUBLES.get(0).profile()));
    switched(workspace, TROUBLES.get(0).mods(), true);
  }

  private void played(long workspace) throws IOException, InterruptedException {
    String base = "/workspaces/" + workspace;
    api.job(base + "/deploy", Map.of());
    long run = api.post(base + "/runs", Map.of()).path("run").asLong();
    while (api.get(base + "/runs/" + run).path("state").asText().equals("RUNNING"))
      Thread.sleep(100);
  }
}
