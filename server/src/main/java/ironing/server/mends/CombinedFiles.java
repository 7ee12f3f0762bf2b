package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.combinedfiles.CombinedFile;
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
import ironing.server.workspace.Expected;
import ironing.server.workspace.FormerFiles;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
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
  private final OpenWorkspaces workspaces;

  CombinedFiles(MendStore store, Contests contests, FormerFiles former, OpenWorkspaces workspaces) {
    this.store = store;
    this.workspaces = workspaces;
    this.contests = contests;
    this.former = former;
  }

  /** The mend of the profile in use, if there is one. */
  Optional<Kept> mend(OpenWorkspace open) {
    return store.of(open).stream().filter(Kept::isCombined).findFirst();
  }

  /** What is in the mend; files that wait for the user are not. */
  private record Filled(Map<String, byte[]> files, List<MadeFile> made) {}

  private Filled fill(OpenWorkspace open, Set<String> paths, Map<String, String> carried) {
    Map<String, byte[]> files = new LinkedHashMap<>();
    List<MadeFile> made = new ArrayList<>();
    for (String path : paths) {
      Optional<Contest> c = contests.at(open.value(), path, Optional.ofNullable(carried.get(path)));
      Optional<CombinedFile> f = c.map(x -> contests.combine(open.value(), x));
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
  long build(OpenWorkspace open, Set<String> more, Optional<String> carrying) throws IOException {
    Optional<Kept> before = mend(open);
    Set<String> paths = new TreeSet<>(before.map(k -> k.recipe().files()).orElse(List.of()));
    paths.addAll(more);
    Map<String, String> carried =
        new TreeMap<>(before.map(k -> k.recipe().carried()).orElse(Map.of()));
    for (String path : more) {
      carried.remove(path);
      carrying.ifPresent(mod -> carried.put(path, mod));
    }
    Filled filled = fill(open, paths, carried);
    if (filled.files().isEmpty())
      throw IroningException.of(
          "nothing-to-combine",
          open.profileName(),
          "None of the files comes out of combining without a question.",
          "Settle the places that need a decision first.");
    String name =
        before.map(k -> k.recipe().name()).orElse("Combined files for " + open.profileName());
    // an update of the game may overwrite what they were combined against
    former.keep(open.workspace(), former.asTheyAre(open, filled.files().keySet()));
    Writing w = writing(open, before, Recipe.combined(name, List.copyOf(paths), carried), filled);
    if (before.isEmpty()) return store.addAndUse(open, w);
    store.replace(open, before.get().mod(), w, "Rebuilt “" + name + "”");
    raise(open.workspace(), before.get().mod());
    return before.get().mod();
  }

  /** Puts the mend above all that it is made of, where a mod has come to stand above it. */
  private void raise(long workspace, long mod) {
    OpenWorkspace open = workspaces.get(workspace);
    Kept k = store.require(open, mod);
    Set<Long> below = contenders(open, k);
    List<Arrangement.Layer> layers = open.picture().arrangement().layers();
    int at = -1, highest = -1;
    for (int i = 0; i < layers.size(); i++) {
      if (layers.get(i).mod() == mod) at = i;
      if (below.contains(layers.get(i).mod())) highest = i;
    }
    if (at < 0 || at > highest) return;
    workspaces.change(
        workspace,
        new Expected(open.revision(), false),
        b -> "Put “" + b.nameOf(mod) + "” above what it is made of",
        b ->
            b.picture()
                .arrangement()
                .withLayers(Sections.moved(layers, Set.of(mod), layers.size())));
  }

  /** The mods that have a layer and whose files went in. */
  Set<Long> contenders(OpenWorkspace open, Kept k) {
    Set<Long> mods = new TreeSet<>();
    for (MadeFile f : k.made().files())
      for (MadeOf.Version v : f.contenders()) mod(open, v.id()).ifPresent(m -> mods.add(m.id()));
    return mods;
  }

  private Writing writing(OpenWorkspace open, Optional<Kept> before, Recipe recipe, Filled filled) {
    Set<String> authors = new LinkedHashSet<>();
    for (MadeFile f : filled.made())
      for (MadeOf.Version v : f.contenders())
        mod(open, v.id()).ifPresent(m -> authors.addAll(m.card().authors()));
    ModCard card =
        ModCard.generated(
                KIND,
                recipe.name(),
                MendStore.nextVersion(open, before),
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
  private Optional<Contest> at(OpenWorkspace open, Kept k, String path) {
    return contests.at(open.value(), path, Optional.ofNullable(k.recipe().carried().get(path)));
  }

  private static Optional<Mod> mod(OpenWorkspace open, String id) {
    return open.mods().values().stream()
        .filter(m -> id.equals(open.inUse(m.id()) ? m.card().id() : Ancestors.idOf(m)))
        .findFirst();
  }

  /** What each file of the mend was made of, and how that is now. */
  List<Ingredient> ingredients(OpenWorkspace open, Kept k) {
    List<Ingredient> all = new ArrayList<>();
    for (MadeFile f : k.made().files()) {
      List<MadeOf.Version> versions = new ArrayList<>(f.contenders());
      versions.add(0, f.base());
      for (MadeOf.Version v : versions) {
        Optional<Mod> mod = mod(open, v.id());
        boolean former = Ancestors.isFormer(v.id());
        // what the game had before an update changes no more
        String now =
            former ? v.sha256() : shaIn(open, mod.map(Mod::id).orElse(Holdings.GAME), f.path());
        IngredientState state = IngredientState.CHANGED;
        boolean gone = !former && mod.isEmpty() && !v.id().isEmpty();
        if (now.isEmpty() || gone) state = IngredientState.GONE;
        else if (now.equals(v.sha256())) state = IngredientState.SAME;
        boolean ofGame = former || v.id().isEmpty();
        String name = ofGame ? open.title() : mod.map(m -> m.card().name()).orElse(v.id());
        String version =
            former ? v.id().substring(1) : mod.map(m -> m.card().shownVersion()).orElse("");
        all.add(new Ingredient(f.path(), name, version, state, v.sha256()));
      }
    }
    return all;
  }

  /** Why making it anew would give another; empty when it is fresh. */
  List<String> reasons(OpenWorkspace open, Kept k) {
    List<String> reasons = new ArrayList<>();
    Set<String> made = new TreeSet<>();
    for (MadeFile f : k.made().files()) {
      made.add(f.path());
      Optional<Contest> now = at(open, k, f.path());
      if (now.isEmpty()) {
        reasons.add(f.path() + " is no longer changed by several mods.");
        continue;
      }
      reasons(open, f, now.get(), reasons);
      if (!shaIn(open, k.mod(), f.path()).equals(f.sha256()))
        reasons.add(f.path() + " is not the file that Ironing made.");
    }
    for (String path : k.recipe().files()) {
      if (made.contains(path)) continue;
      boolean ready =
          at(open, k, path).filter(c -> contests.outline(open.value(), c).possible()).isPresent();
      if (ready) reasons.add(path + " has come to an outcome.");
    }
    return reasons;
  }

  private static void reasons(OpenWorkspace open, MadeFile was, Contest now, List<String> reasons) {
    String path = now.path();
    if (!was.base().id().equals(now.base().id())) {
      reasons.add(path + " is measured against another version.");
    } else if (!was.base().sha256().equals(now.base().sha256())) {
      String whose = now.ofGame() ? "the game’s" : open.nameOf(now.base().mod()) + "’s";
      reasons.add("As " + whose + ", " + path + " has changed.");
    }
    Map<String, String> before = new TreeMap<>(), after = new TreeMap<>();
    was.contenders().forEach(v -> before.put(v.id(), v.sha256()));
    now.contenders().forEach(s -> after.put(s.id(), s.sha256()));
    for (FileSide s : now.contenders()) {
      String sha = before.get(s.id());
      String name = open.nameOf(s.mod());
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

  private static String shaIn(OpenWorkspace open, long mod, String path) {
    Holdings holdings = open.picture().holdings();
    int id = holdings.idOf(path);
    if (id < 0) return "";
    int slot = mod == Holdings.GAME ? open.picture().unmodded(id) : holdings.slotOfMod(id, mod);
    return slot < 0 ? "" : holdings.shaAt(slot);
  }

  /** By mod, how many of its covered files are covered by a combined one that they went into. */
  Map<Long, Integer> contributed(OpenWorkspace open) {
    Standing standing = open.picture().standing();
    Holdings holdings = open.picture().holdings();
    Map<Long, Integer> by = new HashMap<>();
    for (Kept k : store.of(open)) {
      for (MadeFile f : k.made().files()) {
        int path = holdings.idOf(f.path());
        int slot = path < 0 ? -1 : standing.inPlay(path);
        if (slot < 0 || holdings.holderAt(slot).mod() != k.mod()) continue;
        Set<Long> into = new TreeSet<>();
        for (MadeOf.Version v : f.contenders()) mod(open, v.id()).ifPresent(m -> into.add(m.id()));
        mod(open, f.base().id()).ifPresent(m -> into.add(m.id()));
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
  List<String> unsettled(OpenWorkspace open, Kept k) {
    return k.recipe().files().stream()
        .filter(p -> at(open, k, p).filter(c -> asks(open, c)).isPresent())
        .toList();
  }

  private boolean asks(OpenWorkspace open, Contest c) {
    return contests.outline(open.value(), c).asked() > 0;
  }

  /**
   * @param before absent where the file would come in; {@code after} where it would go
   */
  record FileChange(String path, Optional<String> before, Optional<String> after) {}

  /** What making it anew would change, file by file: the lines between those that stay. */
  List<FileChange> difference(OpenWorkspace open, Kept k) {
    Filled fresh = fill(open, new TreeSet<>(k.recipe().files()), k.recipe().carried());
    Map<String, String> was = new TreeMap<>(), is = new TreeMap<>();
    for (MadeFile f : k.made().files()) was.put(f.path(), text(open, k.mod(), f.path()));
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

  /** What it would hold if it were made anew, by game path, of the files that are in it now. */
  Map<String, byte[]> anew(OpenWorkspace open, Kept k) {
    Set<String> paths = new TreeSet<>();
    k.made().files().forEach(f -> paths.add(f.path()));
    return fill(open, paths, k.recipe().carried()).files();
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

  private String text(OpenWorkspace open, long mod, String path) {
    Holdings holdings = open.picture().holdings();
    int id = holdings.idOf(path);
    int slot = id < 0 ? -1 : holdings.slotOfMod(id, mod);
    if (slot < 0) return "";
    try {
      return text(open.value().read(slot, Integer.MAX_VALUE));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static String text(byte[] bytes) {
    return DecodedText.of(bytes).text();
  }
}
