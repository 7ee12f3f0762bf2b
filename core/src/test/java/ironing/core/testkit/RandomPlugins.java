package ironing.core.testkit;

import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;

/**
 * Small sets of plugins that make sense together: masters load first, overrides are of records that
 * there are, references lead somewhere. Values come from few, so that many collide, agree and take
 * one another back.
 */
public final class RandomPlugins {
  private static final String[] TYPES = {"vessel", "vessel", "vessel", "harbour"};
  private final Random random;
  private final Map<Ref, String> types = new LinkedHashMap<>();

  private final boolean removals;

  private RandomPlugins(long seed, boolean removals) {
    this.random = new Random(seed);
    this.removals = removals;
  }

  /**
   * @param count how many, {@code Base.plug} the first
   * @return in an order in which they load
   */
  public static List<Plugin> of(long seed, int count) {
    return new RandomPlugins(seed, true).plugins(count);
  }

  /** The same with nothing removed, so that a game that follows every reference can read them. */
  public static List<Plugin> ofWhole(long seed, int count) {
    return new RandomPlugins(seed, false).plugins(count);
  }

  private List<Plugin> plugins(int count) {
    List<Plugin> all = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      String name = i == 0 ? "Base.plug" : "P" + i + ".plug";
      List<String> masters = new ArrayList<>();
      for (int m = 0; m < i; m++)
        if (m == 0 || random.nextInt(3) == 0) masters.add(all.get(m).name());
      all.add(plugin(name, masters, i == 0 ? 6 : random.nextInt(4)));
    }
    return all;
  }

  private Plugin plugin(String name, List<String> masters, int own) {
    Map<Ref, Plugin.Record> records = new LinkedHashMap<>();
    List<Ref> seen = new ArrayList<>();
    types.keySet().stream().filter(k -> masters.contains(k.owner())).forEach(seen::add);
    for (int id = 1; id <= own; id++) {
      Ref key = new Ref(name, id);
      types.put(key, TYPES[random.nextInt(TYPES.length)]);
      seen.add(key);
    }
    for (Ref key : seen) {
      boolean mine = key.owner().equals(name);
      if (!mine && random.nextInt(3) > 0) continue;
      boolean removed = removals && !mine && random.nextInt(8) == 0;
      Optional<Value.Fields> fields = removed ? Optional.empty() : Optional.of(fields(seen));
      records.put(key, new Plugin.Record(types.get(key), key, fields));
    }
    return new Plugin(name, Header.of(5, masters, own + 1), new ArrayList<>(records.values()));
  }

  private Value.Fields fields(List<Ref> known) {
    Map<String, Value> fields = new TreeMap<>();
    if (random.nextInt(4) > 0)
      fields.put(
          "speed",
          random.nextBoolean() ? new Value.Int(1 + random.nextInt(2)) : new Value.Real(1.0));
    if (random.nextInt(4) > 0)
      fields.put("name", new Value.Text(random.nextBoolean() ? "Aud" : "Sunn"));
    if (random.nextInt(3) > 0)
      fields.put("mesh", new Value.Text(random.nextBoolean() ? "a/B.obj" : "A/b.obj"));
    if (random.nextInt(2) > 0) fields.put("crew", list(known));
    if (random.nextInt(3) == 0) fields.put("route", list(known));
    if (random.nextInt(3) == 0) fields.put("hold", rows(known));
    if (random.nextInt(5) == 0) fields.put("other", new Value.Fields(Map.of("a", ref(known))));
    if (random.nextInt(6) == 0) fields.put("none", Value.NULL);
    if (random.nextInt(6) == 0) fields.put("note", new Value.Text("see " + ref(known)));
    return new Value.Fields(fields);
  }

  private Value.Ref ref(List<Ref> known) {
    return known.get(random.nextInt(Math.min(known.size(), 3)));
  }

  private Value list(List<Ref> known) {
    List<Value> items = new ArrayList<>();
    for (int i = random.nextInt(4); i > 0; i--)
      items.add(random.nextInt(4) == 0 ? new Value.Int(random.nextInt(2)) : ref(known));
    return new Value.Array(items);
  }

  private Value rows(List<Ref> known) {
    List<Value> rows = new ArrayList<>();
    for (int i = random.nextInt(3); i > 0; i--) {
      Map<String, Value> row = new TreeMap<>();
      if (random.nextInt(8) > 0) row.put("goods", ref(known));
      row.put("tonnes", new Value.Int(random.nextInt(2)));
      rows.add(new Value.Fields(row));
    }
    return new Value.Array(rows);
  }
}
