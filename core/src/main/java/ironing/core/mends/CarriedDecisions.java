package ironing.core.mends;

import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.Combiner;
import ironing.core.records.Decided;
import ironing.core.records.Decision;
import ironing.core.records.RecordIndex;
import ironing.core.records.Version;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * What becomes of the user's decisions, and of what patches hold, when plugins are merged.
 *
 * <p>A decision that names a merged plugin means nothing any more, and what two merged plugins
 * changed in different ways is no collision any more, since the merged plugin has one version. So
 * the outcome itself becomes the decision, field by field, and a patch that is made anew holds what
 * it held before.
 *
 * @param gone keys of records whose decisions are replaced
 * @param instead by the new key
 */
public record CarriedDecisions(Set<String> gone, Map<String, Map<String, Decided>> instead) {

  /**
   * @param all the collisions before the merge
   * @param after the records with the merged plugin in its place and its sources off
   */
  public static CarriedDecisions of(
      GameDefinition game, Collisions all, MergePlan plan, RecordIndex after) {
    Set<String> gone = new LinkedHashSet<>();
    Map<String, Map<String, Decided>> instead = new TreeMap<>();
    for (int record : touched(plan)) {
      Optional<Plugin.Record> wanted = wanted(game, all, plan, record);
      boolean decided = !all.decisionsOn(record).isEmpty();
      if (wanted.isEmpty() && !decided) continue;
      gone.add(plan.index().key(record).toString());
      if (wanted.isEmpty()) continue;
      int there = after.find(wanted.get().key());
      if (there < 0) continue;
      RecordType type = type(game, wanted.get().type());
      List<Version> sides =
          after.versions(there).stream().filter(v -> !after.source(v.position()).mend()).toList();
      Map<String, Decided> places = places(game, type, wanted.get().fields(), sides);
      if (!places.isEmpty()) instead.put(wanted.get().key().toString(), places);
    }
    return new CarriedDecisions(gone, instead);
  }

  private static Set<Integer> touched(MergePlan plan) {
    Set<Integer> touched = new LinkedHashSet<>();
    for (int p : plan.positions()) {
      RecordTable t = plan.index().table(p);
      for (int row = 0; row < t.size(); row++) {
        int record = plan.index().recordAt(p, row);
        if (record >= 0) touched.add(record);
      }
    }
    return touched;
  }

  /** What the game reads, or is to read, of a record, under its new key. */
  private static Optional<Plugin.Record> wanted(
      GameDefinition game, Collisions all, MergePlan plan, int record) {
    RecordIndex index = plan.index();
    RecordType type = type(game, index.type(record));
    Ref key = index.key(record);
    if (index.source(index.usedPosition(record)).mend()) {
      Optional<Value.Fields> used = index.used(record).fields();
      return Optional.of(plan.numbers().of(new Plugin.Record(index.type(record), key, used), type));
    }
    if (all.decisionsOn(record).isEmpty()) return Optional.empty();
    Collision c = all.of(record);
    if (!c.combination().settled()) return Optional.empty();
    return Optional.of(
        plan.numbers()
            .of(new Plugin.Record(index.type(record), key, c.combination().outcome()), type));
  }

  private static RecordType type(GameDefinition game, String type) {
    return game.records().getOrDefault(type, RecordType.undescribed(type));
  }

  private static Map<String, Decided> places(
      GameDefinition game, RecordType type, Optional<Value.Fields> wanted, List<Version> sides) {
    Map<String, Decided> places = new TreeMap<>();
    boolean someRemoved = sides.stream().anyMatch(v -> v.fields().isEmpty());
    if (wanted.isEmpty()) {
      if (!sides.stream().allMatch(v -> v.fields().isEmpty()))
        places.put(Combiner.WHOLE_RECORD, Decided.of(Decision.Outcome.REMOVED));
      return places;
    }
    List<Version> compared = sides;
    if (someRemoved) {
      // one of those that have the record is taken whole, and the fields are told against it
      Optional<Version> whole = sides.stream().filter(v -> v.fields().isPresent()).findFirst();
      if (whole.isEmpty()) return places;
      places.put(Combiner.WHOLE_RECORD, Decided.take(whole.get().plugin()));
      compared = List.of(whole.get());
    }
    Combiner combiner = new Combiner(game.pathCase());
    Set<String> names = new LinkedHashSet<>(wanted.get().map().keySet());
    compared.forEach(v -> names.addAll(v.fields().get().map().keySet()));
    for (String name : names) {
      Optional<Value> value = Optional.ofNullable(wanted.get().map().get(name));
      boolean agreed =
          compared.stream()
              .allMatch(
                  v ->
                      combiner.same(
                          type.field(name),
                          value,
                          Optional.ofNullable(v.fields().get().map().get(name))));
      if (agreed) continue;
      places.put(
          name,
          value
              .map(v -> Decided.own(PluginText.node(v).toString()))
              .orElse(Decided.of(Decision.Outcome.REMOVED)));
    }
    return places;
  }
}
