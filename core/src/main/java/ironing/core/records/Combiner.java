package ironing.core.records;

import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.path.PathCase;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Prints;
import ironing.core.plugin.Value;
import ironing.core.records.Combination.Cell;
import ironing.core.records.Combination.How;
import ironing.core.records.Decision.Outcome;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Combines the versions of a record as docs/formats says.
 *
 * <p>A version stands for all versions of its masters, so only the leaves, those that no other
 * version stands for, are combined; their common ground is the last version that all of them could
 * see. Three ways, cell by cell: changed by one, taken; by several alike, taken; differently,
 * asked; removed by one and changed by another, asked.
 *
 * <p>Pure. Cost: versions times masters, and linear in the values.
 */
public final class Combiner {
  /** The place by which the user decides on a record that one side removes and another changes. */
  public static final String WHOLE_RECORD = "(record)";

  private final Equality equality;

  public Combiner(PathCase pathCase) {
    this.equality = new Equality(pathCase);
  }

  /**
   * One side of a question: the plugin, and its value of the cell at hand, empty for removed or
   * missing.
   */
  private record Side(String plugin, Optional<Value> value) {}

  /**
   * @param versions of one record in load order, the owner's first
   * @param decisions by place; one that takes what a plugin has which no longer changes the place
   *     does not count
   */
  public Combination combine(
      RecordType type, List<Version> versions, Map<String, Decided> decisions) {
    List<Version> leaves = leaves(versions);
    Version base = commonGround(versions, leaves);
    Optional<Version> whole = whole(versions, base, decision(WHOLE_RECORD, decisions));
    if (whole.isPresent()) return edited(type, whole.get(), base, leaves, decisions);
    boolean anyRemoved = leaves.stream().anyMatch(v -> v.fields().isEmpty());
    if (anyRemoved || base.fields().isEmpty()) return removal(base, leaves, decisions, type);
    return fields(type, base, leaves, decisions);
  }

  /** Whether two versions of a record say the same. */
  public boolean same(RecordType type, Optional<Value.Fields> a, Optional<Value.Fields> b) {
    return equality.same(type.asField(), a.map(f -> (Value) f), b.map(f -> (Value) f));
  }

  /** Whether two values of a field are the same; empty is a missing field. */
  public boolean same(Field field, Optional<Value> a, Optional<Value> b) {
    return equality.same(field, a, b);
  }

  /** The version that the user wants whole; empty when it has not been said, or is gone. */
  private static Optional<Version> whole(
      List<Version> versions, Version base, Optional<Decision> decision) {
    if (decision.isEmpty()) return Optional.empty();
    if (decision.get() == Outcome.AS_BEFORE) return Optional.of(base);
    if (decision.get() == Outcome.REMOVED)
      return Optional.of(
          new Version(
              base.plugin(), base.masters(), base.position(), base.type(), Optional.empty()));
    return decision
        .flatMap(Decision::taken)
        .flatMap(p -> versions.stream().filter(v -> isSame(v.plugin(), p)).findFirst());
  }

  private static boolean isSame(String plugin, String other) {
    return PathCase.fold(plugin).equals(PathCase.fold(other));
  }

  private static Optional<Decision> decision(String place, Map<String, Decided> decisions) {
    return Optional.ofNullable(decisions.get(place)).map(Decided::decision);
  }

