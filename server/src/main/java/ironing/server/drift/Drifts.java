package ironing.server.drift;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.DiskTrouble;
import ironing.core.disk.FolderTree;
import ironing.core.drift.Drift;
import ironing.core.drift.Drift.Cause;
import ironing.core.drift.Drift.Difference;
import ironing.core.layers.Holdings;
import ironing.server.deploy.Deployments;
import ironing.server.deploy.ModRepair;
import ironing.server.drift.DriftMapper.LeftAlone;
import ironing.server.job.Job;
import ironing.server.job.Jobs;
import ironing.server.job.Jobs.Lane;
import ironing.server.library.Archives;
import ironing.server.library.ModFiles;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.GameFiles;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.stereotype.Component;

/** Finds drift, and does about it what the user wants. */
@Component
class Drifts {
  private static final Set<Cause> CAN_COME_BACK =
      Set.of(Cause.THROUGH_LINK, Cause.CHANGED, Cause.MISSING, Cause.PUT_BACK);
  private static final Set<Cause> CAN_BE_TAKEN =
      Set.of(Cause.NEW, Cause.CHANGED, Cause.THROUGH_LINK, Cause.GAME_CHANGED, Cause.SET_ASIDE);
  private static final Set<Cause> CAN_GO_TO_ITS_MOD = Set.of(Cause.CHANGED, Cause.THROUGH_LINK);
  private static final String ASIDE = ".ironing/changed/";
  private final DriftMapper db;
  private final GameFiles own;
  private final Deployments deployments;
  private final Archives archives;
  private final ModFiles files;
  private final ModRepair repair;
  private final FolderUse use;
  private final Jobs jobs;
  private final OpenWorkspaces workspaces;

  Drifts(
      DriftMapper db,
      GameFiles own,
      Deployments deployments,
      Archives archives,
      ModFiles files,
      ModRepair repair,
      OpenWorkspaces workspaces,
      FolderUse use,
      Jobs jobs) {
    this.db = db;
    this.own = own;
    this.files = files;
    this.repair = repair;
    this.use = use;
    this.jobs = jobs;
    this.deployments = deployments;
    this.archives = archives;
    this.workspaces = workspaces;
  }

  /**
   * @param left how many the user wants left as they are; they are none of the differences
   */
  record Found(List<Difference> differences, int left) {}

  Found find(OpenWorkspace open, boolean thorough) {
    List<Difference> all =
        Drift.find(
            open.game(),
            open.roots(),
            deployments.laidOut(open),
            own.loose(open.workspace()),
            thorough);
    Map<String, String> left = new HashMap<>();
    for (LeftAlone l : db.leftAlone(open.workspace())) left.put(l.path(), l.sha256());
    List<Difference> told =
        all.stream().filter(d -> !print(open, d, left).equals(left.get(d.path()))).toList();
    return new Found(told, all.size() - told.size());
  }

  // only of what was left once: its content is asked for
  private static String print(OpenWorkspace open, Difference d, Map<String, String> left) {
    return left.containsKey(d.path()) ? print(open, d.path()) : "another";
  }

  private static String print(OpenWorkspace open, String path) {
    Path place = place(open, path);
    try {
      return Files.isRegularFile(place) ? ContentHash.of(place) : "gone";
    } catch (IOException unreadable) {
      return "unreadable";
    }
  }

  private static Path place(OpenWorkspace open, String path) {
    return open.at(path);
  }

  /**
   * Which files are meant.
   *
   * @param paths some of those of the cause; empty for all
   * @param thorough how they were found, and are looked for again
   */
  record Wish(Cause cause, Optional<List<String>> paths, boolean thorough) {}

  private List<Difference> meant(OpenWorkspace open, Wish wish, Set<Cause> can) {
    Cause cause = wish.cause();
    if (!can.contains(cause))
      throw IroningException.of(
          "not-for-these",
          cause.name(),
          "That cannot be done with files of this kind.",
          "Choose one of what the page offers for them.");
    Optional<Set<String>> wanted = wish.paths().map(TreeSet::new);
    List<Difference> all =
        find(open, wish.thorough()).differences().stream()
            .filter(d -> d.cause() == cause)
            .filter(d -> wanted.isEmpty() || wanted.get().contains(d.path()))
            .toList();
    if (all.isEmpty())
      throw IroningException.of(
          "no-drift",
          open.title(),
          "None of these files is so any more.",
          "Look at the folder again.");
    return all;
  }

  private static Set<String> paths(List<Difference> all) {
    Set<String> paths = new TreeSet<>();
    all.forEach(d -> paths.add(d.path()));
    return paths;
  }

  /** Has files as they were deployed again; what lies there is set aside. */
  Job putBack(long workspace, Wish wish) {
    OpenWorkspace open = workspaces.get(workspace);
    return deployments.putBack(workspace, paths(meant(open, wish, CAN_COME_BACK)));
  }

