package ironing.standins.game;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** All records after all plugins were applied in order: of each record the last version, whole. */
final class World {
  static final List<String> OWN = List.of("Skerry.plug", "Isles.plug");
  private static final String LIST = "settings/roster.txt";
  static final int SLOTS = 96;
  static final int SLOTS_FOR_THE_SAVE = 1;

  /**
   * @param from the plugin whose version this is
   */
  record Current(String type, Map<String, Object> fields, String from, PluginFile.Ref key) {
    /** A field that must be a number; 0 when it is not there. */
    double number(String field) {
      Object v = fields.getOrDefault(field, 0.0);
      if (v instanceof Number n) return n.doubleValue();
      String text = from + " has “" + v + "” as the " + field + " of " + record() + ".";
      throw new GameFault("data-broken", text, "data/" + from, from, record());
    }

    String record() {
      return key.owner() + "/" + key.id();
    }

    String whence() {
      return record() + " as " + from + " has it";
    }
  }

  private final Map<String, Current> records = new LinkedHashMap<>();

  /** Reads the list, opens the crates, applies the plugins. Faults where the game would stop. */
  static World load(Path game, String version, DataFiles files, Journal journal)
      throws IOException {
    List<PluginFile> plugins = new ArrayList<>();
    for (String name : order(game)) {
      DataFiles.Entry e = files.find(name);
      if (e == null) {
        String text = "The list names " + name + ", which is not in data.";
        throw new GameFault("plugin-missing", text, LIST, name, null);
      }
      plugins.add(new PluginFile(e.path().substring("data/".length()), e.bytes()));
    }
    // lower stages load first, whatever the list says; within a stage it decides
    List<PluginFile> later = plugins.subList(OWN.size(), plugins.size());
    later.sort(Comparator.comparingLong(PluginFile::stage));
    for (int i = 0; i < plugins.size(); i++) {
      PluginFile p = plugins.get(i);
      int slot = i + 1;
      String sha256 = DataFiles.sha256(p.bytes());
      journal.event(
          "read",
          e ->
              e.put("path", "data/" + p.name)
                  .put("sha256", sha256)
                  .put("plugin", p.name)
                  .put("slot", slot));
    }
    check(plugins, version);
    crates(files, plugins);
    World world = new World();
    for (PluginFile p : plugins) world.apply(p, journal);
    world.checkReferences();
    return world;
  }

  static List<String> order(Path game) throws IOException {
    List<String> names = new ArrayList<>(OWN);
    Path list = game.resolve(LIST);
    if (!Files.exists(list)) return names;
    for (String line : Files.readAllLines(list)) {
      if (line.startsWith("use ")) names.add(line.substring(4).trim());
      else if (!line.isBlank() && !line.startsWith("skip "))
        throw new GameFault(
            "list-broken",
            "A line of the roster is neither use nor skip: “" + line + "”.",
            LIST,
            null,
            null);
    }
    return names;
  }

  private static void check(List<PluginFile> plugins, String version) {
    if (plugins.size() > SLOTS - SLOTS_FOR_THE_SAVE) {
      throw new GameFault(
          "no-slot",
          plugins.size() + " plugins, and only " + (SLOTS - SLOTS_FOR_THE_SAVE) + " slots.",
          null,
          plugins.get(SLOTS - SLOTS_FOR_THE_SAVE).name,
          null);
    }
    Map<String, Integer> at = new HashMap<>();
    for (int i = 0; i < plugins.size(); i++) at.put(DataFiles.key(plugins.get(i).name), i);
    for (int i = 0; i < plugins.size(); i++) {
      PluginFile p = plugins.get(i);
      if (p.header.get("game") instanceof String range && !fits(version, range)) {
        throw new GameFault(
            "wrong-game-version",
            p.name + " wants the game in version " + range + "; this is " + version + ".",
            "data/" + p.name,
            p.name,
            null);
      }
      for (String m : p.masters) {
        Integer where = at.get(DataFiles.key(m));
        if (where == null)
          throw new GameFault(
              "master-missing",
              p.name + " needs " + m + ", which is not loaded.",
              "data/" + p.name,
              p.name,
              null);
        if (where > i)
          throw new GameFault(
              "master-late",
              p.name + " needs " + m + ", which loads later.",
              "data/" + p.name,
              p.name,
              null);
      }
    }
  }

