package ironing.core.deploy;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/**
 * The few things that deploying does to a disk, so that tests can fail or crash each of them. Not
 * for reading the library or a game: nothing here follows links or walks trees.
 */
public interface Disk {
  boolean exists(Path path);

  /** Whether a folder that is there lies inside a root once all links are followed. */
  boolean isInside(Path root, Path folder) throws IOException;

  byte[] read(Path file) throws IOException;

  /** By what a file is known again; a link in its place is not followed. */
  LaidOut.Stamp stamp(Path file) throws IOException;

  /** Writes a file whole and flushes it. */
  void write(Path file, byte[] bytes) throws IOException;

  /**
   * Marks bytes of a file and adds to its end, and flushes it. Not atomic: for what is made anew
   * after a crash.
   *
   * @param marks where a {@code #} is written
   */
  void amend(Path file, List<Long> marks, byte[] tail) throws IOException;

  /**
   * Makes a folder and those above it, as far as they are not there.
   *
   * @param root is never made: whoever moved it away does not find another in its place
   * @param folder in it
   */
  void createBelow(Path root, Path folder) throws IOException;

  /** Makes a folder and all those above it, as far as they are not there. */
  void createFolders(Path folder) throws IOException;

  /**
   * A hard link, where the file system allows one. False where it does not, and nothing was done.
   *
   * @throws IOException when the place is taken, or the disk refuses for another reason
   */
  boolean link(Path source, Path target) throws IOException;

  /** Not flushed: {@link #flushTree} does that once for many. */
  void copy(Path source, Path target) throws IOException;

  /** Renames within one file system, atomically. */
  void move(Path from, Path to) throws IOException;

  void deleteIfThere(Path file) throws IOException;

  /** Removes a folder when it is empty; otherwise leaves it. */
  void deleteFolderIfEmpty(Path folder) throws IOException;

  /** Flushes a folder's entries, so that what was moved there stays moved after a power cut. */
  void flushFolder(Path folder) throws IOException;

  /**
   * Flushes all files and folders below a folder. One flush of its file system: thousands of single
   * ones would cost more than the work.
   */
  void flushTree(Path folder) throws IOException;

  /**
   * The names of what lies in a folder, in no order. Empty when it is not there.
   *
   * @throws java.nio.file.NotDirectoryException when something else, or a link, is in its place
   */
  List<String> entries(Path folder) throws IOException;

  /** Removes a folder with all that is below it; nothing where it is not there. */
  void removeTree(Path folder) throws IOException;

  /**
   * Everything below a folder, deepest first, the folder itself last. Empty when it is not there.
   */
  List<Path> below(Path folder) throws IOException;
}
