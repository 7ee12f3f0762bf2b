package ironing.core.picture;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.layers.Spelling;
import ironing.core.layers.Standing;
import ironing.core.loadorder.LoadOrder;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Found;
import ironing.core.path.GamePath;
import ironing.core.path.PathCase;
import ironing.core.path.PathPattern;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginFiles;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntUnaryOperator;
import java.util.function.Predicate;

/**
 * Everything that the game will see under one arrangement.
 *
 * <p>Loose files stand by layer. Which plugins are in play follows from them; the packs that those
 * name stand where their plugins load; all packs stand below all loose files. So loose files are
 * settled first, then the load order, then packs, and none of the later steps can change an
 * earlier.
 *
 * <p>Immutable. Cost of {@link #rearranged}: what {@link Standing#reordered} costs, plus the
 * plugins.
 */
public final class Picture {
  /**
   * Gives the header of a plugin by its content; how it is stored is none of the core's business.
   */
  public interface Headers {
    /**
     * @return the header, or why the file cannot be read
     */
    HeaderOrFlaw header(String name, long mod, String path, String sha256);

    /**
     * The same of a plugin that is open text, which says itself what it is called.
     *
     * @return for one that cannot be read a name by which it is told
     */
    NamedHeader document(PluginFiles files);

    /** A file as the unmodded game has it; empty where it has none, or it cannot be read. */
    Optional<byte[]> own(String path);

    /** The bytes of a part of a plugin that is open text; empty where it cannot be read. */
    Optional<byte[]> part(PluginFiles.Part part);

    /** Whether a mod was generated from others. */
    boolean isMend(long mod);
  }

  public record HeaderOrFlaw(Optional<Header> header, Optional<String> flaw) {}

  public record NamedHeader(String name, HeaderOrFlaw said) {}

  private final GameDefinition game;
  private final Headers headers;
  private final Arrangement arrangement;
  private final Standing standing;
  private final LoadOrder loadOrder;
  private final PluginPaths pluginPaths;
  private volatile Spelling spelling;
  private volatile BitSet switchedOff;

  /** By source of the game how high it stands with no mod; see {@link #unmodded}. */
  private volatile Map<Integer, Integer> ownHeights;

  private Picture(
      GameDefinition game,
      Headers headers,
      Arrangement arrangement,
      Standing standing,
      LoadOrder loadOrder,
      PluginPaths pluginPaths) {
    this.game = game;
    this.headers = headers;
    this.arrangement = arrangement;
    this.standing = standing;
    this.loadOrder = loadOrder;
    this.pluginPaths = pluginPaths;
  }

  public static Picture of(
      GameDefinition game, Holdings holdings, Arrangement arrangement, Headers headers) {
    return of(game, holdings, PluginPaths.of(game, holdings), arrangement, headers);
  }

  /**
   * @param plugins the plugin paths of the holdings, where somebody knows them already
   */
  public static Picture of(
      GameDefinition game,
      Holdings holdings,
      PluginPaths plugins,
      Arrangement arrangement,
      Headers headers) {
    Standing loose =
        Standing.of(
            holdings,
            looseOrder(holdings, arrangement),
            held(game, holdings, arrangement),
            ruled(game, holdings, arrangement, headers, plugins));
    return settled(game, headers, arrangement, loose, plugins);
  }

  /** The picture under another arrangement of the same holdings. */
  public Picture rearranged(Arrangement next) {
    return rearranged(next, next.heldBack().equals(arrangement.heldBack()), sameRulings(next));
  }

  /**
   * The picture of holdings that came from these. Cost: what {@link Standing#over} and {@link
   * Standing#reordered} cost, plus the plugins.
   *
   * @param holdings see {@link Holdings#isFrom}
   * @param plugins its plugin paths
   * @param headers that know the mods of today
   */
  public Picture over(Holdings holdings, PluginPaths plugins, Arrangement next, Headers headers) {
    return new Picture(game, headers, arrangement, standing.over(holdings), loadOrder, plugins)
        .rearranged(next, false, false);
  }

  /** The plugin paths of holdings that came from these; see {@link PluginPaths#in}. */
  public PluginPaths pluginPathsOf(Holdings next) {
    return pluginPaths.in(game, standing.holdings(), next);
  }

