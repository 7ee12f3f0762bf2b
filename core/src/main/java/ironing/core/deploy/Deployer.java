package ironing.core.deploy;

import ironing.core.IroningException;
import ironing.core.path.GamePath;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntConsumer;

/**
 * Applies plans to one game folder.
 *
 * <p>Idea: everything new is first staged inside the folder, flushed; then the whole change is
 * written as a {@link Journal} of renames and flushed; then the renames are done; then the folders,
 * the note of what is laid out and the sums are flushed and the journal removed. A crash before the
 * journal leaves the old tree and some staging litter, which {@link #recover} removes; a crash
 * after it is finished by {@link #recover}. When the disk refuses one of the renames, those already
 * done are taken back.
 *
 * <p>Threads: one at a time for a folder; the caller sees to that.
 */
public final class Deployer {
  static final String HOME = ".ironing";
  static final String LAID_OUT = HOME + "/laid-out.json";
  static final String SUMS = HOME + "/SHA256SUMS";
  static final String JOURNAL = HOME + "/journal";
  static final String STAGING = HOME + "/staging";
  static final String KEPT = HOME + "/kept";

  /** Where files go that somebody changed after they were deployed. */
  public static final String CHANGED = HOME + "/changed";

  private final Disk disk;
  private final Path folder;

  public Deployer(Disk disk, Path folder) {
    this.disk = disk;
    this.folder = folder.toAbsolutePath().normalize();
  }

  /** What recovery had to do. */
  public enum Recovered {
    NOTHING,
    LITTER_REMOVED,
    FINISHED,
    TAKEN_BACK
  }

  /** Where an original lies while a file of a mod stands in its place. */
  public static Path keptOriginal(Path gameFolder, String path) {
    return GamePath.resolve(gameFolder, KEPT + "/" + path);
  }

  /** What is deployed now; nothing when the folder has never been deployed to. */
  public LaidOut laidOut() {
    Path note = at(LAID_OUT);
    if (!disk.exists(note)) return LaidOut.nothing();
    try {
      return LaidOut.parse(disk.read(note));
    } catch (IOException e) {
      throw DiskTrouble.of(folder, e);
    }
  }

  /** A look at the folder for {@link DeployPlan#make}. */
  public DeployPlan.Look look() {
    return new FolderLook(folder);
  }

  /**
   * Makes the folder agree with the plan.
   *
   * @param locator asked once for every file that is to be linked or copied
   * @param progress told how many steps are staged; what it throws ends the work before the game is
   *     touched
   * @throws IroningException with code {@code game-folder-refused}, {@code disk-full}, {@code
   *     game-folder-failed}, {@code game-folder-leads-outside} or {@code original-gone}; the folder
   *     is as before then
   */
  public LaidOut apply(DeployPlan plan, Locator locator, IntConsumer progress) {
    recover();
    if (plan.isEmpty() && plan.after().profile().equals(laidOut().profile())) return laidOut();
    try {
      Journal journal = Staging.stage(disk, folder, plan, locator, progress);
      // From here on the change is decided: a crash is finished, not undone.
      disk.write(at(JOURNAL + ".new"), journal.toJson().getBytes(StandardCharsets.UTF_8));
      disk.move(at(JOURNAL + ".new"), at(JOURNAL));
      disk.flushFolder(at(HOME));
      disk.flushFolder(folder);
      try {
        perform(journal);
      } catch (IOException refused) {
        takeBack(journal, refused);
        throw refused;
      }
      finish(journal);
      return laidOut();
    } catch (IOException e) {
      IroningException told = DiskTrouble.of(folder, e);
      clearAfter(told);
      throw told;
    } catch (RuntimeException stopped) {
      clearAfter(stopped);
      throw stopped;
    }
  }

  private void clearAfter(RuntimeException told) {
    try {
      if (!disk.exists(at(JOURNAL))) removeLitter();
    } catch (IOException alsoFailed) {
      told.addSuppressed(alsoFailed);
    }
  }

  /**
   * To call before anything else touches the folder: finishes what a crash left, takes it back
   * where the disk refuses to have it finished, or clears what was only staged.
   */
  public Recovered recover() {
    try {
      if (!disk.exists(at(JOURNAL))) {
        return removeLitter() ? Recovered.LITTER_REMOVED : Recovered.NOTHING;
      }
      Journal journal = Journal.parse(disk.read(at(JOURNAL)));
      try {
        perform(journal);
      } catch (IOException refused) {
        takeBack(journal, refused);
        if (disk.exists(at(JOURNAL))) throw refused;
        return Recovered.TAKEN_BACK;
      }
      finish(journal);
      return Recovered.FINISHED;
    } catch (IOException e) {
      throw DiskTrouble.of(folder, e);
    }
  }

