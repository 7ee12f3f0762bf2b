package ironing.server.loadorder;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.core.lists.Following;
import ironing.core.lists.Following.Here;
import ironing.core.lists.ListReader;
import ironing.core.lists.PluginList;
import ironing.core.lists.PluginList.Row;
import ironing.core.lists.PublishedList.Entry;
import ironing.core.lists.PublishedList.Kind;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Move;
import ironing.server.follow.FollowView;
import ironing.server.follow.FollowView.EntryView;
import ironing.server.follow.FollowView.ExtraView;
import ironing.server.follow.FollowView.ListSummary;
import ironing.server.follow.FollowView.TickRequest;
import ironing.server.follow.FollowedLists;
import ironing.server.follow.FollowedLists.Followed;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.platform.Served;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The load order as a list to take away, and published load orders that the user follows. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/load-order/lists")
class OrdersController {
  private final FollowedLists lists;
  private final LoadOrders orders;
  private final Workbenches benches;

  OrdersController(FollowedLists lists, LoadOrders orders, Workbenches benches) {
    this.lists = lists;
    this.orders = orders;
    this.benches = benches;
  }

  /**
   * What is taken of a list; both absent: all of it.
   *
   * @param moves plugins that are moved
   * @param switches plugins that are switched
   */
  record FollowPluginsRequest(
      @MayBeAbsent Optional<List<String>> moves, @MayBeAbsent Optional<List<String>> switches) {}

  /** The load order as CSV. */
  @GetMapping(path = "/csv", produces = "text/csv")
  ResponseEntity<String> orderAsCsv(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return file(bench, "csv", "text/csv;charset=UTF-8", PluginList.csv(rows(bench)));
  }

  /** The load order as a list that others can follow. */
  @GetMapping(path = "/json", produces = "application/json")
  ResponseEntity<String> orderAsJson(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return file(
        bench, "json", "application/json", PluginList.json(bench.profileName(), rows(bench)));
  }

  /** The load order in Markdown, to be read. */
  @GetMapping(path = "/markdown", produces = "text/markdown")
  ResponseEntity<String> orderAsMarkdown(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return file(
        bench,
        "md",
        "text/markdown;charset=UTF-8",
        PluginList.markdown(bench.profileName(), rows(bench)));
  }

  private static List<Row> rows(Bench bench) {
    List<Row> rows = new ArrayList<>();
    for (LoadOrder.Entry e : bench.picture().loadOrder().entries())
      rows.add(new Row(rows.size() + 1, e.name(), e.on(), bench.nameOf(e.plugin().mod())));
    return rows;
  }

  private static ResponseEntity<String> file(Bench bench, String ending, String type, String text) {
    return Served.asFile(
        bench.title() + ", load order of " + bench.profileName() + "." + ending, type, text);
  }

  /** Brings a published load order in; nothing is changed by it. */
  @PostMapping(consumes = "application/octet-stream")
  @ResponseStatus(HttpStatus.CREATED)
  @Operation(
      requestBody =
          @io.swagger.v3.oas.annotations.parameters.RequestBody(
              required = true,
              content =
                  @Content(
                      mediaType = "application/octet-stream",
                      schema = @Schema(type = "string", format = "binary"))))
  FollowView followOrder(
      @PathVariable long workspace,
      @RequestParam String name,
      @Parameter(hidden = true) HttpServletRequest request)
      throws IOException {
    byte[] file = request.getInputStream().readNBytes(ListReader.LARGEST + 1);
    return view(benches.get(workspace), lists.add(workspace, name, file, Kind.PLUGINS));
  }

  /** The load orders that are followed, the newest first. */
  @GetMapping
  List<ListSummary> orders(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return lists.all(workspace, Kind.PLUGINS).stream().map(l -> view(bench, l).summary()).toList();
  }

  /** One published load order, compared with the present one. */
  @GetMapping("/{list}")
  ResponseEntity<FollowView> order(@PathVariable long workspace, @PathVariable long list) {
    Bench bench = benches.get(workspace);
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(view(bench, lists.get(workspace, list, Kind.PLUGINS)));
  }

  /** Follows a load order no longer; it can be brought back. */
  @DeleteMapping("/{list}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void unfollowOrder(@PathVariable long workspace, @PathVariable long list) {
    lists.setGone(workspace, lists.get(workspace, list, Kind.PLUGINS), true);
  }

  /** Goes back to following a load order after leaving it in part. */
  @PostMapping("/{list}/back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void followOrderAgain(@PathVariable long workspace, @PathVariable long list) {
    lists.setGone(workspace, lists.get(workspace, list, Kind.PLUGINS), false);
  }

  /** Ticks the note of an entry off, or takes the tick back. */
  @PutMapping("/{list}/ticks")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void tickOrder(
      @PathVariable long workspace, @PathVariable long list, @RequestBody TickRequest body) {
    lists.tick(workspace, lists.get(workspace, list, Kind.PLUGINS), body.number(), body.ticked());
  }

