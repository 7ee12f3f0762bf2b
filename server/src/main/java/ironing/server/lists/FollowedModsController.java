package ironing.server.lists;

import ironing.core.lists.PublishedList;
import ironing.core.lists.PublishedList.Kind;
import ironing.server.layers.DifferenceView;
import ironing.server.layers.Layers;
import ironing.server.lists.FollowedLists.Followed;
import ironing.server.lists.FollowedModsViews.FollowRequest;
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

/** Install orders that the user follows: brought in, compared, taken step by step or at once. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/lists")
class FollowedModsController extends FollowedListEndpoints {
  private final Layers layers;

  FollowedModsController(FollowedLists lists, Layers layers, OpenWorkspaces workspaces) {
    super(lists, workspaces, Kind.MODS);
    this.layers = layers;
  }

  @Override
  FollowView view(OpenWorkspace open, Followed list) {
    return FollowedModsViews.view(open, list);
  }

  /** Brings the layers to the list: all moves and switches, or some. */
  @PostMapping("/{list}/take")
  ResponseEntity<DifferenceView> takeList(
      @PathVariable long workspace,
      @PathVariable long list,
      @RequestBody FollowRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Followed followed = followed(workspace, list);
    PublishedList published = followed.list();
    return layers
        .arrangeAndSwitch(
            workspace,
            Expected.of(dryRun, ifMatch),
            OpenWorkspaces.Origin.IMPORT,
            FollowedModsViews.said(published, body),
            b -> FollowedModsViews.order(b, followed, body),
            b -> FollowedModsViews.switches(b, followed, body))
        .asAnswer();
  }
}
