package ironing.core.records;

import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.RecordTable.Bytes;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.IntPredicate;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/**
 * Finds records by what somebody types: a part of a name, of an id or of a type's title, or what a
 * field says ({@code speed > 10}).
 *
 * <p>What a record says is what the version in use says. Threads: stateless. Cost: linear in the
 * records; looking for a field's value reads the plugins that have the field.
 */
public final class RecordSearch {
  private static final Pattern FIELD =
      Pattern.compile("\\s*([A-Za-z][A-Za-z0-9_-]*)\\s*(<=|>=|!=|=|<|>)\\s*(\\S.*?)\\s*");

  private final GameDefinition game;
  private final RecordIndex index;

  public RecordSearch(GameDefinition game, RecordIndex index) {
    this.game = game;
    this.index = index;
  }

  /**
   * @param all reads the whole of a plugin's file, by its place in the order
   * @return the numbers of the records, ascending
   */
  public int[] find(String text, Function<Integer, Bytes> all) {
    Matcher field = FIELD.matcher(text);
    if (field.matches() && isField(field.group(1)))
      return byValue(field.group(1), field.group(2), field.group(3), all);
    return byName(PathCase.fold(text.strip()));
  }

  private boolean isField(String name) {
    return IntStream.range(0, index.pluginCount())
        .anyMatch(p -> index.table(p).fieldNames().contains(name));
  }

  private int[] byName(String part) {
    IntPredicate matches =
        r ->
            PathCase.fold(index.label(r)).contains(part)
                || PathCase.fold(index.key(r).toString()).contains(part)
                || PathCase.fold(title(index.type(r))).contains(part);
    return IntStream.range(0, index.size()).parallel().filter(matches).toArray();
  }

  private String title(String type) {
    RecordType known = game.records().get(type);
    return known == null ? type : known.title();
  }

  private int[] byValue(
      String field, String operator, String wanted, Function<Integer, Bytes> all) {
    Predicate<Value> holds = test(operator, wanted);
    return IntStream.range(0, index.pluginCount())
        .parallel()
        .flatMap(p -> byValue(p, field, holds, all))
        .sorted()
        .toArray();
  }

  private IntStream byValue(
      int position, String field, Predicate<Value> holds, Function<Integer, Bytes> all) {
    RecordTable t = index.table(position);
    int number = t.fieldNames().indexOf(field);
    if (number < 0) return IntStream.empty();
    Bytes bytes = all.apply(position);
    List<Integer> found = new ArrayList<>();
    for (int row = 0; row < t.size(); row++) {
      if (!has(t, row, number)) continue;
      int record = index.recordAt(position, row);
      if (record < 0 || index.usedPosition(record) != position) continue;
      Optional<Value.Fields> fields = read(t, row, bytes).fields();
      if (fields.isPresent() && holds.test(fields.get().map().get(field))) found.add(record);
    }
    return found.stream().mapToInt(Integer::intValue);
  }

  private static boolean has(RecordTable t, int row, int number) {
    for (int f = t.fieldFrom(row); f < t.fieldFrom(row + 1); f++)
      if (t.fieldNumber(f) == number) return true;
    return false;
  }

  private static Plugin.Record read(RecordTable t, int row, Bytes bytes) {
    try {
      return t.record(row, bytes);
    } catch (IOException e) {
      throw RecordIndex.unreadable(t.name(), e);
    }
  }

  /** What a value must be like; a list is like that when one of its items is. */
  private Predicate<Value> test(String operator, String wanted) {
    Optional<Double> number = number(wanted);
    String text = PathCase.fold(wanted);
    return v -> {
      if (v == null) return false;
      if (v instanceof Value.Array a && !operator.equals("!="))
        return a.items().stream().anyMatch(test(operator, wanted));
      Optional<Double> n =
          v instanceof Value.Int i
              ? Optional.of((double) i.value())
              : v instanceof Value.Real r ? Optional.of(r.value()) : Optional.empty();
      if (n.isPresent() && number.isPresent()) {
        int order = Double.compare(n.get() + 0.0, number.get() + 0.0);
        return holds(operator, order);
      }
      if (operator.equals("=") || operator.equals("!=")) {
        boolean same = says(v, text);
        return same == operator.equals("=");
      }
      return false;
    };
  }

  private static Optional<Double> number(String text) {
    try {
      return Optional.of(Double.valueOf(text));
    } catch (NumberFormatException e) {
      return Optional.empty();
    }
  }

  private static boolean holds(String operator, int order) {
    return switch (operator) {
      case "<" -> order < 0;
      case "<=" -> order <= 0;
      case ">" -> order > 0;
      case ">=" -> order >= 0;
      case "!=" -> order != 0;
      default -> order == 0;
    };
  }

  private boolean says(Value v, String text) {
    if (v instanceof Value.Text t) return PathCase.fold(t.value()).equals(text);
    if (v instanceof Value.Truth t) return text.equals(t.value() ? "yes" : "no") || same(v, text);
    if (v instanceof Ref r) {
      int record = index.find(r);
      return PathCase.fold(r.toString()).equals(text)
          || record >= 0 && PathCase.fold(index.label(record)).equals(text);
    }
    return same(v, text);
  }

  private static boolean same(Value v, String text) {
    return PathCase.fold(PluginText.node(v).toString()).equals(text);
  }

  /** A plugin whose version of a record leads to another record. */
  public record Referrer(int record, int position, boolean used) {}

  /** Who refers to a record, in load order. Cost: linear in all references. */
  public List<Referrer> referrers(int record) {
    Ref key = index.key(record);
    return IntStream.range(0, index.pluginCount())
        .parallel()
        .boxed()
        .flatMap(p -> referrersIn(p, key).stream())
        .toList();
  }

  private List<Referrer> referrersIn(int position, Ref key) {
    RecordTable t = index.table(position);
    int owner = ownerIn(t, key.owner());
    if (owner < 0) return List.of();
    List<Referrer> found = new ArrayList<>();
    for (int row : t.rowsReferringTo(owner, key.id())) {
      int from = index.recordAt(position, row);
      if (from >= 0) found.add(new Referrer(from, position, index.usedPosition(from) == position));
    }
    return found;
  }

  private static int ownerIn(RecordTable t, String plugin) {
    String folded = PathCase.fold(plugin);
    for (int o = 0; o < t.ownerCount(); o++)
      if (PathCase.fold(t.ownerName(o)).equals(folded)) return o;
    return -1;
  }

  /** The records that a version leads to, each once; -1 for one that is not there. */
  public int[] references(int position, int row) {
    RecordTable t = index.table(position);
    return IntStream.range(t.refFrom(row), t.refFrom(row + 1))
        .map(
            ref -> {
              int owner = index.position(t.ownerName(t.refOwner(ref)));
              return owner < 0 ? -1 : index.find(owner, t.refId(ref));
            })
        .distinct()
        .toArray();
  }

  /** How many records there are of each type. */
  public Map<String, Integer> types() {
    Map<String, Integer> counts = new TreeMap<>();
    for (int p = 0; p < index.pluginCount(); p++) {
      RecordTable t = index.table(p);
      for (int row = 0; row < t.size(); row++)
        if (!index.isOverride(p, row)) counts.merge(t.type(row), 1, Integer::sum);
    }
    return counts;
  }
}
