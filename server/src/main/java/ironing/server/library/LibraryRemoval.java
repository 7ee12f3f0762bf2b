package ironing.server.library;

import ironing.core.deploy.Disk;
import ironing.core.deploy.RealDisk;
import ironing.core.disk.FolderTree;
import ironing.server.job.Jobs;
import ironing.server.library.BinMapper.BinnedArchive;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.platform.Folders;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Takes the library of a workspace away with it; its archives can be kept. */
@Component
public class LibraryRemoval {
  private static final Logger LOG = LoggerFactory.getLogger(LibraryRemoval.class);
  private final LibraryMapper db;
  private final BinMapper bin;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final LibraryGate gate;
  private final Staging staging;
  private final Disk disk = new RealDisk();

  LibraryRemoval(
      LibraryMapper db,
      BinMapper bin,
      OpenWorkspaces workspaces,
      Folders folders,
      LibraryGate gate,
      Staging staging) {
    this.db = db;
    this.bin = bin;
    this.workspaces = workspaces;
    this.folders = folders;
    this.gate = gate;
    this.staging = staging;
  }

  /**
   * What a library holds.
   *
   * @param archives those in the bin too
   * @param archiveBytes of all of them
   */
  public record Holds(String folder, int mods, int archives, long archiveBytes) {}

  public Holds holds(long workspace) {
    List<Named> archives = archives(workspace);
    return new Holds(
        folders.library(workspace).toString(),
        workspaces.get(workspace).mods().size(),
        archives.size(),
        archives.stream().mapToLong(Named::sizeBytes).sum());
  }

  /** An archive under the name that it came with. */
  private record Named(String name, String sha256, long sizeBytes) {}

  private List<Named> archives(long workspace) {
    List<Named> all = new ArrayList<>();
    for (ArchiveRow a : db.archives(workspace))
      all.add(new Named(a.name(), a.sha256(), a.sizeBytes()));
    for (BinnedArchive a : bin.archives(workspace))
      all.add(new Named(a.name(), a.sha256(), a.sizeBytes()));
    return all;
  }

  /** Where the archives would be kept: beside the library, in a folder that is not there yet. */
  public Path keptArchives(long workspace) {
    Path beside = folders.library(workspace).getParent();
    String title = workspaces.get(workspace).title().replaceAll("[^\\p{L}\\p{N}]+", "-");
    String name = "archives-of-" + title.toLowerCase(Locale.ROOT);
    Path folder = beside.resolve(name);
    for (int i = 2; Files.exists(folder); i++) folder = beside.resolve(name + "-" + i);
    return folder;
  }

  /**
   * Removes the library, while nobody writes to it.
   *
   * @param keep where its archives go, under the names that they came with; null to keep none
   * @param forget what makes the workspace be no more, once the archives are safe
   * @throws ironing.core.IroningException with code {@code disk-full} or {@code library-failed};
   *     then nothing was removed
   */
  @SuppressWarnings("try")
  public void remove(long workspace, Path keep, Runnable forget, Jobs.Progress progress) {
    Path library = folders.library(workspace);
    try (LibraryGate.Pass pass = gate.moving(workspace)) {
      if (keep != null) keep(workspace, keep, progress);
      staging.dropBelow(library);
      forget.run();
      FolderTree.remove(library);
    } catch (IOException e) {
      if (Files.exists(library) && isKnown(workspace)) throw ModStore.failed(library.toString(), e);
      LOG.warn("{} stays: {}", library, e.getMessage());
    }
  }

  private boolean isKnown(long workspace) {
    return workspaces.all().contains(workspace);
  }

  private void keep(long workspace, Path to, Jobs.Progress progress) throws IOException {
    Set<String> taken = new HashSet<>();
    List<Named> all = archives(workspace);
    try {
      disk.createFolders(to);
      for (int i = 0; i < all.size(); i++) {
        progress.at(i, all.size(), "archives");
        Named a = all.get(i);
        Path from = folders.archives(workspace).resolve(a.sha256());
        if (!Files.exists(from)) continue;
        disk.copy(from, to.resolve(free(a.name(), taken)));
      }
      disk.flushTree(to);
    } catch (IOException e) {
      FolderTree.remove(to);
      throw e;
    }
  }

  private static String free(String name, Set<String> taken) {
    String plain = name.replaceAll("[/\\\\\\p{Cntrl}]", "_");
    String free = plain;
    int dot = plain.lastIndexOf('.') > 0 ? plain.lastIndexOf('.') : plain.length();
    for (int i = 2; !taken.add(free.toLowerCase(Locale.ROOT)); i++)
      free = plain.substring(0, dot) + " " + i + plain.substring(dot);
    return free;
  }
}
