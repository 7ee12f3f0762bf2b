package ironing.core.deploy;

import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.DeployPlan.Look;
import ironing.core.game.GameDefinition;
import ironing.core.path.GamePath;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What the game had written into deployed files before sets were tried in its folder. A set may be
 * without the mod that brought such a file, so it is kept beside, and is there again afterwards.
 *
 * <p>A crash at any step leaves each file kept or back: it is copied before anything changes, and
 * moved into its place at the end.
 */
public final class BeforeTrials {
  private static final String KEPT = Deployer.HOME + "/before-trials";
  private final Disk disk;
  private final Path folder;

  public BeforeTrials(Disk disk, Path folder) {
    this.disk = disk;
    this.folder = folder;
  }

  /**
   * Keeps what the game has written, instead of what was kept before.
   *
   * @param laidOut by the user
   * @throws ironing.core.IroningException where the disk refuses
   */
  public void keep(LaidOut laidOut, GameDefinition game, Look look) {
    try {
      drop();
      for (LaidOut.Item i : laidOut.files().values()) {
        if (!game.isWritable(i.path()) || look.at(i.path(), Optional.of(i)) != Found.DRIFTED)
          continue;
        Path to = place(i.mod(), i.path());
        disk.createBelow(folder, to.getParent());
        disk.copy(GamePath.resolve(folder, i.path()), to);
      }
      if (disk.exists(folder.resolve(KEPT))) disk.flushTree(folder.resolve(KEPT));
    } catch (IOException e) {
      throw DiskTrouble.of(folder, e);
    }
  }

  // by mod: another one may bring a file of that name too
  private Path place(long mod, String path) {
    return GamePath.resolve(folder.resolve(KEPT).resolve(Long.toString(mod)), path);
  }

  /**
   * What the game had written into a mod's file; empty where it had not. A set that has the file is
   * tried with that.
   *
   * @throws ironing.core.IroningException where the disk refuses
   */
  public Optional<byte[]> written(long mod, String path) {
    Path kept = place(mod, path);
    try {
      return disk.exists(kept) ? Optional.of(disk.read(kept)) : Optional.empty();
    } catch (IOException e) {
      throw DiskTrouble.of(folder, e);
    }
  }

  /**
   * Puts it back where that mod's file lies there again.
   *
   * @param laidOut as it is now, with no set that is tried
   * @throws ironing.core.IroningException where the disk refuses
   */
  public void giveBack(LaidOut laidOut, GameDefinition game) {
    Path kept = folder.resolve(KEPT);
    if (!disk.exists(kept)) return;
    try {
      List<Path> changed = new ArrayList<>();
      for (LaidOut.Item i : laidOut.files().values()) {
        Path file = place(i.mod(), i.path());
        if (!game.isWritable(i.path()) || !disk.exists(file)) continue;
        Path to = GamePath.resolve(folder, i.path());
        // a link in the place of its folder is somebody else's
        if (!disk.isInside(folder, to.getParent())) continue;
        disk.move(file, to);
        changed.add(to.getParent());
      }
      for (Path c : changed) disk.flushFolder(c);
      drop();
    } catch (IOException e) {
      throw DiskTrouble.of(folder, e);
    }
  }

  private void drop() throws IOException {
    if (disk.exists(folder.resolve(KEPT))) disk.removeTree(folder.resolve(KEPT));
  }
}
