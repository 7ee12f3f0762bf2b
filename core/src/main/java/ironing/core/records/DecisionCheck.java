package ironing.core.records;

import ironing.core.IroningException;
import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType.Field;
import ironing.core.path.PathCase;
import ironing.core.records.Combination.Cell;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/** Whether a decision makes sense at its place, and how it is kept. */
public final class DecisionCheck {
  private DecisionCheck() {}

  /**
   * A decision as it is kept.
   *
   * @param c the record that it is on
   * @throws IroningException with code {@code value-unfit} for a value that does not fit its field,
   *     {@code not-found} where nothing is changed, {@code choice-unknown} for what nobody offers
   */
  public static Decision checked(RecordIndex index, Collision c, String place, Decision decision) {
    boolean whole = place.equals(Combiner.WHOLE_RECORD);
    if (decision instanceof Decision.Own own && !whole) {
      Field field = FieldCheck.fieldAt(c.type(), place);
      return new Decision.Own(FieldCheck.normal(place, field, own.text(), index));
    }
    if (decision == Decision.Outcome.REMOVED && place.indexOf('[') < 0) return decision;
    if (whole && (decision == Decision.Outcome.AS_BEFORE || isOfVersion(c, decision)))
      return decision;
    Cell cell =
        c.combination().cells().stream()
            .filter(x -> x.place().equals(place))
            .findFirst()
            .orElseThrow(() -> nothing(c, place));
    if (decision == Decision.Outcome.AS_BEFORE) return decision;
    if (decision == Decision.Outcome.MERGED && cell.suggested().isPresent()) return decision;
    Set<String> offered = cell.proposals().keySet();
    if (decision.taken().filter(p -> offered.stream().anyMatch(o -> isSame(o, p))).isPresent())
      return decision;
    throw IroningException.of(
        "choice-unknown",
        decision.taken().orElse(place),
        decision.taken().isPresent()
            ? "It does not change “" + place + "”."
            : "That is not offered for this place.",
        "Choose one of: " + String.join(", ", offered) + "; or what was there before.");
  }

  /** A decision on a record as a whole, by its place. */
  public static Map<String, Decision> ofWhole(Decision decision) {
    return Map.of(Combiner.WHOLE_RECORD, decision);
  }

  private static IroningException nothing(Collision c, String place) {
    return IroningException.of(
        "not-found",
        place,
        "Nothing is changed at this place of " + c.key() + ".",
        "Take the places from the record’s board, or write a value of your own.");
  }

  private static boolean isOfVersion(Collision c, Decision decision) {
    return decision
        .taken()
        .filter(p -> c.versions().stream().anyMatch(v -> isSame(v.plugin(), p)))
        .isPresent();
  }

  private static boolean isSame(String plugin, String other) {
    return PathCase.fold(plugin).equals(PathCase.fold(other));
  }

  /**
   * The decisions on a record with some new ones, each with what the sides say at its place, so
   * that a change of that is noticed.
   *
   * @param record its number in the index
   * @param before the decisions that there are
   * @param fresh by place
   */
  public static Map<String, Decided> with(
      GameDefinition game,
      RecordIndex index,
      int record,
      Map<String, Decided> before,
      Map<String, Decision> fresh) {
    Map<String, Decided> all = new TreeMap<>(before);
    fresh.forEach((place, d) -> all.put(place, Decided.of(d)));
    // a decision on the whole record has its fields told against the version that it takes
    for (Cell cell : Collision.of(game, index, record, all).combination().cells()) {
      Decision d = fresh.get(cell.place());
      if (d != null) all.put(cell.place(), new Decided(d, Combiner.seen(cell)));
    }
    return all;
  }
}
