package ironing.core.mends;

import ironing.core.path.PathCase;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/**
 * Which records a patch is for. Of several patches the narrowest has a record: one that names it
 * before one for its plugins, and that before one for the whole profile.
 *
 * @param kind how wide it is
 * @param names record keys or file names of plugins; none for the whole profile
 */
public record PatchScope(Kind kind, Set<String> names) {
  /** From the narrowest to the widest. */
  public enum Kind {
    RECORDS,
    PLUGINS,
    PROFILE
  }

  public static final PatchScope PROFILE = new PatchScope(Kind.PROFILE, Set.of());

  public PatchScope {
    // a set that is written and read again is the same
    Set<String> sorted = new TreeSet<>();
    for (String n : names) sorted.add(PathCase.fold(n));
    names = sorted;
  }

  public static PatchScope of(Kind kind, Collection<String> names) {
    return new PatchScope(kind, Set.copyOf(names));
  }

  /**
   * Whether it is for a record.
   *
   * @param leaves the plugins whose versions of it count
   */
  public boolean has(String key, List<String> leaves) {
    return switch (kind) {
      case PROFILE -> true;
      case RECORDS -> names.contains(PathCase.fold(key));
      case PLUGINS -> leaves.stream().allMatch(l -> names.contains(PathCase.fold(l)));
    };
  }
}
