package ironing.core.choice;

import java.util.Comparator;
import java.util.Optional;

/**
 * One sentence that has to hold: a wish of the user's, or what a mod says of itself. However many
 * releases of a mod say the same, it is one statement, which can be given up.
 *
 * @param owner the mod that says it; of a wish, the mod that is wished for
 * @param target the mod that it speaks of; empty where it speaks of the game
 * @param versions the range that it speaks of, as written; of a wish, the key of the release that
 *     is wished for, or empty
 * @param variant of what is needed or wished for; empty where any will do
 */
public record Statement(
    Kind kind, String owner, String target, String versions, Optional<String> variant)
    implements Comparable<Statement> {
  private static final Comparator<Statement> ORDER =
      Comparator.comparing(Statement::kind)
          .thenComparing(Statement::owner)
          .thenComparing(Statement::target)
          .thenComparing(Statement::versions)
          .thenComparing(s -> s.variant().map(v -> " " + v).orElse(""));

  /** What a statement says, in the order in which it is rather given up. */
  public enum Kind {
    WISH,
    CLASH,
    GAME,
    BRIDGE,
    NEED
  }

  @Override
  public int compareTo(Statement o) {
    return ORDER.compare(this, o);
  }
}
