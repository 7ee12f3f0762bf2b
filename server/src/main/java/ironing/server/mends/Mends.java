package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder;
import ironing.core.mends.PatchBuilder;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginCodec;
import ironing.core.records.Collision;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.ModStore;
import ironing.server.library.ModStore.BuiltFile;
import ironing.server.library.ModStore.Made;
import ironing.server.library.ModStore.Place;
import ironing.server.mends.MendMapper.MendRow;
import ironing.server.platform.Json;
import ironing.server.records.RecordIndex;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.LongConsumer;
import org.springframework.stereotype.Component;

/**
 * The patch of a profile. It is made of the collisions that combine, and is stale when making it
 * anew would give other bytes: the same plugins, order and decisions always give the same.
 */
@Component
public class Mends {
  private final MendMapper db;
  private final ModStore mods;
  private final RecordIndex index;
  private final Workbenches benches;
  private final Jobs jobs;
  private final Json json;

  Mends(
      MendMapper db, ModStore mods, RecordIndex index, Workbenches benches, Jobs jobs, Json json) {
    this.db = db;
    this.mods = mods;
    this.index = index;
    this.benches = benches;
    this.jobs = jobs;
    this.json = json;
  }

  /** What became of something that a mend was made from. */
  public enum IngredientState {
    SAME,
    CHANGED,
    /** Off, or gone. */
    GONE
  }

  public record Ingredient(String plugin, String modName, IngredientState state) {}

  /**
   * A mend as it stands.
   *
   * @param records that it holds
   * @param stale whether making it anew would give another plugin
   * @param reasons why, in words; empty when it is fresh
   */
  public record MendView(
      long mod,
      String name,
      String version,
      String plugin,
      String builtAt,
      boolean on,
      int records,
      boolean stale,
      List<String> reasons,
      List<Ingredient> ingredients) {}

  public List<MendView> of(Bench bench) {
    return db.of(bench.profile()).stream()
        .filter(r -> bench.mods().containsKey(r.modId()))
        .map(r -> view(bench, r))
        .toList();
  }

  /** By mend the mods whose plugins it was made from, as far as they are in play. */
  public Map<Long, Set<Long>> patched(Bench bench) {
    Map<Long, Set<Long>> patched = new TreeMap<>();
    for (MendRow row : db.of(bench.profile())) {
      Set<Long> mods = new TreeSet<>();
      for (String plugin : json.read(row.ingredients(), Ingredients.class).plugins().keySet())
        bench.picture().loadOrder().find(plugin).ifPresent(e -> mods.add(e.plugin().mod()));
      patched.put(row.modId(), mods);
    }
    return patched;
  }

  private MendView view(Bench bench, MendRow row) {
    Bench.Mod mod = bench.mods().get(row.modId());
    boolean on =
        bench.picture().arrangement().layers().stream()
            .anyMatch(l -> l.mod() == row.modId() && l.on());
    Ingredients made = json.read(row.ingredients(), Ingredients.class);
    List<Ingredient> ingredients = ingredients(bench, made);
    List<String> reasons = on ? reasons(bench, row, made, ingredients) : List.of();
    return new MendView(
        row.modId(),
        mod.card().name(),
        mod.card().version(),
        row.plugin(),
        row.builtAt().toString(),
        on,
        row.records(),
        !reasons.isEmpty(),
        reasons,
        ingredients);
  }

  /** What a patch was made from: plugin to SHA-256, and the records in it. */
  record Ingredients(Map<String, String> plugins, List<String> records) {}

  private static List<Ingredient> ingredients(Bench bench, Ingredients made) {
    List<Ingredient> out = new ArrayList<>();
    made.plugins()
        .forEach(
            (name, sha256) -> {
              Optional<LoadOrder.Entry> e =
                  bench.picture().loadOrder().find(name).filter(LoadOrder.Entry::on);
              IngredientState state =
                  e.isEmpty()
                      ? IngredientState.GONE
                      : e.get().plugin().sha256().equals(sha256)
                          ? IngredientState.SAME
                          : IngredientState.CHANGED;
              String modName = e.map(x -> bench.nameOf(x.plugin().mod())).orElse("");
              out.add(new Ingredient(name, modName, state));
            });
    return out;
  }

  private List<String> reasons(
      Bench bench, MendRow row, Ingredients made, List<Ingredient> ingredients) {
    List<Collision> wanted = wanted(bench);
    if (!wanted.isEmpty()) {
      byte[] fresh = PluginCodec.encode(build(bench, row.plugin(), wanted));
      if (ContentHash.of(fresh).equals(contentNow(bench, row.modId()))) return List.of();
    }
    List<String> reasons = new ArrayList<>();
    for (Ingredient i : ingredients) {
      if (i.state() == IngredientState.CHANGED) reasons.add(i.plugin() + " has changed.");
      if (i.state() == IngredientState.GONE) reasons.add(i.plugin() + " is no longer on.");
    }
    List<String> now = wanted.stream().map(c -> c.key().toString()).toList();
    long more = now.stream().filter(k -> !made.records().contains(k)).count();
    long less = made.records().stream().filter(k -> !now.contains(k)).count();
    if (more > 0) reasons.add(count(more) + " would come into it.");
    if (less > 0) reasons.add(count(less) + " in it would go.");
    if (reasons.isEmpty()) reasons.add("The order of its plugins or a decision has changed.");
    return reasons;
  }