  private Picture rearranged(Arrangement next, boolean sameHeld, boolean sameRulings) {
    Holdings holdings = standing.holdings();
    int[] loose = looseOrder(holdings, next);
    // keep the packs where they are until the new load order is known: most moves leave them alone
    Set<Long> on = on(next);
    int[] packs =
        Arrays.stream(standing.order())
            .filter(
                s -> holdings.source(s).pack().isPresent() && on.contains(holdings.source(s).mod()))
            .toArray();
    Standing stands =
        standing.reordered(
            joined(packs, loose),
            sameHeld ? standing.heldBack() : held(game, holdings, next),
            sameRulings ? standing.ruled() : ruled(game, holdings, next, headers, pluginPaths));
    return settled(game, headers, next, stands, pluginPaths);
  }

  private static Picture settled(
      GameDefinition game,
      Headers headers,
      Arrangement arrangement,
      Standing standing,
      PluginPaths pluginPaths) {
    Holdings holdings = standing.holdings();
    // looking a plugin through may mean reading it: all processors share that
    List<Found> found =
        new ArrayList<>(found(game, holdings, headers, pluginPaths, standing::inPlay));
    Map<Long, Integer> height = new HashMap<>();
    for (Arrangement.Layer l : arrangement.layers()) height.put(l.mod(), height.size() + 1);
    found.sort(
        Comparator.comparingInt((Found f) -> height.getOrDefault(f.mod(), 0))
            .thenComparing(Found::name));
    LoadOrder loadOrder = LoadOrder.of(game, found, arrangement.plugins());
    // a pack that another layer covers is not read at all
    Predicate<Holdings.Source> isRead =
        pack -> {
          int slot = standing.inPlay(holdings.idOf(pack.pack().orElseThrow()));
          return slot >= 0 && holdings.holderAt(slot).mod() == pack.mod();
        };
    int[] order =
        joined(
            packOrder(holdings, isRead, arrangement, loadOrder), looseOrder(holdings, arrangement));
    return new Picture(
        game, headers, arrangement, standing.reordered(order), loadOrder, pluginPaths);
  }

  private static boolean isLoose(Holdings holdings, int slot) {
    return slot >= 0 && holdings.holderAt(slot).pack().isEmpty();
  }

  /**
   * @param which the slot that counts at a path; negative for none
   */
  private static List<Found> found(
      GameDefinition game,
      Holdings holdings,
      Headers headers,
      PluginPaths paths,
      IntUnaryOperator which) {
    if (game.hasDocumentPlugins())
      return paths.inPlay(holdings, which).stream().parallel().map(f -> found(headers, f)).toList();
    return Arrays.stream(paths.plugins())
        .filter(p -> isLoose(holdings, which.applyAsInt(p)))
        .parallel()
        .mapToObj(p -> found(holdings, headers, p, which.applyAsInt(p)))
        .toList();
  }

  private static Found found(Holdings holdings, Headers headers, int path, int slot) {
    String at = holdings.path(path), name = GamePath.name(at);
    long mod = holdings.holderAt(slot).mod();
    HeaderOrFlaw h = headers.header(name, mod, holdings.spellingAt(slot), holdings.shaAt(slot));
    return new Found(
        name,
        mod,
        headers.isMend(mod),
        holdings.shaAt(slot),
        h.header(),
        h.flaw(),
        at,
        Optional.empty());
  }

  private static Found found(Headers headers, PluginFiles files) {
    NamedHeader h = headers.document(files);
    long mod = files.parts().get(0).mod();
    return new Found(
        h.name(),
        mod,
        headers.isMend(mod),
        files.sha256(),
        h.said().header(),
        h.said().flaw(),
        files.manifest(),
        Optional.of(files));
  }

  // a ruling for a mod that is off gives way to an older one, so switches count too
  private boolean sameRulings(Arrangement next) {
    if (!next.rulings().equals(arrangement.rulings())) return false;
    return next.rulings().isEmpty() || on(next).equals(on(arrangement));
  }

  private static Set<Long> on(Arrangement arrangement) {
    Set<Long> on = new HashSet<>(Set.of(Holdings.GAME));
    for (Arrangement.Layer l : arrangement.layers()) if (l.on()) on.add(l.mod());
    return on;
  }

