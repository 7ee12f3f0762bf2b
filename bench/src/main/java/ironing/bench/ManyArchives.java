package ironing.bench;

import ironing.demo.ApiClient;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * A folder of many small archives, brought in over HTTP until all are installed; then all mods
 * removed, and the bin emptied. In turns with {@code unzip -q} of all of them with one {@code sync
 * -f} at the end, and with {@code rm -rf} of what that unpacked.
 *
 * <p>Usage: {@code ManyArchives URL FOLDER [ARCHIVES]}; one line of JSON for each comparison.
 */
public final class ManyArchives {
  private static final int FILES = 400;
  private static final int FOLDERS = 120;
  private static final int MEAN_BYTES = 4_000;
  private static final int ROUNDS = 3;
  private final ApiClient api;
  private final Path folder;
  private final int archives;
  private final Random random = new Random(39);

  private ManyArchives(ApiClient api, Path folder, int archives) {
    this.api = api;
    this.folder = folder;
    this.archives = archives;
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    int archives = args.length > 2 ? Integer.parseInt(args[2]) : 300;
    new ManyArchives(new ApiClient(args[0]), Path.of(args[1]), archives).measure();
  }

  private void measure() throws IOException, InterruptedException {
    Path zips = Files.createDirectories(folder.resolve("zips"));
    for (int i = 0; i < archives; i++) zip(zips.resolve(name(i) + ".zip"), i);
    double[] in = new double[ROUNDS], unzip = new double[ROUNDS];
    double[] out = new double[ROUNDS], rm = new double[ROUNDS];
    for (int round = 0; round < ROUNDS; round++) {
      Path game = folder.resolve("game-" + round);
      Files.createDirectories(game.resolve("data"));
      Files.writeString(
          game.resolve("game.yaml"),
          "format: ironing/game@1\nid: many\ntitle: Many\n"
              + "mounts: [ { id: data, at: data, holds: [ \"textures/\" ] } ]\n");
      String base = "/workspaces/" + api.newWorkspace(game);
      long began = System.nanoTime();
      api.job(base + "/archives/from-folder", Map.of("folder", zips.toString()));
      in[round] = since(began);
      Path into = folder.resolve("unzipped");
      began = System.nanoTime();
      unzipAll(zips, into);
      run(List.of("sync", "-f", into.toString()));
      unzip[round] = since(began);
      List<Long> mods = new ArrayList<>();
      api.get(base + "/library").path("mods").forEach(m -> mods.add(m.path("id").asLong()));
      if (mods.size() != archives) throw new IllegalStateException(mods.size() + " mods");
      began = System.nanoTime();
      for (long mod : mods) api.delete(base + "/mods/" + mod);
      api.delete(base + "/bin");
      out[round] = since(began);
      began = System.nanoTime();
      run(List.of("rm", "-rf", into.toString()));
      run(List.of("sync", "-f", folder.toString()));
      rm[round] = since(began);
    }
    tell(
        "%d zips of %d files in %d folders each, from a folder: beside unzip -q and one sync -f"
            .formatted(archives, FILES, FOLDERS),
        in,
        unzip,
        2);
    tell("the same removed and the bin emptied: beside rm -rf and sync -f", out, rm, 3);
  }

  private static double since(long began) {
    return (System.nanoTime() - began) / 1e6;
  }

  private void unzipAll(Path zips, Path into) throws IOException, InterruptedException {
    Files.createDirectories(into);
    try (Stream<Path> all = Files.list(zips)) {
      for (Path z : all.sorted().toList()) {
        String name = z.getFileName().toString().replace(".zip", "");
        run(List.of("unzip", "-q", z.toString(), "-d", into.resolve(name).toString()));
      }
    }
  }

  private static void run(List<String> command) throws IOException, InterruptedException {
    int code = new ProcessBuilder(command).inheritIO().start().waitFor();
    if (code != 0) throw new IllegalStateException(command + " ended with " + code);
  }

  private static void tell(String measure, double[] ours, double[] beside, double atMost) {
    Arrays.sort(ours);
    Arrays.sort(beside);
    double mine = ours[ours.length / 2], other = beside[beside.length / 2];
    System.out.printf(
        Locale.ROOT,
        "{\"measure\":\"%s\",\"oursMs\":%.0f,\"besideMs\":%.0f,\"times\":%.2f,\"atMost\":%.2f}%n",
        measure,
        mine,
        other,
        mine / other,
        atMost);
  }

  /** Letters alone: a number would be a version, and all of them versions of one mod. */
  private static String name(int number) {
    return "mod " + (char) ('a' + number / 26) + (char) ('a' + number % 26);
  }

  private void zip(Path file, int number) throws IOException {
    try (OutputStream to = Files.newOutputStream(file);
        ZipOutputStream zip = new ZipOutputStream(to, StandardCharsets.UTF_8)) {
      for (int i = 0; i < FILES; i++) {
        zip.putNextEntry(
            new ZipEntry(
                "textures/" + i % 8 + "/" + i % FOLDERS + "/" + number + "-" + i + ".dds"));
        byte[] bytes = new byte[MEAN_BYTES / 2 + random.nextInt(MEAN_BYTES)];
        random.nextBytes(bytes);
        zip.write(bytes);
        zip.closeEntry();
      }
    }
  }
}
