package ironing.server.choice;

import ironing.core.layers.Standing.Change;
import ironing.core.workspace.LookAhead;
import ironing.core.workspace.LookAhead.Becomes;
import ironing.core.workspace.LookAhead.Meeting;
import ironing.core.workspace.LookAhead.RecordChange;
import ironing.server.layers.DifferenceView;
import ironing.server.workspace.Changed;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.wrinkles.Wrinkles.Wrinkle;
import java.util.List;

/** What a choice would do, in the words of the API. */
final class AheadViews {
  private static final int SHOWN = 200;

  private AheadViews() {}

  /**
   * What following a choice would do.
   *
   * @param difference what the game would read otherwise
   * @param filesNew how many files would be there that are not
   * @param filesGone how many would be there no more
   * @param filesOther how many would have another content
   * @param meetingsInAll how many such pairs there are
   * @param meetings the pairs of mods that would have files at other paths in common than now,
   *     those of which most changes first
   * @param recordsInAll how many records the game would read otherwise
   * @param records the first of them, by key
   * @param decisions the keys of records whose versions would be others than those that you have
   *     decided on
   * @param wrinklesNew what would be wrong that is not
   * @param wrinklesGone what would be wrong no more
   * @param pluginsBefore how many plugins the game reads now
   * @param pluginsAfter how many it would read
   */
  record AheadView(
      DifferenceView difference,
      int filesNew,
      int filesGone,
      int filesOther,
      int meetingsInAll,
      List<MeetingView> meetings,
      int recordsInAll,
      List<AheadRecord> records,
      List<String> decisions,
      List<Wrinkle> wrinklesNew,
      List<Wrinkle> wrinklesGone,
      int pluginsBefore,
      int pluginsAfter) {}

  /**
   * Two mods that have files at one path.
   *
   * @param come at how many paths they would and do not
   * @param gone at how many they do and would not
   */
  record MeetingView(long mod, String name, long other, String otherName, int come, int gone) {}

  /**
   * A record that the game would read otherwise.
   *
   * @param becomes whether it would be new, another, or gone
   */
  record AheadRecord(String key, String type, String label, Becomes becomes) {
    static AheadRecord of(RecordChange c) {
      return new AheadRecord(c.key(), c.type(), c.label(), c.becomes());
    }
  }

  static AheadView view(
      Changed changed, LookAhead ahead, List<Wrinkle> wrinklesNew, List<Wrinkle> wrinklesGone) {
    int fresh = 0, gone = 0;
    for (Change c : ahead.difference().files()) {
      if (c.before() < 0) fresh++;
      else if (c.after() < 0) gone++;
    }
    OpenWorkspace after = changed.after();
    return new AheadView(
        DifferenceView.of(after, ahead.difference()),
        fresh,
        gone,
        ahead.difference().files().size() - fresh - gone,
        ahead.meetings().size(),
        ahead.meetings().stream().limit(SHOWN).map(m -> meeting(after, m)).toList(),
        ahead.records().size(),
        ahead.records().stream().limit(SHOWN).map(AheadRecord::of).toList(),
        ahead.decisions(),
        wrinklesNew,
        wrinklesGone,
        changed.before().picture().loadOrder().active().size(),
        after.picture().loadOrder().active().size());
  }

  private static MeetingView meeting(OpenWorkspace open, Meeting m) {
    return new MeetingView(
        m.mod(), open.nameOf(m.mod()), m.other(), open.nameOf(m.other()), m.come(), m.gone());
  }
}
