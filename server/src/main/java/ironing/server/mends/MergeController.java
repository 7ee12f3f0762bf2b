package ironing.server.mends;

import ironing.core.mends.MergePlan;
import ironing.core.mends.Renumbering.Moved;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.mends.MergeViews.MergeNote;
import ironing.server.mends.MergeViews.MergePreview;
import ironing.server.mends.MergeViews.MergeRequest;
import ironing.server.mends.MergeViews.RenumberedRecord;
import ironing.server.mends.MergeViews.TableForm;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Several plugins made one: seen before it is made, made, and taken back. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/mends/merges")
class MergeController {
  private static final int MOST = 200;
  private final Mends mends;
  private final Merges merges;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  MergeController(Mends mends, Merges merges, OpenWorkspaces workspaces, Jobs jobs) {
    this.mends = mends;
    this.merges = merges;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /** What merging some plugins would come to; nothing is changed. */
  @PostMapping("/preview")
  MergePreview preview(@PathVariable long workspace, @RequestBody MergeRequest body) {
    OpenWorkspace open = workspaces.get(workspace);
    String target = merges.target(open, body.target(), body.sources());
    MergePlan plan = merges.plan(open, body.sources(), target, MergeViews.isCombining(body));
    boolean possible = plan.refused().isEmpty();
    List<RenumberedRecord> renumbered = new ArrayList<>();
    for (String s : plan.sources())
      for (Moved m : plan.numbers().of(s))
        if (m.from().id() != m.to().id() && renumbered.size() < MOST)
          renumbered.add(new RenumberedRecord(m.from().toString(), m.to().toString()));
    return new MergePreview(
        open.revision(),
        plan.refused().stream().map(MergeNote::of).toList(),
        plan.sources(),
        plan.target(),
        plan.newRecords(),
        plan.overrides(),
        plan.masters(),
        plan.after().isEmpty() ? null : plan.after(),
        plan.stage(),
        Math.max(0, plan.sources().size() - 1),
        plan.packs(),
        plan.numbers().changed(),
        renumbered,
        plan.shared().size(),
        (int) plan.shared().stream().filter(MergePlan.Shared::combines).count(),
        plan.shared().stream().limit(MOST).map(s -> MergeViews.shared(open, s)).toList(),
        plan.leftOut().size(),
        plan.leftOut().stream().limit(MOST).map(MergeNote::of).toList(),
        MergeViews.dependents(open, plan),
        possible ? merges.otherFiles(open, plan).stream().limit(MOST).toList() : List.of());
  }

  /** Makes a merge: its sources are switched off, and patches that named them made anew. */
  @PostMapping
  ResponseEntity<Job> merge(
      @PathVariable long workspace,
      @RequestBody MergeRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    String name =
        Optional.ofNullable(body.name())
            .filter(n -> !n.isBlank())
            .orElseGet(() -> body.target().replaceFirst("\\.[^.]*$", ""));
    return JobController.accepted(
        jobs,
        mends.merge(workspace, name, body.sources(), body.target(), MergeViews.isCombining(body)),
        prefer);
  }

  /** Switches a merge off and its sources on again, where they were. */
  @PostMapping("/{mod}/take-back")
  ResponseEntity<Job> takeBack(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    return JobController.accepted(jobs, mends.takeBack(workspace, mod), prefer);
  }

  /** Which key each record of a merge had and has: for saves, and for mods that name it. */
  @GetMapping("/{mod}/renumbered")
  ResponseEntity<byte[]> renumbered(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam(defaultValue = "CSV") TableForm form)
      throws IOException {
    String ending = form.name().toLowerCase(Locale.ROOT);
    ContentDisposition as =
        ContentDisposition.attachment().filename("renumbered." + ending).build();
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, as.toString())
        .contentType(MediaType.parseMediaType(form.type))
        .body(merges.table(workspaces.get(workspace), mod, ending));
  }
}
