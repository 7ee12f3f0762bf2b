package ironing.core.mends;

import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginFormat;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.RecordIndex;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * What two states of a mend's plugin hold differently, record by record.
 *
 * @param inAll how many there are
 * @param changes the first of them, by owner and id
 */
public record MendDifference(int inAll, List<Change> changes) {
  /**
   * @param before empty where it would come in; {@code after} where it would go
   */
  public record Change(Ref key, Optional<Plugin.Record> before, Optional<Plugin.Record> after) {}

  /**
   * Cost: linear in the bytes; values are read only of what is shown.
   *
   * @param format that both are in
   * @param name the plugin's file name
   * @param most how many changes to give
   */
  public static MendDifference between(
      PluginFormat format, String name, byte[] before, byte[] after, Shapes shapes, int most)
      throws IOException {
    return between(
        format.table(PluginFormat.Source.of(name, before), shapes),
        RecordTable.Bytes.of(before),
        format.table(PluginFormat.Source.of(name, after), shapes),
        RecordTable.Bytes.of(after),
        most);
  }

  /** The same of what has been looked through already. */
  public static MendDifference between(
      RecordTable was,
      RecordTable.Bytes before,
      RecordTable is,
      RecordTable.Bytes after,
      int most) {
    Map<Ref, Integer> rows = rows(was), now = rows(is);
    Set<Ref> all = new TreeSet<>(Comparator.comparing(Ref::owner).thenComparingInt(Ref::id));
    all.addAll(rows.keySet());
    all.addAll(now.keySet());
    List<Change> changes = new ArrayList<>();
    int inAll = 0;
    for (Ref key : all) {
      Integer a = rows.get(key), b = now.get(key);
      if (a != null && b != null && isSame(was, a, is, b)) continue;
      inAll++;
      if (changes.size() < most)
        changes.add(new Change(key, record(was, a, before), record(is, b, after)));
    }
    return new MendDifference(inAll, List.copyOf(changes));
  }

  private static boolean isSame(RecordTable a, int rowOfA, RecordTable b, int rowOfB) {
    return a.print(rowOfA) == b.print(rowOfB) && a.type(rowOfA).equals(b.type(rowOfB));
  }

  private static Map<Ref, Integer> rows(RecordTable t) {
    Map<Ref, Integer> rows = new HashMap<>();
    for (int row = 0; row < t.size(); row++) rows.put(t.key(row), row);
    return rows;
  }

  private static Optional<Plugin.Record> record(
      RecordTable t, Integer row, RecordTable.Bytes bytes) {
    if (row == null) return Optional.empty();
    try {
      return Optional.of(t.record(row, bytes));
    } catch (IOException e) {
      throw RecordIndex.unreadable(t.name(), e);
    }
  }
}
