package ironing.core.deploy;

import ironing.core.IroningException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import java.util.concurrent.ThreadLocalRandom;

/**
 * One program at a time that changes a game folder, whatever database it belongs to. The lock goes
 * with the process, however that ends; its file may stay behind then, and means nothing.
 *
 * <p>Threads: one lock, one thread at a time.
 */
public final class FolderLock implements AutoCloseable {
  private static final String FILE = "in-use";
  private static final int TRIES = 20;
  private static final long LONGEST = 1 << 20;
  private final Path file;
  private final FileChannel channel;

  private FolderLock(Path file, FileChannel channel) {
    this.file = file;
    this.channel = channel;
  }

  /** What became of asking for a folder. */
  public enum Asked {
    TAKEN,
    /** Another program has it. */
    HELD,
    /** No file can be made there: neither can anything be changed. */
    CANNOT_BE
  }

  /**
   * @param lock there where it was taken
   */
  public record Answer(Asked asked, Optional<FolderLock> lock) {}

  /**
   * Takes the folder of a game; nothing where no file can be made there.
   *
   * @throws IroningException with code {@code busy} where another program has it
   */
  public static Optional<FolderLock> take(Path gameFolder) {
    Answer answer = ask(gameFolder);
    if (answer.asked() != Asked.HELD) return answer.lock();
    throw IroningException.of(
        "busy",
        gameFolder.toString(),
        "Another Ironing uses this folder.",
        "Wait until it has done, or end it.");
  }

  /** Asks for the folder of a game, once. */
  public static Answer ask(Path gameFolder) {
    Path home = gameFolder.resolve(Deployer.HOME);
    Path file = home.resolve(FILE);
    try {
      for (int i = 0; i < TRIES; i++) {
        if (Files.isSymbolicLink(home) || Files.isSymbolicLink(file)) break;
        if (!Files.isDirectory(home)) Files.createDirectory(home);
        Optional<FileChannel> mine;
        try {
          mine = locked(file);
        } catch (NoSuchFileException removedMeanwhile) {
          continue;
        }
        if (mine.isEmpty()) return new Answer(Asked.HELD, Optional.empty());
        // whoever had it before may have removed the file that is locked now
        if (isStill(file, mine.get()))
          return new Answer(Asked.TAKEN, Optional.of(new FolderLock(file, mine.get())));
        mine.get().close();
      }
    } catch (IOException refused) {
      // whoever goes on to change something is told why not
    }
    return new Answer(Asked.CANNOT_BE, Optional.empty());
  }

  private static Optional<FileChannel> locked(Path file) throws IOException {
    FileChannel channel =
        FileChannel.open(
            file, StandardOpenOption.CREATE, StandardOpenOption.WRITE, LinkOption.NOFOLLOW_LINKS);
    try {
      if (channel.tryLock() != null) return Optional.of(channel);
    } catch (OverlappingFileLockException inThisProcess) {
      // held all the same
    } catch (IOException noLocksHere) {
      channel.close();
      throw noLocksHere;
    }
    channel.close();
    return Optional.empty();
  }

  // the length that is given to what is locked tells whether the name still leads there; the file
  // is
  // not opened again to see, since closing it would give up the lock
  private static boolean isStill(Path file, FileChannel channel) throws IOException {
    long length = ThreadLocalRandom.current().nextLong(1, LONGEST);
    channel.write(ByteBuffer.allocate(1), length - 1);
    try {
      return Files.size(file) == length;
    } catch (NoSuchFileException removed) {
      return false;
    } finally {
      channel.truncate(0);
    }
  }

  /** Lets the folder go, and leaves nothing of the lock there. */
  @Override
  public void close() {
    try (channel) {
      Files.deleteIfExists(file);
      Files.deleteIfExists(file.getParent());
    } catch (DirectoryNotEmptyException deployed) {
      // what else lies there is the deployer's
    } catch (IOException refused) {
      // an empty file more, which means nothing
    }
  }
}
