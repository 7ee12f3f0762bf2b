package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.Disk;
import ironing.core.deploy.RealDisk;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Keeps archives, named by their content. The same bytes brought in again are the same archive. */
@Component
public class Archives {
  private final LibraryMapper db;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final LibraryGate gate;
  private final Events events;
  private final Disk disk = new RealDisk();

  Archives(
      LibraryMapper db,
      OpenWorkspaces workspaces,
      Folders folders,
      LibraryGate gate,
      Events events) {
    this.db = db;
    this.workspaces = workspaces;
    this.folders = folders;
    this.gate = gate;
    this.events = events;
  }

  /**
   * @throws IroningException with code {@code not-found}
   */
  ArchiveRow get(long workspace, long archive) {
    ArchiveRow row = db.archive(workspace, archive);
    if (row != null) return row;
    throw IroningException.of(
        "not-found",
        "Archive " + archive,
        "There is no such archive in this library.",
        "Choose one from the list.");
  }

  Path file(long workspace, ArchiveRow row) {
    return folders.archives(workspace).resolve(row.sha256());
  }

  /**
   * Stores an archive as it comes in.
   *
   * @return its number
   * @throws IroningException as {@link #store}
   */
  public long takeIn(long workspace, String name, InputStream bytes) {
    return store(workspace, name, bytes).id();
  }

  /**
   * Stores an archive as it comes in; once this returns it is on disk.
   *
   * @throws IroningException with code {@code disk-full} or {@code library-failed}; nothing is kept
   *     then
   */
  @SuppressWarnings("try")
  ArchiveRow store(long workspace, String name, InputStream bytes) {
    workspaces.game(workspace);
    String plainName = plainName(name);
    try (LibraryGate.Pass pass = gate.writing(workspace)) {
      return storeNow(workspace, plainName, bytes);
    }
  }

  private ArchiveRow storeNow(long workspace, String plainName, InputStream bytes) {
    Path temp = folders.incoming(workspace).resolve(UUID.randomUUID() + ".part");
    try {
      Files.createDirectories(temp.getParent());
      MessageDigest sha = ContentHash.digest();
      long size = write(bytes, temp, sha);
      if (size == 0) {
        throw IroningException.of(
            "archive-unreadable",
            plainName,
            "It is empty.",
            "Download it again: nothing of it arrived.");
      }
      String hex = HexFormat.of().formatHex(sha.digest());
      Path archives = folders.archives(workspace);
      // the same bytes are kept once, whatever they are called
      if (!Files.exists(archives.resolve(hex))) {
        disk.createFolders(archives);
        disk.move(temp, archives.resolve(hex));
        disk.flushFolder(archives);
      }
      db.addArchive(workspace, plainName, hex, size);
      events.tell(workspace, "inbox", Map.of());
      return db.archiveBySha(workspace, hex);
    } catch (IOException e) {
      throw ModStore.failed(plainName, e);
    } finally {
      deleteQuietly(temp);
    }
  }

  /**
   * Keeps a whole file as an archive: it is moved, and is on disk once this returns.
   *
   * @param file on the drive of the library, with its bytes flushed
   * @param sha256 of its bytes, which the caller has reckoned
   */
  @SuppressWarnings("try")
  ArchiveRow keep(long workspace, String name, Path file, String sha256) {
    workspaces.game(workspace);
    String plainName = plainName(name);
    try (LibraryGate.Pass pass = gate.writing(workspace)) {
      long size = Files.size(file);
      Path archives = folders.archives(workspace);
      if (!Files.exists(archives.resolve(sha256))) {
        disk.createFolders(archives);
        disk.move(file, archives.resolve(sha256));
        disk.flushFolder(archives);
      }
      db.addArchive(workspace, plainName, sha256, size);
      events.tell(workspace, "inbox", Map.of());
      return db.archiveBySha(workspace, sha256);
    } catch (IOException e) {
      throw ModStore.failed(plainName, e);
    }
  }

  private static long write(InputStream bytes, Path file, MessageDigest sha) throws IOException {
    long size = 0;
    try (FileChannel channel =
            FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
        OutputStream out = Channels.newOutputStream(channel)) {
      byte[] buffer = new byte[64 * 1024];
      int n;
      while ((n = bytes.read(buffer)) >= 0) {
        sha.update(buffer, 0, n);
        out.write(buffer, 0, n);
        size += n;
      }
      channel.force(true);
    }
    return size;
  }

  private static String plainName(String name) {
    String last = name.replace('\\', '/');
    last = last.substring(last.lastIndexOf('/') + 1).replaceAll("[\\p{Cntrl}]", "").strip();
    if (last.isEmpty()) {
      throw IroningException.of(
          "archive-unreadable",
          "The archive",
          "It comes without a name.",
          "Send its file name as ?name=.");
    }
    return last.length() > 200 ? last.substring(last.length() - 200) : last;
  }

  private static void deleteQuietly(Path temp) {
    try {
      Files.deleteIfExists(temp);
    } catch (IOException litter) {
      // the next start clears the incoming folder
    }
  }

  /** All that are kept, whatever was made of them. */
  List<LibraryMapper.ArchiveRow> all(long workspace) {
    return db.archives(workspace);
  }
}
