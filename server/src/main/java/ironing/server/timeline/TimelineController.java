package ironing.server.timeline;

import ironing.server.layers.DifferenceView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.timeline.TimelineMapper.ChangeRow;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.Profiles;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}")
class TimelineController {
  private static final int MOST_AT_ONCE = 200;
  private final Timeline timeline;
  private final OpenWorkspaces workspaces;
  private final Profiles profiles;

  TimelineController(Timeline timeline, OpenWorkspaces workspaces, Profiles profiles) {
    this.timeline = timeline;
    this.workspaces = workspaces;
    this.profiles = profiles;
  }

  /**
   * @param origin who made it: user, proposal or import
   * @param profile the profile that was in use; empty when it is gone
   * @param state done, undone, or dropped: undone, and something else was done then
   * @param undoable whether it is a change of the arrangement; one of the library is not undone
   *     here
   */
  record TimelineChange(
      long id,
      String at,
      String origin,
      String profile,
      String said,
      String state,
      boolean undoable) {}

  /**
   * @param undo what would be undone next, in words; absent when there is nothing
   * @param redo what would be done again next
   * @param profile the name of the profile in use: its changes can be gone back to
   * @param changes the newest first
   * @param next ask with this as {@code before} for the older ones; absent at the end
   * @param points of the profile in use, the newest first
   */
  record TimelineView(
      @MayBeAbsent String undo,
      @MayBeAbsent String redo,
      String profile,
      List<TimelineChange> changes,
      @MayBeAbsent Long next,
      List<PointView> points) {}

  /** A restore point. */
  record PointView(long id, String name, String at) {}

  record NewPoint(String name) {}

  /** A place to go back to: right after a change, or a restore point. */
  record PlaceRequest(@MayBeAbsent Optional<Long> change, @MayBeAbsent Optional<Long> point) {}

  /**
   * @param said the change that was undone or done again, in words
   */
  record SteppedView(long revision, String said) {}

  /** The changes of the workspace, the newest first. */
  @GetMapping("/timeline")
  TimelineView timeline(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "9223372036854775807") long before,
      @RequestParam(defaultValue = "100") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspaces.Steps steps = workspaces.steps(workspace);
    OpenWorkspace open = workspaces.get(workspace);
    int most = Math.max(1, Math.min(limit, MOST_AT_ONCE));
    List<ChangeRow> rows = timeline.latest(workspace, before, most);
    return new TimelineView(
        steps.undo().orElse(null),
        steps.redo().orElse(null),
        open.profileName(),
        rows.stream().map(TimelineController::view).toList(),
        rows.size() < most ? null : rows.get(rows.size() - 1).id(),
        profiles.points(open).stream().map(p -> new PointView(p.id(), p.name(), p.at())).toList());
  }

  /** Makes a restore point of the arrangement as it is. */
  @PostMapping("/restore-points")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void addPoint(@PathVariable long workspace, @RequestBody NewPoint body) {
    profiles.addPoint(workspace, Optional.ofNullable(body.name()).orElse(""));
  }

  /** Deletes a restore point. */
  @DeleteMapping("/restore-points/{point}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void deletePoint(@PathVariable long workspace, @PathVariable long point) {
    profiles.deletePoint(workspace, point);
  }

  /**
   * Goes back to a place in the timeline: one step more, which can be undone; asked dry, tells what
   * it would change.
   */
  @PostMapping("/timeline/return")
  ResponseEntity<DifferenceView> goBack(
      @PathVariable long workspace,
      @RequestBody PlaceRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace before = workspaces.get(workspace);
    Timeline.Place place = timeline.place(before, body.point(), body.change());
    return DifferenceView.of(
            workspaces.change(
                workspace,
                Expected.of(dryRun, ifMatch),
                "Went back to " + place.words(),
                b -> timeline.place(b, body.point(), body.change()).arrangement()))
        .asAnswer();
  }

  private static TimelineChange view(ChangeRow row) {
    return new TimelineChange(
        row.id(),
        row.at().toString(),
        row.origin(),
        row.profile(),
        row.said(),
        row.state(),
        row.isUndoable());
  }

  /** Takes the last step back. */
  @PostMapping("/undo")
  ResponseEntity<SteppedView> undo(@PathVariable long workspace) {
    return answer(workspaces.undo(workspace));
  }

  /** Does again what was undone last. */
  @PostMapping("/redo")
  ResponseEntity<SteppedView> redo(@PathVariable long workspace) {
    return answer(workspaces.redo(workspace));
  }

  private static ResponseEntity<SteppedView> answer(OpenWorkspaces.Stepped step) {
    return ResponseEntity.ok()
        .eTag(Revision.etag(step.open().revision()))
        .body(new SteppedView(step.open().revision(), step.said()));
  }
}
