package ironing.core.deploy;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Found;
import ironing.core.path.GamePath;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Optional;

/**
 * Looks at a real folder for a plan. Compares sizes first and reads only where they agree.
 *
 * <p>Cost: one stat a path, and one pass over the bytes of what is laid out.
 */
final class FolderLook implements DeployPlan.Look {
  private final Path folder;

  FolderLook(Path folder) {
    this.folder = folder;
  }

  @Override
  public Found at(String path, Optional<LaidOut.Item> item) {
    Path place = GamePath.resolve(folder, path);
    if (!Files.exists(place, LinkOption.NOFOLLOW_LINKS)) return Found.ABSENT;
    if (item.isEmpty()) return Found.FOREIGN;
    try {
      if (!Files.isRegularFile(place, LinkOption.NOFOLLOW_LINKS)) return Found.DRIFTED;
      if (Files.size(place) != item.get().sizeBytes()) return Found.DRIFTED;
      boolean same = ContentHash.of(place).equals(item.get().sha256());
      return same ? Found.AS_LAID_OUT : Found.DRIFTED;
    } catch (IOException e) {
      throw DiskTrouble.of(folder, e);
    }
  }

  @Override
  public String sha256(String path) {
    Path place = GamePath.resolve(folder, path);
    if (Files.isDirectory(place, LinkOption.NOFOLLOW_LINKS))
      throw DiskTrouble.folderInTheWay(place);
    try {
      return ContentHash.of(place);
    } catch (IOException e) {
      throw DiskTrouble.of(folder, e);
    }
  }
}
