package ironing.bench;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Look;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.RealDisk;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;

/**
 * Deploying 400 mods of 500 files each, beside GNU {@code cp -al} and {@code rm -rf} of the same
 * tree and {@code sha256sum} of it. Each side is followed by {@code sync -f} of its own tree, and
 * the sides take turns. Writes one line of JSON; needs a folder on a disk, and two processors.
 */
public final class DeployBench {
  private static final int MODS = 400, FILES = 500, ROUNDS = 5;
  private final Path library;
  private final Path game;
  private final Path copy;

  /** As the server does, one is kept for a folder. */
  private final Deployer deployer;

  private DeployBench(Path folder) {
    library = folder.resolve("library");
    game = folder.resolve("game");
    copy = folder.resolve("copy");
    deployer = new Deployer(new RealDisk(), game);
  }

  public static void main(String[] args) throws IOException, InterruptedException {
    Path folder = Files.createDirectories(Path.of(args[0]).toAbsolutePath());
    try {
      new DeployBench(folder).run();
    } finally {
      shell("rm", "-rf", folder.toString());
    }
  }

  private interface Work {
    void run() throws IOException, InterruptedException;
  }

  private static double ms(Work work) throws IOException, InterruptedException {
    long began = System.nanoTime();
    work.run();
    return (System.nanoTime() - began) / 1e6;
  }

  private void run() throws IOException, InterruptedException {
    List<Wanted> all = library();
    Files.createDirectories(game.resolve("data"));
    List<Wanted> less = all.subList(FILES, all.size());
    double[][] ms = new double[9][ROUNDS];
    long heap = 0;
    // the first round is not counted: the programs and this one are warm then
    for (int r = -1; r < ROUNDS; r++) {
      double[] now = new double[9];
      now[0] = ms(() -> shell("cp", "-al", library.toString(), copy.toString()));
      now[0] += ms(() -> shell("sync", "-f", copy.toString()));
      long before = used();
      now[1] = ms(() -> deploy(all, Deployer::look)) + ms(this::sync);
      heap = Math.max(heap, used() - before);
      now[2] = ms(() -> deploy(all, Deployer::trusting)) + ms(this::sync);
      now[3] = ms(() -> deploy(all, Deployer::look)) + ms(this::sync);
      now[4] = ms(() -> deploy(less, Deployer::trusting)) + ms(this::sync);
      deploy(all, Deployer::trusting);
      now[5] = ms(() -> verify(all, Deployer::look));
      now[6] = ms(() -> verify(all, Deployer::thorough));
      now[7] =
          ms(
              () ->
                  shell(
                      "sh",
                      "-c",
                      "find \"$1\" -type f -print0 | xargs -0 -P2 -n 500 sha256sum >/dev/null",
                      "sh",
                      copy.toString()));
      double undeploy = ms(() -> deploy(List.of(), Deployer::look)) + ms(this::sync);
      double remove = ms(() -> shell("rm", "-rf", copy.toString()));
      remove += ms(() -> shell("sync", "-f", library.toString()));
      now[8] = undeploy / remove;
      for (int i = 0; i < now.length && r >= 0; i++) ms[i][r] = now[i];
    }
    System.out.printf(
        Locale.ROOT,
        "{\"cpMs\":%.0f,\"deployMs\":%.0f,\"nothingMs\":%.0f,\"quickNothingMs\":%.0f,\"oneModMs\":%.0f,"
            + "\"quickMs\":%.0f,\"thoroughMs\":%.0f,\"sumsMs\":%.0f,\"undeployTimes\":%.2f,\"heapMiB\":%d}%n",
        median(ms[0]),
        median(ms[1]),
        median(ms[2]),
        median(ms[3]),
        median(ms[4]),
        median(ms[5]),
        median(ms[6]),
        median(ms[7]),
        median(ms[8]),
        heap >> 20);
  }

  private static double median(double[] of) {
    double[] sorted = of.clone();
    Arrays.sort(sorted);
    return sorted[sorted.length / 2];
  }

  private static long used() {
    System.gc();
    Runtime r = Runtime.getRuntime();
    return r.totalMemory() - r.freeMemory();
  }

  private List<Wanted> library() throws IOException, InterruptedException {
    List<Wanted> all = new ArrayList<>();
    for (int m = 0; m < MODS; m++) {
      for (int f = 0; f < FILES; f++) {
        String path =
            "data/part-" + m / 4 % 25 + "/kind-" + f % 20 + "/file-" + m + "-" + f + ".dat";
        Path file = library.resolve("mod-" + m).resolve(path);
        Files.createDirectories(file.getParent());
        byte[] bytes = (path + "\n").repeat(20).getBytes(StandardCharsets.UTF_8);
        Files.write(file, bytes);
        all.add(
            new Wanted(
                path,
                ContentHash.of(bytes),
                bytes.length,
                m + 1,
                "Mod " + m,
                Writer.NOBODY,
                new Content.File(path)));
      }
    }
    shell("sync", "-f", library.toString());
    return all;
  }

  private DeployPlan plan(List<Wanted> wanted, Look look) {
    return DeployPlan.make(
        wanted, deployer.laidOut(), Optional.empty(), look, "2026-11-26T00:00:00Z");
  }

  private void deploy(List<Wanted> wanted, Function<Deployer, Look> look) {
    deployer.apply(
        plan(wanted, look.apply(deployer)),
        (mod, path) -> library.resolve("mod-" + (mod - 1)).resolve(path),
        n -> {});
  }

  private void verify(List<Wanted> wanted, Function<Deployer, Look> look) {
    if (!plan(wanted, look.apply(deployer)).isEmpty())
      throw new IllegalStateException("not as deployed");
  }

  private void sync() throws IOException, InterruptedException {
    shell("sync", "-f", game.toString());
  }

  private static void shell(String... command) throws IOException, InterruptedException {
    int code = new ProcessBuilder(command).inheritIO().start().waitFor();
    if (code != 0) throw new IOException(String.join(" ", command) + ": " + code);
  }
}
