package ironing.core.records;

import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * All versions of all records, in load order.
 *
 * <p>Cost: linear in the records of the plugins given. Threads: immutable.
 */
public final class RecordVersions {
  /**
   * One plugin's version of a record; without fields it removes it. {@code position} is its place
   * in the order, from 0.
   */
  public record Version(Plugin plugin, int position, String type, Optional<Value.Fields> fields) {}

  /** A record that makes no sense: never combined. */
  public record Odd(Ref key, String plugin, String reason) {}

  private final Map<Ref, List<Version>> versions = new LinkedHashMap<>();
  private final List<Odd> odd = new ArrayList<>();

  /**
   * @param inOrder the plugins that are on, as the game reads them
   */
  public RecordVersions(List<Plugin> inOrder) {
    Map<String, Integer> position = new HashMap<>();
    for (int i = 0; i < inOrder.size(); i++) position.put(PathCase.fold(inOrder.get(i).name()), i);
    for (int i = 0; i < inOrder.size(); i++) {
      Plugin p = inOrder.get(i);
      for (Plugin.Record r : p.records()) {
        boolean own = PathCase.fold(r.key().owner()).equals(PathCase.fold(p.name()));
        List<Version> known = versions.get(r.key());
        if (!own && known == null) {
          odd.add(
              new Odd(
                  r.key(),
                  p.name(),
                  r.key().owner()
                      + " has no record "
                      + r.key().id()
                      + ", or loads after "
                      + p.name()
                      + "."));
        } else if (!own && !known.get(0).type().equals(r.type())) {
          odd.add(
              new Odd(
                  r.key(),
                  p.name(),
                  "It is a "
                      + known.get(0).type()
                      + " in "
                      + r.key().owner()
                      + " and a "
                      + r.type()
                      + " in "
                      + p.name()
                      + "."));
        } else {
          versions
              .computeIfAbsent(r.key(), k -> new ArrayList<>())
              .add(new Version(p, i, r.type(), r.fields()));
        }
      }
    }
  }

  /** The versions of a record from the owner's on; empty when nobody defines it. */
  public List<Version> of(Ref key) {
    return versions.getOrDefault(key, List.of());
  }

  /** The keys of records that more than one plugin changes, beside the owner. */
  public List<Ref> contested() {
    return versions.entrySet().stream()
        .filter(e -> e.getValue().size() > 2)
        .map(Map.Entry::getKey)
        .toList();
  }

  /** How many records a plugin overrides, that is, has without owning them. */
  public Map<String, Integer> overridesByPlugin() {
    Map<String, Integer> count = new HashMap<>();
    versions
        .values()
        .forEach(
            list ->
                list.stream()
                    .skip(1)
                    .forEach(v -> count.merge(PathCase.fold(v.plugin().name()), 1, Integer::sum)));
    return count;
  }

  /** The keys of all records that make sense, in the order in which they are met. */
  public Set<Ref> keys() {
    return Collections.unmodifiableSet(versions.keySet());
  }

  public List<Odd> odd() {
    return List.copyOf(odd);
  }

  public int size() {
    return versions.size();
  }

  /** The last version of a record: the one the game uses, whole. */
  public Optional<Version> used(Ref key) {
    List<Version> all = of(key);
    return all.isEmpty() ? Optional.empty() : Optional.of(all.get(all.size() - 1));
  }
}
