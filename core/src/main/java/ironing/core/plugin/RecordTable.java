package ironing.core.plugin;

import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Plugin.Record;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * The records of one plugin file as an index keeps them: whose they are, where they stand in the
 * file, and a print of every field, by which versions are compared without reading them. The values
 * themselves stay in the file.
 *
 * <p>Invariant: rows are sorted by owner as the header lists them, its own last, then by id; no two
 * are of one record. A file for which there is a table decodes without an error.
 *
 * <p>Threads: immutable. Memory: some 50 bytes a record and 12 a field, beside the labels.
 */
public final class RecordTable {
  /** The bytes of a file, a stretch at a time. */
  public interface Bytes {
    /**
     * @throws IOException also when the file ends before the stretch does
     */
    byte[] at(int offset, int length) throws IOException;

    static Bytes of(byte[] all) {
      return (offset, length) -> Arrays.copyOfRange(all, offset, offset + length);
    }
  }

  private final String name;
  private final Header header;
  private final List<String> warnings;
  private final String[] owners;
  private final String[] types;
  private final String[] names;
  private final Columns rows;
  private final int ownFrom;
  private final Optional<byte[]> rewritten;
  // by row what a record is called, where names and not numbers tell records apart; else null
  private final String[] keys;
  private final List<String> seen;

  /**
   * What a scan gathers, row by row. Arrays with “From” have one entry more than there are rows.
   */
  static final class Columns {
    int size;
    int[] owner;
    int[] id;
    short[] type;
    int[] at;
    long[] print;
    int[] fieldFrom;
    short[] fieldName;
    long[] fieldPrint;
    int[] refFrom;
    int[] refOwner;
    int[] refId;
    int[] pathFrom;
    long[] path;
    int[] labelFrom;
    byte[] label;
    int[] outOfRange;
    int[] removed;
    int end;
  }

  RecordTable(
      String name,
      Header header,
      List<String> warnings,
      List<String> owners,
      List<String> types,
      List<String> names,
      Columns rows,
      Optional<byte[]> rewritten) {
    this(name, header, warnings, owners, types, names, rows, rewritten, null, header.masters());
  }

  private RecordTable(
      String name,
      Header header,
      List<String> warnings,
      List<String> owners,
      List<String> types,
      List<String> names,
      Columns rows,
      Optional<byte[]> rewritten,
      String[] keys,
      List<String> seen) {
    this.keys = keys;
    this.seen = List.copyOf(seen);
    this.name = name;
    this.header = header;
    this.warnings = List.copyOf(warnings);
    this.owners = owners.toArray(String[]::new);
    this.types = types.toArray(String[]::new);
    this.names = names.toArray(String[]::new);
    this.rows = rows;
    this.rewritten = rewritten;
    int own = this.owners.length - 1, from = 0;
    while (from < rows.size && rows.owner[from] < own) from++;
    this.ownFrom = from;
  }

  /**
   * @param name the file's name: the owner of its own records
   * @throws PluginException with the offset of the first thing that is wrong
   */
  public static RecordTable read(String name, byte[] bytes, Shapes shapes) {
    return TableScan.read(name, bytes, shapes);
  }

  /**
   * The same of a file.
   *
   * @throws IOException when it cannot be read
   */
  public static RecordTable read(String name, Path file, Shapes shapes) throws IOException {
    return TableScan.read(name, file, shapes);
  }

  /** The table of a plugin in memory, and the bytes that go with it. */
  public static RecordTable of(Plugin plugin, Shapes shapes) {
    byte[] bytes = PluginCodec.encode(plugin);
    return TableScan.rewritten(plugin.name(), bytes, shapes, List.of());
  }

  /**
   * The table of a plugin whose records are known by a type and names, in whatever plugin they are:
   * none of them is its own before the order is known.
   *
   * @param keys each a different one; see {@link Ref#named}
   * @param records their values, in the same order; what they are called there does not count
   * @param seen the plugins whose versions it stands for
   * @param warnings what in its files is odd but readable
   */
  public static RecordTable named(
      String name,
      Header header,
      List<Ref> keys,
      List<Record> records,
      List<String> seen,
      Shapes shapes,
      List<String> warnings) {
    List<Record> numbered = new ArrayList<>(records.size());
    for (Record r : records)
      numbered.add(new Record(r.type(), new Ref(name, numbered.size() + 1), r.fields()));
    Plugin plain =
        new Plugin(name, Header.of(Plugin.DEFAULT_STAGE, List.of(), records.size() + 1), numbered);
    byte[] head = PluginCodec.encode(new Plugin(name, plain.header(), List.of()));
    byte[] items = PluginCodec.encodeRecords(plain, numbered);
    byte[] bytes = Arrays.copyOf(head, Math.addExact(head.length, items.length));
    System.arraycopy(items, 0, bytes, head.length, items.length);
    RecordTable t = TableScan.rewritten(name, bytes, shapes, List.of());
    return new RecordTable(
        name,
        header,
        warnings,
        List.of(name),
        List.of(t.types),
        List.of(t.names),
        t.rows,
        t.rewritten,
        keys.stream().map(Ref::toString).toArray(String[]::new),
        seen);
  }

  /** Whether its records are known by names, and not by an owner and a number. */
  public boolean isNamed() {
    return keys != null;
  }

  /** What a record is called, where names tell records apart. */
  public String keyText(int row) {
    return keys[row];
  }

  /** The plugins whose versions of a record it stands for. */
  public List<String> seen() {
    return seen;
  }

