package ironing.server.mends;

import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.mends.Mends.MendView;
import ironing.server.workbench.Workbenches;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/mends")
class MendsController {
  private final Mends mends;
  private final Workbenches benches;
  private final Jobs jobs;

  MendsController(Mends mends, Workbenches benches, Jobs jobs) {
    this.mends = mends;
    this.benches = benches;
    this.jobs = jobs;
  }

  @GetMapping
  List<MendView> mends(@PathVariable long workspace) {
    return mends.of(benches.get(workspace));
  }

  /** Puts every record that combines into the profile's patch, made if there is none yet. */
  @PostMapping("/patch")
  ResponseEntity<Job> buildPatch(
      @PathVariable long workspace,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, mends.buildPatch(workspace), prefer);
  }
}
