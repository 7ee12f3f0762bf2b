package ironing.server.drift;

import ironing.core.drift.Drift.Cause;
import ironing.core.drift.Drift.Difference;
import ironing.server.deploy.Deployments;
import ironing.server.drift.Drifts.Found;
import ironing.server.drift.Drifts.Wish;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.platform.MayBeAbsent;
import ironing.server.tools.ToolStrays;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Where the game folder is not as it was deployed to, and what can be done about it. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/drift")
class DriftController {
  private static final int SHOWN = 500;
  private final Drifts drifts;
  private final ToolStrays strays;
  private final Deployments deployments;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  DriftController(
      Drifts drifts,
      ToolStrays strays,
      Deployments deployments,
      OpenWorkspaces workspaces,
      Jobs jobs) {
    this.strays = strays;
    this.drifts = drifts;
    this.deployments = deployments;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /**
   * @param mod whose it is; 0 for none
   * @param from the same in words; empty for none. Of a new file, the tool to whose output it goes
   *     with the next deployment
   */
  record DriftFile(String path, long mod, String from, long sizeBytes) {}

  /**
   * Files to which the same has happened.
   *
   * @param files the first of them, by path
   */
  record DriftGroup(Cause cause, int inAll, List<DriftFile> files) {}

  /**
   * @param thorough whether every byte was read, and not only size, time and inode
   * @param deployed how many files are deployed
   * @param left how many differ and are left as they are, as the user wants
   * @param inAll how many differ beside those
   */
  record DriftView(boolean thorough, int deployed, int left, int inAll, List<DriftGroup> groups) {}

  /** Compares the folder with what is deployed and with the unmodded game. Changes nothing. */
  @GetMapping
  DriftView drift(
      @PathVariable long workspace, @RequestParam(defaultValue = "false") boolean thorough) {
    OpenWorkspace open = workspaces.get(workspace);
    Found found = drifts.find(open, thorough);
    Function<String, Optional<String>> owners = strays.owners(open);
    Map<Cause, List<Difference>> byCause =
        found.differences().stream()
            .collect(Collectors.groupingBy(Difference::cause, TreeMap::new, Collectors.toList()));
    return new DriftView(
        thorough,
        deployments.laidOut(open).files().size(),
        found.left(),
        found.differences().size(),
        byCause.entrySet().stream().map(e -> group(owners, e.getKey(), e.getValue())).toList());
  }

  private static DriftGroup group(
      Function<String, Optional<String>> owners, Cause cause, List<Difference> all) {
    return new DriftGroup(
        cause,
        all.size(),
        all.stream()
            .limit(SHOWN)
            .map(d -> new DriftFile(d.path(), d.mod(), from(owners, d), d.sizeBytes()))
            .toList());
  }

  private static String from(Function<String, Optional<String>> owners, Difference d) {
    return d.cause() == Cause.NEW ? owners.apply(d.path()).orElse("") : d.from();
  }

  /**
   * @param paths some of the files of that cause; absent for all
   * @param thorough whether they were found by reading every byte
   */
  record DriftRequest(Cause cause, @MayBeAbsent List<String> paths, @MayBeAbsent Boolean thorough) {
    Wish wish() {
      return new Wish(cause, Optional.ofNullable(paths), Boolean.TRUE.equals(thorough));
    }
  }

  /** Has deployed files as they were deployed; what lies there is set aside. */
  @PostMapping("/put-back")
  ResponseEntity<Job> putBack(
      @PathVariable long workspace,
      @RequestBody DriftRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, drifts.putBack(workspace, body.wish()), prefer);
  }

  /**
   * @param archive in the inbox
   */
  record DriftTaken(long archive) {}

  /** Takes files into the inbox; new ones are set aside in the folder then. */
  @PostMapping("/take")
  @ResponseStatus(HttpStatus.CREATED)
  DriftTaken takeDrift(@PathVariable long workspace, @RequestBody DriftRequest body)
      throws IOException {
    return new DriftTaken(drifts.take(workspace, body.wish()));
  }

  /** Takes files into the mods that they were deployed from, and deploys them so. */
  @PostMapping("/own")
  ResponseEntity<Job> takeIntoItsMod(
      @PathVariable long workspace,
      @RequestBody DriftRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, drifts.takeIntoItsMod(workspace, body.wish()), prefer);
  }

  /** Leaves files as they are, and remembers that while their content stays. */
  @PostMapping("/left")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void leaveDrift(@PathVariable long workspace, @RequestBody DriftRequest body) {
    drifts.leave(workspace, body.wish());
  }

  /** Tells of all files again that were to be left. */
  @DeleteMapping("/left")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void tellDriftAgain(@PathVariable long workspace) {
    drifts.tellAgain(workspace);
  }
}
