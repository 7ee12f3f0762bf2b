package ironing.server.loadorder;

import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrderProposal.GaveWay;
import ironing.core.loadorder.LoadRule;
import ironing.core.order.Around;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.plugin.PluginFiles;
import ironing.server.loadorder.Troubles.TroubleView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.progress.KnownProgress.PluginJourney;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.ResponseEntity;

/** What {@link LoadOrderController} gives and takes, and how it is made of what the core says. */
final class LoadOrderViews {
  private LoadOrderViews() {}

  /** How a master stands to the plugin that lists it. */
  enum MasterState {
    FINE,
    LATE,
    OFF,
    MISSING
  }

  record MasterView(String name, MasterState state) {}

  /**
   * @param position from 1, the game's own among them
   * @param own the game's
   * @param mend generated from other mods
   * @param records that it holds in all
   * @param overrides of these, those of other plugins
   * @param slot counted over those that are on; absent when off
   * @param flaw why it cannot be read
   * @param kept whether no proposal moves it
   * @param fresh whether it has just come: nobody has given it a place yet
   * @param alsoFrom other mods that are on and bring a plugin of this name, which is not in play
   */
  record PluginView(
      String name,
      int position,
      @MayBeAbsent Integer slot,
      boolean on,
      boolean own,
      boolean mend,
      long mod,
      String modName,
      int stage,
      List<MasterView> masters,
      int records,
      int overrides,
      @MayBeAbsent String title,
      @MayBeAbsent String about,
      @MayBeAbsent String version,
      @MayBeAbsent String game,
      List<String> packs,
      @MayBeAbsent String flaw,
      boolean kept,
      boolean fresh,
      List<String> alsoFrom,
      PluginJourney journey) {}

  /**
   * @param total absent when the game has no limit
   * @param reserved kept for the save
   * @param left free ones; below 0 when there are too many plugins
   */
  record SlotsView(
      int used, int own, @MayBeAbsent Integer total, int reserved, @MayBeAbsent Integer left) {}

  /**
   * @param hasPlugins whether the game knows plugins at all
   * @param hints what is only good to know
   */
  record LoadOrderView(
      long revision,
      boolean hasPlugins,
      SlotsView slots,
      List<PluginView> plugins,
      List<TroubleView> troubles,
      List<TroubleView> hints) {}

  /**
   * @param reason in words, from the side of the one that loads later
   * @param from who said it
   */
  record ReasonView(String earlier, String later, String reason, String from) {}

  /**
   * @param from from 1, {@code to} likewise
   * @param because a chain, each one’s later plugin the next one’s earlier; empty when it only
   *     makes room
   */
  record MoveView(String name, int from, int to, List<ReasonView> because) {}

  /**
   * A wish that could not be kept.
   *
   * @param key of the rule; absent where a plugin was let out of its mod’s band
   * @param what in words
   * @param own whether the user made it
   * @param ring the shortest ring that it closes with stronger wishes
   */
  record GaveWayView(
      @MayBeAbsent String key, String what, String from, boolean own, List<ReasonView> ring) {}

  /**
   * @param order all plugins as proposed; empty when there is no order
   * @param ring why there is none: each must load before the next
   * @param gaveWay wishes that contradict stronger ones
   * @param keptNumbers plugins that are kept here and whose number would change all the same
   * @param difference what taking it would change; absent when there is no order
   */
  record ProposalView(
      long revision,
      List<String> order,
      List<MoveView> moves,
      List<ReasonView> ring,
      List<GaveWayView> gaveWay,
      List<MoveView> keptNumbers,
      @MayBeAbsent LoadDifferenceView difference) {}

  /**
   * @param name the plugin that is moved
   * @param names several in its place, which come to stand one behind the other in the order that
   *     they have
   * @param to where the first of them is to stand among all plugins, counted from 1
   */
  record MovePluginRequest(@MayBeAbsent String name, @MayBeAbsent List<String> names, int to) {
    MovePluginRequest {
      if (names == null) Objects.requireNonNull(name, "name");
    }

    List<String> moved() {
      return names == null ? List.of(name) : names;
    }
  }

  record SwitchPluginsRequest(List<String> names, boolean on) {
    SwitchPluginsRequest {
      Objects.requireNonNull(names, "names");
    }
  }

  record PluginWish(String name, boolean on) {
    PluginWish {
      Objects.requireNonNull(name, "name");
    }
  }

