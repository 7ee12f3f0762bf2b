package ironing.core.documents;

import ironing.core.plugin.Value;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What the values of records do not tell and a writer has to know: in which order the fields of a
 * type stand, and of XML which names are attributes and what the items of lists are called. By the
 * names that lead there, from the type on.
 */
final class Markup {
  /** The header's key under which a plugin keeps it. */
  static final String HEADER = "(markup)";

  // of more fields than this nobody keeps an order
  private static final int MOST_FIELDS = 200;

  private final TreeMap<String, Set<String>> fields = new TreeMap<>();
  private final TreeSet<String> attributes = new TreeSet<>();
  private final TreeMap<String, String> items = new TreeMap<>();

  void attribute(String path) {
    attributes.add(path);
  }

  void items(String path, String name) {
    items.putIfAbsent(path, name);
  }

  /** Notes the fields of a record as they stand in it. */
  void fields(String type, Collection<String> names) {
    Set<String> known = fields.computeIfAbsent(type, t -> new LinkedHashSet<>());
    if (known.size() < MOST_FIELDS) known.addAll(names);
  }

  /** The fields of a record in the order that the type has; unknown ones come last. */
  Map<String, Value> ordered(String type, Map<String, Value> of) {
    Map<String, Value> out = new LinkedHashMap<>();
    for (String name : fields.getOrDefault(type, Set.of()))
      if (of.containsKey(name)) out.put(name, of.get(name));
    of.forEach(out::putIfAbsent);
    return out;
  }

  boolean isAttribute(String path) {
    return attributes.contains(path);
  }

  /** What an item of a list is called. */
  String item(String path) {
    return items.getOrDefault(path, "item");
  }

  boolean isEmpty() {
    return attributes.isEmpty() && items.isEmpty() && fields.isEmpty();
  }

  /** As a header keeps it. */
  Value asValue() {
    Map<String, Value> named = new LinkedHashMap<>();
    items.forEach((path, name) -> named.put(path, new Value.Text(name)));
    Map<String, Value> orders = new LinkedHashMap<>();
    fields.forEach((type, names) -> orders.put(type, texts(names)));
    return new Value.Array(
        List.of(texts(attributes), new Value.Fields(named), new Value.Fields(orders)));
  }

  private static Value texts(Collection<String> all) {
    return new Value.Array(all.stream().<Value>map(Value.Text::new).toList());
  }

  /** Takes in what a plugin's header keeps. */
  void add(Value kept) {
    if (!(kept instanceof Value.Array a) || a.items().size() != 3) return;
    ((Value.Array) a.items().get(0)).items().forEach(v -> attributes.add(((Value.Text) v).value()));
    ((Value.Fields) a.items().get(2))
        .map()
        .forEach(
            (type, names) ->
                fields(
                    type,
                    ((Value.Array) names)
                        .items().stream().map(n -> ((Value.Text) n).value()).toList()));
    ((Value.Fields) a.items().get(1))
        .map()
        .forEach((path, name) -> items.putIfAbsent(path, ((Value.Text) name).value()));
  }
}
