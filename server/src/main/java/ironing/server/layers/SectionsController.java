package ironing.server.layers;

import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/sections")
class SectionsController {
  private final Layers layers;
  private final OpenWorkspaces workspaces;

  SectionsController(Layers layers, OpenWorkspaces workspaces) {
    this.layers = layers;
    this.workspaces = workspaces;
  }

  record NewSection(String name, List<Long> mods) {
    NewSection {
      Objects.requireNonNull(mods, "mods");
    }
  }

  record SectionName(String name) {}

  record SectionMods(List<Long> mods) {
    SectionMods {
      Objects.requireNonNull(mods, "mods");
    }
  }

  /**
   * Makes a section of layers; those that are no neighbours are gathered at the highest of them.
   */
  @PostMapping
  ResponseEntity<DifferenceView> create(
      @PathVariable long workspace,
      @RequestBody NewSection body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers
        .gather(workspace, Expected.of(dryRun, ifMatch), Optional.empty(), body.name(), body.mods())
        .asAnswer();
  }

  /** Puts layers into a section; those that are not at its edge go to its top. */
  @PostMapping("/{section}/layers")
  ResponseEntity<DifferenceView> gather(
      @PathVariable long workspace,
      @PathVariable long section,
      @RequestBody SectionMods body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers
        .gather(workspace, Expected.of(dryRun, ifMatch), Optional.of(section), "", body.mods())
        .asAnswer();
  }

  /** Gives a section another name. */
  @PutMapping("/{section}")
  ResponseEntity<DifferenceView> rename(
      @PathVariable long workspace,
      @PathVariable long section,
      @RequestBody SectionName body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers.renameSection(workspace, Expected.of(ifMatch), section, body.name()).asAnswer();
  }

  /** Dissolves a section; its layers stay where they are. */
  @DeleteMapping("/{section}")
  ResponseEntity<DifferenceView> dissolve(
      @PathVariable long workspace,
      @PathVariable long section,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    String name = layers.section(workspaces.get(workspace), section).name();
    return layers
        .leaveSections(
            workspace,
            Expected.of(ifMatch),
            "Dissolved the section “" + name + "”",
            layers.membersOf(workspace, section))
        .asAnswer();
  }

  /** Takes layers out of their sections. */
  @PostMapping("/leave")
  ResponseEntity<DifferenceView> leave(
      @PathVariable long workspace,
      @RequestBody SectionMods body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers
        .leaveSections(
            workspace,
            Expected.of(ifMatch),
            body.mods().size() == 1
                ? "Took “"
                    + workspaces.get(workspace).nameOf(body.mods().get(0))
                    + "” out of its section"
                : "Took " + body.mods().size() + " layers out of their sections",
            body.mods())
        .asAnswer();
  }
}
