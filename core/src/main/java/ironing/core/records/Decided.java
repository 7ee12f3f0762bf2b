package ironing.core.records;

/**
 * A decision as it is kept.
 *
 * @param seen what the sides said there when the user decided, as {@link Combiner#seen} gives it;
 *     when they say something else since, the decision is asked for again. Empty where nobody noted
 *     it: then it holds whatever they say
 */
public record Decided(Decision decision, String seen) {
  public static Decided of(Decision decision) {
    return new Decided(decision, "");
  }

  /** One that takes what a plugin has. */
  public static Decided take(String plugin) {
    return of(new Decision.Take(plugin));
  }

  /** One with a value of the user's own, in its text form. */
  public static Decided own(String text) {
    return of(new Decision.Own(text));
  }
}
