package ironing.core.records;

import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.path.PathCase;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Combination.Cell;
import ironing.core.records.Combination.How;
import ironing.core.records.RecordVersions.Version;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * A record that more than one plugin changes without one of them standing for the others.
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
    /** It combines; the outcome is not in the game yet. */
    COMBINES,
    /** A patch has the outcome. */
    SETTLED,
    /** The plugin that loads last has everything already. */
    NOTHING_LOST
  }

  /**
   * All collisions, in the order in which their records are first met.
   *
   * @param all versions of all active plugins
   * @param patches the names of plugins that were made of others' versions; they take no side
   * @param decisions the user's choices for a record, by its key as text
   */
  public static List<Collision> in(
      GameDefinition game,
      RecordVersions all,
      Set<String> patches,
      Function<String, Map<String, String>> decisions) {
    Combiner combiner = new Combiner(game.pathCase());
    List<Collision> out = new ArrayList<>();
    for (Ref key : all.contested()) {
      List<Version> versions =
          all.of(key).stream()
              .filter(v -> !patches.contains(PathCase.fold(v.plugin().name())))
              .toList();
      if (Combiner.leaves(versions).size() < 2) continue;
      out.add(of(game, combiner, key, versions, all.used(key).orElseThrow(), decisions));
    }
    return List.copyOf(out);
  }

  private static Collision of(
      GameDefinition game,
      Combiner combiner,
      Ref key,
      List<Version> versions,
      Version used,
      Function<String, Map<String, String>> decisions) {
    String typeName = versions.get(0).type();
    RecordType type = game.records().getOrDefault(typeName, RecordType.undescribed(typeName));
    Combination c = combiner.combine(type, versions, decisions.apply(key.toString()));
    Version last = versions.get(versions.size() - 1);
    return new Collision(
        key,
        type,
        typeName,
        label(type, key, used, versions),
        versions,
        used,
        c,
        state(combiner, type, c, used, last),
        lost(combiner, type, c, used));
  }

  private static State state(
      Combiner combiner, RecordType type, Combination c, Version used, Version last) {
    if (!c.settled()) return State.NEEDS_YOU;
    if (combiner.same(type, last.fields(), c.outcome())) return State.NOTHING_LOST;
    return combiner.same(type, used.fields(), c.outcome()) ? State.SETTLED : State.COMBINES;
  }

  private static List<String> lost(
      Combiner combiner, RecordType type, Combination c, Version used) {
    List<String> lost = new ArrayList<>();
    for (Cell cell : c.cells()) {
      // what is inside rows is told by the rows' own cell
      if (cell.place().indexOf('[') >= 0) continue;
      boolean whole = cell.place().equals(Combiner.WHOLE_RECORD);
      RecordType.Field field = whole ? type.asField() : type.field(cell.place());
      Optional<Value> now =
          whole
              ? used.fields().map(f -> (Value) f)
              : used.fields().map(f -> f.map().get(cell.place()));
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

  private static String label(RecordType type, Ref key, Version used, List<Version> versions) {
    Optional<Value.Fields> fields = used.fields().or(() -> versions.get(0).fields());
    return type.label()
        .flatMap(l -> fields.map(f -> f.map().get(l)))
        .filter(v -> v instanceof Value.Text)
        .map(v -> ((Value.Text) v).value())
        .filter(t -> !t.isBlank())
        .orElse(key.toString());
  }

  /** Whether a patch would have to hold this record. */
  public boolean wantsPatch() {
    return state == State.COMBINES || state == State.SETTLED;
  }
}
