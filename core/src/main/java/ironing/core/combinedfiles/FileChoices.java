package ironing.core.combinedfiles;

import java.util.Collections;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What the user says of one file that several mods change. Immutable.
 *
 * @param base the id of the version that each is measured against; empty where the user leaves that
 *     to what is known
 * @param places by the keys of places
 */
public record FileChoices(Optional<String> base, Map<String, Choice> places) {
  public static final FileChoices NONE = new FileChoices(Optional.empty(), Map.of());

  public FileChoices {
    places = Collections.unmodifiableMap(new TreeMap<>(places));
  }

  public boolean isEmpty() {
    return base.isEmpty() && places.isEmpty();
  }

  public FileChoices withBase(Optional<String> base) {
    return new FileChoices(base, places);
  }

  /**
   * @param choice empty to have the place asked again
   */
  public FileChoices with(String place, Optional<Choice> choice) {
    Map<String, Choice> next = new TreeMap<>(places);
    choice.ifPresentOrElse(c -> next.put(place, c), () -> next.remove(place));
    return new FileChoices(base, next);
  }
}
