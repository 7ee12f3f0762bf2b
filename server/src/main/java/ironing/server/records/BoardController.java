package ironing.server.records;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.records.Decision;
import ironing.server.platform.Revision;
import ironing.server.records.BoardViews.Board;
import ironing.server.records.BoardViews.DecisionRequest;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.Optional;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** One record laid open field by field, and the user's decisions on it. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/records/{owner}/{id}")
class BoardController {
  private final RecordDecisions decisions;
  private final OpenWorkspaces workspaces;

  BoardController(RecordDecisions decisions, OpenWorkspaces workspaces) {
    this.decisions = decisions;
    this.workspaces = workspaces;
  }

  /** One record laid open, field by field. */
  @GetMapping
  ResponseEntity<Board> board(
      @PathVariable long workspace, @PathVariable String owner, @PathVariable String id) {
    OpenWorkspace open = workspaces.get(workspace);
    int record = RecordsViews.require(open.get(RECORDS).index(), owner + "/" + id);
    Board board = BoardViews.board(open, record);
    return ResponseEntity.ok().eTag(Revision.etag(open.revision())).body(board);
  }

  /** Takes a decision for one place of a record, or takes it back. */
  @PutMapping("/decisions")
  ResponseEntity<Board> decide(
      @PathVariable long workspace,
      @PathVariable String owner,
      @PathVariable String id,
      @RequestBody DecisionRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    int record = RecordsViews.require(open.get(RECORDS).index(), owner + "/" + id);
    Optional<Decision> kept =
        Optional.ofNullable(body.decision())
            .map(d -> decisions.checked(open, record, body.place(), d.decision()));
    OpenWorkspace after = decisions.decide(open, Expected.of(ifMatch), record, body.place(), kept);
    return ResponseEntity.ok()
        .eTag(Revision.etag(after.revision()))
        .body(BoardViews.board(after, record));
  }
}
