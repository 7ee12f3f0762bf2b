package ironing.server.records;

import ironing.core.IroningException;
import ironing.core.picture.Arrangement;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.Decided;
import ironing.core.records.Decision;
import ironing.core.records.DecisionCheck;
import ironing.core.records.RecordIndex;
import ironing.core.workspace.Stages;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** Takes decisions on records, and takes them back: each is one step of the timeline. */
@Component
class RecordDecisions {
  private final Workbenches benches;

  RecordDecisions(Workbenches benches) {
    this.benches = benches;
  }

  /**
   * A decision on one place of a record as it is kept.
   *
   * @throws IroningException with code {@code record-odd}, or as {@link DecisionCheck} has it
   */
  Decision checked(Bench bench, int record, String place, Decision decision) {
    Collisions all = bench.get(Stages.COLLISIONS);
    RecordsViews.requireCombined(all.index(), record);
    return DecisionCheck.checked(all.index(), all.of(record), place, decision);
  }

  /**
   * Decides on one place of a record.
   *
   * @param record its number in the bench that the caller saw
   * @param kept as {@link #checked} gives it; empty to take the decision back
   */
  Bench decide(Bench bench, Expected expected, int record, String place, Optional<Decision> kept) {
    Collision now = bench.get(Stages.COLLISIONS).of(record);
    String key = now.key().toString();
    String said =
        (kept.isEmpty() ? "Took back a decision on “" : "Decided on “") + now.label() + "”";
    return benches
        .change(
            bench.workspace(),
            expected,
            said,
            b -> {
              Arrangement a = b.picture().arrangement();
              Map<String, Decided> places = new TreeMap<>(a.decisionsOn(key));
              places.remove(place);
              return a.withDecisions(
                  key, kept.map(d -> with(b, key, places, Map.of(place, d))).orElse(places));
            })
        .after();
  }

  /**
   * Decides on several records.
   *
   * @param fresh by the key of a record, and the place
   */
  Bench decide(
      long workspace, Expected expected, String said, Map<String, Map<String, Decision>> fresh) {
    return benches
        .change(
            workspace,
            expected,
            said,
            b -> {
              Arrangement a = b.picture().arrangement();
              Map<String, Map<String, Decided>> next = new TreeMap<>(a.decisions());
              fresh.forEach(
                  (key, places) -> next.put(key, with(b, key, a.decisionsOn(key), places)));
              return a.withDecisions(next);
            })
        .after();
  }

  /** Takes every decision on some records back. */
  Bench takeBack(long workspace, Expected expected, List<String> keys) {
    return benches
        .change(
            workspace,
            expected,
            "Took back the decisions on " + keys.size() + " records",
            b -> {
              Arrangement a = b.picture().arrangement();
              Map<String, Map<String, Decided>> next = new TreeMap<>(a.decisions());
              next.keySet().removeAll(keys);
              return a.withDecisions(next);
            })
        .after();
  }

  private static Map<String, Decided> with(
      Bench bench, String key, Map<String, Decided> before, Map<String, Decision> fresh) {
    RecordIndex index = bench.get(Stages.RECORDS).index();
    int record = RecordsViews.require(index, key);
    return DecisionCheck.with(bench.game(), index, record, before, fresh);
  }
}
