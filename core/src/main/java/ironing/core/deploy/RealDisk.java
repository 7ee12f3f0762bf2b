package ironing.core.deploy;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** The disk of this machine. */
public final class RealDisk implements Disk {
  @Override
  public boolean exists(Path path) {
    return Files.exists(path, LinkOption.NOFOLLOW_LINKS);
  }

  @Override
  public String read(Path file) throws IOException {
    return Files.readString(file);
  }

  @Override
  public void write(Path file, byte[] bytes) throws IOException {
    Files.write(file, bytes);
    flush(file);
  }

  @Override
  public void createFolders(Path folder) throws IOException {
    Files.createDirectories(folder);
  }

  @Override
  public boolean linkOrCopy(Path source, Path target) throws IOException {
    try {
      Files.createLink(target, source);
      return true;
    } catch (UnsupportedOperationException | FileSystemException notLinkable) {
      // another file system, one without links, or a limit on them: the bytes go over instead
      copy(source, target);
      return false;
    }
  }

  @Override
  public void copy(Path source, Path target) throws IOException {
    Files.copy(source, target, StandardCopyOption.REPLACE_EXISTING);
    flush(target);
  }

  @Override
  public void move(Path from, Path to) throws IOException {
    Files.move(from, to, StandardCopyOption.ATOMIC_MOVE);
  }

  @Override
  public void deleteIfThere(Path file) throws IOException {
    Files.deleteIfExists(file);
  }

  @Override
  public void deleteFolderIfEmpty(Path folder) throws IOException {
    try {
      Files.delete(folder);
    } catch (DirectoryNotEmptyException | NoSuchFileException stays) {
      // somebody else's file lies in it, or it went already: both are fine
    }
  }

  @Override
  public void flushFolder(Path folder) throws IOException {
    if (Files.isDirectory(folder)) flush(folder);
  }

  @Override
  public List<Path> below(Path folder) throws IOException {
    if (!Files.isDirectory(folder)) return List.of();
    try (Stream<Path> all = Files.walk(folder)) {
      return all.sorted(Comparator.reverseOrder()).toList();
    }
  }

  private static void flush(Path path) throws IOException {
    try (FileChannel channel = FileChannel.open(path, StandardOpenOption.READ)) {
      channel.force(true);
    }
  }
}