  private void perform(Journal journal) throws IOException {
    for (String f : journal.folders()) disk.createFolders(at(f));
    for (Journal.Move m : journal.moves()) if (!isDone(m)) disk.move(at(m.from()), at(m.to()));
    for (String f : touched(journal)) disk.flushFolder(at(f));
  }

  private boolean isDone(Journal.Move m) {
    return m.kind() == Journal.Kind.ASIDE ? disk.exists(at(m.to())) : !disk.exists(at(m.from()));
  }

  private void takeBack(Journal journal, IOException why) {
    try {
      for (int i = journal.moves().size() - 1; i >= 0; i--) {
        Journal.Move m = journal.moves().get(i);
        if (isDone(m) && disk.exists(at(m.to()))) disk.move(at(m.to()), at(m.from()));
      }
      for (String f : touched(journal)) disk.flushFolder(at(f));
      disk.deleteIfThere(at(JOURNAL));
      disk.flushFolder(at(HOME));
      Set<String> before = new TreeSet<>(laidOut().folders());
      for (String f : withParents(journal.folders()).descendingSet()) {
        // folders of the game stay even if they are empty: only those that the journal made may go
        if (!before.contains(f) && journal.made().contains(f)) disk.deleteFolderIfEmpty(at(f));
      }
      removeLitter();
    } catch (IOException alsoFailed) {
      // the journal stays: the next start, or the next try, goes forward from it
      why.addSuppressed(alsoFailed);
    }
  }

  /** Every folder whose entries the change touches, and those above, which hold new folders. */
  private static Set<String> touched(Journal journal) {
    Set<String> folders = new TreeSet<>();
    for (Journal.Move m : journal.moves()) {
      folders.add(GamePath.folder(m.from()));
      folders.add(GamePath.folder(m.to()));
    }
    return withParents(folders);
  }

  private static TreeSet<String> withParents(Iterable<String> folders) {
    TreeSet<String> all = new TreeSet<>(Set.of(""));
    for (String folder : folders) {
      for (String f = folder; !f.isEmpty() && all.add(f); f = GamePath.folder(f)) {}
    }
    return all;
  }

  private void finish(Journal journal) throws IOException {
    LaidOut after = LaidOut.parse(journal.laidOut());
    for (String f : journal.leaving()) {
      disk.deleteFolderIfEmpty(at(f));
      disk.flushFolder(at(GamePath.folder(f)));
    }
    if (after.files().isEmpty()) {
      disk.deleteIfThere(at(LAID_OUT));
      disk.deleteIfThere(at(SUMS));
    } else {
      replace(LAID_OUT, journal.laidOut());
      replace(SUMS, Sums.lines(after));
    }
    disk.flushFolder(at(HOME));
    // The journal goes before the staging: without what was moved aside there, doing the journal
    // again
    // would take the new files for the old ones.
    disk.deleteIfThere(at(JOURNAL));
    disk.flushFolder(at(HOME));
    removeStaging();
    removeEmptyHome();
  }

  private void replace(String file, String text) throws IOException {
    disk.write(at(file + ".new"), text.getBytes(StandardCharsets.UTF_8));
    disk.move(at(file + ".new"), at(file));
  }

  private boolean removeLitter() throws IOException {
    boolean any = disk.exists(at(STAGING)) || disk.exists(at(JOURNAL + ".new"));
    disk.deleteIfThere(at(JOURNAL + ".new"));
    removeStaging();
    removeEmptyHome();
    return any;
  }

  private void removeStaging() throws IOException {
    for (Path p : disk.below(at(STAGING))) disk.deleteIfThere(p);
  }

  private void removeEmptyHome() throws IOException {
    for (Path p : disk.below(at(KEPT))) if (Files.isDirectory(p)) disk.deleteFolderIfEmpty(p);
    if (disk.exists(at(HOME)) && !disk.exists(at(JOURNAL))) {
      disk.deleteFolderIfEmpty(at(HOME));
      disk.flushFolder(folder);
    }
  }

  private Path at(String relative) {
    return relative.isEmpty() ? folder : GamePath.resolve(folder, relative);
  }
}
