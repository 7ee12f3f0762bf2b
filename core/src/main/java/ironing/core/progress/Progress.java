package ironing.core.progress;

import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.LaidOut;
import ironing.core.deploy.OrderNumbers;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.loadorder.LoadOrder;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.plugin.PluginFiles;
import ironing.core.testrun.RunLog;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/**
 * How far all mods and plugins of one workspace have come. Each step is counted in files: a mod of
 * which some files are in the folder and some are not has come halfway, and says so.
 *
 * <p>Cost: one pass over all paths; another arrangement of the same files costs what it changes.
 * What it says stays the same; only one may be made from it at a time.
 */
public final class Progress {
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
  private final Counter counter;

  /**
   * @param run the last run with a log; empty when there was none
   * @param listDeployed whether the plugin list in the folder is the one that the picture wants
   */
  public Progress(
      Picture picture, LaidOut laidOut, Optional<RunLog.Summary> run, boolean listDeployed) {
    this(picture, new Counter(picture, laidOut, run), listDeployed);
  }

  private Progress(Picture picture, Counter counter, boolean listDeployed) {
    this.counter = counter;
    counter.count(picture);
    for (Arrangement.Layer l : picture.arrangement().layers()) mods.put(l.mod(), counter.ofMod(l));
    for (LoadOrder.Entry e : picture.loadOrder().entries())
      plugins.put(PathCase.fold(e.name()), counter.ofPlugin(e, listDeployed));
  }

  /**
   * The same way under another picture. Cost: a comparison of numbers for every path, and a look at
   * those whose file in play is another. One at a time.
   *
   * @param picture of the same game, over the same holdings or such that came from them
   */
  public Progress rearranged(Picture picture, boolean listDeployed) {
    counter.follow(picture);
    return new Progress(picture, counter, listDeployed);
  }

  /** Whether {@link #rearranged} takes a picture. */
  @SuppressWarnings("ReferenceEquality")
  public boolean leadsTo(Picture picture) {
    return picture.game() == counter.game && picture.holdings().isFrom(counter.holdings);
  }

  /** Of a mod that is in the arrangement; of another, that it is in the library. */
  public OfMod mod(long mod) {
    return mods.getOrDefault(mod, new OfMod(false, 0, 0, Optional.empty()));
  }

  public OfPlugin plugin(String name) {
    return plugins.getOrDefault(PathCase.fold(name), new OfPlugin(false, false, Optional.empty()));
  }

  /** How many files of each source have come how far; kept path by path. */
  private static final class Counter {
    private static final int UNSEEN = -2, DEPLOYED = 1, READ = 2;
    private final GameDefinition game;
    private Holdings holdings;
    private final boolean hasRun;
    // by the key of a path
    private final Map<String, LaidOut.Item> laidAt = new HashMap<>();
    private final Map<String, String> readAt = new HashMap<>();
    // by path: what of ours lies there, and the hash that the run has read, empty for one unknown
    private LaidOut.Item[] laid = {};
    private String[] read = {};
    private final Map<String, Integer> slots = new HashMap<>();
    // by source: whether its pack lies in the game folder
    private boolean[] packThere;
    private int[] seen = {};
    private byte[] flags = {};
    private int[][] counts;
    // by path the hash of what is deployed there with a number of its own in it
    private final Map<Integer, String> numbered = new HashMap<>();
    private final Map<Long, List<Integer>> sourcesOf = new HashMap<>();

    Counter(Picture picture, LaidOut laidOut, Optional<RunLog.Summary> run) {
      this.game = picture.game();
      this.holdings = picture.holdings();
      this.hasRun = run.isPresent();
      grow(holdings.pathCount());
      for (LaidOut.Item i : laidOut.files().values()) {
        laidAt.put(game.pathCase().key(i.path()), i);
        int id = holdings.idOf(i.path());
        if (id >= 0) laid[id] = i;
      }
      run.ifPresent(
          r -> {
            r.read()
                .forEach(
                    (path, sha256) -> {
                      readAt.put(game.pathCase().key(path), sha256);
                      int id = holdings.idOf(path);
                      if (id >= 0) read[id] = sha256;
                    });
            r.plugins().forEach((name, slot) -> slots.put(PathCase.fold(name), slot));
          });
      packThere = new boolean[0];
      counts = new int[0][];
      sources();
    }

    private void sources() {
      int had = counts.length, has = holdings.sourceCount();
      packThere = Arrays.copyOf(packThere, has);
      counts = Arrays.copyOf(counts, has);
      for (int s = had; s < has; s++) counts[s] = new int[3];
      sourcesOf.clear();
      for (Holdings.Source s : holdings.sources()) {
        sourcesOf.computeIfAbsent(s.mod(), m -> new ArrayList<>()).add(s.id());
        if (s.pack().isEmpty()) continue;
        LaidOut.Item item = laidAt.get(game.pathCase().key(s.pack().get()));
        packThere[s.id()] = item != null && item.mod() == s.mod();
      }
    }

