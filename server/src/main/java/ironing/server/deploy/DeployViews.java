package ironing.server.deploy;

import ironing.core.deploy.DeployPlan.Act;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Step;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.deploy.LaidOut;
import ironing.server.deploy.HistoryMapper.DeploymentRow;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.FolderUse;
import ironing.server.workspace.OpenWorkspace;
import java.io.IOException;
import java.nio.file.Files;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** What {@link DeployController} gives and takes, and how it is made of what the core says. */
final class DeployViews {
  private DeployViews() {}

  /**
   * How far the folder is from the picture, by its note.
   *
   * @param there whether the game folder is there at all
   * @param files deployed now
   * @param at when, absent when nothing is deployed
   * @param use what the folder is in use for now: nothing can be deployed while the game or a tool
   *     runs; absent for nothing
   */
  record DeployStatus(
      String folder,
      boolean there,
      int add,
      int replace,
      int takeOut,
      int files,
      int links,
      int copies,
      @MayBeAbsent String at,
      @MayBeAbsent FolderUse.Use use) {}

  /**
   * @param act GUARD is a REPLACE of the game's own file by a copy of it, so that the game may
   *     write
   * @param before whose file goes, absent where none of ours was there
   * @param changed somebody changed the file since; it is set aside in .ironing/changed
   * @param copied why it is copied; absent where it is linked, or nothing is put there
   */
  record PlanStep(
      String path,
      PlanAct act,
      String from,
      long mod,
      @MayBeAbsent String before,
      long sizeBytes,
      @MayBeAbsent CopyReason copied,
      boolean changed) {}

  /** Why a file is copied instead of linked. */
  enum CopyReason {
    GAME_WRITES,
    TOOL_WRITES,
    /** It comes out of a pack. */
    PACKED,
    /** Ironing writes it itself. */
    WRITTEN;

    static CopyReason of(Wanted w) {
      if (w.writer() == Writer.GAME) return GAME_WRITES;
      if (w.writer() == Writer.TOOL) return TOOL_WRITES;
      if (w.content() instanceof Content.Packed) return PACKED;
      return w.content() instanceof Content.Text ? WRITTEN : null;
    }
  }

  /**
   * What deploying would do to the files of one mod, or in one folder.
   *
   * @param mod absent for a folder
   */
  record PlanPart(@MayBeAbsent Long mod, String name, int put, int takenOut, long sizeBytes) {}

  /** As {@link Act}, with guards told apart. */
  enum PlanAct {
    ADD,
    REPLACE,
    GUARD,
    SWAP,
    TAKE_OUT,
    PUT_BACK;

    static PlanAct of(Step s) {
      boolean guard = s.act() == Act.REPLACE && s.wanted().map(Wanted::guards).orElse(false);
      return guard ? GUARD : valueOf(s.act().name());
    }
  }

  /**
   * @param sizeBytes of all files that would be put there; {@code copyBytes} of these, of those
   *     that are copied, and take space of their own
   * @param freeBytes on the drive of the game folder
   * @param expectedMs how long it would take, by how long the last ones took; absent before any
   * @param mods and folders, the largest first
   * @param steps the first ones, at most {@code limit}; the counts are of all
   */
  record PlanView(
      int add,
      int replace,
      int guard,
      int swap,
      int takeOut,
      int putBack,
      long sizeBytes,
      long copyBytes,
      long freeBytes,
      @MayBeAbsent Long expectedMs,
      int total,
      List<PlanPart> mods,
      List<PlanPart> folders,
      List<PlanStep> steps) {}

  static long free(OpenWorkspace open) {
    try {
      return Files.getFileStore(open.gameFolder()).getUsableSpace();
    } catch (IOException unknown) {
      return 0;
    }
  }

  /** Steps added up under names. */
  static final class Parts {
    private final Map<String, PlanPart> parts = new HashMap<>();

    void add(Long mod, String name, Step s, long size) {
      int put = s.wanted().isPresent() ? 1 : 0;
      parts.merge(
          mod + " " + name,
          new PlanPart(mod, name, put, 1 - put, size),
          (a, b) ->
              new PlanPart(
                  a.mod(),
                  a.name(),
                  a.put() + b.put(),
                  a.takenOut() + b.takenOut(),
                  a.sizeBytes() + b.sizeBytes()));
    }

    List<PlanPart> largestFirst() {
      return parts.values().stream()
          .sorted(
              Comparator.comparingInt((PlanPart p) -> -p.put() - p.takenOut())
                  .thenComparing(PlanPart::name))
          .toList();
    }
  }

  static PlanStep step(Step s) {
    return new PlanStep(
        s.path(),
        PlanAct.of(s),
        s.wanted().map(Wanted::from).or(() -> s.before().map(LaidOut.Item::from)).orElse(""),
        s.wanted().map(Wanted::mod).or(() -> s.before().map(LaidOut.Item::mod)).orElse(0L),
        s.before().map(LaidOut.Item::from).orElse(null),
        s.wanted().map(Wanted::sizeBytes).orElse(0L),
        s.wanted().map(CopyReason::of).orElse(null),
        s.changed());
  }

  /** What was done to a game folder. */
  enum DeploymentKind {
    DEPLOY,
    UNDEPLOY,
    PUT_BACK
  }

  /** How it went. */
  enum DeploymentResult {
    DONE,
    CANCELLED,
    FAILED,
    /** The server died meanwhile; at its next start it was finished or taken back. */
    UNKNOWN
  }

  /**
   * @param tookMs absent where nobody knows how it ended
   * @param put files that were put there, {@code takenOut} that went
   * @param files deployed afterwards
   * @param why it failed; empty else
   * @param own whether it was made with the profile in use, so that one can go back to it
   */
  record DeploymentView(
      long id,
      DeploymentKind kind,
      String at,
      @MayBeAbsent Long tookMs,
      DeploymentResult result,
      int put,
      int takenOut,
      int files,
      String why,
      boolean own) {}

  static DeploymentView view(OpenWorkspace open, DeploymentRow r) {
    return new DeploymentView(
        r.id(),
        DeploymentKind.valueOf(r.kind().replace('-', '_').toUpperCase(Locale.ROOT)),
        r.beganAt(),
        r.tookMs(),
        r.result().isEmpty()
            ? DeploymentResult.UNKNOWN
            : DeploymentResult.valueOf(r.result().toUpperCase(Locale.ROOT)),
        r.put(),
        r.takenOut(),
        r.files(),
        r.why(),
        r.profileId() != null && r.profileId() == open.profile());
  }

  record DeploymentReturned(long revision) {}
}
