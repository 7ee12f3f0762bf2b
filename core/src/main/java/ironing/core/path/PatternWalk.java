package ironing.core.path;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.List;

/**
 * Goes through what some patterns may mean of a folder, however its folders are spelled. Links are
 * told and not followed; what cannot be a game path is passed over.
 *
 * <p>Cost: only folders in which a match can lie are entered.
 */
public final class PatternWalk {
  private final List<String> below;
  private final PathCase pathCase;

  public PatternWalk(List<PathPattern> patterns, PathCase pathCase) {
    this.below = patterns.stream().map(PathPattern::below).map(pathCase::key).distinct().toList();
    this.pathCase = pathCase;
  }

  /** What is done with each file, and with each link. */
  public interface Visitor {
    /**
     * @param path from the folder on, with slashes; it may be none that a pattern matches
     */
    void file(String path, Path place, BasicFileAttributes attributes) throws IOException;
  }

  /**
   * @param root a folder; one that is not there has no files
   */
  public void files(Path root, Visitor visitor) throws IOException {
    Files.walkFileTree(
        root,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult preVisitDirectory(Path at, BasicFileAttributes a) {
            return leads(relative(root, at))
                ? FileVisitResult.CONTINUE
                : FileVisitResult.SKIP_SUBTREE;
          }

          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes a) throws IOException {
            String path = relative(root, file);
            if (GamePath.whyUnsafe(path) == null) visitor.file(path, file, a);
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult visitFileFailed(Path file, IOException e) throws IOException {
            if (e instanceof NoSuchFileException) return FileVisitResult.CONTINUE;
            throw e;
          }
        });
  }

  /** Whether what a pattern means can lie in or below a folder. */
  public boolean leads(String folder) {
    String key = pathCase.key(folder);
    return below.stream().anyMatch(b -> onTheWay(key, b));
  }

  private static String relative(Path root, Path path) {
    return GamePath.of(root.relativize(path));
  }

  private static boolean onTheWay(String folder, String below) {
    return folder.isEmpty()
        || below.isEmpty()
        || below.equals(folder)
        || below.startsWith(folder + "/")
        || folder.startsWith(below + "/");
  }
}
