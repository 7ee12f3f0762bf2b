package ironing.server.game;

import ironing.core.Problem;
import ironing.core.game.DefinitionPreview;
import ironing.server.game.Overview.OverviewView;
import ironing.server.game.Removal.RemovalView;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces")
class WorkspacesController {
  private static final int SHOWN = 200;
  private final Workspaces workspaces;
  private final Overview overview;
  private final Removal removal;
  private final OpenWorkspaces openWorkspaces;
  private final Jobs jobs;

  WorkspacesController(
      Workspaces workspaces,
      Overview overview,
      Removal removal,
      OpenWorkspaces openWorkspaces,
      Jobs jobs) {
    this.workspaces = workspaces;
    this.overview = overview;
    this.removal = removal;
    this.openWorkspaces = openWorkspaces;
    this.jobs = jobs;
  }

  record WorkspaceView(long id, String title, String folder, String version, long mods) {}

  /**
   * @param folder of the game, as a full path on the machine where Ironing runs
   * @param definition the text of a game.yaml; absent to take the one in the folder
   * @param places the folder of each place beside the game’s own, by its id; for those that are
   *     absent the one that is found
   * @param asFound whether files that the game’s manifest does not name count as the game’s; absent
   *     for no
   */
  record WorkspaceRequest(
      String folder,
      @MayBeAbsent String definition,
      @MayBeAbsent Map<String, String> places,
      @MayBeAbsent Boolean asFound) {
    WorkspaceRequest {
      Objects.requireNonNull(folder, "folder");
    }

    Map<String, String> named() {
      return GamePlaceView.named(places);
    }

    Optional<String> given() {
      return Optional.ofNullable(definition).filter(d -> !d.isBlank());
    }
  }

  /**
   * @param itsOwn whether the definition is the one in the folder
   * @param matches what each part of the definition matches there
   * @param places beside the folder, in the order of the definition
   * @param manifest what the folder is by the game’s manifest, absent where it has none
   * @param workspace the one that this folder has already, absent when it has none
   */
  record FolderView(
      String folder,
      String title,
      @MayBeAbsent String version,
      String definition,
      boolean itsOwn,
      List<Problem> warnings,
      List<MatchView> matches,
      List<GamePlaceView> places,
      @MayBeAbsent ManifestView manifest,
      @MayBeAbsent Long workspace) {}

  /**
   * @param name by which it is told from others of its kind; empty where there is one
   * @param first some of the files
   */
  record MatchView(DefinitionPreview.What what, String name, int count, List<String> first) {}

  /**
   * @param named how many files it names
   * @param missing the first of those that are not there
   * @param beside the first files that it does not name
   */
  record ManifestView(
      int named, int missingInAll, List<String> missing, int besideInAll, List<String> beside) {
    static ManifestView of(DefinitionPreview.OfManifest m) {
      return new ManifestView(
          m.named(), m.missing().size(), first(m.missing()), m.beside().size(), first(m.beside()));
    }

    private static List<String> first(List<String> paths) {
      return paths.subList(0, Math.min(SHOWN, paths.size()));
    }
  }

  /** All workspaces. */
  @GetMapping
  List<WorkspaceView> workspaces() {
    return workspaces.all().stream()
        .map(r -> new WorkspaceView(r.id(), r.title(), r.gameFolder(), r.gameVersion(), r.mods()))
        .toList();
  }

  /** A folder that a definition is wished for. */
  record ProposalRequest(String folder) {
    ProposalRequest {
      Objects.requireNonNull(folder, "folder");
    }
  }

  /**
   * @param what of the definition
   * @param evidence by what it was guessed
   */
  record GuessView(String what, String evidence) {}

  /**
   * @param definition the text of a game.yaml; absent where nothing in the folder looks like
   *     plugins of open text
   * @param guesses in the order of the definition
   */
  record ProposedDefinition(@MayBeAbsent String definition, List<GuessView> guesses) {}

  /** Proposes a definition by what lies in a folder. Makes nothing. */
  @PostMapping("/propose")
  ProposedDefinition propose(@RequestBody ProposalRequest body) {
    return Workspaces.propose(body.folder())
        .map(
            p ->
                new ProposedDefinition(
                    p.definition(),
                    p.guesses().stream().map(g -> new GuessView(g.what(), g.evidence())).toList()))
        .orElse(new ProposedDefinition(null, List.of()));
  }

  /** Looks at a folder and a definition without making anything. */
  @PostMapping("/look")
  FolderView look(@RequestBody WorkspaceRequest body) {
    Workspaces.Look l = workspaces.look(body.folder(), body.given(), body.named());
    return new FolderView(
        l.folder(),
        l.title(),
        l.version().orElse(null),
        l.definition(),
        l.itsOwn(),
        l.warnings(),
        l.preview().parts().stream()
            .map(p -> new MatchView(p.what(), p.name(), p.count(), p.first()))
            .toList(),
        l.places().stream().map(GamePlaceView::of).toList(),
        l.preview().manifest().map(ManifestView::of).orElse(null),
        l.workspace().orElse(null));
  }

  /** Makes a workspace of a game's folder. The job's result is its number. */
  @PostMapping
  ResponseEntity<Job> makeWorkspace(
      @RequestBody WorkspaceRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(
        jobs,
        workspaces.make(
            body.folder(), body.given(), body.named(), !Boolean.TRUE.equals(body.asFound())),
        prefer);
  }

  /** One workspace: how far it is on its way, and what to do next. */
  @GetMapping("/{workspace}")
  ResponseEntity<OverviewView> overview(@PathVariable long workspace) {
    OpenWorkspace open = openWorkspaces.get(workspace);
    return ResponseEntity.ok().eTag(Revision.etag(open.revision())).body(overview.of(open));
  }

  /** What deleting it would do. Changes nothing. */
  @GetMapping("/{workspace}/removal")
  RemovalView removal(@PathVariable long workspace) {
    return removal.look(workspace);
  }

  /**
   * Takes what is deployed out of the game folder, then deletes the workspace with its library.
   *
   * @param keepArchives whether the archives stay on the disk, in the folder that the preview names
   * @param leaveFolder whether to go on where the game folder is not there
   * @param bringBack whether files come back of which it is not known whether an update that was
   *     not taken in has removed them
   */
  @DeleteMapping("/{workspace}")
  ResponseEntity<Job> removeWorkspace(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "true") boolean keepArchives,
      @RequestParam(defaultValue = "false") boolean leaveFolder,
      @RequestParam(defaultValue = "false") boolean bringBack,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(
        jobs, removal.remove(workspace, keepArchives, leaveFolder, bringBack), prefer);
  }
}