  // one plugin's version whole, whatever the others say, and the user's own fields in it
  private Combination edited(
      RecordType type,
      Version whole,
      Version base,
      List<Version> leaves,
      Map<String, Decided> decisions) {
    List<Cell> cells = new ArrayList<>();
    Optional<Value> taken = whole.fields().map(f -> (Value) f);
    Map<String, Optional<Value>> proposals = proposals(wholeSides(type, base, leaves));
    Optional<Value> before = base.fields().map(f -> (Value) f);
    boolean outdated = outdated(WHOLE_RECORD, before, proposals, decisions);
    cells.add(
        new Cell(
            WHOLE_RECORD,
            before,
            proposals,
            outdated ? How.ASKED : How.DECIDED,
            outdated ? Optional.empty() : taken));
    if (outdated) return new Combination(base, leaves, List.copyOf(cells), false, Optional.empty());
    if (whole.fields().isEmpty())
      return new Combination(base, leaves, cells, true, Optional.empty());
    Map<String, Value> fields = new LinkedHashMap<>(whole.fields().get().map());
    Set<String> places = new LinkedHashSet<>(fields.keySet());
    decisions.keySet().stream().filter(Combiner::isField).forEach(places::add);
    for (String place : places) {
      Optional<Value> was = Optional.ofNullable(fields.get(place));
      Field field = type.field(place);
      chosen(field, was, List.of(), decision(place, decisions))
          .ifPresent(
              now -> {
                cells.add(new Cell(place, was, Map.of(), How.DECIDED, now));
                if (now.isPresent()) fields.put(place, now.get());
                else fields.remove(place);
              });
    }
    return new Combination(
        base, leaves, List.copyOf(cells), false, Optional.of(new Value.Fields(fields)));
  }

  private static boolean isField(String place) {
    return !place.equals(WHOLE_RECORD) && place.indexOf('[') < 0;
  }

  /** The versions that no other stands for, in load order. */
  public static List<Version> leaves(List<Version> versions) {
    Set<String> stoodFor = new LinkedHashSet<>();
    for (Version v : versions) v.masters().forEach(m -> stoodFor.add(PathCase.fold(m)));
    return versions.stream().filter(v -> !stoodFor.contains(PathCase.fold(v.plugin()))).toList();
  }

  /**
   * The version that a plugin could see when it was made: the last among its masters, or else the
   * owner's; nothing where it could see none.
   */
  @SuppressWarnings("ReferenceEquality")
  public static Version seenBy(Version v, List<Version> versions) {
    Version owner = versions.get(0);
    Version seen = v == owner || v.sees(owner) ? owner : Version.nothing(v.type());
    for (Version other : versions)
      if (other.position() < v.position() && v.sees(other)) seen = other;
    return seen;
  }

  @SuppressWarnings("ReferenceEquality")
  private static Version commonGround(List<Version> versions, List<Version> leaves) {
    Version owner = versions.get(0);
    boolean ofAll = leaves.stream().allMatch(l -> l == owner || l.sees(owner));
    Version ground = ofAll ? owner : Version.nothing(owner.type());
    for (Version candidate : versions) {
      if (!leaves.contains(candidate)
          && leaves.stream().allMatch(l -> l == candidate || l.sees(candidate))) ground = candidate;
    }
    return ground;
  }

  private List<Side> wholeSides(RecordType type, Version base, List<Version> leaves) {
    List<Side> sides = new ArrayList<>();
    for (Version l : leaves) {
      Optional<Value> whole = l.fields().map(f -> (Value) f);
      if (!equality.same(type.asField(), whole, base.fields().map(f -> (Value) f)))
        sides.add(new Side(l.plugin(), whole));
    }
    return sides;
  }

  private Combination removal(
      Version base, List<Version> leaves, Map<String, Decided> decisions, RecordType type) {
    List<Side> sides = wholeSides(type, base, leaves);
    Cell cell =
        settle(WHOLE_RECORD, type.asField(), base.fields().map(f -> (Value) f), sides, decisions);
    boolean taken = cell.how() != How.ASKED;
    return new Combination(
        base,
        leaves,
        List.of(cell),
        taken && cell.outcome().isEmpty(),
        taken ? cell.outcome().map(v -> (Value.Fields) v) : Optional.empty());
  }

