package ironing.server.mends;

import ironing.core.mends.PatchScope;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.mends.Mends.MendDifferenceView;
import ironing.server.mends.Mends.MendView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Optional;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/mends")
class MendsController {
  private final Mends mends;
  private final PatchCalls calls;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  MendsController(Mends mends, PatchCalls calls, OpenWorkspaces workspaces, Jobs jobs) {
    this.mends = mends;
    this.calls = calls;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /**
   * A patch that is wished.
   *
   * @param name what to call it
   * @param plugins it holds the records over which only these collide; none for other scopes
   * @param records it holds these records; with neither it is for the whole profile
   */
  record PatchRequest(
      String name, @MayBeAbsent List<String> plugins, @MayBeAbsent List<String> records) {
    PatchScope scope() {
      if (records != null && !records.isEmpty())
        return PatchScope.of(PatchScope.Kind.RECORDS, records);
      if (plugins != null && !plugins.isEmpty())
        return PatchScope.of(PatchScope.Kind.PLUGINS, plugins);
      return PatchScope.PROFILE;
    }
  }

  /**
   * A mod that must be there and on for a patch to be right.
   *
   * @param mod the id of its card
   * @param versions a range; absent for any
   * @param answer of its fitting, as question/answer; absent for any
   */
  record ConditionRequest(String mod, @MayBeAbsent String versions, @MayBeAbsent String answer) {}

  /**
   * @param clashes ids of mods with which the patch is never right
   */
  record ConditionsRequest(List<ConditionRequest> needs, List<String> clashes) {}

  /** The mends of the profile, with whether they are fresh. */
  @GetMapping
  List<MendView> mends(@PathVariable long workspace) {
    return mends.of(workspaces.get(workspace));
  }

  /** Puts every record that combines into the profile's patch, made if there is none yet. */
  @PostMapping("/patch")
  ResponseEntity<Job> buildPatch(
      @PathVariable long workspace,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, mends.buildForProfile(workspace), prefer);
  }

  /** Makes a patch of its own for some plugins or some records. */
  @PostMapping("/patches")
  ResponseEntity<Job> addPatch(
      @PathVariable long workspace,
      @RequestBody PatchRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    Recipe recipe = Recipe.patch(body.name(), body.scope(), List.of(), List.of());
    return JobController.accepted(jobs, mends.build(workspace, Optional.empty(), recipe), prefer);
  }

  /** Makes a mend anew. */
  @PostMapping("/{mod}/rebuild")
  ResponseEntity<Job> rebuild(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, mends.rebuild(workspace, mod), prefer);
  }

  /** Makes all stale mends anew, each after those that it is made of. */
  @PostMapping("/rebuild")
  ResponseEntity<Job> rebuildStale(
      @PathVariable long workspace,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, mends.rebuildStale(workspace), prefer);
  }

  /** What making a mend anew would change in it, record by record. */
  @GetMapping("/{mod}/difference")
  MendDifferenceView difference(@PathVariable long workspace, @PathVariable long mod) {
    return mends.difference(workspace, mod);
  }

  /** Sets when a patch is right; takes effect in its card when it is made anew. */
  @PutMapping("/{mod}/conditions")
  ResponseEntity<Job> conditions(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestBody ConditionsRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    List<Recipe.Condition> needs =
        body.needs().stream()
            .map(
                c ->
                    new Recipe.Condition(
                        c.mod(), c.versions() == null ? "*" : c.versions(), c.answer()))
            .toList();
    return JobController.accepted(
        jobs, mends.setConditions(workspace, mod, needs, body.clashes()), prefer);
  }

  /** Which patches the set calls for, and which nothing here needs. */
  @GetMapping("/called-for")
  PatchCalls.CalledFor calledFor(@PathVariable long workspace) {
    return calls.of(workspaces.get(workspace));
  }
}
