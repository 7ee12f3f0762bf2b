package ironing.core.records;

import ironing.core.plugin.RecordTable;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongPredicate;
import java.util.stream.IntStream;

/**
 * What is wrong with single records, whoever else changes them.
 *
 * <p>Threads: stateless. Cost: linear in the references, paths and overrides; no value is read.
 */
public final class RecordFindings {
  private RecordFindings() {}

  public enum Kind {
    /** The version in use refers to a record that is not there. */
    LEADS_NOWHERE,
    /** The version in use names a path at which no file is in play. */
    PATH_NOT_IN_PLAY,
    /** A number lies outside of what the game's definition admits. */
    OUT_OF_RANGE,
    /** An override says what its plugin could see already: without it nothing changes. */
    ADDS_NOTHING
  }

  /**
   * @param record its number in the index
   * @param position the place of the plugin whose version it is
   */
  public record Finding(Kind kind, int record, int position, int row) {}

  /**
   * @param inPlay whether a file is in play at a path with this print
   * @return plugin by plugin, in load order
   */
  public static List<Finding> of(RecordIndex index, LongPredicate inPlay) {
    return IntStream.range(0, index.pluginCount())
        .parallel()
        .boxed()
        .flatMap(p -> of(index, p, inPlay).stream())
        .toList();
  }

  private static List<Finding> of(RecordIndex index, int position, LongPredicate inPlay) {
    List<Finding> found = new ArrayList<>();
    RecordTable t = index.table(position);
    int[] owners = new int[t.ownerCount()];
    for (int o = 0; o < owners.length; o++) owners[o] = index.position(t.ownerName(o));
    for (int row = 0; row < t.size(); row++) {
      int record = index.recordAt(position, row);
      if (record < 0) continue;
      if (index.isOverride(position, row) && addsNothing(index, record, position, row))
        found.add(new Finding(Kind.ADDS_NOTHING, record, position, row));
      if (index.usedPosition(record) != position) continue;
      if (leadsNowhere(index, t, row, owners))
        found.add(new Finding(Kind.LEADS_NOWHERE, record, position, row));
      for (int path = t.pathFrom(row); path < t.pathFrom(row + 1); path++) {
        if (inPlay.test(t.pathPrint(path))) continue;
        found.add(new Finding(Kind.PATH_NOT_IN_PLAY, record, position, row));
        break;
      }
      if (t.outOfRange(row)) found.add(new Finding(Kind.OUT_OF_RANGE, record, position, row));
    }
    return found;
  }

  private static boolean leadsNowhere(RecordIndex index, RecordTable t, int row, int[] owners) {
    for (int ref = t.refFrom(row); ref < t.refFrom(row + 1); ref++) {
      int owner = owners[t.refOwner(ref)];
      if (owner < 0 || index.find(owner, t.refId(ref)) < 0) return true;
    }
    return false;
  }

  private static boolean addsNothing(RecordIndex index, int record, int position, int row) {
    if (index.source(position).mend() || index.isOdd(record)) return false;
    int seen = index.sees(position, index.positionOf(record, 0)) ? 0 : -1;
    for (int v = 1; v < index.versionCount(record); v++) {
      int other = index.positionOf(record, v);
      if (other < position && index.sees(position, other)) seen = v;
    }
    if (seen < 0) return false;
    RecordTable there = index.table(index.positionOf(record, seen));
    return there.print(index.rowOf(record, seen)) == index.table(position).print(row);
  }
}
