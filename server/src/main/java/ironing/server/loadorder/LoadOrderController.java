package ironing.server.loadorder;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.LoadOrderCheck;
import ironing.core.loadorder.LoadOrderProposal;
import ironing.core.order.Ordering.Outcome;
import ironing.core.plugin.Plugin.Header;
import ironing.core.records.RecordIndex;
import ironing.server.loadorder.LoadOrderViews.GaveWayView;
import ironing.server.loadorder.LoadOrderViews.KeepPluginsRequest;
import ironing.server.loadorder.LoadOrderViews.LoadOrderRequest;
import ironing.server.loadorder.LoadOrderViews.LoadOrderView;
import ironing.server.loadorder.LoadOrderViews.MovePluginRequest;
import ironing.server.loadorder.LoadOrderViews.MoveView;
import ironing.server.loadorder.LoadOrderViews.PluginView;
import ironing.server.loadorder.LoadOrderViews.ProposalView;
import ironing.server.loadorder.LoadOrderViews.ReasonView;
import ironing.server.loadorder.LoadOrderViews.RestoreOrderRequest;
import ironing.server.loadorder.LoadOrderViews.SlotsView;
import ironing.server.loadorder.LoadOrderViews.SwitchPluginsRequest;
import ironing.server.loadorder.LoadOrderViews.TakeProposalRequest;
import ironing.server.loadorder.LoadOrderViews.WhyView;
import ironing.server.platform.Revision;
import ironing.server.progress.KnownProgress;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
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
  private final OpenWorkspaces workspaces;
  private final KnownProgress journeys;
  private final LoadRules rules;
  private final LoadHealth health;

  LoadOrderController(
      LoadOrders orders,
      OpenWorkspaces workspaces,
      KnownProgress journeys,
      LoadRules rules,
      LoadHealth health) {
    this.rules = rules;
    this.health = health;
    this.orders = orders;
    this.workspaces = workspaces;
    this.journeys = journeys;
  }

  /** The plugins in their order, with what is wrong. */
  @GetMapping
  ResponseEntity<LoadOrderView> loadOrder(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    LoadOrder order = open.picture().loadOrder();
    LoadOrderCheck.Slots slots = LoadOrderCheck.slots(open.game(), order);
    SlotsView slotsView =
        new SlotsView(
            slots.used(),
            slots.own(),
            slots.total().orElse(null),
            slots.reserved(),
            slots.left().orElse(null));
    LoadOrderView view =
        new LoadOrderView(
            open.revision(),
            open.game().plugins().isPresent(),
            slotsView,
            plugins(open),
            Stream.concat(Troubles.of(open).stream(), health.ofRules(open).stream()).toList(),
            health.hints(open));
    return ResponseEntity.ok().eTag(Revision.etag(open.revision())).body(view);
  }

  private List<PluginView> plugins(OpenWorkspace open) {
    RecordIndex index = open.get(RECORDS).index();
    KnownProgress.Ways ways = journeys.of(open);
    List<PluginView> views = new ArrayList<>();
    int slot = 0;
    for (Entry e : open.picture().loadOrder().entries()) {
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
              open.nameOf(e.plugin().mod()),
              e.plugin().stage(),
              LoadOrderViews.masters(open.picture().loadOrder(), e),
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
              LoadOrderViews.alsoFrom(open, e),
              ways.plugin(e.name())));
    }
    return views;
  }

  /** A better order, as something to look at; nothing changes until it is taken. */
  @GetMapping("/proposal")
  ResponseEntity<ProposalView> proposal(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    LoadOrderProposal proposal = rules.proposal(open);
    List<String> order = List.of();
    List<MoveView> moves = List.of(), keptNumbers = List.of();
    List<ReasonView> ring = List.of();
    LoadDifferenceView difference = null;
    if (proposal.outcome() instanceof Outcome.Sorted<String> sorted) {
      order = sorted.order();
      moves = sorted.moves().stream().map(LoadOrderViews::move).toList();
      keptNumbers = LoadOrderViews.keptNumbers(open, sorted.order());
      difference = orders.differenceTo(open, sorted.order());
    } else if (proposal.outcome() instanceof Outcome.Ring<String> r) {
      ring = LoadOrderViews.reasons(r.ring());
    }
    List<GaveWayView> gaveWay = proposal.gaveWay().stream().map(LoadOrderViews::gaveWay).toList();
    return ResponseEntity.ok()
        .eTag(Revision.etag(open.revision()))
        .body(
            new ProposalView(
                open.revision(), order, moves, ring, gaveWay, keptNumbers, difference));
  }

  /** Takes the proposal, all of it or some of its moves. */
  @PostMapping("/proposal")
  ResponseEntity<LoadDifferenceView> takeProposal(
      @PathVariable long workspace,
      @RequestBody(required = false) TakeProposalRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Optional<List<String>> names =
        body == null || body.names() == null ? Optional.empty() : body.names();
    return LoadOrderViews.answer(
        orders.takeProposal(workspace, Expected.of(dryRun, ifMatch), names.map(HashSet::new)));
  }

  /** Brings back the load order of a restore point, and nothing else of it. */
  @PostMapping("/restore")
  ResponseEntity<LoadDifferenceView> restoreOrder(
      @PathVariable long workspace,
      @RequestBody RestoreOrderRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return LoadOrderViews.answer(
        orders.restore(workspace, Expected.of(dryRun, ifMatch), body.point()));
  }

  /** Marks plugins as kept here, or no longer. */
  @PostMapping("/keep")
  ResponseEntity<LoadDifferenceView> keepPlugins(
      @PathVariable long workspace,
      @RequestBody KeepPluginsRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return LoadOrderViews.answer(
        orders.keep(workspace, Expected.of(ifMatch), body.names(), body.kept()));
  }

  /** Why a plugin stands where it does. */
  @GetMapping("/why")
  WhyView why(@PathVariable long workspace, @RequestParam String plugin) {
    OpenWorkspace open = workspaces.get(workspace);
    LoadOrder order = open.picture().loadOrder();
    Entry e = LoadOrders.require(order, plugin);
    int position = order.position(e.name()) + 1;
    LoadOrderProposal proposal = rules.proposal(open);
    if (proposal.outcome() instanceof Outcome.Ring<String> r)
      return new WhyView(
          e.name(), position, List.of(), List.of(), null, null, LoadOrderViews.reasons(r.ring()));
    LoadOrderProposal.Why why = proposal.why(e.name());
    boolean any = why.lowest() <= why.highest();
    return new WhyView(
        e.name(),
        position,
        LoadOrderViews.ties(why.around().before()),
        LoadOrderViews.ties(why.around().after()),
        any ? why.lowest() + 1 : null,
        any ? why.highest() + 1 : null,
        List.of());
  }

  /** Moves plugins to a place, counted from 1 over all plugins. */
  @PostMapping("/move")
  ResponseEntity<LoadDifferenceView> movePlugin(
      @PathVariable long workspace,
      @RequestBody MovePluginRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Expected expected = Expected.of(dryRun, ifMatch);
    return LoadOrderViews.answer(orders.move(workspace, expected, body.moved(), body.to()));
  }

  /** Switches plugins on or off. */
  @PostMapping("/switch")
  ResponseEntity<LoadDifferenceView> switchPlugins(
      @PathVariable long workspace,
      @RequestBody SwitchPluginsRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Expected expected = Expected.of(dryRun, ifMatch);
    return LoadOrderViews.answer(orders.switchTo(workspace, expected, body.names(), body.on()));
  }

  /** Puts all plugins in another order at once. */
  @PutMapping
  ResponseEntity<LoadDifferenceView> setLoadOrder(
      @PathVariable long workspace,
      @RequestBody LoadOrderRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    List<Wish> wishes = body.plugins().stream().map(w -> new Wish(w.name(), w.on())).toList();
    return LoadOrderViews.answer(orders.set(workspace, Expected.of(dryRun, ifMatch), wishes));
  }
}
