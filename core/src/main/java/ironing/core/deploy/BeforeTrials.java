package ironing.core.deploy;

import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.DeployPlan.Look;
import ironing.core.game.GameDefinition;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What the game had written into deployed files before sets were tried in its folder. A set may be
 * without the mod that brought such a file, so it is kept beside, and is there again afterwards.
 *
 * <p>A crash at any step leaves each file kept or back: it is copied before anything changes, and
 * moved into its place at the end. What has no place to go back to is set aside, never thrown away.
 */
public final class BeforeTrials {
  private static final String KEPT = Deployer.HOME + "/before-trials";
  // half of it may be there after a crash: nobody reads it
  private static final String ON_ITS_WAY = Deployer.HOME + "/before-trials-new";
  private static final String BACK = "/before-trials-back";
  private final Disk disk;
  private final GameRoots roots;
  private final Path folder;

  public BeforeTrials(Disk disk, GameRoots roots) {
    this.disk = disk;
    this.roots = roots;
    this.folder = roots.folder();
  }

  /**
   * Keeps what the game has written.
   *
   * @param laidOut by the user
   * @param at RFC 3339, for what was kept before and never came back
   * @throws ironing.core.IroningException where the disk refuses
   */
  public void keep(LaidOut laidOut, GameDefinition game, Look look, String at) {
    try {
      disk.removeTree(folder.resolve(ON_ITS_WAY));
      setAside(at);
      for (LaidOut.Item i : laidOut.files().values()) {
        if (!game.isWritable(i.path()) || look.at(i.path(), Optional.of(i)) != Found.DRIFTED)
          continue;
        Path to = place(ON_ITS_WAY, i.mod(), i.path());
        disk.createBelow(folder, to.getParent());
        disk.copy(roots.at(i.path()), to);
      }
      if (!disk.exists(folder.resolve(ON_ITS_WAY))) return;
      disk.flushTree(folder.resolve(ON_ITS_WAY));
      disk.move(folder.resolve(ON_ITS_WAY), folder.resolve(KEPT));
      disk.flushFolder(folder.resolve(Deployer.HOME));
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  // by mod: another one may bring a file of that name too
  private Path place(String home, long mod, String path) {
    return GamePath.resolve(folder.resolve(home).resolve(Long.toString(mod)), path);
  }

  /**
   * What the game had written into a mod's file; empty where it had not. A set that has the file is
   * tried with that.
   *
   * @throws ironing.core.IroningException where the disk refuses
   */
  public Optional<byte[]> written(long mod, String path) {
    Path kept = place(KEPT, mod, path);
    try {
      return disk.exists(kept) ? Optional.of(disk.read(kept)) : Optional.empty();
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /**
   * Puts it back where that mod's file lies there again.
   *
   * @param laidOut as it is now, with no set that is tried
   * @param at RFC 3339, for what has no place any more
   * @throws ironing.core.IroningException where the disk refuses
   */
  public void giveBack(LaidOut laidOut, GameDefinition game, String at) {
    Path kept = folder.resolve(KEPT);
    if (!disk.exists(kept)) return;
    try {
      List<Path> changed = new ArrayList<>();
      for (LaidOut.Item i : laidOut.files().values()) {
        Path file = place(KEPT, i.mod(), i.path());
        if (!game.isWritable(i.path()) || !disk.exists(file)) continue;
        Path to = roots.at(i.path());
        // a link in the place of its folder is somebody else's
        if (!disk.exists(to.getParent()) || !disk.isInside(roots.root(i.path()), to.getParent()))
          continue;
        giveBack(file, i.path());
        changed.add(to.getParent());
      }
      for (Path c : changed) disk.flushFolder(c);
      setAside(at);
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  // a place may lie on another drive, from which nothing can be renamed to it
  private void giveBack(Path file, String path) throws IOException {
    if (roots.top(path).isEmpty()) {
      disk.move(file, roots.at(path));
      return;
    }
    String home = roots.home(path);
    Path near = roots.at(home + BACK);
    disk.createBelow(roots.root(path), roots.at(home));
    disk.copy(file, near);
    disk.flushTree(roots.at(home));
    disk.move(near, roots.at(path));
    disk.deleteIfThere(file);
  }

  /** Clears what is kept: folders that are empty go, files are set aside. */
  private void setAside(String at) throws IOException {
    Path kept = folder.resolve(KEPT);
    for (Path left : disk.below(kept)) {
      if (Files.isDirectory(left, LinkOption.NOFOLLOW_LINKS)) {
        disk.deleteFolderIfEmpty(left);
        continue;
      }
      Path inMod = kept.relativize(left);
      String path = inMod.subpath(1, inMod.getNameCount()).toString().replace('\\', '/');
      Path aside = roots.at(Staging.freeAside(disk, roots, Deployer.CHANGED, at, path));
      disk.createBelow(folder, aside.getParent());
      disk.move(left, aside);
      disk.flushFolder(aside.getParent());
    }
    disk.flushFolder(folder.resolve(Deployer.HOME));
  }
}
