package ironing.server.records;

import static ironing.core.workspace.Stages.COLLISIONS;
import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.IroningException;
import ironing.core.game.RecordType;
import ironing.core.path.PathCase;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordIndex.Odd;
import ironing.core.records.RecordSearch;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** All records of the plugins that are on: how many there are, which collide, and a search. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/records")
class RecordsController {
  private static final int MOST_AT_ONCE = 2_000;
  private static final int MOST_ODD = 200;
  private static final int MOST_PAIRS = 500;
  private final Workbenches benches;

  RecordsController(Workbenches benches) {
    this.benches = benches;
  }

  /** How many records stand how. */
  record StateCounts(int needYou, int combine, int settled, int oneChanges, int same, int odd) {
    static StateCounts of(Map<State, Integer> counts) {
      return new StateCounts(
          counts.getOrDefault(State.NEEDS_YOU, 0),
          counts.getOrDefault(State.COMBINES, 0),
          counts.getOrDefault(State.SETTLED, 0),
          counts.getOrDefault(State.ONE_CHANGES, 0),
          counts.getOrDefault(State.SAME, 0),
          counts.getOrDefault(State.ODD, 0));
    }
  }

  /**
   * A type of record.
   *
   * @param type as plugins write it; {@code title} for people
   * @param records of this type in all plugins
   * @param states of those that some plugin overrides
   */
  record RecordTypeView(String type, String title, int records, StateCounts states) {}

  /** A version that makes no sense; its record is never combined. */
  record OddView(String key, String plugin, String reason) {}

  /**
   * @param records in all plugins that are on
   * @param odd the first of those that make no sense
   * @param oddInAll how many there are
   */
  record RecordsView(
      long revision,
      int records,
      StateCounts states,
      List<RecordTypeView> types,
      List<OddView> odd,
      int oddInAll) {}

  /**
   * One record in a list.
   *
   * @param key owner and id, such as Skerry.plug/420
   * @param title of its type
   * @param plugins whose versions count, in load order; the owner alone where nobody overrides it
   * @param usedBy the plugin whose version the game uses now
   * @param state absent where nobody overrides it
   * @param lost how many fields of the version in use lack what somebody changed
   * @param asked how many places wait for the user
   */
  record RecordLine(
      String key,
      String title,
      String label,
      List<String> plugins,
      String usedBy,
      @MayBeAbsent State state,
      int lost,
      int asked) {}

  /**
   * A stretch of a list of records.
   *
   * @param total how many there are in all
   * @param next the offset of the stretch after this one, absent at the end
   */
  record RecordPage(
      long revision, int total, @MayBeAbsent Integer next, List<RecordLine> records) {}

  /** Two plugins that change the same records, the earlier first. */
  record RecordPair(String first, String second, int records, StateCounts states) {}

  /**
   * @param more pairs that are not among these: those that collide over fewer records
   */
  record RecordPairs(long revision, List<RecordPair> pairs, int more) {}

  /** How many records there are, and how they stand. */
  @GetMapping
  ResponseEntity<RecordsView> records(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Collisions all = bench.get(COLLISIONS);
    List<OddView> odd =
        all.index().odd().stream()
            .limit(MOST_ODD)
            .map((Odd o) -> new OddView(o.key().toString(), o.plugin(), o.reason()))
            .toList();
    RecordsView view =
        new RecordsView(
            bench.revision(),
            all.index().size(),
            StateCounts.of(all.counts()),
            types(bench, all),
            odd,
            all.index().odd().size());
    return ResponseEntity.ok().eTag(Revision.etag(bench.revision())).body(view);
  }

  private static List<RecordTypeView> types(Bench bench, Collisions all) {
    Map<String, Map<State, Integer>> states = new HashMap<>();
    for (int i = 0; i < all.size(); i++)
      states
          .computeIfAbsent(all.index().type(all.record(i)), t -> new HashMap<>())
          .merge(all.state(i), 1, Integer::sum);
    for (int r : all.index().oddRecords())
      states
          .computeIfAbsent(all.index().type(r), t -> new HashMap<>())
          .merge(State.ODD, 1, Integer::sum);
    List<RecordTypeView> types = new ArrayList<>();
    new RecordSearch(bench.game(), all.index())
        .types()
        .forEach(
            (type, count) ->
                types.add(
                    new RecordTypeView(
                        type,
                        titleOf(bench, type),
                        count,
                        StateCounts.of(states.getOrDefault(type, Map.of())))));
    return types;
  }

