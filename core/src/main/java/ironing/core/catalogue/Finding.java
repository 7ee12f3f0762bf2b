package ironing.core.catalogue;

import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;

/**
 * What somebody has found out about a mod, alone or with others.
 *
 * @param game the versions of the game that it was found with; empty for any
 * @param with mods that have to be on for it
 * @param says in a sentence; may be empty
 * @param at the day, as 2026-11-29
 * @param by who says so; empty where it is not signed
 */
public record Finding(
    String mod,
    VersionRange versions,
    Optional<VersionRange> game,
    List<With> with,
    Verdict verdict,
    String says,
    String at,
    String by) {

  /** What comes of it. */
  public enum Verdict {
    WORKS,
    WORKS_WITH_CARE,
    BROKEN
  }

  /** A mod that has to be on too. */
  public record With(String mod, VersionRange versions) {}

  /**
   * A set that findings may speak of.
   *
   * @param on by id, the version that is on
   * @param game the game's version, where it is known
   */
  public record OfSet(Map<String, ModVersion> on, Optional<ModVersion> game) {
    private boolean has(String mod, VersionRange versions) {
      ModVersion v = on.get(mod);
      return v != null && versions.contains(v);
    }
  }

  /** Whether it speaks of a set: all that it names is there, in range. */
  public boolean speaksOf(OfSet set) {
    return set.has(mod, versions)
        && game.map(range -> set.game.map(range::contains).orElse(false)).orElse(true)
        && with.stream().allMatch(w -> set.has(w.mod, w.versions));
  }

  /**
   * Those that count: of one person about one mod with the same others, the newest; on one day the
   * later one of the list. All that are not signed count.
   */
  public static List<Finding> counting(List<Finding> all) {
    Map<List<Object>, Finding> newest = new HashMap<>();
    for (Finding f : all)
      if (!f.by.isEmpty()) newest.merge(f.person(), f, (a, b) -> b.at.compareTo(a.at) >= 0 ? b : a);
    return all.stream().filter(f -> f.by.isEmpty() || f.is(newest.get(f.person()))).toList();
  }

  @SuppressWarnings("ReferenceEquality")
  private boolean is(Finding other) {
    return this == other;
  }

  private List<Object> person() {
    TreeSet<String> others = new TreeSet<>();
    for (With w : with) others.add(w.mod + " " + w.versions);
    return List.of(by, mod, others);
  }
}
