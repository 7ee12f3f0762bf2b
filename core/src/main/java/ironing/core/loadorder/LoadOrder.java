package ironing.core.loadorder;

import ironing.core.game.GameDefinition;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.Plugin.Header;
import ironing.core.plugin.PluginFiles;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * The plugins in play, in the order in which the game reads them.
 *
 * <p>Invariant: the game's own come first, in the game's order, and are on; then lower stages
 * before higher ones. Names compare without case. Immutable.
 */
public final class LoadOrder {
  /**
   * A plugin whose file is in play.
   *
   * @param mod whose file it is
   * @param mend whether that mod was generated from others
   * @param header empty when the file does not decode
   * @param flaw why it does not decode
   * @param path game path of its file, or of its manifest
   * @param files all that it is made of, where it is open text
   */
  public record Found(
      String name,
      long mod,
      boolean mend,
      String sha256,
      Optional<Header> header,
      Optional<String> flaw,
      String path,
      Optional<PluginFiles> files) {
    public int stage() {
      return header.map(Header::stage).orElse(Plugin.DEFAULT_STAGE);
    }

    public List<String> masters() {
      return header.map(Header::masters).orElse(List.of());
    }
  }

  /**
   * What the user decided: an order of names, each on or off. Plugins not in play may be named.
   *
   * @param kept whether a proposal must leave it where it is
   */
  public record Wish(String name, boolean on, boolean kept) {
    public Wish(String name, boolean on) {
      this(name, on, false);
    }

    public Wish withOn(boolean on) {
      return new Wish(name, on, kept);
    }

    public Wish withKept(boolean kept) {
      return new Wish(name, on, kept);
    }
  }

  /**
   * @param own one of the game's
   * @param fresh whether nobody has given it a place yet: it has just come
   */
  public record Entry(Found plugin, boolean on, boolean own, boolean kept, boolean fresh) {
    public String name() {
      return plugin.name();
    }

    Wish asWish() {
      return new Wish(name(), on, kept);
    }
  }

  private final List<Entry> entries;
  private final List<Found> doubled;
  private final Map<String, Integer> asSpelled;
  // made when somebody first asks for a name that is spelled otherwise: mostly nobody does
  private volatile Map<String, Integer> folded;

  private LoadOrder(List<Entry> entries, List<Found> doubled) {
    this.entries = List.copyOf(entries);
    this.doubled = List.copyOf(doubled);
    this.asSpelled = new HashMap<>(entries.size() * 2);
    for (int i = 0; i < entries.size(); i++) asSpelled.put(entries.get(i).name(), i);
  }

  private Map<String, Integer> folded() {
    Map<String, Integer> known = folded;
    if (known != null) return known;
    known = new HashMap<>(entries.size() * 2);
    for (int i = 0; i < entries.size(); i++) known.put(PathCase.fold(entries.get(i).name()), i);
    folded = known;
    return known;
  }

  public static LoadOrder empty() {
    return new LoadOrder(List.of(), List.of());
  }

  /**
   * The order that follows from what is in play and what the user wished.
   *
   * <p>The game reads lower stages before higher ones whatever anybody wishes, so wishes count
   * within a stage. A plugin that nobody placed yet is on and comes last in its stage, before the
   * plugins of mends that end it: what a mod has just brought appears by itself, and what was
   * generated from the others stays behind them.
   *
   * @param found plugins in play, in layer order
   */
  public static LoadOrder of(GameDefinition game, List<Found> found, List<Wish> wishes) {
    Map<String, Found> left = new LinkedHashMap<>(found.size() * 2);
    Map<String, String> keys = new HashMap<>(found.size() * 2);
    List<Found> doubled = new ArrayList<>();
    for (Found f : found) {
      String key = PathCase.fold(f.name());
      keys.put(f.name(), key);
      // of two of text the lower one has the name: what comes later does not take it away
      if (f.files().isPresent() && left.containsKey(key)) {
        doubled.add(f);
        continue;
      }
      Found same = left.put(key, f);
      if (same != null) doubled.add(same);
    }
    List<Entry> entries = new ArrayList<>();
    for (String own : game.plugins().map(GameDefinition.Plugins::own).orElse(List.of())) {
      Found f = left.remove(PathCase.fold(own));
      if (f != null) entries.add(new Entry(f, true, true, false, false));
    }
    TreeMap<Integer, StageOrder> stages = new TreeMap<>();
    for (Wish w : wishes) {
      String key = keys.get(w.name());
      Found f = left.remove(key != null ? key : PathCase.fold(w.name()));
      if (f != null) stageOf(stages, f).place(new Entry(f, w.on(), false, w.kept(), false));
    }
    for (Found f : left.values()) stageOf(stages, f).bring(new Entry(f, true, false, false, true));
    for (StageOrder s : stages.values()) s.appendTo(entries);
    return new LoadOrder(entries, doubled);
  }

