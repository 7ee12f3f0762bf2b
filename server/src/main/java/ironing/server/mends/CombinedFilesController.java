package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.combinedfiles.Choice;
import ironing.core.combinedfiles.CombinedFile;
import ironing.core.mends.Contest;
import ironing.core.mends.Contests;
import ironing.core.mends.Contests.Left;
import ironing.core.mends.Contests.Outline;
import ironing.core.picture.Arrangement;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.mends.CombinedFilesViews.CandidateFile;
import ironing.server.mends.CombinedFilesViews.CandidateFiles;
import ironing.server.mends.CombinedFilesViews.CandidateState;
import ironing.server.mends.CombinedFilesViews.ChoiceRequest;
import ironing.server.mends.CombinedFilesViews.CombineRequest;
import ironing.server.mends.CombinedFilesViews.FileBoard;
import ironing.server.mends.CombinedFilesViews.FilePiece;
import ironing.server.mends.MendStore.Kept;
import ironing.server.platform.Revision;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Files that several mods change: what combining them comes to, place by place. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/combined-files")
class CombinedFilesController {
  private static final int LONGEST = 200_000;
  private static final int LONGEST_PLACE = 1_000;
  private static final int MOST = 2_000;
  private static final int LEFT_SHOWN = 200;
  private final CombinedFiles files;
  private final Contests contests;
  private final Mends mends;
  private final OpenWorkspaces workspaces;
  private final Jobs jobs;

  CombinedFilesController(
      CombinedFiles files, Contests contests, Mends mends, OpenWorkspaces workspaces, Jobs jobs) {
    this.files = files;
    this.contests = contests;
    this.mends = mends;
    this.workspaces = workspaces;
    this.jobs = jobs;
  }

  /**
   * All of them, by path.
   *
   * @param carry the id of a mod: only what it changes, and only against what would be in play
   *     without it
   */
  @GetMapping
  CandidateFiles candidates(
      @PathVariable long workspace, @RequestParam(required = false) String carry) {
    OpenWorkspace open = workspaces.get(workspace);
    List<Contest> all =
        carry == null ? contests.all(open.value()) : contests.carried(open.value(), carry);
    List<Left> left = carry == null ? List.of() : contests.left(open.value(), carry);
    Optional<Kept> mend = files.mend(open);
    return new CandidateFiles(
        open.revision(),
        mend.map(Kept::mod).orElse(null),
        all.parallelStream().map(c -> candidate(open, mend, c, carry)).toList(),
        left.stream().limit(LEFT_SHOWN).map(l -> CombinedFilesViews.left(open, l)).toList(),
        left.size());
  }

  private CandidateFile candidate(
      OpenWorkspace open, Optional<Kept> mend, Contest c, String carry) {
    Outline o = contests.outline(open.value(), c);
    return new CandidateFile(
        c.path(),
        c.rule().as().word(),
        CombinedFilesViews.state(c, o),
        o.asked(),
        o.reasons(),
        CombinedFilesViews.version(open, c.base()),
        c.known() && !c.ofGame(),
        c.isBeforeUpdate(),
        c.bases().stream().map(s -> CombinedFilesViews.version(open, s)).toList(),
        c.contenders().stream().map(s -> CombinedFilesViews.version(open, s)).toList(),
        mend.filter(k -> CombinedFilesViews.isFor(k, c, carry)).isPresent(),
        mend.filter(k -> CombinedFilesViews.isFor(k, c, carry) && CombinedFilesViews.has(k, c))
            .isPresent());
  }

  /**
   * One file, place by place.
   *
   * @param path of the game
   * @param carry the id of a mod whose change is carried over; absent to combine all
   */
  @GetMapping("/board")
  FileBoard board(
      @PathVariable long workspace,
      @RequestParam String path,
      @RequestParam(required = false) String carry) {
    OpenWorkspace open = workspaces.get(workspace);
    return board(open, require(open, path, carry), carry);
  }

  private Contest require(OpenWorkspace open, String path, String carry) {
    return contests
        .at(open.value(), path, Optional.ofNullable(carry))
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    path,
                    "No two mods change this file, or the game’s definition does not say how such"
                        + " files combine.",
                    "Choose one from the list."));
  }

  private FileBoard board(OpenWorkspace open, Contest c, String carry) {
    CombinedFile f = contests.combine(open.value(), c);
    boolean whole = f.shown().length() <= LONGEST;
    return new FileBoard(
        open.revision(),
        candidate(open, files.mend(open), c, carry),
        f.way().word(),
        f.places().stream().limit(MOST).map(CombinedFilesViews::place).toList(),
        f.places().size(),
        whole
            ? f.pieces().stream().map(p -> new FilePiece(p.text(), p.of(), p.place())).toList()
            : List.of(),
        whole ? f.shown() : f.shown().substring(0, LONGEST),
        f.remarks().stream().map(r -> r.text()).toList());
  }

  /** Decides one place of a file, or takes the decision back. */
  @PutMapping("/choices")
  ResponseEntity<FileBoard> choose(
      @PathVariable long workspace,
      @RequestParam String path,
      @RequestParam(required = false) String carry,
      @RequestBody ChoiceRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    Contest c = require(open, path, carry);
    if (body.place() != null && body.place().length() > LONGEST_PLACE)
      throw IroningException.of(
          "too-long",
          body.place().substring(0, 40) + "…",
          "No place of a file has a key of more than " + LONGEST_PLACE + " characters.",
          "Name the place by the key that the board tells.");
    boolean forget = Boolean.TRUE.equals(body.forget());
    Choice choice =
        new Choice(body.take() == null ? List.of() : body.take(), Optional.ofNullable(body.text()));
    if (!forget) {
      CombinedFilesViews.requireSides(c, choice, body.place() == null);
      if (body.place() != null)
        CombinedFilesViews.requirePlace(contests.combine(open.value(), c), c, body.place());
    }
    OpenWorkspace after =
        workspaces
            .change(
                workspace,
                Expected.of(ifMatch),
                b -> (forget ? "Took back a choice for " : "Settled a place of ") + c.path(),
                b -> {
                  Arrangement a = b.picture().arrangement();
                  return a.withFileChoices(
                      c.path(), CombinedFilesViews.with(a.choicesOn(c.path()), body, choice));
                })
            .after();
    return ResponseEntity.ok()
        .eTag(Revision.etag(after.revision()))
        .body(board(after, require(after, path, carry), carry));
  }

  /** Puts files into the mend that holds combined files; it is made if there is none yet. */
  @PostMapping
  ResponseEntity<Job> combine(
      @PathVariable long workspace,
      @RequestBody CombineRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    OpenWorkspace open = workspaces.get(workspace);
    Set<String> paths = new TreeSet<>();
    if (body.paths() != null) {
      for (String p : body.paths()) paths.add(require(open, p, body.carry()).path());
    } else {
      List<Contest> all =
          body.carry() == null
              ? contests.all(open.value())
              : contests.carried(open.value(), body.carry());
      for (Contest c : all)
        if (CombinedFilesViews.state(c, contests.outline(open.value(), c))
            == CandidateState.COMBINES) paths.add(c.path());
    }
    return JobController.accepted(
        jobs, mends.combine(workspace, paths, Optional.ofNullable(body.carry())), prefer);
  }
}
