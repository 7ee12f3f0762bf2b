package ironing.server.lists;

import ironing.core.lists.ModList;
import ironing.core.lists.ModList.Row;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Section;
import ironing.core.workspace.Mod;
import ironing.server.layers.ModNotes;
import ironing.server.platform.Served;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The install order as a list to take away. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/layers/list")
class ModListExportController {
  private final OpenWorkspaces workspaces;
  private final ModNotes notes;

  ModListExportController(OpenWorkspaces workspaces, ModNotes notes) {
    this.workspaces = workspaces;
    this.notes = notes;
  }

  /** The install order as CSV. */
  @GetMapping(path = "/csv", produces = "text/csv")
  ResponseEntity<String> csv(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return file(open, "csv", "text/csv;charset=UTF-8", ModList.csv(rows(open)));
  }

  /** The install order as a list that others can follow. */
  @GetMapping(path = "/json", produces = "application/json")
  ResponseEntity<String> json(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return file(open, "json", "application/json", ModList.json(open.profileName(), rows(open)));
  }

  /** The install order in Markdown, to be read. */
  @GetMapping(path = "/markdown", produces = "text/markdown")
  ResponseEntity<String> markdown(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    String text = ModList.markdown(open.profileName(), rows(open));
    return file(open, "md", "text/markdown;charset=UTF-8", text);
  }

  private List<Row> rows(OpenWorkspace open) {
    Map<Long, ModNotes.Note> told = notes.of(open.workspace());
    Map<Long, String> sections = new HashMap<>();
    for (Section s : open.picture().arrangement().sections()) sections.put(s.id(), s.name());
    List<Row> rows = new ArrayList<>();
    for (Layer l : open.picture().arrangement().layers()) {
      Mod m = open.mods().get(l.mod());
      rows.add(
          new Row(
              rows.size() + 1,
              m.card().id(),
              m.card().name(),
              m.card().version(),
              l.on(),
              sections.getOrDefault(l.section(), ""),
              told.getOrDefault(l.mod(), ModNotes.Note.NONE).text()));
    }
    return rows;
  }

  private static ResponseEntity<String> file(
      OpenWorkspace open, String ending, String type, String text) {
    String name = open.title() + ", " + open.profileName() + "." + ending;
    return Served.asFile(name, type, text);
  }
}
