package ironing.bench;

import ironing.core.archive.ArchiveLimits;
import ironing.core.archive.DecoderMemory;
import ironing.core.archive.Unpacker;
import ironing.core.deploy.RealDisk;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Unpacking, hashing and flushing an archive beside what other programs take to unpack and flush
 * it: Info-ZIP {@code unzip -q} and {@code 7zz x}, each followed by {@code sync -f}. The rounds of
 * the two take turns, so that what else the machine does falls on both.
 *
 * <p>Usage: {@code InstallBench FOLDER}, a folder to work in; one line of JSON for each comparison.
 */
public final class InstallBench {
  private static final int ROUNDS = 5;
  private static final Path PROGRAM = Path.of("/usr/bin/7zz");
  private final Path folder;
  private final RealDisk disk = new RealDisk();
  private final Random random = new Random(11);

  private InstallBench(Path folder) {
    this.folder = folder;
  }

  private interface Act {
    void run(Path into) throws Exception;
  }

  public static void main(String[] args) throws Exception {
    new InstallBench(Files.createDirectories(Path.of(args[0]))).all();
  }

  private void all() throws Exception {
    Path zip = zip(folder.resolve("5000.zip"), 5_000, 24_000);
    compare(
        "a zip of 5,000 files: beside unzip -q and sync -f",
        1.3,
        into -> install(zip, into, Optional.empty()),
        into -> outside(List.of("unzip", "-q", zip.toString(), "-d", into.toString()), into));
    Path sevenZ = sevenZ(folder.resolve("200.7z"), zip);
    Act seven = into -> outside(List.of("7zz", "x", "-bso0", "-o" + into, sevenZ.toString()), into);
    compare(
        "a 7z of 200 MB, by our own reader: beside 7zz x and sync -f",
        3,
        into -> install(sevenZ, into, Optional.empty()),
        seven);
    compare(
        "a 7z of 200 MB, by 7zz behind our checks: beside 7zz x and sync -f",
        1.5,
        into -> install(sevenZ, into, Optional.of(PROGRAM)),
        seven);
    Path small = zip(folder.resolve("500.zip"), 500, 24_000);
    compare(
        "ten zips of 500 files at once: beside the same one after another",
        0.9,
        into -> ten(small, into, Runtime.getRuntime().availableProcessors()),
        into -> ten(small, into, 1));
  }

  private void install(Path archive, Path into, Optional<Path> program) throws IOException {
    DecoderMemory memory = new DecoderMemory(DecoderMemory.DEFAULT_KIB);
    new Unpacker(ArchiveLimits.DEFAULT, memory, program)
        .unpack(archive, "bench", into, nested -> true, (done, total) -> {});
    disk.flushTree(into);
  }

  private void ten(Path archive, Path into, int threads) throws Exception {
    ExecutorService workers = Executors.newFixedThreadPool(threads);
    List<Future<?>> all = new ArrayList<>();
    for (int i = 0; i < 10; i++) {
      Path one = Files.createDirectory(into.resolve(Integer.toString(i)));
      all.add(
          workers.submit(
              () -> {
                install(archive, one, Optional.empty());
                return null;
              }));
    }
    for (Future<?> f : all) f.get();
    workers.shutdown();
  }

  private static void outside(List<String> command, Path into) throws Exception {
    run(command);
    run(List.of("sync", "-f", into.toString()));
  }

  private static void run(List<String> command) throws Exception {
    Process p =
        new ProcessBuilder(command)
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .redirectOutput(ProcessBuilder.Redirect.DISCARD)
            .start();
    if (p.waitFor() != 0) throw new IllegalStateException(command + " failed");
  }

  private void compare(String measure, double atMost, Act ours, Act beside) throws Exception {
    timed(ours);
    timed(beside);
    double[] a = new double[ROUNDS], b = new double[ROUNDS];
    for (int i = 0; i < ROUNDS; i++) {
      a[i] = timed(ours);
      b[i] = timed(beside);
    }
    double mine = median(a), other = median(b);
    System.out.printf(
        Locale.ROOT,
        "{\"measure\":\"%s\",\"oursMs\":%.0f,\"besideMs\":%.0f,\"times\":%.2f,\"atMost\":%.2f}%n",
        measure,
        mine,
        other,
        mine / other,
        atMost);
  }

  private double timed(Act act) throws Exception {
    Path into = Files.createTempDirectory(folder, "into");
    long began = System.nanoTime();
    act.run(into);
    double took = (System.nanoTime() - began) / 1e6;
    try (Stream<Path> all = Files.walk(into)) {
      for (Path p : all.sorted(Comparator.reverseOrder()).toList()) Files.delete(p);
    }
    run(List.of("sync", "-f", folder.toString()));
    return took;
  }

  private static double median(double[] values) {
    Arrays.sort(values);
    return values[values.length / 2];
  }

  /** Half noise and half a pattern, as textures are. */
  private Path zip(Path file, int files, int meanBytes) throws IOException {
    try (OutputStream out = Files.newOutputStream(file);
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (int i = 0; i < files; i++) {
        zip.putNextEntry(new ZipEntry("textures/" + i % 40 + "/" + i + ".dds"));
        zip.write(bytes(meanBytes / 2 + random.nextInt(meanBytes)));
        zip.closeEntry();
      }
    }
    return file;
  }

  private byte[] bytes(int size) {
    byte[] bytes = new byte[size];
    random.nextBytes(bytes);
    for (int i = 0; i < size; i++) if (i % 128 < 64) bytes[i] = (byte) (i % 64);
    return bytes;
  }

  private Path sevenZ(Path file, Path contentOf) throws Exception {
    Path content = Files.createDirectories(folder.resolve("content"));
    run(List.of("unzip", "-q", contentOf.toString(), "-d", content.toString()));
    long there = 0;
    try (Stream<Path> all = Files.walk(content)) {
      for (Path p : all.filter(Files::isRegularFile).toList()) there += Files.size(p);
    }
    for (int i = 0; there < 200_000_000L; i++) {
      byte[] more = bytes(4_000_000);
      Files.write(content.resolve("big" + i + ".dds"), more);
      there += more.length;
    }
    Files.deleteIfExists(file);
    Process p =
        new ProcessBuilder("7zz", "a", "-bso0", "-mx3", file.toAbsolutePath().toString(), ".")
            .directory(content.toFile())
            .start();
    if (p.waitFor() != 0) throw new IllegalStateException("7zz a failed");
    return file;
  }
}
