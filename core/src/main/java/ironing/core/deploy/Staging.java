package ironing.core.deploy;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.deploy.DeployPlan.Act;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Step;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.path.GamePath;
import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.IntConsumer;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/**
 * The first half of applying a plan: puts everything new below {@code .ironing/staging} and writes
 * down, as a {@link Journal}, which renames will make the change. Touches nothing of the game.
 */
final class Staging {
  private final Disk disk;
  private final Path folder;
  private final DeployPlan plan;
  private final Locator locator;

  private final List<Journal.Move> moves = new ArrayList<>();
  private final Map<String, LaidOut.Item> files;
  private final Set<String> made;
  private final Set<String> leaving = new TreeSet<>();
  private final Set<String> looked = new HashSet<>();
  private boolean copied;

  private Staging(Disk disk, Path folder, DeployPlan plan, Locator locator) {
    this.disk = disk;
    this.folder = folder;
    this.plan = plan;
    this.locator = locator;
    this.files = new TreeMap<>(plan.after().files());
    this.made = new TreeSet<>(plan.after().folders());
  }

  /**
   * @param progress told how many steps are staged
   * @throws IroningException when a place leads outside, or an original that must come back is gone
   */
  static Journal stage(
      Disk disk, Path folder, DeployPlan plan, Locator locator, IntConsumer progress)
      throws IOException {
    Staging s = new Staging(disk, folder, plan, locator);
    s.refuseLostOriginals();
    disk.createFolders(s.at(Deployer.STAGING));
    if (!disk.isInside(folder, s.at(Deployer.STAGING))) {
      throw DiskTrouble.leadsOutside(s.at(Deployer.HOME));
    }
    int n = 0;
    for (Step step : plan.steps()) {
      s.stage(step, ++n);
      progress.accept(n);
    }
    if (s.copied) disk.flushTree(s.at(Deployer.STAGING));
    else disk.flushFolder(s.at(Deployer.STAGING));
    return s.journal();
  }

  private void stage(Step s, int n) throws IOException {
    String place = s.path();
    boolean there = disk.exists(at(place));
    if (s.wanted().isPresent()) {
      foldersFor(place);
      LaidOut.How how = put(s.wanted().get(), at(fresh(n)));
      if (how == LaidOut.How.COPY) copied = true;
      files.computeIfPresent(place, (p, i) -> i.put(how));
    } else {
      foldersLeft(place);
    }
    if (there) moves.add(new Journal.Move(Journal.Kind.ASIDE, place, asideFor(s, place, n)));
    if (s.wanted().isPresent()) moves.add(new Journal.Move(Journal.Kind.IN, fresh(n), place));
    else if (s.act() == Act.PUT_BACK) {
      moves.add(new Journal.Move(Journal.Kind.IN, kept(place), place));
    }
  }

  private Journal journal() {
    Set<String> used = new HashSet<>();
    for (String p : files.keySet()) {
      for (String f = GamePath.folder(p); !f.isEmpty() && used.add(f); f = GamePath.folder(f)) {}
    }
    leaving.removeAll(used);
    made.removeAll(leaving);
    LaidOut after =
        new LaidOut(plan.after().at(), files, List.copyOf(made), plan.after().profile());
    Set<String> needed = new TreeSet<>();
    for (Journal.Move m : moves) needed.add(GamePath.folder(m.to()));
    needed.remove("");
    List<String> deepestFirst = leaving.stream().sorted(Comparator.reverseOrder()).toList();
    List<String> fresh = made.stream().filter(f -> !plan.after().folders().contains(f)).toList();
    return new Journal(moves, after.toJson(), List.copyOf(needed), fresh, deepestFirst);
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
    if (s.changed() || s.act() == Act.REPLACE) return freeAside(place);
    return Deployer.STAGING + "/old-" + n;
  }

  // Two changes within one second must not meet: a rename onto an earlier one would lose it.
  private String freeAside(String place) {
    String name = Deployer.CHANGED + "/" + plan.after().at().replace(':', '-');
    for (int i = 1; ; i++) {
      String aside = name + (i == 1 ? "" : "-" + i) + "/" + place;
      if (!disk.exists(at(aside))) return aside;
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
    return disk.linkOrCopy(source, target) ? LaidOut.How.LINK : LaidOut.How.COPY;
  }

  private static byte[] unpacked(Path pack, String entry) throws IOException {
    try (ZipFile zip = new ZipFile(pack.toFile())) {
      ZipEntry e = zip.getEntry(entry);
      if (e == null) throw new NoSuchFileException(pack + ": " + entry);
      return zip.getInputStream(e).readAllBytes();
    }
  }

  /** Notes the folders that a file needs and that are not there, and that none leads outside. */
  private void foldersFor(String place) throws IOException {
    for (String f = GamePath.folder(place); !f.isEmpty(); f = GamePath.folder(f)) {
      if (!looked.add(f)) return;
      if (!disk.exists(at(f))) made.add(f);
      else if (!disk.isInside(folder, at(f))) throw DiskTrouble.leadsOutside(at(f));
    }
  }

  private void foldersLeft(String place) {
    for (String f = GamePath.folder(place); !f.isEmpty(); f = GamePath.folder(f)) {
      if (made.contains(f)) leaving.add(f);
    }
  }

  private static String fresh(int n) {
    return Deployer.STAGING + "/new-" + n;
  }

  private static String kept(String place) {
    return Deployer.KEPT + "/" + place;
  }

  private Path at(String relative) {
    return GamePath.resolve(folder, relative);
  }
}
