package ironing.server.mends;

import static ironing.core.workspace.Stages.COLLISIONS;

import ironing.core.mends.MergePlan;
import ironing.core.path.PathCase;
import ironing.core.records.Collision.State;
import ironing.core.records.Collisions;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.List;

/** What {@link MergeController} gives and takes, and how it is made of what the core says. */
final class MergeViews {
  private MergeViews() {}

  /**
   * @param sources file names of plugins that are on
   * @param target the file name of the plugin that they become: a new one, or one of them
   * @param name what to call the merge; absent: as the target is called
   * @param combining whether it is to have the outcome of what its sources change in the same
   *     record; absent: it has the version that the game reads now
   */
  record MergeRequest(
      List<String> sources,
      String target,
      @MayBeAbsent String name,
      @MayBeAbsent Boolean combining) {}

  /** Something about one plugin or record. */
  record MergeNote(String code, String thing, String reason, String remedy) {
    static MergeNote of(MergePlan.Note n) {
      return new MergeNote(n.code(), n.thing(), n.reason(), n.remedy());
    }
  }

  /**
   * A record that several sources have.
   *
   * @param taken the source whose version the merge has where it is not combined
   * @param combines whether their changes combine into something that none of them has
   * @param state how its changes stand to one another
   */
  record SharedRecord(
      String key,
      String label,
      List<String> sources,
      String taken,
      boolean combines,
      @MayBeAbsent State state) {}

  /** A record that gets another number. */
  record RenumberedRecord(String from, String to) {}

  /**
   * A plugin elsewhere that names a source as master.
   *
   * @param how it is dealt with: rewritten as part of the merge, or made anew after it
   */
  record DependentPlugin(String plugin, String modName, boolean on, DependentFate how) {}

  enum DependentFate {
    /** A copy that names the merge as master goes with it. */
    REWRITTEN,
    /** A patch that Ironing made, and makes anew. */
    MADE_ANEW,
    /** It is off; switched on, it would miss its master. */
    STAYS_OFF
  }

  /**
   * What a merge would come to.
   *
   * @param refused why it cannot be made; none where it can
   * @param after the plugin that it would load directly behind; absent for the beginning
   * @param renumbered the first of those that get another number
   * @param combinableInAll how many of the shared records combine
   * @param otherFiles paths at which the game would read another file, since packs change places
   */
  record MergePreview(
      long revision,
      List<MergeNote> refused,
      List<String> sources,
      String target,
      int newRecords,
      int overrides,
      List<String> masters,
      @MayBeAbsent String after,
      int stage,
      int slotsFreed,
      List<String> packs,
      int renumberedInAll,
      List<RenumberedRecord> renumbered,
      int sharedInAll,
      int combinableInAll,
      List<SharedRecord> shared,
      int leftOutInAll,
      List<MergeNote> leftOut,
      List<DependentPlugin> dependents,
      List<String> otherFiles) {}

  static boolean isCombining(MergeRequest body) {
    return Boolean.TRUE.equals(body.combining());
  }

  static List<DependentPlugin> dependents(OpenWorkspace open, MergePlan plan) {
    List<DependentPlugin> all = new ArrayList<>();
    open.picture()
        .loadOrder()
        .entries()
        .forEach(
            e -> {
              boolean source = has(plan.sources(), e.name());
              if (source || e.plugin().masters().stream().noneMatch(m -> has(plan.sources(), m)))
                return;
              DependentFate how = DependentFate.REWRITTEN;
              if (!e.on()) how = DependentFate.STAYS_OFF;
              else if (Merges.isPatch(open, e.name())) how = DependentFate.MADE_ANEW;
              all.add(new DependentPlugin(e.name(), open.nameOf(e.plugin().mod()), e.on(), how));
            });
    return all;
  }

  static boolean has(List<String> names, String name) {
    String folded = PathCase.fold(name);
    return names.stream().anyMatch(n -> PathCase.fold(n).equals(folded));
  }

  /** How the table of old and new keys is written. */
  enum TableForm {
    CSV("text/csv;charset=UTF-8"),
    JSON("application/json");

    final String type;

    TableForm(String type) {
      this.type = type;
    }
  }

  static SharedRecord shared(OpenWorkspace open, MergePlan.Shared s) {
    Collisions all = open.get(COLLISIONS);
    int at = all.find(s.record());
    return new SharedRecord(
        all.index().key(s.record()).toString(),
        all.index().label(s.record()),
        s.sources(),
        s.sources().get(s.sources().size() - 1),
        s.combines(),
        at < 0 ? null : all.state(at));
  }
}