  /**
   * Takes files into the inbox as an archive; those that nobody deployed go out of the way then.
   *
   * @return the archive
   */
  long take(long workspace, Wish wish) throws IOException {
    OpenWorkspace open = workspaces.get(workspace);
    List<Difference> meant = meant(open, wish, CAN_BE_TAKEN);
    Path zip = Files.createTempFile("found", ".zip");
    long archive;
    try {
      // several of one name: the last that was set aside comes first
      zip(
          open,
          meant.stream().sorted(Comparator.comparing(Difference::path).reversed()).toList(),
          zip);
      String name =
          "Found in " + open.title() + " " + LocalDate.now(ZoneId.systemDefault()) + ".zip";
      try (InputStream in = Files.newInputStream(zip)) {
        archive = archives.takeIn(workspace, name, in);
      }
    } finally {
      Files.deleteIfExists(zip);
    }
    // the library has them on disk now
    if (wish.cause() == Cause.NEW) deployments.setAside(workspace, paths(meant));
    return archive;
  }

  /**
   * Takes files into the mods that they were deployed from, and deploys them so; what came in the
   * archive is kept there.
   *
   * @throws IroningException with code {@code no-mod} for one that is no mod's own loose file
   */
  Job takeIntoItsMod(long workspace, Wish wish) {
    OpenWorkspace open = workspaces.get(workspace);
    List<Difference> meant = meant(open, wish, CAN_GO_TO_ITS_MOD);
    List<Problem> others = new ArrayList<>();
    for (Difference d : meant)
      if (spelled(open, d).isEmpty())
        others.add(
            new Problem(
                "no-mod",
                d.path(),
                "It comes out of a pack, or Ironing wrote it: no mod has such a file.",
                "Take it into the inbox, to make a mod of it."));
    if (!others.isEmpty()) throw new IroningException(others);
    use.requireStill(open);
    String title = "Take " + meant.size() + (meant.size() == 1 ? " file" : " files") + " in";
    return jobs.start(
        workspace,
        Lane.GAME,
        "take-in",
        title,
        p -> deployments.changing(workspaces.get(workspace), b -> takeNow(b, meant, p)));
  }

  private Long takeNow(OpenWorkspace open, List<Difference> meant, Jobs.Progress progress) {
    try {
      return taken(open, meant, progress);
    } catch (IOException e) {
      throw DiskTrouble.of(open.roots(), e);
    }
  }

  private Long taken(OpenWorkspace open, List<Difference> meant, Jobs.Progress progress)
      throws IOException {
    long workspace = open.workspace();
    Map<String, String> sums = new TreeMap<>();
    Path kept = Files.createTempDirectory("taken");
    try {
      int n = 0;
      for (Difference d : meant) {
        progress.at(n, meant.size(), "files");
        // of its own: what is made anew below may be the same file under another name
        Path copy = Files.copy(place(open, d.path()), kept.resolve(Integer.toString(n++)));
        sums.put(d.path(), ContentHash.of(copy));
      }
      Set<Long> damaged = new TreeSet<>();
      for (Difference d : meant)
        if (d.cause() == Cause.THROUGH_LINK && repair.can(workspace, d.mod())) damaged.add(d.mod());
      for (long mod : damaged) repair.again(workspace, mod, progress);
      n = 0;
      for (Difference d : meant)
        files.take(
            workspace,
            d.mod(),
            spelled(open, d).orElseThrow(),
            kept.resolve(Integer.toString(n++)));
    } finally {
      FolderTree.remove(kept);
    }
    // the library has them on disk now
    deployments.takeOff(open, sums);
    deployments.putBackNow(workspace, sums.keySet(), progress);
    return null;
  }

  /** The path as the mod spells it, of which it was deployed as a loose file. */
  private static Optional<String> spelled(OpenWorkspace open, Difference d) {
    Holdings holdings = open.picture().holdings();
    int id = holdings.idOf(d.path());
    int slot = id < 0 || d.mod() == Holdings.GAME ? -1 : holdings.slotOfMod(id, d.mod());
    boolean loose = slot >= 0 && holdings.holderAt(slot).pack().isEmpty();
    return loose ? Optional.of(holdings.spellingAt(slot)) : Optional.empty();
  }

  private static void zip(OpenWorkspace open, List<Difference> files, Path zip) throws IOException {
    try (OutputStream out = Files.newOutputStream(zip);
        ZipOutputStream to = new ZipOutputStream(out)) {
      Set<String> names = new TreeSet<>();
      for (Difference d : files) {
        String name = nameInZip(d);
        if (!names.add(name)) continue;
        to.putNextEntry(new ZipEntry(name));
        Files.copy(place(open, d.path()), to);
        to.closeEntry();
      }
    }
  }

  private static String nameInZip(Difference d) {
    if (d.cause() != Cause.SET_ASIDE) return d.path();
    String below = d.path().substring(ASIDE.length());
    return below.substring(below.indexOf('/') + 1);
  }

  /** Remembers that files are to be left as they are, while they stay so. */
  void leave(long workspace, Wish wish) {
    OpenWorkspace open = workspaces.get(workspace);
    for (Difference d : meant(open, wish, Set.of(Cause.values())))
      db.leave(workspace, d.path(), print(open, d.path()));
  }

  /** Tells of all files again. */
  void tellAgain(long workspace) {
    db.tellAgain(workspace);
  }
}
