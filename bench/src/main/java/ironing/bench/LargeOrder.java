package ironing.bench;

import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * A made-up game without slots, and one archive of very many plugins for it, each with up to three
 * masters among those before it.
 *
 * <p>Usage: {@code LargeOrder TARGET PLUGINS} writes {@code TARGET/game} and {@code
 * TARGET/plugins.zip}.
 */
public final class LargeOrder {
  private static final String DEFINITION =
      """
      format: ironing/game@1
      id: archipelago
      title: Archipelago
      mounts: [ { id: data, at: data, holds: [ "*.plug" ] } ]
      plugins:
        match: "*.plug"
        mount: data
        own: [ ]
        list: { file: roster.txt, on: "use {name}", off: "skip {name}" }
      """;

  private LargeOrder() {}

  public static void main(String[] args) throws IOException {
    Path target = Path.of(args[0]);
    int plugins = Integer.parseInt(args[1]);
    Files.createDirectories(target.resolve("game/data"));
    Files.writeString(target.resolve("game/game.yaml"), DEFINITION);
    Random random = new Random(11);
    try (OutputStream out = Files.newOutputStream(target.resolve("plugins.zip"));
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (int i = 0; i < plugins; i++) {
        TreeSet<String> masters = new TreeSet<>();
        for (int m = random.nextInt(4); m > 0 && i > 0; m--) masters.add(name(random.nextInt(i)));
        Plugin p = new Plugin(name(i), Plugin.Header.of(5, List.copyOf(masters), 1), List.of());
        zip.putNextEntry(new ZipEntry(name(i)));
        zip.write(PluginCodec.encode(p));
        zip.closeEntry();
      }
    }
  }

  // names sort as they are to load, so that what has just come stands right
  private static String name(int i) {
    return String.format("Isle %04d.plug", i);
  }
}
