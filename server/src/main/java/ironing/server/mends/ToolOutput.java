package ironing.server.mends;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.PathPattern;
import ironing.server.mends.MadeOf.Ingredients;
import ironing.server.mends.MendStore.Kept;
import ironing.server.mends.MendStore.Writing;
import ironing.server.mends.Mends.Ingredient;
import ironing.server.mends.Mends.IngredientState;
import ironing.server.platform.Folders;
import ironing.server.workspace.OpenWorkspace;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/**
 * What a tool wrote, as a mend: one for each tool and profile. It goes stale with what was read.
 */
@Component
public class ToolOutput {
  static final String KIND = "tool";
  private static final int TOLD = 5;
  private final MendStore store;
  private final Folders folders;

  ToolOutput(MendStore store, Folders folders) {
    this.store = store;
    this.folders = folders;
  }

  /**
   * What a tool could read when it ran.
   *
   * @param files game path to SHA-256, of what is in play
   * @param loadOrder the plugins that are on, but for its own; empty where it reads none
   */
  public record Read(Map<String, String> files, List<String> loadOrder) {}

  /**
   * What a tool would read now.
   *
   * @param reads patterns on game paths
   */
  public Read read(OpenWorkspace open, long tool, List<String> reads) {
    List<PathPattern> patterns = PathPattern.all(reads, open.game().pathCase());
    Holdings holdings = open.picture().holdings();
    Standing standing = open.picture().standing();
    long own = mend(open, tool).map(Kept::mod).orElse(-1L);
    Map<String, String> files = new TreeMap<>();
    boolean plugins = false;
    for (int p = 0; p < holdings.pathCount(); p++) {
      int slot = standing.inPlay(p);
      if (slot < 0 || !open.game().anyMatches(patterns, holdings.path(p))) continue;
      // what it wrote the last time is none of its ingredients
      if (holdings.holderAt(slot).mod() == own) continue;
      plugins |= open.game().isPlugin(holdings.path(p));
      files.put(open.picture().spelling().of(p), holdings.shaAt(slot));
    }
    List<String> order = plugins ? loadOrder(open, own) : List.of();
    return new Read(files, order);
  }

  private static List<String> loadOrder(OpenWorkspace open, long own) {
    return open.picture().loadOrder().entries().stream()
        .filter(LoadOrder.Entry::on)
        .filter(e -> e.plugin().mod() != own)
        .map(LoadOrder.Entry::name)
        .toList();
  }

  private Optional<Kept> mend(OpenWorkspace open, long tool) {
    return store.of(open).stream()
        .filter(k -> k.isOfTool() && k.recipe().tool().tool() == tool)
        .findFirst();
  }

  /** The mod that holds what a tool wrote; empty before it has written anything. */
  public Optional<Long> modOf(OpenWorkspace open, long tool) {
    return mend(open, tool).map(Kept::mod);
  }

  /** Why running it again might give another output; empty when it is fresh, or there is none. */
  public List<String> stale(OpenWorkspace open, long tool) {
    return mend(open, tool)
        .filter(k -> MendStore.isOn(open, k.mod()))
        .map(k -> reasons(open, k))
        .orElse(List.of());
  }

  /**
   * Takes in what a tool wrote. What it had written before and left alone stays with it.
   *
   * @param name of the tool
   * @param reads the patterns of what it reads
   * @param read what that was when it began
   * @param written game path to where it lies
   * @param removed game paths of its output that it removed
   * @return the mod
   */
  public long take(
      OpenWorkspace open,
      long tool,
      String name,
      List<String> reads,
      Read read,
      Map<String, Path> written,
      Set<String> removed)
      throws IOException {
    Optional<Kept> before = mend(open, tool);
    Map<String, Path> files = new TreeMap<>();
    if (before.isPresent() && MendStore.isOn(open, before.get().mod()))
      files.putAll(keptFiles(open, before.get().mod()));
    files.keySet().removeAll(removed);
    files.putAll(written);
    Recipe recipe = Recipe.ofTool("Output of " + name, new Recipe.OfTool(tool, reads));
    ModCard card =
        ModCard.generated(
            KIND,
            recipe.name(),
            MendStore.nextVersion(open, before),
            "Holds what the tool " + name + " wrote.");
    Writing w =
        new Writing(
            KIND,
            card,
            "",
            Map.of(),
            files,
            Map.of(),
            files.size(),
            recipe,
            new Ingredients(read.files(), List.of()),
            new MadeOf("", read.loadOrder(), Map.of()));
    if (before.isEmpty()) return store.add(open, w, true);
    store.replaceForGood(open, before.get().mod(), w, "Took in what " + name + " wrote");
    return before.get().mod();
  }

  private Map<String, Path> keptFiles(OpenWorkspace open, long mod) {
    Holdings holdings = open.picture().holdings();
    Path content = folders.content(open.workspace(), open.mods().get(mod).folder());
    Map<String, Path> files = new TreeMap<>();
    for (int p = 0; p < holdings.pathCount(); p++) {
      int slot = holdings.slotOfMod(p, mod);
      if (slot < 0) continue;
      String spelled = holdings.spellingAt(slot);
      files.put(spelled, content.resolve(spelled));
    }
    return files;
  }

  List<Ingredient> ingredients(OpenWorkspace open, Kept k) {
    List<Ingredient> all = new ArrayList<>();
    Holdings holdings = open.picture().holdings();
    k.ingredients()
        .plugins()
        .forEach(
            (path, sha) -> {
              int p = holdings.idOf(path);
              int slot = p < 0 ? -1 : open.picture().standing().inPlay(p);
              if (slot < 0) {
                all.add(new Ingredient(path, "", "", IngredientState.GONE, sha));
                return;
              }
              long mod = holdings.holderAt(slot).mod();
              boolean same = holdings.shaAt(slot).equals(sha);
              all.add(
                  new Ingredient(
                      path,
                      open.nameOf(mod),
                      mod == Holdings.GAME ? "" : open.mods().get(mod).card().shownVersion(),
                      same ? IngredientState.SAME : IngredientState.CHANGED,
                      sha));
            });
    return all;
  }

  List<String> reasons(OpenWorkspace open, Kept k) {
    Recipe.OfTool tool = k.recipe().tool();
    Read now = read(open, tool.tool(), tool.reads());
    Map<String, String> was = k.ingredients().plugins();
    List<String> reasons = new ArrayList<>();
    List<String> changed = new ArrayList<>(), gone = new ArrayList<>(), fresh = new ArrayList<>();
    was.forEach(
        (path, sha) -> {
          String is = now.files().get(path);
          if (is == null) gone.add(path);
          else if (!is.equals(sha)) changed.add(path);
        });
    for (String path : now.files().keySet()) if (!was.containsKey(path)) fresh.add(path);
    tell(reasons, changed, "has changed", "have changed");
    tell(reasons, gone, "is not read any more", "are not read any more");
    tell(reasons, fresh, "is read too now", "are read too now");
    boolean sameSet = gone.isEmpty() && fresh.isEmpty();
    if (!now.loadOrder().equals(k.made().masters()) && sameSet)
      reasons.add("The plugins that are on, or their order, are others than when it ran.");
    return reasons;
  }

  private static void tell(List<String> reasons, List<String> paths, String one, String many) {
    if (paths.isEmpty()) return;
    String first = String.join(", ", paths.subList(0, Math.min(TOLD, paths.size())));
    String more = paths.size() > TOLD ? " and " + (paths.size() - TOLD) + " more" : "";
    reasons.add(first + more + " " + (paths.size() == 1 ? one : many) + ".");
  }
}