  record LoadOrderRequest(List<PluginWish> plugins) {
    LoadOrderRequest {
      Objects.requireNonNull(plugins, "plugins");
    }
  }

  static List<String> alsoFrom(OpenWorkspace open, Entry e) {
    if (e.plugin().files().isPresent())
      return e.plugin().files().get().parts().stream()
          .map(PluginFiles.Part::mod)
          .filter(m -> m != e.plugin().mod())
          .distinct()
          .map(open::nameOf)
          .toList();
    int path = open.picture().holdings().idOf(e.plugin().path());
    if (path < 0) return List.of();
    Set<Long> on = new HashSet<>();
    for (Layer l : open.picture().arrangement().layers()) if (l.on()) on.add(l.mod());
    return open.picture().holdings().sourcesOf(path).stream()
        .filter(s -> s.pack().isEmpty() && s.mod() != e.plugin().mod() && on.contains(s.mod()))
        .map(s -> open.nameOf(s.mod()))
        .toList();
  }

  static List<MasterView> masters(LoadOrder order, Entry plugin) {
    int at = order.position(plugin.name());
    return plugin.plugin().masters().stream()
        .map(
            m -> {
              Optional<Entry> e = order.find(m);
              MasterState state = MasterState.FINE;
              if (e.isEmpty()) state = MasterState.MISSING;
              else if (!e.get().on()) state = MasterState.OFF;
              else if (order.position(m) > at) state = MasterState.LATE;
              return new MasterView(e.map(Entry::name).orElse(m), state);
            })
        .toList();
  }

  static List<MoveView> keptNumbers(OpenWorkspace open, List<String> order) {
    Map<String, Integer> to = new HashMap<>();
    for (String name : order) to.put(name, to.size());
    List<MoveView> kept = new ArrayList<>();
    List<Entry> now = open.picture().loadOrder().entries();
    for (int i = 0; i < now.size(); i++) {
      int next = to.get(now.get(i).name());
      if (now.get(i).kept() && next != i)
        kept.add(new MoveView(now.get(i).name(), i + 1, next + 1, List.of()));
    }
    return kept;
  }

  static GaveWayView gaveWay(GaveWay g) {
    return new GaveWayView(
        g.rule().map(LoadRule::key).orElse(null),
        g.rule().map(LoadRulesViews::words).orElse("The band of " + g.plugin()),
        g.rule().map(LoadRule::from).orElse("the bands of the mods"),
        g.rule().filter(r -> r.strength() == LoadRule.Strength.USER).isPresent(),
        reasons(g.ring()));
  }

  static MoveView move(Move<String> m) {
    return new MoveView(m.item(), m.from() + 1, m.to() + 1, reasons(m.because()));
  }

  static List<ReasonView> reasons(List<Constraint<String>> chain) {
    return chain.stream().map(LoadOrderViews::reason).toList();
  }

  static ReasonView reason(Constraint<String> c) {
    return new ReasonView(c.earlier(), c.later(), c.reason(), c.from());
  }

  /**
   * @param names the plugins whose moves are taken; absent: all
   */
  record TakeProposalRequest(@MayBeAbsent Optional<List<String>> names) {}

  /**
   * @param point a restore point of the profile in use
   */
  record RestoreOrderRequest(long point) {}

  record KeepPluginsRequest(List<String> names, boolean kept) {
    KeepPluginsRequest {
      Objects.requireNonNull(names, "names");
    }
  }

  /**
   * A plugin that another one must follow or precede.
   *
   * @param chain the fewest wishes between the two, from the earlier to the later
   */
  record TieView(String name, List<ReasonView> chain) {}

  /**
   * Why a plugin stands where it does; positions from 1.
   *
   * @param before what must load before it, the nearest by wishes first
   * @param lowest how far up it could move with nothing else moving, {@code highest} how far down;
   *     absent where the order breaks what it asks for so that no place is right
   */
  record WhyView(
      String name,
      int position,
      List<TieView> before,
      List<TieView> after,
      @MayBeAbsent Integer lowest,
      @MayBeAbsent Integer highest,
      List<ReasonView> ring) {}

  static List<TieView> ties(List<Around.Tie<String>> ties) {
    return ties.stream().map(t -> new TieView(t.other(), reasons(t.chain()))).toList();
  }

  static ResponseEntity<LoadDifferenceView> answer(LoadDifferenceView d) {
    return ResponseEntity.ok().eTag(Revision.etag(d.revision())).body(d);
  }
}
