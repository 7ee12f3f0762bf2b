package ironing.server.mends;

import static ironing.core.workspace.Stages.COLLISIONS;

import ironing.core.loadorder.LoadOrder;
import ironing.core.path.PathCase;
import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.core.records.PluginPairs;
import ironing.core.records.PluginPairs.PluginPair;
import ironing.server.mends.Mends.MendView;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Which patches a set of plugins calls for. */
@Component
class PatchCalls {
  private static final int MOST = 200;
  private final Patches patches;
  private final Mends mends;

  PatchCalls(Patches patches, Mends mends) {
    this.patches = patches;
    this.mends = mends;
  }

  /**
   * Two plugins that collide, and no patch holds the outcome.
   *
   * @param records over which they do; {@code asked} of them wait for the user
   * @param here plugins that are off and have both as masters: patches that somebody made for them
   */
  record CallingPair(
      String first,
      String firstMod,
      String second,
      String secondMod,
      int records,
      int asked,
      List<String> here) {}

  /** A patch that nothing here needs. */
  record IdlePatch(long mod, String name, String reason) {}

  record CalledFor(List<CallingPair> pairs, int more, List<IdlePatch> idle) {}

  CalledFor of(OpenWorkspace open) {
    Collisions all = open.get(COLLISIONS);
    Set<Integer> free = new HashSet<>(patches.shares(open).free());
    List<CallingPair> calling = new ArrayList<>();
    for (PluginPair p :
        PluginPairs.of(all, i -> all.state(i) == State.NEEDS_YOU || free.contains(i))) {
      String first = all.index().name(p.first()), second = all.index().name(p.second());
      calling.add(
          new CallingPair(
              first,
              modName(open, first),
              second,
              modName(open, second),
              p.records(),
              p.states().getOrDefault(State.NEEDS_YOU, 0),
              madeForBoth(open, first, second)));
    }
    List<IdlePatch> idle = new ArrayList<>();
    for (MendView m : mends.of(open)) {
      if (m.kind() != Mends.MendKind.PATCH || !m.on() || m.needed()) continue;
      idle.add(new IdlePatch(m.mod(), m.name(), "The game reads the same without it."));
    }
    idleByOthers(open, all, idle);
    return new CalledFor(
        calling.stream().limit(MOST).toList(), Math.max(0, calling.size() - MOST), idle);
  }

  private static String modName(OpenWorkspace open, String plugin) {
    return open.picture()
        .loadOrder()
        .find(plugin)
        .map(e -> open.nameOf(e.plugin().mod()))
        .orElse(plugin);
  }

  private static List<String> madeForBoth(OpenWorkspace open, String first, String second) {
    return open.picture().loadOrder().entries().stream()
        .filter(e -> !e.on() && hasMaster(e, first) && hasMaster(e, second))
        .map(LoadOrder.Entry::name)
        .toList();
  }

  private static boolean hasMaster(LoadOrder.Entry e, String plugin) {
    return e.plugin().masters().stream()
        .anyMatch(m -> PathCase.fold(m).equals(PathCase.fold(plugin)));
  }

  /** Plugins of others that only override, and of which the game reads nothing. */
  private static void idleByOthers(OpenWorkspace open, Collisions all, List<IdlePatch> idle) {
    var index = all.index();
    for (int p = 0; p < index.pluginCount(); p++) {
      var t = index.table(p);
      if (index.source(p).mend() || t.size() == 0 || t.ownFrom() < t.size()) continue;
      boolean used = false;
      for (int row = 0; row < t.size() && !used; row++) {
        int record = index.recordAt(p, row);
        if (record < 0) continue;
        int count = index.versionCount(record);
        // without it the game would read the version before: is that another?
        if (index.usedPosition(record) != p || count < 2) continue;
        int before = index.positionOf(record, count - 2), row2 = index.rowOf(record, count - 2);
        used = index.table(before).print(row2) != t.print(row);
      }
      if (used) continue;
      open.picture()
          .loadOrder()
          .find(t.name())
          .ifPresent(
              e ->
                  idle.add(
                      new IdlePatch(
                          e.plugin().mod(),
                          t.name(),
                          "It only changes others’ records, and the game reads none of it.")));
    }
  }
}
