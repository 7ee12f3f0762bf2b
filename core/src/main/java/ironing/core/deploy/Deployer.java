package ironing.core.deploy;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.FolderLook.Depth;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.IntConsumer;

/**
 * Applies plans to one game folder and the places beside it.
 *
 * <p>Idea: first all that takes nothing away ({@link Staging}): files are linked where nothing is,
 * and what else is new is staged inside the folder; flushed. Then what is left is written as a
 * {@link Journal} of renames and flushed; then the renames are done; then the folders, the note of
 * what is laid out and the sums are flushed and the journal removed. A crash before the journal
 * leaves the old tree with some new files and staging litter, which {@link #recover} takes out
 * again; a crash after it is finished by {@link #recover}. When the disk refuses one of the
 * renames, those already done are taken back.
 *
 * <p>Over several places it is one change: journal and notes lie in the game’s folder, and what is
 * staged or kept for a place lies in that place, so that every rename stays on one drive. Where a
 * place is gone that a change was cut short in, nothing goes on before it is there again.
 *
 * <p>Cost: a link or two renames a file, on all processors; one flush of the file system where more
 * than {@value #SINGLY} folders were touched.
 *
 * <p>Threads: one at a time for a folder; the caller sees to that. {@link #laidOut} and looks may
 * be asked for by any.
 */
public final class Deployer {
  public static final String HOME = GameRoots.HOME;
  static final String LAID_OUT = HOME + "/laid-out.json";
  static final String SUMS = HOME + "/SHA256SUMS";
  static final String JOURNAL = HOME + "/journal";
  private static final String STAGED = "/staging", KEPT = "/kept", ASIDE = "/changed";
  static final String STAGING = HOME + STAGED;

  /** Where files go that somebody changed after they were deployed. */
  public static final String CHANGED = HOME + ASIDE;

  private static final int SINGLY = 64;
  private final Disk disk;
  private final GameRoots roots;
  private final Optional<String> owner;
  private final Notes notes;

  /** For a game all of which lies in its folder. */
  public Deployer(Disk disk, Path folder) {
    this(disk, GameRoots.of(folder), Optional.empty());
  }

  /**
   * @param owner the workspace that deploys, for the note
   */
  public Deployer(Disk disk, GameRoots roots, Optional<String> owner) {
    this.disk = disk;
    this.owner = owner;
    this.roots = roots;
    this.notes = new Notes(disk, roots.folder());
  }

  /** What recovery had to do. */
  public enum Recovered {
    NOTHING,
    LITTER_REMOVED,
    FINISHED,
    TAKEN_BACK
  }

  /** Where an original lies while a file of a mod stands in its place. */
  public static Path keptOriginal(GameRoots roots, String path) {
    return roots.at(kept(roots, path));
  }

  /** The same as a game path. */
  static String kept(GameRoots roots, String path) {
    return roots.home(path) + KEPT + "/" + roots.below(path);
  }

  /** Where what is staged for a path lies, as a game path. */
  static String staging(GameRoots roots, String path) {
    return roots.home(path) + STAGED;
  }

  /** The folder of what is set aside of a path’s top, as a game path. */
  public static String changed(GameRoots roots, String path) {
    return roots.home(path) + ASIDE;
  }

