package ironing.core.format;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.path.GamePath;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFiles;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;

/**
 * The laws of {@link PluginFormat}, to be held by every format: a class that extends this says
 * which format, and makes plugins that it can hold.
 */
abstract class FormatKit {
  private static final String SEED = "20261202";

  abstract PluginFormat format();

  /** One that the format can hold, from a random number. */
  abstract Plugin plugin(long seed);

  /** Game path of the file, or of the manifest, of such a plugin. */
  abstract String path(Plugin plugin);

  abstract Shapes shapes();

  /** How the format says where something is wrong, as a pattern. */
  String place() {
    return "at byte [0-9]+";
  }

  private Map<String, byte[]> written(Plugin p) {
    return format().write(p, path(p), List.of());
  }

  /** A plugin’s files in memory. */
  private record Files(String name, String path, Map<String, byte[]> content, List<String> order)
      implements PluginFormat.Source {
    @Override
    public PluginFiles files() {
      String folder = GamePath.folder(path);
      List<PluginFiles.Part> parts = new ArrayList<>();
      List<String> all = new ArrayList<>(order);
      all.remove(path);
      all.add(0, path);
      for (String p : all) {
        String below = folder.isEmpty() ? p : p.substring(folder.length() + 1);
        parts.add(new PluginFiles.Part(below, 1, p, ContentHash.of(content.get(p))));
      }
      return new PluginFiles(path, parts);
    }

    @Override
    public byte[] bytes(PluginFiles.Part part) {
      return content.get(part.spelled());
    }
  }

  private Files files(Plugin p, Map<String, byte[]> bytes, List<String> order) {
    return new Files(p.name(), path(p), bytes, order);
  }

  private Files files(Plugin p) {
    Map<String, byte[]> bytes = written(p);
    return files(p, bytes, bytes.keySet().stream().sorted().toList());
  }

  private static Map<Ref, Optional<Value.Fields>> contents(Plugin p) {
    Map<Ref, Optional<Value.Fields>> all = new HashMap<>();
    p.records().forEach(r -> all.put(r.key(), r.fields()));
    return all;
  }

  @Property(tries = 200, seed = SEED)
  void whatIsWrittenIsReadBackAsItWas(@ForAll long seed) throws IOException {
    Plugin p = plugin(seed);
    Plugin back = format().read(files(p));
    assertThat(back.name()).isEqualTo(p.name());
    assertThat(back.header().masters()).isEqualTo(p.header().masters());
    assertThat(contents(back)).isEqualTo(contents(p));
    for (Plugin.Record r : back.records())
      assertThat(p.records()).anyMatch(w -> w.key().equals(r.key()) && w.type().equals(r.type()));
  }

  @Property(tries = 50, seed = SEED)
  void theSamePluginGivesTheSameBytes(@ForAll long seed) {
    Plugin p = plugin(seed);
    Map<String, byte[]> one = written(p), other = written(plugin(seed));
    assertThat(other.keySet()).isEqualTo(one.keySet());
    one.forEach((path, bytes) -> assertThat(other.get(path)).as(path).isEqualTo(bytes));
  }

  @Property(tries = 100, seed = SEED)
  void theOrderInWhichFilesAreGivenDoesNotMatter(@ForAll long seed) throws IOException {
    Plugin p = plugin(seed);
    Map<String, byte[]> bytes = written(p);
    List<String> order = new ArrayList<>(bytes.keySet().stream().sorted().toList());
    RecordTable sorted = format().table(files(p, bytes, List.copyOf(order)), shapes());
    Collections.shuffle(order, new Random(seed));
    RecordTable shuffled = format().table(files(p, bytes, order), shapes());
    assertThat(prints(shuffled)).isEqualTo(prints(sorted));
  }

  private static Map<String, Long> prints(RecordTable t) {
    Map<String, Long> all = new LinkedHashMap<>();
    for (int row = 0; row < t.size(); row++) all.put(t.key(row).toString(), t.print(row));
    return new HashMap<>(all);
  }

  /** Comparing, and looking a record up, is the same for every format. */
  @Property(tries = 100, seed = SEED)
  void theTableSaysWhatReadingSays(@ForAll long seed) throws IOException {
    Plugin p = plugin(seed);
    Files source = files(p);
    RecordTable t = format().table(source, shapes());
    RecordTable.Bytes file = RecordTable.Bytes.of(source.bytes().clone());
    Map<Ref, Optional<Value.Fields>> read = contents(format().read(source));
    assertThat(t.size()).isEqualTo(read.size());
    for (int row = 0; row < t.size(); row++) {
      assertThat(t.record(row, file).fields()).isEqualTo(read.get(t.key(row)));
      assertThat(t.removed(row)).isEqualTo(read.get(t.key(row)).isEmpty());
      if (!t.isNamed()) assertThat(t.rowOf(t.owner(row), t.id(row))).isEqualTo(row);
    }
    if (!t.isNamed()) assertThat(prints(t)).isEqualTo(prints(RecordTable.of(p, shapes())));
  }

  /** Cut off, with other bytes in it, or longer: read, or told with the place, and at an end. */
  @Property(tries = 400, seed = SEED)
  void whatIsBrokenIsToldWithItsPlace(@ForAll long seed) throws IOException {
    Random random = new Random(seed);
    Plugin p = plugin(seed);
    Map<String, byte[]> bytes = new HashMap<>(written(p));
    List<String> paths = bytes.keySet().stream().sorted().toList();
    String path = paths.get(random.nextInt(paths.size()));
    bytes.put(path, broken(bytes.get(path), random));
    Files source = files(p, bytes, paths);
    try {
      RecordTable t = format().table(source, shapes());
      RecordTable.Bytes file = RecordTable.Bytes.of(source.bytes().clone());
      for (int row = 0; row < t.size(); row++) t.record(row, file);
      format().read(source);
    } catch (IroningException told) {
      assertThat(told.problems().get(0).reason()).containsPattern(place());
      assertThat(told.problems().get(0).remedy()).isNotBlank();
    }
  }

  private static byte[] broken(byte[] sound, Random random) {
    byte[] bytes = sound.clone();
    switch (random.nextInt(4)) {
      case 0:
        return Arrays.copyOf(bytes, random.nextInt(bytes.length));
      case 1:
        return Arrays.copyOf(bytes, bytes.length + 1 + random.nextInt(9));
      case 2:
        for (int i = 1 + random.nextInt(4); i > 0; i--)
          bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
        return bytes;
      default:
        int from = random.nextInt(bytes.length);
        int to = from + random.nextInt(bytes.length - from);
        Arrays.fill(bytes, from, to, (byte) (random.nextBoolean() ? 0xff : random.nextInt(256)));
        return bytes;
    }
  }
}
