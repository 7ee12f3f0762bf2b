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
 * Goes through what some patterns of game paths may mean, however the folders are spelled. Links
 * are told and not followed; what cannot be a game path is passed over.
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
     * @param path a game path; it may be none that a pattern matches
     */
    void file(String path, Path place, BasicFileAttributes attributes) throws IOException;
  }

  /** Through the game folder, and the places that patterns name. */
  public void files(GameRoots roots, Visitor visitor) throws IOException {
    for (String top : roots.tops()) files(roots, top, roots.at(top), visitor);
  }

  /**
   * @param top of {@link GameRoots#tops}: what the paths are told with
   * @param root a folder; one that is not there has no files
   */
  public void files(GameRoots roots, String top, Path root, Visitor visitor) throws IOException {
    if (!leads(top)) return;
    Files.walkFileTree(
        root,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult preVisitDirectory(Path at, BasicFileAttributes a) {
            return at.equals(root) || leads(path(roots, top, root, at))
                ? FileVisitResult.CONTINUE
                : FileVisitResult.SKIP_SUBTREE;
          }

          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes a) throws IOException {
            String path = path(roots, top, root, file);
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

  private static String path(GameRoots roots, String top, Path root, Path path) {
    return roots.path(top, GamePath.of(root.relativize(path)));
  }

  private static boolean onTheWay(String folder, String below) {
    return folder.isEmpty()
        || below.isEmpty()
        || below.equals(folder)
        || below.startsWith(folder + "/")
        || folder.startsWith(below + "/");
  }
}
