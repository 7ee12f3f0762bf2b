package ironing.server.deploy;

import ironing.core.deploy.DeployPlan;
import ironing.core.deploy.LaidOut;
import ironing.server.deploy.Deployments.Stray;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import jakarta.annotation.Nullable;
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
  private final Deployments deployments;
  private final Workbenches benches;
  private final Jobs jobs;

  DeployController(Deployments deployments, Workbenches benches, Jobs jobs) {
    this.deployments = deployments;
    this.benches = benches;
    this.jobs = jobs;
  }

  /**
   * @param waiting files that stand otherwise than the picture wants, by the note in the folder
   * @param files deployed now
   * @param at when, empty when nothing is deployed
   */
  record DeployStatus(
      String folder, long waiting, int files, long links, long copies, @Nullable String at) {}

  /**
   * @param changed somebody changed the file since; it is set aside in .ironing/changed
   */
  record PlanStep(
      String path,
      DeployPlan.Act act,
      String from,
      @Nullable String before,
      long sizeBytes,
      boolean copy,
      boolean changed) {}

  /**
   * @param steps the first ones, at most {@code limit}; the counts are of all
   */
  record PlanView(
      long add,
      long replace,
      long swap,
      long takeOut,
      long putBack,
      long sizeBytes,
      List<PlanStep> steps,
      int total) {}

  record Strays(List<Stray> files) {}

  @GetMapping
  DeployStatus deployStatus(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    LaidOut laidOut = deployments.laidOut(bench);
    long links = laidOut.files().values().stream().filter(i -> i.how() == LaidOut.How.LINK).count();
    return new DeployStatus(
        bench.gameFolder().toString(),
        deployments.waiting(bench),
        laidOut.files().size(),
        links,
        laidOut.files().size() - links,
        laidOut.at().isEmpty() ? null : laidOut.at());
  }

  @GetMapping("/plan")
  PlanView deployPlan(@PathVariable long workspace, @RequestParam(defaultValue = "500") int limit) {
    Bench bench = benches.get(workspace);
    DeployPlan plan = deployments.plan(bench);
    List<PlanStep> steps = plan.steps().stream().limit(limit).map(DeployController::step).toList();
    long bytes =
        plan.steps().stream()
            .flatMap(s -> s.wanted().stream())
            .mapToLong(DeployPlan.Wanted::sizeBytes)
            .sum();
    return new PlanView(
        plan.count(DeployPlan.Act.ADD),
        plan.count(DeployPlan.Act.REPLACE),
        plan.count(DeployPlan.Act.SWAP),
        plan.count(DeployPlan.Act.TAKE_OUT),
        plan.count(DeployPlan.Act.PUT_BACK),
        bytes,
        steps,
        plan.steps().size());
  }

  private static PlanStep step(DeployPlan.Step s) {
    return new PlanStep(
        s.path(),
        s.act(),
        s.wanted()
            .map(DeployPlan.Wanted::from)
            .or(() -> s.before().map(LaidOut.Item::from))
            .orElse(""),
        s.before().map(LaidOut.Item::from).orElse(null),
        s.wanted().map(DeployPlan.Wanted::sizeBytes).orElse(0L),
        s.wanted().map(DeployPlan.Wanted::mustCopy).orElse(false),
        s.changed());
  }

  @PostMapping
  ResponseEntity<Job> deploy(
      @PathVariable long workspace,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, deployments.deploy(workspace), prefer);
  }

  @PostMapping("/undeploy")
  ResponseEntity<Job> undeploy(
      @PathVariable long workspace,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, deployments.undeploy(workspace), prefer);
  }

  /**
   * Files in the game folder that neither the game nor Ironing put there: logs, saves, and whatever
   * else.
   */
  @GetMapping("/strays")
  Strays strays(@PathVariable long workspace) {
    return new Strays(deployments.strays(benches.get(workspace)));
  }
}
