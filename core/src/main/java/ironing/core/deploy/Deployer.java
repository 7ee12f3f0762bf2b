package ironing.core.deploy;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Act;
import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.DeployPlan.Step;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.path.GamePath;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
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
  static final String CHANGED = HOME + "/changed";

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
    FINISHED
  }

  /** What is deployed now; nothing when the folder has never been deployed to. */
  public LaidOut laidOut() {
    Path note = at(LAID_OUT);
    if (!disk.exists(note)) return LaidOut.nothing();
    try {
      return LaidOut.parse(disk.read(note));
    } catch (IOException e) {
      throw failure(e);
    }
  }

  /**
   * A look at the folder for {@link DeployPlan#make}. Compares sizes first and reads only where
   * they agree.
   */
  public DeployPlan.Look look(Map<String, Long> knownUnchanged) {
    return new DeployPlan.Look() {
      @Override
      public Found at(String path, Optional<LaidOut.Item> item) {
        Path place = GamePath.resolve(folder, path);
        if (!disk.exists(place)) return Found.ABSENT;
        if (item.isEmpty()) return Found.FOREIGN;
        try {
          if (Files.size(place) != item.get().sizeBytes()) return Found.DRIFTED;
          Long stamp = knownUnchanged.get(path);
          if (stamp != null
              && stamp == Files.getLastModifiedTime(place, LinkOption.NOFOLLOW_LINKS).toMillis())
            return Found.AS_LAID_OUT;
          return ContentHash.of(place).equals(item.get().sha256())
              ? Found.AS_LAID_OUT
              : Found.DRIFTED;
        } catch (IOException e) {
          throw failure(e);
        }
      }

      @Override
      public String sha256(String path) {
        try {
          return ContentHash.of(GamePath.resolve(folder, path));
        } catch (IOException e) {
          throw failure(e);
        }
      }
    };
  }

  /**
   * Makes the folder agree with the plan.
   *
   * @param progress told how many steps are staged
   * @throws IroningException with code {@code game-folder-refused} or {@code disk-full}; the folder
   *     is as before then
   */
  public LaidOut apply(DeployPlan plan, IntConsumer progress) {
    recover();
    if (plan.isEmpty()) return laidOut();
    try {
      Journal journal = stage(plan, progress);
      // From here on the change is decided: a crash is finished, not undone.
      disk.write(at(JOURNAL + ".new"), journal.toJson().getBytes(StandardCharsets.UTF_8));
      disk.move(at(JOURNAL + ".new"), at(JOURNAL));
      disk.flushFolder(at(HOME));
      try {
        perform(journal);
      } catch (IOException refused) {
        takeBack(journal, refused);
        throw refused;
      }
      finish(journal);
      return laidOut();
    } catch (IOException e) {
      IroningException told = failure(e);
      try {
        if (!disk.exists(at(JOURNAL))) removeLitter();
      } catch (IOException alsoFailed) {
        told.addSuppressed(alsoFailed);
      }
      throw told;
    }
  }

  /** To call before anything else touches the folder: finishes or clears what a crash left. */
  public Recovered recover() {
    try {
      if (disk.exists(at(JOURNAL))) {
        Journal journal = Journal.parse(disk.read(at(JOURNAL)));
        perform(journal);
        finish(journal);
        return Recovered.FINISHED;
      }
      return removeLitter() ? Recovered.LITTER_REMOVED : Recovered.NOTHING;
    } catch (IOException e) {
      throw failure(e);
    }
  }

  private Journal stage(DeployPlan plan, IntConsumer progress) throws IOException {
    disk.createFolders(at(STAGING));
    List<Journal.Move> moves = new ArrayList<>();
    Set<String> made = new TreeSet<>(plan.after().folders());
    Set<String> leaving = new TreeSet<>();
    Map<String, LaidOut.Item> files = new TreeMap<>(plan.after().files());
    int n = 0;
    for (Step s : plan.steps()) {
      n++;
      String place = s.path();
      boolean there = disk.exists(at(place));
      String fresh = STAGING + "/new-" + n;
      if (s.wanted().isPresent()) {
        LaidOut.How how = put(s.wanted().get(), at(fresh));
        LaidOut.Item i = files.get(place);
        files.put(
            place,
            new LaidOut.Item(
                i.path(), i.sha256(), i.sizeBytes(), i.mod(), i.from(), how, i.replaced()));
        newFolders(place, made);
      }
      String kept = KEPT + "/" + place;
      if (there)
        moves.add(
            new Journal.Move(
                Journal.Kind.ASIDE, place, asideFor(s, place, kept, n, plan.after().at())));
      if (s.wanted().isPresent()) moves.add(new Journal.Move(Journal.Kind.IN, fresh, place));
      else if (s.act() == Act.PUT_BACK) moves.add(new Journal.Move(Journal.Kind.IN, kept, place));
      if (s.wanted().isEmpty()) leavingFolders(place, made, leaving);
      progress.accept(n);
    }
    disk.flushFolder(at(STAGING));
    made.removeIf(
        f -> leaving.contains(f) && files.keySet().stream().noneMatch(p -> p.startsWith(f + "/")));
    LaidOut after = new LaidOut(plan.after().at(), files, new ArrayList<>(made));
    Set<String> needed = new TreeSet<>();
    for (Journal.Move m : moves) needed.add(GamePath.folder(m.to()));
    needed.remove("");
    return new Journal(
        moves,
        after.toJson(),
        new ArrayList<>(needed),
        new ArrayList<>(leaving).stream().sorted(Comparator.reverseOrder()).toList());
  }

  private String asideFor(Step s, String place, String kept, int n, String now) {
    // an original that is kept already is never overwritten, whoever put the other file there
    if (s.act() == Act.REPLACE && !disk.exists(at(kept))) return kept;
    // what somebody changed is never thrown away with the staging
    return s.changed() || s.act() == Act.REPLACE
        ? CHANGED + "/" + now.replace(':', '-') + "/" + place
        : STAGING + "/old-" + n;
  }

  private LaidOut.How put(Wanted w, Path target) throws IOException {
    if (w.text().isPresent()) {
      disk.write(target, w.text().get());
      return LaidOut.How.COPY;
    }
    Path source = w.source().orElseThrow();
    if (w.mustCopy()) {
      disk.copy(source, target);
      return LaidOut.How.COPY;
    }
    return disk.linkOrCopy(source, target) ? LaidOut.How.LINK : LaidOut.How.COPY;
  }

  private void newFolders(String place, Set<String> made) {
    for (String f = GamePath.folder(place); !f.isEmpty(); f = GamePath.folder(f))
      if (!disk.exists(at(f))) made.add(f);
  }

  private static void leavingFolders(String place, Set<String> made, Set<String> leaving) {
    for (String f = GamePath.folder(place); !f.isEmpty(); f = GamePath.folder(f))
      if (made.contains(f)) leaving.add(f);
  }

  private void perform(Journal journal) throws IOException {
    for (String f : journal.folders()) disk.createFolders(at(f));
    for (Journal.Move m : journal.moves()) if (!isDone(m)) disk.move(at(m.from()), at(m.to()));
    for (String f : foldersOf(journal)) disk.flushFolder(at(f));
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
      for (String f : foldersOf(journal)) disk.flushFolder(at(f));
      disk.deleteIfThere(at(JOURNAL));
      Set<String> before = new TreeSet<>(laidOut().folders());
      for (String f : new TreeSet<>(journal.folders()).descendingSet())
        if (!before.contains(f)) disk.deleteFolderIfEmpty(at(f));
      removeLitter();
    } catch (IOException alsoFailed) {
      // the journal stays: the next start, or the next try, goes forward from it
      why.addSuppressed(alsoFailed);
    }
  }

  private static Set<String> foldersOf(Journal journal) {
    Set<String> folders = new TreeSet<>();
    for (Journal.Move m : journal.moves()) {
      folders.add(GamePath.folder(m.from()));
      folders.add(GamePath.folder(m.to()));
    }
    return folders;
  }

  private void finish(Journal journal) throws IOException {
    LaidOut after = LaidOut.parse(journal.laidOut());
    for (String f : journal.leaving()) disk.deleteFolderIfEmpty(at(f));
    if (after.files().isEmpty()) {
      disk.deleteIfThere(at(LAID_OUT));
      disk.deleteIfThere(at(SUMS));
    } else {
      replace(LAID_OUT, journal.laidOut());
      replace(SUMS, Sums.lines(after));
    }
    disk.flushFolder(at(HOME));
    removeStaging();
    disk.deleteIfThere(at(JOURNAL));
    removeEmptyHome();
    disk.flushFolder(at(HOME));
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
    if (disk.exists(at(HOME)) && !disk.exists(at(JOURNAL))) disk.deleteFolderIfEmpty(at(HOME));
  }

  private Path at(String relative) {
    return relative.isEmpty() ? folder : GamePath.resolve(folder, relative);
  }

  private IroningException failure(IOException e) {
    String thing =
        e instanceof FileSystemException f && f.getFile() != null ? f.getFile() : folder.toString();
    String text = String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT);
    if (text.contains("no space left") || text.contains("disk quota")) {
      return IroningException.of(
          "disk-full",
          thing,
          "There is no space left on this drive; the game folder is as it was.",
          "Free some space there and deploy again.",
          e);
    }
    if (e instanceof AccessDeniedException
        || text.contains("read-only")
        || text.contains("permission denied")) {
      return IroningException.of(
          "game-folder-refused",
          thing,
          "This place may not be written to; the game folder is as it was.",
          "Give yourself the right to write there, or move the game out of a protected place, and deploy again.",
          e);
    }
    return IroningException.of(
        "game-folder-failed",
        thing,
        "The disk refused: " + e.getMessage() + ".",
        "See that the drive is connected and sound, then try again; an unfinished change is finished or taken back first.",
        e);
  }
}
