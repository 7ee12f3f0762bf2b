package ironing.server.lists;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.core.lists.ListReader;
import ironing.core.lists.PublishedList.Kind;
import ironing.server.lists.FollowView.DepartureRequest;
import ironing.server.lists.FollowView.ListSummary;
import ironing.server.lists.FollowView.TickRequest;
import ironing.server.lists.FollowedLists.Followed;
import ironing.server.platform.Revision;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;

/**
 * Published lists that the user follows, of mods or of plugins: brought in, compared, ticked off,
 * left. What is the same for both stands here; bringing the own order to a list is of each kind.
 */
abstract class FollowedListEndpoints {
  private final FollowedLists lists;
  private final OpenWorkspaces workspaces;
  private final Kind kind;

  FollowedListEndpoints(FollowedLists lists, OpenWorkspaces workspaces, Kind kind) {
    this.lists = lists;
    this.workspaces = workspaces;
    this.kind = kind;
  }

  /** A list beside what is here now. */
  abstract FollowView view(OpenWorkspace open, Followed list);

  Followed followed(long workspace, long list) {
    return lists.get(workspace, list, kind);
  }

  /** Brings a published list in; nothing is changed by it. */
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
    return view(workspaces.get(workspace), lists.add(workspace, name, file, kind));
  }

  /** The lists that are followed, the newest first. */
  @GetMapping
  List<ListSummary> lists(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return lists.all(workspace, kind).stream().map(l -> view(open, l).summary()).toList();
  }

  /** One published list, compared with what is here. */
  @GetMapping("/{list}")
  ResponseEntity<FollowView> list(@PathVariable long workspace, @PathVariable long list) {
    OpenWorkspace open = workspaces.get(workspace);
    return ResponseEntity.ok()
        .eTag(Revision.etag(open.revision()))
        .body(view(open, followed(workspace, list)));
  }

  /** Follows a list no longer; it can be brought back. */
  @DeleteMapping("/{list}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void unfollow(@PathVariable long workspace, @PathVariable long list) {
    lists.setGone(workspace, followed(workspace, list), true);
  }

  /** Goes back to following a list after leaving it in part. */
  @PostMapping("/{list}/back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void followAgain(@PathVariable long workspace, @PathVariable long list) {
    lists.setGone(workspace, followed(workspace, list), false);
  }

  /** Remembers that an entry is otherwise here, and shall be, or takes that back. */
  @PutMapping("/{list}/departures")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void depart(
      @PathVariable long workspace, @PathVariable long list, @RequestBody DepartureRequest body) {
    lists.depart(
        workspace, followed(workspace, list), body.number(), Optional.ofNullable(body.reason()));
  }

  /** Ticks the note of an entry off, or takes the tick back. */
  @PutMapping("/{list}/ticks")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void tick(@PathVariable long workspace, @PathVariable long list, @RequestBody TickRequest body) {
    lists.tick(workspace, followed(workspace, list), body.number(), body.ticked());
  }
}
