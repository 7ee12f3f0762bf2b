package ironing.bench;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.demo.ApiClient;
import ironing.standins.catalogue.CatalogueFolder;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * 2,000 mods of 50 files each, of which every path has two holders, and a catalogue that has twenty
 * of them newer: what is newer, how all stand with the game, and judging the twenty together once
 * they are unpacked. Prints milliseconds as JSON, medians of five.
 *
 * <p>Usage: {@code JudgedUpdates URL FOLDER}.
 */
public final class JudgedUpdates {
  private static final int MODS = 2_000, FILES = 50, NEWER = 20, TIMES = 5;

  private JudgedUpdates() {}

  public static void main(String[] args) throws IOException, InterruptedException {
    ApiClient api = new ApiClient(args[0]);
    Path folder = Path.of(args[1]);
    Path game = Files.createDirectories(folder.resolve("game"));
    Files.writeString(
        game.resolve("game.yaml"),
        """
        format: ironing/game@1
        id: judged
        title: Judged
        mounts:
          - { id: data, at: ".", holds: [ "files/" ] }
        """);
    long workspace = api.newWorkspace(game.toRealPath());
    String base = "/workspaces/" + workspace;
    Path archives = Files.createDirectories(folder.resolve("archives"));
    for (int m = 0; m < MODS; m++) {
      Path archive = archives.resolve(id(m) + ".zip");
      Files.write(archive, archive(m, 1));
      api.bringIn(workspace, archive);
      Files.delete(archive);
    }
    CatalogueFolder catalogue =
        new CatalogueFolder(folder.resolve("catalogue"), "judged", "Judged", "judged");
    for (int m = 0; m < MODS; m++) {
      List<Map<String, Object>> releases = new ArrayList<>();
      int newest = m % (MODS / NEWER) == 0 ? 2 : 1;
      for (int v = 1; v <= newest; v++)
        releases.add(
            Map.of(
                "version",
                v + ".0",
                "file",
                catalogue.file(id(m) + "-" + v + ".zip", archive(m, v))));
      catalogue.mod(Map.of("mod", id(m), "name", id(m), "game", "judged", "releases", releases));
    }
    catalogue.write(1);
    String place = folder.resolve("catalogue").toRealPath().toString();
    api.job(base + "/catalogues", Map.of("address", place));
    List<Map<String, String>> wishes = new ArrayList<>();
    for (JsonNode u : api.get(base + "/updates"))
      if (u.has("newest"))
        wishes.add(
            Map.of(
                "mod",
                u.path("catalogueMod").asText(),
                "release",
                u.path("newest").path("release").asText()));
    Map<String, Object> choice = Map.of("wishes", wishes);
    api.job(base + "/choice/get", Map.of("choice", choice, "fetchOnly", true));
    JsonNode ahead = api.post(base + "/choice/ahead", choice);
    System.out.printf(
        "{\"judged\":%d,\"filesOther\":%d,\"judgeMs\":%.1f,\"updatesMs\":%.1f,\"standMs\":%.1f}%n",
        wishes.size(),
        ahead.path("filesOther").asInt(),
        median(() -> api.post(base + "/choice/ahead", choice)),
        median(() -> api.get(base + "/updates")),
        median(() -> api.get(base + "/game-version/mods")));
  }

  private static String id(int m) {
    return "mod-" + m;
  }

  /** Half of its paths are its own, half those of the mod before it. */
  private static byte[] archive(int m, int version) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
      zip.putNextEntry(new ZipEntry("mod-card.yaml"));
      zip.write(
          "{\"format\":\"ironing/mod@1\",\"id\":\"%s\",\"name\":\"%s\",\"version\":\"%d.0\"}"
              .formatted(id(m), id(m), version)
              .getBytes(StandardCharsets.UTF_8));
      // the first has nobody before it
      for (int f = 0; f < FILES; f += m == 0 ? 2 : 1) {
        int of = f % 2 == 0 ? m : m - 1;
        zip.putNextEntry(new ZipEntry("files/" + id(of) + "/" + f / 2 + ".txt"));
        zip.write((m + " " + f + " " + version).getBytes(StandardCharsets.UTF_8));
      }
    }
    return bytes.toByteArray();
  }

  private interface Asked {
    JsonNode ask() throws IOException, InterruptedException;
  }

  private static double median(Asked asked) throws IOException, InterruptedException {
    List<Double> all = new ArrayList<>();
    for (int i = 0; i < TIMES; i++) {
      long began = System.nanoTime();
      asked.ask();
      all.add((System.nanoTime() - began) / 1e6);
    }
    return all.stream().sorted().skip(TIMES / 2).findFirst().orElseThrow();
  }
}
