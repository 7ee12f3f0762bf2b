package ironing.core.deploy;

import ironing.core.IroningException;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileStore;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.stream.Stream;

/** What a failing disk means, in words: which place, why, and what to do. */
public final class DiskTrouble {
  /** With less a drive has no room for any file. */
  private static final long NO_ROOM_BYTES = 16_384;

  private DiskTrouble() {}

  /**
   * Whether a drive refused for want of room. The drive itself is asked, since the system's words
   * depend on its language. Where they are English, a quota that is used up and a drive without
   * room for more names are known by them too.
   *
   * @param place on the drive; it need not be there
   */
  public static boolean isFull(Path place, IOException e) {
    String text = String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT);
    if (text.contains("no space left") || text.contains("disk quota")) return true;
    boolean otherwise =
        e instanceof AccessDeniedException
            || e instanceof NoSuchFileException
            || e instanceof FileAlreadyExistsException;
    if (otherwise) return false;
    try {
      Path there = place.toAbsolutePath();
      while (there.getParent() != null && !Files.exists(there)) there = there.getParent();
      FileStore drive = Files.getFileStore(there);
      return drive.getTotalSpace() > 0 && drive.getUsableSpace() < NO_ROOM_BYTES;
    } catch (IOException untold) {
      return false;
    }
  }

  /** What to tell of a failure in a game folder, or in a place beside it. */
  public static IroningException of(GameRoots roots, IOException e) {
    String file = e instanceof FileSystemException f ? f.getFile() : null;
    if (file != null) {
      Path at = Path.of(file);
      for (Path place : roots.places().values()) if (at.startsWith(place)) return of(place, e);
    }
    return of(roots.folder(), e);
  }

  /** What to tell of a failure in a game folder. */
  public static IroningException of(Path folder, IOException e) {
    String thing = e instanceof FileSystemException f ? place(folder, f) : folder.toString();
    String text = String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT);
    if (isFull(folder, e)) {
      return IroningException.of(
          "disk-full",
          thing,
          "There is no space left on this drive; the game folder is as it was.",
          "Free some space there and deploy again.",
          e);
    }
    if (e instanceof AccessDeniedException
        || text.contains("read-only")
        || text.contains("permission denied")) {
      return IroningException.of(
          "game-folder-refused",
          thing,
          "This place may not be written to; the game folder is as it was.",
          "Give yourself the right to write there, or move the game out of a protected place, and deploy again.",
          e);
    }
    return IroningException.of(
        "game-folder-failed",
        thing,
        "The disk refused: " + e.getMessage() + ".",
        "See that the drive is connected and sound, then try again; an unfinished change is finished or taken back first.",
        e);
  }

  // a copy or a move that fails names both ends: the user knows the one in the game folder
  private static String place(Path folder, FileSystemException e) {
    List<Path> inGame =
        Stream.of(e.getOtherFile(), e.getFile())
            .filter(Objects::nonNull)
            .map(Path::of)
            .filter(f -> f.startsWith(folder))
            .toList();
    if (inGame.isEmpty() && e.getFile() != null) return e.getFile();
    return inGame.stream()
        .filter(f -> !f.startsWith(folder.resolve(Deployer.HOME)))
        .findFirst()
        .orElse(folder)
        .toString();
  }

  static IroningException folderInTheWay(Path place) {
    return IroningException.of(
        "folder-in-the-way",
        place.toString(),
        "A folder lies where a file is to go.",
        "Move the folder away, then deploy again.");
  }

  static IroningException leadsOutside(Path place) {
    return IroningException.of(
        "game-folder-leads-outside",
        place.toString(),
        "A link in the game folder leads outside of it; nothing is written through links.",
        "Put a real folder there, or choose the folder that the link leads to as the game’s.");
  }
}
