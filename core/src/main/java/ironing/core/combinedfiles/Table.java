package ironing.core.combinedfiles;

import ironing.core.combinedfiles.Tree.Unfit;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A table as RFC 4180 writes it, with a header row: where each cell stands in the text. Rows are
 * known by the cells of their key columns.
 */
final class Table {
  /** Between the parts of a key; stands in no cell. */
  private static final String PART = "\u001F";

  final String text;
  final Map<String, Integer> columns = new LinkedHashMap<>();

  /** Rows by their keys, in the order of the text. */
  final Map<String, Integer> rows;

  private final List<String> key;
  private final int[] keyColumns;
  // of row r: cells from firstCell[r] on; the header is row 0
  private int[] firstCell = new int[64];
  private int[] cellFrom = new int[256];
  private int[] cellTo = new int[256];
  private int rowCount;
  private int cells;

  /** What most of its rows end with. */
  private String end = "\n";

  /** The one end of a line that stands within its cells; empty where there is none, or several. */
  private String endInCells = "";

  private Table(String text, List<String> key) {
    this.text = text;
    this.key = key;
    this.keyColumns = new int[key.size()];
    this.rows = new HashMap<>();
  }

  static Table read(String text, List<String> key) throws Unfit {
    Table t = new Table(text, key);
    t.scan();
    t.header();
    t.keys();
    return t;
  }

  private void scan() throws Unfit {
    int at = 0, length = text.length();
    Map<String, Integer> ends = new LinkedHashMap<>();
    Set<String> inCells = new HashSet<>();
    while (at < length) {
      begin();
      boolean more = true;
      while (more) {
        int from = at;
        at = endOfCell(at);
        cell(from, at);
        if (from < at && text.charAt(from) == '"') endsIn(from, at, inCells);
        more = at < length && text.charAt(at) == ',';
        if (more) at++;
      }
      int ended = at;
      if (at < length && text.charAt(at) == '\r') at++;
      if (at < length && text.charAt(at) == '\n') at++;
      if (at > ended) ends.merge(text.substring(ended, at), 1, Integer::sum);
    }
    end =
        ends.isEmpty()
            ? end
            : Collections.max(ends.entrySet(), Map.Entry.comparingByValue()).getKey();
    if (inCells.size() == 1) endInCells = inCells.iterator().next();
    if (rowCount == 0) throw new Unfit("It has no header row.");
    if (firstCell.length == rowCount) firstCell = Arrays.copyOf(firstCell, rowCount + 1);
    firstCell[rowCount] = cells;
  }

  private void endsIn(int from, int to, Set<String> ends) {
    for (int at = from; at < to; at++) {
      char c = text.charAt(at);
      if (c == '\n') ends.add("\n");
      else if (c == '\r')
        ends.add(text.startsWith("\r\n", at) ? text.substring(at, at++ + 2) : "\r");
    }
  }

  private int endOfCell(int from) throws Unfit {
    int at = from, length = text.length();
    if (at < length && text.charAt(at) == '"') {
      int quote = text.indexOf('"', at + 1);
      // one behind another stands for itself
      while (quote >= 0 && quote + 1 < length && text.charAt(quote + 1) == '"')
        quote = text.indexOf('"', quote + 2);
      if (quote < 0) throw new Unfit("Row " + rowCount + ": a quote is not closed.");
      at = quote + 1;
      if (at < length && ",\r\n".indexOf(text.charAt(at)) < 0)
        throw new Unfit("Row " + rowCount + ": something stands behind a closing quote.");
      return at;
    }
    while (at < length) {
      char c = text.charAt(at);
      if (c == ',' || c == '\n' || c == '\r') break;
      at++;
    }
    return at;
  }

  private void begin() {
    if (firstCell.length == rowCount) firstCell = Arrays.copyOf(firstCell, rowCount * 2);
    firstCell[rowCount++] = cells;
  }

  private void cell(int from, int to) {
    if (cells == cellFrom.length) {
      cellFrom = Arrays.copyOf(cellFrom, cells * 2);
      cellTo = Arrays.copyOf(cellTo, cells * 2);
    }
    cellFrom[cells] = from;
    cellTo[cells++] = to;
  }

