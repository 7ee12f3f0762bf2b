package ironing.core.records;

import ironing.core.IroningException;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.RecordTable.Bytes;
import ironing.core.plugin.Shapes;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * All versions of all records of the plugins that are on, in load order. A record has a number: its
 * owner's place in the order, then its id, decide. Records that their owner lacks come behind
 * those.
 *
 * <p>Invariant: numbers run from 0 without a gap. The first version of a record is its owner's,
 * where the owner has it; the last is the one that the game uses, whole. A record is <i>odd</i>
 * where its owner lacks it, or a version is of another type: it is never combined.
 *
 * <p>Threads: immutable. Cost: linear in the records; some 24 bytes for each override beside the
 * tables. Values are read from the plugins' files when they are asked for.
 */
public final class RecordIndex {
  /**
   * A plugin that is on.
   *
   * @param mend whether it was generated from others: it takes no side
   */
  public record Source(RecordTable table, Bytes file, boolean mend) {
    /** One that is in memory. */
    public static Source of(Plugin plugin, Shapes shapes, boolean mend) {
      return new Source(
          RecordTable.of(plugin, shapes),
          (offset, length) -> {
            throw new IOException("its values are in memory");
          },
          mend);
    }
  }

  /** A version that makes no sense; its record is never combined. */
  public record Odd(Ref key, String plugin, String reason) {}

  private final Source[] sources;
  private final Map<String, Integer> positions = new HashMap<>();
  private final int[] firstOf;
  private final BitSet[] masters;
  // by plugin and owner as its header lists them, the owner's place; -1 for one that is not there
  private final int[][] ownerPosition;
  // the overrides of a record, in load order, from its entry on to that of the next record
  private final int[] overrideFrom;
  private final int[] overridePosition;
  private final int[] overrideRow;
  private final List<Odd> odd = new ArrayList<>();
  // by plugin and override, the record's number; -1 where the owner, loading later, covers it
  private final int[][] targets;
  // records that their owner lacks, by folded key, numbered behind all others
  private final Map<String, Integer> strays = new HashMap<>();
  private final BitSet isOdd = new BitSet();
  // whose each record is, where names tell records apart; else null
  private final NamedOwners named;

  private RecordIndex(List<Source> inOrder) {
    sources = inOrder.toArray(Source[]::new);
    for (int p = 0; p < sources.length; p++) positions.put(PathCase.fold(name(p)), p);
    boolean byName = sources.length > 0 && sources[0].table().isNamed();
    named = byName ? NamedOwners.of(inOrder) : null;
    firstOf = new int[sources.length + 1];
    masters = new BitSet[sources.length];
    ownerPosition = new int[sources.length][];
    for (int p = 0; p < sources.length; p++) {
      RecordTable t = sources[p].table();
      firstOf[p + 1] = firstOf[p] + (byName ? named.own(p).length : t.size() - t.ownFrom());
      masters[p] = new BitSet();
      ownerPosition[p] = new int[t.ownerCount()];
      for (int o = 0; o < t.ownerCount(); o++) {
        int at = positions.getOrDefault(PathCase.fold(t.ownerName(o)), -1);
        ownerPosition[p][o] = at;
      }
      for (String m : t.seen()) {
        int at = positions.getOrDefault(PathCase.fold(m), -1);
        if (at >= 0 && at != p) masters[p].set(at);
      }
    }
    targets = new int[sources.length][];
    for (int p = 0; p < sources.length; p++) targets[p] = targets(p);
    overrideFrom = new int[size() + 1];
    for (int p = 0; p < sources.length; p++)
      for (int row = 0; row < targets[p].length; row++)
        if (overridesAt(p, row)) overrideFrom[targets[p][row] + 1]++;
    for (int r = 0; r < size(); r++) overrideFrom[r + 1] += overrideFrom[r];
    overridePosition = new int[overrideFrom[size()]];
    overrideRow = new int[overrideFrom[size()]];
    int[] next = Arrays.copyOf(overrideFrom, size());
    for (int p = 0; p < sources.length; p++) {
      for (int row = 0; row < targets[p].length; row++) {
        if (!overridesAt(p, row)) continue;
        int record = targets[p][row];
        overridePosition[next[record]] = p;
        overrideRow[next[record]++] = row;
      }
    }
  }

  /**
   * @param inOrder the plugins that are on, as the game reads them
   */
  public static RecordIndex of(List<Source> inOrder) {
    return new RecordIndex(inOrder);
  }

  /** About how much memory it takes, its tables with it. */
  public long bytes() {
    return Arrays.stream(sources).mapToLong(s -> s.table().bytes()).sum()
        + 4L * overrideFrom.length
        + 12L * overrideRow.length;
  }

