package ironing.core.workspace;

import ironing.core.library.ModCard;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;

/**
 * An installed mod.
 *
 * @param strand all versions and fittings of one mod share it; one of them has the layer
 * @param kind archive, or what kind of mend it is
 * @param folder where its content lies in the library
 * @param files loose ones
 * @param plugins file names of the plugins that it brings
 * @param edited game path of a file that was edited here to where it lies below the folder
 */
public record Mod(
    long id,
    long strand,
    String kind,
    String folder,
    ModCard card,
    String archiveName,
    OffsetDateTime installedAt,
    int files,
    long sizeBytes,
    List<String> plugins,
    Map<String, String> edited) {
  /** Whether it is a plugin with the combined records of others. */
  public boolean isPatch() {
    return kind.equals("patch");
  }

  /** Whether it was generated from other mods. */
  public boolean isMend() {
    return !kind.equals("archive");
  }
}
