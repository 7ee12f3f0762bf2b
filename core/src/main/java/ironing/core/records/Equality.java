package ironing.core.records;

import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.path.PathCase;
import ironing.core.plugin.Value;
import java.math.BigDecimal;
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
    if (v instanceof Value.Array a) {
      Field of = field.of().orElse(Field.WHOLE);
      Field item = field.kind() == Kind.ROWS ? rowField(field) : of;
      return a.items().stream().map(i -> canonical(item, i)).toList();
    }
    if (v instanceof Value.Fields f) {
      Map<String, Object> map = new TreeMap<>();
      f.map()
          .forEach((k, i) -> map.put(k, canonical(field.fields().getOrDefault(k, Field.WHOLE), i)));
      return map;
    }
    return v;
  }

  private static Field rowField(Field rows) {
    return new Field(
        Kind.WHOLE,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        rows.fields());
  }
}
