package ironing.core.deploy;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.core.archive.PackFile;
import ironing.core.deploy.DeployPlan.Act;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Step;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.LaidOut.Stamp;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntConsumer;
import java.util.stream.IntStream;

/**
 * The first half of applying a plan: all that takes nothing away.
 *
 * <p>A linked file whose place is free is linked there at once; the note of what will be laid out
 * lies in the staging before that, with the inode of each, so that a crash can tell them and take
 * them out again. All else that is new is put below {@code .ironing/staging}. The {@link Journal}
 * then holds the renames that are left.
 */
final class Staging {
  private static final int TELL_EVERY = 256;
  private final Disk disk;
  private final GameRoots roots;
  private final Notes notes;
  private final DeployPlan plan;
  private final Locator locator;
  private final IntConsumer progress;

  private final List<Journal.Move> moves = new ArrayList<>();
  private final Map<String, LaidOut.Item> put = new HashMap<>();
  private final Set<String> made;
  private final Set<String> leaving = new TreeSet<>();
  private final Set<String> added = new TreeSet<>();
  private final Set<String> looked = new HashSet<>();
  private final AtomicInteger done = new AtomicInteger();
  private final Queue<Direct> refused = new ConcurrentLinkedQueue<>();
  private boolean copied;

  private Staging(
      Disk disk,
      GameRoots roots,
      Notes notes,
      DeployPlan plan,
      Locator locator,
      IntConsumer progress) {
    this.disk = disk;
    this.notes = notes;
    this.roots = roots;
    this.plan = plan;
    this.locator = locator;
    this.progress = progress;
    this.made = new TreeSet<>(plan.after().folders());
  }

  /**
   * What is ready to be carried out.
   *
   * @param after what will be laid out then
   * @param added folders in which files were linked at their places
   */
  record Staged(Journal journal, LaidOut after, Set<String> added) {}

  /**
   * @param progress told how many steps are staged
   * @throws IroningException when a place leads outside, or an original that must come back is gone
   */
  static Staged stage(
      Disk disk,
      GameRoots roots,
      Notes notes,
      DeployPlan plan,
      Locator locator,
      IntConsumer progress)
      throws IOException {
    return new Staging(disk, roots, notes, plan, locator, progress).staged();
  }

  /**
   * A file that is linked at its place.
   *
   * @param n the number of its step
   */
  private record Direct(Step step, int n, Path source, Stamp stamp) {}

  private Staged staged() throws IOException {
    refuseLostOriginals();
    Set<String> stagings = stagings();
    for (String staging : stagings) {
      disk.createBelow(roots.root(staging), at(staging));
      if (!disk.isInside(roots.root(staging), at(staging)))
        throw DiskTrouble.leadsOutside(at(GamePath.folder(staging)));
    }
    new Markers(disk, roots).write(stagings);
    List<Step> direct = new ArrayList<>();
    List<Integer> numbers = new ArrayList<>();
    int n = 0;
    for (Step step : plan.steps()) {
      n++;
      if (isDirect(step)) {
        foldersFor(step.path());
        direct.add(step);
        numbers.add(n);
        continue;
      }
      if (leavesWithFolder(step)) foldersLeft(step.path());
      else {
        stage(step, n);
        told();
      }
    }
    settleFolders();
    takeOutByFolder();
    LaidOut after = link(sources(direct, numbers));
    if (copied) for (String staging : stagings) disk.flushTree(at(staging));
    if (direct.isEmpty() || !refused.isEmpty()) {
      after = after();
      notes.stage(after);
    }
    for (String staging : stagings) flushUp(staging);
    return new Staged(journal(), after, added);
  }

  // the homes in places may be new; that of the game is flushed with the journal
  private void flushUp(String staging) throws IOException {
    disk.flushFolder(at(staging));
    if (roots.top(staging).isEmpty()) return;
    for (String f = GamePath.folder(staging); !f.isEmpty(); f = GamePath.folder(f))
      disk.flushFolder(at(f));
  }

  /** The folders to stage in: the game’s, and that of each place in which something changes. */
  private Set<String> stagings() {
    Set<String> all = new TreeSet<>(Set.of(Deployer.STAGING));
    for (Step s : plan.steps()) {
      if (roots.places().isEmpty()) break;
      String top = roots.top(s.path());
      roots.require(top);
      all.add(Deployer.staging(roots, top));
    }
    return all;
  }

  private static boolean leavesWithFolder(Step s) {
    return s.act() == Act.TAKE_OUT && !s.changed();
  }

