package ironing.core.testkit;

import ironing.core.deploy.Disk;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.RealDisk;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;

/**
 * A disk that loses what was not flushed when its power goes: entries of folders that were not
 * flushed are as they were, files whose content was not flushed are empty.
 *
 * <p>A folder's entries are kept when that folder is flushed; a rename when the folder that it went
 * to is. What was made in a folder that was itself lost may stay, as on disks with a journal.
 */
public final class PowerCutDisk implements Disk {
  /** Takes a change back that was lost. */
  private interface Undo {
    void run() throws IOException;
  }

  private record Pending(Path folder, Undo undo) {}

  private final Disk real = new RealDisk();
  private final Path backups;
  private final int at;
  private final List<Pending> pending = new ArrayList<>();
  private final Set<Object> unflushed = new HashSet<>();
  private int changes;
  private int backup;

  /**
   * @param backups a folder on the same drive
   * @param at the change before which the power goes, counted from 1; 0 for never
   */
  public PowerCutDisk(Path backups, int at) throws IOException {
    this.backups = Files.createTempDirectory(backups, "cut");
    this.at = at;
  }

  public int changes() {
    return changes;
  }

  private void change() {
    changes++;
    if (at != 0 && changes >= at) throw new FaultyDisk.Died();
  }

  /**
   * Takes back what was lost.
   *
   * @param random how much of what was not flushed had got to the disk all the same; null for none
   */
  public synchronized void losePower(Random random) throws IOException {
    int kept = random == null ? 0 : random.nextInt(pending.size() + 1);
    for (int i = pending.size() - 1; i >= kept; i--) pending.get(i).undo().run();
    pending.clear();
  }

  /** Empties the files below a folder whose content was never flushed. */
  public synchronized void loseContents(Path folder) throws IOException {
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path p : all.filter(x -> Files.isRegularFile(x, LinkOption.NOFOLLOW_LINKS)).toList())
        if (unflushed.contains(key(p))) Files.write(p, new byte[0]);
    }
  }

  private static Object key(Path file) throws IOException {
    return Files.getAttribute(file, "unix:ino", LinkOption.NOFOLLOW_LINKS);
  }

  private void pend(Path child, Undo undo) {
    pending.add(new Pending(child.getParent(), undo));
  }

  private Path backupOf(Path file) throws IOException {
    Path copy = backups.resolve(Integer.toString(backup++));
    Files.createLink(copy, file);
    return copy;
  }

  @Override
  public boolean exists(Path path) {
    return real.exists(path);
  }

  @Override
  public boolean isInside(Path root, Path folder) throws IOException {
    return real.isInside(root, folder);
  }

  @Override
  public byte[] read(Path file) throws IOException {
    return real.read(file);
  }

  @Override
  public LaidOut.Stamp stamp(Path file) throws IOException {
    return real.stamp(file);
  }

  @Override
  public synchronized void write(Path file, byte[] bytes) throws IOException {
    change();
    boolean fresh = !real.exists(file);
    Files.write(file, bytes);
    if (fresh) pend(file, () -> Files.deleteIfExists(file));
  }

  @Override
  public synchronized void amend(Path file, List<Long> marks, byte[] tail) throws IOException {
    change();
    real.amend(file, marks, new byte[0]);
    change();
    real.amend(file, List.of(), tail);
  }

  @Override
  public void createFolders(Path folder) throws IOException {
    createBelow(folder.getRoot(), folder);
  }

  @Override
  public synchronized void createBelow(Path root, Path folder) throws IOException {
    change();
    List<Path> missing = new ArrayList<>();
    for (Path p = folder; p != null && !real.exists(p); p = p.getParent()) missing.add(0, p);
    real.createBelow(root, folder);
    for (Path p : missing) pend(p, () -> real.deleteFolderIfEmpty(p));
  }

  @Override
  public synchronized boolean link(Path source, Path target) throws IOException {
    change();
    boolean linked = real.link(source, target);
    if (linked) pend(target, () -> Files.deleteIfExists(target));
    return linked;
  }

  @Override
  public synchronized void copy(Path source, Path target) throws IOException {
    change();
    real.copy(source, target);
    unflushed.add(key(target));
    pend(target, () -> Files.deleteIfExists(target));
  }

  @Override
  public synchronized void move(Path from, Path to) throws IOException {
    change();
    Path was = Files.isRegularFile(to, LinkOption.NOFOLLOW_LINKS) ? backupOf(to) : null;
    real.move(from, to);
    pend(
        to,
        () -> {
          if (real.exists(to)) {
            Files.createDirectories(from.getParent());
            real.move(to, from);
          }
          if (was != null) Files.createLink(to, was);
        });
  }

  @Override
  public synchronized void deleteIfThere(Path file) throws IOException {
    change();
    if (!real.exists(file)) return;
    boolean isFolder = Files.isDirectory(file, LinkOption.NOFOLLOW_LINKS);
    Path was = isFolder ? null : backupOf(file);
    real.deleteIfThere(file);
    pend(
        file,
        () -> {
          Files.createDirectories(isFolder ? file : file.getParent());
          if (was != null && !real.exists(file)) Files.createLink(file, was);
        });
  }

  @Override
  public synchronized void deleteFolderIfEmpty(Path folder) throws IOException {
    change();
    boolean was = real.exists(folder);
    real.deleteFolderIfEmpty(folder);
    if (was && !real.exists(folder)) pend(folder, () -> Files.createDirectories(folder));
  }

  @Override
  public synchronized void flushFolder(Path folder) {
    change();
    pending.removeIf(p -> p.folder().equals(folder));
  }

  @Override
  public synchronized void flushTree(Path folder) {
    change();
    pending.removeIf(p -> p.folder().startsWith(folder) || folder.startsWith(p.folder()));
    unflushed.clear();
  }

  @Override
  public List<String> entries(Path folder) throws IOException {
    return real.entries(folder);
  }

  /** One by one, for it may end anywhere. */
  @Override
  public void removeTree(Path folder) throws IOException {
    if (real.exists(folder)) for (Path p : real.below(folder)) deleteIfThere(p);
  }

  @Override
  public List<Path> below(Path folder) throws IOException {
    return real.below(folder);
  }
}
