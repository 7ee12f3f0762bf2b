package ironing.core.deploy;

import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.function.Predicate;

/**
 * Goes through what lies below a folder, and tells what is not known.
 *
 * <p>Cost: one question to the file system a folder, and one for each file that is not known, or
 * for each where it has to be sure.
 */
final class FolderWalk {
  private final Disk disk;
  private final GameRoots roots;
  private final Predicate<String> isFile;
  private final Predicate<String> isFolder;
  private final boolean sure;

  /**
   * @param isFile whether a path, as it is told below, is that of a known file
   * @param isFolder whether it is that of a known folder
   * @param sure whether each known file is asked for whether it is a folder by now
   */
  FolderWalk(
      Disk disk,
      GameRoots roots,
      Predicate<String> isFile,
      Predicate<String> isFolder,
      boolean sure) {
    this.sure = sure;
    this.disk = disk;
    this.roots = roots;
    this.isFile = isFile;
    this.isFolder = isFolder;
  }

  /** Somebody else’s. */
  interface Stranger {
    /**
     * @param path as it is told
     */
    void found(String path, Path place, boolean folder) throws IOException;
  }

  /**
   * Tells each stranger below a folder, and what lies in strange folders one by one.
   *
   * @param lies the folder, as a game path
   * @param told what it is called in what is told; a file in its place is a stranger
   */
  void strangers(String lies, String told, Stranger stranger) throws IOException {
    strangers(roots.at(lies), told, stranger);
  }

  // the names of strangers may be none that a game path can have
  private void strangers(Path place, String told, Stranger stranger) throws IOException {
    Iterable<String> names;
    try {
      names = disk.entries(place);
    } catch (NotDirectoryException file) {
      stranger.found(told, place, false);
      return;
    }
    for (String name : names) {
      String path = told + "/" + name;
      Path child = place.resolve(name);
      if (isFile.test(path) && !(sure && isFolder(child))) continue;
      if (!isFolder.test(path)) {
        boolean folder = isFolder(child);
        stranger.found(path, child, folder);
        if (!folder) continue;
      }
      strangers(child, path, stranger);
    }
  }

  private static boolean isFolder(Path p) {
    return Files.isDirectory(p, LinkOption.NOFOLLOW_LINKS);
  }
}