  /** What goes and fills a folder of ours goes with it, in one rename. */
  private void takeOutByFolder() throws IOException {
    Map<String, Integer> going = new HashMap<>();
    int n = 0;
    for (Step s : plan.steps()) {
      n++;
      if (leavesWithFolder(s)) going.put(s.path(), n);
    }
    if (going.isEmpty()) return;
    Set<String> whole = wholeFolders(going.keySet());
    Set<String> moved = new HashSet<>();
    for (Map.Entry<String, Integer> e : new TreeMap<>(going).entrySet()) {
      String top = e.getKey();
      for (String f = GamePath.folder(top); whole.contains(f); f = GamePath.folder(f)) top = f;
      if (!moved.add(top)) continue;
      String aside = Deployer.staging(roots, top) + "/old-" + e.getValue();
      if (disk.exists(at(top))) moves.add(new Journal.Move(Journal.Kind.ASIDE, top, aside));
      told();
    }
  }

  /** Folders that go and hold nothing but what goes too. */
  private Set<String> wholeFolders(Set<String> going) throws IOException {
    Set<String> whole = new HashSet<>(leaving);
    FolderWalk strangers = new FolderWalk(disk, roots, going::contains, leaving::contains, false);
    for (String top : leaving) {
      if (leaving.contains(GamePath.folder(top))) continue;
      strangers.strangers(
          top,
          top,
          (path, place, isFolder) -> {
            // of a file in the place of one of our folders there is nothing to go along
            whole.remove(path);
            // somebody else's: it stays, and so does every folder above it
            for (String f = GamePath.folder(path); whole.remove(f); f = GamePath.folder(f)) {}
          });
    }
    return whole;
  }

  private static boolean isDirect(Step s) {
    return s.act() == Act.ADD && s.wanted().filter(w -> !w.mustCopy()).isPresent();
  }

  private void told() {
    int n = done.incrementAndGet();
    if (plan.steps().size() > TELL_EVERY && n % TELL_EVERY != 0) return;
    synchronized (progress) {
      progress.accept(n);
    }
  }

  private List<Direct> sources(List<Step> steps, List<Integer> numbers) throws IOException {
    Direct[] found = new Direct[steps.size()];
    List<Integer> each = IntStream.range(0, found.length).boxed().toList();
    InParallel.each(
        each,
        i -> {
          Wanted w = steps.get(i).wanted().orElseThrow();
          Path source = locator.locate(w.mod(), ((Content.File) w.content()).spelled());
          found[i] = new Direct(steps.get(i), numbers.get(i), source, disk.stamp(source));
        });
    return List.of(found);
  }

  /**
   * Links at their places what can be; stages copies of what cannot.
   *
   * @return the note that is staged for it: the one that is to be, where nothing was refused
   */
  private LaidOut link(List<Direct> direct) throws IOException {
    if (direct.isEmpty()) return plan.after();
    for (Direct d : direct) put(d.step.path(), LaidOut.How.LINK, d.stamp);
    LaidOut after = after();
    notes.stage(after);
    disk.flushFolder(at(Deployer.STAGING));
    disk.flushFolder(at(Deployer.HOME));
    disk.flushFolder(roots.folder());
    for (Direct d : direct) added.add(GamePath.folder(d.step.path()));
    for (String f : added) disk.createBelow(roots.root(f), at(f));
    InParallel.each(
        direct,
        d -> {
          // by its inode a crash would have to tell it
          boolean linked = d.stamp.inode() != 0 && disk.link(d.source, at(d.step.path()));
          if (!linked) refused.add(d);
          told();
        });
    for (Direct d : refused) stage(d.step, d.n);
    return after;
  }

  private void stage(Step s, int n) throws IOException {
    String place = s.path();
    if (s.act() == Act.LET_GO) {
      String earlier = kept(place);
      if (disk.exists(at(earlier)))
        moves.add(
            new Journal.Move(
                Journal.Kind.ASIDE, earlier, freeAside(disk, roots, plan.after().at(), place)));
      return;
    }
    boolean there = disk.exists(at(place));
    if (s.wanted().isPresent()) {
      foldersFor(place);
      LaidOut.How how = put(s.wanted().get(), at(fresh(place, n)));
      if (how == LaidOut.How.COPY) copied = true;
      Stamp stamp = disk.stamp(at(fresh(place, n)));
      put(place, how, stamp);
    } else {
      foldersLeft(place);
    }
    if (there) moves.add(new Journal.Move(Journal.Kind.ASIDE, place, asideFor(s, place, n)));
    if (s.wanted().isPresent())
      moves.add(new Journal.Move(Journal.Kind.IN, fresh(place, n), place));
    else if (s.act() == Act.PUT_BACK) {
      moves.add(new Journal.Move(Journal.Kind.IN, kept(place), place));
    }
  }

  private void settleFolders() {
    if (leaving.isEmpty()) return;
    Items after = Items.of(plan.after().files());
    leaving.removeIf(after::anyBelow);
    made.removeAll(leaving);
  }

