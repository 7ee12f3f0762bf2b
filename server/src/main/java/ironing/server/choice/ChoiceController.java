package ironing.server.choice;

import ironing.server.choice.AheadViews.AheadView;
import ironing.server.choice.ChoiceViews.ChoiceView;
import ironing.server.choice.ChoiceViews.WantedModsRequest;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspaces;
import java.util.Objects;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What a choice of mods brings with it, and getting it. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/choice")
class ChoiceController {
  private final Choices choices;
  private final Ahead ahead;
  private final Getting getting;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  ChoiceController(
      Choices choices, Ahead ahead, Getting getting, OpenWorkspaces workspaces, Jobs jobs) {
    this.choices = choices;
    this.ahead = ahead;
    this.getting = getting;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /**
   * @param choice what is asked for
   * @param mark of the answer that was shown; another answer is refused
   * @param fetchOnly whether to end once all of it is in the library, with the profile as it was;
   *     absent for no
   */
  record GetRequest(
      WantedModsRequest choice, @MayBeAbsent String mark, @MayBeAbsent Boolean fetchOnly) {
    GetRequest {
      Objects.requireNonNull(choice, "choice");
    }
  }

  /** What a choice brings with it. Nothing is changed. */
  @PostMapping
  ChoiceView choice(@PathVariable long workspace, @RequestBody WantedModsRequest body) {
    return ChoiceViews.view(choices.ask(workspaces.get(workspace), body.asked()));
  }

  /**
   * What following a choice would do to the set of mods, all of which have to be in the library:
   * files, who meets whom, records, wrinkles. Nothing is changed.
   */
  @PostMapping("/ahead")
  AheadView ahead(@PathVariable long workspace, @RequestBody WantedModsRequest body) {
    return ahead.of(workspaces.get(workspace), body.asked());
  }

  /**
   * Fetches what a choice brings with it, installs what needs no decision, and puts all into the
   * profile as one step. What needs a decision waits in the inbox.
   */
  @PostMapping("/get")
  ResponseEntity<Job> getChoice(
      @PathVariable long workspace,
      @RequestBody GetRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    boolean fetchOnly = Boolean.TRUE.equals(body.fetchOnly());
    return JobController.accepted(
        jobs, getting.get(workspace, body.choice(), body.mark(), fetchOnly), prefer);
  }
}
