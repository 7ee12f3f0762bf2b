package ironing.server.timeline;

import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.timeline.TimelineMapper.ChangeRow;
import ironing.server.workbench.Workbenches;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}")
class TimelineController {
  private static final int SHOWN = 100;
  private final TimelineMapper db;
  private final Workbenches benches;

  TimelineController(TimelineMapper db, Workbenches benches) {
    this.db = db;
    this.benches = benches;
  }

  /**
   * @param state done, undone, or dropped: undone, and something else was done then
   * @param undoable whether it is a change of the arrangement; one of the library is not undone
   *     here
   */
  record TimelineChange(long id, String at, String said, String state, boolean undoable) {}

  /**
   * @param undo what would be undone next, in words; absent when there is nothing
   * @param redo what would be done again next
   * @param changes the newest first
   */
  record TimelineView(
      @MayBeAbsent String undo, @MayBeAbsent String redo, List<TimelineChange> changes) {}

  /**
   * @param said the change that was undone or done again, in words
   */
  record SteppedView(long revision, String said) {}

  @GetMapping("/timeline")
  TimelineView timeline(@PathVariable long workspace) {
    Workbenches.Steps steps = benches.steps(workspace);
    long profile = benches.get(workspace).profile();
    return new TimelineView(
        steps.undo().orElse(null),
        steps.redo().orElse(null),
        db.latest(profile, SHOWN).stream().map(TimelineController::view).toList());
  }

  private static TimelineChange view(ChangeRow row) {
    return new TimelineChange(
        row.id(), row.at().toString(), row.said(), row.state(), row.isUndoable());
  }

  @PostMapping("/undo")
  ResponseEntity<SteppedView> undo(@PathVariable long workspace) {
    return answer(benches.undo(workspace));
  }

  @PostMapping("/redo")
  ResponseEntity<SteppedView> redo(@PathVariable long workspace) {
    return answer(benches.redo(workspace));
  }

  private static ResponseEntity<SteppedView> answer(Workbenches.Stepped step) {
    return ResponseEntity.ok()
        .eTag(Revision.etag(step.bench().revision()))
        .body(new SteppedView(step.bench().revision(), step.said()));
  }
}
