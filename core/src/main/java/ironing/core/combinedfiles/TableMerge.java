package ironing.core.combinedfiles;

import ironing.core.combinedfiles.Place.Side;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Combines tables: rows by their keys, cells by the names of their columns. Rows that nobody
 * changed stay as the base has them written; new columns and new rows come last, in layer order.
 *
 * <p>Threads: one merge, one thread. Cost: linear in the rows.
 */
final class TableMerge {
  private static final int NONE = -1;
  private final Table base;
  private final List<String> ids;
  private final List<Table> sides;
  private final Places places;
  private final StringBuilder out = new StringBuilder();

  /** The columns of the outcome: of each its name and its place in the base and the sides. */
  private final List<Column> columns = new ArrayList<>();

  private final boolean sameColumns;

  /**
   * Of each side, whether its rows end otherwise than the base's: so may the lines in its cells.
   */
  private final boolean[] endsOtherwise;

  private final boolean anyEndsOtherwise;

  /** Of each column of the outcome, whether a new cell is written in quotes. */
  private final boolean[] quoted;

  private record Column(String name, int base, int[] sides) {}

  /**
   * @param ids of the sides, in layer order
   */
  TableMerge(Table base, List<String> ids, List<Table> sides, Places places) {
    this.base = base;
    this.ids = ids;
    this.sides = sides;
    this.places = places;
    this.endsOtherwise = new boolean[sides.size()];
    for (int i = 0; i < endsOtherwise.length; i++)
      endsOtherwise[i] = !sides.get(i).end().equals(base.end());
    this.anyEndsOtherwise = sides.stream().anyMatch(t -> !t.end().equals(base.end()));
    this.sameColumns = !columns();
    this.quoted = new boolean[columns.size()];
    boolean usually = base.quotes(0);
    for (int c = 0; c < quoted.length; c++) {
      int at = columns.get(c).base;
      quoted[c] = at == NONE ? usually : base.quotes(at);
    }
  }

  /**
   * Whether a side's cell says what the base's says; whose program wrote other ends says the same.
   */
  private boolean isSame(String was, int side, String value) {
    if (was.equals(value)) return true;
    return endsOtherwise[side] && Lines.endedBy("\n", was).equals(Lines.endedBy("\n", value));
  }

  /** By what the values of several sides are told to be alike. */
  private Optional<String> print(Optional<String> value) {
    return anyEndsOtherwise ? value.map(v -> Lines.endedBy("\n", v)) : value;
  }

  private List<Optional<String>> prints(List<Optional<String>> values) {
    return values.stream().map(this::print).toList();
  }

  /** A side's value, with ends of lines as the base has them in its cells. */
  private String taken(int side, String value) {
    boolean asBase = endsOtherwise[side] && !base.endInCells().isEmpty();
    return asBase ? Lines.endedBy(base.endInCells(), value) : value;
  }

  /** Finds the columns; tells whether they are others than the base's. */
  private boolean columns() {
    Set<String> names = new LinkedHashSet<>(base.columns.keySet());
    sides.forEach(s -> names.addAll(s.columns.keySet()));
    boolean others = names.size() > base.columns.size();
    for (String name : names) {
      int[] at = new int[sides.size()];
      for (int i = 0; i < at.length; i++) at[i] = sides.get(i).columns.getOrDefault(name, NONE);
      Column c = new Column(name, base.columns.getOrDefault(name, NONE), at);
      if (c.base != NONE && goes(c)) others = true;
      else columns.add(c);
    }
    return others;
  }

  /** Whether a column of the base goes, because a side has it no more. */
  private boolean goes(Column c) {
    List<String> without = new ArrayList<>(), with = new ArrayList<>();
    for (int i = 0; i < c.sides.length; i++) if (c.sides[i] == NONE) without.add(ids.get(i));
    if (without.isEmpty()) return false;
    for (int i = 0; i < c.sides.length; i++)
      if (c.sides[i] != NONE && changes(c, i)) with.add(ids.get(i));
    List<Side> alike = new ArrayList<>();
    alike.add(new Side(without, Optional.empty()));
    if (!with.isEmpty()) alike.add(new Side(with, Optional.of(c.name)));
    String where = "column " + c.name;
    return places.add(where, where, Optional.of(c.name), alike, false).outcome().isEmpty();
  }

  private boolean changes(Column c, int side) {
    Table t = sides.get(side);
    for (Map.Entry<String, Integer> row : t.rows.entrySet()) {
      Integer before = base.rows.get(row.getKey());
      if (before == null) continue;
      if (!t.raw(row.getValue(), c.sides[side]).equals(base.raw(before, c.base))
          && !isSame(base.value(before, c.base), side, t.value(row.getValue(), c.sides[side])))
        return true;
    }
    return false;
  }

  /** The outcome; the places are gathered on the way. */
  String combine() {
    if (sameColumns) out.append(base.text, 0, base.to(0));
    else header();
    out.append(base.text, base.to(0), base.behind(0));
    for (int r = 1; r < base.rowCount(); r++) row(r);
    additions();
    return out.toString();
  }

  private void header() {
    for (int c = 0; c < columns.size(); c++) {
      Column column = columns.get(c);
      out.append(c == 0 ? "" : ",");
      out.append(
          column.base == NONE
              ? Table.written(column.name, base.isQuoted(0, 0))
              : base.raw(0, column.base));
    }
  }