  private static StageOrder stageOf(Map<Integer, StageOrder> stages, Found f) {
    return stages.computeIfAbsent(f.stage(), s -> new StageOrder());
  }

  /** One stage while it is put together. */
  private static final class StageOrder {
    private final List<Entry> placed = new ArrayList<>();
    private final List<Entry> fresh = new ArrayList<>();
    private final List<Entry> freshMends = new ArrayList<>();

    void place(Entry e) {
      placed.add(e);
    }

    void bring(Entry e) {
      (e.plugin().mend() ? freshMends : fresh).add(e);
    }

    void appendTo(List<Entry> entries) {
      int mendsFrom = placed.size();
      while (mendsFrom > 0 && placed.get(mendsFrom - 1).plugin().mend()) mendsFrom--;
      entries.addAll(placed.subList(0, mendsFrom));
      entries.addAll(fresh);
      entries.addAll(placed.subList(mendsFrom, placed.size()));
      entries.addAll(freshMends);
    }
  }

  public List<Entry> entries() {
    return entries;
  }

  /**
   * Plugins in play whose names differ from another one’s only in case, where the game’s paths tell
   * the two apart: the other one, of the higher layer, has the place. Of plugins of text those of a
   * name that a lower layer, or the game, has already.
   */
  public List<Found> doubled() {
    return doubled;
  }

  /** Those that are on, in order: what the game reads. */
  public List<Entry> active() {
    return entries.stream().filter(Entry::on).toList();
  }

  public Optional<Entry> find(String name) {
    int at = position(name);
    return at < 0 ? Optional.empty() : Optional.of(entries.get(at));
  }

  /** From 0; -1 when no such plugin is in play. */
  public int position(String name) {
    Integer at = asSpelled.get(name);
    return at != null ? at : folded().getOrDefault(PathCase.fold(name), -1);
  }

  /** This order as wishes. */
  public List<Wish> asWishes() {
    return entries.stream().filter(e -> !e.own()).map(Entry::asWish).toList();
  }

  /**
   * The wishes for a new order of what is in play. Wishes for plugins that are not in play now stay
   * behind the one that they stood behind, so that a mod that is switched off and on again finds
   * its place.
   *
   * @param old the wishes so far, absent plugins included
   * @param wanted what is in play, in the new order; the game's own may be left out
   */
  public List<Wish> merged(List<Wish> old, List<Wish> wanted) {
    Map<String, List<Wish>> behind = new HashMap<>();
    String anchor = "";
    for (Wish w : old) {
      String key = PathCase.fold(w.name());
      if (folded().containsKey(key)) anchor = key;
      else behind.computeIfAbsent(anchor, a -> new ArrayList<>()).add(w);
    }
    List<Wish> out = new ArrayList<>(behind.getOrDefault("", List.of()));
    for (Wish w : wanted) {
      Optional<Entry> e = find(w.name());
      if (e.isEmpty() || e.get().own()) continue;
      out.add(new Wish(e.get().name(), w.on(), w.kept()));
      out.addAll(behind.getOrDefault(PathCase.fold(w.name()), List.of()));
    }
    return out;
  }
}
