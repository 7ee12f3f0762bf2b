package ironing.core.records;

import ironing.core.plugin.RecordTable;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Whose each record is where records are known by names: the first plugin in the order that has one
 * owns it. Immutable. Cost: linear in the records.
 */
final class NamedOwners {
  private final int[][] records;
  private final int[][] own;
  private final Map<String, Integer> numbers;

  private NamedOwners(int[][] records, int[][] own, Map<String, Integer> numbers) {
    this.records = records;
    this.own = own;
    this.numbers = numbers;
  }

  /**
   * @param inOrder all of them with names
   */
  static NamedOwners of(List<RecordIndex.Source> inOrder) {
    int[][] records = new int[inOrder.size()][], own = new int[inOrder.size()][];
    int all = inOrder.stream().mapToInt(s -> s.table().size()).sum();
    Map<String, Integer> numbers = new HashMap<>(all * 2);
    for (int p = 0; p < records.length; p++) {
      RecordTable t = inOrder.get(p).table();
      records[p] = new int[t.size()];
      own[p] = new int[t.size()];
      int count = 0;
      for (int row = 0; row < t.size(); row++) {
        int next = numbers.size();
        Integer known = numbers.putIfAbsent(t.keyText(row), next);
        records[p][row] = known == null ? next : known;
        if (known == null) own[p][count++] = row;
      }
      own[p] = Arrays.copyOf(own[p], count);
    }
    return new NamedOwners(records, own, numbers);
  }

  /** By row of a plugin the number of the record that it is a version of. */
  int[] records(int position) {
    return records[position];
  }

  /** The rows of a plugin that nobody before it has, in the order of their numbers. */
  int[] own(int position) {
    return own[position];
  }

  /** The number of a record, or -1. */
  int find(String key) {
    return numbers.getOrDefault(key, -1);
  }
}