  /**
   * By path the slot that a ruling puts in play; what is said of a very path comes last, and stays.
   */
  private static int[] ruled(
      GameDefinition game,
      Holdings holdings,
      Arrangement arrangement,
      Headers headers,
      PluginPaths pluginPaths) {
    if (arrangement.rulings().isEmpty()) return Standing.NO_RULINGS;
    int[] ruled = new int[holdings.pathCount()];
    Arrays.fill(ruled, -1);
    Set<Long> on = on(arrangement);
    List<Arrangement.Ruling> exact = new ArrayList<>();
    for (Arrangement.Ruling r : arrangement.rulings()) {
      if (!on.contains(r.mod())) continue;
      if (holdings.idOf(r.at()) >= 0) exact.add(r);
      else holdings.slotsOf(r.mod(), PathPattern.of(r.at(), game.pathCase())::matches, ruled);
    }
    for (Arrangement.Ruling r : exact) {
      int path = holdings.idOf(r.at());
      int slot = holdings.slotOfMod(path, r.mod());
      if (slot >= 0) ruled[path] = slot;
    }
    if (arrangement.rulings().stream().noneMatch(r -> r.mod() == Holdings.GAME)) return ruled;
    Map<Integer, Integer> own = ownHeights(game, holdings, headers, pluginPaths);
    for (int p = 0; p < ruled.length; p++)
      if (ruled[p] >= 0 && holdings.holderAt(ruled[p]).mod() == Holdings.GAME)
        ruled[p] = unmodded(holdings, own, p);
    return ruled;
  }

  /** The slots of what is held back, folder by folder and file by file. */
  private static BitSet held(GameDefinition game, Holdings holdings, Arrangement arrangement) {
    BitSet held = new BitSet();
    arrangement
        .heldBack()
        .forEach(
            (mod, paths) -> {
              Set<String> keys = new HashSet<>();
              paths.forEach(p -> keys.add(game.pathCase().key(p)));
              holdings
                  .looseSlots(mod, path -> covers(keys, game.pathCase().key(path)))
                  .forEach(held::set);
            });
    return held;
  }

  private static boolean covers(Set<String> keys, String key) {
    if (keys.contains(key)) return true;
    for (int slash = key.indexOf('/'); slash >= 0; slash = key.indexOf('/', slash + 1))
      if (keys.contains(key.substring(0, slash + 1))) return true;
    return false;
  }

  private static int[] looseOrder(Holdings holdings, Arrangement arrangement) {
    Map<Long, Integer> loose = new HashMap<>();
    for (Holdings.Source s : holdings.sources()) if (s.pack().isEmpty()) loose.put(s.mod(), s.id());
    List<Integer> order = new ArrayList<>();
    if (loose.containsKey(Holdings.GAME)) order.add(loose.get(Holdings.GAME));
    for (Arrangement.Layer l : arrangement.layers())
      if (l.on() && loose.containsKey(l.mod())) order.add(loose.get(l.mod()));
    return order.stream().mapToInt(Integer::intValue).toArray();
  }

  /**
   * Packs from the lowest: those nobody names, the game's own first and then by layer; then named
   * ones as their plugins load.
   */
  private static int[] packOrder(
      Holdings holdings,
      Predicate<Holdings.Source> isRead,
      Arrangement arrangement,
      LoadOrder loadOrder) {
    Map<String, Holdings.Source> byName = new LinkedHashMap<>();
    List<Long> height = new ArrayList<>(List.of(Holdings.GAME));
    arrangement.layers().stream().filter(Arrangement.Layer::on).forEach(l -> height.add(l.mod()));
    Map<Long, List<Holdings.Source>> packsOf = new HashMap<>();
    for (Holdings.Source s : holdings.sources())
      if (s.pack().isPresent()) packsOf.computeIfAbsent(s.mod(), m -> new ArrayList<>()).add(s);
    for (long mod : height) {
      for (Holdings.Source s : packsOf.getOrDefault(mod, List.of())) {
        if (isRead.test(s)) byName.put(PathCase.fold(GamePath.name(s.pack().get())), s);
      }
    }
    Set<String> namedAnywhere = new HashSet<>();
    Map<String, Holdings.Source> named = new LinkedHashMap<>();
    for (Entry e : loadOrder.entries()) {
      for (String pack : e.plugin().header().map(Header::packs).orElse(List.of())) {
        String key = PathCase.fold(pack);
        namedAnywhere.add(key);
        // named by several: it stands where the last of them that is on loads
        if (e.on() && byName.containsKey(key)) {
          named.remove(key);
          named.put(key, byName.get(key));
        }
      }
    }
    List<Integer> order = new ArrayList<>();
    byName.forEach(
        (key, s) -> {
          if (!namedAnywhere.contains(key)) order.add(s.id());
        });
    named.values().forEach(s -> order.add(s.id()));
    return order.stream().mapToInt(Integer::intValue).toArray();
  }

