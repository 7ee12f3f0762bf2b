package ironing.server.loadorder;

import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadOrderCheck;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.server.journey.Journeys;
import ironing.server.journey.Journeys.PluginJourney;
import ironing.server.loadorder.Troubles.TroubleView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.records.RecordIndex;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
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
  private final RecordIndex index;
  private final Journeys journeys;

  LoadOrderController(
      LoadOrders orders, Workbenches benches, RecordIndex index, Journeys journeys) {
    this.orders = orders;
    this.benches = benches;
    this.index = index;
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
   */
  record LoadOrderView(
      long revision,
      boolean hasPlugins,
      SlotsView slots,
      List<PluginView> plugins,
      List<TroubleView> troubles) {}

  /**
   * @param reason in words, from the side of the one that loads later
   * @param from who said it
   */
  record ReasonView(String earlier, String later, String reason, String from) {}

  /** Positions from 1. */
  record MoveView(String name, int from, int to, @MayBeAbsent ReasonView because) {}

  record LeftOutView(String plugin, String other, boolean after, String mod) {}

  /**
   * @param order all plugins as proposed; empty when there is no order
   * @param ring why there is none: each must load before the next
   * @param leftOut wishes of cards that contradict the files or one another
   * @param difference what taking it would change; absent when there is no order
   */
  record ProposalView(
      long revision,
      List<String> order,
      List<MoveView> moves,
      List<ReasonView> ring,
      List<LeftOutView> leftOut,
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
            Troubles.of(bench));
    return ResponseEntity.ok().eTag(Revision.etag(bench.revision())).body(view);
  }

  private List<PluginView> plugins(Bench bench) {
    RecordIndex.Records records = index.of(bench);
    Map<String, Integer> overrides = records.versions().overridesByPlugin();
    Map<String, Integer> counts = new HashMap<>();
    for (Plugin p : records.order()) counts.put(PathCase.fold(p.name()), p.records().size());
    Journeys.Ways ways = journeys.of(bench);
    List<PluginView> views = new ArrayList<>();
    int slot = 0;
    for (Entry e : bench.picture().loadOrder().entries()) {
      if (e.on()) slot++;
      String key = PathCase.fold(e.name());
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
              counts.getOrDefault(key, 0),
              overrides.getOrDefault(key, 0),
              h.flatMap(Header::title).orElse(null),
              h.flatMap(Header::about).orElse(null),
              h.flatMap(Header::version).orElse(null),
              h.flatMap(Header::game).orElse(null),
              h.map(Header::packs).orElse(List.of()),
              e.plugin().flaw().orElse(null),
              ways.plugin(e.name())));
    }
    return views;
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
    LoadOrderProposal proposal = orders.proposal(bench);
    List<String> order = List.of();
    List<MoveView> moves = List.of();
    List<ReasonView> ring = List.of();
    LoadDifferenceView difference = null;
    if (proposal.outcome() instanceof Outcome.Sorted<String> sorted) {
      order = sorted.order();
      moves = sorted.moves().stream().map(LoadOrderController::move).toList();
      difference = orders.takeProposal(workspace, 0, true);
    } else if (proposal.outcome() instanceof Outcome.Ring<String> r) {
      ring = r.ring().stream().map(LoadOrderController::reason).toList();
    }
    List<LeftOutView> leftOut =
        proposal.leftOut().stream()
            .map(w -> new LeftOutView(w.plugin(), w.other(), w.after(), w.mod()))
            .toList();
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(new ProposalView(bench.revision(), order, moves, ring, leftOut, difference));
  }

  private static MoveView move(Move<String> m) {
    ReasonView because = m.because().isEmpty() ? null : reason(m.because().get(0));
    return new MoveView(m.item(), m.from() + 1, m.to() + 1, because);
  }

  private static ReasonView reason(Constraint<String> c) {
    return new ReasonView(c.earlier(), c.later(), c.reason(), c.from());
  }

  @PostMapping("/proposal")
  ResponseEntity<LoadDifferenceView> takeProposal(
      @PathVariable long workspace,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return answer(orders.takeProposal(workspace, Revision.fromIfMatch(ifMatch), false));
  }

  /** Moves a plugin to a place, counted from 1 over all plugins. */
  @PostMapping("/move")
  ResponseEntity<LoadDifferenceView> movePlugin(
      @PathVariable long workspace,
      @RequestBody MovePluginRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    long revision = Revision.expected(dryRun, ifMatch);
    return answer(orders.move(workspace, revision, body.name(), body.to(), dryRun));
  }

  @PostMapping("/switch")
  ResponseEntity<LoadDifferenceView> switchPlugins(
      @PathVariable long workspace,
      @RequestBody SwitchPluginsRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    long revision = Revision.expected(dryRun, ifMatch);
    return answer(orders.switchTo(workspace, revision, body.names(), body.on(), dryRun));
  }

  @PutMapping
  ResponseEntity<LoadDifferenceView> setLoadOrder(
      @PathVariable long workspace,
      @RequestBody LoadOrderRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    List<Wish> wishes = body.plugins().stream().map(w -> new Wish(w.name(), w.on())).toList();
    return answer(orders.set(workspace, Revision.expected(dryRun, ifMatch), wishes, dryRun));
  }

  private static ResponseEntity<LoadDifferenceView> answer(LoadDifferenceView d) {
    return ResponseEntity.ok().eTag(Revision.etag(d.revision())).body(d);
  }
}
