package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.combine.CombinedFile;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.layers.Standing.Way;
import ironing.core.library.ModCard;
import ironing.core.mends.Ancestors;
import ironing.core.mends.Contest;
import ironing.core.mends.Contests;
import ironing.core.mends.FileSide;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Sections;
import ironing.core.text.DecodedText;
import ironing.core.workspace.Mod;
import ironing.server.mends.MadeOf.Ingredients;
import ironing.server.mends.MadeOf.MadeFile;
import ironing.server.mends.MendStore.Kept;
import ironing.server.mends.MendStore.Writing;
import ironing.server.mends.Mends.Ingredient;
import ironing.server.mends.Mends.IngredientState;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.FormerFiles;
import ironing.server.workbench.Workbenches;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** The mend that holds files of several mods combined: one for each profile. */
@Component
class CombinedFiles {
  static final String KIND = "combined";
  private static final int SHOWN = 4_000;
  private final MendStore store;
  private final Contests contests;
  private final FormerFiles former;
  private final Workbenches benches;

  CombinedFiles(MendStore store, Contests contests, FormerFiles former, Workbenches benches) {
    this.store = store;
    this.benches = benches;
    this.contests = contests;
    this.former = former;
  }

  /** The mend of the profile in use, if there is one. */
  Optional<Kept> mend(Bench bench) {
    return store.of(bench).stream().filter(Kept::isCombined).findFirst();
  }

  /** What is in the mend; files that wait for the user are not. */
  private record Filled(Map<String, byte[]> files, List<MadeFile> made) {}

  private Filled fill(Bench bench, Set<String> paths, Map<String, String> carried) {
    Map<String, byte[]> files = new LinkedHashMap<>();
    List<MadeFile> made = new ArrayList<>();
    for (String path : paths) {
      Optional<Contest> c =
          contests.at(bench.value(), path, Optional.ofNullable(carried.get(path)));
      Optional<CombinedFile> f = c.map(x -> contests.combine(bench.value(), x));
      if (f.isEmpty() || f.get().outcome().isEmpty()) continue;
      files.put(c.get().path(), f.get().outcome().get());
      made.add(MadeFile.of(c.get(), ContentHash.of(f.get().outcome().get())));
    }
    return new Filled(files, made);
  }

  /**
   * Makes the mend, or makes it anew, with more files in it.
   *
   * @param more game paths beside those that are in it
   * @param carrying the id of the mod whose change is carried over at those; empty to combine all
   * @return its mod
   */
  long build(Bench bench, Set<String> more, Optional<String> carrying) throws IOException {
    Optional<Kept> before = mend(bench);
    Set<String> paths = new TreeSet<>(before.map(k -> k.recipe().files()).orElse(List.of()));
    paths.addAll(more);
    Map<String, String> carried =
        new TreeMap<>(before.map(k -> k.recipe().carried()).orElse(Map.of()));
    for (String path : more) {
      carried.remove(path);
      carrying.ifPresent(mod -> carried.put(path, mod));
    }
    Filled filled = fill(bench, paths, carried);
    if (filled.files().isEmpty())
      throw IroningException.of(
          "nothing-to-combine",
          bench.profileName(),
          "None of the files comes out of combining without a question.",
          "Settle the places that need you first.");
    String name =
        before.map(k -> k.recipe().name()).orElse("Combined files for " + bench.profileName());
    // an update of the game may overwrite what they were combined against
    former.keep(bench.workspace(), former.asTheyAre(bench, filled.files().keySet()));
    Writing w = writing(bench, before, Recipe.combined(name, List.copyOf(paths), carried), filled);
    if (before.isEmpty()) return store.addAndUse(bench, w);
    store.replace(bench, before.get().mod(), w, "Made “" + name + "” anew");
    raise(bench.workspace(), before.get().mod());
    return before.get().mod();
  }

  /** Puts the mend above all that it is made of, where a mod has come to stand above it. */
  private void raise(long workspace, long mod) {
    Bench bench = benches.get(workspace);
    Kept k = store.require(bench, mod);
    Set<Long> below = contenders(bench, k);
    List<Arrangement.Layer> layers = bench.picture().arrangement().layers();
    int at = -1, highest = -1;
    for (int i = 0; i < layers.size(); i++) {
      if (layers.get(i).mod() == mod) at = i;
      if (below.contains(layers.get(i).mod())) highest = i;
    }
    if (at < 0 || at > highest) return;
    benches.change(
        workspace,
        new Expected(bench.revision(), false),
        b -> "Put “" + b.nameOf(mod) + "” above what it is made of",
        b ->
            b.picture()
                .arrangement()
                .withLayers(Sections.moved(layers, Set.of(mod), layers.size())));
  }