  /**
   * The slot of the file that the game reads at a path when no mod is there, whatever is deployed;
   * -1 where the game has none. Of a loose file and one in a pack that is the loose one; of several
   * packs, the one that the game's own plugins name last.
   */
  public int unmodded(int path) {
    if (ownHeights == null)
      ownHeights = ownHeights(game, standing.holdings(), headers, pluginPaths);
    return unmodded(standing.holdings(), ownHeights, path);
  }

  private static int unmodded(Holdings holdings, Map<Integer, Integer> heights, int path) {
    int found = -1, highest = -1;
    for (Holdings.Source s : holdings.sourcesOf(path)) {
      int height = heights.getOrDefault(s.id(), -1);
      if (height <= highest) continue;
      highest = height;
      found = holdings.slotOf(path, s.id());
    }
    return found;
  }

  private static Map<Integer, Integer> ownHeights(
      GameDefinition game, Holdings holdings, Headers headers, PluginPaths pluginPaths) {
    List<Found> own =
        new ArrayList<>(
            found(
                game,
                holdings,
                headers,
                pluginPaths,
                p -> {
                  int slot = holdings.slotOfMod(p, Holdings.GAME);
                  return isLoose(holdings, slot) ? slot : -1;
                }));
    own.sort(Comparator.comparing(Found::name));
    LoadOrder alone = LoadOrder.of(game, own, List.of());
    int[] order =
        joined(
            packOrder(holdings, pack -> true, Arrangement.EMPTY, alone),
            looseOrder(holdings, Arrangement.EMPTY));
    Map<Integer, Integer> heights = new HashMap<>();
    for (int source : order) heights.put(source, heights.size());
    return heights;
  }

  private static int[] joined(int[] lower, int[] higher) {
    int[] all = Arrays.copyOf(lower, lower.length + higher.length);
    System.arraycopy(higher, 0, all, lower.length, higher.length);
    return all;
  }

  public GameDefinition game() {
    return game;
  }

  public Arrangement arrangement() {
    return arrangement;
  }

  /** A file as the unmodded game has it. */
  public Optional<byte[]> own(String path) {
    int id = holdings().idOf(path);
    return id >= 0 && holdings().slotOfMod(id, Holdings.GAME) >= 0
        ? headers.own(path)
        : Optional.empty();
  }

  /** The bytes of a part of a plugin that is open text. */
  public Optional<byte[]> part(PluginFiles.Part part) {
    return headers.part(part);
  }

  /**
   * The paths of plugins that are off, where the game has no list that says so: they must not lie
   * in its folder. Made when it is first asked for. Cost: all paths, where such a plugin is off.
   */
  public BitSet switchedOff() {
    BitSet known = switchedOff;
    if (known == null) switchedOff = known = findSwitchedOff();
    return known;
  }

  private BitSet findSwitchedOff() {
    BitSet off = new BitSet();
    boolean byFolder =
        game.plugins().filter(p -> p.documents().isPresent() && p.list().isEmpty()).isPresent();
    if (!byFolder) return off;
    boolean folders = game.plugins().get().areFolders();
    Set<String> at = new HashSet<>();
    for (Entry e : loadOrder.entries())
      if (!e.on())
        at.add(
            game.pathCase().key(folders ? GamePath.folder(e.plugin().path()) : e.plugin().path()));
    if (at.isEmpty()) return off;
    for (int p = 0; p < holdings().pathCount(); p++) {
      String key = game.pathCase().key(holdings().path(p));
      while (!key.isEmpty() && !at.contains(key)) key = GamePath.folder(key);
      if (!key.isEmpty()) off.set(p);
    }
    return off;
  }

  public Standing standing() {
    return standing;
  }

  public Holdings holdings() {
    return standing.holdings();
  }

  public LoadOrder loadOrder() {
    return loadOrder;
  }

  /** How its paths are written to disk. Made when it is first asked for. */
  public Spelling spelling() {
    Spelling known = spelling;
    // two threads may both make it: it is the same
    if (known == null) spelling = known = Spelling.of(standing, game.pathCase());
    return known;
  }

  /** Whether the game would find a pack of this file name. */
  public boolean packInPlay(String fileName) {
    if (game.packs().isEmpty()) return false;
    String at = game.mount(game.packs().get().mount()).map(GameDefinition.Mount::at).orElse(".");
    int path = holdings().idOf(GamePath.join(at, fileName));
    return path >= 0 && standing.inPlay(path) >= 0;
  }
}
