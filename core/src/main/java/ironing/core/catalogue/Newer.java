package ironing.core.catalogue;

import ironing.core.catalogue.OfferedMod.Change;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.version.ModVersion;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * What is newer than a release that somebody has.
 *
 * @param newest what everybody should take of that variant
 * @param between all that came since, the newest first; that one is the first of them
 * @param change the most that any of them changes; unknown where one does not say, unless another
 *     is large
 */
public record Newer(Release newest, List<Release> between, Change change) {

  /**
   * Finds what is newer; empty where nothing is. Releases that are old, withdrawn or of another
   * variant are none. Of two with one version the first counts.
   *
   * <p>Cost: linear in the releases but for sorting those that are newer.
   */
  public static Optional<Newer> than(
      ModVersion here, String variant, Collection<Release> releases) {
    Set<ModVersion> seen = new HashSet<>();
    List<Release> between =
        releases.stream()
            .filter(r -> r.kind() == Kind.MAIN && r.withdrawn().isEmpty())
            .filter(r -> r.variant().equals(variant) && r.version().compareTo(here) > 0)
            .filter(r -> seen.add(r.version()))
            .sorted(Comparator.comparing(Release::version).reversed())
            .toList();
    if (between.isEmpty()) return Optional.empty();
    return Optional.of(new Newer(between.get(0), between, most(between)));
  }

  private static Change most(List<Release> all) {
    Set<Change> said = new HashSet<>();
    all.forEach(r -> said.add(r.change()));
    for (Change c : List.of(Change.LARGE, Change.UNKNOWN, Change.FEATURE))
      if (said.contains(c)) return c;
    return Change.FIX;
  }
}
