package ironing.core.combinedfiles;

import java.util.List;
import java.util.Optional;

/**
 * What the user wants at one place.
 *
 * @param take whose version, by id; several one behind another, in this order; none for what the
 *     base has
 * @param text what was typed in instead
 */
public record Choice(List<String> take, Optional<String> text) {
  public Choice {
    take = List.copyOf(take);
  }

  public static Choice of(String... take) {
    return new Choice(List.of(take), Optional.empty());
  }

  public static Choice typed(String text) {
    return new Choice(List.of(), Optional.of(text));
  }
}
