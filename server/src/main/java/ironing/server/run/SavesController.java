package ironing.server.run;

import ironing.server.run.Saves.Save;
import ironing.server.workbench.Workbenches;
import java.io.IOException;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Saves of the game, and the plugins that they were made with. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/saves")
class SavesController {
  private final Saves saves;
  private final Workbenches benches;

  SavesController(Saves saves, Workbenches benches) {
    this.saves = saves;
    this.benches = benches;
  }

  /**
   * Saves, the newest first.
   *
   * @param plugin only those that were made with one of these; none for all
   */
  @GetMapping
  List<Save> saves(
      @PathVariable long workspace, @RequestParam(defaultValue = "") List<String> plugin)
      throws IOException {
    List<String> wanted = plugin.stream().filter(p -> !p.isEmpty()).toList();
    return wanted.isEmpty()
        ? saves.of(benches.get(workspace))
        : saves.madeWith(benches.get(workspace), wanted);
  }
}
