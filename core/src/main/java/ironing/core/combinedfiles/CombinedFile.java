package ironing.core.combinedfiles;

import ironing.core.combinedfiles.Place.How;
import ironing.core.game.CombineWay;
import java.util.List;
import java.util.Optional;

/**
 * What combining the versions of one file came to.
 *
 * @param way as which it was combined: the definition's, or text where a version does not parse
 * @param outcome the bytes; empty while something is asked, or where it cannot be combined
 * @param shown the outcome as text; what is still asked stands as the layers alone would give it
 * @param places every place that somebody changed, in the order of the file
 * @param pieces where each stretch of {@code shown} comes from; of text only
 * @param remarks what else there is to know, such as why it cannot be combined
 */
public record CombinedFile(
    CombineWay way,
    Optional<byte[]> outcome,
    String shown,
    List<Place> places,
    List<Piece> pieces,
    List<Remark> remarks) {
  /**
   * A stretch of the outcome.
   *
   * @param of whose it is; none for the base, and for what was typed in
   * @param place the number of its place; -1 where nobody changed it
   */
  public record Piece(String text, List<String> of, int place) {}

  /** How many places wait for the user. */
  public int asked() {
    return (int) places.stream().filter(p -> p.how() == How.ASKED).count();
  }

  /** Whether there is an outcome or a question at all. */
  public boolean possible() {
    return outcome.isPresent() || asked() > 0;
  }
}
