package ironing.server.mends;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.IroningException;
import ironing.core.library.ModCard;
import ironing.core.library.ModCard.Clash;
import ironing.core.library.ModCard.Need;
import ironing.core.mends.PatchBuilder;
import ironing.core.mends.PatchScope;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.workspace.Mod;
import ironing.server.mends.MadeOf.Ingredients;
import ironing.server.mends.MendStore.Kept;
import ironing.server.mends.MendStore.Writing;
import ironing.server.workspace.OpenWorkspace;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/**
 * The patches of a profile: which records each has to hold, and making them. The same plugins,
 * order and decisions always give the same bytes.
 */
@Component
class Patches {
  private final MendStore store;

  Patches(MendStore store) {
    this.store = store;
  }

  /**
   * Which patch has to hold which records.
   *
   * @param byPatch the places in the collisions, by the patch’s mod
   * @param free those that no patch is for
   */
  record Shares(Map<Long, List<Integer>> byPatch, List<Integer> free) {
    List<Integer> of(long mod) {
      return byPatch.getOrDefault(mod, List.of());
    }
  }

  /** A patch that records may go to; one that is not there yet has no number. */
  private record Taker(long mod, PatchScope scope) {}

  private static final long NEW = 0;

  /** Every record that a patch has to hold goes to the narrowest patch that is on and for it. */
  Shares shares(OpenWorkspace open) {
    return shares(open, Optional.empty());
  }

  private Shares shares(OpenWorkspace open, Optional<PatchScope> another) {
    List<Taker> patches = new ArrayList<>();
    for (Kept k : store.of(open))
      if (k.isPatch() && MendStore.isOn(open, k.mod()))
        patches.add(new Taker(k.mod(), k.recipe().scope()));
    another.ifPresent(scope -> patches.add(new Taker(NEW, scope)));
    patches.sort(Comparator.comparing(k -> k.scope().kind()));
    Collisions all = open.get(COLLISIONS);
    Map<Long, List<Integer>> byPatch = new HashMap<>();
    List<Integer> free = new ArrayList<>();
    for (int i = 0; i < all.size(); i++) {
      if (!all.wantsPatch(i)) continue;
      Optional<Taker> to = Optional.empty();
      if (!patches.isEmpty()) {
        String key = open.get(RECORDS).index().key(all.record(i)).toString();
        List<String> leaves = leaves(open, all.record(i));
        to = patches.stream().filter(k -> k.scope().has(key, leaves)).findFirst();
      }
      if (to.isPresent()) byPatch.computeIfAbsent(to.get().mod(), m -> new ArrayList<>()).add(i);
      else free.add(i);
    }
    return new Shares(byPatch, free);
  }

  /**
   * The patches that hold something now and would have nothing to hold.
   *
   * @param after the collisions as they would be, {@code index} the records
   */
  List<Long> needless(OpenWorkspace open, Collisions after, RecordIndex index) {
    Shares now = shares(open);
    return store.of(open).stream()
        .filter(k -> k.isPatch() && !now.of(k.mod()).isEmpty())
        .filter(k -> !callsFor(k.recipe().scope(), after, index))
        .map(Kept::mod)
        .toList();
  }

  private static boolean callsFor(PatchScope scope, Collisions all, RecordIndex index) {
    return IntStream.range(0, all.size())
        .filter(all::wantsPatch)
        .map(all::record)
        .anyMatch(r -> scope.has(index.key(r).toString(), names(index, all.leaves(r))));
  }

  private static List<String> names(RecordIndex index, int[] positions) {
    return Arrays.stream(positions).mapToObj(index::name).toList();
  }

  private List<String> leaves(OpenWorkspace open, int record) {
    Collisions all = open.get(COLLISIONS);
    return names(all.index(), all.leaves(record));
  }

  /** The records that a new patch would get beside those that are there. */
  List<Integer> wantedBy(OpenWorkspace open, PatchScope scope) {
    return shares(open, Optional.of(scope)).of(NEW);
  }

  /**
   * Makes a patch, or makes it anew.
   *
   * @param before the patch as it is; empty for a new one
   * @return its mod
   */
  long build(OpenWorkspace open, Optional<Kept> before, Recipe recipe) throws IOException {
    List<Integer> wanted =
        before.isPresent() ? shares(open).of(before.get().mod()) : wantedBy(open, recipe.scope());
    if (wanted.isEmpty()) throw nothing(open, recipe);
    String name = recipe.name() == null ? "Patch for " + open.profileName() : recipe.name();
    String file =
        before
            .map(Kept::plugin)
            .orElseGet(
                () ->
                    MendStore.freeName(
                        open,
                        recipe.name() == null ? open.profileName() + " patch" : recipe.name()));
    Writing w = writing(open, before, recipe, name, file, wanted);
    if (before.isEmpty()) return store.addAndUse(open, w);
    store.replace(open, before.get().mod(), w, "Rebuilt “" + name + "”");
    return before.get().mod();
  }

  private static IroningException nothing(OpenWorkspace open, Recipe recipe) {
    return IroningException.of(
        "nothing-to-patch",
        recipe.name() == null ? open.profileName() : recipe.name(),
        "No record combines into something that the game does not read already.",
        "Decide what needs a decision first; where none does, no patch is needed.");
  }

  private Writing writing(
      OpenWorkspace open,
      Optional<Kept> before,
      Recipe recipe,
      String name,
      String file,
      List<Integer> wanted) {
    Plugin plugin = plugin(open, name, file, wanted);
    Map<String, byte[]> files = files(open, plugin);
    Map<String, String> plugins = new TreeMap<>();
    for (String m : plugin.header().masters())
      open.picture().loadOrder().find(m).ifPresent(e -> plugins.put(m, e.plugin().sha256()));
    return new Writing(
        "patch",
        card(open, before, recipe, name, plugin),
        file,
        files,
        Map.of(),
        wanted.size(),
        recipe,
        new Ingredients(plugins, List.of()),
        new MadeOf(MendStore.content(files), plugin.header().masters(), made(open, wanted)));
  }

