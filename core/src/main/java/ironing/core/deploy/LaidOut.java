package ironing.core.deploy;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What is deployed in a game folder: {@code .ironing/laid-out.json} with the changes since. It is
 * enough to take everything out again with no database at hand.
 *
 * @param at when it was deployed, RFC 3339
 * @param files by the path on disk, in path order
 * @param folders that deploying made, and that go when they are empty
 * @param profile the number of the profile whose settings files lie there; empty where none was
 *     said
 * @param owner the workspace that deployed it; empty in notes of earlier versions
 */
public record LaidOut(
    String at,
    Map<String, Item> files,
    List<String> folders,
    Optional<Long> profile,
    Optional<String> owner) {
  public static final String FORMAT = "ironing/laid-out@1";
  private static final LaidOut NOTHING = new LaidOut("", Map.of(), List.of(), Optional.empty());

  /** How a file got there. */
  public enum How {
    LINK,
    COPY
  }

  /**
   * @param from the mod, in words for people; for the plugin list "Ironing"
   * @param mod its number in the library, 0 for none
   * @param replaced the SHA-256 of the original that is kept, empty when nothing was there
   * @param stamp how the disk had it then; empty in notes of earlier versions
   */
  public record Item(
      String path,
      String sha256,
      long sizeBytes,
      long mod,
      String from,
      How how,
      Optional<String> replaced,
      Optional<Stamp> stamp) {
    public Item(
        String path,
        String sha256,
        long sizeBytes,
        long mod,
        String from,
        How how,
        Optional<String> replaced) {
      this(path, sha256, sizeBytes, mod, from, how, replaced, Optional.empty());
    }

    /** The same, put there in this way. */
    Item put(How how, Stamp stamp) {
      return new Item(path, sha256, sizeBytes, mod, from, how, replaced, Optional.of(stamp));
    }
  }

  /**
   * By what a file is known again without reading it, beside its size.
   *
   * @param modifiedNanos since 1970
   * @param inode its number on the drive; 0 where a drive numbers none
   */
  public record Stamp(long modifiedNanos, long inode) {}

  /** One of which nobody says whose it is. */
  public LaidOut(String at, Map<String, Item> files, List<String> folders, Optional<Long> profile) {
    this(at, files, folders, profile, Optional.empty());
  }

  /** The same, deployed by that workspace. */
  LaidOut by(Optional<String> owner) {
    return new LaidOut(at, files, folders, profile, owner);
  }

  public LaidOut {
    files = Items.of(files);
    folders = List.copyOf(folders);
  }

  public static LaidOut nothing() {
    return NOTHING;
  }
}