  private void put(String path, LaidOut.How how, Stamp stamp) {
    LaidOut.Item planned = plan.after().files().get(path);
    if (planned != null) put.put(path, planned.put(how, stamp));
  }

  private Journal journal() {
    Set<String> needed = new TreeSet<>();
    for (Journal.Move m : moves) needed.add(GamePath.folder(m.to()));
    needed.remove("");
    List<String> deepestFirst = leaving.stream().sorted(Comparator.reverseOrder()).toList();
    Set<String> known = Set.copyOf(plan.after().folders());
    List<String> fresh = made.stream().filter(f -> !known.contains(f)).toList();
    return new Journal(List.copyOf(moves), List.copyOf(needed), fresh, deepestFirst);
  }

  private LaidOut after() {
    return new LaidOut(
        plan.after().at(),
        Items.of(plan.after().files()).with(put),
        List.copyOf(made),
        plan.after().profile(),
        plan.after().owner());
  }

  private void refuseLostOriginals() {
    List<Problem> lost = new ArrayList<>();
    for (Step s : plan.steps()) {
      if (s.act() == Act.PUT_BACK && !disk.exists(at(kept(s.path())))) {
        lost.add(
            new Problem(
                "original-gone",
                kept(s.path()),
                "The game’s own file that was kept here is gone.",
                "Get it from a fresh copy of the game, put it here, and try again."));
      }
    }
    if (!lost.isEmpty()) throw new IroningException(lost);
  }

  private String asideFor(Step s, String place, int n) {
    // an original that is kept already is never overwritten, whoever put the other file there
    if (s.act() == Act.REPLACE && !disk.exists(at(kept(place)))) return kept(place);
    // what somebody changed is never thrown away with the staging
    if (s.changed() || s.act() == Act.REPLACE)
      return freeAside(disk, roots, plan.after().at(), place);
    return Deployer.staging(roots, place) + "/old-" + n;
  }

  // Two changes within one second must not meet: a rename onto an earlier one would lose it.
  static String freeAside(Disk disk, GameRoots roots, String at, String path) {
    String below = roots.below(path);
    return freeAside(disk, roots, Deployer.changed(roots, path), at, below);
  }

  /**
   * @param changed the folder to set it aside in, as a game path
   * @param place what to call it there
   */
  static String freeAside(Disk disk, GameRoots roots, String changed, String at, String place) {
    String name = changed + "/" + at.replace(':', '-');
    // of a stranger whose name is none for a game path
    boolean odd = GamePath.whyUnsafe(name + "-00000/" + place) != null;
    String as = odd ? "odd-names/" + ContentHash.of(place.getBytes(StandardCharsets.UTF_8)) : place;
    for (int i = 1; ; i++) {
      String aside = name + (i == 1 ? "" : "-" + i) + "/" + as;
      if (!disk.exists(roots.at(aside))) return aside;
    }
  }

  private LaidOut.How put(Wanted w, Path target) throws IOException {
    if (w.content() instanceof Content.Text text) {
      disk.write(target, text.utf8());
      return LaidOut.How.COPY;
    }
    if (w.content() instanceof Content.Packed packed) {
      disk.write(target, unpacked(locator.locate(w.mod(), packed.pack()), packed.entry()));
      return LaidOut.How.COPY;
    }
    Path source = locator.locate(w.mod(), ((Content.File) w.content()).spelled());
    if (w.mustCopy()) {
      disk.copy(source, target);
      return LaidOut.How.COPY;
    }
    if (disk.link(source, target)) return LaidOut.How.LINK;
    // the bytes go over instead
    disk.copy(source, target);
    return LaidOut.How.COPY;
  }

  private static byte[] unpacked(Path pack, String entry) throws IOException {
    return PackFile.read(pack, entry, Integer.MAX_VALUE);
  }

  /** Notes the folders that a file needs and that are not there, and that none leads outside. */
  private void foldersFor(String place) throws IOException {
    for (String f = GamePath.folder(place); !f.isEmpty(); f = GamePath.folder(f)) {
      if (!looked.add(f)) return;
      if (!disk.exists(at(f))) made.add(f);
      else if (!disk.isInside(roots.root(f), at(f))) throw DiskTrouble.leadsOutside(at(f));
    }
  }

  private void foldersLeft(String place) {
    for (String f = GamePath.folder(place); !f.isEmpty(); f = GamePath.folder(f)) {
      if (made.contains(f)) leaving.add(f);
    }
  }

  private String fresh(String place, int n) {
    return Deployer.staging(roots, place) + "/new-" + n;
  }

  private String kept(String place) {
    return Deployer.kept(roots, place);
  }

  private Path at(String path) {
    return roots.at(path);
  }
}
