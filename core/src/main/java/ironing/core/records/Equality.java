package ironing.core.records;

import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.path.PathCase;
import ironing.core.plugin.Value;
import java.math.BigDecimal;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * When two values of a field are the same: numbers by value (1 = 1.0), paths as game paths, the
 * rest exactly. A missing field is an empty Optional, and null is a value.
 */
final class Equality {
  private final PathCase pathCase;

  Equality(PathCase pathCase) {
    this.pathCase = pathCase;
  }

  boolean same(Field field, Optional<Value> a, Optional<Value> b) {
    return a.map(v -> canonical(field, v)).equals(b.map(v -> canonical(field, v)));
  }

  boolean same(Field field, Value a, Value b) {
    return canonical(field, a).equals(canonical(field, b));
  }

  /**
   * A form in which equal values are equal objects, at any depth; also the key of a set's element.
   */
  Object canonical(Field field, Value v) {
    if (v instanceof Value.Int i) return BigDecimal.valueOf(i.value()).stripTrailingZeros();
    if (v instanceof Value.Real r) return new BigDecimal(r.value()).stripTrailingZeros();
    if (field.kind() == Kind.PATH && v instanceof Value.Text t) return pathCase.key(t.value());
    if (v instanceof Value.Array a) return canonicalList(field, a);
    if (v instanceof Value.Fields f) {
      Map<String, Object> map = new TreeMap<>();
      f.map()
          .forEach((k, i) -> map.put(k, canonical(field.fields().getOrDefault(k, Field.WHOLE), i)));
      return map;
    }
    return v;
  }

  // The order of a set, and of rows that have keys, means nothing: another order is no change.
  private Object canonicalList(Field field, Value.Array a) {
    if (field.kind() == Kind.ROWS) {
      List<Object> rows = a.items().stream().map(i -> canonical(field.row(), i)).toList();
      return hasKeys(field, a.items()) ? new HashSet<>(rows) : rows;
    }
    Field of = field.of().orElse(Field.WHOLE);
    List<Object> items = a.items().stream().map(i -> canonical(of, i)).toList();
    return field.kind() == Kind.SET ? new HashSet<>(items) : items;
  }

  /**
   * Whether all rows have the field's key, and no two the same. Without that they are one whole.
   */
  boolean hasKeys(Field field, List<Value> rows) {
    if (field.key().isEmpty()) return false;
    for (Value v : rows) {
      if (!(v instanceof Value.Fields f) || !f.map().containsKey(field.key().get())) return false;
    }
    return byKey(field, rows).size() == rows.size();
  }

  /** Rows by their key in canonical form, in their order. */
  Map<Object, Value.Fields> byKey(Field field, List<Value> rows) {
    String key = field.key().orElseThrow();
    Field keyField = field.fields().getOrDefault(key, Field.WHOLE);
    Map<Object, Value.Fields> map = new LinkedHashMap<>();
    for (Value v : rows) {
      Value.Fields row = (Value.Fields) v;
      map.put(canonical(keyField, row.map().get(key)), row);
    }
    return map;
  }
}
