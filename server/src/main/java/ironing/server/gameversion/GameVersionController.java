package ironing.server.gameversion;

import ironing.core.game.Manifest.Unlike;
import ironing.core.gameversion.BaseChange.Kind;
import ironing.server.gameversion.GameVersions.CoveringFile;
import ironing.server.gameversion.GameVersions.TouchedMend;
import ironing.server.gameversion.GameVersions.UncoveredMod;
import ironing.server.gameversion.GameVersions.Update;
import ironing.server.gameversion.GameVersions.UpdateFile;
import ironing.server.gameversion.GameVersions.Word;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.workspace.OpenWorkspaces;
import java.util.HashSet;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Whether the game is another than the one that was taken in, and what that means. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/game-version")
class GameVersionController {
  private static final int SHOWN = 500;
  private final GameVersions updates;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  GameVersionController(GameVersions updates, OpenWorkspaces workspaces, Jobs jobs) {
    this.updates = updates;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /**
   * The game as it was known before.
   *
   * @param version empty where it told none
   * @param until when the next one was taken in, RFC 3339
   */
  record EarlierVersion(long id, String version, String until, int changed, int added, int gone) {}

  /**
   * @param known the version that was taken in last; empty where the game tells none
   * @param found the version that lies there
   * @param noticed whether anything is another
   * @param byManifest whether the game’s manifest says what is its own
   * @param files the first of them, by path
   * @param behind the first paths at which only the game’s own repair can bring the new file
   * @param unsure files of the game that lay below a mod’s file and are gone with it: the update
   *     may have removed them, and taking it in asks
   * @param unlike the first files of the game that are not as its manifest says, and were so
   *     already when it was taken in
   * @param mends those that are made of changed files
   * @param covering the first files of mods that stand over a changed file
   * @param earlier the newest first
   */
  record GameVersionView(
      String known,
      String found,
      boolean noticed,
      boolean byManifest,
      int changed,
      int added,
      int gone,
      int filesInAll,
      List<UpdateFile> files,
      int behindInAll,
      List<String> behind,
      List<String> unsure,
      int unlikeInAll,
      List<Unlike> unlike,
      List<UncoveredMod> uncovered,
      List<TouchedMend> mends,
      int coveringInAll,
      List<CoveringFile> covering,
      List<EarlierVersion> earlier) {}

  /** Compares the game with what was taken in last. Changes nothing. */
  @GetMapping
  GameVersionView gameVersion(@PathVariable long workspace) {
    Update u = updates.look(workspaces.get(workspace));
    return new GameVersionView(
        u.known(),
        u.found(),
        u.noticed(),
        u.byManifest(),
        count(u, Kind.CHANGED),
        count(u, Kind.ADDED),
        count(u, Kind.GONE),
        u.files().size(),
        first(u.files()),
        u.behind().size(),
        first(u.behind()),
        u.change().unsure(),
        u.unlike().size(),
        first(u.unlike()),
        u.uncovered(),
        u.mends(),
        u.covering().size(),
        first(u.covering()),
        updates.earlier(workspace).stream()
            .map(
                e ->
                    new EarlierVersion(
                        e.id(), e.version(), e.until(), e.changed(), e.added(), e.gone()))
            .toList());
  }

  private static <T> List<T> first(List<T> all) {
    return all.subList(0, Math.min(SHOWN, all.size()));
  }

  private static int count(Update u, Kind kind) {
    return (int) u.change().files().stream().filter(f -> f.kind() == kind).count();
  }

  /**
   * What became of the files of which nobody but the user knows.
   *
   * @param removed by the update: they are the game’s no more
   * @param kept the game has them still: undeploying brings them back
   */
  record TakeVersionRequest(List<String> removed, List<String> kept) {}

  /** Takes the game as it lies there for the unmodded game from now on. */
  @PostMapping
  ResponseEntity<Job> takeGameVersion(
      @PathVariable long workspace,
      @RequestBody(required = false) TakeVersionRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    Word word =
        body == null
            ? Word.NONE
            : new Word(new HashSet<>(body.removed()), new HashSet<>(body.kept()));
    return JobController.accepted(jobs, updates.take(workspace, word), prefer);
  }
}
