package ironing.core.drift;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Found;
import ironing.core.deploy.Deployer;
import ironing.core.deploy.DiskTrouble;
import ironing.core.deploy.FolderLook;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.Neighbours;
import ironing.core.deploy.Stamps;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameFolder;
import ironing.core.game.GameFolder.Glance;
import ironing.core.path.GamePath;
import ironing.core.path.GameRoots;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * Where a game folder is neither as it was deployed to nor as the unmodded game: what is missing,
 * changed or extra, and what brought it about as far as that can be seen. Never writes.
 *
 * <p>What the definition protects, what the game may write to, and its log are no drift.
 *
 * <p>Cost: one question to the file system a file; with {@code thorough} one pass over the bytes of
 * what is deployed and of the game's own files, else over those whose size, time or inode is
 * another.
 */
public final class Drift {
  private final GameDefinition game;
  private final GameRoots roots;
  private final LaidOut note;
  private final boolean thorough;
  private final FolderLook look;

  private Drift(GameDefinition game, GameRoots roots, LaidOut note, boolean thorough) {
    this.game = game;
    this.roots = roots;
    this.note = note;
    this.thorough = thorough;
    this.look =
        new FolderLook(roots, thorough ? FolderLook.Depth.THOROUGH : FolderLook.Depth.QUICK);
  }

  /** What has happened to a file, as far as it can be seen. */
  public enum Cause {
    /** It was deployed as a link, and written to: the mod's own file is changed with it. */
    THROUGH_LINK,
    /** It was deployed, and another lies there now. */
    CHANGED,
    /** It was deployed, and is gone. */
    MISSING,
    /** The game's own file has come back in the place of a mod's. */
    PUT_BACK,
    /** The game's own file that was replaced is not among what was kept, or is another there. */
    KEPT_LOST,
    /** It is the game's own, and no longer what it was. */
    GAME_CHANGED,
    /** It is the game's own, and gone. */
    GAME_MISSING,
    /** Neither the game nor Ironing put it there. */
    NEW,
    /** It was changed while it was deployed, and a later change of the folder set it aside. */
    SET_ASIDE
  }

  /**
   * A file that is not as it should be.
   *
   * @param mod whose it is by the note; 0 for none
   * @param from the same in words; empty for none
   * @param sizeBytes of what lies there; 0 where nothing does
   */
  public record Difference(String path, Cause cause, long mod, String from, long sizeBytes) {}

  /**
   * A loose file of the unmodded game.
   *
   * @param modifiedMs when it was written, in milliseconds since 1970
   */
  public record Own(String path, long sizeBytes, long modifiedMs, String sha256) {}

  /**
   * Looks for all of it.
   *
   * @param note of what is laid out
   * @param own the files of the unmodded game
   * @param thorough whether every byte is read
   * @return by cause, then by path
   * @throws ironing.core.IroningException when the folder is gone or cannot be read
   */
  public static List<Difference> find(
      GameDefinition game, GameRoots roots, LaidOut note, List<Own> own, boolean thorough) {
    try {
      return new Drift(game, roots, note, thorough).find(own);
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  private List<Difference> find(List<Own> own) throws IOException {
    Map<String, Glance> there = GameFolder.glance(roots);
    there.keySet().removeAll(Neighbours.files(roots));
    List<Difference> all =
        new ArrayList<>(
            note.files().values().parallelStream()
                .flatMap(i -> Stream.concat(laid(i).stream(), kept(i).stream()))
                .toList());
    Map<String, Own> unmodded = new HashMap<>();
    for (Own o : own) if (!note.files().containsKey(o.path())) unmodded.put(o.path(), o);
    all.addAll(
        unmodded.values().parallelStream()
            .flatMap(o -> ofGame(o, there.get(o.path())).stream())
            .toList());
    there.forEach(
        (path, glance) -> {
          if (note.files().containsKey(path) || unmodded.containsKey(path)) return;
          if (game.isProtected(path) || game.isLog(path)) return;
          all.add(new Difference(path, Cause.NEW, 0, "", glance.sizeBytes()));
        });
    setAside(all::add);
    all.sort(Comparator.comparing(Difference::cause).thenComparing(Difference::path));
    return all;
  }

  private Optional<Difference> laid(LaidOut.Item i) {
    Found found = look.at(i.path(), Optional.of(i));
    if (found == Found.ABSENT) return Optional.of(of(i, Cause.MISSING));
    // the game may write to these, and whatever it writes is as it should be
    if (found == Found.AS_LAID_OUT || game.isWritable(i.path())) return Optional.empty();
    return Optional.of(of(i, cause(i)));
  }

  private Cause cause(LaidOut.Item i) {
    Path place = roots.at(i.path());
    try {
      if (!Files.isRegularFile(place, LinkOption.NOFOLLOW_LINKS)) return Cause.CHANGED;
      if (i.replaced().filter(ContentHash.of(place)::equals).isPresent()) return Cause.PUT_BACK;
      boolean sameFile =
          i.how() == LaidOut.How.LINK
              && i.stamp().isPresent()
              && i.stamp().get().inode() != 0
              && i.stamp().get().inode() == Stamps.of(place).inode();
      return sameFile ? Cause.THROUGH_LINK : Cause.CHANGED;
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
  }

  private Difference of(LaidOut.Item i, Cause cause) {
    return new Difference(i.path(), cause, i.mod(), i.from(), sizeOf(i.path()));
  }

  private long sizeOf(String path) {
    try {
      return Files.size(roots.at(path));
    } catch (IOException gone) {
      return 0;
    }
  }

  private Optional<Difference> kept(LaidOut.Item i) {
    if (i.replaced().isEmpty()) return Optional.empty();
    Path kept = Deployer.keptOriginal(roots, i.path());
    boolean lost;
    try {
      lost =
          !Files.isRegularFile(kept, LinkOption.NOFOLLOW_LINKS)
              || thorough && !ContentHash.of(kept).equals(i.replaced().get());
    } catch (IOException e) {
      throw DiskTrouble.of(roots, e);
    }
    return lost ? Optional.of(of(i, Cause.KEPT_LOST)) : Optional.empty();
  }

  private Optional<Difference> ofGame(Own o, Glance glance) {
    if (game.isProtected(o.path()) || game.isWritable(o.path())) return Optional.empty();
    if (glance == null) return Optional.of(new Difference(o.path(), Cause.GAME_MISSING, 0, "", 0));
    boolean same =
        o.sizeBytes() == glance.sizeBytes()
            && (!thorough && o.modifiedMs() == glance.modifiedMillis() || isStill(o));
    if (same) return Optional.empty();
    return Optional.of(new Difference(o.path(), Cause.GAME_CHANGED, 0, "", glance.sizeBytes()));
  }

  private boolean isStill(Own o) {
    try {
      return ContentHash.of(roots.at(o.path())).equals(o.sha256());
    } catch (IOException unreadable) {
      return false;
    }
  }

  private void setAside(Consumer<Difference> found) throws IOException {
    for (String top : roots.tops()) {
      String aside = Deployer.changed(roots, top);
      Path changed = roots.at(aside);
      if (!Files.isDirectory(changed)) continue;
      try (Stream<Path> all = Files.walk(changed)) {
        for (Path p : all.filter(Files::isRegularFile).toList()) {
          String path = aside + "/" + GamePath.of(changed.relativize(p));
          found.accept(new Difference(path, Cause.SET_ASIDE, 0, "", Files.size(p)));
        }
      }
    }
  }
}
