package ironing.server.loadorder;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.game.GameDefinition;
import ironing.core.game.RecordType;
import ironing.core.records.RecordDifference;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.Changed;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * What a change of the load order changes in the game.
 *
 * @param revision of the arrangement as it is now
 * @param records that the game would read differently
 * @param files in packs that would be another's
 * @param troublesBefore what is wrong with the order now
 * @param troublesAfter what would be wrong with it then
 * @param place where the plugin that was moved would stand, absent when none was
 */
public record LoadDifferenceView(
    long revision,
    int records,
    List<TypeCount> types,
    List<RecordSample> samples,
    int files,
    int troublesBefore,
    int troublesAfter,
    @MayBeAbsent PluginPlace place) {
  private static final int SAMPLES = 100;

  /**
   * @param title of the type, such as Harbour
   */
  public record TypeCount(String title, int records) {}

  /**
   * @param before the plugin whose version the game uses now, absent when there is none
   */
  public record RecordSample(
      String key,
      String label,
      String title,
      @MayBeAbsent String before,
      @MayBeAbsent String after) {}

  /**
   * @param wished the place that was asked for, counted from 1
   * @param reason why it is another one, absent when it is that one
   */
  public record PluginPlace(
      String name, int from, int to, int wished, @MayBeAbsent String reason) {}

  static LoadDifferenceView of(Changed changed, @MayBeAbsent PluginPlace place) {
    OpenWorkspace before = changed.before(), after = changed.after();
    List<RecordDifference> differences =
        RecordDifference.between(before.get(RECORDS).index(), after.get(RECORDS).index());
    Map<String, Integer> types = new TreeMap<>();
    List<RecordSample> samples = new ArrayList<>();
    for (RecordDifference d : differences) {
      String title = title(before.game(), d);
      types.merge(title, 1, Integer::sum);
      if (samples.size() < SAMPLES) samples.add(sample(title, d));
    }
    return new LoadDifferenceView(
        after.revision(),
        differences.size(),
        types.entrySet().stream().map(e -> new TypeCount(e.getKey(), e.getValue())).toList(),
        samples,
        after.picture().standing().changesSince(before.picture().standing()).size(),
        Troubles.of(before).size(),
        Troubles.of(after).size(),
        place);
  }

  private static String title(GameDefinition game, RecordDifference d) {
    return game.records().getOrDefault(d.type(), RecordType.undescribed(d.type())).title();
  }

  private static RecordSample sample(String title, RecordDifference d) {
    return new RecordSample(
        d.key().toString(), d.label(), title, d.before().orElse(null), d.after().orElse(null));
  }
}
