package ironing.server.mends;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.core.layers.Holdings;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.mends.CarriedDecisions;
import ironing.core.mends.MergeBuilder;
import ironing.core.mends.MergePlan;
import ironing.core.mends.MergePlan.Note;
import ironing.core.mends.Renumbering.Moved;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.plugin.RecordTable;
import ironing.core.records.Collisions;
import ironing.core.records.Decided;
import ironing.core.records.RecordIndex;
import ironing.server.mends.MadeOf.Ingredients;
import ironing.server.mends.MendStore.Kept;
import ironing.server.mends.MendStore.Writing;
import ironing.server.platform.Folders;
import ironing.server.platform.Json;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** Makes several plugins one, and takes that back. */
@Component
class Merges {
  private static final String TABLE = "renumbered";
  private final MendStore store;
  private final Patches patches;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final Json json;

  Merges(MendStore store, Patches patches, OpenWorkspaces workspaces, Folders folders, Json json) {
    this.store = store;
    this.patches = patches;
    this.workspaces = workspaces;
    this.folders = folders;
    this.json = json;
  }

  /** What merging some plugins comes to; throws nothing for a merge that is refused. */
  MergePlan plan(OpenWorkspace open, List<String> sources, String target, boolean combining) {
    MendStore.requirePlugins(open);
    Collisions all = open.get(COLLISIONS);
    return MergePlan.of(open.game(), all.index(), all, combining, sources, target);
  }

  /**
   * The file name of a merge, as it was asked for or made up.
   *
   * @param wished with or without the ending of plugins
   */
  String target(OpenWorkspace open, String wished, List<String> sources) {
    MendStore.requirePlugins(open);
    if (open.game().hasDocumentPlugins())
      throw IroningException.of(
          "no-plugins",
          open.title(),
          "Plugins that are open text cannot be merged.",
          "Switch off what is not needed; no plugin of this kind takes a place from another.");
    String name = wished.strip();
    boolean one = sources.stream().anyMatch(s -> PathCase.fold(s).equals(PathCase.fold(name)));
    if (one) return name;
    String match = open.game().plugins().orElseThrow().match().toString();
    String ending = match.startsWith("*.") ? match.substring(1) : "";
    String plain =
        PathCase.fold(name).endsWith(PathCase.fold(ending))
            ? name.substring(0, name.length() - ending.length())
            : name;
    if (plain.isBlank() || plain.matches(".*[\\\\/:*?\"<>|\\p{Cntrl}].*"))
      throw IroningException.of(
          "name-unfit",
          wished,
          "A plugin cannot be called this.",
          "Use letters, digits, blanks and hyphens, and no slash.");
    String target = plain + ending;
    // one that is off, or cannot be read, would be covered by the merge without a word
    open.picture()
        .loadOrder()
        .find(target)
        .ifPresent(
            taken -> {
              throw IroningException.of(
                  "name-taken",
                  taken.name(),
                  "A plugin of " + open.nameOf(taken.plugin().mod()) + " is called this.",
                  "Give the merge another name, or that of one of its plugins.");
            });
    return target;
  }

  /** What the order would be like with the merge in its place and its sources off. */
  private List<Wish> orderWith(LoadOrder order, MergePlan plan) {
    Set<String> sources = new HashSet<>();
    plan.sources().forEach(s -> sources.add(PathCase.fold(s)));
    String target = PathCase.fold(plan.target());
    List<Wish> next = new ArrayList<>();
    boolean placed = false;
    if (ownOrNone(order, plan.after())) {
      next.add(new Wish(plan.target(), true));
      placed = true;
    }
    for (Wish w : order.asWishes()) {
      String name = PathCase.fold(w.name());
      if (!name.equals(target)) next.add(sources.contains(name) ? w.withOn(false) : w);
      if (!placed && name.equals(PathCase.fold(plan.after()))) {
        next.add(new Wish(plan.target(), true));
        placed = true;
      }
    }
    return next;
  }

  // the game's own are in no wish: behind the last of them is the beginning
  private static boolean ownOrNone(LoadOrder order, String after) {
    return after.isEmpty() || order.find(after).map(LoadOrder.Entry::own).orElse(true);
  }

