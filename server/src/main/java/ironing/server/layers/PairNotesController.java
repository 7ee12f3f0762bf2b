package ironing.server.layers;

import ironing.core.IroningException;
import ironing.core.picture.Arrangement.Layer;
import ironing.server.layers.PairNotesMapper.PairNoteRow;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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
  private static final int LONGEST = 10_000;
  private final PairNotesMapper db;
  private final Workbenches benches;

  PairNotesController(PairNotesMapper db, Workbenches benches) {
    this.db = db;
    this.benches = benches;
  }

  /** A note of two mods, by the versions that have a layer. */
  record PairNoteView(
      long mod, String name, long other, String otherName, String note, String at) {}

  /**
   * @param note empty to take it away
   */
  record PairNoteRequest(long mod, long other, String note) {}

  /** The newest first; those of a mod that is gone wait until it comes back. */
  @GetMapping
  List<PairNoteView> pairNotes(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Map<Long, Long> modOf = new HashMap<>();
    for (Layer l : bench.picture().arrangement().layers())
      modOf.put(bench.mods().get(l.mod()).strand(), l.mod());
    List<PairNoteView> views = new ArrayList<>();
    for (PairNoteRow r : db.all(workspace)) {
      Long a = modOf.get(r.lowerStrand()), b = modOf.get(r.upperStrand());
      if (a == null || b == null) continue;
      views.add(new PairNoteView(a, bench.nameOf(a), b, bench.nameOf(b), r.note(), r.at()));
    }
    return views;
  }

  /** Writes a note about two mods; an empty one goes. */
  @PutMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void writePairNote(@PathVariable long workspace, @RequestBody PairNoteRequest body) {
    Bench bench = benches.get(workspace);
    long a = strand(bench, body.mod()), b = strand(bench, body.other());
    String note = body.note() == null ? "" : body.note().strip();
    if (a == b) {
      throw IroningException.of(
          "bad-pair",
          bench.nameOf(body.mod()),
          "The other one is the same mod.",
          "Choose another.");
    }
    if (note.length() > LONGEST) {
      throw IroningException.of(
          "bad-note",
          "The note",
          "It is longer than " + LONGEST + " letters.",
          "Keep it shorter, or put the rest into a file.");
    }
    String pair = "“" + bench.nameOf(body.mod()) + "” with “" + bench.nameOf(body.other()) + "”";
    benches.note(
        workspace,
        "pair-notes",
        (note.isEmpty() ? "Took away the note of " : "Wrote a note of ") + pair,
        () -> {
          if (note.isEmpty()) db.drop(a, b);
          else db.put(workspace, a, b, note);
        });
  }

  private static long strand(Bench bench, long mod) {
    if (bench.mods().containsKey(mod)) return bench.mods().get(mod).strand();
    throw IroningException.of(
        "not-found",
        "Mod " + mod,
        "There is no such mod in this library.",
        "Take the numbers from the list of layers.");
  }
}