  private static String count(long records) {
    return records == 1 ? "1 record" : records + " records";
  }

  private static String contentNow(Bench bench, long mod) {
    Holdings holdings = bench.picture().holdings();
    for (String plugin : bench.mods().get(mod).plugins()) {
      int path = holdings.idOf(bench.game().pluginPath(plugin));
      int slot = path < 0 ? -1 : bench.picture().standing().inPlay(path);
      if (slot >= 0 && holdings.holderAt(slot).mod() == mod) return holdings.shaAt(slot);
    }
    return "";
  }

  private List<Collision> wanted(Bench bench) {
    return index.of(bench).collisions().values().stream().filter(Collision::wantsPatch).toList();
  }

  private Plugin build(Bench bench, String plugin, List<Collision> collisions) {
    String title = "Patch for " + bench.profileName();
    return PatchBuilder.build(plugin, title, index.of(bench).withoutPatches(), collisions);
  }

  /** Makes the profile's patch, or makes it anew, from every collision that combines. */
  Job buildPatch(long workspace) {
    Bench bench = benches.get(workspace);
    requireSomething(bench);
    return jobs.start(
        workspace, Lane.GAME, "patch", "Build the patch", p -> build(benches.get(workspace)));
  }

  private void requireSomething(Bench bench) {
    if (bench.game().plugins().isEmpty()) {
      throw IroningException.of(
          "no-plugins",
          bench.title(),
          "This game has no plugins, so nothing can be patched.",
          "Settle files in Layers instead.");
    }
    if (!wanted(bench).isEmpty()) return;
    throw IroningException.of(
        "nothing-to-patch",
        bench.profileName(),
        "No record combines into something that the game does not read already.",
        "Decide the records that need you first; where none does, no patch is needed.");
  }

  private Long build(Bench bench) throws IOException {
    requireSomething(bench);
    Optional<MendRow> before = db.of(bench.profile()).stream().findFirst();
    String name = before.map(MendRow::plugin).orElseGet(() -> freeName(bench));
    List<Collision> collisions = wanted(bench);
    Plugin plugin = build(bench, name, collisions);
    byte[] bytes = PluginCodec.encode(plugin);
    try (ModStore.WorkFolder work = mods.workFolder(bench.workspace())) {
      Path built = work.path().resolve("mod");
      String path = bench.game().pluginPath(name);
      Path file = built.resolve("content").resolve(path);
      Files.createDirectories(file.getParent());
      Files.write(file, bytes);
      Made made = made(bench, before, path, bytes);
      String ingredients = json.write(ingredients(bench, plugin, collisions));
      LongConsumer row = mod -> db.put(mod, bench.profile(), name, collisions.size(), ingredients);
      if (before.isEmpty()) return mods.add(bench.workspace(), made, new Place.OnTop(), built, row);
      long mod = before.get().modId();
      mods.replace(bench.workspace(), mod, made, built, "Made the patch anew", row);
      return mod;
    }
  }

  private static Made made(Bench bench, Optional<MendRow> before, String path, byte[] bytes) {
    String version =
        before
            .map(r -> bench.mods().get(r.modId()).card().version())
            .filter(v -> v.matches("\\d{1,8}"))
            .map(v -> Integer.toString(Integer.parseInt(v) + 1))
            .orElse("1");
    String name = "Patch for " + bench.profileName();
    String summary = "Holds the records that several plugins change, combined.";
    ModCard card = ModCard.generated("patch", name, version, summary);
    BuiltFile file = new BuiltFile("", path, "", bytes.length, ContentHash.of(bytes));
    return Made.generated("patch", card, "Ironing made it", List.of(file));
  }

  private static Ingredients ingredients(Bench bench, Plugin plugin, List<Collision> collisions) {
    Map<String, String> plugins = new TreeMap<>();
    for (String m : plugin.header().masters()) {
      bench.picture().loadOrder().find(m).ifPresent(e -> plugins.put(m, e.plugin().sha256()));
    }
    return new Ingredients(plugins, collisions.stream().map(c -> c.key().toString()).toList());
  }

  /** A file name that the game takes for a plugin and that nobody has. */
  private static String freeName(Bench bench) {
    String match = bench.game().plugins().orElseThrow().match().toString();
    if (!match.startsWith("*.")) {
      throw IroningException.of(
          "patch-unnameable",
          match,
          "Ironing cannot make up a plugin’s name for this pattern.",
          "Write the pattern in the game’s definition like “*.plug”.");
    }
    Holdings holdings = bench.picture().holdings();
    for (int i = 1; ; i++) {
      String name = bench.profileName() + " patch" + (i == 1 ? "" : " " + i) + match.substring(1);
      boolean taken = holdings.idOf(bench.game().pluginPath(name)) >= 0;
      if (!taken) return name;
    }
  }
}
