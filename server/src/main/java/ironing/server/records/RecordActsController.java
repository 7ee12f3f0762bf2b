package ironing.server.records;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.IroningException;
import ironing.core.game.RecordType;
import ironing.core.mends.PatchPattern;
import ironing.core.picture.Arrangement;
import ironing.core.records.Collisions;
import ironing.core.records.Combination;
import ironing.core.records.Combiner;
import ironing.core.records.Decided;
import ironing.core.records.Decision;
import ironing.core.records.DecisionCheck;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordSearch;
import ironing.server.platform.MayBeAbsent;
import ironing.server.records.RecordsController.RecordLine;
import ironing.server.records.Shown.Words;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
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
  private final Workbenches benches;

  RecordActsController(Workbenches benches) {
    this.benches = benches;
  }

  /**
   * Records that one plugin’s version is wished of, whole.
   *
   * @param withReferences whether also those that they refer to, as far as the plugin has them
   */
  record BringRequest(String plugin, List<String> keys, boolean withReferences) {}

  /**
   * What was, or would be, decided.
   *
   * @param records the first of those that it touches; {@code total} is how many there are
   */
  record BroughtRecords(long revision, int total, List<RecordLine> records) {}

  /** Takes one plugin’s version of records whole; a patch then holds what loses today. */
  @PostMapping("/bring")
  BroughtRecords bring(
      @PathVariable long workspace,
      @RequestBody BringRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Bench bench = benches.get(workspace);
    RecordIndex index = bench.get(RECORDS).index();
    Set<Integer> wanted = wanted(bench, index, body);
    Bench after = bench;
    if (!dryRun) {
      Map<String, Map<String, Decision>> words = new TreeMap<>();
      for (int r : wanted)
        words.put(
            index.key(r).toString(),
            Map.of(Combiner.WHOLE_RECORD, new Decision.Take(body.plugin())));
      String said =
          wanted.size() == 1
              ? "Took “" + index.label(wanted.iterator().next()) + "” from " + body.plugin()
              : "Took " + wanted.size() + " records from " + body.plugin();
      after = decide(workspace, ifMatch, said, words);
    }
    return brought(after, List.copyOf(wanted));
  }

  private BroughtRecords brought(Bench bench, List<Integer> wanted) {
    Collisions all = bench.get(COLLISIONS);
    return new BroughtRecords(
        bench.revision(),
        wanted.size(),
        wanted.stream().limit(MOST_SHOWN).map(r -> RecordsController.line(bench, all, r)).toList());
  }

  private static Set<Integer> wanted(Bench bench, RecordIndex index, BringRequest body) {
    int position = RecordsController.requirePlugin(index, body.plugin());
    RecordSearch search = new RecordSearch(bench.game(), index);
    Set<Integer> wanted = new LinkedHashSet<>();
    Deque<Integer> open = new ArrayDeque<>();
    for (String key : body.keys()) {
      int record = RecordsController.require(index, key);
      if (rowIn(index, record, position) < 0)
        throw IroningException.of(
            "not-found",
            key,
            body.plugin() + " has no version of this record.",
            "Choose one of the plugins that have.");
      RecordsController.requireCombined(index, record);
      open.add(record);
    }
    while (!open.isEmpty()) {
      int record = open.remove();
      int row = rowIn(index, record, position);
      if (row < 0 || index.isOdd(record) || !wanted.add(record) || !body.withReferences()) continue;
      for (int to : search.references(position, row)) if (to >= 0) open.add(to);
    }
    return wanted;
  }

  private static int rowIn(RecordIndex index, int record, int position) {
    return IntStream.range(0, index.versionCount(record))
        .filter(v -> index.positionOf(record, v) == position)
        .map(v -> index.rowOf(record, v))
        .findFirst()
        .orElse(-1);
  }

  private Bench decide(
      long workspace, String ifMatch, String said, Map<String, Map<String, Decision>> fresh) {
    return benches
        .change(
            workspace,
            Expected.of(ifMatch),
            b -> said,
            b -> {
              Arrangement a = b.picture().arrangement();
              Map<String, Map<String, Decided>> next = new TreeMap<>(a.decisions());
              fresh.forEach(
                  (key, places) -> next.put(key, with(b, key, a.decisionsOn(key), places)));
              return a.withDecisions(next);
            })
        .after();
  }

  /** With new decisions on a record beside those of before. */
  static Map<String, Decided> with(
      Bench bench, String key, Map<String, Decided> before, Map<String, Decision> fresh) {
    RecordIndex index = bench.get(RECORDS).index();
    int record = RecordsController.require(index, key);
    return DecisionCheck.with(bench.game(), index, record, before, fresh);
  }

  /** Takes every decision on some records back. */
  record TakeBackRequest(List<String> keys) {}

  /** Takes every decision on some records back. */
  @PostMapping("/undecide")
  BroughtRecords undecide(
      @PathVariable long workspace,
      @RequestBody TakeBackRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    RecordIndex index = benches.get(workspace).get(RECORDS).index();
    List<Integer> wanted =
        body.keys().stream().map(k -> RecordsController.require(index, k)).toList();
    Bench after =
        benches
            .change(
                workspace,
                Expected.of(ifMatch),
                b -> "Took back the decisions on " + wanted.size() + " records",
                b -> {
                  Arrangement a = b.picture().arrangement();
                  Map<String, Map<String, Decided>> next = new HashMap<>(a.decisions());
                  wanted.forEach(r -> next.remove(index.key(r).toString()));
                  return a.withDecisions(next);
                })
            .after();
    return brought(after, wanted);
  }

  /**
   * “For all of a type whose field comes from one plugin, take another field from another.”
   *
   * @param type as plugins write it
   * @param field absent: whatever its fields say
   * @param comesFrom the plugin that the field must come from; absent with the field
   */
  record PatternRequest(
      String type,
      @MayBeAbsent String field,
      @MayBeAbsent String comesFrom,
      String take,
      String from) {}

  /** A record that a pattern touches. */
  record TouchedRecord(String key, String label, Words now, Words then) {}

  record PatternView(long revision, int total, List<TouchedRecord> records) {}

  /** Decides one field of many records after a pattern, or shows which. */
  @PostMapping("/pattern")
  PatternView pattern(
      @PathVariable long workspace,
      @RequestBody PatternRequest body,
      @RequestParam(defaultValue = "true") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Bench bench = benches.get(workspace);
    Collisions all = bench.get(COLLISIONS);
    RecordIndex index = all.index();
    RecordsController.requirePlugin(index, body.from());
    if (body.field() != null) RecordsController.requirePlugin(index, orEmpty(body.comesFrom()));
    RecordType type =
        bench.game().records().getOrDefault(body.type(), RecordType.undescribed(body.type()));
    List<PatchPattern.Touched> touched =
        new PatchPattern(
                body.type(),
                Optional.ofNullable(body.field()),
                orEmpty(body.comesFrom()),
                body.take(),
                body.from())
            .touches(index, all, type);
    Shown shown = new Shown(index);
    List<TouchedRecord> views = new ArrayList<>();
    for (PatchPattern.Touched t : touched) {
      if (views.size() == MOST_SHOWN) break;
      views.add(
          new TouchedRecord(
              index.key(t.record()).toString(),
              index.label(t.record()),
              now(shown, t, type.field(body.take())),
              shown.of(t.then(), type.field(body.take()))));
    }
    Bench after = bench;
    if (!dryRun && !touched.isEmpty()) {
      Map<String, Map<String, Decision>> words = new TreeMap<>();
      for (PatchPattern.Touched t : touched)
        words.put(index.key(t.record()).toString(), Map.of(body.take(), t.choice()));
      String said =
          "Took “%s” of %d records from %s".formatted(body.take(), touched.size(), body.from());
      after = decide(workspace, ifMatch, said, words);
    }
    return new PatternView(after.revision(), touched.size(), views);
  }

  private static Words now(Shown shown, PatchPattern.Touched t, RecordType.Field field) {
    boolean asked = t.cell() != null && t.cell().how() == Combination.How.ASKED;
    return asked ? new Words(false, "not decided", List.of()) : shown.of(t.now(), field);
  }

  private static String orEmpty(@MayBeAbsent String text) {
    return text == null ? "" : text;
  }
}
