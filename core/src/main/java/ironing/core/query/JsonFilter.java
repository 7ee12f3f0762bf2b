package ironing.core.query;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Optional;

/** What a filter of a JSONPath expression asks of a value (RFC 9535, 2.3.5). */
sealed interface JsonFilter {
  boolean holds(JsonNode root, JsonNode current, Steps steps);

  record Or(List<JsonFilter> any) implements JsonFilter {
    @Override
    public boolean holds(JsonNode root, JsonNode current, Steps steps) {
      return any.stream().anyMatch(f -> f.holds(root, current, steps));
    }
  }

  record And(List<JsonFilter> all) implements JsonFilter {
    @Override
    public boolean holds(JsonNode root, JsonNode current, Steps steps) {
      return all.stream().allMatch(f -> f.holds(root, current, steps));
    }
  }

  record Not(JsonFilter inner) implements JsonFilter {
    @Override
    public boolean holds(JsonNode root, JsonNode current, Steps steps) {
      return !inner.holds(root, current, steps);
    }
  }

  /** Whether a query matches anything. */
  record Exists(Inner query) implements JsonFilter {
    @Override
    public boolean holds(JsonNode root, JsonNode current, Steps steps) {
      return !query.path().find(root, query.from(root, current), steps).isEmpty();
    }
  }

  /** Two sides that are compared; {@code how} is one of == != < <= > >=. */
  record Compare(Side left, String how, Side right) implements JsonFilter {
    @Override
    public boolean holds(JsonNode root, JsonNode current, Steps steps) {
      Optional<JsonNode> a = left.value(root, current, steps),
          b = right.value(root, current, steps);
      return switch (how) {
        case "==" -> same(a, b);
        case "!=" -> !same(a, b);
        case "<" -> less(a, b);
        case ">" -> less(b, a);
        case "<=" -> less(a, b) || same(a, b);
        default -> less(b, a) || same(a, b);
      };
    }

    private static boolean same(Optional<JsonNode> a, Optional<JsonNode> b) {
      if (a.isEmpty() || b.isEmpty()) return a.isEmpty() && b.isEmpty();
      return same(a.get(), b.get());
    }

    private static boolean same(JsonNode a, JsonNode b) {
      if (a.isNumber() && b.isNumber()) return a.decimalValue().compareTo(b.decimalValue()) == 0;
      if (a.isArray() && b.isArray()) {
        if (a.size() != b.size()) return false;
        for (int i = 0; i < a.size(); i++) if (!same(a.get(i), b.get(i))) return false;
        return true;
      }
      if (a.isObject() && b.isObject()) {
        if (a.size() != b.size()) return false;
        for (var e : a.properties())
          if (!b.has(e.getKey()) || !same(e.getValue(), b.get(e.getKey()))) return false;
        return true;
      }
      return a.equals(b);
    }

    private static boolean less(Optional<JsonNode> a, Optional<JsonNode> b) {
      if (a.isEmpty() || b.isEmpty()) return false;
      JsonNode x = a.get(), y = b.get();
      if (x.isNumber() && y.isNumber()) return x.decimalValue().compareTo(y.decimalValue()) < 0;
      return x.isTextual() && y.isTextual() && before(x.textValue(), y.textValue());
    }

    // by code points, as RFC 9535 has it; Java compares halves of pairs
    private static boolean before(String a, String b) {
      int[] x = a.codePoints().toArray(), y = b.codePoints().toArray();
      return java.util.Arrays.compare(x, y) < 0;
    }
  }

  /** A value that a comparison has on one of its sides. */
  sealed interface Side {
    Optional<JsonNode> value(JsonNode root, JsonNode current, Steps steps);
  }

  record Literal(JsonNode is) implements Side {
    @Override
    public Optional<JsonNode> value(JsonNode root, JsonNode current, Steps steps) {
      return Optional.of(is);
    }
  }

  /**
   * A query inside of a filter.
   *
   * @param absolute whether it begins at the root, with $, and not at the value at hand, with @
   */
  record Inner(JsonPath path, boolean absolute) implements Side {
    JsonNode from(JsonNode root, JsonNode current) {
      return absolute ? root : current;
    }

    @Override
    public Optional<JsonNode> value(JsonNode root, JsonNode current, Steps steps) {
      List<JsonPath.Hit> hits = path.find(root, from(root, current), steps);
      return hits.isEmpty() ? Optional.empty() : Optional.of(hits.get(0).value());
    }
  }
}
