package ironing.core.catalogue;

import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.List;
import java.util.Optional;

/**
 * One mod of a catalogue, as one line of a part says.
 *
 * @param mod the id that cards have too
 * @param game the id of the game that it is for
 * @param page where its author tells of it; empty where the line names none
 * @param requests what its author asks of those who hand on work made from it
 * @param releases in the order of the line
 */
public record OfferedMod(
    String mod,
    String name,
    String game,
    String summary,
    List<String> tags,
    List<String> authors,
    String page,
    String requests,
    List<Release> releases) {

  /** Whether a release is for everybody, or kept for those who need it. */
  public enum Kind {
    MAIN,
    OLD
  }

  /** How much a release changes, as its author says. */
  public enum Change {
    FIX,
    FEATURE,
    LARGE,
    UNKNOWN
  }

  /**
   * One version of a mod.
   *
   * @param at the day that it came out; empty where the line names none
   * @param variant releases of other variants are no updates of each other; empty is the plain one
   * @param game the versions of the game that it is for
   * @param harmless whether no version of the game can break it, as its author says
   * @param bridges only right where all of these are on
   * @param changes what is new in it, as Markdown
   * @param withdrawn why nobody should take it any more; empty where it stands
   */
  public record Release(
      ModVersion version,
      String at,
      Kind kind,
      String variant,
      String title,
      OfferedFile file,
      VersionRange game,
      boolean harmless,
      List<Need> needs,
      List<Clash> clashes,
      List<Need> bridges,
      Change change,
      String changes,
      String withdrawn) {}

  /**
   * The archive of a release.
   *
   * @param name a file's name, without folders
   * @param href where it lies: relative to the catalogue, or absolute
   * @param size in bytes
   * @param sha256 64 lower-case hexadecimal digits
   */
  public record OfferedFile(String name, String href, long size, String sha256) {}

  /**
   * A mod that has to be on.
   *
   * @param variant the one that it has to be of; empty where any will do, a present empty text is
   *     the plain one
   */
  public record Need(String mod, VersionRange versions, Optional<String> variant) {}

  /** A mod that must not be on in these versions. */
  public record Clash(String mod, VersionRange versions, String why) {}
}
