package ironing.server.layers;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Notes of two mods together; they stay through updates of either. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/layers/pair-notes")
class PairNotesController {
  private final PairNotes notes;

  PairNotesController(PairNotes notes) {
    this.notes = notes;
  }

  /**
   * @param note empty to take it away
   */
  record PairNoteRequest(long mod, long other, String note) {}

  /** The newest first; those of a mod that is gone wait until it comes back. */
  @GetMapping
  List<PairNotes.PairNoteView> pairNotes(@PathVariable long workspace) {
    return notes.of(workspace);
  }

  /** Writes a note about two mods; an empty one goes. */
  @PutMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void writePairNote(@PathVariable long workspace, @RequestBody PairNoteRequest body) {
    notes.write(workspace, body.mod(), body.other(), body.note() == null ? "" : body.note());
  }
}