  /** What is written of a patch, by game path. */
  Map<String, byte[]> files(OpenWorkspace open, Plugin patch) {
    RecordIndex index = open.get(RECORDS).index();
    List<Plugin.Header> from =
        IntStream.range(0, index.pluginCount()).mapToObj(p -> index.table(p).header()).toList();
    return open.value()
        .files()
        .format(open.game())
        .write(patch, open.game().pluginPath(patch.name()), from);
  }

  private Plugin plugin(OpenWorkspace open, String name, String file, List<Integer> wanted) {
    Collisions all = open.get(COLLISIONS);
    RecordIndex index = all.index();
    List<String> order =
        IntStream.range(0, index.pluginCount())
            .filter(p -> !index.source(p).mend())
            .mapToObj(index::name)
            .toList();
    List<Collision> collisions = wanted.stream().map(i -> all.of(all.record(i))).toList();
    return PatchBuilder.build(
        file, name, String.join(", ", credits(open, collisions)), order, collisions);
  }

  // whose work went into it: those of the mods that changed a record, and of the plugins themselves
  private static List<String> credits(OpenWorkspace open, List<Collision> collisions) {
    Set<String> credits = new LinkedHashSet<>();
    for (Collision c : collisions)
      c.combination()
          .leaves()
          .forEach(
              l ->
                  open.picture()
                      .loadOrder()
                      .find(l.plugin())
                      .ifPresent(
                          e -> {
                            Mod mod = open.mods().get(e.plugin().mod());
                            if (mod != null) credits.addAll(mod.card().authors());
                            e.plugin()
                                .header()
                                .flatMap(Plugin.Header::author)
                                .ifPresent(credits::add);
                          }));
    return List.copyOf(credits);
  }

  private static ModCard card(
      OpenWorkspace open, Optional<Kept> before, Recipe recipe, String name, Plugin plugin) {
    String summary = "Holds the records that several plugins change, combined.";
    List<String> authors =
        plugin.header().author().map(a -> List.of(a.split(", "))).orElse(List.of());
    return ModCard.generated("patch", name, MendStore.nextVersion(open, before), summary)
        .madeOf(
            authors,
            recipe.needs().stream().map(c -> new Need(c.mod(), c.versions())).toList(),
            recipe.clashes().stream()
                .map(c -> new Clash(c, "the patch is not made for both"))
                .toList());
  }

  private Map<String, String> made(OpenWorkspace open, List<Integer> wanted) {
    Collisions all = open.get(COLLISIONS);
    Map<String, String> made = new LinkedHashMap<>();
    for (int i : wanted) {
      int record = all.record(i);
      made.put(all.index().key(record).toString(), Long.toHexString(all.madeOf(record)));
    }
    return made;
  }

  /** Why making a patch anew would give another; empty when it is fresh. */
  List<String> reasons(OpenWorkspace open, Kept patch, Shares shares) {
    List<String> reasons = new ArrayList<>();
    Map<String, String> now = made(open, shares.of(patch.mod()));
    Map<String, String> was = patch.made().records();
    int more = 0, less = 0, other = 0;
    for (Map.Entry<String, String> e : now.entrySet()) {
      String before = was.get(e.getKey());
      if (before == null) more++;
      else if (!before.equals(e.getValue())) other++;
    }
    for (String key : was.keySet()) if (!now.containsKey(key)) less++;
    boolean order = !inOrder(open, patch.made().masters());
    if (more + less + other == 0 && !order) return byHand(open, patch);
    ingredients(open, patch, reasons);
    if (more > 0) reasons.add(count(more) + " would come into it.");
    if (less > 0) reasons.add(count(less) + " in it would go.");
    if (other > 0)
      reasons.add(
          count(other) + " in it " + (other == 1 ? "is" : "are") + " made of something else now.");
    if (order && more + less + other == 0) reasons.add("Its masters load in another order.");
    return reasons;
  }

  private static List<String> byHand(OpenWorkspace open, Kept patch) {
    boolean same = MendStore.contentNow(open, patch).equals(patch.made().sha256());
    return same ? List.of() : List.of("Its plugin is not the one that Ironing made.");
  }

  private static void ingredients(OpenWorkspace open, Kept patch, List<String> reasons) {
    patch
        .ingredients()
        .plugins()
        .forEach(
            (name, sha) -> {
              var e = open.picture().loadOrder().find(name).filter(x -> x.on());
              if (e.isEmpty()) reasons.add(name + " is no longer on.");
              else if (!e.get().plugin().sha256().equals(sha)) reasons.add(name + " has changed.");
            });
  }

  private static boolean inOrder(OpenWorkspace open, List<String> masters) {
    Map<String, Integer> at = new HashMap<>();
    open.picture().loadOrder().active().forEach(e -> at.put(PathCase.fold(e.name()), at.size()));
    int before = -1;
    for (String m : masters) {
      int here = at.getOrDefault(PathCase.fold(m), -1);
      if (here < 0) continue;
      if (here < before) return false;
      before = here;
    }
    return true;
  }

  static String count(int records) {
    return records == 1 ? "1 record" : records + " records";
  }

  /** What a patch holds now and would hold, record by record. */
  Plugin fresh(OpenWorkspace open, Kept patch) {
    List<Integer> wanted = shares(open).of(patch.mod());
    String name =
        patch.recipe().name() == null ? "Patch for " + open.profileName() : patch.recipe().name();
    return plugin(open, name, patch.plugin(), wanted);
  }
}
