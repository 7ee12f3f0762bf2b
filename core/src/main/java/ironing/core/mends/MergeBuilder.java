package ironing.core.mends;

import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.path.PathCase;
import ironing.core.plugin.OwnFormat;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginCodec;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.RecordCopy;
import ironing.core.plugin.RecordCopy.Keys;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.records.RecordIndex;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.IntStream;

/**
 * Makes the plugins of a merge: the merged one, and those that name a merged one as master anew.
 *
 * <p>Cost: linear in the bytes; all processors share it. No value is made of what is merged, but
 * for records that are combined.
 */
public final class MergeBuilder {
  private static final int STRETCH = 4_096;

  private MergeBuilder() {}

  /**
   * The bytes of the merged plugin; the same plan gives the same.
   *
   * @param files the bytes of a source, by its name
   */
  public static byte[] merged(
      MergePlan plan, String title, Function<String, RecordTable.Bytes> files) {
    if (!plan.refused().isEmpty())
      throw new IllegalArgumentException("a refused merge is not made: " + plan.refused());
    Header header = header(plan, title);
    Map<Integer, RecordTable.Bytes> bytes = new LinkedHashMap<>();
    for (int p : plan.positions()) bytes.put(p, files.apply(plan.index().name(p)));
    int stretches = (plan.rows().size() + STRETCH - 1) / STRETCH;
    List<byte[]> parts =
        IntStream.range(0, stretches)
            .parallel()
            .mapToObj(i -> stretch(plan, header, bytes, i * STRETCH))
            .toList();
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.writeBytes(PluginCodec.encode(new Plugin(plan.target(), header, List.of())));
    parts.forEach(out::writeBytes);
    return out.toByteArray();
  }

  /**
   * A plugin that was made here, as it is written in the format of its game.
   *
   * @param made in our own format
   * @param path game path of its file
   */
  public static byte[] written(PluginFormat format, String name, String path, byte[] made) {
    if (format.equals(OwnFormat.ONE)) return made;
    Plugin plugin = PluginCodec.decode(name, made).plugin();
    return format.write(plugin, path, List.of()).get(path);
  }

  private static Header header(MergePlan plan, String title) {
    String about = "Made by Ironing from " + String.join(", ", plan.sources()) + ".";
    return new Header(
        plan.stage(),
        plan.masters(),
        plan.numbers().nextId(),
        Optional.of(title),
        authors(plan),
        Optional.empty(),
        Optional.of(about),
        Optional.empty(),
        plan.packs(),
        Map.of());
  }

  // whose work went into it
  private static Optional<String> authors(MergePlan plan) {
    List<String> authors = new ArrayList<>();
    for (int p : plan.positions())
      plan.index()
          .table(p)
          .header()
          .author()
          .filter(a -> !authors.contains(a))
          .ifPresent(authors::add);
    return authors.isEmpty() ? Optional.empty() : Optional.of(String.join(", ", authors));
  }

  private static byte[] stretch(
      MergePlan plan, Header header, Map<Integer, RecordTable.Bytes> bytes, int from) {
    Plugin nameAndHeader = new Plugin(plan.target(), header, List.of());
    RecordCopy copy = new RecordCopy(Shapes.of(plan.game()));
    int to = Math.min(plan.rows().size(), from + STRETCH);
    Map<Integer, Keys> keys = new HashMap<>();
    for (MergePlan.Row row : plan.rows().subList(from, to)) {
      if (row.made() != null) {
        Plugin.Record made = plan.numbers().of(row.made(), typeOf(plan.game(), row.made().type()));
        copy.add(PluginCodec.encodeRecords(nameAndHeader, List.of(made)));
        continue;
      }
      RecordTable t = plan.index().table(row.position());
      Keys k = keys.computeIfAbsent(row.position(), p -> plan.keys(t));
      try {
        copy.copy(t, row.row(), bytes.get(row.position()), row.order(), k, plan.numbers()::text);
      } catch (IOException e) {
        throw RecordIndex.unreadable(t.name(), e);
      }
    }
    return copy.bytes();
  }

  private static RecordType typeOf(GameDefinition game, String type) {
    return game.records().getOrDefault(type, RecordType.undescribed(type));
  }

  private static Plugin.Record read(RecordTable t, int row, RecordTable.Bytes bytes) {
    try {
      return t.record(row, bytes);
    } catch (IOException e) {
      throw RecordIndex.unreadable(t.name(), e);
    }
  }

  /**
   * A plugin that named merged ones as masters, as it names the merge instead.
   *
   * @param file its bytes
   */
  public static byte[] rewritten(MergePlan plan, String dependent, RecordTable.Bytes file) {
    RecordTable t = plan.index().table(plan.index().position(dependent));
    Header h = t.header();
    List<String> masters = new ArrayList<>();
    for (String m : h.masters()) {
      String now = plan.numbers().isMerged(m) ? plan.target() : m;
      if (masters.stream().noneMatch(x -> PathCase.fold(x).equals(PathCase.fold(now))))
        masters.add(now);
    }
    Header header =
        new Header(
            h.stage(),
            masters,
            h.nextId(),
            h.title(),
            h.author(),
            h.version(),
            h.about(),
            h.game(),
            h.packs(),
            h.other());
    List<Plugin.Record> records = new ArrayList<>();
    for (int row = 0; row < t.size(); row++) {
      Plugin.Record r = read(t, row, file);
      records.add(plan.numbers().of(r, typeOf(plan.game(), r.type())));
    }
    return PluginCodec.encode(new Plugin(t.name(), header, records));
  }
}