  private Combination fields(
      RecordType type, Version base, List<Version> leaves, Map<String, Decided> decisions) {
    List<Cell> cells = new ArrayList<>();
    Map<String, Value> was = base.fields().get().map();
    List<Map.Entry<String, Map<String, Value>>> sides = new ArrayList<>();
    for (Version l : leaves) sides.add(Map.entry(l.plugin(), l.fields().get().map()));
    Map<String, Value> outcome = map("", type.fields(), was, sides, decisions, cells);
    boolean open = cells.stream().anyMatch(c -> c.how() == How.ASKED);
    return new Combination(
        base,
        leaves,
        List.copyOf(cells),
        false,
        open ? Optional.empty() : Optional.of(new Value.Fields(outcome)));
  }

  /** Combines maps key by key; the order of keys is the base's, then as the sides bring them. */
  private Map<String, Value> map(
      String prefix,
      Map<String, Field> described,
      Map<String, Value> base,
      List<Map.Entry<String, Map<String, Value>>> sides,
      Map<String, Decided> decisions,
      List<Cell> cells) {
    Set<String> names = new LinkedHashSet<>(base.keySet());
    sides.forEach(s -> names.addAll(s.getValue().keySet()));
    // the user may give a record a field that nobody has
    if (prefix.isEmpty()) decisions.keySet().stream().filter(Combiner::isField).forEach(names::add);
    Map<String, Value> outcome = new LinkedHashMap<>();
    for (String name : names) {
      Field field = described.getOrDefault(name, Field.WHOLE);
      Optional<Value> before = Optional.ofNullable(base.get(name));
      List<Side> changed = new ArrayList<>();
      for (Map.Entry<String, Map<String, Value>> s : sides) {
        Optional<Value> now = Optional.ofNullable(s.getValue().get(name));
        if (!equality.same(field, before, now)) changed.add(new Side(s.getKey(), now));
      }
      cell(prefix + name, field, before, changed, decisions, cells)
          .ifPresent(v -> outcome.put(name, v));
    }
    return outcome;
  }

  private Optional<Value> cell(
      String place,
      Field field,
      Optional<Value> before,
      List<Side> changed,
      Map<String, Decided> decisions,
      List<Cell> cells) {
    if (outdated(place, before, proposals(changed), decisions)) {
      cells.add(
          new Cell(
              place,
              before,
              proposals(changed),
              How.ASKED,
              Optional.empty(),
              merged(field, before, changed)));
      return Optional.empty();
    }
    Optional<Optional<Value>> chosen = chosen(field, before, changed, decision(place, decisions));
    if (chosen.isPresent()) {
      cells.add(
          new Cell(
              place,
              before,
              proposals(changed),
              How.DECIDED,
              chosen.get(),
              merged(field, before, changed)));
      return chosen.get();
    }
    if (changed.isEmpty()) return before;
    boolean open = !alike(field, changed);
    boolean lists =
        before.map(v -> v instanceof Value.Array).orElse(true)
            && changed.stream()
                .allMatch(s -> s.value().map(v -> v instanceof Value.Array).orElse(false));
    if (open && lists && field.kind() == Kind.SET) {
      Optional<Value> joined = Optional.of(set(field, items(before), changed));
      cells.add(new Cell(place, before, proposals(changed), How.JOINED, joined));
      return joined;
    }
    if (open && lists && field.kind() == Kind.ROWS && keyed(field, before, changed)) {
      return rows(place, field, before, changed, decisions, cells);
    }
    Cell cell = settle(place, field, before, changed, Map.of());
    cells.add(cell);
    return cell.outcome();
  }

  private static boolean outdated(
      String place,
      Optional<Value> before,
      Map<String, Optional<Value>> proposals,
      Map<String, Decided> decisions) {
    Decided decided = decisions.get(place);
    return decided != null
        && !decided.seen().isEmpty()
        && !decided.seen().equals(seen(before, proposals));
  }

  /** What the sides say at a place, as it is kept with a decision; see {@link Decided}. */
  public static String seen(Cell cell) {
    return seen(cell.before(), cell.proposals());
  }

