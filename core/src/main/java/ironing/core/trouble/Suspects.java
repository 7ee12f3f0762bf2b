package ironing.core.trouble;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.RecordIndex;
import ironing.core.trouble.SearchedInside.Named;
import ironing.core.trouble.Suspicions.Reason;
import ironing.core.workspace.Stages;
import ironing.core.workspace.Workspace;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/** Who may be behind a fault, before anything is tried, and why. */
public final class Suspects {
  private final Workspace workspace;
  private final Map<Long, Set<Reason>> reasons = new TreeMap<>();

  private Suspects(Workspace workspace) {
    this.workspace = workspace;
  }

  /**
   * What is known besides the workspace.
   *
   * @param worked how the profile was arranged when the fault was last seen not to be there
   * @param named what the game named
   * @param told reasons that others than the core know of, by mod
   */
  public record Known(Optional<Arrangement> worked, Named named, Map<Long, Set<Reason>> told) {}

  /**
   * The reasons for each mod that is on; those of which nothing is odd are not among them.
   *
   * <p>Cost: O(mods · log mods), and one look at what the fault names.
   */
  public static Map<Long, Set<Reason>> of(Workspace workspace, Known known) {
    Suspects s = new Suspects(workspace);
    known.worked().ifPresent(s::sinceThen);
    s.path(known.named().path());
    s.plugin(known.named().plugin());
    s.record(known.named().record());
    Set<Long> on = new TreeSet<>();
    for (Layer l : workspace.picture().arrangement().layers()) if (l.on()) on.add(l.mod());
    workspace.picture().arrangement().heldBack().keySet().forEach(m -> s.add(m, Reason.HELD_BACK));
    known.told().forEach((mod, all) -> all.forEach(r -> s.add(mod, r)));
    for (long mod : on)
      if (workspace.get(Stages.HARMLESS).contains(mod)) s.add(mod, Reason.HARMLESS);
    s.reasons.keySet().retainAll(on);
    return s.reasons;
  }

  private void add(long mod, Reason reason) {
    if (mod == Holdings.GAME) return;
    reasons.computeIfAbsent(mod, m -> EnumSet.noneOf(Reason.class)).add(reason);
  }

  private void sinceThen(Arrangement worked) {
    Arrangement now = workspace.picture().arrangement();
    Map<Long, Integer> place = new HashMap<>();
    for (Layer l : worked.layers()) if (l.on()) place.put(l.mod(), place.size());
    List<Long> both = new ArrayList<>();
    for (Layer l : now.layers()) {
      if (!l.on()) continue;
      if (place.containsKey(l.mod())) both.add(l.mod());
      else add(l.mod(), Reason.CHANGED);
    }
    Set<Long> still = inOrder(both, place);
    for (long mod : both) {
      if (!still.contains(mod)) add(mod, Reason.MOVED);
      Set<String> was = worked.heldBack().getOrDefault(mod, Set.of());
      if (!now.heldBack().getOrDefault(mod, Set.of()).equals(was)) add(mod, Reason.CHANGED);
    }
  }

  /** The most mods of which each two stand in the same order as then. */
  private static Set<Long> inOrder(List<Long> now, Map<Long, Integer> then) {
    int[] length = new int[now.size()], from = new int[now.size()];
    List<Integer> ends = new ArrayList<>();
    for (int i = 0; i < now.size(); i++) {
      int place = then.get(now.get(i)), low = 0, high = ends.size();
      while (low < high) {
        int mid = (low + high) >>> 1;
        if (then.get(now.get(ends.get(mid))) < place) low = mid + 1;
        else high = mid;
      }
      length[i] = low;
      from[i] = low == 0 ? -1 : ends.get(low - 1);
      if (low == ends.size()) ends.add(i);
      else ends.set(low, i);
    }
    Set<Long> out = new HashSet<>();
    for (int i = ends.isEmpty() ? -1 : ends.get(ends.size() - 1); i >= 0; i = from[i])
      out.add(now.get(i));
    return out;
  }

  private void path(String path) {
    Standing standing = workspace.picture().standing();
    Holdings holdings = standing.holdings();
    int id = path.isEmpty() ? -1 : holdings.idOf(path);
    if (id < 0) return;
    int inPlay = standing.inPlay(id);
    for (int slot : standing.holders(id))
      add(holdings.holderAt(slot).mod(), slot == inPlay ? Reason.NAMED : Reason.MEETS_NAMED);
  }

  /** The mod whose file is in play at a path; empty for the game's own, and where none is. */
  public static Optional<Long> bringerOf(Workspace workspace, String path) {
    Standing standing = workspace.picture().standing();
    int id = standing.holdings().idOf(path);
    int slot = id < 0 ? -1 : standing.inPlay(id);
    if (slot < 0) return Optional.empty();
    long mod = standing.holdings().holderAt(slot).mod();
    return mod == Holdings.GAME ? Optional.empty() : Optional.of(mod);
  }

  private void plugin(String plugin) {
    LoadOrder order = workspace.picture().loadOrder();
    Optional<LoadOrder.Entry> named = plugin.isEmpty() ? Optional.empty() : order.find(plugin);
    if (named.isEmpty()) return;
    add(named.get().plugin().mod(), Reason.NAMED);
    for (String master : named.get().plugin().masters())
      order.find(master).ifPresent(m -> add(m.plugin().mod(), Reason.MEETS_NAMED));
  }

  private void record(String key) {
    if (key.isEmpty()) return;
    RecordIndex index = workspace.get(Stages.RECORDS).index();
    int record = Ref.parse(key).map(index::find).orElse(-1);
    if (record < 0) return;
    String used = PathCase.fold(index.name(index.usedPosition(record)));
    for (int v = 0; v < index.versionCount(record); v++) {
      String plugin = index.name(index.positionOf(record, v));
      boolean isUsed = PathCase.fold(plugin).equals(used);
      workspace
          .picture()
          .loadOrder()
          .find(plugin)
          .ifPresent(e -> add(e.plugin().mod(), isUsed ? Reason.NAMED : Reason.MEETS_NAMED));
    }
  }
}
