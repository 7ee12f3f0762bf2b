package ironing.core.mends;

import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.RecordIndex;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Which number every record of the merged plugins gets in the one that they become. A number that
 * is free stays; of several with one number the target keeps it, else the one that loads first, and
 * the others get numbers above all, in load order.
 *
 * <p>Invariant: no two records get one number, and a reference that led nowhere still does.
 *
 * <p>Threads: immutable. Cost: linear in the records and references of the merged plugins.
 */
public final class Renumbering {
  private final String target;
  private final Map<String, Numbers> bySource = new HashMap<>();
  // nearly all references write a name as its file does: they need no folding
  private final Map<String, Numbers> asWritten = new HashMap<>();
  private final Set<String> names = new HashSet<>();
  private final int longestName;
  private int nextId = 1;
  private int nowhere;

  /** One plugin's numbers: old ones ascending, and the new ones beside them. */
  private static final class Numbers {
    final String name;
    int[] old;
    int[] fresh;

    Numbers(String name, int[] old) {
      this.name = name;
      this.old = old;
      this.fresh = new int[old.length];
    }

    // most plugins number their records without a gap: the place is the number
    private int at(int id) {
      return id <= old.length && old[id - 1] == id ? id - 1 : Arrays.binarySearch(old, id);
    }

    boolean has(int id) {
      return at(id) >= 0;
    }

    int of(int id) {
      int at = at(id);
      return at < 0 ? -1 : fresh[at];
    }
  }

  /** A record under its old key and its new one. */
  public record Moved(Ref from, Ref to) {}

  /**
   * @param sources places in the order of the index
   * @param target the file name of the plugin that they become
   */
  Renumbering(RecordIndex index, List<Integer> sources, String target) {
    this.target = target;
    for (int p = 0; p < index.pluginCount(); p++) names.add(PathCase.fold(index.name(p)));
    longestName = names.stream().mapToInt(String::length).max().orElse(0);
    List<Numbers> inOrder = new ArrayList<>();
    for (int p : sources) {
      RecordTable t = index.table(p);
      int[] ids = new int[t.size() - t.ownFrom()];
      for (int i = 0; i < ids.length; i++) ids[i] = t.id(t.ownFrom() + i);
      Numbers n = new Numbers(t.name(), ids);
      bySource.put(PathCase.fold(t.name()), n);
      asWritten.put(t.name(), n);
      if (PathCase.fold(t.name()).equals(PathCase.fold(target))) inOrder.add(0, n);
      else inOrder.add(n);
    }
    for (int p : sources) addNowhere(index.table(p));
    give(inOrder);
  }

  // a reference to a record that is not there must not lead to another's record afterwards
  private void addNowhere(RecordTable t) {
    Map<Numbers, Set<Integer>> missing = new LinkedHashMap<>();
    Numbers[] byOwner = new Numbers[t.ownerCount()];
    for (int o = 0; o < byOwner.length; o++)
      byOwner[o] = bySource.get(PathCase.fold(t.ownerName(o)));
    for (int ref = 0; ref < t.refFrom(t.size()); ref++) {
      Numbers n = byOwner[t.refOwner(ref)];
      if (n != null && !n.has(t.refId(ref)))
        missing.computeIfAbsent(n, k -> new HashSet<>()).add(t.refId(ref));
    }
    missing.forEach(
        (n, ids) -> {
          int[] all = Arrays.copyOf(n.old, n.old.length + ids.size());
          int at = n.old.length;
          for (int id : ids) all[at++] = id;
          Arrays.sort(all);
          n.old = all;
          n.fresh = new int[all.length];
        });
  }

  private void give(List<Numbers> inOrder) {
    BitSet taken = new BitSet();
    for (Numbers n : inOrder) {
      for (int i = 0; i < n.old.length; i++) {
        if (taken.get(n.old[i])) continue;
        taken.set(n.old[i]);
        n.fresh[i] = n.old[i];
      }
    }
    int next = taken.length() == 0 ? 1 : taken.length();
    for (Numbers n : inOrder) {
      for (int i = 0; i < n.old.length; i++) {
        if (n.fresh[i] != 0) continue;
        if (next > Plugin.MAX_ID) next = taken.nextClearBit(1);
        n.fresh[i] = next;
        taken.set(next);
        next = next + 1 > Plugin.MAX_ID ? next + 1 : taken.nextClearBit(next + 1);
      }
    }
    nextId = Math.max(1, taken.length());
    nowhere = nextId <= Plugin.MAX_ID ? nextId : taken.nextClearBit(1);
  }

