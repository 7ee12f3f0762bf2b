package ironing.server.game;

import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import java.util.Objects;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The folders beside a game's own that belong to it. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/places")
class PlacesController {
  private final PlaceChange change;
  private final Jobs jobs;

  PlacesController(PlaceChange change, Jobs jobs) {
    this.change = change;
    this.jobs = jobs;
  }

  /**
   * @param folder as a full path on the machine where Ironing runs
   */
  record PlaceFolder(String folder) {
    PlaceFolder {
      Objects.requireNonNull(folder, "folder");
    }
  }

  /** Says which folder a place is, and takes in what lies there as the unmodded game’s. */
  @PutMapping("/{place}")
  ResponseEntity<Job> sayPlace(
      @PathVariable long workspace,
      @PathVariable String place,
      @RequestBody PlaceFolder body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, change.say(workspace, place, body.folder()), prefer);
  }
}
