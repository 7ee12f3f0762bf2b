package ironing.core.choice;

import ironing.core.version.ModVersion;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What is asked: a set of mods that shall be on, or whatever is missing, in a profile as it is.
 *
 * @param game the game's version; empty where it is not known, and then all ranges hold
 * @param defaultVariants by mod, the variant that is meant where nobody says one
 * @param wishes in the order in which they were named
 * @param missing whether all needs of what is on are to be met, and nothing is to go off
 * @param givenUp what does not have to hold any more
 */
public record ChoiceQuestion(
    Offers offers,
    Optional<ModVersion> game,
    Map<String, String> defaultVariants,
    List<Wish> wishes,
    boolean missing,
    Set<Statement> givenUp) {

  /** All that can be on, by mod. */
  public interface Offers {
    /**
     * The candidates of some mods: those of the library, and of the releases that are offered those
     * that are not in the library.
     */
    Map<String, List<Candidate>> of(Collection<String> mods);

    /** What is on, at most one candidate for each mod. */
    Collection<Candidate> on();
  }

  /**
   * A mod that shall be on.
   *
   * @param variant the one that is wished for; empty where nobody said one
   * @param key the very release; empty where the newest that works will do
   */
  public record Wish(String mod, Optional<String> variant, Optional<String> key) {
    Statement statement() {
      return new Statement(Statement.Kind.WISH, mod, mod, key.orElse(""), variant);
    }
  }
}
