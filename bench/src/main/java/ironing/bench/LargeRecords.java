package ironing.bench;

import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;

/**
 * A made-up game of very many plugins with records of some three hundred bytes: one master of all
 * with a tenth of the records, and others each with records of its own and overrides of the
 * master's, a quarter of what it has.
 *
 * <p>Usage: {@code LargeRecords TARGET PLUGINS RECORDS} writes {@code TARGET/game}.
 */
public final class LargeRecords {
  static final String DEFINITION =
      """
      format: ironing/game@1
      id: archive
      title: The Great Archive
      pathCase: insensitive
      mounts: [ { id: data, at: data, holds: [ "*.plug" ] } ]
      plugins: { match: "*.plug", mount: data, own: [ ] }
      records:
        vessel:
          title: Vessel
          label: name
          fields:
            name:  { kind: text }
            speed: { kind: number, unit: kn, min: 0 }
            berth: { kind: ref }
            crew:  { kind: set, of: { kind: ref } }
            hold:  { kind: rows, key: goods, fields: { goods: { kind: ref }, tonnes: { kind: number } } }
            mesh:  { kind: path }
            note:  { kind: text, holdsIds: true }
      """;

  private static final String NOTE =
      "Laid down in the winter yard, refitted twice, and known along the coast for a whistle half a "
          + "tone too low; her papers are in order";

  private LargeRecords() {}

  public static void main(String[] args) throws IOException {
    Path data = Path.of(args[0]).resolve("game/data");
    Files.createDirectories(data);
    Files.writeString(data.resolveSibling("game.yaml"), DEFINITION);
    int plugins = Integer.parseInt(args[1]), records = Integer.parseInt(args[2]);
    long bytes = write(data, plugins, records);
    System.out.printf("{\"plugins\":%d,\"records\":%d,\"bytes\":%d}%n", plugins, records, bytes);
  }

  /** Gives how many bytes were written. */
  static long write(Path data, int plugins, int records) throws IOException {
    Random random = new Random(7);
    int base = records / 10, each = (records - base) / (plugins - 1);
    long bytes = 0;
    for (int p = 0; p < plugins; p++) {
      Plugin plugin =
          p == 0
              ? plugin(random, name(p), List.of(), base, 0, base)
              : plugin(random, name(p), List.of(name(0)), each - each / 4, each / 4, base);
      byte[] file = PluginCodec.encode(plugin);
      Files.write(data.resolve(name(p)), file);
      bytes += file.length;
    }
    return bytes;
  }

  static String name(int i) {
    return String.format("Volume %04d.plug", i);
  }

  /**
   * @param own how many records of its own; {@code overrides} how many of the first master's, of
   *     which there are {@code base}
   */
  static Plugin plugin(
      Random random, String name, List<String> masters, int own, int overrides, int base) {
    Map<Ref, Plugin.Record> records = new LinkedHashMap<>();
    while (records.size() < overrides) {
      int id = 1 + random.nextInt(base);
      Map<String, Value> fields = fields(new Random(id), masters.get(0), id, base);
      // one field of it is another one, seldom two
      if (random.nextInt(3) > 0) fields.put("speed", new Value.Int(random.nextInt(30)));
      else fields.put("name", new Value.Text("No. " + id + ", rebuilt " + random.nextInt(9)));
      if (random.nextInt(8) == 0)
        fields.put("crew", refs(random, masters.get(0), base, 2 + random.nextInt(3)));
      Ref key = new Ref(masters.get(0), id);
      records.put(key, new Plugin.Record("vessel", key, Optional.of(new Value.Fields(fields))));
    }
    for (int id = 1; id <= own; id++) {
      Ref key = new Ref(name, id);
      Value.Fields fields = new Value.Fields(fields(new Random(id), name, id, own));
      records.put(key, new Plugin.Record("vessel", key, Optional.of(fields)));
    }
    return new Plugin(name, Header.of(5, masters, own + 1), List.copyOf(records.values()));
  }

  private static Map<String, Value> fields(Random random, String owner, int id, int count) {
    Map<String, Value> fields = new LinkedHashMap<>();
    fields.put("name", new Value.Text("No. " + id + " of " + owner));
    fields.put("speed", new Value.Int(random.nextInt(30)));
    fields.put("berth", new Ref(owner, 1 + random.nextInt(count)));
    fields.put("crew", refs(random, owner, count, 3));
    fields.put("hold", hold(random, owner, count));
    fields.put("mesh", new Value.Text("hulls/type-" + random.nextInt(400) + ".obj"));
    fields.put("note", new Value.Text(NOTE));
    return fields;
  }

  private static Value refs(Random random, String owner, int count, int many) {
    List<Value> refs = new ArrayList<>();
    for (int i = 0; i < many; i++) refs.add(new Ref(owner, 1 + random.nextInt(count)));
    return new Value.Array(refs);
  }

  private static Value hold(Random random, String owner, int count) {
    List<Value> rows = new ArrayList<>();
    for (int i = 0; i < 2; i++)
      rows.add(
          new Value.Fields(
              Map.of(
                  "goods", new Ref(owner, 1 + random.nextInt(count)),
                  "tonnes", new Value.Int(random.nextInt(50)))));
    return new Value.Array(rows);
  }
}
