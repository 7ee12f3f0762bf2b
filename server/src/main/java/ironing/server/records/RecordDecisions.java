package ironing.server.records;

import ironing.core.IroningException;
import ironing.core.picture.Arrangement;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.Combiner;
import ironing.core.records.Decided;
import ironing.core.records.Decision;
import ironing.core.records.DecisionCheck;
import ironing.core.records.RecordIndex;
import ironing.core.workspace.Stages;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** Takes decisions on records, and takes them back: each is one step of the timeline. */
@Component
class RecordDecisions {
  private final OpenWorkspaces workspaces;

  RecordDecisions(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /**
   * A decision on one place of a record as it is kept.
   *
   * @throws IroningException with code {@code record-odd}, or as {@link DecisionCheck} has it
   */
  Decision checked(OpenWorkspace open, int record, String place, Decision decision) {
    Collisions all = open.get(Stages.COLLISIONS);
    RecordsViews.requireCombined(all.index(), record);
    String type = all.index().type(record);
    boolean whole = place.equals(Combiner.WHOLE_RECORD);
    if (whole && decision == Decision.Outcome.REMOVED && !open.game().canRemove(type))
      throw IroningException.of(
          "choice-unknown",
          place,
          "The game has no word for a " + type + " that is removed.",
          "Take a version of it, or switch off the plugin that brings it.");
    return DecisionCheck.checked(all.index(), all.of(record), place, decision);
  }

  /**
   * Decides on one place of a record.
   *
   * @param record its number in the open workspace that the caller saw
   * @param kept as {@link #checked} gives it; empty to take the decision back
   */
  OpenWorkspace decide(
      OpenWorkspace open, Expected expected, int record, String place, Optional<Decision> kept) {
    Collision now = open.get(Stages.COLLISIONS).of(record);
    String key = now.key().toString();
    String said =
        (kept.isEmpty() ? "Took back a decision on “" : "Decided on “") + now.label() + "”";
    return workspaces
        .change(
            open.workspace(),
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
  OpenWorkspace decide(
      long workspace, Expected expected, String said, Map<String, Map<String, Decision>> fresh) {
    return workspaces
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
  OpenWorkspace takeBack(long workspace, Expected expected, List<String> keys) {
    return workspaces
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
      OpenWorkspace open, String key, Map<String, Decided> before, Map<String, Decision> fresh) {
    RecordIndex index = open.get(Stages.RECORDS).index();
    int record = RecordsViews.require(index, key);
    return DecisionCheck.with(open.game(), index, record, before, fresh);
  }
}