  public String name() {
    return name;
  }

  public Header header() {
    return header;
  }

  /** What in the file is odd but readable. */
  public List<String> warnings() {
    return warnings;
  }

  public int size() {
    return rows.size;
  }

  /** The first row of its own: those below override others’ records. */
  public int ownFrom() {
    return ownFrom;
  }

  /** How many owners there are: the masters, and itself as the last. */
  public int ownerCount() {
    return owners.length;
  }

  public String ownerName(int owner) {
    return owners[owner];
  }

  public int owner(int row) {
    return rows.owner[row];
  }

  public int id(int row) {
    return rows.id[row];
  }

  public Ref key(int row) {
    return keys == null ? numbered(row) : Ref.parse(keys[row]).orElseThrow();
  }

  private Ref numbered(int row) {
    return new Ref(owners[rows.owner[row]], rows.id[row]);
  }

  public String type(int row) {
    return types[rows.type[row]];
  }

  public boolean removed(int row) {
    return Arrays.binarySearch(rows.removed, row) >= 0;
  }

  /** Whether some number in it lies outside of what the game's definition admits. */
  public boolean outOfRange(int row) {
    return Arrays.binarySearch(rows.outOfRange, row) >= 0;
  }

  /** The same for two versions of a record that say the same, whatever plugin they are in. */
  public long print(int row) {
    return rows.print[row];
  }

  /** About how much memory it takes. */
  public long bytes() {
    return 50L * rows.size + 12L * rows.fieldFrom[rows.size] + rows.label.length;
  }

  /** The first field of a row; its last is before that of the next row. */
  public int fieldFrom(int row) {
    return rows.fieldFrom[row];
  }

  public String fieldName(int field) {
    return names[rows.fieldName[field]];
  }

  /** The number of a field's name in this table. */
  public int fieldNumber(int field) {
    return rows.fieldName[field];
  }

  /** The names of fields, by their number in this table. */
  public List<String> fieldNames() {
    return List.of(names);
  }

  public long fieldPrint(int field) {
    return rows.fieldPrint[field];
  }

  /** The first reference of a row, at any depth; its last is before that of the next row. */
  public int refFrom(int row) {
    return rows.refFrom[row];
  }

  public int refOwner(int ref) {
    return rows.refOwner[ref];
  }

  public int refId(int ref) {
    return rows.refId[ref];
  }

  /** The rows that refer to a record, each once. Cost: linear in the references. */
  public int[] rowsReferringTo(int owner, int id) {
    int[] found = new int[0];
    int count = 0, after = 0;
    for (int ref = next(rows.refId, id, 0); ref >= 0; ref = next(rows.refId, id, ref + 1)) {
      if (rows.refOwner[ref] != owner || ref < after) continue;
      int row = Arrays.binarySearch(rows.refFrom, ref);
      if (row < 0) row = -row - 2;
      // rows without references share a beginning with the next
      while (rows.refFrom[row + 1] <= ref) row++;
      after = rows.refFrom[row + 1];
      if (count == found.length) found = Arrays.copyOf(found, count * 2 + 4);
      found[count++] = row;
    }
    return Arrays.copyOf(found, count);
  }

  // apart from what is done with it, so that it becomes a loop over one array and nothing else
  private static int next(int[] ids, int id, int from) {
    for (int i = from; i < ids.length; i++) if (ids[i] == id) return i;
    return -1;
  }

  /** The first path of a row, at any depth; its last is before that of the next row. */
  public int pathFrom(int row) {
    return rows.pathFrom[row];
  }

  /** As {@link Shapes#path} gives it. */
  public long pathPrint(int path) {
    return rows.path[path];
  }

  /** What people know the record by, cut when it is very long; empty where it says nothing. */
  public String label(int row) {
    int from = rows.labelFrom[row], to = rows.labelFrom[row + 1];
    return from == to ? "" : new String(rows.label, from, to - from, StandardCharsets.UTF_8);
  }

  /** The row of a record by its owner and id here, or -1. Cost: logarithmic. */
  public int rowOf(int owner, int id) {
    int low = 0, high = rows.size - 1;
    if (owner == owners.length - 1) low = ownFrom;
    while (low <= high) {
      int mid = (low + high) >>> 1;
      int order = Integer.compare(rows.owner[mid], owner);
      if (order == 0) order = Integer.compare(rows.id[mid], id);
      if (order == 0) return mid;
      if (order < 0) low = mid + 1;
      else high = mid - 1;
    }
    return -1;
  }

  /**
   * A record with its values.
   *
   * @param file the bytes that the table was read from
   * @throws PluginException when they are others meanwhile
   */
  public Record record(int row, Bytes file) throws IOException {
    if (keys != null) {
      Header plain = Header.of(Plugin.DEFAULT_STAGE, List.of(), 1);
      Record read = PluginCodec.readRecord(name, plain, item(row, file));
      return new Record(read.type(), key(row), read.fields());
    }
    Record record = PluginCodec.readRecord(name, header, item(row, file));
    if (record.key().equals(numbered(row))) return record;
    throw PluginException.of(name, "the file has changed since it was looked through");
  }

  /** The bytes of a record, in the encoding that a writer chooses. */
  byte[] item(int row, Bytes file) throws IOException {
    int from = rows.at[row], to = row + 1 < rows.size ? rows.at[row + 1] : rows.end;
    return rewritten.isPresent()
        ? Arrays.copyOfRange(rewritten.get(), from, to)
        : file.at(from, to - from);
  }
}