  /**
   * Game paths, but for plugins, at which the game would read another file: the merged plugin names
   * the packs of all sources, which then stand together in its place.
   */
  List<String> otherFiles(OpenWorkspace open, MergePlan plan) {
    if (plan.packs().isEmpty()) return List.of();
    LoadOrder order = open.picture().loadOrder();
    Set<String> sources = new HashSet<>();
    plan.sources().forEach(s -> sources.add(PathCase.fold(s)));
    // as if the sources themselves stood there one behind another: their packs stand alike
    List<Wish> together = plan.sources().stream().map(s -> new Wish(s, true)).toList();
    List<Wish> next = new ArrayList<>();
    if (ownOrNone(order, plan.after())) next.addAll(together);
    for (Wish w : order.asWishes()) {
      if (!sources.contains(PathCase.fold(w.name()))) next.add(w);
      if (PathCase.fold(w.name()).equals(PathCase.fold(plan.after()))) next.addAll(together);
    }
    Picture after = open.picture().rearranged(open.picture().arrangement().withPlugins(next));
    Holdings h = after.holdings();
    return after.standing().changesSince(open.picture().standing()).stream()
        .map(c -> h.path(c.path()))
        .filter(p -> !open.game().isPlugin(p))
        .toList();
  }

  /** Makes a merge; gives its mod. */
  long make(long workspace, String name, List<String> sources, String target, boolean combining)
      throws IOException {
    OpenWorkspace open = workspaces.get(workspace);
    MergePlan plan = plan(open, sources, target, combining);
    refuse(plan);
    Recipe.Merge merge =
        new Recipe.Merge(
            plan.sources(),
            target,
            open.picture().loadOrder().asWishes(),
            null,
            null,
            combining,
            null);
    Recipe recipe = Recipe.merge(name, merge);
    long mod = store.add(open, writing(open, plan, recipe, Optional.empty()), false);
    OpenWorkspace with = workspaces.get(workspace);
    Arrangement arranged = arranged(with, mod, plan);
    RecordIndex after = with.as(with.picture().rearranged(arranged)).get(RECORDS).index();
    CarriedDecisions carried = CarriedDecisions.of(open.game(), open.get(COLLISIONS), plan, after);
    Arrangement decided = decided(arranged, carried);
    List<Long> needless =
        patches.needless(open, Collisions.in(open.game(), after, decided.decisions()), after);
    store.setRecipe(mod, Recipe.merge(name, carrying(merge, open, carried, needless)));
    workspaces.change(
        workspace,
        new Expected(with.revision(), false),
        b -> "Merged " + String.join(", ", plan.sources()) + " into " + target,
        b -> decided.withLayers(switched(decided, needless, false)));
    return mod;
  }

  private static List<Arrangement.Layer> switched(Arrangement a, List<Long> mods, boolean on) {
    return a.layers().stream().map(l -> mods.contains(l.mod()) ? l.withOn(on) : l).toList();
  }

  private static Recipe.Merge carrying(
      Recipe.Merge merge, OpenWorkspace open, CarriedDecisions carried, List<Long> needless) {
    Map<String, Map<String, Decided>> before =
        new TreeMap<>(open.picture().arrangement().decisions());
    before.keySet().retainAll(carried.gone());
    return new Recipe.Merge(
        merge.sources(),
        merge.target(),
        merge.orderBefore(),
        before,
        List.copyOf(carried.instead().keySet()),
        merge.combining(),
        needless);
  }

  private static Arrangement decided(Arrangement arranged, CarriedDecisions carried) {
    Map<String, Map<String, Decided>> decisions = new TreeMap<>(arranged.decisions());
    decisions.keySet().removeAll(carried.gone());
    decisions.putAll(carried.instead());
    return arranged.withDecisions(decisions);
  }

  private Arrangement arranged(OpenWorkspace open, long mod, MergePlan plan) {
    Arrangement now = open.picture().arrangement();
    Arrangement on = now.withLayers(switched(now, List.of(mod), true));
    LoadOrder order = open.picture().rearranged(on).loadOrder();
    return on.withPlugins(order.merged(on.plugins(), orderWith(order, plan)));
  }

  static void refuse(MergePlan plan) {
    if (plan.refused().isEmpty()) return;
    throw new IroningException(
        plan.refused().stream()
            .map((Note n) -> new Problem(n.code(), n.thing(), n.reason(), n.remedy()))
            .toList());
  }

  /** Those that are rewritten with the merge; patches are made anew instead. */
  List<String> dependents(OpenWorkspace open, MergePlan plan) {
    return plan.dependents().stream().filter(d -> !isPatch(open, d)).toList();
  }

  static boolean isPatch(OpenWorkspace open, String plugin) {
    return open.picture()
        .loadOrder()
        .find(plugin)
        .map(e -> open.mods().get(e.plugin().mod()))
        .map(m -> m != null && m.isPatch())
        .orElse(false);
  }

