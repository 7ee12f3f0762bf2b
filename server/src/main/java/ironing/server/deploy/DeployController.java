package ironing.server.deploy;

import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.DeployPlan.Step;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.FolderDistance.Count;
import ironing.core.deploy.LaidOut;
import ironing.core.path.GamePath;
import ironing.server.deploy.DeployViews.DeployStatus;
import ironing.server.deploy.DeployViews.DeploymentReturned;
import ironing.server.deploy.DeployViews.DeploymentView;
import ironing.server.deploy.DeployViews.Parts;
import ironing.server.deploy.DeployViews.PlanAct;
import ironing.server.deploy.DeployViews.PlanStep;
import ironing.server.deploy.DeployViews.PlanView;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.workspace.Expected;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.nio.file.Files;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/deploy")
class DeployController {
  private static final int SHOWN = 50;
  private final Deployments deployments;
  private final BeforeUndeploying before;
  private final History history;
  private final FolderUse use;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  DeployController(
      Deployments deployments,
      BeforeUndeploying before,
      History history,
      FolderUse use,
      OpenWorkspaces workspaces,
      Jobs jobs) {
    this.use = use;
    this.history = history;
    this.deployments = deployments;
    this.before = before;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /** What is deployed, and how far the game folder is from the picture. */
  @GetMapping
  DeployStatus deployStatus(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    LaidOut laidOut = deployments.laidOut(open);
    Count d = deployments.distance(open);
    int files = laidOut.files().size();
    int links =
        (int) laidOut.files().values().stream().filter(i -> i.how() == LaidOut.How.LINK).count();
    return new DeployStatus(
        open.gameFolder().toString(),
        Files.isDirectory(open.gameFolder()),
        d.add(),
        d.replace(),
        d.takeOut(),
        files,
        links,
        files - links,
        laidOut.at().isEmpty() ? null : laidOut.at(),
        use.present(workspace).orElse(null));
  }

  /** What deploying would do, found by looking at every file of it. Changes nothing. */
  @GetMapping("/plan")
  PlanView deployPlan(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "1000") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    DeployPlan plan = deployments.plan(open);
    int[] counts = new int[PlanAct.values().length];
    long bytes = 0, copied = 0;
    Parts mods = new Parts(), folders = new Parts();
    for (Step s : plan.steps()) {
      counts[PlanAct.of(s).ordinal()]++;
      long size = s.wanted().map(Wanted::sizeBytes).orElse(0L);
      bytes += size;
      if (s.wanted().filter(Wanted::mustCopy).isPresent()) copied += size;
      PlanStep step = DeployViews.step(s);
      mods.add(step.mod(), step.from(), s, size);
      folders.add(null, GamePath.folder(s.path()), s, size);
    }
    return new PlanView(
        counts[PlanAct.ADD.ordinal()],
        counts[PlanAct.REPLACE.ordinal()],
        counts[PlanAct.GUARD.ordinal()],
        counts[PlanAct.SWAP.ordinal()],
        counts[PlanAct.TAKE_OUT.ordinal()],
        counts[PlanAct.PUT_BACK.ordinal()],
        bytes,
        copied,
        DeployViews.free(open),
        history.expectedMs(open, plan.steps().size()).orElse(null),
        plan.steps().size(),
        mods.largestFirst(),
        folders.largestFirst(),
        plan.steps().stream().limit(limit).map(DeployViews::step).toList());
  }

  /** Makes the game folder as the picture has it. */
  @PostMapping
  ResponseEntity<Job> deploy(
      @PathVariable long workspace,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, deployments.deploy(workspace), prefer);
  }

  /**
   * Takes everything out of the game folder: it is the unmodded game then.
   *
   * @param bringBack whether files come back of which it is not known whether an update that was
   *     not taken in has removed them; without this word that is refused
   */
  @PostMapping("/undeploy")
  ResponseEntity<Job> undeploy(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "false") boolean bringBack,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    if (!bringBack) before.require(workspaces.get(workspace));
    return JobController.accepted(jobs, deployments.undeploy(workspace), prefer);
  }

  /** The last fifty, the newest first. */
  @GetMapping("/history")
  List<DeploymentView> deployHistory(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return history.latest(open, SHOWN).stream().map(r -> DeployViews.view(open, r)).toList();
  }

  /** Arranges the profile as it was at a deployment; one step, which can be undone. */
  @PostMapping("/history/{deployment}/return")
  ResponseEntity<DeploymentReturned> returnToDeployment(
      @PathVariable long workspace,
      @PathVariable long deployment,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace after = history.goBack(workspace, deployment, Expected.of(ifMatch));
    return ResponseEntity.ok()
        .eTag(Revision.etag(after.revision()))
        .body(new DeploymentReturned(after.revision()));
  }
}
