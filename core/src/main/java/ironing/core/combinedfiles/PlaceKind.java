package ironing.core.combinedfiles;

/** In which way those who changed a place of a file differ there. */
public enum PlaceKind {
  /** Both have changed what the base has. */
  CHANGED,
  /** Both have put something where the base has nothing. */
  ADDED,
  /** One has removed or emptied what another has changed. */
  REMOVED,
  /** All have the same, which is not what the game has. */
  ALIKE,
  /** A name would stand twice that may stand only once. */
  TWICE;

  public static PlaceKind of(Place place) {
    if (place.once()) return TWICE;
    if (place.sides().size() == 1) return ALIKE;
    if (place.base().isEmpty()) return ADDED;
    return place.sides().stream().anyMatch(s -> s.text().orElse("").isEmpty()) ? REMOVED : CHANGED;
  }
}
