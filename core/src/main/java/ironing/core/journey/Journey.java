package ironing.core.journey;

import ironing.core.deploy.LaidOut;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.run.RunLog;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * How far all mods and plugins of one workspace have come. Each step is counted in files: a mod of
 * which some files are in the folder and some are not has come halfway, and says so.
 *
 * <p>Cost: one pass over all paths. Immutable.
 */
public final class Journey {
  /** The four places on the way, each reached after the one before it. */
  public enum Reached {
    LIBRARY,
    ON,
    DEPLOYED,
    READ
  }

  /**
   * @param inPlay files of the mod that the game should see
   * @param deployed of these, how many lie in the game folder as they should
   * @param read of these, how many the last run read; empty when it cannot be told
   */
  public record OfMod(boolean on, int inPlay, int deployed, Optional<Integer> read) {
    /** The last place that it has reached whole; read counts from the first file on. */
    public Reached reached() {
      if (!on) return Reached.LIBRARY;
      if (deployed < inPlay || inPlay == 0) return Reached.ON;
      return read.orElse(0) > 0 ? Reached.READ : Reached.DEPLOYED;
    }
  }

  /**
   * @param deployed its file lies in the game folder, and so does the list that names it
   * @param slot the slot in which the last run read it; empty when it did not, or cannot be told
   */
  public record OfPlugin(boolean on, boolean deployed, Optional<Integer> slot) {
    public Reached reached() {
      if (!on) return Reached.LIBRARY;
      if (!deployed) return Reached.ON;
      return slot.isPresent() ? Reached.READ : Reached.DEPLOYED;
    }
  }

  private final Map<Long, OfMod> mods = new HashMap<>();
  private final Map<String, OfPlugin> plugins = new HashMap<>();

  /**
   * @param run the last run with a log; empty when there was none
   * @param listDeployed whether the plugin list in the folder is the one that the picture wants
   */
  public Journey(
      Picture picture, LaidOut laidOut, Optional<RunLog.Summary> run, boolean listDeployed) {
    Counter counter = new Counter(picture, laidOut, run);
    counter.count();
    for (Arrangement.Layer l : picture.arrangement().layers()) {
      mods.put(l.mod(), counter.ofMod(l));
    }
    for (LoadOrder.Entry e : picture.loadOrder().entries()) {
      plugins.put(PathCase.fold(e.name()), counter.ofPlugin(e, listDeployed));
    }
  }

  /** Of a mod that is in the arrangement; of another, that it is in the library. */
  public OfMod mod(long mod) {
    return mods.getOrDefault(mod, new OfMod(false, 0, 0, Optional.empty()));
  }

  public OfPlugin plugin(String name) {
    return plugins.getOrDefault(PathCase.fold(name), new OfPlugin(false, false, Optional.empty()));
  }

  private static final class Counter {
    private final Picture picture;
    private final Optional<RunLog.Summary> run;
    private final Map<String, LaidOut.Item> laidOut = new HashMap<>();
    private final Map<String, String> read = new HashMap<>();
    private final Map<String, Integer> slots = new HashMap<>();
    private final Map<Long, int[]> counts = new HashMap<>();
    private final Set<String> deployedPlugins = new HashSet<>();

    Counter(Picture picture, LaidOut laidOut, Optional<RunLog.Summary> run) {
      this.picture = picture;
      this.run = run;
      PathCase pathCase = picture.game().pathCase();
      laidOut.files().values().forEach(i -> this.laidOut.put(pathCase.key(i.path()), i));
      run.ifPresent(
          r -> {
            r.read().forEach((path, sha256) -> read.put(pathCase.key(path), sha256));
            r.plugins().forEach((name, slot) -> slots.put(PathCase.fold(name), slot));
          });
    }

    void count() {
      Holdings holdings = picture.holdings();
      Standing standing = picture.standing();
      for (int p = 0; p < holdings.pathCount(); p++) {
        int slot = standing.inPlay(p);
        if (slot < 0) continue;
        Holdings.Source source = holdings.holderAt(slot);
        boolean ofGame = source.mod() == Holdings.GAME;
        int[] c = ofGame ? null : counts.computeIfAbsent(source.mod(), m -> new int[3]);
        if (!ofGame) c[0]++;
        // a game with nothing in it yet has read and has been given nothing: no path needs a look
        if (!ofGame && laidOut.isEmpty() && read.isEmpty()) continue;
        String path = holdings.path(p), sha256 = holdings.shaAt(slot);
        boolean deployed = isDeployed(source, path, sha256);
        if (deployed && picture.game().isPlugin(path)) {
          deployedPlugins.add(PathCase.fold(GamePath.name(path)));
        }
        if (ofGame) continue;
        if (deployed) c[1]++;
        if (wasRead(path, sha256)) c[2]++;
      }
    }

    private boolean isDeployed(Holdings.Source source, String path, String sha256) {
      if (source.mod() == Holdings.GAME) return true;
      // what is in a pack is there when the pack is
      if (source.pack().isPresent()) return laidOutBy(source.mod(), source.pack().get());
      LaidOut.Item item = laidOut.get(picture.game().pathCase().key(path));
      return item != null && item.mod() == source.mod() && item.sha256().equals(sha256);
    }

    private boolean laidOutBy(long mod, String path) {
      LaidOut.Item item = laidOut.get(picture.game().pathCase().key(path));
      return item != null && item.mod() == mod;
    }

    // A log that names no hash still says that the path was read.
    private boolean wasRead(String path, String sha256) {
      String hash = read.get(picture.game().pathCase().key(path));
      return hash != null && (hash.isEmpty() || hash.equals(sha256));
    }

    OfMod ofMod(Arrangement.Layer l) {
      int[] c = counts.getOrDefault(l.mod(), new int[3]);
      return new OfMod(l.on(), c[0], c[1], run.map(r -> c[2]));
    }

    OfPlugin ofPlugin(LoadOrder.Entry e, boolean listDeployed) {
      String key = PathCase.fold(e.name());
      boolean deployed = deployedPlugins.contains(key) && (e.own() || listDeployed);
      String path = picture.game().pathCase().key(picture.game().pluginPath(e.name()));
      // a plugin that has changed since was not read as it is now
      boolean asItIs = !read.containsKey(path) || wasRead(path, e.plugin().sha256());
      Optional<Integer> slot = Optional.ofNullable(slots.get(key)).filter(s -> asItIs);
      return new OfPlugin(e.on(), deployed, slot);
    }
  }
}