  /** Brings the load order to the list: all moves and switches, or some. */
  @PostMapping("/{list}/take")
  ResponseEntity<LoadDifferenceView> takeOrder(
      @PathVariable long workspace,
      @PathVariable long list,
      @RequestBody FollowPluginsRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Followed followed = lists.get(workspace, list, Kind.PLUGINS);
    LoadDifferenceView d =
        orders.bring(
            workspace,
            Expected.of(dryRun, ifMatch),
            "Brought the load order to the list “" + followed.title() + "”",
            order -> taken(order, followed, body));
    return ResponseEntity.ok().eTag(Revision.etag(d.revision())).body(d);
  }

  // a part that a request leaves out arrives as null
  private static Optional<List<String>> some(Optional<List<String>> part) {
    return part == null ? Optional.empty() : part;
  }

  private static List<Wish> taken(LoadOrder order, Followed followed, FollowPluginsRequest body) {
    boolean all = some(body.moves()).isEmpty() && some(body.switches()).isEmpty();
    Set<String> moves = new HashSet<>(some(body.moves()).orElse(List.of()));
    Set<String> switches = new HashSet<>(some(body.switches()).orElse(List.of()));
    Compared c = compare(order, followed);
    Set<Long> chosen = new HashSet<>();
    for (Here h : c.here()) if (moves.contains(h.name())) chosen.add(h.key());
    List<Long> present = c.here().stream().map(Here::key).toList();
    List<Long> next =
        all
            ? c.followed().whole().order()
            : FewestMoves.some(present, c.followed().whole(), chosen);
    Map<String, Boolean> on = new HashMap<>();
    for (int i = 0; i < c.entries().size(); i++) {
      Optional<Here> here = c.followed().places().get(i);
      Optional<Boolean> wanted = c.entries().get(i).on();
      if (here.isPresent() && wanted.isPresent() && (all || switches.contains(here.get().name())))
        on.put(here.get().name(), wanted.get());
    }
    List<Wish> wishes = new ArrayList<>();
    for (long key : next) {
      Here h = c.here().get((int) key);
      wishes.add(new Wish(h.name(), on.getOrDefault(h.name(), h.on()), h.kept()));
    }
    return wishes;
  }

  /**
   * @param here the plugins but the game’s own, which nobody moves; a key is an index in it
   * @param entries of the list, without the game’s own
   * @param numbers of these entries in the list, from 1
   */
  private record Compared(
      List<Here> here, List<Entry> entries, List<Integer> numbers, Following.Followed followed) {}

  private static Compared compare(LoadOrder order, Followed list) {
    List<Here> here = new ArrayList<>();
    for (LoadOrder.Entry e : order.entries())
      if (!e.own()) here.add(new Here(here.size(), "", e.name(), "", e.on(), e.kept()));
    List<Entry> entries = new ArrayList<>();
    List<Integer> numbers = new ArrayList<>();
    int number = 0;
    for (Entry e : list.list().entries()) {
      number++;
      if (order.find(e.name()).filter(LoadOrder.Entry::own).isPresent()) continue;
      entries.add(e);
      numbers.add(number);
    }
    return new Compared(here, entries, numbers, Following.compare(list.title(), entries, here));
  }

  private static FollowView view(Bench bench, Followed row) {
    LoadOrder order = bench.picture().loadOrder();
    Compared c = compare(order, row);
    int own = order.entries().size() - c.here().size();
    Map<Long, Move<Long>> moves = c.followed().moves();
    List<EntryView> entries = new ArrayList<>();
    for (int i = 0; i < c.entries().size(); i++) {
      Entry e = c.entries().get(i);
      Optional<Here> here = c.followed().places().get(i);
      Move<Long> move = here.map(h -> moves.get(h.key())).orElse(null);
      entries.add(
          new EntryView(
              c.numbers().get(i),
              "",
              here.map(Here::name).orElse(e.name()),
              "",
              "",
              e.note(),
              row.ticked().contains(c.numbers().get(i)),
              here.flatMap(h -> order.find(h.name())).map(p -> p.plugin().mod()).orElse(null),
              null,
              false,
              null,
              here.map(h -> (int) h.key() + own + 1).orElse(null),
              move == null ? null : move.to() + own + 1,
              here.filter(h -> e.on().isPresent() && e.on().get() != h.on())
                  .map(h -> !h.on())
                  .orElse(null),
              here.filter(h -> c.followed().heldFast().contains(h.key())).isPresent()));
    }
    List<ExtraView> extra = new ArrayList<>();
    for (Here h : c.followed().extra())
      extra.add(
          new ExtraView(
              order.find(h.name()).orElseThrow().plugin().mod(),
              h.name(),
              (int) h.key() + own + 1,
              h.on()));
    return new FollowView(
        bench.revision(),
        row.id(),
        row.title(),
        row.at(),
        row.list().remarks(),
        row.gone(),
        entries,
        extra);
  }
}
