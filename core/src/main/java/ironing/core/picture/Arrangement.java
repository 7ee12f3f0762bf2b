package ironing.core.picture;

import ironing.core.combinedfiles.FileChoices;
import ironing.core.layers.PlacementRule;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.loadorder.RuleBook;
import ironing.core.records.Decided;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What the user decided in one profile. Immutable.
 *
 * @param layers from the lowest; the game is not among them
 * @param plugins the load order as wished; may name plugins that are not in play
 * @param decisions by the key of a record and the place
 * @param fileChoices by the game path of a file that several mods change, as it is deployed
 * @param heldBack by mod: game paths of files, and of folders with {@code /} at the end, that the
 *     user keeps out of the game
 * @param sections the named stretches of layers, in no order; each has a layer
 * @param rulings of several that speak of one path, one of that very path decides, else the last
 * @param rules the user's own rules of placement; all profiles of a workspace share them
 * @param loadRules the user's word on rules of the load order; shared likewise
 * @param muted the keys of rules of the load order that do not count in this profile
 */
public record Arrangement(
    List<Layer> layers,
    List<Wish> plugins,
    Map<String, Map<String, Decided>> decisions,
    Map<String, FileChoices> fileChoices,
    Map<Long, Set<String>> heldBack,
    List<Section> sections,
    List<Ruling> rulings,
    List<PlacementRule> rules,
    RuleBook loadRules,
    Set<String> muted) {
  /** Of a workspace in which nothing has been decided yet. */
  public static final Arrangement EMPTY = new Arrangement(List.of(), List.of(), Map.of());

  /**
   * @param section the section that it is in, 0 for none
   * @param kept whether a suggestion must leave it where it is
   */
  public record Layer(long mod, boolean on, long section, boolean kept) {
    public Layer(long mod, boolean on) {
      this(mod, on, 0, false);
    }

    public Layer withMod(long other) {
      return new Layer(other, on, section, kept);
    }

    public Layer withOn(boolean on) {
      return new Layer(mod, on, section, kept);
    }

    public Layer withSection(long section) {
      return new Layer(mod, on, section, kept);
    }

    public Layer withKept(boolean kept) {
      return new Layer(mod, on, section, kept);
    }
  }

  public record Section(long id, String name) {}

  /**
   * The user's word on whose file is in play.
   *
   * @param at a game path, a folder with {@code /} at its end, or a pattern
   * @param mod 0 for the game
   */
  public record Ruling(String at, long mod) {}

  public Arrangement {
    Set<Long> known = new TreeSet<>();
    for (Section s : sections) known.add(s.id());
    // a layer that comes back after its section has gone is in none, not in the next of that number
    layers =
        layers.stream()
            .map(l -> l.section() == 0 || known.contains(l.section()) ? l : l.withSection(0))
            .toList();
    plugins = List.copyOf(plugins);
    Map<String, Map<String, Decided>> copy = new TreeMap<>();
    decisions.forEach(
        (record, places) -> {
          if (!places.isEmpty())
            copy.put(record, Collections.unmodifiableMap(new TreeMap<>(places)));
        });
    decisions = Collections.unmodifiableMap(copy);
    Map<String, FileChoices> chosen = new TreeMap<>(fileChoices);
    chosen.values().removeIf(FileChoices::isEmpty);
    fileChoices = Collections.unmodifiableMap(chosen);
    Map<Long, Set<String>> held = new TreeMap<>();
    heldBack.forEach(
        (mod, paths) -> {
          if (!paths.isEmpty()) held.put(mod, Collections.unmodifiableSet(new TreeSet<>(paths)));
        });
    heldBack = Collections.unmodifiableMap(held);
    Set<Long> used = new TreeSet<>();
    for (Layer l : layers) used.add(l.section());
    sections = sections.stream().filter(s -> used.contains(s.id())).toList();
    rulings = List.copyOf(rulings);
    rules = List.copyOf(rules);
    muted = Collections.unmodifiableSet(new TreeSet<>(muted));
  }

  /** With nothing held back, no sections, rulings or rules. */
  public Arrangement(
      List<Layer> layers, List<Wish> plugins, Map<String, Map<String, Decided>> decisions) {
    this(
        layers,
        plugins,
        decisions,
        Map.of(),
        Map.of(),
        List.of(),
        List.of(),
        List.of(),
        RuleBook.EMPTY,
        Set.of());
  }

  public Arrangement withLayers(List<Layer> layers) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  public Arrangement withLayers(List<Layer> layers, List<Section> sections) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  public Arrangement withPlugins(List<Wish> plugins) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  public Arrangement withRulings(List<Ruling> rulings) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  public Arrangement withRules(List<PlacementRule> rules) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  public Arrangement withLoadRules(RuleBook loadRules) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  public Arrangement withMuted(Set<String> muted) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  /** With the user's decisions on one record replaced; none takes the record out. */
  public Arrangement withDecisions(String record, Map<String, Decided> places) {
    Map<String, Map<String, Decided>> next = new TreeMap<>(decisions);
    next.put(record, places);
    return withDecisions(next);
  }

  public Arrangement withDecisions(Map<String, Map<String, Decided>> decisions) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  /** With what the user says of one file replaced. */
  public Arrangement withFileChoices(String path, FileChoices choices) {
    Map<String, FileChoices> next = new TreeMap<>(fileChoices);
    next.put(path, choices);
    return withFileChoices(next);
  }

  public Arrangement withFileChoices(Map<String, FileChoices> fileChoices) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  /** With what is held back of one mod replaced. */
  public Arrangement withHeldBack(long mod, Set<String> paths) {
    Map<Long, Set<String>> next = new TreeMap<>(heldBack);
    next.put(mod, paths);
    return withHeldBack(next);
  }

  public Arrangement withHeldBack(Map<Long, Set<String>> heldBack) {
    return new Arrangement(
        layers,
        plugins,
        decisions,
        fileChoices,
        heldBack,
        sections,
        rulings,
        rules,
        loadRules,
        muted);
  }

  /**
   * With another mod in one's place: its layer, switch, section, rulings, and what is held back of
   * it.
   */
  public Arrangement withInstead(long replaced, long by) {
    Map<Long, Set<String>> held = new TreeMap<>(heldBack);
    Set<String> paths = held.remove(replaced);
    if (paths != null) held.put(by, paths);
    return new Arrangement(
        layers.stream().map(l -> l.mod() == replaced ? l.withMod(by) : l).toList(),
        plugins,
        decisions,
        fileChoices,
        held,
        sections,
        rulings.stream().map(r -> r.mod() == replaced ? new Ruling(r.at(), by) : r).toList(),
        rules,
        loadRules,
        muted);
  }

  public FileChoices choicesOn(String path) {
    return fileChoices.getOrDefault(path, FileChoices.NONE);
  }

  public Map<String, Decided> decisionsOn(String record) {
    return decisions.getOrDefault(record, Map.of());
  }
}