  static String titleOf(Bench bench, String type) {
    return bench.game().records().getOrDefault(type, RecordType.undescribed(type)).title();
  }

  /**
   * Records, in load order of their owners and then by id; what waits for the user first, where
   * states are asked for.
   *
   * @param find part of a name, of a key or of a type's title, or a field and what it says, such as
   *     {@code speed > 10}
   * @param state any of which a record must be in; none for all
   * @param plugin all of which must have a version of it
   * @param losesOf a plugin of whose changes what the game reads lacks something
   * @param refersTo the key of a record that it must refer to
   */
  @GetMapping("/list")
  ResponseEntity<RecordPage> list(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(defaultValue = "") Set<State> state,
      @RequestParam(defaultValue = "") String type,
      @RequestParam(defaultValue = "") List<String> plugin,
      @RequestParam(defaultValue = "") String losesOf,
      @RequestParam(defaultValue = "") String refersTo,
      @RequestParam(defaultValue = "0") @Min(0) @Max(Rows.MOST) int offset,
      @RequestParam(defaultValue = "300") @Min(0) @Max(Rows.MOST) int limit) {
    Bench bench = benches.get(workspace);
    Collisions all = bench.get(COLLISIONS);
    RecordIndex index = all.index();
    IntStream found =
        find.isBlank()
            ? state.isEmpty()
                ? IntStream.range(0, index.size())
                : IntStream.concat(
                    IntStream.range(0, all.size()).map(all::record),
                    Arrays.stream(index.oddRecords()))
            : Arrays.stream(bench.get(RECORDS).find(find));
    if (!state.isEmpty()) found = found.filter(r -> state.contains(stateOf(all, r)));
    if (!type.isEmpty()) found = found.filter(r -> index.type(r).equals(type));
    for (String p : plugin) {
      if (p.isEmpty()) continue;
      int position = requirePlugin(index, p);
      found = found.filter(r -> hasVersion(index, r, position));
    }
    if (!losesOf.isEmpty()) {
      Set<Integer> losing = losing(bench, all, requirePlugin(index, losesOf));
      found = found.filter(losing::contains);
    }
    if (!refersTo.isEmpty()) {
      Set<Integer> referring = new HashSet<>();
      new RecordSearch(bench.game(), index)
          .referrers(require(index, refersTo))
          .forEach(x -> referring.add(x.record()));
      found = found.filter(referring::contains);
    }
    // what waits for the user first, where it is asked how they stand
    int[] matching =
        state.isEmpty()
            ? found.toArray()
            : found
                .boxed()
                .sorted(Comparator.comparing((Integer r) -> stateOf(all, r)))
                .mapToInt(Integer::intValue)
                .toArray();
    int from = Math.max(0, Math.min(offset, matching.length));
    int to = Math.min(matching.length, from + Math.max(0, Math.min(limit, MOST_AT_ONCE)));
    List<RecordLine> lines =
        Arrays.stream(matching, from, to).mapToObj(r -> line(bench, all, r)).toList();
    Integer next = to < matching.length ? to : null;
    RecordPage page = new RecordPage(bench.revision(), matching.length, next, lines);
    return ResponseEntity.ok().eTag(Revision.etag(bench.revision())).body(page);
  }

  /** How a record stands; null where nobody overrides it. */
  private static State stateOf(Collisions all, int record) {
    if (all.index().isOdd(record)) return State.ODD;
    int at = all.find(record);
    return at < 0 ? null : all.state(at);
  }

  static RecordLine line(Bench bench, Collisions all, int record) {
    RecordIndex index = all.index();
    int at = all.find(record);
    List<String> plugins = Arrays.stream(all.leaves(record)).mapToObj(index::name).toList();
    return new RecordLine(
        index.key(record).toString(),
        titleOf(bench, index.type(record)),
        index.label(record),
        plugins,
        index.name(index.usedPosition(record)),
        stateOf(all, record),
        at < 0 ? 0 : all.lost(at),
        at < 0 ? 0 : all.asked(at));
  }

