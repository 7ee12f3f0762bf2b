package ironing.server.testrun;

import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Layer;
import ironing.server.platform.MayBeAbsent;
import ironing.server.testrun.RunMapper.CostRow;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.Profiles;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;

/** What runs have cost, beside what was switched between them. */
@Component
class RunCosts {
  private static final int SHOWN = 8;
  private static final int SWITCHED_SHOWN = 6;
  private final RunMapper db;
  private final Profiles profiles;

  RunCosts(RunMapper db, Profiles profiles) {
    this.db = db;
    this.profiles = profiles;
  }

  /** How a mod differs from the run before. */
  enum Switched {
    ON,
    OFF,
    /** It was on in another version. */
    OTHER_VERSION
  }

  /**
   * A mod that was switched.
   *
   * @param name of it
   * @param how it differs from the run before
   */
  record SwitchedMod(String name, Switched how) {}

  /**
   * What a run has cost.
   *
   * @param run its number
   * @param startedAt when
   * @param ms how long it took
   * @param loadingMs how long until the game had loaded; absent where its log does not say
   * @param peakBytes the most memory that the game had at a time; absent where nobody knows
   * @param toItsEnd whether it ended with code 0: one that stopped early has cost less
   * @param switched the first mods that differ from the run before
   * @param others how many more do
   */
  record RunCost(
      long run,
      String startedAt,
      long ms,
      @MayBeAbsent Long loadingMs,
      @MayBeAbsent Long peakBytes,
      boolean toItsEnd,
      List<SwitchedMod> switched,
      int others) {}

  /** What a run and those before it have cost, the newest first. */
  List<RunCost> of(OpenWorkspace open, long run) {
    List<CostRow> rows = db.costs(open.workspace(), run, SHOWN + 1);
    List<RunCost> out = new ArrayList<>();
    for (int i = 0; i < Math.min(SHOWN, rows.size()); i++) {
      CostRow r = rows.get(i);
      List<SwitchedMod> switched =
          i + 1 < rows.size() ? switched(open, rows.get(i + 1), r) : List.of();
      List<SwitchedMod> first = switched.stream().limit(SWITCHED_SHOWN).toList();
      boolean toItsEnd = r.exitCode() != null && r.exitCode() == 0;
      out.add(
          new RunCost(
              r.id(),
              r.startedAt().toString(),
              r.ms(),
              r.loadingMs(),
              r.peakBytes(),
              toItsEnd,
              first,
              switched.size() - first.size()));
    }
    return out;
  }

  private List<SwitchedMod> switched(OpenWorkspace open, CostRow before, CostRow after) {
    if (before.arrangement().isEmpty() || after.arrangement().isEmpty()) return List.of();
    Map<Long, Long> was = on(open, before), is = on(open, after);
    List<SwitchedMod> out = new ArrayList<>();
    is.forEach(
        (strand, mod) -> {
          Long earlier = was.get(strand);
          if (earlier == null) out.add(new SwitchedMod(open.nameOf(mod), Switched.ON));
          else if (!earlier.equals(mod))
            out.add(new SwitchedMod(open.nameOf(mod), Switched.OTHER_VERSION));
        });
    was.forEach(
        (strand, mod) -> {
          if (!is.containsKey(strand)) out.add(new SwitchedMod(open.nameOf(mod), Switched.OFF));
        });
    return out;
  }

  /** By strand, the version that was on, of those that are still in the library. */
  private Map<Long, Long> on(OpenWorkspace open, CostRow row) {
    Arrangement arrangement = profiles.read(open, row.arrangement());
    Map<Long, Long> on = new LinkedHashMap<>();
    for (Layer l : arrangement.layers())
      if (l.on() && open.mods().containsKey(l.mod()))
        on.put(open.mods().get(l.mod()).strand(), l.mod());
    return on;
  }
}
