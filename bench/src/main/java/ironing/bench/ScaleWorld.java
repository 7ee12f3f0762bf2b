package ironing.bench;

import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginText;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * A made-up game and any number of mods for it, the same at every making.
 *
 * <p>The mods' sizes are uneven, as they are in life: a few large ones, a long tail of small ones.
 * One file in five stands at a path that others bring too, one in ten of those with the same
 * content; every second mod has a plugin, which changes records of the game and of an earlier
 * plugin.
 *
 * <p>Usage: {@code ScaleWorld TARGET MODS FILES} writes {@code TARGET/game} and {@code
 * TARGET/archives}, whose names sort as they are to be brought in.
 */
public final class ScaleWorld {
  private static final int GAME_FILES = 2_000;
  private static final int GAME_RECORDS = 500;
  private static final int SHARED_PATHS = 3_000;
  private static final double SHARED = 0.2;
  private static final double TWIN = 0.1;
  private static final String GAME_PLUGIN = "Tidewater.plug";

  private static final String DEFINITION =
      """
      format: ironing/game@1
      id: tidewater
      title: Tidewater
      detect: [ "tidewater.txt" ]
      version: { file: tidewater.txt, line: 1 }
      pathCase: insensitive
      mounts:
        - { id: data, at: data, holds: [ "textures/", "*.plug" ] }
      plugins:
        match: "*.plug"
        mount: data
        own: [ "Tidewater.plug" ]
        slots: { total: 2000, reserved: 1 }
        list: { file: roster.txt, on: "use {name}" }
      records:
        buoy:
          title: Buoy
          label: name
          fields:
            name: { kind: text }
            depth: { kind: number, unit: m }
            lamps: { kind: number }
            chain: { kind: number, unit: m }
      """;

  private final Random random = new Random(2026);

  private ScaleWorld() {}

  public static void main(String[] args) throws IOException {
    write(Path.of(args[0]), Integer.parseInt(args[1]), Integer.parseInt(args[2]));
  }

  /** Writes the world; a folder that has one already is left as it is. */
  public static void write(Path target, int mods, int files) throws IOException {
    if (Files.exists(target.resolve("complete"))) return;
    new ScaleWorld().make(target, mods, files);
    Files.createFile(target.resolve("complete"));
  }

  private void make(Path target, int mods, int files) throws IOException {
    game(target.resolve("game"));
    Path archives = Files.createDirectories(target.resolve("archives"));
    int[] sizes = sizes(mods, files);
    for (int m = 0; m < mods; m++) {
      String name = "Tide Works %04d".formatted(m + 1);
      Files.write(archives.resolve(name + " 1.0.zip"), zip(mod(m, sizes[m])));
    }
  }

  private void game(Path game) throws IOException {
    Path data = game.resolve("data");
    for (int f = 0; f < GAME_FILES; f++) {
      Path file = data.resolve(sharedPath(f));
      Files.createDirectories(file.getParent());
      Files.write(file, bytes());
    }
    StringBuilder text = new StringBuilder(header(List.of()));
    for (int id = 1; id <= GAME_RECORDS; id++) text.append(record(GAME_PLUGIN, id));
    Files.write(data.resolve(GAME_PLUGIN), plugin(GAME_PLUGIN, text.toString()));
    Files.writeString(game.resolve("game.yaml"), DEFINITION);
    Files.writeString(game.resolve("tidewater.txt"), "1.0\n");
  }

  /**
   * How many files each mod has: as rank to the power of -0.6, in no order, {@code files} in all.
   */
  int[] sizes(int mods, int files) {
    double[] weight = new double[mods];
    double sum = 0;
    for (int m = 0; m < mods; m++) {
      weight[m] = Math.pow(m + 1, -0.6);
      sum += weight[m];
    }
    List<Integer> sizes = new ArrayList<>();
    int left = files;
    for (int m = 0; m < mods; m++) {
      int size = Math.max(1, (int) (files * weight[m] / sum));
      sizes.add(size);
      left -= size;
    }
    sizes.set(0, sizes.get(0) + left);
    Collections.shuffle(sizes, random);
    return sizes.stream().mapToInt(Integer::intValue).toArray();
  }

  private Map<String, byte[]> mod(int m, int size) {
    Map<String, byte[]> files = new LinkedHashMap<>();
    boolean hasPlugin = m % 2 == 0;
    if (hasPlugin) files.put(pluginName(m), modPlugin(m));
    while (files.size() < size) {
      if (random.nextDouble() < SHARED) {
        int shared = random.nextInt(SHARED_PATHS);
        boolean twin = random.nextDouble() < TWIN;
        files.put(
            sharedPath(shared),
            twin ? sharedPath(shared).getBytes(StandardCharsets.UTF_8) : bytes());
      } else {
        files.put(
            "textures/works-%04d/part-%02d/%05d.tex".formatted(m, files.size() / 200, files.size()),
            bytes());
      }
    }
    return files;
  }

  private byte[] modPlugin(int m) {
    String name = pluginName(m);
    List<String> masters = new ArrayList<>(List.of(GAME_PLUGIN));
    if (m >= 2) masters.add(pluginName(2 * random.nextInt(m / 2)));
    StringBuilder text = new StringBuilder(header(masters));
    for (int id = 1; id <= 20; id++) text.append(record(name, id));
    random
        .ints(1, GAME_RECORDS + 1)
        .distinct()
        .limit(10)
        .sorted()
        .forEach(id -> text.append(record(GAME_PLUGIN, id)));
    for (String master : masters.subList(1, masters.size())) {
      for (int id = 1; id <= 5; id++) text.append(record(master, id));
    }
    return plugin(name, text.toString());
  }

  private static String pluginName(int m) {
    return "Works%04d.plug".formatted(m);
  }

  private static String header(List<String> masters) {
    String names = String.join(",", masters.stream().map(n -> '"' + n + '"').toList());
    return "{\"format\":\"ironing/plugin@1\",\"stage\":5,\"masters\":[%s],\"nextId\":1000}\n"
        .formatted(names);
  }

  private String record(String owner, int id) {
    return "{\"type\":\"buoy\",\"id\":\"%s/%d\",\"fields\":{\"name\":\"Buoy %d\",\"depth\":%d,\"lamps\":%d,\"chain\":%d}}\n"
        .formatted(owner, id, id, random.nextInt(4), random.nextInt(3), random.nextInt(4));
  }

  private static byte[] plugin(String name, String text) {
    return PluginCodec.encode(PluginText.parse(name, text));
  }

  private static String sharedPath(int n) {
    return "textures/common/%02d/%04d.tex".formatted(n % 50, n);
  }

  private byte[] bytes() {
    byte[] bytes = new byte[200 + random.nextInt(1_300)];
    random.nextBytes(bytes);
    return bytes;
  }

  private static byte[] zip(Map<String, byte[]> files) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes, StandardCharsets.UTF_8)) {
      zip.setLevel(Deflater.BEST_SPEED);
      for (Map.Entry<String, byte[]> f : files.entrySet()) {
        ZipEntry entry = new ZipEntry("data/" + f.getKey());
        entry.setTime(0);
        zip.putNextEntry(entry);
        zip.write(f.getValue());
      }
    }
    return bytes.toByteArray();
  }
}
