package ironing.bench;

import ironing.demo.ApiClient;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * The workspace of a million files over HTTP: moves and switches with their difference, and the
 * overlaps. Prints medians in milliseconds as JSON.
 *
 * <p>Usage: {@code LargeApi URL WORKSPACE}.
 */
public final class LargeApi {
  private static final int TIMES = 40;
  private static final int WARM_UP = 10;
  private final ApiClient api;
  private final String base;
  private final Random random = new Random(5);

  private LargeApi(ApiClient api, String base) {
    this.api = api;
    this.base = base;
  }

  private interface Act {
    void run() throws IOException, InterruptedException;
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    LargeApi open = new LargeApi(new ApiClient(args[0]), "/workspaces/" + args[1]);
    open.revision = open.api.get(open.base + "/layers").path("revision").asLong();
    System.out.printf(
        "{\"moveMs\":%.1f,\"switchMs\":%.1f,\"overlapsMs\":%.1f,\"layersMs\":%.1f}%n",
        open.median(open::move),
        open.median(open::turn),
        open.median(() -> open.api.get(open.base + "/overlaps/folder")),
        open.median(() -> open.api.get(open.base + "/layers")));
  }

  private double median(Act act) throws IOException, InterruptedException {
    List<Double> times = new ArrayList<>();
    for (int i = 0; i < WARM_UP + TIMES; i++) {
      long began = System.nanoTime();
      act.run();
      if (i >= WARM_UP) times.add((System.nanoTime() - began) / 1e6);
    }
    return times.stream().sorted().skip(TIMES / 2).findFirst().orElseThrow();
  }

  // as the page does, each change goes on from the answer to the one before
  private long revision;

  private void move() throws IOException, InterruptedException {
    change(
        "/layers/move",
        Map.of("mods", List.of(anyMod()), "to", 1 + random.nextInt(LargeWorld.MODS)));
  }

  private boolean on;

  private void turn() throws IOException, InterruptedException {
    change("/layers/switch", Map.of("mods", List.of(anyMod()), "on", on));
    on = !on;
  }

  private long anyMod() {
    return LargeSql.FIRST + 1 + random.nextInt(LargeWorld.MODS);
  }

  private void change(String path, Map<String, ?> body) throws IOException, InterruptedException {
    revision = api.change(base + path, revision, body).path("revision").asLong();
  }
}