  /** The mods that have a layer and whose files went in. */
  Set<Long> contenders(Bench bench, Kept k) {
    Set<Long> mods = new TreeSet<>();
    for (MadeFile f : k.made().files())
      for (MadeOf.Version v : f.contenders()) mod(bench, v.id()).ifPresent(m -> mods.add(m.id()));
    return mods;
  }

  private Writing writing(Bench bench, Optional<Kept> before, Recipe recipe, Filled filled) {
    Set<String> authors = new LinkedHashSet<>();
    for (MadeFile f : filled.made())
      for (MadeOf.Version v : f.contenders())
        mod(bench, v.id()).ifPresent(m -> authors.addAll(m.card().authors()));
    ModCard card =
        ModCard.generated(
                KIND,
                recipe.name(),
                MendStore.nextVersion(bench, before),
                "Holds the files that several mods change, combined.")
            .madeOf(List.copyOf(authors), List.of(), List.of());
    return new Writing(
        KIND,
        card,
        "",
        filled.files(),
        Map.of(),
        filled.files().size(),
        recipe,
        new Ingredients(Map.of(), List.of()),
        new MadeOf(null, null, null, filled.made()));
  }

  /** The contest at a path as the mend settles it. */
  private Optional<Contest> at(Bench bench, Kept k, String path) {
    return contests.at(bench.value(), path, Optional.ofNullable(k.recipe().carried().get(path)));
  }

  private static Optional<Mod> mod(Bench bench, String id) {
    return bench.mods().values().stream()
        .filter(m -> id.equals(bench.inUse(m.id()) ? m.card().id() : Ancestors.idOf(m)))
        .findFirst();
  }

  /** What each file of the mend was made of, and how that is now. */
  List<Ingredient> ingredients(Bench bench, Kept k) {
    List<Ingredient> all = new ArrayList<>();
    for (MadeFile f : k.made().files()) {
      List<MadeOf.Version> versions = new ArrayList<>(f.contenders());
      versions.add(0, f.base());
      for (MadeOf.Version v : versions) {
        Optional<Mod> mod = mod(bench, v.id());
        boolean former = Ancestors.isFormer(v.id());
        // what the game had before an update changes no more
        String now =
            former ? v.sha256() : shaIn(bench, mod.map(Mod::id).orElse(Holdings.GAME), f.path());
        IngredientState state = IngredientState.CHANGED;
        boolean gone = !former && mod.isEmpty() && !v.id().isEmpty();
        if (now.isEmpty() || gone) state = IngredientState.GONE;
        else if (now.equals(v.sha256())) state = IngredientState.SAME;
        boolean ofGame = former || v.id().isEmpty();
        String name = ofGame ? bench.title() : mod.map(m -> m.card().name()).orElse(v.id());
        String version =
            former ? v.id().substring(1) : mod.map(m -> m.card().shownVersion()).orElse("");
        all.add(new Ingredient(f.path(), name, version, state, v.sha256()));
      }
    }
    return all;
  }

  /** Why making it anew would give another; empty when it is fresh. */
  List<String> reasons(Bench bench, Kept k) {
    List<String> reasons = new ArrayList<>();
    Set<String> made = new TreeSet<>();
    for (MadeFile f : k.made().files()) {
      made.add(f.path());
      Optional<Contest> now = at(bench, k, f.path());
      if (now.isEmpty()) {
        reasons.add(f.path() + " is no longer changed by several mods.");
        continue;
      }
      reasons(bench, f, now.get(), reasons);
      if (!shaIn(bench, k.mod(), f.path()).equals(f.sha256()))
        reasons.add(f.path() + " is not the file that Ironing made.");
    }
    for (String path : k.recipe().files()) {
      if (made.contains(path)) continue;
      boolean ready =
          at(bench, k, path).filter(c -> contests.outline(bench.value(), c).possible()).isPresent();
      if (ready) reasons.add(path + " has come to an outcome.");
    }
    return reasons;
  }

  private static void reasons(Bench bench, MadeFile was, Contest now, List<String> reasons) {
    String path = now.path();
    if (!was.base().id().equals(now.base().id())) {
      reasons.add(path + " is measured against another version.");
    } else if (!was.base().sha256().equals(now.base().sha256())) {
      String whose = now.ofGame() ? "the game’s" : bench.nameOf(now.base().mod()) + "’s";
      reasons.add("As " + whose + ", " + path + " has changed.");
    }
    Map<String, String> before = new TreeMap<>(), after = new TreeMap<>();
    was.contenders().forEach(v -> before.put(v.id(), v.sha256()));
    now.contenders().forEach(s -> after.put(s.id(), s.sha256()));
    for (FileSide s : now.contenders()) {
      String sha = before.get(s.id());
      String name = bench.nameOf(s.mod());
      if (sha == null) reasons.add(name + " changes " + path + " too now.");
      else if (!sha.equals(s.sha256())) reasons.add(name + " has another " + path + ".");
    }
    for (String id : before.keySet())
      if (!after.containsKey(id))
        reasons.add((id.isEmpty() ? "The game" : id) + " changes " + path + " no more.");
    boolean same = before.equals(after);
    if (same
        && !List.copyOf(before(was)).equals(now.contenders().stream().map(FileSide::id).toList()))
      reasons.add("The layers of those who change " + path + " stand in another order.");
    if (!was.choices().equals(MadeFile.choices(now)))
      reasons.add("Your choices for " + path + " have changed.");
  }

