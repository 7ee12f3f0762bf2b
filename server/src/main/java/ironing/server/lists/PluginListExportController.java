package ironing.server.lists;

import ironing.core.lists.PluginList;
import ironing.core.lists.PluginList.Row;
import ironing.core.loadorder.LoadOrder;
import ironing.server.platform.Served;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.ArrayList;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The load order as a list to take away. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/load-order/lists")
class PluginListExportController {
  private final OpenWorkspaces workspaces;

  PluginListExportController(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /** The load order as CSV. */
  @GetMapping(path = "/csv", produces = "text/csv")
  ResponseEntity<String> orderAsCsv(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return file(open, "csv", "text/csv;charset=UTF-8", PluginList.csv(rows(open)));
  }

  /** The load order as a list that others can follow. */
  @GetMapping(path = "/json", produces = "application/json")
  ResponseEntity<String> orderAsJson(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return file(open, "json", "application/json", PluginList.json(open.profileName(), rows(open)));
  }

  /** The load order in Markdown, to be read. */
  @GetMapping(path = "/markdown", produces = "text/markdown")
  ResponseEntity<String> orderAsMarkdown(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return file(
        open,
        "md",
        "text/markdown;charset=UTF-8",
        PluginList.markdown(open.profileName(), rows(open)));
  }

  private static List<Row> rows(OpenWorkspace open) {
    List<Row> rows = new ArrayList<>();
    for (LoadOrder.Entry e : open.picture().loadOrder().entries())
      rows.add(new Row(rows.size() + 1, e.name(), e.on(), open.nameOf(e.plugin().mod())));
    return rows;
  }

  private static ResponseEntity<String> file(
      OpenWorkspace open, String ending, String type, String text) {
    return Served.asFile(
        open.title() + ", load order of " + open.profileName() + "." + ending, type, text);
  }
}
