package ironing.bench;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.demo.ApiClient;
import ironing.standins.catalogue.CatalogueFolder;
import ironing.standins.catalogue.CatalogueServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * A catalogue of 200,000 mods in 600,000 releases over 256 parts, served on loopback: the first
 * look, one at which nothing has changed, one at which three parts have; searches; what choices
 * bring with them where 300 mods are installed; and one large download beside {@code curl | tee |
 * sha256sum}. Prints milliseconds as JSON, medians but for the first look.
 *
 * <p>Usage: {@code LargeCatalogue URL FOLDER}.
 */
public final class LargeCatalogue {
  private static final int MODS = 200_000, RELEASES = 3, PARTS = 256, INSTALLED = 300;
  private static final int TIMES = 21, LOOKS = 5;
  private static final int DOWNLOAD_BYTES = 512 << 20;
  private static final String[] WORDS =
      ("harbour fog bell rope lamp gull keel tide hull anchor ferry skerry buoy plank mast sail"
              + " winch chart compass ledger kelp coal engine lantern pier quay storm drift ice seal")
          .split(" ");

  private final Random random = new Random(24);
  private final ApiClient api;
  private final Path folder;
  private final CatalogueFolder catalogue;
  private final String[] lines = new String[MODS];
  private String base;

  private LargeCatalogue(ApiClient api, Path folder) {
    this.api = api;
    this.folder = folder;
    catalogue =
        new CatalogueFolder(folder.resolve("catalogue"), "large", "Large", "large-catalogue")
            .parts(PARTS);
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    new LargeCatalogue(new ApiClient(args[0]), Path.of(args[1])).measure();
  }

  private static String id(int m) {
    return "mod-" + m;
  }

  /** The text of a release's needs: of popular mods mostly, which have the low numbers. */
  private String needs(int m) {
    StringBuilder out = new StringBuilder();
    for (int i = random.nextInt(3); i > 0 && m > 0; i--) {
      double r = random.nextDouble();
      int other = (int) (m * r * r * r);
      String range = random.nextInt(4) == 0 ? ">=2" : "*";
      if (!out.isEmpty()) out.append(',');
      out.append("{\"mod\":\"%s\",\"versions\":\"%s\"}".formatted(id(other), range));
    }
    return out.toString();
  }

  private String word() {
    return WORDS[random.nextInt(WORDS.length)];
  }

  private void line(int m, int releases, String needs) {
    StringBuilder all = new StringBuilder();
    for (int v = 1; v <= releases; v++) {
      if (v > 1) all.append(',');
      all.append(
          ("{\"version\":\"%d.0\",\"at\":\"20%02d-%02d-11\",\"file\":{\"name\":\"%s-%d.zip\","
                  + "\"href\":\"files/%s-%d.zip\",\"size\":1000,\"sha256\":\"%064x\"},"
                  + "\"game\":\">=1.%d\",\"needs\":[%s],\"change\":\"fix\",\"changes\":\"Less %s.\"}")
              .formatted(
                  v, 20 + m % 6, 1 + m % 12, id(m), v, id(m), v, 4L * m + v, m % 5, needs, word()));
    }
    lines[m] =
        ("{\"mod\":\"%s\",\"name\":\"%s %s %d\",\"game\":\"large-catalogue\",\"summary\":\"A %s for the"
                + " %s, with %s and %s.\",\"tags\":[\"%s\"],\"authors\":[\"author %d\"],\"releases\":[%s]}")
            .formatted(
                id(m), word(), word(), m, word(), word(), word(), word(), word(), m % 5_000, all);
    catalogue.line(id(m), lines[m]);
  }

  private void measure() throws IOException, InterruptedException {
    String[] needs = new String[MODS];
    for (int m = 0; m < MODS; m++) {
      needs[m] = needs(m);
      line(m, RELEASES, needs[m]);
    }
    byte[] large = new byte[DOWNLOAD_BYTES];
    random.nextBytes(large);
    Map<String, Object> file = catalogue.file("large.zip", large);
    catalogue.mod(
        Map.of(
            "mod",
            "large-file",
            "name",
            "Large file",
            "game",
            "large-catalogue",
            "releases",
            List.of(Map.of("version", "1", "file", file))));
    catalogue.write(1);
    Path game = folder.resolve("game");
    Files.createDirectories(game.resolve("data"));
    Files.writeString(
        game.resolve("game.yaml"),
        """
        format: ironing/game@1
        id: large-catalogue
        title: Large Catalogue
        mounts:
          - { id: data, at: "data", holds: [ "*.txt" ] }
        """);
    base = "/workspaces/" + api.newWorkspace(game.toRealPath());
    install(needs);
    try (CatalogueServer server = new CatalogueServer(folder.resolve("catalogue"), 0)) {
      Map<String, Object> out = new HashMap<>();
      long began = System.nanoTime();
      long id = api.job(base + "/catalogues", Map.of("address", server.url()));
      out.put("firstLookMs", (System.nanoTime() - began) / 1e6);
      out.put("unchangedMs", median(LOOKS, i -> look(id)));
      server.forgetAsked();
      out.put("changedMs", median(LOOKS, i -> changedLook(id, needs, i)));
      out.put("changedRequests", server.asked().size() / LOOKS);
      searches(out);
      choices(out);
      download(server, out);
      print(out);
    }
  }

