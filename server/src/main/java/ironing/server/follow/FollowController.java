package ironing.server.follow;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.core.lists.ListReader;
import ironing.core.lists.PublishedList;
import ironing.core.lists.PublishedList.Kind;
import ironing.server.follow.FollowView.ListSummary;
import ironing.server.follow.FollowViews.FollowRequest;
import ironing.server.layers.DifferenceView;
import ironing.server.layers.Layers;
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

/** Install orders that the user follows: brought in, compared, taken step by step or at once. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/lists")
class FollowController {
  private final FollowedLists lists;
  private final Layers layers;
  private final Workbenches benches;

  FollowController(FollowedLists lists, Layers layers, Workbenches benches) {
    this.lists = lists;
    this.layers = layers;
    this.benches = benches;
  }

  /** Brings a list in; nothing is changed by it. */
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
  FollowView follow(
      @PathVariable long workspace,
      @RequestParam String name,
      @Parameter(hidden = true) HttpServletRequest request)
      throws IOException {
    byte[] file = request.getInputStream().readNBytes(ListReader.LARGEST + 1);
    return FollowViews.view(benches.get(workspace), lists.add(workspace, name, file, Kind.MODS));
  }

  /** The lists that are followed, the newest first. */
  @GetMapping
  List<ListSummary> lists(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return lists.all(workspace, Kind.MODS).stream()
        .map(l -> FollowViews.view(bench, l).summary())
        .toList();
  }

  /** One published list, compared with what is here. */
  @GetMapping("/{list}")
  ResponseEntity<FollowView> list(@PathVariable long workspace, @PathVariable long list) {
    Bench bench = benches.get(workspace);
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(FollowViews.view(bench, lists.get(workspace, list, Kind.MODS)));
  }

  /** Follows a list no longer; it can be brought back. */
  @DeleteMapping("/{list}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void unfollow(@PathVariable long workspace, @PathVariable long list) {
    lists.setGone(workspace, lists.get(workspace, list, Kind.MODS), true);
  }

  /** Goes back to following a list after leaving it in part. */
  @PostMapping("/{list}/back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void followAgain(@PathVariable long workspace, @PathVariable long list) {
    lists.setGone(workspace, lists.get(workspace, list, Kind.MODS), false);
  }

  /** Ticks the note of an entry off, or takes the tick back. */
  @PutMapping("/{list}/ticks")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void tick(
      @PathVariable long workspace,
      @PathVariable long list,
      @RequestBody FollowView.TickRequest body) {
    lists.tick(workspace, lists.get(workspace, list, Kind.MODS), body.number(), body.ticked());
  }

  /** Brings the layers to the list: all moves and switches, or some. */
  @PostMapping("/{list}/take")
  ResponseEntity<DifferenceView> takeList(
      @PathVariable long workspace,
      @PathVariable long list,
      @RequestBody FollowRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    FollowedLists.Followed followed = lists.get(workspace, list, Kind.MODS);
    PublishedList published = followed.list();
    return layers
        .arrangeAndSwitch(
            workspace,
            Expected.of(dryRun, ifMatch),
            Workbenches.Origin.IMPORT,
            FollowViews.said(published, body),
            b -> FollowViews.order(b, published, body),
            b -> FollowViews.switches(b, published, body))
        .asAnswer();
  }
}