  private static String seen(Optional<Value> before, Map<String, Optional<Value>> proposals) {
    StringBuilder all = new StringBuilder(text(before));
    proposals.forEach(
        (plugin, value) ->
            all.append('\n').append(PathCase.fold(plugin)).append(' ').append(text(value)));
    return Long.toHexString(Prints.name(all.toString()));
  }

  private static String text(Optional<Value> value) {
    return value.map(v -> PluginText.node(v).toString()).orElse("-");
  }

  /** What the user's choice comes to: inside, empty is removed; outside, it does not count. */
  @SuppressWarnings("OptionalMapToOptional")
  private Optional<Optional<Value>> chosen(
      Field field, Optional<Value> before, List<Side> changed, Optional<Decision> decision) {
    if (decision.isEmpty()) return Optional.empty();
    Decision what = decision.get();
    if (what == Outcome.AS_BEFORE)
      return changed.isEmpty() ? Optional.empty() : Optional.of(before);
    if (what == Outcome.REMOVED) return Optional.of(Optional.empty());
    if (what == Outcome.MERGED) return merged(field, before, changed).map(Optional::of);
    if (what instanceof Decision.Own own) return PluginText.value(own.text()).map(Optional::of);
    return what.taken()
        .flatMap(p -> changed.stream().filter(s -> isSame(s.plugin(), p)).findFirst())
        .map(Side::value);
  }

  private Optional<Value> merged(Field field, Optional<Value> before, List<Side> changed) {
    boolean lists =
        field.kind() == Kind.SEQUENCE
            && changed.size() > 1
            && before.map(v -> v instanceof Value.Array).orElse(true)
            && changed.stream()
                .allMatch(s -> s.value().map(v -> v instanceof Value.Array).orElse(false));
    if (!lists || alike(field, changed)) return Optional.empty();
    return SequenceMerge.of(
            items(before),
            changed.stream().map(s -> items(s.value())).toList(),
            v -> equality.canonical(field.of().orElse(Field.WHOLE), v))
        .map(Value.Array::new);
  }

  private Cell settle(
      String place,
      Field field,
      Optional<Value> before,
      List<Side> changed,
      Map<String, Decided> decisions) {
    Map<String, Optional<Value>> proposals = proposals(changed);
    Optional<Optional<Value>> chosen =
        outdated(place, before, proposals, decisions)
            ? Optional.empty()
            : chosen(field, before, changed, decision(place, decisions));
    if (chosen.isPresent()) return new Cell(place, before, proposals, How.DECIDED, chosen.get());
    if (alike(field, changed) && !outdated(place, before, proposals, decisions)) {
      Optional<Value> taken = changed.isEmpty() ? before : changed.get(0).value();
      return new Cell(place, before, proposals, How.TAKEN, taken);
    }
    return new Cell(
        place, before, proposals, How.ASKED, Optional.empty(), merged(field, before, changed));
  }

  private boolean alike(Field field, List<Side> changed) {
    return changed.stream().allMatch(s -> equality.same(field, s.value(), changed.get(0).value()));
  }

  /**
   * The base's elements in their order, less every removal, then additions in load order; an
   * element counts once.
   */
  private Value set(Field field, List<Value> base, List<Side> changed) {
    Field of = field.of().orElse(Field.WHOLE);
    Map<Object, Value> outcome = new LinkedHashMap<>();
    base.forEach(v -> outcome.putIfAbsent(equality.canonical(of, v), v));
    Set<Object> was = new LinkedHashSet<>(outcome.keySet());
    for (Side s : changed) {
      Set<Object> has = new LinkedHashSet<>();
      items(s.value()).forEach(v -> has.add(equality.canonical(of, v)));
      was.stream().filter(k -> !has.contains(k)).forEach(outcome::remove);
    }
    for (Side s : changed) {
      for (Value v : items(s.value())) {
        Object key = equality.canonical(of, v);
        if (!was.contains(key)) outcome.putIfAbsent(key, v);
      }
    }
    return new Value.Array(new ArrayList<>(outcome.values()));
  }

