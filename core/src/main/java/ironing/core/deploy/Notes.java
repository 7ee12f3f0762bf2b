package ironing.core.deploy;

import ironing.core.deploy.LaidOut.Stamp;
import ironing.core.path.GamePath;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The note of what is laid out as it lies on disk: the whole as it was once, and small changes of
 * it since, each a file with a number. Every one of them gets there by one rename, and a whole
 * names the last change that is in it: a crash anywhere leaves the note of before or the one of
 * after.
 *
 * <p>Cost: a small change is written as such, whatever there is beside; now and then all is written
 * as a whole again.
 *
 * <p>Threads: as {@link Deployer}.
 */
final class Notes {
  static final String CHANGES = Deployer.HOME + "/changes";

  /** A whole note that is to take the place of the one there is. */
  static final String NEXT = Deployer.STAGING + "/laid-out.json";

  /** A change that is to be among those there are. */
  static final String NEXT_CHANGE = Deployer.STAGING + "/laid-out-change.json";

  private static final int MOST_CHANGES = 16;
  private final Disk disk;
  private final Path folder;
  private volatile Read known;

  Notes(Disk disk, Path folder) {
    this.disk = disk;
    this.folder = folder;
  }

  /** The note as it was at a time of its own: asking again costs two questions. */
  private record Read(Stamp whole, Optional<Stamp> changes, long last, int count, LaidOut note) {}

  /** What is laid out; nothing when no note is there. */
  LaidOut note() throws IOException {
    return disk.exists(at(Deployer.LAID_OUT)) ? read().note() : LaidOut.nothing();
  }

  private Read read() throws IOException {
    Stamp whole = disk.stamp(at(Deployer.LAID_OUT));
    Path changes = at(CHANGES);
    Optional<Stamp> stamp =
        disk.exists(changes) ? Optional.of(disk.stamp(changes)) : Optional.empty();
    Read last = known;
    if (last != null && last.whole.equals(whole) && last.changes.equals(stamp)) return last;
    LaidOutText.Whole start = LaidOutText.read(disk.read(at(Deployer.LAID_OUT)));
    LaidOut note = start.note();
    long through = start.through();
    List<Long> numbers = numbers();
    for (long n : numbers) {
      if (n <= start.through()) continue;
      String name = change(n);
      note = LaidOutText.readChange(name, disk.read(at(name))).on(note);
      through = n;
    }
    Read fresh = new Read(whole, stamp, through, numbers.size(), note);
    known = fresh;
    return fresh;
  }

  private List<Long> numbers() throws IOException {
    List<Long> numbers = new ArrayList<>();
    for (Path p : disk.below(at(CHANGES))) {
      String name = p.getFileName().toString();
      if (name.matches("\\d{1,18}\\.json"))
        numbers.add(Long.parseLong(name.substring(0, name.indexOf('.'))));
    }
    numbers.sort(null);
    return numbers;
  }

  private static String change(long number) {
    return CHANGES + "/" + number + ".json";
  }

  /** Writes into the staging what the note is to be, as a change where that is little. */
  void stage(LaidOut after) throws IOException {
    boolean any = disk.exists(at(Deployer.LAID_OUT));
    Read before = any ? read() : new Read(null, Optional.empty(), 0, 0, LaidOut.nothing());
    Optional<NoteChange> little =
        any && before.count < MOST_CHANGES
            ? NoteChange.between(before.note, after, before.last + 1)
            : Optional.empty();
    if (little.isPresent()) disk.write(at(NEXT_CHANGE), LaidOutText.write(little.get()));
    else disk.write(at(NEXT), LaidOutText.write(after, before.last));
  }

  /**
   * What the note is to be.
   *
   * @return empty where nothing is staged any more
   * @throws ironing.core.IroningException where a crash cut it short
   */
  Optional<LaidOut> staged() throws IOException {
    if (disk.exists(at(NEXT))) return Optional.of(LaidOutText.read(disk.read(at(NEXT))).note());
    Optional<NoteChange> change = stagedChange();
    return change.isEmpty() ? Optional.empty() : Optional.of(change.get().on(note()));
  }

  /** The same where it was written as a change. */
  Optional<NoteChange> stagedChange() throws IOException {
    if (!disk.exists(at(NEXT_CHANGE))) return Optional.empty();
    return Optional.of(LaidOutText.readChange(NEXT_CHANGE, disk.read(at(NEXT_CHANGE))));
  }

  boolean isStaged() {
    return disk.exists(at(NEXT)) || disk.exists(at(NEXT_CHANGE));
  }

  /** Lets what is staged be the note; what of it has been done before a crash is not done again. */
  void take(LaidOut after) throws IOException {
    Read before = known;
    if (after.files().isEmpty()) {
      // first that, for without it the changes do not count
      disk.deleteIfThere(at(Deployer.LAID_OUT));
      disk.flushFolder(at(Deployer.HOME));
      removeChanges();
      return;
    }
    if (disk.exists(at(NEXT))) {
      disk.move(at(NEXT), at(Deployer.LAID_OUT));
      // then the changes that it holds may go
      disk.flushFolder(at(Deployer.HOME));
      removeChanges();
      long last = before == null ? 0 : before.last;
      known = new Read(disk.stamp(at(Deployer.LAID_OUT)), Optional.empty(), last, 0, after);
    } else if (disk.exists(at(NEXT_CHANGE))) {
      long number = stagedChange().orElseThrow().number();
      if (!disk.exists(at(CHANGES))) disk.createBelow(folder, at(CHANGES));
      disk.move(at(NEXT_CHANGE), at(change(number)));
      disk.flushFolder(at(CHANGES));
      Stamp whole = disk.stamp(at(Deployer.LAID_OUT));
      Optional<Stamp> changes = Optional.of(disk.stamp(at(CHANGES)));
      int count = before == null ? MOST_CHANGES : before.count + 1;
      known = new Read(whole, changes, number, count, after);
    }
  }

  private void removeChanges() throws IOException {
    if (!disk.exists(at(CHANGES))) return;
    for (long n : numbers()) disk.deleteIfThere(at(change(n)));
    disk.deleteFolderIfEmpty(at(CHANGES));
  }

  private Path at(String relative) {
    return GamePath.resolve(folder, relative);
  }
}
