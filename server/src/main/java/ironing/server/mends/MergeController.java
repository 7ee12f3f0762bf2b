package ironing.server.mends;

import static ironing.core.workspace.Stages.COLLISIONS;

import ironing.core.mends.MergePlan;
import ironing.core.mends.Renumbering.Moved;
import ironing.core.path.PathCase;
import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
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
  private final Workbenches benches;
  private final Jobs jobs;

  MergeController(Mends mends, Merges merges, Workbenches benches, Jobs jobs) {
    this.mends = mends;
    this.merges = merges;
    this.benches = benches;
    this.jobs = jobs;
  }

  /**
   * @param sources file names of plugins that are on
   * @param target the file name of the plugin that they become: a new one, or one of them
   * @param name what to call the merge; absent: as the target is called
   * @param combining whether it is to have the outcome of what its sources change in the same
   *     record; absent: it has the version that the game reads now
   */
  record MergeRequest(
      List<String> sources,
      String target,
      @MayBeAbsent String name,
      @MayBeAbsent Boolean combining) {}

  /** Something about one plugin or record. */
  record MergeNote(String code, String thing, String reason, String remedy) {
    static MergeNote of(MergePlan.Note n) {
      return new MergeNote(n.code(), n.thing(), n.reason(), n.remedy());
    }
  }

  /**
   * A record that several sources have.
   *
   * @param taken the source whose version the merge has where it is not combined
   * @param combines whether their changes combine into something that none of them has
   * @param state how its changes stand to one another
   */
  record SharedRecord(
      String key,
      String label,
      List<String> sources,
      String taken,
      boolean combines,
      @MayBeAbsent State state) {}

  /** A record that gets another number. */
  record RenumberedRecord(String from, String to) {}

  /**
   * A plugin elsewhere that names a source as master.
   *
   * @param how it is dealt with: rewritten as part of the merge, or made anew after it
   */
  record DependentPlugin(String plugin, String modName, boolean on, DependentFate how) {}

  enum DependentFate {
    /** A copy that names the merge as master goes with it. */
    REWRITTEN,
    /** A patch that Ironing made, and makes anew. */
    MADE_ANEW,
    /** It is off; switched on, it would miss its master. */
    STAYS_OFF
  }

  /**
   * What a merge would come to.
   *
   * @param refused why it cannot be made; none where it can
   * @param after the plugin that it would load directly behind; absent for the beginning
   * @param renumbered the first of those that get another number
   * @param combinableInAll how many of the shared records combine
   * @param otherFiles paths at which the game would read another file, since packs change places
   */
  record MergePreview(
      long revision,
      List<MergeNote> refused,
      List<String> sources,
      String target,
      int newRecords,
      int overrides,
      List<String> masters,
      @MayBeAbsent String after,
      int stage,
      int slotsFreed,
      List<String> packs,
      int renumberedInAll,
      List<RenumberedRecord> renumbered,
      int sharedInAll,
      int combinableInAll,
      List<SharedRecord> shared,
      int leftOutInAll,
      List<MergeNote> leftOut,
      List<DependentPlugin> dependents,
      List<String> otherFiles) {}

  /** What merging some plugins would come to; nothing is changed. */
  @PostMapping("/preview")
  MergePreview preview(@PathVariable long workspace, @RequestBody MergeRequest body) {
    Bench bench = benches.get(workspace);
    String target = merges.target(bench, body.target(), body.sources());
    MergePlan plan = merges.plan(bench, body.sources(), target, isCombining(body));
    boolean possible = plan.refused().isEmpty();
    List<RenumberedRecord> renumbered = new ArrayList<>();
    for (String s : plan.sources())
      for (Moved m : plan.numbers().of(s))
        if (m.from().id() != m.to().id() && renumbered.size() < MOST)
          renumbered.add(new RenumberedRecord(m.from().toString(), m.to().toString()));
    return new MergePreview(
        bench.revision(),
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
        plan.shared().stream().limit(MOST).map(s -> shared(bench, s)).toList(),
        plan.leftOut().size(),
        plan.leftOut().stream().limit(MOST).map(MergeNote::of).toList(),
        dependents(bench, plan),
        possible ? merges.otherFiles(bench, plan).stream().limit(MOST).toList() : List.of());
  }

  private static boolean isCombining(MergeRequest body) {
    return Boolean.TRUE.equals(body.combining());
  }

  private SharedRecord shared(Bench bench, MergePlan.Shared s) {
    Collisions all = bench.get(COLLISIONS);
    int at = all.find(s.record());
    return new SharedRecord(
        all.index().key(s.record()).toString(),
        all.index().label(s.record()),
        s.sources(),
        s.sources().get(s.sources().size() - 1),
        s.combines(),
        at < 0 ? null : all.state(at));
  }

  private static List<DependentPlugin> dependents(Bench bench, MergePlan plan) {
    List<DependentPlugin> all = new ArrayList<>();
    bench
        .picture()
        .loadOrder()
        .entries()
        .forEach(
            e -> {
              boolean source = has(plan.sources(), e.name());
              if (source || e.plugin().masters().stream().noneMatch(m -> has(plan.sources(), m)))
                return;
              DependentFate how = DependentFate.REWRITTEN;
              if (!e.on()) how = DependentFate.STAYS_OFF;
              else if (Merges.isPatch(bench, e.name())) how = DependentFate.MADE_ANEW;
              all.add(new DependentPlugin(e.name(), bench.nameOf(e.plugin().mod()), e.on(), how));
            });
    return all;
  }

  private static boolean has(List<String> names, String name) {
    String folded = PathCase.fold(name);
    return names.stream().anyMatch(n -> PathCase.fold(n).equals(folded));
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
        mends.merge(workspace, name, body.sources(), body.target(), isCombining(body)),
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

  /** How the table of old and new keys is written. */
  enum TableForm {
    CSV("text/csv;charset=UTF-8"),
    JSON("application/json");

    private final String type;

    TableForm(String type) {
      this.type = type;
    }
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
        .body(merges.table(benches.get(workspace), mod, ending));
  }
}