  /** The record that each override of a plugin is of; -1 where its owner covers it. */
  private int[] targets(int p) {
    if (named != null) return named.records(p);
    RecordTable t = sources[p].table();
    int[] targets = new int[t.ownFrom()];
    for (int row = 0; row < targets.length; row++) {
      int at = ownerPosition[p][t.owner(row)];
      String owner = t.ownerName(t.owner(row));
      int there = at < 0 ? -1 : ownRecord(at, t.id(row));
      targets[row] = there;
      if (there < 0) {
        targets[row] =
            strays.computeIfAbsent(strayKey(owner, t.id(row)), k -> ownSize() + strays.size());
        odd(p, row, targets[row], owner + " has no record " + t.id(row) + ".");
      } else if (at > p) {
        targets[row] = -1;
        odd.add(new Odd(t.key(row), t.name(), owner + " loads after " + t.name() + "."));
      } else if (!typeIn(at, there).equals(t.type(row))) {
        odd(
            p,
            row,
            there,
            "It is a %s in %s and a %s in %s."
                .formatted(typeIn(at, there), name(at), t.type(row), t.name()));
      }
    }
    return targets;
  }

  private boolean overridesAt(int p, int row) {
    return named == null ? targets[p][row] >= 0 : isOverride(p, row);
  }

  /** Whether a row of a plugin is a version of a record that another one owns. */
  public boolean isOverride(int position, int row) {
    if (named == null) return row < table(position).ownFrom();
    return targets[position][row] < firstOf[position];
  }

  private void odd(int p, int row, int record, String reason) {
    isOdd.set(record);
    odd.add(new Odd(table(p).key(row), name(p), reason));
  }

  private static String strayKey(String owner, int id) {
    return PathCase.fold(owner) + "/" + id;
  }

  /** Whether records are known by names, and not by an owner and a number. */
  public boolean isNamed() {
    return named != null;
  }

  /** How many records there are. */
  public int size() {
    return ownSize() + strays.size();
  }

  /** How many of them their owner has: the others come behind. */
  private int ownSize() {
    return firstOf[sources.length];
  }

  /** Whether its owner lacks it or a version is of another type, so that nothing combines it. */
  public boolean isOdd(int record) {
    return isOdd.get(record);
  }

  /** The odd records, by number. */
  public int[] oddRecords() {
    return isOdd.stream().toArray();
  }

  private boolean isStray(int record) {
    return record >= ownSize();
  }

  public int pluginCount() {
    return sources.length;
  }

  public Source source(int position) {
    return sources[position];
  }

  public RecordTable table(int position) {
    return sources[position].table();
  }

  public String name(int position) {
    return sources[position].table().name();
  }

  /** The place of a plugin in the order, or -1. */
  public int position(String plugin) {
    return positions.getOrDefault(PathCase.fold(plugin), -1);
  }

  /** Whether a plugin has another as a master. */
  public boolean sees(int position, int other) {
    return masters[position].get(other);
  }

  /** The records that a plugin owns: from this number on to that of the next plugin. */
  public int firstOf(int position) {
    return firstOf[position];
  }

  /**
   * The place of the plugin that owns a record; where the owner lacks it, of the first to have it.
   */
  public int ownerOf(int record) {
    if (isStray(record)) return overridePosition[overrideFrom[record]];
    int at = Arrays.binarySearch(firstOf, record);
    if (at < 0) return -at - 2;
    // plugins without records of their own share a number with the next
    while (firstOf[at + 1] == record) at++;
    return at;
  }

  /** The row of a record in the table of its owner. */
  int ownRow(int owner, int record) {
    int number = record - firstOf[owner];
    return named != null ? named.own(owner)[number] : number + table(owner).ownFrom();
  }

  public Ref key(int record) {
    return table(ownerOf(record)).key(rowOf(record, 0));
  }

  /** The number of a record, or -1 when nobody has it. */
  public int find(Ref key) {
    if (key.isNamed()) return named == null ? -1 : named.find(key.toString());
    if (named != null) return -1;
    int owner = position(key.owner());
    int own = owner < 0 ? -1 : ownRecord(owner, key.id());
    return own >= 0 ? own : strays.getOrDefault(strayKey(key.owner(), key.id()), -1);
  }

  /** The number of a record by its owner's place and its id, or -1. Cost: logarithmic. */
  public int find(int owner, int id) {
    int own = ownRecord(owner, id);
    if (own >= 0 || strays.isEmpty()) return own;
    return strays.getOrDefault(strayKey(name(owner), id), -1);
  }

  private int ownRecord(int owner, int id) {
    RecordTable t = table(owner);
    int row = t.rowOf(t.ownerCount() - 1, id);
    return row < 0 ? -1 : firstOf[owner] + row - t.ownFrom();
  }