  private static boolean hasVersion(RecordIndex index, int record, int position) {
    return IntStream.range(0, index.versionCount(record))
        .anyMatch(v -> index.positionOf(record, v) == position);
  }

  /** The records in which what the game reads lacks a change of a plugin. */
  private static Set<Integer> losing(Bench bench, Collisions all, int position) {
    RecordIndex index = all.index();
    String name = index.name(position);
    Set<Integer> losing = new HashSet<>();
    for (int row = 0; row < index.table(position).size(); row++) {
      int record = index.recordAt(position, row);
      int at = record < 0 ? -1 : all.find(record);
      if (at < 0 || all.lost(at) == 0) continue;
      if (all.of(record).losesOf(bench.game(), name)) losing.add(record);
    }
    return losing;
  }

  static int requirePlugin(RecordIndex index, String plugin) {
    int position = index.position(plugin);
    if (position >= 0) return position;
    throw IroningException.of(
        "not-found",
        plugin,
        "No such plugin is on and can be read.",
        "Choose one from the load order.");
  }

  static int require(RecordIndex index, String key) {
    int record = Ref.parse(key).map(index::find).orElse(-1);
    if (record >= 0) return record;
    throw IroningException.of(
        "not-found",
        key,
        "No plugin that is on has such a record.",
        "Choose one from the list of records.");
  }

  /** Refuses an odd record, on which nothing can be decided. */
  static void requireCombined(RecordIndex index, int record) {
    if (!index.isOdd(record)) return;
    String used = index.name(index.usedPosition(record));
    throw IroningException.of(
        "record-odd",
        index.key(record).toString(),
        "Its versions do not belong together, so that nothing combines it: the game reads it as "
            + used
            + " has it.",
        "Tell the author of " + used + ", or change the order of the plugins.");
  }

  /** Which plugins collide with which, those over most records first. */
  @GetMapping("/pairs")
  RecordPairs pairs(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Collisions all = bench.get(COLLISIONS);
    Map<Long, Map<State, Integer>> counts = new TreeMap<>();
    for (int i = 0; i < all.size(); i++) {
      int[] leaves = all.leaves(all.record(i));
      for (int a = 0; a < leaves.length; a++)
        for (int b = a + 1; b < leaves.length; b++)
          counts
              .computeIfAbsent((long) leaves[a] << 32 | leaves[b], k -> new HashMap<>())
              .merge(all.state(i), 1, Integer::sum);
    }
    List<RecordPair> pairs = new ArrayList<>();
    counts.forEach(
        (key, states) ->
            pairs.add(
                new RecordPair(
                    all.index().name((int) (key >> 32)),
                    all.index().name((int) (long) key),
                    states.values().stream().mapToInt(Integer::intValue).sum(),
                    StateCounts.of(states))));
    pairs.sort(Comparator.comparingInt(RecordPair::records).reversed());
    return new RecordPairs(
        bench.revision(),
        pairs.stream().limit(MOST_PAIRS).toList(),
        Math.max(0, pairs.size() - MOST_PAIRS));
  }

  /** Records of a type by a part of their name: for a reference that is picked by name. */
  @GetMapping("/names")
  List<RecordName> names(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(defaultValue = "") String type,
      @RequestParam(defaultValue = "20") @Min(0) @Max(Rows.MOST) int limit) {
    Bench bench = benches.get(workspace);
    RecordIndex index = bench.get(RECORDS).index();
    String part = PathCase.fold(find.strip());
    return IntStream.range(0, index.size())
        .filter(r -> type.isEmpty() || index.type(r).equals(type))
        .filter(
            r ->
                PathCase.fold(index.label(r)).contains(part)
                    || PathCase.fold(index.key(r).toString()).contains(part))
        .limit(Math.max(0, Math.min(limit, 100)))
        .mapToObj(
            r ->
                new RecordName(
                    index.key(r).toString(), index.label(r), titleOf(bench, index.type(r))))
        .toList();
  }

  /** A record as one names it. */
  record RecordName(String key, String label, String title) {}
}
