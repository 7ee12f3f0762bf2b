package ironing.standins.game;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * A generating tool: reads every plugin that is on, in order, and writes one more, with a light for
 * each harbour that no beacon stands for. {@code java -cp game.jar
 * ironing.standins.game.HarbourLights FOLDER}. Ends with 0, with 2 when the folder is no game, with
 * 3 when a plugin cannot be read; then nothing is written.
 *
 * <p>It has to be run again whenever the plugins, or their order, have changed: it knows of nothing
 * else than what lay in the folder when it ran.
 */
public final class HarbourLights {
  private static final String OUTPUT = "Harbour Lights.plug";
  private static final int LATE = 9;
  private static final int ONE_MILE_FOR_EACH_METRE = 1;

  private HarbourLights() {}

  public static void main(String[] args) throws IOException {
    PrintStream screen = new PrintStream(System.out, true, StandardCharsets.UTF_8);
    if (args.length != 1 || !Files.isRegularFile(Path.of(args[0], "skerry.json"))) {
      System.err.println("usage: HarbourLights FOLDER, where FOLDER holds skerry.json");
      System.exit(2);
    }
    System.exit(generate(Path.of(args[0]), screen));
  }

  /** Generates the plugin; what it does goes to the screen. */
  public static int generate(Path game, PrintStream screen) throws IOException {
    Path data = game.resolve("data");
    Map<String, PluginFile.Item> harbours = new TreeMap<>();
    Map<String, PluginFile.Item> beacons = new TreeMap<>();
    int number = 0;
    try {
      for (PluginFile p : plugins(game)) {
        screen.println(++number + "  " + p.name + ": " + p.records.size() + " records");
        for (PluginFile.Item r : p.records) {
          if (r.type().equals("harbour")) harbours.put(r.key().key(), r);
          if (r.type().equals("beacon")) beacons.put(r.key().key(), r);
        }
      }
    } catch (GameFault f) {
      screen.println("stopped: " + f.getMessage());
      return 3;
    }
    Set<Object> lit = new LinkedHashSet<>();
    for (PluginFile.Item b : beacons.values())
      if (b.fields() != null && b.fields().get("harbour") instanceof PluginFile.Ref r)
        lit.add(r.key());
    List<PluginFile.Item> dark = new ArrayList<>();
    for (PluginFile.Item h : harbours.values())
      if (h.fields() != null && !lit.contains(h.key().key())) dark.add(h);
    Files.write(data.resolve(OUTPUT), plugin(dark));
    screen.println(
        "wrote " + OUTPUT + ": lights for " + dark.size() + " of " + harbours.size() + " harbours");
    return 0;
  }

  private static List<PluginFile> plugins(Path game) throws IOException {
    List<PluginFile> all = new ArrayList<>();
    for (String name : World.order(game)) {
      // what it wrote the last time tells nothing about the harbours
      if (name.equalsIgnoreCase(OUTPUT)) continue;
      Path file = game.resolve("data").resolve(name);
      if (!Files.isRegularFile(file))
        throw new GameFault(
            "plugin-missing",
            "The list names " + name + ", which is not in data.",
            null,
            name,
            null);
      all.add(new PluginFile(name, Files.readAllBytes(file)));
    }
    List<PluginFile> later = all.subList(World.OWN.size(), all.size());
    later.sort(Comparator.comparingLong(PluginFile::stage));
    return all;
  }

  private static byte[] plugin(List<PluginFile.Item> dark) {
    Set<String> owners = new LinkedHashSet<>(World.OWN);
    dark.forEach(h -> owners.add(h.key().owner()));
    List<String> masters = List.copyOf(owners);
    Encoder out = new Encoder();
    out.head(6, 55_799);
    Map<String, Object> header = new LinkedHashMap<>();
    header.put("stage", (long) LATE);
    header.put("title", "Lights for harbours that have none");
    header.put("format", "ironing/plugin@1");
    header.put("nextId", dark.size() + 1L);
    header.put("masters", masters);
    out.value(header);
    long id = 0;
    for (PluginFile.Item h : dark) {
      Map<String, Object> fields = new LinkedHashMap<>();
      fields.put("horn", false);
      fields.put("name", h.fields().getOrDefault("name", h.key().key()) + " light");
      fields.put("range", range(h));
      fields.put("harbour", new Encoder.Ref(masters.indexOf(h.key().owner()), h.key().id()));
      out.value(List.of("beacon", (long) masters.size(), ++id, fields));
    }
    return out.bytes();
  }

  private static long range(PluginFile.Item harbour) {
    Object depth = harbour.fields().get("depth");
    double metres = depth instanceof Number n ? n.doubleValue() : 1;
    return Math.max(1, Math.round(metres * ONE_MILE_FOR_EACH_METRE));
  }

  /** Deterministic CBOR (RFC 8949, section 4.2.1), as far as it is needed here. */
  private static final class Encoder {
    record Ref(int owner, long id) {}

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    byte[] bytes() {
      return out.toByteArray();
    }

    void head(int major, long n) {
      int width = n < 24 ? 0 : n < 0x100 ? 1 : n < 0x1_0000 ? 2 : n < 0x1_0000_0000L ? 4 : 8;
      int info = width == 0 ? (int) n : 24 + Integer.numberOfTrailingZeros(width);
      out.write(major << 5 | info);
      for (int i = width - 1; i >= 0; i--) out.write((int) (n >> 8 * i));
    }

    void value(Object v) {
      if (v instanceof Boolean b) {
        out.write(b ? 0xf5 : 0xf4);
      } else if (v instanceof Long n) {
        head(0, n);
      } else if (v instanceof String s) {
        byte[] text = s.getBytes(StandardCharsets.UTF_8);
        head(3, text.length);
        out.writeBytes(text);
      } else if (v instanceof List<?> list) {
        head(4, list.size());
        list.forEach(this::value);
      } else if (v instanceof Ref r) {
        head(6, 39);
        value(List.of((long) r.owner(), r.id()));
      } else if (v instanceof Map<?, ?> map) {
        head(5, map.size());
        // shorter keys first, then by their letters: the order of their encoded bytes
        map.entrySet().stream()
            .sorted(
                Comparator.comparingInt((Map.Entry<?, ?> e) -> e.getKey().toString().length())
                    .thenComparing(e -> e.getKey().toString()))
            .forEach(
                e -> {
                  value(e.getKey());
                  value(e.getValue());
                });
      } else {
        throw new IllegalArgumentException(String.valueOf(v));
      }
    }
  }
}
