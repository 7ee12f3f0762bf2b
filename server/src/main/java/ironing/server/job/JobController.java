package ironing.server.job;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Looking at long work and cancelling it. */
@RestController
@RequestMapping("/api")
public class JobController {
  private static final long MAX_WAIT_SECONDS = 600;
  private final Jobs jobs;

  JobController(Jobs jobs) {
    this.jobs = jobs;
  }

  @GetMapping("/jobs/{job}")
  @Operation(summary = "One piece of work, as it is now.")
  Job job(@PathVariable long job) {
    return jobs.get(job);
  }

  @DeleteMapping("/jobs/{job}")
  @Operation(
      summary =
          "Asks a piece of work to stop; it does at its next step, leaving nothing half done.")
  Job cancelJob(@PathVariable long job) {
    return jobs.cancel(job);
  }

  @GetMapping("/workspaces/{workspace}/jobs")
  @Operation(summary = "The work of a workspace, the newest first.")
  List<Job> jobsOf(@PathVariable long workspace) {
    return jobs.of(workspace);
  }

  /**
   * 202 with the job; or, when the caller prefers to wait (RFC 7240, {@code Prefer: wait=30}), 200
   * with the job as it ended.
   */
  public static ResponseEntity<Job> accepted(Jobs jobs, Job job, String prefer) {
    if (prefer != null && prefer.matches("wait=\\d{1,4}")) {
      long seconds = Math.min(MAX_WAIT_SECONDS, Long.parseLong(prefer.substring(5)));
      Job after = jobs.await(job.id(), seconds * 1000);
      return ResponseEntity.status(after.state() == Job.State.RUNNING ? 202 : 200)
          .header("Preference-Applied", prefer)
          .body(after);
    }
    return ResponseEntity.accepted().header("Location", "/api/jobs/" + job.id()).body(job);
  }
}
