package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.Disk;
import ironing.core.deploy.RealDisk;
import ironing.core.disk.FolderTree;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.BinMapper.BinnedArchive;
import ironing.server.library.BinMapper.BinnedMod;
import ironing.server.platform.Events;
import ironing.server.platform.Folders;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Map;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.stereotype.Component;

/** Where a library lies, what it takes, and moving it elsewhere with all that is in it. */
@Component
class Storage implements SmartInitializingSingleton {
  private static final Logger LOG = LoggerFactory.getLogger(Storage.class);
  private final StorageMapper db;
  private final Bin bin;
  private final OpenWorkspaces workspaces;
  private final FolderUse use;
  private final Folders folders;
  private final LibraryGate gate;
  private final Staging staging;
  private final Jobs jobs;
  private final Events events;
  private final Disk disk = new RealDisk();

  Storage(
      StorageMapper db,
      Bin bin,
      OpenWorkspaces workspaces,
      FolderUse use,
      Folders folders,
      LibraryGate gate,
      Staging staging,
      Jobs jobs,
      Events events) {
    this.db = db;
    this.bin = bin;
    this.workspaces = workspaces;
    this.use = use;
    this.folders = folders;
    this.gate = gate;
    this.staging = staging;
    this.jobs = jobs;
    this.events = events;
  }

  /**
   * What a workspace takes of its drives, in bytes.
   *
   * @param folder where the library lies
   * @param chosen the folder that its user chose; absent when it lies with the rest of the data
   * @param sameDrive it lies on the drive of the game, so that deploying links instead of copying
   * @param proposed a folder on the game's drive, absent when it lies there already
   * @param unpacked archives that lie unpacked until they are installed
   * @param kept originals of the game that deployed files stand in for
   * @param free on the drive of the library
   */
  record Use(
      String folder,
      @MayBeAbsent String chosen,
      boolean sameDrive,
      @MayBeAbsent String proposed,
      long archives,
      long mods,
      long unpacked,
      long kept,
      long bin,
      long free) {}

  Use use(long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Path library = folders.library(workspace);
    try {
      Files.createDirectories(library);
      Path kept = Deployer.keptOriginal(open.roots(), "x").getParent();
      long binBytes =
          bin.mods(workspace).stream().mapToLong(BinnedMod::sizeBytes).sum()
              + bin.archives(workspace).stream().mapToLong(BinnedArchive::sizeBytes).sum();
      long binnedArchives =
          bin.archives(workspace).stream().mapToLong(BinnedArchive::sizeBytes).sum();
      boolean same = sameDrive(library, open.gameFolder());
      return new Use(
          library.toString(),
          db.folder(workspace),
          same,
          same ? null : String.valueOf(open.gameFolder().getParent()),
          size(folders.archives(workspace)) - binnedArchives,
          size(folders.mods(workspace)) - (binBytes - binnedArchives),
          size(folders.staged(workspace)),
          size(kept),
          binBytes,
          Files.getFileStore(library).getUsableSpace());
    } catch (IOException e) {
      throw ModStore.failed(library.toString(), e);
    }
  }

  private static boolean isInGame(OpenWorkspace open, Path folder) {
    return open.roots().tops().stream().anyMatch(top -> folder.startsWith(open.at(top)));
  }

  private static boolean sameDrive(Path a, Path b) throws IOException {
    return Files.isDirectory(b) && Files.getFileStore(a).equals(Files.getFileStore(b));
  }

  private static long size(Path folder) throws IOException {
    if (!Files.isDirectory(folder)) return 0;
    long[] sum = new long[1];
    Files.walkFileTree(
        folder,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
            sum[0] += attributes.size();
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult visitFileFailed(Path file, IOException gone) {
            // it went while we looked
            return FileVisitResult.CONTINUE;
          }
        });
    return sum[0];
  }

  /**
   * Moves the library with all in it.
   *
   * @param folderName a folder on this machine; empty for the place that it has at first
   */
  Job move(long workspace, String folderName) {
    OpenWorkspace open = workspaces.get(workspace);
    Optional<Path> chosen =
        folderName.isBlank() ? Optional.empty() : Optional.of(Folders.named(folderName));
    Path from = folders.library(workspace), to = folders.libraryIn(workspace, chosen);
    if (from.equals(to)) {
      throw IroningException.of(
          "already-there",
          to.toString(),
          "The library lies there already.",
          "Name another folder.");
    }
    if (isInGame(open, to) || to.startsWith(from)) {
      throw IroningException.of(
          "folder-wrong",
          folderName,
          "A library lies neither in the game’s folder nor in itself.",
          "Name another folder.");
    }
    if (chosen.isPresent() && !Files.isWritable(chosen.get())) {
      throw IroningException.of(
          "folder-wrong",
          folderName,
          "This folder may not be written to.",
          "Name one of your own, or change its permissions.");
    }
    return jobs.start(
        workspace,
        Lane.INSTALL,
        "move-library",
        "Move the library",
        p -> {
          moveNow(open, chosen, from, to, p);
          return null;
        });
  }

  @SuppressWarnings("try")
  private void moveNow(
      OpenWorkspace open, Optional<Path> chosen, Path from, Path to, Jobs.Progress progress)
      throws IOException {
    long workspace = open.workspace();
    use.begin(open, FolderUse.Use.CHANGING);
    boolean moved = false;
    try (LibraryGate.Pass pass = gate.moving(workspace)) {
      staging.dropBelow(from);
      long total = size(from);
      if (Files.getFileStore(existing(to)).getUsableSpace() < total) {
        throw IroningException.of(
            "disk-full",
            to.toString(),
            "The drive has less space left than the library takes.",
            "Free some space there, or name a folder on another drive.");
      }
      db.setLitter(workspace, to.toString());
      copyTree(from, to, total, progress);
      disk.flushTree(to);
      db.setFolder(workspace, chosen.map(Path::toString).orElse(null), from.toString());
      moved = true;
      folders.libraryMoved(workspace);
      events.tell(workspace, "library", Map.of());
    } finally {
      // whichever of the two is not the library is litter
      try {
        FolderTree.remove(moved ? from : to);
        db.setLitter(workspace, null);
      } finally {
        use.end(workspace);
      }
    }
  }

  /** At start, before anybody is served: what a move that was cut off has left. */
  @Override
  public void afterSingletonsInstantiated() {
    for (long workspace : workspaces.all()) {
      String litter = db.litter(workspace);
      if (litter == null || Path.of(litter).equals(folders.library(workspace))) continue;
      try {
        FolderTree.remove(Path.of(litter));
        db.setLitter(workspace, null);
      } catch (IOException stays) {
        LOG.warn("{} stays: {}", litter, stays.getMessage());
      }
    }
  }

  private static Path existing(Path path) {
    Path p = path;
    while (!Files.exists(p)) p = p.getParent();
    return p;
  }

  private void copyTree(Path from, Path to, long total, Jobs.Progress progress) throws IOException {
    long[] done = new long[1];
    Files.walkFileTree(
        from,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes a)
              throws IOException {
            Files.createDirectories(to.resolve(from.relativize(folder).toString()));
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes a) throws IOException {
            progress.at(done[0], total, "bytes");
            disk.copy(file, to.resolve(from.relativize(file).toString()));
            done[0] += a.size();
            return FileVisitResult.CONTINUE;
          }
        });
  }
}