    // with some room, for more paths will come
    private void grow(int paths) {
      int had = seen.length, has = paths + paths / 16;
      laid = Arrays.copyOf(laid, has);
      read = Arrays.copyOf(read, has);
      seen = Arrays.copyOf(seen, has);
      Arrays.fill(seen, had, has, UNSEEN);
      flags = Arrays.copyOf(flags, has);
    }

    @SuppressWarnings("ReferenceEquality")
    void follow(Picture picture) {
      Holdings next = picture.holdings();
      if (next == holdings) return;
      BitSet touched = next.touchedSince(holdings);
      holdings = next;
      if (next.pathCount() > seen.length) grow(next.pathCount());
      sources();
      for (int p = touched.nextSetBit(0); p >= 0; p = touched.nextSetBit(p + 1)) {
        String key = game.pathCase().key(next.path(p));
        laid[p] = laidAt.get(key);
        read[p] = readAt.get(key);
      }
    }

    void count(Picture picture) {
      number(picture);
      Standing standing = picture.standing();
      int n = holdings.pathCount();
      for (int p = standing.nextUnlike(seen, 0); p < n; p = standing.nextUnlike(seen, p + 1)) {
        int slot = standing.inPlay(p);
        if (seen[p] >= 0) add(p, -1);
        seen[p] = slot;
        if (slot < 0) continue;
        flags[p] = flags(p, slot);
        add(p, 1);
      }
    }

    /** Of a game that goes by numbers another order means other files. */
    private void number(Picture picture) {
      Map<Integer, String> now = new HashMap<>();
      for (Wanted w : OrderNumbers.of(picture)) now.put(holdings.idOf(w.path()), w.sha256());
      if (now.equals(numbered)) return;
      Set<Integer> either = new HashSet<>(now.keySet());
      either.addAll(numbered.keySet());
      for (int p : either) {
        if (p < 0 || Objects.equals(now.get(p), numbered.get(p))) continue;
        if (seen[p] >= 0) add(p, -1);
        seen[p] = UNSEEN;
      }
      numbered.clear();
      numbered.putAll(now);
    }

    private String shaAt(int p, int slot) {
      String written = numbered.isEmpty() ? null : numbered.get(p);
      return written == null ? holdings.shaAt(slot) : written;
    }

    private void add(int p, int by) {
      int[] c = counts[holdings.holderAt(seen[p]).id()];
      c[0] += by;
      if ((flags[p] & DEPLOYED) != 0) c[1] += by;
      if ((flags[p] & READ) != 0) c[2] += by;
    }

    private byte flags(int p, int slot) {
      Holdings.Source source = holdings.holderAt(slot);
      // nothing to compare the hash with: it is not asked for
      if (laid[p] == null && read[p] == null && source.pack().isEmpty())
        return (byte) (source.mod() == Holdings.GAME ? DEPLOYED : 0);
      String sha256 = shaAt(p, slot);
      int flags = isDeployed(source, p, sha256) ? DEPLOYED : 0;
      // a log that names no hash still says that the path was read
      if (read[p] != null && (read[p].isEmpty() || read[p].equals(sha256))) flags |= READ;
      return (byte) flags;
    }

    private boolean isDeployed(Holdings.Source source, int p, String sha256) {
      if (source.mod() == Holdings.GAME) return true;
      // what is in a pack is there when the pack is
      if (source.pack().isPresent()) return packThere[source.id()];
      return laid[p] != null && laid[p].mod() == source.mod() && laid[p].sha256().equals(sha256);
    }

    OfMod ofMod(Arrangement.Layer l) {
      int[] c = new int[3];
      for (int source : sourcesOf.getOrDefault(l.mod(), List.of()))
        for (int i = 0; i < 3; i++) c[i] += counts[source][i];
      return new OfMod(l.on(), c[0], c[1], hasRun ? Optional.of(c[2]) : Optional.empty());
    }

    OfPlugin ofPlugin(LoadOrder.Entry e, boolean listDeployed) {
      String path = e.plugin().path();
      int id = holdings.idOf(path);
      boolean there = id >= 0 && seen[id] >= 0 && (flags[id] & DEPLOYED) != 0;
      boolean deployed = there && (e.own() || listDeployed);
      // a plugin that has changed since was not read as it is now
      boolean asItIs = wasReadAsItIs(path);
      if (e.plugin().files().isPresent())
        for (PluginFiles.Part part : e.plugin().files().get().parts())
          asItIs &= wasReadAsItIs(GamePath.join(e.plugin().files().get().folder(), part.below()));
      boolean isNow = asItIs;
      Optional<Integer> slot =
          Optional.ofNullable(slots.get(PathCase.fold(e.name()))).filter(s -> isNow);
      return new OfPlugin(e.on(), deployed, slot);
    }

    // so it counts too where the run does not say what was in it
    private boolean wasReadAsItIs(String path) {
      int id = holdings.idOf(path);
      String hash = id < 0 ? null : read[id];
      return hash == null || hash.isEmpty() || seen[id] < 0 || hash.equals(shaAt(id, seen[id]));
    }
  }
}
