package ironing.server.loadorder;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.core.lists.ListReader;
import ironing.core.lists.PluginList;
import ironing.core.lists.PublishedList.Kind;
import ironing.server.follow.FollowView;
import ironing.server.follow.FollowView.ListSummary;
import ironing.server.follow.FollowView.TickRequest;
import ironing.server.follow.FollowedLists;
import ironing.server.follow.FollowedLists.Followed;
import ironing.server.loadorder.OrdersViews.FollowPluginsRequest;
import ironing.server.platform.Revision;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
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

  /** The load order as CSV. */
  @GetMapping(path = "/csv", produces = "text/csv")
  ResponseEntity<String> orderAsCsv(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return OrdersViews.file(
        bench, "csv", "text/csv;charset=UTF-8", PluginList.csv(OrdersViews.rows(bench)));
  }

  /** The load order as a list that others can follow. */
  @GetMapping(path = "/json", produces = "application/json")
  ResponseEntity<String> orderAsJson(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return OrdersViews.file(
        bench,
        "json",
        "application/json",
        PluginList.json(bench.profileName(), OrdersViews.rows(bench)));
  }

  /** The load order in Markdown, to be read. */
  @GetMapping(path = "/markdown", produces = "text/markdown")
  ResponseEntity<String> orderAsMarkdown(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return OrdersViews.file(
        bench,
        "md",
        "text/markdown;charset=UTF-8",
        PluginList.markdown(bench.profileName(), OrdersViews.rows(bench)));
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
    return OrdersViews.view(benches.get(workspace), lists.add(workspace, name, file, Kind.PLUGINS));
  }

  /** The load orders that are followed, the newest first. */
  @GetMapping
  List<ListSummary> orders(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return lists.all(workspace, Kind.PLUGINS).stream()
        .map(l -> OrdersViews.view(bench, l).summary())
        .toList();
  }

  /** One published load order, compared with the present one. */
  @GetMapping("/{list}")
  ResponseEntity<FollowView> order(@PathVariable long workspace, @PathVariable long list) {
    Bench bench = benches.get(workspace);
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(OrdersViews.view(bench, lists.get(workspace, list, Kind.PLUGINS)));
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
            order -> OrdersViews.taken(order, followed, body));
    return ResponseEntity.ok().eTag(Revision.etag(d.revision())).body(d);
  }
}
