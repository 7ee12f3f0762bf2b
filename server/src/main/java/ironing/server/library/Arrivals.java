package ironing.server.library;

import ironing.core.IroningException;
import ironing.server.job.Jobs;
import ironing.server.library.LibraryMapper.ArchiveRow;
import java.nio.file.Path;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** How other features bring archives into a library. */
@Component
public class Arrivals {
  private final Archives archives;
  private final Intake intake;
  private final Installer installer;
  private final LibraryMapper db;

  Arrivals(Archives archives, Intake intake, Installer installer, LibraryMapper db) {
    this.archives = archives;
    this.intake = intake;
    this.installer = installer;
    this.db = db;
  }

  /** The archive with these bytes, if the library has it; what lies in the bin is not there. */
  public Optional<Long> find(long workspace, String sha256) {
    return db.archives(workspace).stream()
        .filter(a -> a.sha256().equals(sha256))
        .map(ArchiveRow::id)
        .findFirst();
  }

  /**
   * Keeps a whole file as an archive: it is moved, and is on disk once this returns.
   *
   * @param file on the drive of the library, with its bytes flushed
   * @param sha256 of its bytes, which the caller has reckoned
   * @return the archive's number
   */
  public long keep(long workspace, String name, Path file, String sha256) {
    return archives.keep(workspace, name, file, sha256).id();
  }

  /** Looks into an archive in the background, so that the inbox can tell of it. */
  public void look(long workspace, long archive) {
    ArchiveRow row = archives.get(workspace, archive);
    if (row.mods() == 0 && row.look() == null) intake.look(workspace, row);
  }

  /**
   * Makes a mod of an archive if that needs no decision; it is off, or beside the version in use.
   *
   * @return the mod; empty where the archive waits in the inbox
   * @throws IroningException where it cannot be a mod at all
   */
  public Optional<Long> installOff(long workspace, long archive, Jobs.Progress progress) {
    return installer.installOff(workspace, archives.get(workspace, archive), progress);
  }
}