  private static List<String> before(MadeFile f) {
    return f.contenders().stream().map(MadeOf.Version::id).toList();
  }

  private static String shaIn(Bench bench, long mod, String path) {
    Holdings holdings = bench.picture().holdings();
    int id = holdings.idOf(path);
    if (id < 0) return "";
    int slot = mod == Holdings.GAME ? bench.picture().unmodded(id) : holdings.slotOfMod(id, mod);
    return slot < 0 ? "" : holdings.shaAt(slot);
  }

  /** By mod, how many of its covered files are covered by a combined one that they went into. */
  Map<Long, Integer> contributed(Bench bench) {
    Standing standing = bench.picture().standing();
    Holdings holdings = bench.picture().holdings();
    Map<Long, Integer> by = new HashMap<>();
    for (Kept k : store.of(bench)) {
      for (MadeFile f : k.made().files()) {
        int path = holdings.idOf(f.path());
        int slot = path < 0 ? -1 : standing.inPlay(path);
        if (slot < 0 || holdings.holderAt(slot).mod() != k.mod()) continue;
        Set<Long> into = new TreeSet<>();
        for (MadeOf.Version v : f.contenders()) mod(bench, v.id()).ifPresent(m -> into.add(m.id()));
        mod(bench, f.base().id()).ifPresent(m -> into.add(m.id()));
        for (int below : standing.holders(path)) {
          long mod = holdings.holderAt(below).mod();
          if (into.contains(mod) && standing.way(path, below) == Way.COVERED)
            by.merge(mod, 1, Integer::sum);
        }
      }
    }
    return by;
  }

  /** Files of it that wait for the user, so that the layers alone decide them. */
  List<String> unsettled(Bench bench, Kept k) {
    return k.recipe().files().stream()
        .filter(p -> at(bench, k, p).filter(c -> asks(bench, c)).isPresent())
        .toList();
  }

  private boolean asks(Bench bench, Contest c) {
    return contests.outline(bench.value(), c).asked() > 0;
  }

  /**
   * @param before absent where the file would come in; {@code after} where it would go
   */
  record FileChange(String path, Optional<String> before, Optional<String> after) {}

  /** What making it anew would change, file by file: the lines between those that stay. */
  List<FileChange> difference(Bench bench, Kept k) {
    Filled fresh = fill(bench, new TreeSet<>(k.recipe().files()), k.recipe().carried());
    Map<String, String> was = new TreeMap<>(), is = new TreeMap<>();
    for (MadeFile f : k.made().files()) was.put(f.path(), text(bench, k.mod(), f.path()));
    fresh.files().forEach((path, bytes) -> is.put(path, text(bytes)));
    Set<String> paths = new TreeSet<>(was.keySet());
    paths.addAll(is.keySet());
    List<FileChange> changes = new ArrayList<>();
    for (String path : paths) {
      String before = was.get(path), after = is.get(path);
      if (!Objects.equals(before, after)) changes.add(change(path, before, after));
    }
    return changes;
  }

  private static FileChange change(String path, String before, String after) {
    if (before == null || after == null)
      return new FileChange(
          path,
          Optional.ofNullable(before).map(CombinedFiles::cut),
          Optional.ofNullable(after).map(CombinedFiles::cut));
    List<String> a = before.lines().toList(), b = after.lines().toList();
    int head = 0, tail = 0, most = Math.min(a.size(), b.size());
    while (head < most && a.get(head).equals(b.get(head))) head++;
    while (tail < most - head && a.get(a.size() - 1 - tail).equals(b.get(b.size() - 1 - tail)))
      tail++;
    return new FileChange(
        path,
        Optional.of(cut(String.join("\n", a.subList(head, a.size() - tail)))),
        Optional.of(cut(String.join("\n", b.subList(head, b.size() - tail)))));
  }

  private static String cut(String text) {
    return text.length() <= SHOWN ? text : text.substring(0, SHOWN) + "…";
  }

  private String text(Bench bench, long mod, String path) {
    Holdings holdings = bench.picture().holdings();
    int id = holdings.idOf(path);
    int slot = id < 0 ? -1 : holdings.slotOfMod(id, mod);
    if (slot < 0) return "";
    try {
      return text(bench.value().read(slot, Integer.MAX_VALUE));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static String text(byte[] bytes) {
    return DecodedText.of(bytes).text();
  }
}
