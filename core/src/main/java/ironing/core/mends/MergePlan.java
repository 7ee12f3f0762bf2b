package ironing.core.mends;

import ironing.core.game.GameDefinition;
import ironing.core.path.PathCase;
import ironing.core.plugin.Plugin;
import ironing.core.plugin.RecordCopy;
import ironing.core.plugin.RecordTable;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * What making several plugins one comes to, before it is made.
 *
 * <p>The game must read the same afterwards: of every record the version that wins today, under its
 * new key. So the merged plugin has of each record the version of the last source, its place lies
 * above all that this version covers today, and what loses to a plugin below that place is left
 * out. It lies below every plugin that needs it. Where no place is both, it is refused.
 *
 * <p>Where sources change one record in ways that combine, and the user asks for it, the merged
 * plugin has the outcome instead: what a patch over the sources would hold, or holds already.
 *
 * <p>Threads: immutable. Cost: linear in the records of the sources; values are read only of those
 * that combine.
 */
public final class MergePlan {
  /**
   * Why it cannot be made, or what will not be in it.
   *
   * @param code for programs
   * @param thing the plugin or record
   */
  public record Note(String code, String thing, String reason, String remedy) {}

  /**
   * A record that more than one source has a version of.
   *
   * @param sources in load order; the version of the last is taken, unless they are combined
   * @param combines whether their changes combine into something that none of them has, without a
   *     question or as the user has decided
   */
  public record Shared(int record, List<String> sources, boolean combines) {}

  /**
   * A row of a source that goes into the merged plugin.
   *
   * @param made what goes in instead of it, by its old keys; null where it goes in as it is
   */
  record Row(long order, int position, int row, Plugin.Record made) {}

  private final GameDefinition game;
  private final RecordIndex index;
  private final Optional<Collisions> collisions;
  private final boolean combining;
  private final String target;
  private final List<Integer> sources;
  private final List<Integer> rest = new ArrayList<>();
  private final boolean[] merged;
  private final List<Note> refused = new ArrayList<>();
  private final List<Note> leftOut = new ArrayList<>();
  private final List<Shared> shared = new ArrayList<>();
  private final List<String> dependents = new ArrayList<>();
  private final List<String> masters = new ArrayList<>();
  private final Renumbering numbers;
  private final List<Row> rows = new ArrayList<>();
  private int place;
  private int stage;
  private int own;

  private MergePlan(
      GameDefinition game,
      RecordIndex index,
      Optional<Collisions> collisions,
      boolean combining,
      Collection<String> wished,
      String target) {
    this.game = game;
    this.index = index;
    this.collisions = collisions;
    this.combining = combining;
    this.target = target;
    this.sources =
        wished.stream().map(index::position).filter(p -> p >= 0).distinct().sorted().toList();
    this.merged = new boolean[index.pluginCount()];
    sources.forEach(p -> merged[p] = true);
    for (int p = 0; p < merged.length; p++) if (!merged[p]) rest.add(p);
    refuseWhatIsNotThere(wished);
    numbers = new Renumbering(index, sources, target);
    if (!numbers.fits())
      refuse(
          "merge-too-many",
          target,
          "A plugin numbers its records up to 16,777,215, and here are more.",
          "Merge fewer.");
    takeMasters();
    findPlace();
    gather();
  }

  /**
   * @param sources file names of plugins that are on
   * @param target the file name of the plugin that they become: a new one, or one of them
   */
  public static MergePlan of(
      GameDefinition game, RecordIndex index, Collection<String> sources, String target) {
    return new MergePlan(game, index, Optional.empty(), false, sources, target);
  }

  /**
   * The same, told which records that several sources have combine.
   *
   * @param collisions of the same index, with what the user has decided
   * @param combining whether the merged plugin has the outcome of those, instead of one version
   */
  public static MergePlan of(
      GameDefinition game,
      RecordIndex index,
      Collisions collisions,
      boolean combining,
      Collection<String> sources,
      String target) {
    return new MergePlan(game, index, Optional.of(collisions), combining, sources, target);
  }

