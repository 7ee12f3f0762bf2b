package ironing.core.deploy;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Found;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Looks at a real game folder, and the places beside it, for a plan.
 *
 * <p>One is for one plan: what a folder holds is asked for once.
 *
 * <p>Cost: one question to the file system a folder, and one a path that is laid out; with {@link
 * Depth#THOROUGH} one pass over the bytes of what is laid out, with {@link Depth#QUICK} over those
 * whose stamp is another.
 *
 * <p>Threads: any.
 */
public final class FolderLook implements DeployPlan.Look {
  /** How far what the note says is believed. */
  public enum Depth {
    /** What is laid out is believed to be there. */
    TRUSTING,
    /** A file of the same size, time and inode is believed to be the same. */
    QUICK,
    /** Every byte is read. */
    THOROUGH
  }

  private final GameRoots roots;
  private final Depth depth;
  private final Map<String, Optional<Set<String>>> held = new ConcurrentHashMap<>();

  /** Looks into these folders, believing what was noted as far as the depth says. */
  public FolderLook(GameRoots roots, Depth depth) {
    this.roots = roots;
    this.depth = depth;
  }

  @Override
  public Found at(String path, Optional<LaidOut.Item> item) {
    if (depth == Depth.TRUSTING && item.isPresent()) return Found.AS_LAID_OUT;
    if (item.isEmpty() && isGone(path)) return Found.ABSENT;
    Path place = roots.at(path);
    try {
      BasicFileAttributes a =
          Files.readAttributes(place, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
      if (item.isEmpty()) return Found.FOREIGN;
      if (!a.isRegularFile() || a.size() != item.get().sizeBytes()) return Found.DRIFTED;
      boolean known = item.get().stamp().filter(s -> s.equals(Stamps.of(a))).isPresent();
      if (known && depth == Depth.QUICK) return Found.AS_LAID_OUT;
      boolean same = ContentHash.of(place).equals(item.get().sha256());
      return same ? Found.AS_LAID_OUT : Found.DRIFTED;
    } catch (NoSuchFileException gone) {
      return Found.ABSENT;
    } catch (IOException e) {
      // a file where a folder of the path should be
      if (!Files.exists(place, LinkOption.NOFOLLOW_LINKS)) return Found.ABSENT;
      throw DiskTrouble.of(roots, e);
    }
  }

  // of thousands of paths in a folder most are not there, and to be told so one by one costs more
  private boolean isGone(String path) {
    return held.computeIfAbsent(GamePath.folder(path), this::names)
        .filter(names -> !names.contains(GamePath.name(path)))
        .isPresent();
  }

  /** What a folder holds; empty where that cannot be told. */
  private Optional<Set<String>> names(String of) {
    Path place = roots.at(of);
    try (DirectoryStream<Path> all = Files.newDirectoryStream(place)) {
      Set<String> names = new HashSet<>();
      for (Path p : all) names.add(p.getFileName().toString());
      return Optional.of(names);
    } catch (NoSuchFileException gone) {
      return Optional.of(Set.of());
    } catch (IOException | DirectoryIteratorException untold) {
      return Optional.empty();
    }
  }

  @Override
  public String sha256(String path) {
    Path place = roots.at(path);
    if (Files.isDirectory(place, LinkOption.NOFOLLOW_LINKS))
      throw DiskTrouble.folderInTheWay(place);
    try {
      return ContentHash.of(place);
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }
}
