package ironing.bench;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.demo.ApiClient;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;

/**
 * A running Ironing, measured over HTTP as the page uses it: one line of JSON for each figure.
 *
 * <p>Usage: {@code ProductBench URL WORLD FOLDER [demo]}. FOLDER holds {@code game} and {@code
 * archives}, which are brought in first unless the game's folder is a workspace already. Times are
 * of the whole request, from this process, in milliseconds; the first requests of a kind are not
 * counted.
 */
public final class ProductBench {
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final int WARM_UP = 10;
  private final Random random = new Random(7);
  private final ApiClient api;
  private final String world;
  private String base;

  private ProductBench(String url, String world) {
    this.api = new ApiClient(url);
    this.world = world;
  }

  /** One thing that is timed. */
  private interface Act {
    void run() throws IOException, InterruptedException;
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    new ProductBench(args[0], args[1]).all(Path.of(args[2]).toRealPath());
  }

  private void all(Path folder) throws IOException, InterruptedException {
    long workspace = workspace(folder);
    base = "/workspaces/" + workspace;
    many("Layers: the list answers", 30, () -> api.get(base + "/layers"));
    many("move a layer: the answer", 50, () -> move(false));
    many("move a layer: what it would change", 50, () -> move(true));
    many("switch a layer: the answer", 30, this::switchOne);
    many("Overlaps: the first page", 30, () -> api.get(base + "/overlaps"));
    many("Load order: the list", 30, () -> api.get(base + "/load-order"));
    many("Load order: the proposal", 30, () -> api.get(base + "/load-order/proposal"));
    many("Records: the list", 10, () -> api.get(base + "/records"));
    many("Deploy: the plan", 10, () -> api.get(base + "/deploy/plan"));
    deploying();
  }

  private long workspace(Path folder) throws IOException, InterruptedException {
    Path game = folder.resolve("game");
    Optional<Long> there = api.workspaceOf(game);
    if (there.isPresent()) return there.get();
    long began = System.nanoTime();
    long id = api.newWorkspace(game);
    report("a workspace from the game's folder", new double[] {since(began)});
    List<Path> archives;
    try (Stream<Path> all = Files.list(folder.resolve("archives"))) {
      archives = all.sorted().toList();
    }
    began = System.nanoTime();
    for (Path a : archives) api.bringIn(id, a);
    double each = since(began) / archives.size();
    report("bring in an archive, mean of all", archives.size(), each, each);
    return id;
  }

  private void move(boolean dryRun) throws IOException, InterruptedException {
    JsonNode layers = layers();
    int count = layers.path("layers").size();
    JsonNode layer = layers.path("layers").get(random.nextInt(count));
    Map<String, Object> body =
        Map.of("mods", List.of(layer.path("mod").asLong()), "to", 1 + random.nextInt(count));
    change("/layers/move" + (dryRun ? "?dryRun=true" : ""), body);
  }

  private void switchOne() throws IOException, InterruptedException {
    JsonNode layers = layers();
    JsonNode layer = layers.path("layers").get(random.nextInt(layers.path("layers").size()));
    long mod = layer.path("mod").asLong();
    change("/layers/switch", Map.of("mods", List.of(mod), "on", !layer.path("on").asBoolean()));
  }

  // asked once; from then on only its revision counts
  private JsonNode known;
  private long revision;

  private JsonNode layers() throws IOException, InterruptedException {
    if (known == null) {
      known = api.get(base + "/layers");
      revision = known.path("revision").asLong();
    }
    return known;
  }

  private void change(String path, Map<String, Object> body)
      throws IOException, InterruptedException {
    JsonNode answer = api.change(base + path, revision, body);
    if (!path.endsWith("dryRun=true")) revision = answer.path("revision").asLong();
  }

  private void deploying() throws IOException, InterruptedException {
    switchAllOn();
    double[] all = new double[3], again = new double[3], back = new double[3];
    for (int i = 0; i < all.length; i++) {
      all[i] = timed(() -> api.job(base + "/deploy", Map.of()));
      move(false);
      again[i] = timed(() -> api.job(base + "/deploy", Map.of()));
      back[i] = timed(() -> api.job(base + "/deploy/undeploy", Map.of()));
    }
    report("Deploy: everything", all);
    report("Deploy: again after a move", again);
    report("Undeploy", back);
  }

  private void switchAllOn() throws IOException, InterruptedException {
    List<Long> mods = new ArrayList<>();
    for (JsonNode l : layers().path("layers")) mods.add(l.path("mod").asLong());
    change("/layers/switch", Map.of("mods", mods, "on", true));
  }

  private void many(String measure, int times, Act act) throws IOException, InterruptedException {
    for (int i = 0; i < WARM_UP; i++) act.run();
    double[] millis = new double[times];
    for (int i = 0; i < times; i++) millis[i] = timed(act);
    report(measure, millis);
  }

  private static double timed(Act act) throws IOException, InterruptedException {
    long began = System.nanoTime();
    act.run();
    return since(began);
  }

  private static double since(long began) {
    return (System.nanoTime() - began) / 1e6;
  }

  private void report(String measure, double[] millis) {
    double[] sorted = millis.clone();
    Arrays.sort(sorted);
    int p95 = (int) Math.ceil(sorted.length * 0.95) - 1;
    report(measure, sorted.length, sorted[sorted.length / 2], sorted[p95]);
  }

  private void report(String measure, int times, double median, double p95) {
    ObjectNode line =
        JSON.createObjectNode()
            .put("measure", measure)
            .put("world", world)
            .put("times", times)
            .put("medianMs", Math.round(median * 10) / 10.0)
            .put("p95Ms", Math.round(p95 * 10) / 10.0);
    System.out.println(line);
  }
}