  private void refuse(String code, String thing, String reason, String remedy) {
    refused.add(new Note(code, thing, reason, remedy));
  }

  private void refuseWhatIsNotThere(Collection<String> wished) {
    if (sources.size() < 2)
      refuse(
          "merge-too-few",
          target,
          "A merge is made of two plugins or more.",
          "Choose another one.");
    Set<String> own = new HashSet<>();
    game.plugins().ifPresent(p -> p.own().forEach(o -> own.add(PathCase.fold(o))));
    for (String name : wished) {
      int p = index.position(name);
      if (p < 0)
        refuse(
            "merge-not-on",
            name,
            "It is not on, or cannot be read.",
            "Switch it on, or leave it out.");
      else if (own.contains(PathCase.fold(name)))
        refuse("merge-own", name, "It is the game’s own, and always on.", "Leave it out.");
      else if (index.source(p).mend())
        refuse(
            "merge-patch",
            name,
            "It is a patch that Ironing made, and is rebuilt after the merge.",
            "Leave it out.");
    }
    int there = index.position(target);
    if (there >= 0 && !merged[there])
      refuse(
          "merge-name-taken",
          target,
          "Another plugin has this name.",
          "Give the merge a name of its own, or one of the plugins that it is made of.");
  }

  // in load order, each once, none of the merged
  private void takeMasters() {
    Set<String> needed = new HashSet<>();
    for (int s : sources)
      index.table(s).header().masters().forEach(m -> needed.add(PathCase.fold(m)));
    for (int p : rest) if (needed.remove(PathCase.fold(index.name(p)))) masters.add(index.name(p));
    sources.forEach(s -> needed.remove(PathCase.fold(index.name(s))));
    for (int s : sources)
      for (String m : index.table(s).header().masters())
        if (needed.remove(PathCase.fold(m)))
          refuse(
              "merge-master-missing",
              m,
              "It is a master of " + index.name(s) + " and is not on.",
              "Switch it on first.");
  }

  private void findPlace() {
    int last = sources.isEmpty() ? 0 : sources.get(sources.size() - 1);
    int[] restAt = new int[index.pluginCount()];
    for (int i = 0; i < rest.size(); i++) restAt[rest.get(i)] = i;
    int low = 0, high = rest.size();
    String lowest = "";
    List<String> lowReasons = new ArrayList<>();
    for (String m : masters) {
      int at = restAt[index.position(m)] + 1;
      if (at > low) {
        low = at;
        lowest = m;
      }
    }
    for (int p : rest) {
      if (sources.stream().noneMatch(s -> index.sees(p, s))) continue;
      dependents.add(index.name(p));
      if (restAt[p] < high) high = restAt[p];
    }
    if (low > high)
      refuse(
          "merge-ring",
          lowest,
          lowest
              + " is a master of what is merged, and "
              + index.name(rest.get(high))
              + " needs what is merged and loads before it.",
          "Take "
              + lowest
              + " or "
              + index.name(rest.get(high))
              + " into the merge too, or fewer.");
    for (int s : sources) {
      for (int row = 0; row < index.table(s).size(); row++) {
        int record = index.recordAt(s, row);
        if (record < 0 || index.usedPosition(record) != s) continue;
        for (int v = 0; v < index.versionCount(record); v++) {
          int p = index.positionOf(record, v);
          if (merged[p]) continue;
          int at = restAt[p] + 1;
          if (at > high && lowReasons.size() < 20)
            lowReasons.add(
                "“%s” (%s): %s must go on covering %s, and the merge has to load before %s, which needs it"
                    .formatted(
                        index.label(record),
                        index.key(record),
                        index.name(s),
                        index.name(p),
                        index.name(rest.get(high))));
          low = Math.max(low, at);
        }
      }
    }
    for (String reason : lowReasons)
      refuse(
          "merge-no-place",
          target,
          reason + ".",
          "Take " + index.name(rest.get(high)) + " into the merge too, or fewer.");
    int wished = (int) rest.stream().filter(p -> p < last).count();
    place = Math.max(Math.min(low, high), Math.min(wished, high));
    stage = stage(last);
  }

