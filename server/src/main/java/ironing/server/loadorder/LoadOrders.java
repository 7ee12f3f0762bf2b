package ironing.server.loadorder;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.order.Ordering.Outcome;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.server.loadorder.LoadDifferenceView.PluginPlace;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.Changed;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.OpenWorkspaces.Origin;
import ironing.server.workspace.Profiles;
import ironing.server.workspace.Profiles.RestorePoint;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;

/** Changes of the load order, each of which can be asked what it would do before it is done. */
@Component
public class LoadOrders {
  private final OpenWorkspaces workspaces;
  private final LoadRules rules;
  private final Profiles profiles;

  LoadOrders(OpenWorkspaces workspaces, LoadRules rules, Profiles profiles) {
    this.rules = rules;
    this.profiles = profiles;
    this.workspaces = workspaces;
  }

  /**
   * Puts plugins one behind the other at a place, counted from 1 with the game's own; their stages
   * may hold them back.
   */
  LoadDifferenceView move(long workspace, Expected expected, List<String> names, int to) {
    LoadOrder now = workspaces.get(workspace).picture().loadOrder();
    if (names.isEmpty()) {
      throw IroningException.of(
          "body-unreadable", "names", "It names no plugin.", "Say which plugins are to be moved.");
    }
    List<Entry> plugins = names.stream().map(n -> movable(now, n)).toList();
    Set<String> moving = new HashSet<>();
    plugins.forEach(p -> moving.add(p.name()));
    Entry first = plugins.get(0);
    return apply(
        workspace,
        expected,
        "Moved "
            + (moving.size() == 1 ? first.name() : moving.size() + " plugins")
            + " in the load order",
        order -> {
          List<Entry> moved = new ArrayList<>(), rest = new ArrayList<>();
          for (Entry e : order.entries()) (moving.contains(e.name()) ? moved : rest).add(e);
          rest.addAll(Math.max(0, Math.min(to - 1, rest.size())), moved);
          return rest.stream().map(e -> new Wish(e.name(), e.on(), e.kept())).toList();
        },
        (before, after) -> moving.size() == 1 ? place(before, after, first, to) : null);
  }

  private static Entry movable(LoadOrder order, String name) {
    Entry plugin = require(order, name);
    if (!plugin.own()) return plugin;
    throw IroningException.of(
        "plugin-fixed",
        plugin.name(),
        "The game loads its own plugins first, in its own order.",
        "Move another plugin instead.");
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

  LoadDifferenceView switchTo(long workspace, Expected expected, List<String> names, boolean on) {
    LoadOrder now = workspaces.get(workspace).picture().loadOrder();
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
        expected,
        (on ? "Switched on " : "Switched off ") + what,
        order ->
            order.asWishes().stream()
                .map(w -> switched.contains(PathCase.fold(w.name())) ? w.withOn(on) : w)
                .toList(),
        (before, after) -> null);
  }

  /** Sets the order of all plugins; every one that is not the game's own must be in it once. */
  LoadDifferenceView set(long workspace, Expected expected, List<Wish> wishes) {
    refuseOtherThanAll(workspaces.get(workspace).picture().loadOrder(), wishes);
    return apply(
        workspace,
        expected,
        "Set the load order",
        order ->
            wishes.stream()
                .map(w -> w.withKept(order.find(w.name()).filter(Entry::kept).isPresent()))
                .toList(),
        (before, after) -> null);
  }

  /**
   * Takes the proposal.
   *
   * @param moved the plugins that are moved; empty for all
   */
  LoadDifferenceView takeProposal(long workspace, Expected expected, Optional<Set<String>> moved) {
    String said =
        moved
            .map(m -> "Took " + count(m.size(), "move") + " of the proposed load order")
            .orElse("Took the proposed load order");
    return apply(
        workspace,
        expected,
        Origin.PROPOSAL,
        said,
        open -> {
          LoadOrderProposal proposal = rules.proposal(open);
          if (!(proposal.outcome() instanceof Outcome.Sorted<String> sorted)) {
            throw IroningException.of(
                "no-order",
                open.title(),
                "What is fixed contradicts itself, so there is no order that works.",
                "The proposal shows the ring, and what would open it.");
          }
          LoadOrder now = open.picture().loadOrder();
          return LoadOrderProposal.asWishes(
              now, moved.map(m -> proposal.some(spelled(now, m))).orElse(sorted.order()));
        },
        (before, after) -> null);
  }

  /** What another order of the plugins in play would change. */
  LoadDifferenceView differenceTo(OpenWorkspace open, List<String> order) {
    return LoadDifferenceView.of(
        Changed.as(
            open, next(open, b -> LoadOrderProposal.asWishes(b.picture().loadOrder(), order))),
        null);
  }

  private static Set<String> spelled(LoadOrder now, Set<String> names) {
    Set<String> spelled = new HashSet<>();
    for (String n : names) spelled.add(require(now, n).name());
    return spelled;
  }

  private static String count(int n, String one) {
    return n == 1 ? "1 " + one : n + " " + one + "s";
  }

