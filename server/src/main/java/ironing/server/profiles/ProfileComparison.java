package ironing.server.profiles;

import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.order.OrderDistance;
import ironing.core.order.Ordering;
import ironing.core.order.Ordering.Move;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.Difference;
import ironing.core.picture.Picture;
import ironing.server.layers.DifferenceView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.Profiles.Profile;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;

/**
 * What another profile has otherwise than the one in use.
 *
 * @param mods switched or of another version there
 * @param moves the fewest layers whose moving gives the order there
 * @param rulings that differ
 * @param heldBack paths that differ
 * @param loadOrder whether the plugins load in another order, or others are on
 * @param plugins the fewest plugins whose moving gives the order there
 * @param pluginSwitches plugins that are on in one of the two only
 * @param order how far the two load orders are from one another
 * @param decisions records that are decided otherwise
 * @param picture what the game would read differently
 */
record ProfileComparison(
    long profile,
    String name,
    List<OtherMod> mods,
    List<OtherPlace> moves,
    List<OtherRuling> rulings,
    List<OtherHeld> heldBack,
    boolean loadOrder,
    List<OtherPlugin> plugins,
    List<OtherSwitch> pluginSwitches,
    OrderDistance order,
    int decisions,
    DifferenceView picture) {

  /**
   * A mod, by the version that is here.
   *
   * @param there the number of the version there; absent when it has no layer there
   */
  record OtherMod(
      long mod,
      String name,
      boolean on,
      String version,
      @MayBeAbsent Long there,
      boolean onThere,
      String versionThere) {}

  /** A layer that stands elsewhere; numbers from 1, of the layers that both have. */
  record OtherPlace(long mod, String name, int here, int there) {}

  /** Absent names where no ruling speaks of the path. */
  record OtherRuling(String at, @MayBeAbsent String here, @MayBeAbsent String there) {}

  record OtherHeld(long mod, String name, String path, boolean here) {}

  /** A plugin that loads elsewhere; numbers from 1, of the plugins that both have. */
  record OtherPlugin(String name, int here, int there) {}

  /**
   * @param here whether it is on here; there it is the other way about
   */
  record OtherSwitch(String name, boolean here) {}

  static ProfileComparison of(OpenWorkspace open, Profile other) {
    Arrangement here = open.picture().arrangement(), there = other.arrangement();
    Picture seen = open.picture().rearranged(there);
    Difference d = Difference.between(open.picture(), seen);
    List<Wish> now = open.picture().loadOrder().asWishes(), then = seen.loadOrder().asWishes();
    return new ProfileComparison(
        other.id(),
        other.name(),
        mods(open, here, there),
        moves(open, here, there),
        rulings(open, here, there),
        heldBack(open, here, there),
        // whether it was wished so or came so by itself is no difference
        !now.equals(then),
        plugins(now, then),
        pluginSwitches(now, then),
        OrderDistance.between(names(now), names(then)),
        decisions(here, there),
        DifferenceView.of(open, d));
  }

  private static List<OtherMod> mods(OpenWorkspace open, Arrangement here, Arrangement there) {
    Map<Long, Layer> byStrand = new HashMap<>();
    for (Layer l : there.layers()) byStrand.put(open.mods().get(l.mod()).strand(), l);
    List<OtherMod> mods = new ArrayList<>();
    for (Layer l : here.layers()) {
      Layer o = byStrand.get(open.mods().get(l.mod()).strand());
      if (o != null && o.mod() == l.mod() && o.on() == l.on()) continue;
      mods.add(
          new OtherMod(
              l.mod(),
              open.nameOf(l.mod()),
              l.on(),
              open.mods().get(l.mod()).card().shownVersion(),
              o == null ? null : o.mod(),
              o != null && o.on(),
              o == null ? "" : open.mods().get(o.mod()).card().shownVersion()));
    }
    return mods;
  }

  private static List<OtherPlace> moves(OpenWorkspace open, Arrangement here, Arrangement there) {
    List<Long> a = strands(open, here), b = strands(open, there);
    Set<Long> both = new HashSet<>(a);
    both.retainAll(b);
    List<Long> now = a.stream().filter(both::contains).toList();
    List<Long> then = b.stream().filter(both::contains).toList();
    Map<Long, Long> modOf = new HashMap<>();
    for (Layer l : here.layers()) modOf.put(open.mods().get(l.mod()).strand(), l.mod());
    List<OtherPlace> places = new ArrayList<>();
    for (Move<Long> m : Ordering.moves(now, then)) {
      long mod = modOf.get(m.item());
      places.add(new OtherPlace(mod, open.nameOf(mod), m.from() + 1, m.to() + 1));
    }
    return places;
  }

  private static List<String> names(List<Wish> wishes) {
    return wishes.stream().map(Wish::name).toList();
  }

  private static List<OtherPlugin> plugins(List<Wish> now, List<Wish> then) {
    Set<String> both = new HashSet<>(names(now));
    both.retainAll(names(then));
    return Ordering.moves(
            names(now).stream().filter(both::contains).toList(),
            names(then).stream().filter(both::contains).toList())
        .stream()
        .map(m -> new OtherPlugin(m.item(), m.from() + 1, m.to() + 1))
        .toList();
  }

  private static List<OtherSwitch> pluginSwitches(List<Wish> now, List<Wish> then) {
    Map<String, Boolean> on = new HashMap<>();
    for (Wish w : then) on.put(w.name(), w.on());
    List<OtherSwitch> out = new ArrayList<>();
    for (Wish w : now)
      if (on.containsKey(w.name()) && on.get(w.name()) != w.on())
        out.add(new OtherSwitch(w.name(), w.on()));
    return out;
  }

  private static List<Long> strands(OpenWorkspace open, Arrangement a) {
    return a.layers().stream().map(l -> open.mods().get(l.mod()).strand()).toList();
  }

  private static List<OtherRuling> rulings(
      OpenWorkspace open, Arrangement here, Arrangement there) {
    Map<String, Long> a = byPath(here.rulings()), b = byPath(there.rulings());
    Set<String> all = new TreeSet<>(a.keySet());
    all.addAll(b.keySet());
    List<OtherRuling> out = new ArrayList<>();
    for (String at : all) {
      Long x = a.get(at), y = b.get(at);
      if (Objects.equals(x, y)) continue;
      out.add(
          new OtherRuling(
              at, x == null ? null : open.nameOf(x), y == null ? null : open.nameOf(y)));
    }
    return out;
  }

  private static Map<String, Long> byPath(List<Ruling> rulings) {
    Map<String, Long> by = new HashMap<>();
    for (Ruling r : rulings) by.put(r.at(), r.mod());
    return by;
  }

  private static List<OtherHeld> heldBack(OpenWorkspace open, Arrangement here, Arrangement there) {
    List<OtherHeld> out = new ArrayList<>();
    Set<Long> mods = new TreeSet<>(here.heldBack().keySet());
    mods.addAll(there.heldBack().keySet());
    for (long mod : mods) {
      Set<String> a = here.heldBack().getOrDefault(mod, Set.of());
      Set<String> b = there.heldBack().getOrDefault(mod, Set.of());
      for (String p : a) if (!b.contains(p)) out.add(new OtherHeld(mod, open.nameOf(mod), p, true));
      for (String p : b)
        if (!a.contains(p)) out.add(new OtherHeld(mod, open.nameOf(mod), p, false));
    }
    return out;
  }

  private static int decisions(Arrangement here, Arrangement there) {
    Set<String> all = new TreeSet<>(here.decisions().keySet());
    all.addAll(there.decisions().keySet());
    Set<String> files = new TreeSet<>(here.fileChoices().keySet());
    files.addAll(there.fileChoices().keySet());
    return (int)
        (all.stream().filter(r -> !here.decisionsOn(r).equals(there.decisionsOn(r))).count()
            + files.stream().filter(p -> !here.choicesOn(p).equals(there.choicesOn(p))).count());
  }
}
