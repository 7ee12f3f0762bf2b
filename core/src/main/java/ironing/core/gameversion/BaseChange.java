package ironing.core.gameversion;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.DiskTrouble;
import ironing.core.deploy.FolderLook;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.Neighbours;
import ironing.core.deploy.Stamps;
import ironing.core.drift.Drift.Own;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.game.GameFolder.Glance;
import ironing.core.game.Manifest;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;

/**
 * What has become of the unmodded game since its files were hashed: what an update of it has done.
 * Never writes.
 *
 * <p>An update knows nothing of mods, and writes over a deployed file as over one of its own. What
 * lies there then is the game’s new file, which is to be kept instead of the earlier one. With the
 * game’s manifest that is certain. Without one, a changed file of ours counts as the game’s where
 * the game had a file before, a file that nobody knows counts as the game’s, and where neither the
 * mod's file nor another lies in the place of one of the game's, only the user can say who took it.
 *
 * <p>What the definition protects, what the game may write to, and its log are left out: they are
 * the user’s, or change by themselves.
 *
 * <p>Cost: one question to the file system a file, and one pass over the bytes of those whose size
 * or time is another.
 *
 * @param files by path
 * @param behind paths at which the manifest has another file than is kept, and a mod’s lies in its
 *     place: the game’s own repair brings it while nothing is deployed
 * @param unsure paths where a mod's file lay over one of the game's and nothing lies now, with no
 *     manifest to say whether the update removed its file
 */
public record BaseChange(List<Changed> files, List<String> behind, List<String> unsure) {
  /** What has become of a file of the game. */
  public enum Kind {
    CHANGED,
    ADDED,
    GONE
  }

  /**
   * One file of the game that is another.
   *
   * @param now as it is; empty when it is gone
   * @param overDeployed whether it lies where a file of a mod was deployed
   */
  public record Changed(String path, Kind kind, Optional<Own> now, boolean overDeployed) {}

