package ironing.server.layers;

import ironing.core.IroningException;
import ironing.core.picture.Arrangement.Layer;
import ironing.server.layers.PairNotesMapper.PairNoteRow;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** Notes of two mods. */
@Component
class PairNotes {
  private static final int LONGEST = 10_000;
  private final PairNotesMapper db;
  private final OpenWorkspaces workspaces;

  PairNotes(PairNotesMapper db, OpenWorkspaces workspaces) {
    this.db = db;
    this.workspaces = workspaces;
  }

  /** A note of two mods, by the versions that have a layer. */
  record PairNoteView(
      long mod, String name, long other, String otherName, String note, String at) {}

  /** The newest first; those of a mod that is gone wait until it comes back. */
  List<PairNoteView> of(long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Map<Long, Long> modOf = new HashMap<>();
    for (Layer l : open.picture().arrangement().layers())
      modOf.put(open.mods().get(l.mod()).strand(), l.mod());
    List<PairNoteView> views = new ArrayList<>();
    for (PairNoteRow r : db.all(workspace)) {
      Long a = modOf.get(r.lowerStrand()), b = modOf.get(r.upperStrand());
      if (a == null || b == null) continue;
      views.add(new PairNoteView(a, open.nameOf(a), b, open.nameOf(b), r.note(), r.at()));
    }
    return views;
  }

  /**
   * Writes a note; an empty one goes.
   *
   * @throws IroningException with code {@code bad-pair} or {@code bad-note}
   */
  void write(long workspace, long mod, long other, String text) {
    OpenWorkspace open = workspaces.get(workspace);
    long a = open.required(mod).strand(), b = open.required(other).strand();
    String note = text.strip();
    if (a == b) {
      throw IroningException.of(
          "bad-pair", open.nameOf(mod), "The other one is the same mod.", "Choose another.");
    }
    if (note.length() > LONGEST) {
      throw IroningException.of(
          "bad-note",
          "The note",
          "It is longer than " + LONGEST + " letters.",
          "Keep it shorter, or put the rest into a file.");
    }
    String pair = "“" + open.nameOf(mod) + "” with “" + open.nameOf(other) + "”";
    workspaces.note(
        workspace,
        "pair-notes",
        (note.isEmpty() ? "Took away the note of " : "Wrote a note of ") + pair,
        () -> {
          if (note.isEmpty()) db.drop(a, b);
          else db.put(workspace, a, b, note);
        });
  }
}
