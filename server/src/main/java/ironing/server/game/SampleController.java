package ironing.server.game;

import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.platform.MayBeAbsent;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The sample game, to try things out. */
@RestController
@RequestMapping("/api/sample")
class SampleController {
  private final SampleWorld sample;
  private final Jobs jobs;

  SampleController(SampleWorld sample, Jobs jobs) {
    this.sample = sample;
    this.jobs = jobs;
  }

  /**
   * @param available whether it can be brought in
   * @param workspace of it; absent while it is not here
   */
  record SampleView(boolean available, @MayBeAbsent Long workspace) {}

  /** Whether the sample game is here, and whether it can be. */
  @GetMapping
  SampleView sample() {
    return new SampleView(sample.available(), sample.workspace().orElse(null));
  }

  /** Brings the sample game in. The job's result is the number of its workspace. */
  @PostMapping
  ResponseEntity<Job> loadSample(@RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, sample.load(), prefer);
  }

  /** Removes the sample game with its workspace and its folder. */
  @DeleteMapping
  ResponseEntity<Job> removeSample(
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, sample.remove(), prefer);
  }
}
