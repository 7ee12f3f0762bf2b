package ironing.server.drift;

import ironing.core.IroningException;
import ironing.core.archive.ContentHash;
import ironing.core.deploy.Drift;
import ironing.core.deploy.Drift.Cause;
import ironing.core.deploy.Drift.Difference;
import ironing.core.path.GamePath;
import ironing.server.deploy.Deployments;
import ironing.server.drift.DriftMapper.LeftAlone;
import ironing.server.job.Job;
import ironing.server.library.Archives;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
  private static final String ASIDE = ".ironing/changed/";
  private final DriftMapper db;
  private final Deployments deployments;
  private final Archives archives;
  private final Workbenches benches;

  Drifts(DriftMapper db, Deployments deployments, Archives archives, Workbenches benches) {
    this.db = db;
    this.deployments = deployments;
    this.archives = archives;
    this.benches = benches;
  }

  /**
   * @param left how many the user wants left as they are; they are none of the differences
   */
  record Found(List<Difference> differences, int left) {}

  Found find(Bench bench, boolean thorough) {
    List<Difference> all =
        Drift.find(
            bench.game(),
            bench.gameFolder(),
            deployments.laidOut(bench),
            db.baseline(bench.workspace()),
            thorough);
    Map<String, String> left = new HashMap<>();
    for (LeftAlone l : db.leftAlone(bench.workspace())) left.put(l.path(), l.sha256());
    List<Difference> told =
        all.stream().filter(d -> !print(bench, d, left).equals(left.get(d.path()))).toList();
    return new Found(told, all.size() - told.size());
  }

  // only of what was left once: its content is asked for
  private static String print(Bench bench, Difference d, Map<String, String> left) {
    return left.containsKey(d.path()) ? print(bench, d.path()) : "another";
  }

  private static String print(Bench bench, String path) {
    Path place = place(bench, path);
    try {
      return Files.isRegularFile(place) ? ContentHash.of(place) : "gone";
    } catch (IOException unreadable) {
      return "unreadable";
    }
  }

  private static Path place(Bench bench, String path) {
    return GamePath.resolve(bench.gameFolder(), path);
  }

  /**
   * Which files are meant.
   *
   * @param paths some of those of the cause; empty for all
   * @param thorough how they were found, and are looked for again
   */
  record Wish(Cause cause, Optional<List<String>> paths, boolean thorough) {}

  private List<Difference> meant(Bench bench, Wish wish, Set<Cause> can) {
    Cause cause = wish.cause();
    if (!can.contains(cause))
      throw IroningException.of(
          "not-for-these",
          cause.name(),
          "That cannot be done with files of this kind.",
          "Choose one of what the page offers for them.");
    Optional<Set<String>> wanted = wish.paths().map(TreeSet::new);
    List<Difference> all =
        find(bench, wish.thorough()).differences().stream()
            .filter(d -> d.cause() == cause)
            .filter(d -> wanted.isEmpty() || wanted.get().contains(d.path()))
            .toList();
    if (all.isEmpty())
      throw IroningException.of(
          "no-drift",
          bench.title(),
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
    Bench bench = benches.get(workspace);
    return deployments.putBack(workspace, paths(meant(bench, wish, CAN_COME_BACK)));
  }

  /**
   * Takes files into the inbox as an archive; those that nobody deployed go out of the way then.
   *
   * @return the archive
   */
  long take(long workspace, Wish wish) throws IOException {
    Bench bench = benches.get(workspace);
    List<Difference> meant = meant(bench, wish, CAN_BE_TAKEN);
    Path zip = Files.createTempFile("found", ".zip");
    long archive;
    try {
      // several of one name: the last that was set aside comes first
      zip(
          bench,
          meant.stream().sorted(Comparator.comparing(Difference::path).reversed()).toList(),
          zip);
      String name = "Found in " + bench.title() + " " + LocalDate.now() + ".zip";
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

  private static void zip(Bench bench, List<Difference> files, Path zip) throws IOException {
    try (OutputStream out = Files.newOutputStream(zip);
        ZipOutputStream to = new ZipOutputStream(out)) {
      Set<String> names = new TreeSet<>();
      for (Difference d : files) {
        String name = nameInZip(d);
        if (!names.add(name)) continue;
        to.putNextEntry(new ZipEntry(name));
        Files.copy(place(bench, d.path()), to);
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
    Bench bench = benches.get(workspace);
    for (Difference d : meant(bench, wish, Set.of(Cause.values())))
      db.leave(workspace, d.path(), print(bench, d.path()));
  }

  /** Tells of all files again. */
  void tellAgain(long workspace) {
    db.tellAgain(workspace);
  }
}