  /** What is deployed now; nothing when the folder has never been deployed to. */
  public LaidOut laidOut() {
    try {
      return notes.note();
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /** A look for {@link DeployPlan#make} that knows files again by size, time and inode. */
  public DeployPlan.Look look() {
    return new FolderLook(roots, Depth.QUICK);
  }

  /** A look that reads every file that is laid out. */
  public DeployPlan.Look thorough() {
    return new FolderLook(roots, Depth.THOROUGH);
  }

  /** A look that believes the note: what is laid out is there. */
  public DeployPlan.Look trusting() {
    return new FolderLook(roots, Depth.TRUSTING);
  }

  /**
   * Makes the folder agree with the plan.
   *
   * @param locator asked once for every file that is to be linked or copied, by several threads
   * @param progress told how many steps are staged; what it throws ends the work before the game is
   *     touched
   * @throws IroningException with code {@code game-folder-refused}, {@code disk-full}, {@code
   *     game-folder-failed}, {@code game-folder-leads-outside} or {@code original-gone}; the folder
   *     is as before then
   */
  public LaidOut apply(DeployPlan plan, Locator locator, IntConsumer progress) {
    recover();
    if (plan.isEmpty() && plan.after().profile().equals(laidOut().profile())) return laidOut();
    Neighbours.requireNone(roots, plan);
    try {
      DeployPlan owned = new DeployPlan(plan.steps(), plan.after().by(owner));
      Staging.Staged staged = Staging.stage(disk, roots, notes, owned, locator, progress);
      flushEach(withParents(staged.added()));
      Journal journal = staged.journal();
      // From here on the change is decided: a crash is finished, not undone.
      disk.write(at(JOURNAL + ".new"), journal.toBytes());
      disk.move(at(JOURNAL + ".new"), at(JOURNAL));
      disk.flushFolder(at(HOME));
      disk.flushFolder(roots.folder());
      try {
        perform(journal, true);
      } catch (IOException refused) {
        takeBack(journal, refused);
        throw refused;
      }
      finish(journal, staged.after(), notes.stagedChange());
      return laidOut();
    } catch (IOException e) {
      IroningException told = DiskTrouble.of(roots, e);
      clearAfter(told);
      throw told;
    } catch (RuntimeException stopped) {
      clearAfter(stopped);
      throw stopped;
    }
  }

  /**
   * Moves files that nobody deployed out of the game's way, each to its own path below {@link
   * #CHANGED}; a crash leaves each where it was or there.
   *
   * @param at the moment, RFC 3339
   * @return how many there were
   */
  public int setAside(Collection<String> paths, String at) {
    recover();
    LaidOut laid = laidOut();
    int n = 0;
    try {
      for (String path : paths) {
        Path place = at(path);
        if (laid.files().containsKey(path) || !disk.exists(place)) continue;
        String aside = Staging.freeAside(disk, roots, at, path);
        disk.createBelow(roots.root(aside), at(GamePath.folder(aside)));
        if (!disk.isInside(roots.root(aside), at(GamePath.folder(aside))))
          throw DiskTrouble.leadsOutside(place);
        disk.move(place, at(aside));
        disk.flushFolder(at(GamePath.folder(aside)));
        disk.flushFolder(at(GamePath.folder(path)));
        n++;
      }
      return n;
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /**
   * Removes files whose content somebody else has on disk by now; one that has changed meanwhile
   * stays. Those that were deployed are missing then, until the next deployment.
   *
   * @param files game path to SHA-256
   */
  public void takeOff(Map<String, String> files) {
    recover();
    Set<String> folders = new TreeSet<>();
    try {
      for (Map.Entry<String, String> f : files.entrySet()) {
        Path place = at(f.getKey());
        if (!Files.isRegularFile(place, LinkOption.NOFOLLOW_LINKS)
            || !ContentHash.of(place).equals(f.getValue())) continue;
        disk.deleteIfThere(place);
        folders.add(GamePath.folder(f.getKey()));
      }
      flushEach(folders);
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
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
        if (removeLitter()) return Recovered.LITTER_REMOVED;
        // the last that undeploying does is to remove what is empty then
        if (!disk.exists(at(LAID_OUT))) removeEmptyHome();
        return Recovered.NOTHING;
      }
      Journal journal = Journal.parse(disk.read(at(JOURNAL)));
      requireAll(touched(journal));
      try {
        perform(journal, false);
      } catch (IOException refused) {
        takeBack(journal, refused);
        if (disk.exists(at(JOURNAL))) throw refused;
        return Recovered.TAKEN_BACK;
      }
      // without a staged note it has become the note already
      Optional<LaidOut> staged = notes.staged();
      finish(journal, staged.isPresent() ? staged.get() : notes.note(), Optional.empty());
      return Recovered.FINISHED;
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /**
   * @param first whether none of it can have been done yet
   */
  private void perform(Journal journal, boolean first) throws IOException {
    for (String f : journal.folders()) disk.createBelow(roots.root(f), at(f));
    // what goes aside makes room for what comes in
    for (Journal.Kind kind : Journal.Kind.values())
      InParallel.each(
          journal.moves().stream().filter(m -> m.kind() == kind).toList(),
          m -> {
            if (first || !isDone(m)) disk.move(at(m.from()), at(m.to()));
          });
    // what went aside is sure to be there before what came in its place is
    Set<String> folders = new LinkedHashSet<>();
    for (String f : touched(journal).descendingSet()) if (isOurs(f)) folders.add(f);
    folders.addAll(touched(journal));
    flushEach(folders);
  }

  private boolean isOurs(String folder) {
    return GamePath.isBelow(folder + "/", roots.home(folder));
  }

  /** Flushes folders one by one, or, where there are many, all at one stroke. */
  private void flushEach(Set<String> folders) throws IOException {
    if (folders.size() > SINGLY) {
      Set<Path> drives = new TreeSet<>();
      for (String f : folders) drives.add(roots.root(f));
      for (Path d : drives) disk.flushTree(d);
      return;
    }
    for (String f : folders) disk.flushFolder(at(f));
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
      flushEach(touched(journal));
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
  private static NavigableSet<String> touched(Journal journal) {
    Set<String> folders = new TreeSet<>();
    for (Journal.Move m : journal.moves()) {
      folders.add(GamePath.folder(m.from()));
      folders.add(GamePath.folder(m.to()));
    }
    return withParents(folders);
  }

  private static NavigableSet<String> withParents(Iterable<String> folders) {
    NavigableSet<String> all = new TreeSet<>(Set.of(""));
    for (String folder : folders) {
      for (String f = folder; !f.isEmpty() && all.add(f); f = GamePath.folder(f)) {}
    }
    return all;
  }

  /**
   * A folder that went whole may have got a file of somebody else’s since it was looked at, the
   * more so when a crash lay between: that is set aside before the staging is emptied.
   */
  private void rescue(Journal journal) throws IOException {
    // with the note replaced it has been done before a crash
    if (!notes.isStaged() || !disk.exists(at(LAID_OUT))) return;
    LaidOut before = laidOut();
    Set<String> went = new HashSet<>(journal.leaving());
    FolderWalk strangers =
        new FolderWalk(disk, roots, before.files()::containsKey, went::contains, true);
    for (Journal.Move m : journal.moves()) {
      if (m.kind() != Journal.Kind.ASIDE || !went.contains(m.from())) continue;
      strangers.strangers(
          m.to(),
          m.from(),
          (place, lies, isFolder) -> {
            if (isFolder) return;
            String aside = Staging.freeAside(disk, roots, before.at(), place);
            disk.createBelow(roots.root(aside), at(GamePath.folder(aside)));
            disk.move(lies, at(aside));
            disk.flushFolder(at(GamePath.folder(aside)));
          });
    }
  }

  /**
   * @param little what of the note is another, where the sums are known to be those of before; else
   *     they are written as a whole
   */
  private void finish(Journal journal, LaidOut after, Optional<NoteChange> little)
      throws IOException {
    rescue(journal);
    for (String f : journal.leaving()) disk.deleteFolderIfEmpty(at(f));
    Set<String> emptied = new TreeSet<>();
    for (String f : journal.leaving()) emptied.add(GamePath.folder(f));
    flushEach(emptied);
    notes.take(after);
    if (after.files().isEmpty()) disk.deleteIfThere(at(SUMS));
    else if (little.isEmpty() || !Sums.amend(disk, at(SUMS), little.get(), roots)) {
      disk.write(at(SUMS + ".new"), Sums.lines(after, roots).getBytes(StandardCharsets.UTF_8));
      disk.move(at(SUMS + ".new"), at(SUMS));
    }
    disk.flushFolder(at(HOME));
    // The journal goes before the staging: without what was moved aside there, doing the journal
    // again would take the new files for the old ones.
    disk.deleteIfThere(at(JOURNAL));
    disk.flushFolder(at(HOME));
    removeStaging();
    removeEmptyHome();
  }

  private boolean removeLitter() throws IOException {
    boolean any = disk.exists(at(JOURNAL + ".new"));
    for (String top : roots.tops()) any |= disk.exists(at(staging(roots, top)));
    if (!any) return false;
    disk.deleteIfThere(at(JOURNAL + ".new"));
    takeOutAdded();
    removeStaging();
    removeEmptyHome();
    return true;
  }

  /** Takes out what was linked at its place for a change that was never decided. */
  private void takeOutAdded() throws IOException {
    LaidOut before = laidOut();
    LaidOut staged;
    try {
      staged = notes.staged().orElse(null);
    } catch (IroningException cutShort) {
      // nothing is linked before the note is whole
      return;
    }
    if (staged == null) return;
    List<LaidOut.Item> added =
        staged.files().values().stream()
            .filter(i -> i.how() == LaidOut.How.LINK && !before.files().containsKey(i.path()))
            .toList();
    Set<String> folders = ConcurrentHashMap.newKeySet();
    Set<String> made = new TreeSet<>(staged.folders());
    made.removeAll(before.folders());
    requireAll(added.stream().map(LaidOut.Item::path).toList());
    requireAll(made);
    InParallel.each(
        added,
        i -> {
          if (!isStill(i)) return;
          disk.deleteIfThere(at(i.path()));
          folders.add(GamePath.folder(i.path()));
        });
    for (String f : new TreeSet<>(made).descendingSet()) disk.deleteFolderIfEmpty(at(f));
    flushEach(withParents(folders));
  }

  // a file of the library under another name: nothing is lost with it
  private boolean isStill(LaidOut.Item i) throws IOException {
    Path place = at(i.path());
    if (i.stamp().isEmpty() || !disk.exists(place)) return false;
    return disk.stamp(place).inode() == i.stamp().get().inode();
  }

  private void removeStaging() throws IOException {
    // that of the game goes last: it tells what else there is
    for (String top : lastFirst()) disk.removeTree(at(staging(roots, top)));
  }

  private List<String> lastFirst() {
    return roots.tops().stream().sorted(Comparator.reverseOrder()).toList();
  }

  private void requireAll(Collection<String> paths) {
    paths.stream().map(roots::top).distinct().forEach(roots::require);
  }

  private void removeEmptyHome() throws IOException {
    boolean cutShort = disk.exists(at(JOURNAL));
    for (String top : lastFirst()) {
      String home = roots.home(top);
      // in a place ours lies in one that games share, which a crash may have left alone
      String outer = top.isEmpty() ? home : GamePath.folder(home);
      for (Path p : disk.below(at(home + KEPT)))
        if (Files.isDirectory(p)) disk.deleteFolderIfEmpty(p);
      if (cutShort || !disk.exists(at(outer)) || isDeployedTo(top)) continue;
      new Markers(disk, roots).removeLast(top);
      disk.deleteFolderIfEmpty(at(home));
      disk.deleteFolderIfEmpty(at(outer));
      disk.flushFolder(at(top));
    }
  }

  private boolean isDeployedTo(String top) {
    return !top.isEmpty()
        && laidOut().files().keySet().stream().anyMatch(p -> roots.top(p).equals(top));
  }

  private Path at(String path) {
    return roots.at(path);
  }
}
