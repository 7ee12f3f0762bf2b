package ironing.server.loadorder;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadOrderCheck;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.loadorder.LoadOrderProposal.GaveWay;
import ironing.core.loadorder.LoadRule;
import ironing.core.order.Around;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.plugin.Plugin.Header;
import ironing.core.records.RecordIndex;
import ironing.server.journey.Journeys;
import ironing.server.journey.Journeys.PluginJourney;
import ironing.server.loadorder.Troubles.TroubleView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/load-order")
class LoadOrderController {
  private final LoadOrders orders;
  private final Workbenches benches;
  private final Journeys journeys;
  private final LoadRules rules;
  private final LoadHealth health;

  LoadOrderController(
      LoadOrders orders,
      Workbenches benches,
      Journeys journeys,
      LoadRules rules,
      LoadHealth health) {
    this.rules = rules;
    this.health = health;
    this.orders = orders;
    this.benches = benches;
    this.journeys = journeys;
  }

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

  record MovePluginRequest(String name, int to) {
    MovePluginRequest {
      Objects.requireNonNull(name, "name");
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

  /** The plugins in their order, with what is wrong. */
  @GetMapping
  ResponseEntity<LoadOrderView> loadOrder(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    LoadOrder order = bench.picture().loadOrder();
    LoadOrderCheck.Slots slots = LoadOrderCheck.slots(bench.game(), order);
    SlotsView slotsView =
        new SlotsView(
            slots.used(),
            slots.own(),
            slots.total().orElse(null),
            slots.reserved(),
            slots.left().orElse(null));
    LoadOrderView view =
        new LoadOrderView(
            bench.revision(),
            bench.game().plugins().isPresent(),
            slotsView,
            plugins(bench),
            Stream.concat(Troubles.of(bench).stream(), health.ofRules(bench).stream()).toList(),
            health.hints(bench));
    return ResponseEntity.ok().eTag(Revision.etag(bench.revision())).body(view);
  }

  private List<PluginView> plugins(Bench bench) {
    RecordIndex index = bench.get(RECORDS).index();
    Journeys.Ways ways = journeys.of(bench);
    List<PluginView> views = new ArrayList<>();
    int slot = 0;
    for (Entry e : bench.picture().loadOrder().entries()) {
      if (e.on()) slot++;
      int at = index.position(e.name());
      Optional<Header> h = e.plugin().header();
      views.add(
          new PluginView(
              e.name(),
              views.size() + 1,
              e.on() ? slot : null,
              e.on(),
              e.own(),
              e.plugin().mend(),
              e.plugin().mod(),
              bench.nameOf(e.plugin().mod()),
              e.plugin().stage(),
              masters(bench.picture().loadOrder(), e),
              at < 0 ? 0 : index.table(at).size(),
              at < 0 ? 0 : index.overrides(at),
              h.flatMap(Header::title).orElse(null),
              h.flatMap(Header::about).orElse(null),
              h.flatMap(Header::version).orElse(null),
              h.flatMap(Header::game).orElse(null),
              h.map(Header::packs).orElse(List.of()),
              e.plugin().flaw().orElse(null),
              e.kept(),
              e.fresh(),
              alsoFrom(bench, e),
              ways.plugin(e.name())));
    }
    return views;
  }

  private static List<String> alsoFrom(Bench bench, Entry e) {
    int path = bench.picture().holdings().idOf(bench.game().pluginPath(e.name()));
    if (path < 0) return List.of();
    Set<Long> on = new HashSet<>();
    for (Layer l : bench.picture().arrangement().layers()) if (l.on()) on.add(l.mod());
    return bench.picture().holdings().sourcesOf(path).stream()
        .filter(s -> s.pack().isEmpty() && s.mod() != e.plugin().mod() && on.contains(s.mod()))
        .map(s -> bench.nameOf(s.mod()))
        .toList();
  }

  private static List<MasterView> masters(LoadOrder order, Entry plugin) {
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

  /** A better order, as something to look at; nothing changes until it is taken. */
  @GetMapping("/proposal")
  ResponseEntity<ProposalView> proposal(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    LoadOrderProposal proposal = rules.proposal(bench);
    List<String> order = List.of();
    List<MoveView> moves = List.of(), keptNumbers = List.of();
    List<ReasonView> ring = List.of();
    LoadDifferenceView difference = null;
    if (proposal.outcome() instanceof Outcome.Sorted<String> sorted) {
      order = sorted.order();
      moves = sorted.moves().stream().map(LoadOrderController::move).toList();
      keptNumbers = keptNumbers(bench, sorted.order());
      difference = orders.differenceTo(bench, sorted.order());
    } else if (proposal.outcome() instanceof Outcome.Ring<String> r) {
      ring = reasons(r.ring());
    }
    List<GaveWayView> gaveWay =
        proposal.gaveWay().stream().map(LoadOrderController::gaveWay).toList();
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(
            new ProposalView(
                bench.revision(), order, moves, ring, gaveWay, keptNumbers, difference));
  }

  private static List<MoveView> keptNumbers(Bench bench, List<String> order) {
    Map<String, Integer> to = new HashMap<>();
    for (String name : order) to.put(name, to.size());
    List<MoveView> kept = new ArrayList<>();
    List<Entry> now = bench.picture().loadOrder().entries();
    for (int i = 0; i < now.size(); i++) {
      int next = to.get(now.get(i).name());
      if (now.get(i).kept() && next != i)
        kept.add(new MoveView(now.get(i).name(), i + 1, next + 1, List.of()));
    }
    return kept;
  }

  private static GaveWayView gaveWay(GaveWay g) {
    return new GaveWayView(
        g.rule().map(LoadRule::key).orElse(null),
        g.rule().map(LoadRulesController::words).orElse("The band of " + g.plugin()),
        g.rule().map(LoadRule::from).orElse("the bands of the mods"),
        g.rule().filter(r -> r.strength() == LoadRule.Strength.USER).isPresent(),
        reasons(g.ring()));
  }

  private static MoveView move(Move<String> m) {
    return new MoveView(m.item(), m.from() + 1, m.to() + 1, reasons(m.because()));
  }

  static List<ReasonView> reasons(List<Constraint<String>> chain) {
    return chain.stream().map(LoadOrderController::reason).toList();
  }

  private static ReasonView reason(Constraint<String> c) {
    return new ReasonView(c.earlier(), c.later(), c.reason(), c.from());
  }

  /**
   * @param names the plugins whose moves are taken; absent: all
   */
  record TakeProposalRequest(@MayBeAbsent Optional<List<String>> names) {}

  /** Takes the proposal, all of it or some of its moves. */
  @PostMapping("/proposal")
  ResponseEntity<LoadDifferenceView> takeProposal(
      @PathVariable long workspace,
      @RequestBody(required = false) TakeProposalRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Optional<List<String>> names =
        body == null || body.names() == null ? Optional.empty() : body.names();
    return answer(
        orders.takeProposal(workspace, Expected.of(dryRun, ifMatch), names.map(HashSet::new)));
  }

  /**
   * @param point a restore point of the profile in use
   */
  record RestoreOrderRequest(long point) {}

  /** Brings back the load order of a restore point, and nothing else of it. */
  @PostMapping("/restore")
  ResponseEntity<LoadDifferenceView> restoreOrder(
      @PathVariable long workspace,
      @RequestBody RestoreOrderRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return answer(orders.restore(workspace, Expected.of(dryRun, ifMatch), body.point()));
  }

  record KeepPluginsRequest(List<String> names, boolean kept) {
    KeepPluginsRequest {
      Objects.requireNonNull(names, "names");
    }
  }

  /** Marks plugins as kept here, or no longer. */
  @PostMapping("/keep")
  ResponseEntity<LoadDifferenceView> keepPlugins(
      @PathVariable long workspace,
      @RequestBody KeepPluginsRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return answer(orders.keep(workspace, Expected.of(ifMatch), body.names(), body.kept()));
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

  /** Why a plugin stands where it does. */
  @GetMapping("/why")
  WhyView why(@PathVariable long workspace, @RequestParam String plugin) {
    Bench bench = benches.get(workspace);
    LoadOrder order = bench.picture().loadOrder();
    Entry e = LoadOrders.require(order, plugin);
    int position = order.position(e.name()) + 1;
    LoadOrderProposal proposal = rules.proposal(bench);
    if (proposal.outcome() instanceof Outcome.Ring<String> r)
      return new WhyView(e.name(), position, List.of(), List.of(), null, null, reasons(r.ring()));
    LoadOrderProposal.Why why = proposal.why(e.name());
    boolean any = why.lowest() <= why.highest();
    return new WhyView(
        e.name(),
        position,
        ties(why.around().before()),
        ties(why.around().after()),
        any ? why.lowest() + 1 : null,
        any ? why.highest() + 1 : null,
        List.of());
  }

  private static List<TieView> ties(List<Around.Tie<String>> ties) {
    return ties.stream().map(t -> new TieView(t.other(), reasons(t.chain()))).toList();
  }

  /** Moves a plugin to a place, counted from 1 over all plugins. */
  @PostMapping("/move")
  ResponseEntity<LoadDifferenceView> movePlugin(
      @PathVariable long workspace,
      @RequestBody MovePluginRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Expected expected = Expected.of(dryRun, ifMatch);
    return answer(orders.move(workspace, expected, body.name(), body.to()));
  }

  /** Switches plugins on or off. */
  @PostMapping("/switch")
  ResponseEntity<LoadDifferenceView> switchPlugins(
      @PathVariable long workspace,
      @RequestBody SwitchPluginsRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Expected expected = Expected.of(dryRun, ifMatch);
    return answer(orders.switchTo(workspace, expected, body.names(), body.on()));
  }

  /** Puts all plugins in another order at once. */
  @PutMapping
  ResponseEntity<LoadDifferenceView> setLoadOrder(
      @PathVariable long workspace,
      @RequestBody LoadOrderRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    List<Wish> wishes = body.plugins().stream().map(w -> new Wish(w.name(), w.on())).toList();
    return answer(orders.set(workspace, Expected.of(dryRun, ifMatch), wishes));
  }

  private static ResponseEntity<LoadDifferenceView> answer(LoadDifferenceView d) {
    return ResponseEntity.ok().eTag(Revision.etag(d.revision())).body(d);
  }
}