  /** Above every number that is given. */
  public int nextId() {
    return nextId;
  }

  /** Whether every number is one that a plugin may have. */
  boolean fits() {
    return nextId <= Plugin.MAX_ID + 1;
  }

  /** All records of one of the plugins. */
  public List<Moved> of(String source) {
    Numbers n = bySource.get(PathCase.fold(source));
    List<Moved> all = new ArrayList<>();
    for (int i = 0; n != null && i < n.old.length; i++)
      all.add(new Moved(new Ref(n.name, n.old[i]), new Ref(target, n.fresh[i])));
    return all;
  }

  /** How many records get another number than they had. */
  public int changed() {
    int changed = 0;
    for (Numbers n : bySource.values())
      for (int i = 0; i < n.old.length; i++) if (n.old[i] != n.fresh[i]) changed++;
    return changed;
  }

  boolean isMerged(String plugin) {
    return bySource.containsKey(PathCase.fold(plugin));
  }

  /** The new number of one of a plugin's records. */
  interface Lookup {
    int of(int id);
  }

  /** The numbers of one of the merged plugins; null for any other. */
  Lookup lookup(String plugin) {
    Numbers n = bySource.get(PathCase.fold(plugin));
    if (n == null) return null;
    return id -> {
      int to = n.of(id);
      return to < 0 ? nowhere : to;
    };
  }

  /** The key that a record has afterwards. */
  public Ref of(Ref key) {
    Numbers n = asWritten.get(key.owner());
    if (n == null) n = bySource.get(PathCase.fold(key.owner()));
    if (n == null) return key;
    int id = n.of(key.id());
    // a reference from elsewhere to a record that is not there goes on leading nowhere
    return new Ref(target, id < 0 ? nowhere : id);
  }

  /** A record as it is afterwards. */
  public Plugin.Record of(Plugin.Record r, RecordType type) {
    return new Plugin.Record(r.type(), of(r.key()), r.fields().map(f -> fields(f, type.fields())));
  }

  private Value.Fields fields(Value.Fields f, Map<String, Field> described) {
    Map<String, Value> map = new LinkedHashMap<>();
    f.map()
        .forEach((name, v) -> map.put(name, value(v, described.getOrDefault(name, Field.WHOLE))));
    return new Value.Fields(map);
  }

  private Value value(Value v, Field field) {
    if (v instanceof Ref r) return of(r);
    if (v instanceof Value.Text t && field.holdsIds()) return new Value.Text(text(t.value()));
    if (v instanceof Value.Fields f) return fields(f, field.fields());
    if (v instanceof Value.Array a) {
      Field item =
          field.kind() == RecordType.Kind.ROWS ? field.row() : field.of().orElse(Field.WHOLE);
      return new Value.Array(a.items().stream().map(i -> value(i, item)).toList());
    }
    return v;
  }

  /** A text with the keys in it renumbered; the longest plugin name before a number counts. */
  public String text(String text) {
    StringBuilder out = new StringBuilder();
    int done = 0;
    for (int slash = text.indexOf('/'); slash >= 0; slash = text.indexOf('/', slash + 1)) {
      int end = slash + 1;
      while (end < text.length() && Character.digit(text.charAt(end), 10) >= 0) end++;
      if (end == slash + 1 || end > slash + 9 || text.charAt(slash + 1) == '0') continue;
      Optional<String> name = nameBefore(text, done, slash);
      if (name.isEmpty() || !isMerged(name.get())) continue;
      Ref to = of(new Ref(name.get(), Integer.parseInt(text.substring(slash + 1, end))));
      out.append(text, done, slash - name.get().length()).append(to);
      done = end;
    }
    return out.append(text, done, text.length()).toString();
  }

  private Optional<String> nameBefore(String text, int from, int to) {
    for (int start = Math.max(from, to - longestName); start < to; start++) {
      String name = text.substring(start, to);
      if (names.contains(PathCase.fold(name))) return Optional.of(name);
    }
    return Optional.empty();
  }
}