  private void row(int r) {
    if (base.isBlank(r)) {
      out.append(base.text, base.from(r), base.behind(r));
      return;
    }
    String key = base.keyOf(r);
    int[] of = new int[sides.size()];
    boolean touched = !sameColumns;
    List<Integer> gone = new ArrayList<>(), changed = new ArrayList<>();
    for (int i = 0; i < of.length; i++) {
      of[i] = sides.get(i).rows.getOrDefault(key, NONE);
      if (of[i] == NONE) gone.add(i);
      else if (!base.isWrittenAs(r, sides.get(i), of[i])) {
        touched = true;
        if (differs(r, i, of[i])) changed.add(i);
      }
    }
    if (!gone.isEmpty() && goes(r, of, gone, changed)) return;
    if (touched) cells(r, of, base.label(r));
    else out.append(base.text, base.from(r), base.to(r));
    out.append(base.text, base.to(r), base.behind(r));
  }

  private boolean differs(int r, int side, int row) {
    for (Column c : columns) {
      if (c.sides[side] == NONE) continue;
      String was = c.base == NONE ? "" : base.value(r, c.base);
      if (!isSame(was, side, sides.get(side).value(row, c.sides[side]))) return true;
    }
    return false;
  }

  private boolean goes(int r, int[] of, List<Integer> gone, List<Integer> changed) {
    List<String> who = new ArrayList<>();
    List<Optional<String>> texts = new ArrayList<>();
    for (int i = 0; i < of.length; i++) {
      if (!gone.contains(i) && !changed.contains(i)) continue;
      who.add(ids.get(i));
      texts.add(
          of[i] == NONE
              ? Optional.empty()
              : Optional.of(
                  sides.get(i).text.substring(sides.get(i).from(of[i]), sides.get(i).to(of[i]))));
    }
    Optional<String> was = Optional.of(base.text.substring(base.from(r), base.to(r)));
    String label = base.label(r);
    // the changes of those who keep it are told cell by cell
    List<Side> alike = new ArrayList<>();
    for (Side s : Places.alike(who, texts, prints(texts))) {
      boolean twice = s.text().isPresent() && alike.stream().anyMatch(a -> a.text().isPresent());
      if (!twice) alike.add(s);
    }
    return places.add(label, label, was, alike, false).outcome().isEmpty();
  }

  /** Writes a row cell by cell; {@code r} is none for one that only sides have. */
  private void cells(int r, int[] of, String label) {
    int written = 0, blanks = 0;
    for (int at = 0; at < columns.size(); at++) {
      Column c = columns.get(at);
      boolean had = r != NONE && c.base != NONE;
      String raw = had ? base.raw(r, c.base) : "";
      Optional<String> was = had ? Optional.of(base.value(r, c.base)) : Optional.empty();
      List<String> who = new ArrayList<>();
      List<Optional<String>> values = new ArrayList<>();
      String cell = null;
      for (int i = 0; i < of.length; i++) {
        if (of[i] == NONE || c.sides[i] == NONE) continue;
        String value = taken(i, sides.get(i).value(of[i], c.sides[i]));
        if (r != NONE && isSame(was.orElse(""), i, value)) continue;
        if (cell == null) {
          // blanks at an end are read as part of a cell by some only where it is quoted
          boolean held = !value.equals(value.strip()) && sides.get(i).isQuoted(of[i], c.sides[i]);
          cell = Table.written(value, quoted[at] || held);
        }
        who.add(ids.get(i));
        values.add(Optional.of(value));
      }
      if (!who.isEmpty() && (r != NONE || new HashSet<>(prints(values)).size() > 1)) {
        String where = label + " · " + c.name;
        List<Side> alike = Places.alike(who, values, prints(values));
        String value = places.add(where, where, was, alike, false).outcome().orElse("");
        boolean style = had ? raw.startsWith("\"") : quoted[at];
        if (!value.equals(was.orElse(null))) raw = Table.written(value, style);
      } else if (!who.isEmpty()) {
        raw = cell;
      }
      if (written++ > 0) out.append(',');
      out.append(raw);
      // a row of the base that ends early ends there still
      boolean beyond = r != NONE && raw.isEmpty() && (!had || !base.has(r, c.base));
      blanks = beyond && sameColumns ? blanks + 1 : 0;
    }
    out.setLength(out.length() - blanks);
  }

  private void additions() {
    Map<String, int[]> added = new LinkedHashMap<>();
    for (int i = 0; i < sides.size(); i++) {
      Table t = sides.get(i);
      for (int row = 1; row < t.rowCount(); row++) {
        if (t.isBlank(row)) continue;
        String key = t.keyOf(row);
        if (base.rows.containsKey(key)) continue;
        int[] of = added.computeIfAbsent(key, k -> none());
        of[i] = row;
      }
    }
    if (added.isEmpty()) return;
    boolean ended = out.length() > 0 && "\r\n".indexOf(out.charAt(out.length() - 1)) >= 0;
    if (!ended) out.append(base.end());
    for (int[] of : added.values()) if (addition(of)) out.append(base.end());
    if (!ended) out.setLength(out.length() - base.end().length());
  }

  private int[] none() {
    int[] of = new int[sides.size()];
    Arrays.fill(of, NONE);
    return of;
  }

  /** Tells whether the row stands there. */
  private boolean addition(int[] of) {
    List<String> who = new ArrayList<>();
    Table first = null;
    int row = NONE;
    for (int i = 0; i < of.length; i++) {
      if (of[i] == NONE) continue;
      Table t = sides.get(i);
      if (first == null) {
        first = t;
        row = of[i];
      }
      who.add(ids.get(i));
    }
    String label = first.label(row);
    int start = out.length(), told = places.size();
    cells(NONE, of, label);
    String whole = out.substring(start);
    Side side = new Side(who, Optional.of(whole));
    if (places.size() > told) {
      // asked cell by cell already
      places.addTaken(label, side);
      return true;
    }
    Optional<String> outcome =
        places.add(label, label, Optional.empty(), List.of(side), false).outcome();
    out.setLength(start);
    outcome.ifPresent(out::append);
    return outcome.isPresent();
  }
}
