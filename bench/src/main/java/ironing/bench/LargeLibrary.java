package ironing.bench;

import com.fasterxml.jackson.databind.JsonNode;
import ironing.core.archive.ContentHash;
import ironing.demo.ApiClient;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * The workspace of a million files when its library changes: how long Layers takes after a mod of
 * 500 files was installed, after a text of it was edited, a file of it held back, and it was
 * removed. The change itself is not in it. Prints medians in milliseconds as JSON.
 *
 * <p>Usage: {@code LargeLibrary URL WORKSPACE FOLDER}; archives are made in the folder.
 */
public final class LargeLibrary {
  private static final int FILES = 500, TIMES = 11, WARM_UP = 4;
  private static final String TEXT = "data/textures/edited/0.txt";
  private final ApiClient api;
  private final long workspace;
  private final String base;
  private final Path folder;
  private long revision;

  private LargeLibrary(ApiClient api, long workspace, Path folder) {
    this.api = api;
    this.workspace = workspace;
    this.base = "/workspaces/" + workspace;
    this.folder = folder;
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    new LargeLibrary(new ApiClient(args[0]), Long.parseLong(args[1]), Path.of(args[2])).measure();
  }

  private void measure() throws IOException, InterruptedException {
    List<Double> installed = new ArrayList<>(),
        edited = new ArrayList<>(),
        held = new ArrayList<>(),
        removed = new ArrayList<>();
    layers();
    for (int i = 0; i < WARM_UP + TIMES; i++) {
      Path archive = archive(i);
      long mod = api.job(base + "/mods", Map.of("archive", api.store(workspace, archive)));
      installed.add(layers());
      String sha256 = ContentHash.of(text(i, 0).getBytes(StandardCharsets.UTF_8));
      api.put(
          base + "/mods/" + mod + "/text",
          Map.of("path", TEXT, "text", "edited " + i, "sha256", sha256));
      edited.add(layers());
      api.change(
          base + "/mods/" + mod + "/held-back",
          revision,
          Map.of("paths", List.of("data/textures/edited/1.txt"), "hold", true));
      held.add(layers());
      api.delete(base + "/mods/" + mod);
      removed.add(layers());
      Files.delete(archive);
    }
    System.out.printf(
        "{\"installedMs\":%.1f,\"editedMs\":%.1f,\"heldMs\":%.1f,\"removedMs\":%.1f}%n",
        median(installed), median(edited), median(held), median(removed));
  }

  private double layers() throws IOException, InterruptedException {
    long began = System.nanoTime();
    JsonNode layers = api.get(base + "/layers");
    double took = (System.nanoTime() - began) / 1e6;
    revision = layers.path("revision").asLong();
    return took;
  }

  private static double median(List<Double> times) {
    return times.stream().skip(WARM_UP).sorted().skip(TIMES / 2).findFirst().orElseThrow();
  }

  private static String text(int round, int file) {
    return "round " + round + ", file " + file + "\n";
  }

  private Path archive(int round) throws IOException {
    Path file = folder.resolve("five-hundred-" + round + ".zip");
    try (OutputStream out = Files.newOutputStream(file);
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (int i = 0; i < FILES; i++) {
        zip.putNextEntry(new ZipEntry("data/textures/edited/" + i + ".txt"));
        zip.write(text(round, i).getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
      }
    }
    return file;
  }
}
