package ironing.core.testkit;

import ironing.core.deploy.Disk;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.RealDisk;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.IntConsumer;

/**
 * The real disk, but at one change of it, counted from 1, the machine dies, the disk refuses, or
 * somebody is told.
 */
public final class FaultyDisk implements Disk {
  /** The machine died. Not an exception that any code under test may handle. */
  public static final class Died extends Error {
    private static final long serialVersionUID = 1;
  }

  private final Disk real = new RealDisk();
  private final int at;
  private final String refusal;
  private final IntConsumer before;
  private int changes;

  private FaultyDisk(int at, String refusal, IntConsumer before) {
    this.at = at;
    this.refusal = refusal;
    this.before = before;
  }

  /** Tells the number of each change before it is made; whoever is told may never return. */
  public static FaultyDisk telling(IntConsumer before) {
    return new FaultyDisk(0, null, before);
  }

  /** Dies before the change of that number. */
  public static FaultyDisk dyingAt(int change) {
    return new FaultyDisk(change, null, n -> {});
  }

  /** Refuses the change of that number, and works again afterwards. */
  public static FaultyDisk refusingAt(int change, String message) {
    return new FaultyDisk(change, message, n -> {});
  }

  /** Refuses nothing, and counts. */
  public static FaultyDisk sound() {
    return new FaultyDisk(0, null, n -> {});
  }

  public int changes() {
    return changes;
  }

  private synchronized void change() throws IOException {
    changes++;
    before.accept(changes);
    if (at == 0) return;
    if (refusal == null && changes >= at) throw new Died();
    if (refusal != null && changes == at) throw new IOException(refusal);
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
  public void write(Path file, byte[] bytes) throws IOException {
    change();
    real.write(file, bytes);
  }

  @Override
  public void amend(Path file, List<Long> marks, byte[] tail) throws IOException {
    change();
    // half of it is done when the machine dies before the next change
    real.amend(file, marks, new byte[0]);
    change();
    real.amend(file, List.of(), tail);
  }

  @Override
  public void createFolders(Path folder) throws IOException {
    change();
    real.createFolders(folder);
  }

  @Override
  public void createBelow(Path root, Path folder) throws IOException {
    change();
    real.createBelow(root, folder);
  }

  @Override
  public boolean link(Path source, Path target) throws IOException {
    change();
    return real.link(source, target);
  }

  @Override
  public void copy(Path source, Path target) throws IOException {
    change();
    real.copy(source, target);
  }

  @Override
  public void move(Path from, Path to) throws IOException {
    change();
    real.move(from, to);
  }

  @Override
  public void deleteIfThere(Path file) throws IOException {
    change();
    real.deleteIfThere(file);
  }

  @Override
  public void deleteFolderIfEmpty(Path folder) throws IOException {
    change();
    real.deleteFolderIfEmpty(folder);
  }

  @Override
  public void flushFolder(Path folder) throws IOException {
    change();
  }

  @Override
  public void flushTree(Path folder) throws IOException {
    change();
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
