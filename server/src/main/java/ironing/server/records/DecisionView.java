package ironing.server.records;

import ironing.core.IroningException;
import ironing.core.records.Decision;
import ironing.core.records.Decision.Outcome;
import ironing.server.platform.MayBeAbsent;
import java.util.ArrayList;
import java.util.List;

/**
 * What the user says at one place: one of the three.
 *
 * @param take the plugin whose value is taken; at the whole record, its version
 * @param outcome as it was before any mod, the sequence that was offered, or nothing at all
 * @param own a value of the user's own, in its text form
 */
record DecisionView(
    @MayBeAbsent String take, @MayBeAbsent Outcome outcome, @MayBeAbsent String own) {
  static DecisionView of(Decision d) {
    return new DecisionView(
        d.taken().orElse(null),
        d instanceof Outcome o ? o : null,
        d instanceof Decision.Own own ? own.text() : null);
  }

  /**
   * @throws IroningException with code {@code choice-unknown} when it is not one of the three
   */
  Decision decision() {
    List<Decision> said = new ArrayList<>();
    if (take != null) said.add(new Decision.Take(take));
    if (outcome != null) said.add(outcome);
    if (own != null) said.add(new Decision.Own(own));
    if (said.size() == 1) return said.get(0);
    throw IroningException.of(
        "choice-unknown",
        "The decision",
        "It says " + (said.isEmpty() ? "nothing." : said.size() + " things at once."),
        "Give one of take, outcome and own.");
  }
}