  private Optional<Value> rows(
      String place,
      Field field,
      Optional<Value> before,
      List<Side> changed,
      Map<String, Decided> decisions,
      List<Cell> cells) {
    Map<Object, Value.Fields> was = equality.byKey(field, items(before));
    List<Map<Object, Value.Fields>> sides =
        changed.stream().map(s -> equality.byKey(field, items(s.value()))).toList();
    Set<Object> keys = new LinkedHashSet<>(was.keySet());
    sides.forEach(s -> keys.addAll(s.keySet()));
    List<Cell> inner = new ArrayList<>();
    List<Value> outcome = new ArrayList<>();
    for (Object key : keys) {
      Optional<Value.Fields> row = Optional.ofNullable(was.get(key));
      List<Map.Entry<String, Map<String, Value>>> present = new ArrayList<>();
      List<Side> removedOrChanged = new ArrayList<>();
      for (int i = 0; i < sides.size(); i++) {
        Value.Fields now = sides.get(i).get(key);
        if (now != null) present.add(Map.entry(changed.get(i).plugin(), now.map()));
        if (!equality.same(field.row(), row.map(r -> (Value) r), Optional.ofNullable((Value) now)))
          removedOrChanged.add(new Side(changed.get(i).plugin(), Optional.ofNullable(now)));
      }
      String at =
          place
              + "["
              + keyText(
                  field,
                  row.orElseGet(
                      () ->
                          sides.stream()
                              .map(s -> s.get(key))
                              .filter(r -> r != null)
                              .findFirst()
                              .get()))
              + "]";
      boolean removed = removedOrChanged.stream().anyMatch(s -> s.value().isEmpty());
      if (removed || removedOrChanged.isEmpty()) {
        Cell cell = settle(at, field.row(), row.map(r -> (Value) r), removedOrChanged, decisions);
        if (!removedOrChanged.isEmpty()) inner.add(cell);
        cell.outcome().ifPresent(outcome::add);
      } else {
        // a row that no side removes combines field by field, also one that several add under one
        // key
        outcome.add(
            new Value.Fields(
                map(
                    at + ".",
                    field.fields(),
                    row.map(Value.Fields::map).orElse(newRow(field, present)),
                    present,
                    decisions,
                    inner)));
      }
    }
    boolean asked = inner.stream().anyMatch(c -> c.how() == How.ASKED);
    Optional<Value> whole = asked ? Optional.empty() : Optional.of(new Value.Array(outcome));
    cells.add(new Cell(place, before, proposals(changed), How.JOINED, whole));
    // only what needs a word, or got one, is told cell by cell
    inner.stream().filter(c -> c.how() == How.ASKED || c.how() == How.DECIDED).forEach(cells::add);
    return whole;
  }

  // A row that is new on every side: its key is common ground, everything else is an addition.
  private static Map<String, Value> newRow(
      Field field, List<Map.Entry<String, Map<String, Value>>> present) {
    String key = field.key().orElseThrow();
    return Map.of(key, present.get(0).getValue().get(key));
  }

  private boolean keyed(Field field, Optional<Value> before, List<Side> changed) {
    return equality.hasKeys(field, items(before))
        && changed.stream().allMatch(s -> equality.hasKeys(field, items(s.value())));
  }

  private static String keyText(Field field, Value.Fields row) {
    Value key = row.map().get(field.key().orElseThrow());
    if (key instanceof Value.Text t) return t.value();
    if (key instanceof Value.Int i) return Long.toString(i.value());
    return key.toString();
  }

  private static List<Value> items(Optional<Value> v) {
    return v.map(x -> ((Value.Array) x).items()).orElse(List.of());
  }

  private static Map<String, Optional<Value>> proposals(List<Side> changed) {
    Map<String, Optional<Value>> map = new LinkedHashMap<>();
    changed.forEach(s -> map.put(s.plugin(), s.value()));
    return map;
  }
}