  // between those of its neighbours; as the last source's where that fits
  private int stage(int last) {
    if (sources.isEmpty()) return Plugin.DEFAULT_STAGE;
    int wished = index.table(last).header().stage();
    Set<String> own = new HashSet<>();
    game.plugins().ifPresent(p -> p.own().forEach(o -> own.add(PathCase.fold(o))));
    int from = 0, to = 9;
    for (int i = 0; i < rest.size(); i++) {
      if (own.contains(PathCase.fold(index.name(rest.get(i))))) continue;
      int s = index.table(rest.get(i)).header().stage();
      if (i < place) from = Math.max(from, s);
      else to = Math.min(to, s);
    }
    return Math.max(from, Math.min(to, wished));
  }

  private void gather() {
    Set<Integer> placed = new HashSet<>(rest.subList(0, Math.min(place, rest.size())));
    int[] masterAt = new int[index.pluginCount()];
    for (int i = 0; i < masters.size(); i++) masterAt[index.position(masters.get(i))] = i;
    for (int s : sources) {
      RecordTable t = index.table(s);
      for (int row = 0; row < t.size(); row++) {
        int record = index.recordAt(s, row);
        // it would have no owner in the merge, or another type than its owner's
        if (record < 0 || index.isOdd(record)) continue;
        if (lastSource(record) != s) continue;
        Optional<Plugin.Record> outcome = Optional.empty();
        if (row < t.ownFrom() && sourceCount(record) > 1) {
          outcome = outcome(record);
          shared.add(new Shared(record, sourcesOf(record), outcome.isPresent()));
        }
        int used = index.usedPosition(record);
        int ownerAt = index.ownerOf(record);
        boolean mine = merged[ownerAt];
        if (!mine && placed.contains(used)) {
          leftOut.add(
              new Note(
                  "merge-loses",
                  index.key(record).toString(),
                  "The game reads it as "
                      + index.name(used)
                      + " has it, which would load below the merged plugin.",
                  ""));
          continue;
        }
        if (mine) own++;
        Ref key = numbers.of(index.key(record));
        int owner = mine ? masters.size() : masterAt[ownerAt];
        Plugin.Record made = combining ? outcome.orElse(null) : null;
        rows.add(new Row((long) owner << 32 | key.id(), s, row, made));
      }
    }
    rows.sort((a, b) -> Long.compare(a.order(), b.order()));
    Set<String> names = new HashSet<>();
    sources.forEach(s -> names.add(PathCase.fold(index.name(s))));
    for (RecordIndex.Odd o : index.odd()) {
      if (!names.contains(PathCase.fold(o.plugin()))) continue;
      int record = index.find(o.key());
      boolean read =
          PathCase.fold(index.name(index.usedPosition(record))).equals(PathCase.fold(o.plugin()));
      if (read)
        refuse(
            "merge-odd",
            o.key().toString(),
            o.reason()
                + " The game reads it as "
                + o.plugin()
                + " has it, and a merge cannot hold that.",
            "Leave " + o.plugin() + " out of the merge.");
      else leftOut.add(new Note("merge-odd", o.key().toString(), o.reason(), ""));
    }
  }

  /**
   * What its versions combine into, where only sources have a say and no version is that already.
   */
  private Optional<Plugin.Record> outcome(int record) {
    if (collisions.isEmpty()) return Optional.empty();
    int at = collisions.get().find(record);
    if (at < 0 || !collisions.get().wantsPatch(at)) return Optional.empty();
    for (int p : collisions.get().leaves(record)) if (!merged[p]) return Optional.empty();
    Collision c = collisions.get().of(record);
    Optional<Value.Fields> fields = c.combination().outcome();
    if (!c.combination().settled() || !fields.map(this::isWithinReach).orElse(true))
      return Optional.empty();
    return Optional.of(new Plugin.Record(c.typeName(), c.key(), fields));
  }

