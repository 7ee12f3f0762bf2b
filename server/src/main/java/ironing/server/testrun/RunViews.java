package ironing.server.testrun;

import ironing.core.deploy.LaidOut;
import ironing.core.path.PathCase;
import ironing.core.testrun.RunDifference;
import ironing.core.testrun.RunLog;
import ironing.core.testrun.RunOutcome;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What {@link RunController} gives and takes, and how it is made of what the core says. */
final class RunViews {
  private RunViews() {}

  static final int FILES_SHOWN = 200;

  /** Where a run stands. */
  enum RunState {
    RUNNING,
    /** Played to its end. */
    PLAYED,
    /** Ended with code 0, and what it read cannot be told. */
    ENDED,
    STOPPED
  }

  /**
   * A value that the game reported.
   *
   * @param before what the run before this one reported under this name, absent when nothing
   */
  record RunReport(
      String name, String value, String unit, String from, @MayBeAbsent String before) {}

  /**
   * @param mod whose file it is, as far as the note of what is deployed tells
   */
  record RunFault(
      String code,
      String text,
      String path,
      String plugin,
      String record,
      @MayBeAbsent Long mod,
      @MayBeAbsent String modName) {}

  record RunView(
      long id,
      String startedAt,
      @MayBeAbsent String endedAt,
      RunState state,
      @MayBeAbsent Integer exitCode,
      boolean sameSet) {}

  /**
   * What the last run read of a mod.
   *
   * @param files of it that lie in the game folder now; {@code read} of these, those of the run
   */
  record ReadOfMod(long mod, String name, int files, int read) {}

  /**
   * A plugin in the run.
   *
   * @param slot absent where this run did not read it; {@code before} likewise for the one before
   */
  record ReadPlugin(String name, @MayBeAbsent Integer slot, @MayBeAbsent Integer before) {}

  /**
   * A file that this run read otherwise than the one before.
   *
   * @param kind COME where only this one read it, GONE where only that one did
   */
  record ReadFile(String path, RunDifference.Kind kind) {}

  /**
   * @param told whether the game wrote a log; without one, what it read cannot be told
   * @param comparedWith the run whose values are shown as before
   * @param picture the SHA-256 of all that lay in the folder; absent where that was not as arranged
   * @param sameSet whether the game would read the same now
   * @param arrangeable whether the profile in use can be arranged as it was then
   * @param mods what it read of each mod that is deployed now
   * @param plugins in the order of their slots
   * @param files the first of those that it read otherwise than the run before; {@code otherwise}
   *     counts all
   */
  record RunDetail(
      long id,
      String startedAt,
      @MayBeAbsent String endedAt,
      RunState state,
      @MayBeAbsent Integer exitCode,
      boolean told,
      String output,
      int filesRead,
      int pluginsRead,
      @MayBeAbsent Long comparedWith,
      List<RunReport> reports,
      List<RunFault> warnings,
      @MayBeAbsent RunFault fault,
      @MayBeAbsent String picture,
      boolean sameSet,
      boolean arrangeable,
      List<ReadOfMod> mods,
      List<ReadPlugin> plugins,
      List<ReadFile> files,
      int otherwise) {}

  record RunStarted(long run) {}

  /** The revision after going back to what a run was played with. */
  record RunReturned(long revision) {}

  /**
   * @param startable whether the definition says how to start the game
   * @param runs the last twenty, the newest first
   */
  record RunsView(boolean startable, List<RunView> runs) {}

  static RunState state(
      boolean goesOn, OffsetDateTime endedAt, Integer exitCode, boolean logged, String saidFault) {
    if (endedAt == null && goesOn) return RunState.RUNNING;
    return RunState.valueOf(RunOutcome.of(exitCode, logged, saidFault).name());
  }

  static String text(OffsetDateTime time) {
    return time == null ? null : time.toString();
  }

  static RunFault said(String fault) {
    return fault.isEmpty() ? null : new RunFault("said", fault, "", "", "", null, null);
  }

  static List<ReadPlugin> plugins(Map<String, Integer> before, RunLog.Summary s) {
    List<ReadPlugin> plugins = new ArrayList<>();
    s.plugins().forEach((name, slot) -> plugins.add(new ReadPlugin(name, slot, before.get(name))));
    before.forEach(
        (name, slot) -> {
          if (!s.plugins().containsKey(name)) plugins.add(new ReadPlugin(name, null, slot));
        });
    return plugins;
  }

  static List<ReadFile> files(RunDifference d) {
    return d.files().stream()
        .limit(FILES_SHOWN)
        .map(c -> new ReadFile(c.path(), c.kind()))
        .toList();
  }

  static RunFault fault(OpenWorkspace open, Map<String, LaidOut.Item> whose, RunLog.Fault f) {
    Optional<LaidOut.Item> item =
        Optional.ofNullable(whose.get(open.game().pathCase().key(f.path())))
            .or(() -> Optional.ofNullable(whose.get("plugin " + PathCase.fold(f.plugin()))));
    return new RunFault(
        f.code(),
        f.text(),
        f.path(),
        f.plugin(),
        f.record(),
        item.map(LaidOut.Item::mod).orElse(null),
        item.map(LaidOut.Item::from).orElse(null));
  }
}
