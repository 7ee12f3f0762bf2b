package ironing.server.records;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.mends.PatchPattern;
import ironing.core.records.Decision;
import ironing.core.records.DecisionCheck;
import ironing.core.records.RecordIndex;
import ironing.server.records.RecordActsViews.BringRequest;
import ironing.server.records.RecordActsViews.BroughtRecords;
import ironing.server.records.RecordActsViews.PatternRequest;
import ironing.server.records.RecordActsViews.PatternView;
import ironing.server.records.RecordActsViews.TakeBackRequest;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Decisions on several records at once: each is one step of the timeline. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/records")
class RecordActsController {
  private static final int MOST_SHOWN = 500;
  private final RecordDecisions decisions;
  private final OpenWorkspaces workspaces;

  RecordActsController(RecordDecisions decisions, OpenWorkspaces workspaces) {
    this.decisions = decisions;
    this.workspaces = workspaces;
  }

  /** Takes one plugin’s version of records whole; a patch then holds what loses today. */
  @PostMapping("/bring")
  BroughtRecords bring(
      @PathVariable long workspace,
      @RequestBody BringRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    RecordIndex index = open.get(RECORDS).index();
    Set<Integer> wanted = RecordActsViews.wanted(open, index, body);
    OpenWorkspace after = open;
    if (!dryRun) {
      Map<String, Map<String, Decision>> words = new TreeMap<>();
      for (int r : wanted)
        words.put(index.key(r).toString(), DecisionCheck.ofWhole(new Decision.Take(body.plugin())));
      String said =
          wanted.size() == 1
              ? "Took “" + index.label(wanted.iterator().next()) + "” from " + body.plugin()
              : "Took " + wanted.size() + " records from " + body.plugin();
      after = decisions.decide(workspace, Expected.of(ifMatch), said, words);
    }
    return brought(after, List.copyOf(wanted));
  }

  private static BroughtRecords brought(OpenWorkspace open, List<Integer> wanted) {
    return new BroughtRecords(
        open.revision(),
        wanted.size(),
        RecordsViews.lines(open, wanted.stream().limit(MOST_SHOWN).mapToInt(Integer::intValue)));
  }

  /** Takes every decision on some records back. */
  @PostMapping("/undecide")
  BroughtRecords undecide(
      @PathVariable long workspace,
      @RequestBody TakeBackRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    RecordIndex index = workspaces.get(workspace).get(RECORDS).index();
    List<Integer> wanted = body.keys().stream().map(k -> RecordsViews.require(index, k)).toList();
    List<String> keys = wanted.stream().map(r -> index.key(r).toString()).toList();
    OpenWorkspace after = decisions.takeBack(workspace, Expected.of(ifMatch), keys);
    return brought(after, wanted);
  }

  /** Decides one field of many records after a pattern, or shows which. */
  @PostMapping("/pattern")
  PatternView pattern(
      @PathVariable long workspace,
      @RequestBody PatternRequest body,
      @RequestParam(defaultValue = "true") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    List<PatchPattern.Touched> touched = RecordActsViews.touched(open, body);
    OpenWorkspace after = open;
    if (!dryRun && !touched.isEmpty()) {
      Map<String, Map<String, Decision>> words = new TreeMap<>();
      for (PatchPattern.Touched t : touched)
        words.put(RecordActsViews.key(open, t), Map.of(body.take(), t.choice()));
      String said =
          "Took “%s” of %d records from %s".formatted(body.take(), touched.size(), body.from());
      after = decisions.decide(workspace, Expected.of(ifMatch), said, words);
    }
    return RecordActsViews.pattern(open, after.revision(), body, touched);
  }
}