  private Writing writing(
      OpenWorkspace open, MergePlan plan, Recipe recipe, Optional<Kept> before) {
    byte[] merged =
        written(open, plan.target(), MergeBuilder.merged(plan, recipe.name(), n -> file(open, n)));
    Map<String, byte[]> files = new LinkedHashMap<>();
    files.put(open.game().pluginPath(plan.target()), merged);
    for (String d : dependents(open, plan))
      files.put(
          open.game().pluginPath(d),
          written(open, d, MergeBuilder.rewritten(plan, d, file(open, d))));
    Map<String, byte[]> beside = new LinkedHashMap<>();
    beside.put(TABLE + ".csv", csv(plan).getBytes(StandardCharsets.UTF_8));
    beside.put(TABLE + ".json", table(plan).getBytes(StandardCharsets.UTF_8));
    Map<String, String> ingredients = new TreeMap<>();
    List<String> read = new ArrayList<>(plan.sources());
    read.addAll(dependents(open, plan));
    for (String s : read)
      open.picture().loadOrder().find(s).ifPresent(e -> ingredients.put(s, e.plugin().sha256()));
    String summary = "Holds the records of " + String.join(", ", plan.sources()) + ".";
    ModCard card =
        ModCard.generated("merge", recipe.name(), MendStore.nextVersion(open, before), summary)
            .madeOf(authors(open, plan), List.of(), List.of());
    return new Writing(
        "merge",
        card,
        plan.target(),
        files,
        beside,
        plan.newRecords() + plan.overrides(),
        recipe,
        new Ingredients(ingredients, List.of()),
        new MadeOf(ContentHash.of(merged), plan.masters(), Map.of()));
  }

  private static List<String> authors(OpenWorkspace open, MergePlan plan) {
    return plan.sources().stream()
        .flatMap(s -> open.picture().loadOrder().find(s).stream())
        .map(e -> open.mods().get(e.plugin().mod()))
        .filter(m -> m != null)
        .flatMap(m -> m.card().authors().stream())
        .distinct()
        .toList();
  }

  private RecordTable.Bytes file(OpenWorkspace open, String plugin) {
    LoadOrder.Entry e = open.picture().loadOrder().find(plugin).orElseThrow();
    Path file = open.value().locateInPlay(open.game().pluginPath(e.name()));
    try {
      return RecordTable.Bytes.of(Files.readAllBytes(file));
    } catch (IOException x) {
      throw new UncheckedIOException(x);
    }
  }

  /** Old keys to new ones, as RFC 4180 has it. */
  static String csv(MergePlan plan) {
    StringBuilder out = new StringBuilder("old_plugin,old_id,new_plugin,new_id\r\n");
    for (String s : plan.sources())
      for (Moved m : plan.numbers().of(s))
        out.append(cell(m.from().owner()))
            .append(',')
            .append(m.from().id())
            .append(',')
            .append(cell(m.to().owner()))
            .append(',')
            .append(m.to().id())
            .append("\r\n");
    return out.toString();
  }

  private static String cell(String text) {
    boolean quoted = text.matches("(?s).*[\",\\r\\n].*");
    return quoted ? '"' + text.replace("\"", "\"\"") + '"' : text;
  }

  /** A record's key before and after. */
  record Renumbered(String from, String to) {}

  private String table(MergePlan plan) {
    List<Renumbered> all = new ArrayList<>();
    for (String s : plan.sources())
      for (Moved m : plan.numbers().of(s))
        all.add(new Renumbered(m.from().toString(), m.to().toString()));
    return json.write(all);
  }

  /** The arrangement without a merge: its layer off, its sources on and where they were. */
  private static Arrangement without(OpenWorkspace open, Kept k) {
    Arrangement now = open.picture().arrangement();
    Recipe.Merge merge = k.recipe().merge();
    Arrangement off = now.withLayers(switched(now, List.of(k.mod()), false));
    List<Arrangement.Layer> layers = switched(off, merge.patchesOff(), true);
    Set<String> sources = new HashSet<>();
    merge.sources().forEach(s -> sources.add(PathCase.fold(s)));
    Map<String, Wish> today = new LinkedHashMap<>();
    for (Wish w : now.plugins()) today.put(PathCase.fold(w.name()), w);
    List<Wish> next = new ArrayList<>(now.plugins());
    next.removeIf(w -> sources.contains(PathCase.fold(w.name())));
    next.removeIf(w -> PathCase.fold(w.name()).equals(PathCase.fold(merge.target())));
    String before = "";
    for (Wish w : merge.orderBefore()) {
      String name = PathCase.fold(w.name());
      if (sources.contains(name)) {
        next.add(behind(next, before), w.withOn(true));
        before = name;
      } else if (today.containsKey(name)) {
        before = name;
      }
    }
    Map<String, Map<String, Decided>> decisions = new TreeMap<>(now.decisions());
    decisions.keySet().removeAll(merge.decisionsAfter());
    decisions.putAll(merge.decisionsBefore());
    return now.withLayers(layers).withPlugins(next).withDecisions(decisions);
  }

  private static int behind(List<Wish> order, String name) {
    for (int i = 0; i < order.size(); i++)
      if (PathCase.fold(order.get(i).name()).equals(name)) return i + 1;
    return 0;
  }

