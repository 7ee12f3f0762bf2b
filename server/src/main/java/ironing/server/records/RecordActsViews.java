package ironing.server.records;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.IroningException;
import ironing.core.game.RecordType;
import ironing.core.mends.PatchPattern;
import ironing.core.records.Collisions;
import ironing.core.records.Combination;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordSearch;
import ironing.server.platform.MayBeAbsent;
import ironing.server.records.RecordsViews.RecordLine;
import ironing.server.records.Shown.Words;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/** What {@link RecordActsController} gives and takes, and how it is made of what the core says. */
final class RecordActsViews {
  private static final int MOST_SHOWN = 500;

  private RecordActsViews() {}

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

  static Set<Integer> wanted(OpenWorkspace openWorkspace, RecordIndex index, BringRequest body) {
    int position = RecordsViews.requirePlugin(index, body.plugin());
    RecordSearch search = new RecordSearch(openWorkspace.game(), index);
    Set<Integer> wanted = new LinkedHashSet<>();
    Deque<Integer> open = new ArrayDeque<>();
    for (String key : body.keys()) {
      int record = RecordsViews.require(index, key);
      if (rowIn(index, record, position) < 0)
        throw IroningException.of(
            "not-found",
            key,
            body.plugin() + " has no version of this record.",
            "Choose one of the plugins that have.");
      RecordsViews.requireCombined(index, record);
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

  static int rowIn(RecordIndex index, int record, int position) {
    return IntStream.range(0, index.versionCount(record))
        .filter(v -> index.positionOf(record, v) == position)
        .map(v -> index.rowOf(record, v))
        .findFirst()
        .orElse(-1);
  }

  /** Takes every decision on some records back. */
  record TakeBackRequest(List<String> keys) {}

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

  static Words now(Shown shown, PatchPattern.Touched t, RecordType.Field field) {
    boolean asked = t.cell() != null && t.cell().how() == Combination.How.ASKED;
    return asked ? new Words(false, "not decided", List.of()) : shown.of(t.now(), field);
  }

  static String orEmpty(@MayBeAbsent String text) {
    return text == null ? "" : text;
  }

  /** The records that a pattern touches. */
  static List<PatchPattern.Touched> touched(OpenWorkspace openWorkspace, PatternRequest body) {
    Collisions all = openWorkspace.get(COLLISIONS);
    RecordsViews.requirePlugin(all.index(), body.from());
    if (body.field() != null) RecordsViews.requirePlugin(all.index(), orEmpty(body.comesFrom()));
    return new PatchPattern(
            body.type(),
            Optional.ofNullable(body.field()),
            orEmpty(body.comesFrom()),
            body.take(),
            body.from())
        .touches(all.index(), all, type(openWorkspace, body));
  }

  private static RecordType type(OpenWorkspace openWorkspace, PatternRequest body) {
    return openWorkspace
        .game()
        .records()
        .getOrDefault(body.type(), RecordType.undescribed(body.type()));
  }

  static String key(OpenWorkspace openWorkspace, PatchPattern.Touched t) {
    return openWorkspace.get(RECORDS).index().key(t.record()).toString();
  }

  static PatternView pattern(
      OpenWorkspace openWorkspace,
      long revision,
      PatternRequest body,
      List<PatchPattern.Touched> touched) {
    RecordIndex index = openWorkspace.get(RECORDS).index();
    Shown shown = new Shown(index);
    RecordType.Field field = type(openWorkspace, body).field(body.take());
    return new PatternView(
        revision,
        touched.size(),
        touched.stream()
            .limit(MOST_SHOWN)
            .map(
                t ->
                    new TouchedRecord(
                        index.key(t.record()).toString(),
                        index.label(t.record()),
                        now(shown, t, field),
                        shown.of(t.then(), field)))
            .toList());
  }
}
