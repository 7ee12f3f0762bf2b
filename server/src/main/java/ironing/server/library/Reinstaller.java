package ironing.server.library;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.deploy.Disk;
import ironing.core.deploy.RealDisk;
import ironing.core.path.GamePath;
import ironing.core.workspace.Mod;
import ironing.server.deploy.ModRepair;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.LibraryMapper.ArchiveRow;
import ironing.server.library.LibraryMapper.FileRow;
import ironing.server.library.LibraryMapper.ModRow;
import ironing.server.library.LibraryMapper.StoredLeftOut;
import ironing.server.library.Staging.Staged;
import ironing.server.platform.Folders;
import ironing.server.workspace.LibraryChange;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/**
 * Makes the files of mods anew from their kept archives, to the same bytes: each file comes from
 * the entry that it came from, and its hash must be what it was. Edits stay.
 */
@Component
class Reinstaller implements ModRepair {
  private final Archives archives;
  private final Staging staging;
  private final ModStore mods;
  private final LibraryMapper db;
  private final OpenWorkspaces workspaces;
  private final Folders folders;
  private final Jobs jobs;
  private final Disk disk = new RealDisk();

  Reinstaller(
      Archives archives,
      Staging staging,
      ModStore mods,
      LibraryMapper db,
      OpenWorkspaces workspaces,
      Folders folders,
      Jobs jobs) {
    this.archives = archives;
    this.staging = staging;
    this.mods = mods;
    this.db = db;
    this.workspaces = workspaces;
    this.folders = folders;
    this.jobs = jobs;
  }

  /** One mod from its archive. */
  Job mod(long workspace, long mod) {
    Mod m = workspaces.get(workspace).required(mod);
    return jobs.start(
        workspace,
        Lane.INSTALL,
        "reinstall",
        "Install " + m.card().name() + " again",
        p -> {
          again(workspace, mod, p);
          return mod;
        });
  }

  /** Every mod of the profile that came in an archive. */
  Job all(long workspace) {
    List<Long> layers =
        workspaces.get(workspace).picture().arrangement().layers().stream()
            .map(l -> l.mod())
            .toList();
    return jobs.start(
        workspace,
        Lane.INSTALL,
        "reinstall-all",
        "Install all mods again",
        p -> {
          List<Problem> problems = new ArrayList<>();
          for (int i = 0; i < layers.size(); i++) {
            p.at(i, layers.size(), "mods");
            try {
              if (mods.row(workspace, layers.get(i)).archiveId() != 0)
                again(workspace, layers.get(i), (done, total, unit) -> {});
            } catch (IroningException e) {
              problems.addAll(e.problems());
            }
          }
          if (!problems.isEmpty()) throw new IroningException(problems);
          return null;
        });
  }

  @Override
  public boolean can(long workspace, long mod) {
    return mods.row(workspace, mod).archiveId() != 0;
  }

  @Override
  @SuppressWarnings("try")
  public void again(long workspace, long mod, Jobs.Progress progress) {
    ModRow row = mods.row(workspace, mod);
    String name = workspaces.get(workspace).nameOf(mod);
    if (row.archiveId() == 0) {
      throw IroningException.of(
          "no-archive", name, "It was made here, from no archive.", "Rebuild it in Mends.");
    }
    ArchiveRow archive = archives.get(workspace, row.archiveId());
    try (Staging.Hold hold = staging.hold(archive.id());
        ModStore.WorkFolder work = mods.workFolder(workspace)) {
      Staged staged = staging.get(workspace, archive, progress);
      Path built = work.path().resolve("mod");
      build(workspace, row, name, staged, built);
      String folder = mods.moveIn(workspace, name, built);
      workspaces.changeLibrary(
          workspace,
          "Installed “" + name + "” again",
          LibraryChange.BESIDE,
          () -> {
            db.setFolder(mod, folder);
            return mod;
          });
      mods.discard(folders.mods(workspace).resolve(row.folder()));
    } catch (IOException e) {
      throw ModStore.failed(name, e);
    } finally {
      staging.drop(archive.id());
    }
  }

  private void build(long workspace, ModRow row, String name, Staged staged, Path built)
      throws IOException {
    Map<String, String> hashes = new HashMap<>();
    staged.entries().forEach(u -> hashes.put(u.path(), u.sha256()));
    Files.createDirectories(built.resolve("content"));
    Path before = folders.mods(workspace).resolve(row.folder());
    List<Problem> wrong = new ArrayList<>();
    for (FileRow f : db.allFiles(row.id())) {
      if (!f.pack().isEmpty()) continue;
      String given = f.givenSha256() == null ? f.sha256() : f.givenSha256();
      if (!given.equals(hashes.get(f.entry()))) {
        wrong.add(
            new Problem(
                "other-bytes",
                name + " › " + f.path(),
                "Its archive holds something else as “" + f.entry() + "” than was installed.",
                "Bring the archive in again; the mod stays as it is."));
        continue;
      }
      copy(GamePath.resolve(staged.tree(), f.entry()), built.resolve("content"), f.path());
      if (f.stored() != null) copy(GamePath.resolve(before, f.stored()), built, f.stored());
    }
    if (!wrong.isEmpty()) throw new IroningException(wrong);
    for (StoredLeftOut l : db.leftOut(row.id()))
      if (l.kept())
        copy(GamePath.resolve(staged.tree(), l.entry()), built.resolve("papers"), l.entry());
  }

  private void copy(Path source, Path root, String path) throws IOException {
    Path target = GamePath.resolve(root, path);
    disk.createFolders(target.getParent());
    disk.copy(source, target);
  }
}
