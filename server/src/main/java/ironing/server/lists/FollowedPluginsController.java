package ironing.server.lists;

import ironing.core.lists.PublishedList.Kind;
import ironing.server.lists.FollowedLists.Followed;
import ironing.server.lists.FollowedPluginsViews.FollowPluginsRequest;
import ironing.server.loadorder.LoadDifferenceView;
import ironing.server.loadorder.LoadOrders;
import ironing.server.platform.Revision;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Published load orders that the user follows. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/load-order/lists")
class FollowedPluginsController extends FollowedListEndpoints {
  private final LoadOrders orders;

  FollowedPluginsController(FollowedLists lists, LoadOrders orders, OpenWorkspaces workspaces) {
    super(lists, workspaces, Kind.PLUGINS);
    this.orders = orders;
  }

  @Override
  FollowView view(OpenWorkspace open, Followed list) {
    return FollowedPluginsViews.view(open, list);
  }

  /** Brings the load order to the list: all moves and switches, or some. */
  @PostMapping("/{list}/take")
  ResponseEntity<LoadDifferenceView> takeOrder(
      @PathVariable long workspace,
      @PathVariable long list,
      @RequestBody FollowPluginsRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Followed followed = followed(workspace, list);
    LoadDifferenceView d =
        orders.bring(
            workspace,
            Expected.of(dryRun, ifMatch),
            "Brought the load order to the list “" + followed.title() + "”",
            order -> FollowedPluginsViews.taken(order, followed, body));
    return ResponseEntity.ok().eTag(Revision.etag(d.revision())).body(d);
  }
}
