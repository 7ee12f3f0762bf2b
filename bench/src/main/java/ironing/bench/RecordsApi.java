package ironing.bench;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.demo.ApiClient;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * The workspace of two million records over HTTP: a record laid open, with who refers to it; the
 * counts; the list of what needs the user; a search by name. Prints JSON, medians and the slowest.
 *
 * <p>Usage: {@code RecordsApi URL WORKSPACE}.
 */
public final class RecordsApi {
  private static final int TIMES = 40;
  private static final int WARM_UP = 10;

  private RecordsApi() {}

  private interface Act {
    void run() throws IOException, InterruptedException;
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    ApiClient api = new ApiClient(args[0]);
    String base = "/workspaces/" + args[1] + "/records";
    long began = System.nanoTime();
    JsonNode all = api.get(base);
    double first = (System.nanoTime() - began) / 1e6;
    Random random = new Random(2);
    List<Double> open =
        times(
            () ->
                api.get(
                    base
                        + "/Volume%20"
                        + String.format("%04d", 1 + random.nextInt(1_400))
                        + ".plug/"
                        + (1 + random.nextInt(800))));
    List<Double> contested =
        times(() -> api.get(base + "/Volume%200000.plug/" + (1 + random.nextInt(199_000))));
    System.out.printf(
        "{\"records\":%d,\"firstMs\":%.0f,\"openMs\":%.1f,\"openSlowestMs\":%.1f,"
            + "\"openContestedMs\":%.1f,\"openContestedSlowestMs\":%.1f,\"countsMs\":%.1f,"
            + "\"listMs\":%.1f,\"findMs\":%.1f}%n",
        all.path("records").asInt(),
        first,
        median(open),
        slowest(open),
        median(contested),
        slowest(contested),
        median(times(() -> api.get(base))),
        median(times(() -> api.get(base + "/list?state=NEEDS_YOU"))),
        median(times(() -> api.get(base + "/list?find=No.%2077"))));
  }

  private static List<Double> times(Act act) throws IOException, InterruptedException {
    List<Double> times = new ArrayList<>();
    for (int i = 0; i < WARM_UP + TIMES; i++) {
      long began = System.nanoTime();
      act.run();
      if (i >= WARM_UP) times.add((System.nanoTime() - began) / 1e6);
    }
    return times.stream().sorted().toList();
  }

  private static double median(List<Double> times) {
    return times.get(times.size() / 2);
  }

  private static double slowest(List<Double> times) {
    return times.get(times.size() - 1);
  }
}
