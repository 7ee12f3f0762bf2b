package ironing.bench;

import ironing.core.archive.ContentHash;
import ironing.core.documents.DocumentReader;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.records.Collision;
import ironing.core.records.RecordIndex;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;

/**
 * 400,000 records of plugins that are open text, in 20,000 JSON files of together about 100 MB, and
 * 50,000 rows of a table: how long until they are indexed, in a fresh machine; after one change;
 * and until a collision is open.
 *
 * <p>Usage: {@code Documents FOLDER}; the files are made there, and left. Prints one JSON object.
 */
public final class Documents {
  private static final int PLUGINS = 2_000, FILES = 10, RECORDS = 20, ROWS = 50_000;
  private static final GameDefinition GAME =
      GameDefinitionReader.read(
              "game.yaml",
              """
              format: ironing/game@1
              id: many
              title: Many
              mounts: [ { id: all, at: ".", holds: [ "**" ] } ]
              plugins:
                match: "mods/*/mod.json"
                is: folder
                header: { as: json, name: "$.id", masters: "$.needs[*]" }
                own: [ m0 ]
                records:
                  - { files: "things/*.json", as: json, each: "$.things[*]", id: "$.id", type: thing, into: "things/{plugin}.json" }
                  - { files: "rows.csv", as: table, id: [ key ], type: row, into: "rows.csv" }
              records:
                thing: { label: name, fields: { tags: { kind: set }, weight: { kind: number } } }
                row: { fields: { price: { kind: number } } }
              """)
          .value();
  private static final Shapes SHAPES = Shapes.of(GAME);

  private Documents() {}

  public static void main(String[] args) throws IOException {
    Path folder = Path.of(args[0]);
    long bytes = make(folder);
    List<PluginFiles> plugins = IntStream.range(0, PLUGINS).mapToObj(Documents::files).toList();
    // once through the page cache, as the figure asks
    for (PluginFiles p : plugins)
      for (PluginFiles.Part part : p.parts()) Files.readAllBytes(folder.resolve(part.spelled()));

    long began = System.nanoTime();
    List<RecordTable> tables = read(folder, plugins);
    RecordIndex index = index(tables);
    double first = seconds(began);
    List<Double> changed = new ArrayList<>(),
        opened = new ArrayList<>(),
        ofRows = new ArrayList<>();
    for (int again = 0; again < 5; again++) {
      Path file = folder.resolve(plugins.get(7).parts().get(3).spelled());
      Files.writeString(file, things(new Random(again), 7, 2));
      began = System.nanoTime();
      List<RecordTable> next = new ArrayList<>(tables);
      next.set(7, read(folder, List.of(plugins.get(7))).get(0));
      RecordIndex now = index(next);
      changed.add(seconds(began));
      int some = now.overridden()[now.overridden().length / 2];
      began = System.nanoTime();
      Collision.of(GAME, now, some, Map.of());
      opened.add(seconds(began));
    }

    StringBuilder table = new StringBuilder("key,price,note\n");
    for (int i = 0; i < ROWS; i++)
      table
          .append('k')
          .append(i)
          .append(',')
          .append(i % 97)
          .append(",\"row ")
          .append(i)
          .append("\"\n");
    Path csv = Files.createDirectories(folder.resolve("mods/table")).resolve("rows.csv");
    Files.writeString(csv, table);
    Files.writeString(folder.resolve("mods/table/mod.json"), "{\"id\":\"table\",\"needs\":[]}");
    PluginFiles ofTable =
        new PluginFiles(
            "mods/table/mod.json",
            List.of(
                new PluginFiles.Part("mod.json", 1, "mods/table/mod.json", ""),
                new PluginFiles.Part("rows.csv", 1, "mods/table/rows.csv", "")));
    for (int again = 0; again < 5; again++) {
      began = System.nanoTime();
      read(folder, List.of(ofTable));
      ofRows.add(seconds(began));
    }
    System.out.printf(
        Locale.ROOT,
        "{\"records\":%d,\"mb\":%.0f,\"mbPerSecond\":%.1f,\"changedMs\":%.0f,\"openedMs\":%.1f,\"tableMs\":%.0f}%n",
        index.size(),
        bytes / 1e6,
        bytes / 1e6 / first,
        median(changed) * 1_000,
        median(opened) * 1_000,
        median(ofRows) * 1_000);
  }

  private static double median(List<Double> of) {
    return of.stream().sorted().skip(of.size() / 2).findFirst().orElseThrow();
  }

  private static double seconds(long since) {
    return (System.nanoTime() - since) / 1e9;
  }

  private static List<RecordTable> read(Path folder, List<PluginFiles> plugins) {
    DocumentReader reader = new DocumentReader(GAME, SHAPES);
    return plugins.stream()
        .parallel()
        .map(
            p -> {
              try {
                return reader.read(p, part -> Files.readAllBytes(folder.resolve(part.spelled())));
              } catch (IOException e) {
                throw new UncheckedIOException(e);
              }
            })
        .toList();
  }

  private static RecordIndex index(List<RecordTable> tables) {
    return RecordIndex.of(
        tables.stream()
            .map(t -> new RecordIndex.Source(t, (offset, length) -> new byte[0], false))
            .toList());
  }

  private static PluginFiles files(int plugin) {
    String at = "mods/m" + plugin + "/";
    List<PluginFiles.Part> parts = new ArrayList<>();
    parts.add(new PluginFiles.Part("mod.json", 1, at + "mod.json", "0"));
    for (int f = 0; f < FILES; f++) {
      String below = "things/" + f + ".json";
      parts.add(new PluginFiles.Part(below, 1, at + below, ContentHash.of(below)));
    }
    return new PluginFiles(at + "mod.json", parts);
  }

  private static long make(Path folder) throws IOException {
    long bytes = 0;
    Random random = new Random(1);
    for (int p = 0; p < PLUGINS; p++) {
      Path at = Files.createDirectories(folder.resolve("mods/m" + p + "/things"));
      Files.writeString(
          at.resolveSibling("mod.json"), "{\"id\":\"m" + p + "\",\"needs\":[\"m0\"]}");
      for (int f = 0; f < FILES; f++) {
        String text = things(random, p, f);
        bytes += text.getBytes(StandardCharsets.UTF_8).length;
        Files.writeString(at.resolve(f + ".json"), text);
      }
    }
    return bytes;
  }

  private static String things(Random random, int plugin, int file) {
    StringBuilder out = new StringBuilder("{\n  \"things\": [\n");
    for (int r = 0; r < RECORDS; r++) {
      // one in ten is somebody else's
      int id =
          r % 10 == 0 && plugin > 0
              ? random.nextInt(plugin * FILES * RECORDS)
              : (plugin * FILES + file) * RECORDS + r;
      out.append(r == 0 ? "" : ",\n")
          .append("    { \"id\": \"thing-")
          .append(id)
          .append("\", \"name\": \"Thing number ")
          .append(id)
          .append("\", \"weight\": ")
          .append(random.nextInt(1000))
          .append('.')
          .append(random.nextInt(10) * 10 + 5)
          .append(", \"on\": true, \"tags\": [\"one\", \"two\", \"t")
          .append(random.nextInt(9))
          .append("\"], \"place\": { \"x\": ")
          .append(random.nextInt(500))
          .append(", \"y\": ")
          .append(random.nextInt(500))
          .append(" }, \"note\": \"A line of text that says a little of it, as such files do.\" }");
    }
    return out.append("\n  ]\n}\n").toString();
  }
}
