package ironing.core.records;

import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Combination.Cell;
import ironing.core.records.Combination.How;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One record with what the plugins make of it.
 *
 * @param label what people know the record by
 * @param versions of the plugins, without those of patches
 * @param used the version that the game uses now, patches included
 * @param lost the places where that version lacks what the combination has, or what somebody
 *     changed
 */
public record Collision(
    Ref key,
    RecordType type,
    String typeName,
    String label,
    List<Version> versions,
    Version used,
    Combination combination,
    State state,
    List<String> lost) {

  /** What is to be done about it. */
  public enum State {
    /** Something was changed in different ways: the user must say. */
    NEEDS_YOU,
    /** It combines without a question; the outcome is not in the game yet. */
    COMBINES,
    /** Several change it, and what the game reads has all of it. */
    SETTLED,
    /** Only one changes it, and the game reads that. */
    ONE_CHANGES,
    /** Every plugin has it as it was. */
    SAME,
    /** Its owner lacks it, or its versions are of several types: the game reads the last one. */
    ODD
  }

  /**
   * A record as it stands, with its values.
   *
   * @param record its number in the index
   * @param decisions the user's choices for it, place by place
   */
  public static Collision of(
      GameDefinition game, RecordIndex index, int record, Map<String, Decided> decisions) {
    List<Version> all = index.versions(record);
    if (index.isOdd(record)) return odd(game, index, record, all);
    Combiner combiner = new Combiner(game.pathCase());
    List<Version> versions = all.stream().filter(v -> !index.source(v.position()).mend()).toList();
    Version used = all.get(all.size() - 1);
    String typeName = index.type(record);
    RecordType type = game.records().getOrDefault(typeName, RecordType.undescribed(typeName));
    Combination c = combiner.combine(type, versions, decisions);
    return new Collision(
        index.key(record),
        type,
        typeName,
        index.label(record),
        versions,
        used,
        c,
        state(combiner, type, c, used, index.source(used.position()).mend()),
        lost(combiner, type, c, used));
  }

  /** The versions beside one another, with nothing to combine. */
  private static Collision odd(
      GameDefinition game, RecordIndex index, int record, List<Version> all) {
    Version used = all.get(all.size() - 1);
    RecordType type = game.records().getOrDefault(used.type(), RecordType.undescribed(used.type()));
    return new Collision(
        index.key(record),
        type,
        used.type(),
        index.label(record),
        all,
        used,
        new Combination(all.get(0), all, List.of(), used.fields().isEmpty(), used.fields()),
        State.ODD,
        List.of());
  }

  private static State state(
      Combiner combiner, RecordType type, Combination c, Version used, boolean byMend) {
    if (!c.settled()) return State.NEEDS_YOU;
    if (!combiner.same(type, used.fields(), c.outcome())) return State.COMBINES;
    if (byMend || c.cells().stream().anyMatch(x -> x.how() == How.DECIDED)) return State.SETTLED;
    long change =
        c.leaves().stream()
            .filter(l -> !combiner.same(type, l.fields(), c.base().fields()))
            .count();
    return change == 0 ? State.SAME : change == 1 ? State.ONE_CHANGES : State.SETTLED;
  }

  private static List<String> lost(
      Combiner combiner, RecordType type, Combination c, Version used) {
    List<String> lost = new ArrayList<>();
    for (Cell cell : c.cells()) {
      // what is inside rows is told by the rows' own cell
      if (cell.place().indexOf('[') >= 0) continue;
      RecordType.Field field = FieldCheck.fieldAt(type, cell.place());
      Optional<Value> now = at(used, cell.place());
      boolean open =
          cell.how() == How.ASKED || cell.how() == How.JOINED && cell.outcome().isEmpty();
      boolean kept =
          open
              ? cell.proposals().values().stream().allMatch(v -> combiner.same(field, now, v))
              : combiner.same(field, now, cell.outcome());
      if (!kept) lost.add(cell.place());
    }
    return List.copyOf(lost);
  }

  /** What the game reads at a place now. */
  public Optional<Value> usedAt(String place) {
    return at(used, place);
  }

  private static Optional<Value> at(Version v, String place) {
    return place.equals(Combiner.WHOLE_RECORD)
        ? v.fields().map(f -> (Value) f)
        : v.fields().map(f -> f.map().get(place));
  }

  /** Whether what the game reads lacks something that a plugin changed. */
  public boolean losesOf(GameDefinition game, String plugin) {
    Combiner combiner = new Combiner(game.pathCase());
    return combination.cells().stream()
        .filter(cell -> lost.contains(cell.place()) && cell.proposals().containsKey(plugin))
        // of a field that differs from the outcome only the change that is not there is lost
        .anyMatch(
            cell ->
                !combiner.same(
                    FieldCheck.fieldAt(type, cell.place()),
                    cell.proposals().get(plugin),
                    usedAt(cell.place())));
  }

  /** Whether the plugins alone do not come to the outcome, so that a patch has to hold it. */
  public boolean wantsPatch(GameDefinition game) {
    Version last = versions.get(versions.size() - 1);
    return game.canPatch(typeName)
        && combination.settled()
        && !new Combiner(game.pathCase()).same(type, last.fields(), combination.outcome());
  }
}
