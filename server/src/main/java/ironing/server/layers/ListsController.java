package ironing.server.layers;

import ironing.core.lists.ModList;
import ironing.core.lists.ModList.Row;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.picture.Arrangement.Section;
import ironing.core.workspace.Mod;
import ironing.server.platform.Served;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
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
class ListsController {
  private final Workbenches benches;
  private final ModNotes notes;

  ListsController(Workbenches benches, ModNotes notes) {
    this.benches = benches;
    this.notes = notes;
  }

  /** The install order as CSV. */
  @GetMapping(path = "/csv", produces = "text/csv")
  ResponseEntity<String> csv(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return file(bench, "csv", "text/csv;charset=UTF-8", ModList.csv(rows(bench)));
  }

  /** The install order as a list that others can follow. */
  @GetMapping(path = "/json", produces = "application/json")
  ResponseEntity<String> json(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return file(bench, "json", "application/json", ModList.json(bench.profileName(), rows(bench)));
  }

  /** The install order in Markdown, to be read. */
  @GetMapping(path = "/markdown", produces = "text/markdown")
  ResponseEntity<String> markdown(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    String text = ModList.markdown(bench.profileName(), rows(bench));
    return file(bench, "md", "text/markdown;charset=UTF-8", text);
  }

  private List<Row> rows(Bench bench) {
    Map<Long, ModNotes.Note> told = notes.of(bench.workspace());
    Map<Long, String> sections = new HashMap<>();
    for (Section s : bench.picture().arrangement().sections()) sections.put(s.id(), s.name());
    List<Row> rows = new ArrayList<>();
    for (Layer l : bench.picture().arrangement().layers()) {
      Mod m = bench.mods().get(l.mod());
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

  private static ResponseEntity<String> file(Bench bench, String ending, String type, String text) {
    String name = bench.title() + ", " + bench.profileName() + "." + ending;
    return Served.asFile(name, type, text);
  }
}
