package ironing.core.choice;

import ironing.core.catalogue.OfferedMod.Clash;
import ironing.core.catalogue.OfferedMod.Need;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.List;

/**
 * A release of a mod that can be on: one that is in the library, or one that can be fetched.
 *
 * @param key tells it from all other candidates of its mod
 * @param variant releases of other variants are no updates of each other; empty is the plain one
 * @param old kept for those who need it
 * @param withdrawn whether its author says that nobody should take it any more
 * @param game the versions of the game that it is for
 * @param harmless whether no version of the game can break it: then {@code game} does not count
 * @param bridges what has to be on for it to be right
 */
public record Candidate(
    String mod,
    String key,
    ModVersion version,
    String variant,
    Where where,
    boolean old,
    boolean withdrawn,
    VersionRange game,
    boolean harmless,
    List<Need> needs,
    List<Clash> clashes,
    List<Need> bridges) {

  /** Where a candidate is now. */
  public enum Where {
    ON,
    OFF,
    TO_FETCH
  }

  /** Mod and key tell one candidate from all others. */
  @Override
  public boolean equals(Object o) {
    return o instanceof Candidate c && c.mod.equals(mod) && c.key.equals(key);
  }

  @Override
  public int hashCode() {
    return 31 * mod.hashCode() + key.hashCode();
  }

  public boolean isHere() {
    return where != Where.TO_FETCH;
  }
}