  /** The record that a row of a plugin is a version of; -1 where its owner loads later. */
  public int recordAt(int position, int row) {
    RecordTable t = table(position);
    if (named != null) return targets[position][row];
    return row < t.ownFrom() ? targets[position][row] : firstOf[position] + row - t.ownFrom();
  }

  /** The type of the version that the game uses. */
  public String type(int record) {
    return table(usedPosition(record)).type(usedRow(record));
  }

  private String typeIn(int owner, int record) {
    return table(owner).type(ownRow(owner, record));
  }

  /** How many versions there are, the owner's among them where it has the record. */
  public int versionCount(int record) {
    return overrideFrom[record + 1] - overrideFrom[record] + (isStray(record) ? 0 : 1);
  }

  /** Whether the plugin at a place has a version of a record. */
  public boolean hasVersion(int record, int position) {
    return IntStream.range(0, versionCount(record))
        .anyMatch(v -> positionOf(record, v) == position);
  }

  /** The place of the plugin that a version is of; the owner's is version 0 where there is one. */
  public int positionOf(int record, int version) {
    if (isStray(record)) return overridePosition[overrideFrom[record] + version];
    return version == 0 ? ownerOf(record) : overridePosition[overrideFrom[record] + version - 1];
  }

  /** The row of a version in the table of its plugin. */
  public int rowOf(int record, int version) {
    if (isStray(record)) return overrideRow[overrideFrom[record] + version];
    if (version > 0) return overrideRow[overrideFrom[record] + version - 1];
    return ownRow(ownerOf(record), record);
  }

  /** The place of the plugin whose version the game uses. */
  public int usedPosition(int record) {
    return positionOf(record, versionCount(record) - 1);
  }

  public int usedRow(int record) {
    return rowOf(record, versionCount(record) - 1);
  }

  /** The same for two indexes in which the game reads the same of a record. */
  public long usedPrint(int record) {
    return table(usedPosition(record)).print(usedRow(record));
  }

  /** The records that some plugin overrides, by number. */
  public int[] overridden() {
    int count = 0;
    for (int r = 0; r < size(); r++) if (overrideFrom[r + 1] > overrideFrom[r]) count++;
    int[] all = new int[count];
    for (int r = 0, i = 0; r < size(); r++) if (overrideFrom[r + 1] > overrideFrom[r]) all[i++] = r;
    return all;
  }

  /**
   * What people know a record by, as the version in use has it; its names, or its key, where there
   * is nothing.
   */
  public String label(int record) {
    for (int v = versionCount(record) - 1; v >= 0; v--) {
      String label = table(positionOf(record, v)).label(rowOf(record, v));
      if (!label.isBlank()) return label;
    }
    Ref key = key(record);
    return key.isNamed() ? String.join(" / ", key.names()) : key.toString();
  }

  /** The versions with their values, in load order. */
  public List<Version> versions(int record) {
    List<Version> versions = new ArrayList<>();
    for (int v = 0; v < versionCount(record); v++) versions.add(version(record, v));
    return versions;
  }

  /**
   * One version with its values.
   *
   * @throws IroningException when the plugin's file cannot be read any more
   */
  public Version version(int record, int version) {
    return versionAt(positionOf(record, version), rowOf(record, version));
  }

  private Version versionAt(int position, int row) {
    Source s = sources[position];
    try {
      Plugin.Record r = s.table().record(row, s.file());
      return new Version(s.table().name(), s.table().seen(), position, r.type(), r.fields());
    } catch (IOException e) {
      throw unreadable(s.table().name(), e);
    }
  }

  /** What is thrown when a plugin’s file cannot be read any more. */
  public static IroningException unreadable(String plugin, IOException e) {
    return IroningException.of(
        "plugin-unreadable",
        plugin,
        "Its file cannot be read: " + e.getMessage() + ".",
        "Connect the drive again, or let Ironing look at the game folder again.",
        e);
  }

  public Version used(int record) {
    return version(record, versionCount(record) - 1);
  }

  /** The version that the game uses, by the record's key; empty when nobody defines it. */
  public Optional<Version> used(Ref key) {
    int record = find(key);
    return record < 0 ? Optional.empty() : Optional.of(used(record));
  }

  /** The versions that make no sense, plugin by plugin. */
  public List<Odd> odd() {
    return odd;
  }

  /** How many records a plugin overrides, that is, has without owning them. */
  public int overrides(int position) {
    int count = 0;
    int to = named == null ? table(position).ownFrom() : table(position).size();
    for (int row = 0; row < to; row++)
      if (isOverride(position, row) && recordAt(position, row) >= 0) count++;
    return count;
  }
}
