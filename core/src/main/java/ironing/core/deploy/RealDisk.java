package ironing.core.deploy;

import ironing.core.deploy.LaidOut.Stamp;
import ironing.core.disk.FolderTree;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermission;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/** The disk of this machine. */
public final class RealDisk implements Disk {
  @Override
  public boolean exists(Path path) {
    return Files.exists(path, LinkOption.NOFOLLOW_LINKS);
  }

  @Override
  public boolean isInside(Path root, Path folder) throws IOException {
    return folder.toRealPath().startsWith(root.toRealPath());
  }

  @Override
  public byte[] read(Path file) throws IOException {
    return Files.readAllBytes(file);
  }

  @Override
  public Stamp stamp(Path file) throws IOException {
    return Stamps.of(file);
  }

  @Override
  public void write(Path file, byte[] bytes) throws IOException {
    Files.write(file, bytes);
    flush(file);
  }

  @Override
  public void amend(Path file, List<Long> marks, byte[] tail) throws IOException {
    try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
      for (long at : marks) channel.write(ByteBuffer.wrap(new byte[] {'#'}), at);
      ByteBuffer rest = ByteBuffer.wrap(tail);
      for (long at = channel.size(); rest.hasRemaining(); ) at += channel.write(rest, at);
      channel.force(true);
    }
  }

  @Override
  public void createFolders(Path folder) throws IOException {
    Files.createDirectories(folder);
  }

  @Override
  public void createBelow(Path root, Path folder) throws IOException {
    // the root itself is never made: it may have been moved away
    if (folder.equals(root) || Files.isDirectory(folder)) return;
    Path at = root;
    for (Path step : root.relativize(folder)) {
      at = at.resolve(step);
      try {
        Files.createDirectory(at);
      } catch (FileAlreadyExistsException there) {
        if (!Files.isDirectory(at)) throw there;
      }
    }
  }

  @Override
  public boolean link(Path source, Path target) throws IOException {
    try {
      Files.createLink(target, source);
      return true;
    } catch (FileAlreadyExistsException | NoSuchFileException | AccessDeniedException refused) {
      throw refused;
    } catch (UnsupportedOperationException | FileSystemException notLinkable) {
      if (notLinkable instanceof FileSystemException e && DiskTrouble.isFull(target.getParent(), e))
        throw e;
      // another file system, one without links, or a limit on them
      return false;
    }
  }

  @Override
  public void copy(Path source, Path target) throws IOException {
    Files.copy(source, target, StandardCopyOption.REPLACE_EXISTING);
    PosixFileAttributeView view =
        Files.getFileAttributeView(target, PosixFileAttributeView.class, LinkOption.NOFOLLOW_LINKS);
    if (view == null) return;
    // it is copied for whoever writes to it, and comes with the permissions of what it is copied
    // from
    Set<PosixFilePermission> may = view.readAttributes().permissions();
    if (may.add(PosixFilePermission.OWNER_WRITE)) view.setPermissions(may);
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
    // a link in its place is somebody else's
    if (!Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) return;
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
  public void flushTree(Path folder) throws IOException {
    try {
      Process sync =
          new ProcessBuilder("sync", "-f", folder.toString()).redirectErrorStream(true).start();
      if (sync.waitFor() == 0) return;
    } catch (IOException noSuchProgram) {
      // not a machine with GNU coreutils: one by one, then
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new InterruptedIOException("interrupted while flushing " + folder);
    }
    for (Path p : below(folder)) flush(p);
  }

  @Override
  public List<String> entries(Path folder) throws IOException {
    if (Files.isSymbolicLink(folder)) throw new NotDirectoryException(folder.toString());
    try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
      List<String> names = new ArrayList<>();
      for (Path p : all) names.add(p.getFileName().toString());
      return names;
    } catch (NoSuchFileException gone) {
      return List.of();
    } catch (DirectoryIteratorException e) {
      throw e.getCause();
    }
  }

  @Override
  public void removeTree(Path folder) throws IOException {
    FolderTree.remove(folder);
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
