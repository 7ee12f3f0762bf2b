package ironing.server.platform;

import ironing.core.IroningException;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * One server for a database and a home: two would take each other’s unfinished work for the litter
 * of a crash. The lock goes with the process, however that ends.
 */
@Component
class HomeLock {
  private final FileChannel file;

  /**
   * @throws IroningException with code {@code home-in-use}
   */
  HomeLock(@Value("${ironing.home}") Path home, InstallationMapper db) throws IOException {
    Path locks = Files.createDirectories(home.resolve("locks"));
    file =
        FileChannel.open(
            locks.resolve(db.id()), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
    if (isMine(file)) return;
    file.close();
    throw IroningException.of(
        "home-in-use",
        home.toString(),
        "Another Ironing uses this home with the same database.",
        "Use that one, end it with ./ironing stop, or set IRONING_HOME to another folder.");
  }

  private static boolean isMine(FileChannel file) throws IOException {
    try {
      FileLock lock = file.tryLock();
      return lock != null;
    } catch (OverlappingFileLockException inThisProcess) {
      return false;
    }
  }

  @PreDestroy
  void release() throws IOException {
    file.close();
  }
}