  /**
   * Looks for it.
   *
   * @param note of what is laid out
   * @param before the files of the game as they were
   * @param foreign files that somebody else is known to have put there
   * @throws ironing.core.IroningException when the folder is gone or cannot be read
   */
  public static BaseChange find(
      GameDefinition game,
      GameRoots roots,
      LaidOut note,
      List<Own> before,
      Optional<Manifest> manifest,
      Predicate<String> foreign) {
    try {
      return new Search(game, roots, note, manifest, foreign).of(before);
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  /** What a mod’s file was deployed over, and lies there no more. */
  public Set<String> overDeployed() {
    Set<String> paths = new TreeSet<>();
    for (Changed c : files) if (c.overDeployed()) paths.add(c.path());
    return paths;
  }

  /** The same with the word that the update removed some of the {@link #unsure} ones. */
  public BaseChange withRemoved(Set<String> paths) {
    List<Changed> all = new ArrayList<>(files);
    for (String path : unsure)
      if (paths.contains(path)) all.add(new Changed(path, Kind.GONE, Optional.empty(), true));
    all.sort(Comparator.comparing(Changed::path));
    return new BaseChange(
        List.copyOf(all), behind, unsure.stream().filter(p -> !paths.contains(p)).toList());
  }

  public boolean isEmpty() {
    return files.isEmpty();
  }

  private static final class Search {
    private final GameDefinition game;
    private final GameRoots roots;
    private final LaidOut note;
    private final Optional<Manifest> manifest;
    private final Predicate<String> foreign;
    private final FolderLook look;
    private final List<Changed> changed = new ArrayList<>();
    private final List<String> behind = new ArrayList<>();
    private final List<String> unsure = new ArrayList<>();

    Search(
        GameDefinition game,
        GameRoots roots,
        LaidOut note,
        Optional<Manifest> manifest,
        Predicate<String> foreign) {
      this.game = game;
      this.roots = roots;
      this.note = note;
      this.manifest = manifest;
      this.foreign = foreign;
      this.look = new FolderLook(roots, FolderLook.Depth.QUICK);
    }

    BaseChange of(List<Own> before) throws IOException {
      Map<String, Glance> there = GameFolder.glance(roots);
      there.keySet().removeAll(Neighbours.files(roots));
      Map<String, Own> known = new HashMap<>();
      for (Own o : before) known.put(o.path(), o);
      Set<String> all = new HashSet<>(there.keySet());
      all.addAll(known.keySet());
      all.addAll(note.files().keySet());
      for (String path : new TreeSet<>(all)) {
        if (game.isProtected(path) || game.isWritable(path) || game.isLog(path)) continue;
        LaidOut.Item item = note.files().get(path);
        if (item != null) deployed(path, item, known.get(path), there.get(path));
        else loose(path, known.get(path), there.get(path));
      }
      return new BaseChange(List.copyOf(changed), List.copyOf(behind), List.copyOf(unsure));
    }

    private void loose(String path, Own was, Glance glance) throws IOException {
      if (glance == null) {
        changed.add(new Changed(path, Kind.GONE, Optional.empty(), false));
        return;
      }
      boolean same =
          was != null
              && was.sizeBytes() == glance.sizeBytes()
              && was.modifiedMs() == glance.modifiedMillis();
      if (same || was == null && foreign.test(path)) return;
      Own now = own(path, glance);
      if (was == null) {
        // beside what the manifest names there are only strays, and what a mod once brought; in a
        // place what comes is of the user's playing
        if (game.isPlaced(path)) return;
        if (manifest.isPresent() && !manifest.get().names(path) && !isManifest(path)) return;
        changed.add(new Changed(path, Kind.ADDED, Optional.of(now), false));
      } else if (!was.sha256().equals(now.sha256()))
        changed.add(new Changed(path, Kind.CHANGED, Optional.of(now), false));
    }

    /** The manifest that speaks of a path: of what lies beside the game's folder none does. */
    private Optional<Manifest> manifestOf(String path) {
      return game.isPlaced(path) ? Optional.empty() : manifest;
    }

    private boolean isManifest(String path) {
      return game.manifest().filter(path::equals).isPresent();
    }

    private void deployed(String path, LaidOut.Item item, Own was, Glance glance)
        throws IOException {
      Optional<Manifest> of = manifestOf(path);
      Optional<String> wants = of.flatMap(m -> m.sha256(path));
      Found found = look.at(path, Optional.of(item));
      if (found == Found.AS_LAID_OUT) {
        // the update may have brought the very file that a mod has there
        if (wants.filter(item.sha256()::equals).isPresent()) {
          if (item.replaced().equals(wants)) return;
          // through our own link it would stay tied to the library
          if (isOurLink(path, item)) behind.add(path);
          else over(path, was, Optional.of(own(path, glance)));
        } else if (wants.isPresent() && !wants.equals(item.replaced())) behind.add(path);
        return;
      }
      if (found == Found.ABSENT || glance == null) {
        if (item.replaced().isEmpty()) return;
        if (of.isEmpty()) unsure.add(path);
        else if (wants.isEmpty()) over(path, was, Optional.empty());
        return;
      }
      if (!Files.isRegularFile(roots.at(path), LinkOption.NOFOLLOW_LINKS)) return;
      Own now = own(path, glance);
      // what was kept lies there again: nothing of the game has changed
      if (item.replaced().filter(now.sha256()::equals).isPresent()) return;
      boolean ofGame =
          of.isPresent()
              ? wants.filter(now.sha256()::equals).isPresent()
              : item.replaced().isPresent();
      if (ofGame) over(path, was, Optional.of(now));
    }

    private boolean isOurLink(String path, LaidOut.Item item) throws IOException {
      long inode = Stamps.of(roots.at(path)).inode();
      return item.how() == LaidOut.How.LINK
          && item.stamp().filter(s -> s.inode() == inode).isPresent();
    }

    private void over(String path, Own was, Optional<Own> now) {
      Kind kind = now.isEmpty() ? Kind.GONE : was == null ? Kind.ADDED : Kind.CHANGED;
      changed.add(new Changed(path, kind, now, true));
    }

    private Own own(String path, Glance glance) throws IOException {
      String sha256 = ContentHash.of(roots.at(path));
      return new Own(path, glance.sizeBytes(), glance.modifiedMillis(), sha256);
    }
  }
}
