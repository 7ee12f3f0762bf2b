package ironing.core.query;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A JSONPath expression (RFC 9535): names, indexes, wildcards, slices and filters. Descendants
 * ({@code ..}) and functions are refused: a definition that needs to look everywhere says where
 * instead.
 *
 * <p>Threads: immutable. Cost: the places that it looks at, which {@link Steps} bounds.
 */
public final class JsonPath {
  private final String text;
  private final List<List<Selector>> segments;

  JsonPath(String text, List<List<Selector>> segments) {
    this.text = text;
    this.segments = List.copyOf(segments);
  }

  /**
   * @throws QuerySyntax with the place in the expression
   */
  public static JsonPath of(String text) {
    return new JsonPathReader(text).whole();
  }

  /** A value that was found, and where. */
  public static final class Hit {
    private final JsonNode value;
    private final Hit parent;
    private final String name;
    private final int index;

    private Hit(JsonNode value, Hit parent, String name, int index) {
      this.value = value;
      this.parent = parent;
      this.name = name;
      this.index = index;
    }

    public JsonNode value() {
      return value;
    }

    /** The name that it has in its object; empty for an element of an array, and for the root. */
    public Optional<String> lastName() {
      return Optional.ofNullable(name);
    }

    /** Its normalized path (RFC 9535, 2.7). */
    public String place() {
      if (parent == null) return "$";
      return name == null
          ? parent.place() + "[" + index + "]"
          : parent.place() + "['" + escaped(name) + "']";
    }
  }

  /** One way to choose among the children of a value. */
  sealed interface Selector {
    record Name(String name) implements Selector {}

    record Index(long index) implements Selector {}

    record Any() implements Selector {}

    record Slice(Optional<Long> from, Optional<Long> to, long step) implements Selector {}

    record Filter(JsonFilter filter) implements Selector {}
  }

  /** Everything that it matches, in the order of the document. */
  public List<Hit> find(JsonNode root, Steps steps) {
    return find(root, root, steps);
  }

  /** The first match; what a place holds that there is one of at the most. */
  public Optional<JsonNode> first(JsonNode root) {
    List<Hit> hits = find(root, new Steps());
    return hits.isEmpty() ? Optional.empty() : Optional.of(hits.get(0).value());
  }

  List<Hit> find(JsonNode root, JsonNode current, Steps steps) {
    List<Hit> hits = List.of(new Hit(current, null, null, 0));
    for (List<Selector> segment : segments) {
      List<Hit> next = new ArrayList<>();
      for (Hit h : hits) for (Selector s : segment) select(root, h, s, next, steps);
      hits = next;
    }
    return hits;
  }

  private static void select(JsonNode root, Hit at, Selector s, List<Hit> out, Steps steps) {
    JsonNode v = at.value();
    steps.take();
    if (s instanceof Selector.Name n) {
      if (v.isObject() && v.has(n.name())) out.add(new Hit(v.get(n.name()), at, n.name(), 0));
    } else if (s instanceof Selector.Index i) {
      long index = i.index() < 0 ? v.size() + i.index() : i.index();
      if (v.isArray() && index >= 0 && index < v.size()) element(at, (int) index, out);
    } else if (s instanceof Selector.Slice slice) {
      if (v.isArray()) slice(at, slice, out, steps);
    } else {
      for (Hit child : children(at, steps))
        if (!(s instanceof Selector.Filter f) || f.filter().holds(root, child.value(), steps))
          out.add(child);
    }
  }

  private static List<Hit> children(Hit at, Steps steps) {
    List<Hit> all = new ArrayList<>();
    JsonNode v = at.value();
    if (v.isArray()) {
      for (int i = 0; i < v.size(); i++) {
        steps.take();
        element(at, i, all);
      }
    } else if (v.isObject()) {
      for (Map.Entry<String, JsonNode> e : v.properties()) {
        steps.take();
        all.add(new Hit(e.getValue(), at, e.getKey(), 0));
      }
    }
    return all;
  }

  private static void slice(Hit at, Selector.Slice s, List<Hit> out, Steps steps) {
    int size = at.value().size();
    // as RFC 9535, 2.3.4.2 has it
    if (s.step() == 0) return;
    if (s.step() > 0) {
      long from = bounded(normal(s.from().orElse(0L), size), 0, size);
      long to = bounded(normal(s.to().orElse((long) size), size), 0, size);
      for (long i = from; i < to; i = plus(i, s.step())) {
        steps.take();
        element(at, (int) i, out);
      }
    } else {
      long from = bounded(normal(s.from().orElse(size - 1L), size), -1, size - 1L);
      long to = s.to().isEmpty() ? -1 : bounded(normal(s.to().get(), size), -1, size - 1L);
      for (long i = from; i > to; i = plus(i, s.step())) {
        steps.take();
        element(at, (int) i, out);
      }
    }
  }

  private static long plus(long at, long step) {
    long next = at + step;
    // a step that leaves the numbers leaves the array
    return step > 0 && next < at ? Long.MAX_VALUE : step < 0 && next > at ? Long.MIN_VALUE : next;
  }

  private static long normal(long i, int size) {
    return i >= 0 ? i : size + i;
  }

  private static long bounded(long i, long least, long most) {
    return Math.min(Math.max(i, least), most);
  }

  private static void element(Hit at, int index, List<Hit> out) {
    out.add(new Hit(at.value().get(index), at, null, index));
  }

  private static String escaped(String name) {
    StringBuilder out = new StringBuilder();
    for (int i = 0; i < name.length(); i++) {
      char c = name.charAt(i);
      switch (c) {
        case '\'' -> out.append("\\'");
        case '\\' -> out.append("\\\\");
        case '\b' -> out.append("\\b");
        case '\f' -> out.append("\\f");
        case '\n' -> out.append("\\n");
        case '\r' -> out.append("\\r");
        case '\t' -> out.append("\\t");
        default -> {
          if (c < 0x20) out.append(String.format("\\u%04x", (int) c));
          else out.append(c);
        }
      }
    }
    return out.toString();
  }

  /** Whether it can match one place at the most (RFC 9535, 2.3.5.1: a singular query). */
  public boolean isSingular() {
    return segments.stream()
        .allMatch(
            s ->
                s.size() == 1
                    && (s.get(0) instanceof Selector.Name || s.get(0) instanceof Selector.Index));
  }

  /** The names that lead to the place, where it is made of nothing else. */
  public Optional<List<String>> names() {
    return names(segments);
  }

  /** The names that lead to a list of which it takes every item; empty for any other. */
  public Optional<List<String>> namesOfList() {
    int last = segments.size() - 1;
    if (last < 0 || segments.get(last).size() != 1) return Optional.empty();
    if (!(segments.get(last).get(0) instanceof Selector.Any)) return Optional.empty();
    return names(segments.subList(0, last));
  }

  private static Optional<List<String>> names(List<List<Selector>> of) {
    List<String> names = new ArrayList<>();
    for (List<Selector> s : of) {
      if (s.size() != 1 || !(s.get(0) instanceof Selector.Name n)) return Optional.empty();
      names.add(n.name());
    }
    return Optional.of(names);
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof JsonPath p && p.text.equals(text);
  }

  @Override
  public int hashCode() {
    return text.hashCode();
  }

  /** As it was written. */
  @Override
  public String toString() {
    return text;
  }
}
