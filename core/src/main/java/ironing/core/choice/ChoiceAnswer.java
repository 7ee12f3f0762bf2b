package ironing.core.choice;

import java.util.List;
import java.util.Optional;

/** What a choice brings with it. */
public sealed interface ChoiceAnswer {

  /**
   * The best set.
   *
   * @param members what is wished for and what that needs, and all else that is another than before
   * @param off what has to be switched off
   * @param unmet what did not hold before and does not now
   * @param best whether it is known to be the best; false when the time was up
   */
  record Found(List<Member> members, List<GoesOff> off, List<Statement> unmet, boolean best)
      implements ChoiceAnswer {}

  /**
   * No set has all of it.
   *
   * @param together a smallest number of statements that cannot hold together
   * @param waysOut the smallest sets of statements to give up, each of which is enough
   * @param smallest whether both are known to be the smallest; false when the time was up
   */
  record None(List<Statement> together, List<List<Statement>> waysOut, boolean smallest)
      implements ChoiceAnswer {}

  /** A mod is wished for that has several variants, none of which is meant by itself. */
  record WhichVariant(String mod, List<String> variants) implements ChoiceAnswer {}

  /** What becomes of a mod of the set. */
  enum Becomes {
    STAYS,
    SWITCHED_ON,
    CHANGED,
    FETCHED
  }

  /**
   * A mod that is on afterwards.
   *
   * @param from what was on before or lies here in another version; empty where nothing does
   * @param path from a wish to this mod, both with it, each needing the next; empty where no wish
   *     needs it
   * @param because where no wish needs it: what would not hold if it stayed as it was
   */
  record Member(
      Candidate candidate,
      Becomes becomes,
      Optional<Candidate> from,
      List<String> path,
      Optional<Statement> because) {}

  /**
   * A mod that has to go off.
   *
   * @param because what would not hold if it stayed; empty where the time was up before this was
   *     known to be needed
   */
  record GoesOff(Candidate candidate, Optional<Statement> because) {}
}