  /** Every third of the popular ones, so that about as many needs are met as are not. */
  private void install(String[] needs) throws IOException, InterruptedException {
    long workspace = Long.parseLong(base.replaceAll("\\D", ""));
    for (int i = 0; i < INSTALLED; i++) {
      int m = 3 * i;
      Path archive = folder.resolve(id(m) + ".zip");
      try (OutputStream out = Files.newOutputStream(archive);
          ZipOutputStream zip = new ZipOutputStream(out)) {
        zip.putNextEntry(new ZipEntry("mod-card.yaml"));
        zip.write(
            "{\"format\":\"ironing/mod@1\",\"id\":\"%s\",\"name\":\"%s\",\"version\":\"%d.0\",\"needs\":[%s]}"
                .formatted(id(m), id(m), 1 + m % RELEASES, needs[m])
                .getBytes(StandardCharsets.UTF_8));
        zip.putNextEntry(new ZipEntry(id(m) + ".txt"));
        zip.write(1);
        zip.closeEntry();
      }
      api.bringIn(workspace, archive);
      Files.delete(archive);
    }
  }

  private double look(long id) throws IOException, InterruptedException {
    long began = System.nanoTime();
    api.job(base + "/catalogues/" + id + "/look", Map.of());
    return (System.nanoTime() - began) / 1e6;
  }

  /** Three mods of different parts get a release more. */
  private double changedLook(long id, String[] needs, int round)
      throws IOException, InterruptedException {
    Set<Integer> parts = new HashSet<>();
    for (int m = 1_000 * (round + 1); parts.size() < 3; m++)
      if (parts.add(Math.floorMod(id(m).hashCode(), PARTS))) line(m, RELEASES + 1, needs[m]);
    catalogue.write(2L + round);
    return look(id);
  }

  private void searches(Map<String, Object> out) throws IOException, InterruptedException {
    String fits = "&fits=true&nothingMore=true";
    for (String[] s :
        new String[][] {
          {"searchCommonMs", ""}, {"searchTwoMs", "%20two"}, {"searchNarrowedMs", fits}
        })
      out.put(
          s[0],
          median(
              TIMES,
              i -> {
                String words = WORDS[i % WORDS.length].substring(0, 3);
                String more = s[1].equals("%20two") ? "%20" + WORDS[(i + 7) % WORDS.length] : s[1];
                return timed("/catalogues/mods?search=" + words + more);
              }));
    out.put(
        "searchOneMs", median(TIMES, i -> timed("/catalogues/mods?search=" + (1_000 + 997 * i))));
    out.put(
        "newestMs",
        median(TIMES, i -> timed("/catalogues/mods?tag=" + enc(WORDS[i % WORDS.length]))));
  }

  private static String enc(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8);
  }

  private double timed(String path) throws IOException, InterruptedException {
    long began = System.nanoTime();
    api.get(base + path);
    return (System.nanoTime() - began) / 1e6;
  }

  private void choices(Map<String, Object> out) throws IOException, InterruptedException {
    int[] found = {0};
    out.put(
        "choiceMs",
        median(
            TIMES,
            i -> {
              List<Map<String, String>> wishes = new ArrayList<>();
              for (int k = 0; k < 3; k++) wishes.add(Map.of("mod", id(random.nextInt(20_000))));
              return choice(Map.of("wishes", wishes), found);
            }));
    out.put("choicesWithASet", found[0]);
    out.put(
        "missingMs",
        median(TIMES, i -> choice(Map.of("wishes", List.of(), "missing", true), found)));
  }

  private double choice(Map<String, Object> body, int[] found)
      throws IOException, InterruptedException {
    long began = System.nanoTime();
    JsonNode answer = api.post(base + "/choice", body);
    double took = (System.nanoTime() - began) / 1e6;
    if (answer.path("answer").asText().equals("FOUND")) found[0]++;
    return took;
  }

  private void download(CatalogueServer server, Map<String, Object> out)
      throws IOException, InterruptedException {
    List<Double> ours = new ArrayList<>(), theirs = new ArrayList<>();
    for (int i = 0; i < 3; i++) {
      long began = System.nanoTime();
      Process curl =
          new ProcessBuilder(
                  "sh",
                  "-c",
                  "curl -s "
                      + server.url()
                      + "/files/large.zip | tee "
                      + folder.resolve("by-curl")
                      + " | sha256sum")
              .redirectOutput(ProcessBuilder.Redirect.DISCARD)
              .start();
      curl.waitFor();
      theirs.add((System.nanoTime() - began) / 1e6);
    }
    // the library keeps what it has: it is fetched once
    long began = System.nanoTime();
    api.post(
        base + "/choice/get",
        Map.of("choice", Map.of("wishes", List.of(Map.of("mod", "large-file")))));
    while (!api.get(base + "/downloads").path(0).path("state").asText().equals("DONE"))
      Thread.sleep(10);
    ours.add((System.nanoTime() - began) / 1e6);
    out.put("downloadMs", ours.get(0));
    out.put("curlMs", theirs.stream().sorted().skip(1).findFirst().orElseThrow());
  }

  private interface Timed {
    double run(int round) throws IOException, InterruptedException;
  }

  private static double median(int times, Timed timed) throws IOException, InterruptedException {
    List<Double> all = new ArrayList<>();
    for (int i = 0; i < times; i++) all.add(timed.run(i));
    return all.stream().sorted().skip(times / 2).findFirst().orElseThrow();
  }

  private static void print(Map<String, Object> out) {
    StringBuilder json = new StringBuilder("{");
    out.forEach(
        (k, v) -> {
          if (json.length() > 1) json.append(',');
          json.append('"').append(k).append("\":");
          json.append(v instanceof Double d ? "%.1f".formatted(d) : v.toString());
        });
    System.out.println(json.append('}'));
  }
}