  /**
   * One of the two tables of a merge, as it lies in the library.
   *
   * @param ending csv or json
   */
  byte[] table(OpenWorkspace open, long mod, String ending) throws IOException {
    requireMerge(store.require(open, mod));
    Path folder = folders.mods(open.workspace()).resolve(open.mods().get(mod).folder());
    return Files.readAllBytes(folder.resolve("papers").resolve(TABLE + "." + ending));
  }

  /** Switches the merge off and its sources on again: one step, which can be undone. */
  OpenWorkspace takeBack(long workspace, long mod) {
    Kept k = store.require(workspaces.get(workspace), mod);
    requireMerge(k);
    return workspaces
        .change(
            workspace,
            new Expected(workspaces.get(workspace).revision(), false),
            b -> "Took the merge “" + b.nameOf(mod) + "” back",
            b -> without(b, k))
        .after();
  }

  static void requireMerge(Kept k) {
    if (k.recipe().merge() != null) return;
    throw IroningException.of(
        "not-a-merge",
        k.plugin(),
        "It is a patch, and nothing was switched off for it.",
        "Switch its layer off instead.");
  }

  /** Makes a merge anew from its sources as they are now. */
  void rebuild(OpenWorkspace open, Kept k) throws IOException {
    requireMerge(k);
    OpenWorkspace apart = open.as(open.picture().rearranged(without(open, k)));
    MergePlan plan = planApart(apart, k);
    refuse(plan);
    Recipe.Merge was = k.recipe().merge();
    Recipe recipe =
        Recipe.merge(
            k.recipe().name(),
            new Recipe.Merge(
                plan.sources(),
                was.target(),
                was.orderBefore(),
                was.decisionsBefore(),
                was.decisionsAfter(),
                was.combining(),
                was.patchesOff()));
    Writing w = writing(apart, plan, recipe, Optional.of(k));
    store.replace(open, k.mod(), w, "Rebuilt “" + recipe.name() + "”");
  }

  /** The bytes of the merged plugin as making it anew would give them. */
  byte[] fresh(OpenWorkspace open, Kept k) {
    OpenWorkspace apart = open.as(open.picture().rearranged(without(open, k)));
    MergePlan plan = planApart(apart, k);
    refuse(plan);
    return written(
        apart, plan.target(), MergeBuilder.merged(plan, k.recipe().name(), n -> file(apart, n)));
  }

  private static byte[] written(OpenWorkspace open, String plugin, byte[] made) {
    return MergeBuilder.written(
        open.value().files().format(open.game()), plugin, open.game().pluginPath(plugin), made);
  }

  private MergePlan planApart(OpenWorkspace apart, Kept k) {
    RecordIndex index = apart.get(RECORDS).index();
    Recipe.Merge merge = k.recipe().merge();
    return MergePlan.of(
        apart.game(),
        index,
        Collisions.in(apart.game(), index, apart.picture().arrangement().decisions()),
        merge.combining(),
        merge.sources(),
        merge.target());
  }

  /** Why making a merge anew would give another; empty when it is fresh. */
  List<String> reasons(OpenWorkspace open, Kept k) {
    List<String> reasons = new ArrayList<>();
    if (!MendStore.contentNow(open, k).equals(k.made().sha256()))
      reasons.add("Its plugin is not the one that Ironing made.");
    k.ingredients()
        .plugins()
        .forEach(
            (name, sha) -> {
              String now = contentOf(open, k, name);
              if (now.isEmpty()) reasons.add(name + " is no longer in the library.");
              else if (!now.equals(sha)) reasons.add(name + " has changed.");
            });
    for (String s : k.recipe().merge().sources()) {
      boolean covered = PathCase.fold(s).equals(PathCase.fold(k.plugin()));
      boolean on = open.picture().loadOrder().find(s).map(LoadOrder.Entry::on).orElse(false);
      if (on && !covered) reasons.add(s + " is on again beside the merge.");
    }
    return reasons;
  }

  /** The content of an ingredient as it is now, be it off or covered; empty when it is gone. */
  String contentOf(OpenWorkspace open, Kept k, String plugin) {
    Holdings holdings = open.picture().holdings();
    int path = holdings.idOf(open.game().pluginPath(plugin));
    if (path < 0) return "";
    for (int i = open.picture().arrangement().layers().size() - 1; i >= 0; i--) {
      Arrangement.Layer l = open.picture().arrangement().layers().get(i);
      if (l.mod() == k.mod() || open.mods().get(l.mod()).isMend()) continue;
      int slot = holdings.slotOfMod(path, l.mod());
      if (slot >= 0) return holdings.shaAt(slot);
    }
    int game = holdings.slotOfMod(path, Holdings.GAME);
    return game < 0 ? "" : holdings.shaAt(game);
  }
}