  /** Whether all that it refers to is merged or a master; something typed in may not be. */
  private boolean isWithinReach(Value v) {
    if (v instanceof Ref r)
      return numbers.isMerged(r.owner())
          || masters.stream().anyMatch(m -> PathCase.fold(m).equals(PathCase.fold(r.owner())));
    if (v instanceof Value.Array a) return a.items().stream().allMatch(this::isWithinReach);
    if (v instanceof Value.Fields f) return f.map().values().stream().allMatch(this::isWithinReach);
    return true;
  }

  private int sourceCount(int record) {
    int count = 0;
    for (int v = 0; v < index.versionCount(record); v++)
      if (merged[index.positionOf(record, v)]) count++;
    return count;
  }

  private int lastSource(int record) {
    for (int v = index.versionCount(record) - 1; v >= 0; v--)
      if (merged[index.positionOf(record, v)]) return index.positionOf(record, v);
    return -1;
  }

  private List<String> sourcesOf(int record) {
    return IntStream.range(0, index.versionCount(record))
        .map(v -> index.positionOf(record, v))
        .filter(p -> merged[p])
        .mapToObj(index::name)
        .toList();
  }

  /** Why it cannot be made; empty when it can. */
  public List<Note> refused() {
    return refused;
  }

  /** Versions that will not be in it, and why. */
  public List<Note> leftOut() {
    return leftOut;
  }

  /** Records that several sources have a version of. */
  public List<Shared> shared() {
    return shared;
  }

  /** Plugins elsewhere that have one of the sources as a master; they have to be rewritten. */
  public List<String> dependents() {
    return dependents;
  }

  /** What the merged plugin's masters are, in load order. */
  public List<String> masters() {
    return masters;
  }

  public Renumbering numbers() {
    return numbers;
  }

  public String target() {
    return target;
  }

  /** The sources that are there, in load order. */
  public List<String> sources() {
    return sources.stream().map(index::name).toList();
  }

  public int stage() {
    return stage;
  }

  /** The plugin that loads directly before it, of those that are not merged; empty for none. */
  public String after() {
    return place == 0 ? "" : index.name(rest.get(place - 1));
  }

  /** How many records it defines itself. */
  public int newRecords() {
    return own;
  }

  /** How many records of others it overrides. */
  public int overrides() {
    return rows.size() - own;
  }

  /** The packs that its sources name, in load order. */
  public List<String> packs() {
    Set<String> packs = new LinkedHashSet<>();
    sources.forEach(s -> packs.addAll(index.table(s).header().packs()));
    return List.copyOf(packs);
  }

  RecordIndex index() {
    return index;
  }

  GameDefinition game() {
    return game;
  }

  /** Where the references of a source lead to in the merged plugin. */
  RecordCopy.Keys keys(RecordTable source) {
    int[] master = new int[source.ownerCount()];
    for (int o = 0; o < master.length; o++) {
      String name = source.ownerName(o);
      master[o] = -1;
      for (int m = 0; m < masters.size(); m++)
        if (PathCase.fold(masters.get(m)).equals(PathCase.fold(name))) master[o] = m;
    }
    Renumbering.Lookup[] mergedNumbers = new Renumbering.Lookup[master.length];
    for (int o = 0; o < master.length; o++) mergedNumbers[o] = numbers.lookup(source.ownerName(o));
    int self = masters.size();
    return (owner, id) ->
        mergedNumbers[owner] == null
            ? RecordCopy.Keys.key(master[owner], id)
            : RecordCopy.Keys.key(self, mergedNumbers[owner].of(id));
  }

  List<Row> rows() {
    return rows;
  }

  int[] positions() {
    return sources.stream().mapToInt(Integer::intValue).toArray();
  }
}
