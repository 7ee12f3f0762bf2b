package ironing.core.mends;

import ironing.core.game.RecordType;
import ironing.core.path.PathCase;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Value;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.Combination.Cell;
import ironing.core.records.Combiner;
import ironing.core.records.Decision;
import ironing.core.records.RecordIndex;
import ironing.core.records.Version;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * One decision for many records: “for all vessels whose speed comes from A, take the berth from B”.
 *
 * @param type of the records
 * @param field whose value must come from {@code comesFrom}; empty for all records of the type
 * @param comesFrom a plugin's file name
 * @param take the field that is taken
 * @param from the plugin that it is taken from
 */
public record PatchPattern(
    String type, Optional<String> field, String comesFrom, String take, String from) {

  /**
   * A record that it touches.
   *
   * @param choice what is decided of it
   * @param now what the field comes to without it
   */
  public record Touched(
      int record, Decision choice, Optional<Value> now, Optional<Value> then, Cell cell) {}

  /** Every record that it changes, by number. Cost: the versions of the plugin are read. */
  public List<Touched> touches(RecordIndex index, Collisions all, RecordType described) {
    List<Touched> touched = new ArrayList<>();
    int position = index.position(from);
    if (position < 0) return touched;
    Combiner combiner = new Combiner(all.pathCase());
    RecordType.Field taken = described.field(take);
    for (int row = 0; row < index.table(position).size(); row++) {
      int record = index.recordAt(position, row);
      if (record < 0 || !index.type(record).equals(type)) continue;
      Collision c = all.of(record);
      if (field.isPresent() && !comes(combiner, described, c)) continue;
      Optional<Value> there = valueIn(c, from, take);
      Optional<Value> now = outcome(c, take);
      if (combiner.same(taken, there, now)) continue;
      Optional<Cell> cell =
          c.combination().cells().stream().filter(x -> x.place().equals(take)).findFirst();
      Decision choice =
          cell.filter(x -> proposes(x, from)).isPresent()
              ? new Decision.Take(from)
              : there
                  .<Decision>map(v -> new Decision.Own(PluginText.node(v).toString()))
                  .orElse(Decision.Outcome.REMOVED);
      touched.add(new Touched(record, choice, now, there, cell.orElse(null)));
    }
    touched.sort((a, b) -> Integer.compare(a.record(), b.record()));
    return touched;
  }

  /** Whether the outcome of the field is what the plugin made of it. */
  private boolean comes(Combiner combiner, RecordType described, Collision c) {
    Optional<Value> its = valueIn(c, comesFrom, field.orElseThrow());
    boolean changes =
        c.combination().cells().stream()
            .anyMatch(x -> x.place().equals(field.get()) && proposes(x, comesFrom));
    // where names tell records apart, nobody's name stands in the key
    String owner = c.key().isNamed() ? c.versions().get(0).plugin() : c.key().owner();
    boolean defines = PathCase.fold(owner).equals(PathCase.fold(comesFrom));
    return (changes || defines)
        && combiner.same(described.field(field.get()), its, outcome(c, field.get()));
  }

  private static boolean proposes(Cell cell, String plugin) {
    return cell.proposals().keySet().stream()
        .anyMatch(p -> PathCase.fold(p).equals(PathCase.fold(plugin)));
  }

  private static Optional<Value> valueIn(Collision c, String plugin, String field) {
    return c.versions().stream()
        .filter(v -> PathCase.fold(v.plugin()).equals(PathCase.fold(plugin)))
        .findFirst()
        .flatMap(Version::fields)
        .map(f -> f.map().get(field));
  }

  // while another field waits for the user, what the game reads stands for the outcome
  private static Optional<Value> outcome(Collision c, String field) {
    for (Cell cell : c.combination().cells()) if (cell.place().equals(field)) return cell.outcome();
    return c.combination().outcome().or(() -> c.used().fields()).map(f -> f.map().get(field));
  }
}