  private void header() throws Unfit {
    for (int c = 0; c < firstCell[1]; c++) {
      String name = Lines.endedBy("\n", value(0, c));
      if (columns.put(name, c) != null)
        throw new Unfit("Two of its columns are called “" + name + "”.");
    }
    for (int k = 0; k < keyColumns.length; k++) {
      Integer at = columns.get(key.get(k));
      if (at == null) throw new Unfit("It has no column “" + key.get(k) + "”.");
      keyColumns[k] = at;
    }
  }

  private void keys() throws Unfit {
    for (int r = 1; r < rowCount; r++) {
      if (isBlank(r)) continue;
      if (firstCell[r + 1] - firstCell[r] > columns.size())
        throw new Unfit("Row " + r + " has more cells than the header.");
      Integer before = rows.put(keyOf(r), r);
      if (before != null)
        throw new Unfit("Rows " + before + " and " + r + " have one key, “" + label(r) + "”.");
    }
  }

  /** An empty line is no row. */
  boolean isBlank(int row) {
    return firstCell[row + 1] - firstCell[row] == 1 && from(row) == to(row);
  }

  String end() {
    return end;
  }

  String endInCells() {
    return endInCells;
  }

  /** Whether most cells of a column are written in quotes. */
  boolean quotes(int column) {
    int quoted = 0, bare = 0;
    for (int r = rowCount > 1 ? 1 : 0; r < rowCount; r++) {
      if (isBlank(r) || !has(r, column)) continue;
      if (isQuoted(r, column)) quoted++;
      else bare++;
    }
    return quoted > bare;
  }

  boolean isQuoted(int row, int column) {
    return raw(row, column).startsWith("\"");
  }

  /** How many rows there are, the header among them. */
  int rowCount() {
    return rowCount;
  }

  String keyOf(int row) {
    if (keyColumns.length == 1) return keyAt(row, keyColumns[0]);
    StringBuilder out = new StringBuilder();
    for (int c : keyColumns) out.append(keyAt(row, c)).append(PART);
    return out.toString();
  }

  // a row is the same one whatever the lines within its key end with
  private String keyAt(int row, int column) {
    return Lines.endedBy("\n", value(row, column));
  }

  /** What people know a row by. */
  String label(int row) {
    StringBuilder out = new StringBuilder();
    for (int c : keyColumns) out.append(out.isEmpty() ? "" : ", ").append(value(row, c));
    return out.toString();
  }

  /** A cell as it is meant; empty where the row ends before it. */
  String value(int row, int column) {
    String raw = raw(row, column);
    if (raw.isEmpty() || raw.charAt(0) != '"') return raw;
    return raw.substring(1, raw.length() - 1).replace("\"\"", "\"");
  }

  /** A cell as it is written. */
  String raw(int row, int column) {
    int cell = firstCell[row] + column;
    return cell < firstCell[row + 1] ? text.substring(cellFrom[cell], cellTo[cell]) : "";
  }

  boolean has(int row, int column) {
    return firstCell[row] + column < firstCell[row + 1];
  }

  int from(int row) {
    return cellFrom[firstCell[row]];
  }

  /** Behind the last cell of a row. */
  int to(int row) {
    return cellTo[firstCell[row + 1] - 1];
  }

  /** Where the next row begins. */
  int behind(int row) {
    return row + 1 < rowCount ? from(row + 1) : text.length();
  }

  /** Whether a row is written as one of another table. */
  boolean isWrittenAs(int row, Table other, int otherRow) {
    int length = to(row) - from(row);
    return length == other.to(otherRow) - other.from(otherRow)
        && text.regionMatches(from(row), other.text, other.from(otherRow), length);
  }

  /**
   * A value written as a cell.
   *
   * @param quoted whether it is quoted where it need not be
   */
  static String written(String value, boolean quoted) {
    boolean must =
        quoted
            || value.indexOf(',') >= 0
            || value.indexOf('"') >= 0
            || value.indexOf('\n') >= 0
            || value.indexOf('\r') >= 0;
    return must ? '"' + value.replace("\"", "\"\"") + '"' : value;
  }
}