  /** Numbers between points, compared one by one; comparisons joined by blanks. */
  static boolean fits(String version, String range) {
    for (String part : range.trim().split("\\s+")) {
      String number = part.replaceFirst("^[<>=]+", "");
      int c = compare(version, number);
      String op = part.substring(0, part.length() - number.length());
      boolean ok =
          switch (op) {
            case "<" -> c < 0;
            case "<=" -> c <= 0;
            case ">" -> c > 0;
            case ">=" -> c >= 0;
            default -> number.equals("*") || c == 0;
          };
      if (!ok) return false;
    }
    return true;
  }

  private static int compare(String a, String b) {
    String[] x = a.split("\\."), y = b.split("\\.");
    for (int i = 0; i < Math.max(x.length, y.length); i++) {
      int p = i < x.length && x[i].matches("\\d+") ? Integer.parseInt(x[i]) : 0;
      int q = i < y.length && y[i].matches("\\d+") ? Integer.parseInt(y[i]) : 0;
      if (p != q) return Integer.compare(p, q);
    }
    return 0;
  }

  /**
   * First the crates nobody names, the game's own before others; then named ones as their plugins
   * load. A crate that only a plugin names that is off stays closed.
   */
  private static void crates(DataFiles files, List<PluginFile> plugins) throws IOException {
    Set<String> named = new LinkedHashSet<>(), spokenFor = new LinkedHashSet<>();
    for (String name : files.plugins()) {
      List<String> packs = PluginFile.packsOf(name, files.find(name).bytes());
      packs.forEach(c -> spokenFor.add(DataFiles.key(c)));
    }
    for (PluginFile p : plugins) {
      for (String c : p.packs()) {
        named.remove(DataFiles.key(c));
        named.add(DataFiles.key(c));
      }
    }
    List<String> free = files.crates().stream().filter(c -> !spokenFor.contains(c)).toList();
    free.stream().filter(c -> c.equals("base.crate")).forEach(files::open);
    free.stream().filter(c -> !c.equals("base.crate")).forEach(files::open);
    named.forEach(files::open);
  }

  private void apply(PluginFile p, Journal journal) {
    for (PluginFile.Item r : p.records) {
      Current known = records.get(r.key().key());
      boolean own = DataFiles.key(r.key().owner()).equals(DataFiles.key(p.name));
      if (!own && known == null) {
        journal.event(
            "warning",
            e ->
                e.put("code", "record-unknown")
                    .put(
                        "text",
                        p.name + " changes a record that " + r.key().owner() + " does not have.")
                    .put("plugin", p.name)
                    .put("record", r.key().owner() + "/" + r.key().id()));
        continue;
      }
      records.put(r.key().key(), new Current(r.type(), r.fields(), p.name, r.key()));
    }
  }

  private void checkReferences() {
    for (Current c : records.values()) if (c.fields() != null) checkValue(c, c.fields());
  }

  private void checkValue(Current c, Object v) {
    if (v instanceof PluginFile.Ref r) {
      Current target = records.get(r.key());
      if (target == null || target.fields() == null) {
        throw new GameFault(
            "reference-dangling",
            c.from()
                + ": "
                + c.fields().getOrDefault("name", c.key().id())
                + " refers to "
                + r.owner()
                + "/"
                + r.id()
                + ", which nobody defines.",
            "data/" + c.from(),
            c.from(),
            c.key().owner() + "/" + c.key().id());
      }
    } else if (v instanceof Map<?, ?> m) m.values().forEach(i -> checkValue(c, i));
    else if (v instanceof List<?> l) l.forEach(i -> checkValue(c, i));
  }

  List<Current> ofType(String type) {
    return records.values().stream()
        .filter(c -> c.type().equals(type) && c.fields() != null)
        .toList();
  }

  Current get(Object ref) {
    return ref instanceof PluginFile.Ref r ? records.get(r.key()) : null;
  }

  String name(Object ref) {
    Current c = get(ref);
    return c == null ? "nowhere" : String.valueOf(c.fields().get("name"));
  }
}
