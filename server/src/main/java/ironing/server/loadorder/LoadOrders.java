package ironing.server.loadorder;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.library.ModCard;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.loadorder.LoadOrderProposal.CardWish;
import ironing.core.order.Ordering;
import ironing.core.order.Ordering.Outcome;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.server.loadorder.LoadDifferenceView.PluginPlace;
import ironing.server.platform.MayBeAbsent;
import ironing.server.records.RecordIndex;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/** Changes of the load order, each of which can be asked what it would do before it is done. */
@Component
class LoadOrders {
  private final Workbenches benches;
  private final RecordIndex index;

  LoadOrders(Workbenches benches, RecordIndex index) {
    this.benches = benches;
    this.index = index;
  }

  /** Puts a plugin at a place, counted from 1 with the game's own; its stage may hold it back. */
  LoadDifferenceView move(long workspace, long revision, String name, int to, boolean dryRun) {
    Entry plugin = require(benches.get(workspace).picture().loadOrder(), name);
    if (plugin.own()) {
      throw IroningException.of(
          "plugin-fixed",
          plugin.name(),
          "The game loads its own plugins first, in its own order.",
          "Move another plugin instead.");
    }
    return apply(
        workspace,
        revision,
        dryRun,
        "Moved " + plugin.name() + " in the load order",
        order -> {
          List<Wish> wishes = new ArrayList<>();
          List<String> names = order.entries().stream().map(Entry::name).toList();
          for (String n : Ordering.moved(names, plugin.name(), to - 1)) {
            wishes.add(new Wish(n, order.find(n).orElseThrow().on()));
          }
          return wishes;
        },
        (before, after) -> place(before, after, plugin, to));
  }

  private static PluginPlace place(LoadOrder before, LoadOrder after, Entry plugin, int wished) {
    int from = before.position(plugin.name()) + 1, to = after.position(plugin.name()) + 1;
    int bounded = Math.max(1, Math.min(wished, after.entries().size()));
    String reason = null;
    if (to != bounded) {
      int stage = plugin.plugin().stage();
      reason =
          after.entries().get(bounded - 1).own()
              ? "The game loads its own plugins first."
              : "It is of stage " + stage + ", and the game loads stage after stage.";
    }
    return new PluginPlace(plugin.name(), from, to, wished, reason);
  }

  LoadDifferenceView switchTo(
      long workspace, long revision, List<String> names, boolean on, boolean dryRun) {
    LoadOrder now = benches.get(workspace).picture().loadOrder();
    Set<String> switched = new HashSet<>();
    for (String n : names) {
      Entry e = require(now, n);
      if (e.own()) {
        throw IroningException.of(
            "plugin-fixed",
            e.name(),
            "The game’s own plugins are always on.",
            "Switch another plugin instead.");
      }
      switched.add(PathCase.fold(n));
    }
    String what = names.size() == 1 ? names.get(0) : names.size() + " plugins";
    return apply(
        workspace,
        revision,
        dryRun,
        (on ? "Switched on " : "Switched off ") + what,
        order ->
            order.asWishes().stream()
                .map(w -> switched.contains(PathCase.fold(w.name())) ? new Wish(w.name(), on) : w)
                .toList(),
        (before, after) -> null);
  }

  /** Sets the order of all plugins; every one that is not the game's own must be in it once. */
  LoadDifferenceView set(long workspace, long revision, List<Wish> wishes, boolean dryRun) {
    refuseOtherThanAll(benches.get(workspace).picture().loadOrder(), wishes);
    return apply(
        workspace,
        revision,
        dryRun,
        "Set the load order",
        order -> wishes,
        (before, after) -> null);
  }

  /** The proposal for a workspace as it is. */
  LoadOrderProposal proposal(Bench bench) {
    List<CardWish> wishes = new ArrayList<>();
    for (Arrangement.Layer l : bench.picture().arrangement().layers()) {
      if (!l.on()) continue;
      ModCard card = bench.mods().get(l.mod()).card();
      card.plugins()
          .forEach(
              (plugin, w) -> {
                w.after().forEach(o -> wishes.add(new CardWish(plugin, o, true, card.name())));
                w.before().forEach(o -> wishes.add(new CardWish(plugin, o, false, card.name())));
              });
    }
    return LoadOrderProposal.propose(bench.picture().loadOrder(), wishes);
  }

  LoadDifferenceView takeProposal(long workspace, long revision, boolean dryRun) {
    Bench bench = benches.get(workspace);
    if (!(proposal(bench).outcome() instanceof Outcome.Sorted<String> sorted)) {
      throw IroningException.of(
          "no-order",
          bench.title(),
          "The plugins’ masters contradict one another, so there is no order that works.",
          "Switch one of the plugins in the ring off.");
    }
    return apply(
        workspace,
        revision,
        dryRun,
        "Took the proposed load order",
        order -> LoadOrderProposal.asWishes(order, sorted.order()),
        (before, after) -> null);
  }

  private interface Placing {
    @MayBeAbsent
    PluginPlace of(LoadOrder before, LoadOrder after);
  }

  private LoadDifferenceView apply(
      long workspace,
      long revision,
      boolean dryRun,
      String said,
      Function<LoadOrder, List<Wish>> wishes,
      Placing placing) {
    if (dryRun) {
      Bench bench = benches.get(workspace);
      Picture after = bench.picture().rearranged(next(bench, wishes));
      PluginPlace place = placing.of(bench.picture().loadOrder(), after.loadOrder());
      return LoadDifferenceView.of(bench, bench, after, index, place);
    }
    Bench[] before = new Bench[1];
    Bench after =
        benches.rearrange(
            workspace,
            revision,
            b -> said,
            b -> {
              before[0] = b;
              return next(b, wishes);
            });
    PluginPlace place = placing.of(before[0].picture().loadOrder(), after.picture().loadOrder());
    return LoadDifferenceView.of(after, before[0], after.picture(), index, place);
  }

  private static Arrangement next(Bench bench, Function<LoadOrder, List<Wish>> wishes) {
    Arrangement now = bench.picture().arrangement();
    LoadOrder order = bench.picture().loadOrder();
    return now.withPlugins(order.merged(now.plugins(), wishes.apply(order)));
  }

  private static Entry require(LoadOrder order, String name) {
    return order
        .find(name)
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    name,
                    "No such plugin is in play.",
                    "Take the names from the load order."));
  }

  private static void refuseOtherThanAll(LoadOrder now, List<Wish> wishes) {
    List<Problem> problems = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    for (Wish w : wishes) {
      if (now.find(w.name()).isEmpty()) {
        problems.add(
            new Problem(
                "not-found",
                w.name(),
                "No such plugin is in play.",
                "Take the names from the load order."));
      } else if (!seen.add(PathCase.fold(w.name()))) {
        problems.add(
            new Problem(
                "order-doubled", w.name(), "It stands in the order twice.", "Name each once."));
      }
    }
    for (Entry e : now.entries()) {
      if (!e.own() && !seen.contains(PathCase.fold(e.name()))) {
        problems.add(
            new Problem(
                "order-incomplete",
                e.name(),
                "It is missing from the order.",
                "Name every plugin, those that are off too."));
      }
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
  }
}
