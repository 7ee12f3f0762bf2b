package ironing.server.records;

import static ironing.core.workspace.Stages.COLLISIONS;

import ironing.core.IroningException;
import ironing.core.game.RecordType;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.core.records.PluginPairs;
import ironing.core.records.PluginPairs.PluginPair;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordIndex.Odd;
import ironing.core.records.RecordSearch;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/** What {@link RecordsController} gives and takes, and how it is made of what the core says. */
final class RecordsViews {
  private static final int MOST_ODD = 200;
  private static final int MOST_PAIRS = 500;

  private RecordsViews() {}

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

  static List<RecordTypeView> types(OpenWorkspace open, Collisions all) {
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
    new RecordSearch(open.game(), all.index())
        .types()
        .forEach(
            (type, count) ->
                types.add(
                    new RecordTypeView(
                        type,
                        titleOf(open, type),
                        count,
                        StateCounts.of(states.getOrDefault(type, Map.of())))));
    return types;
  }

  static String titleOf(OpenWorkspace open, String type) {
    return open.game().records().getOrDefault(type, RecordType.undescribed(type)).title();
  }

  static RecordsView of(OpenWorkspace open) {
    Collisions all = open.get(COLLISIONS);
    List<OddView> odd =
        all.index().odd().stream()
            .limit(MOST_ODD)
            .map((Odd o) -> new OddView(o.key().toString(), o.plugin(), o.reason()))
            .toList();
    return new RecordsView(
        open.revision(),
        all.index().size(),
        StateCounts.of(all.counts()),
        types(open, all),
        odd,
        all.index().odd().size());
  }

  static RecordPairs pairs(OpenWorkspace open) {
    Collisions all = open.get(COLLISIONS);
    List<PluginPair> pairs = PluginPairs.of(all, i -> true);
    return new RecordPairs(
        open.revision(),
        pairs.stream()
            .limit(MOST_PAIRS)
            .map(
                p ->
                    new RecordPair(
                        all.index().name(p.first()),
                        all.index().name(p.second()),
                        p.records(),
                        StateCounts.of(p.states())))
            .toList(),
        Math.max(0, pairs.size() - MOST_PAIRS));
  }

  /** Some records as a list shows them. */
  static List<RecordLine> lines(OpenWorkspace open, IntStream records) {
    Collisions all = open.get(COLLISIONS);
    return records.mapToObj(r -> line(open, all, r)).toList();
  }

  private static RecordLine line(OpenWorkspace open, Collisions all, int record) {
    RecordIndex index = all.index();
    int at = all.find(record);
    List<String> plugins = Arrays.stream(all.leaves(record)).mapToObj(index::name).toList();
    return new RecordLine(
        index.key(record).toString(),
        titleOf(open, index.type(record)),
        index.label(record),
        plugins,
        index.name(index.usedPosition(record)),
        all.stateOf(record).orElse(null),
        at < 0 ? 0 : all.lost(at),
        at < 0 ? 0 : all.asked(at));
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

  /** A record as one names it. */
  record RecordName(String key, String label, String title) {}
}