  /** Marks plugins as kept here, or no longer: no proposal moves them. */
  LoadDifferenceView keep(long workspace, Expected expected, List<String> names, boolean kept) {
    Set<String> marked = new HashSet<>();
    for (String n : names) {
      Entry e = require(workspaces.get(workspace).picture().loadOrder(), n);
      if (e.own()) {
        throw IroningException.of(
            "plugin-fixed",
            e.name(),
            "The game loads its own plugins first, in its own order.",
            "Keep another plugin.");
      }
      marked.add(e.name());
    }
    String what = names.size() == 1 ? names.get(0) : count(names.size(), "plugin");
    return apply(
        workspace,
        expected,
        Origin.USER,
        (kept ? "Kept here in the load order: " : "No longer kept here in the load order: ") + what,
        open ->
            open.picture().loadOrder().asWishes().stream()
                .map(w -> marked.contains(w.name()) ? w.withKept(kept) : w)
                .toList(),
        (before, after) -> null);
  }

  /** Changes what the user says of rules; nothing moves by it. */
  void changeRules(
      long workspace, Expected expected, String said, UnaryOperator<Arrangement> change) {
    workspaces.change(workspace, expected, said, b -> change.apply(b.picture().arrangement()));
  }

  /** Sets order and switches from what somebody else has written; what it leaves out stays. */
  LoadDifferenceView follow(long workspace, Expected expected, String said, List<Wish> told) {
    return apply(
        workspace,
        expected,
        Origin.IMPORT,
        said,
        open -> followed(open.picture().loadOrder(), told),
        (before, after) -> null);
  }

  /** Brings back the load order of a restore point: the order and the switches. */
  LoadDifferenceView restore(long workspace, Expected expected, long point) {
    RestorePoint to =
        profiles.points(workspaces.get(workspace)).stream()
            .filter(p -> p.id() == point)
            .findFirst()
            .orElseThrow(
                () ->
                    IroningException.of(
                        "not-found",
                        "Restore point " + point,
                        "This profile has no such restore point.",
                        "Choose one from the list."));
    return apply(
        workspace,
        expected,
        Origin.USER,
        "Brought back the load order of “" + to.name() + "”",
        open ->
            followed(
                open.picture().loadOrder(),
                open.picture().rearranged(to.arrangement()).loadOrder().asWishes()),
        (before, after) -> null);
  }

  /** Sets the order of all plugins as somebody else has it. */
  public LoadDifferenceView bring(
      long workspace, Expected expected, String said, Function<LoadOrder, List<Wish>> wishes) {
    return apply(
        workspace,
        expected,
        Origin.IMPORT,
        said,
        open -> wishes.apply(open.picture().loadOrder()),
        (before, after) -> null);
  }

  /** The wishes of now with the order and the switches of another list, where it names them. */
  static List<Wish> followed(LoadOrder now, List<Wish> told) {
    List<Wish> named = new ArrayList<>();
    Set<String> names = new HashSet<>();
    for (Wish w : told) {
      now.find(w.name())
          .filter(e -> !e.own())
          .ifPresent(
              e -> {
                named.add(new Wish(e.name(), w.on(), e.kept()));
                names.add(e.name());
              });
    }
    // whoever is not named stays behind whom it stood behind
    List<Wish> out = new ArrayList<>();
    Map<String, List<Wish>> behind = new HashMap<>();
    String anchor = "";
    for (Wish w : now.asWishes()) {
      if (names.contains(w.name())) anchor = w.name();
      else behind.computeIfAbsent(anchor, a -> new ArrayList<>()).add(w);
    }
    out.addAll(behind.getOrDefault("", List.of()));
    for (Wish w : named) {
      out.add(w);
      out.addAll(behind.getOrDefault(w.name(), List.of()));
    }
    return out;
  }

  private interface Placing {
    @MayBeAbsent
    PluginPlace of(LoadOrder before, LoadOrder after);
  }

  private LoadDifferenceView apply(
      long workspace,
      Expected expected,
      String said,
      Function<LoadOrder, List<Wish>> wishes,
      Placing placing) {
    return apply(
        workspace,
        expected,
        Origin.USER,
        said,
        open -> wishes.apply(open.picture().loadOrder()),
        placing);
  }

  private LoadDifferenceView apply(
      long workspace,
      Expected expected,
      Origin origin,
      String said,
      Function<OpenWorkspace, List<Wish>> wishes,
      Placing placing) {
    Changed changed =
        workspaces.change(workspace, expected, origin, b -> said, b -> next(b, wishes));
    PluginPlace place =
        placing.of(changed.before().picture().loadOrder(), changed.after().picture().loadOrder());
    return LoadDifferenceView.of(changed, place);
  }

  private static Arrangement next(OpenWorkspace open, Function<OpenWorkspace, List<Wish>> wishes) {
    Arrangement now = open.picture().arrangement();
    LoadOrder order = open.picture().loadOrder();
    return now.withPlugins(order.merged(now.plugins(), wishes.apply(open)));
  }

  static Entry require(LoadOrder order, String name) {
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
                "Name every plugin, those that are switched off too."));
      }
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
  }
}
