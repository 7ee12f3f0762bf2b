package ironing.core.documents;

import ironing.core.plugin.Value;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What the values of XML records do not tell and a writer has to know: which names are attributes,
 * and what the items of lists are called. By the names that lead there, from the type on.
 */
final class Markup {
  /** The header's key under which a plugin keeps it. */
  static final String HEADER = "(markup)";

  private final TreeSet<String> attributes = new TreeSet<>();
  private final TreeMap<String, String> items = new TreeMap<>();

  void attribute(String path) {
    attributes.add(path);
  }

  void items(String path, String name) {
    items.putIfAbsent(path, name);
  }

  boolean isAttribute(String path) {
    return attributes.contains(path);
  }

  /** What an item of a list is called. */
  String item(String path) {
    return items.getOrDefault(path, "item");
  }

  boolean isEmpty() {
    return attributes.isEmpty() && items.isEmpty();
  }

  /** As a header keeps it. */
  Value asValue() {
    Map<String, Value> named = new LinkedHashMap<>();
    items.forEach((path, name) -> named.put(path, new Value.Text(name)));
    List<Value> all = attributes.stream().<Value>map(Value.Text::new).toList();
    return new Value.Array(List.of(new Value.Array(all), new Value.Fields(named)));
  }

  /** Takes in what a plugin's header keeps. */
  void add(Value kept) {
    if (!(kept instanceof Value.Array a) || a.items().size() != 2) return;
    ((Value.Array) a.items().get(0)).items().forEach(v -> attributes.add(((Value.Text) v).value()));
    ((Value.Fields) a.items().get(1))
        .map()
        .forEach((path, name) -> items.putIfAbsent(path, ((Value.Text) name).value()));
  }
}
