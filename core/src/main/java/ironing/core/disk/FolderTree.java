package ironing.core.disk;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** A folder with all that lies below it. */
public final class FolderTree {
  private FolderTree() {}

  /**
   * Removes a folder with all in it, or a file. Links are removed and never followed; what is gone
   * already is no error. Cost: a question for each file, several folders side by side.
   *
   * @throws IOException when something cannot be removed; some of it may be gone then
   */
  public static void remove(Path folder) throws IOException {
    try {
      removeStubborn(folder);
    } catch (UncheckedIOException e) {
      throw e.getCause();
    }
  }

  private static void removeAll(Path folder) throws IOException {
    List<Path> folders = new ArrayList<>();
    // one question each, and none beforehand what it is: a folder that is not empty stays
    for (Path p : entries(folder)) if (!p.toFile().delete()) folders.add(p);
    folders.parallelStream().forEach(FolderTree::removeStubborn);
    Files.deleteIfExists(folder);
  }

  private static void removeStubborn(Path p) {
    try {
      if (Files.isDirectory(p, LinkOption.NOFOLLOW_LINKS)) removeAll(p);
      else Files.deleteIfExists(p);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static List<Path> entries(Path folder) throws IOException {
    List<Path> all = new ArrayList<>();
    try (DirectoryStream<Path> entries = Files.newDirectoryStream(folder)) {
      entries.forEach(all::add);
    } catch (NoSuchFileException | NotDirectoryException gone) {
      return List.of();
    } catch (DirectoryIteratorException e) {
      throw e.getCause();
    }
    return all;
  }
}
