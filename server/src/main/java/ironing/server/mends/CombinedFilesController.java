package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.combine.Choice;
import ironing.core.combine.CombinedFile;
import ironing.core.combine.FileChoices;
import ironing.core.combine.Place;
import ironing.core.layers.Holdings;
import ironing.core.mends.Contest;
import ironing.core.mends.Contests;
import ironing.core.mends.Contests.Left;
import ironing.core.mends.Contests.Outline;
import ironing.core.mends.FileSide;
import ironing.core.picture.Arrangement;
import ironing.server.job.Job;
import ironing.server.job.JobController;
import ironing.server.job.Jobs;
import ironing.server.mends.MendStore.Kept;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import java.util.List;
import java.util.Objects;
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
  private final Workbenches benches;
  private final Jobs jobs;

  CombinedFilesController(
      CombinedFiles files, Contests contests, Mends mends, Workbenches benches, Jobs jobs) {
    this.files = files;
    this.contests = contests;
    this.mends = mends;
    this.benches = benches;
    this.jobs = jobs;
  }

  /** What combining a file would come to. */
  enum CandidateState {
    /** It combines without a question. */
    COMBINES,
    /** So it does, but against a mod's file, since the game has none: look at it first. */
    PROPOSED,
    NEEDS_YOU,
    /** All who change it have the same. */
    TWINS,
    IMPOSSIBLE
  }

  /**
   * A version of a file.
   *
   * @param id by which choices name it
   * @param name with its version where it is not in use
   * @param mod 0 for the game
   */
  record FileVersion(String id, String name, long mod, String sha256) {}

  /**
   * A path at which files can be combined.
   *
   * @param way text, table, json, xml, yaml, ini, list or properties
   * @param asked how many places wait for the user
   * @param base what every contender is measured against; {@code bases} what else it could be
   * @param madeFrom whether that is an older version which one of them is known to be made from;
   *     {@code beforeUpdate} whether it is the game's file of before an update
   * @param reasons why it cannot be combined
   * @param held whether the mend is for it, {@code written} whether the mend has it now
   */
  record CandidateFile(
      String path,
      String way,
      CandidateState state,
      int asked,
      List<String> reasons,
      FileVersion base,
      boolean madeFrom,
      boolean beforeUpdate,
      List<FileVersion> bases,
      List<FileVersion> contenders,
      boolean held,
      boolean written) {}

  /**
   * @param mend the mod that holds the combined files; absent while there is none
   * @param left files of the carried mod that cannot be carried into what others have, the first of
   *     them
   * @param leftInAll how many there are
   */
  record CandidateFiles(
      long revision,
      @MayBeAbsent Long mend,
      List<CandidateFile> files,
      List<FileLeft> left,
      int leftInAll) {}

  /**
   * A file whose change cannot be carried over.
   *
   * @param others who have the file too
   */
  record FileLeft(String path, String reason, List<String> others) {}

  /**
   * All of them, by path.
   *
   * @param carry the id of a mod: only what it changes, and only against what would be in play
   *     without it
   */
  @GetMapping
  CandidateFiles candidates(
      @PathVariable long workspace, @RequestParam(required = false) String carry) {
    Bench bench = benches.get(workspace);
    List<Contest> all =
        carry == null ? contests.all(bench.value()) : contests.carried(bench.value(), carry);
    List<Left> left = carry == null ? List.of() : contests.left(bench.value(), carry);
    Optional<Kept> mend = files.mend(bench);
    return new CandidateFiles(
        bench.revision(),
        mend.map(Kept::mod).orElse(null),
        all.parallelStream().map(c -> candidate(bench, mend, c, carry)).toList(),
        left.stream().limit(LEFT_SHOWN).map(l -> left(bench, l)).toList(),
        left.size());
  }

  private static FileLeft left(Bench bench, Left l) {
    String reason =
        l.ruled()
            ? "You have ruled whose file is in play."
            : "The game’s definition does not say how such files combine.";
    return new FileLeft(l.path(), reason, l.others().stream().map(bench::nameOf).toList());
  }

  private CandidateFile candidate(Bench bench, Optional<Kept> mend, Contest c, String carry) {
    Outline o = contests.outline(bench.value(), c);
    return new CandidateFile(
        c.path(),
        c.rule().as().word(),
        state(c, o),
        o.asked(),
        o.reasons(),
        version(bench, c.base()),
        c.known() && !c.ofGame(),
        c.isBeforeUpdate(),
        c.bases().stream().map(s -> version(bench, s)).toList(),
        c.contenders().stream().map(s -> version(bench, s)).toList(),
        mend.filter(k -> isFor(k, c, carry)).isPresent(),
        mend.filter(k -> isFor(k, c, carry) && has(k, c)).isPresent());
  }

  private static boolean isFor(Kept k, Contest c, String carry) {
    return k.recipe().files().contains(c.path())
        && Objects.equals(k.recipe().carried().get(c.path()), carry);
  }

  private static boolean has(Kept k, Contest c) {
    return k.made().files().stream().anyMatch(f -> f.path().equals(c.path()));
  }

  private static CandidateState state(Contest c, Outline o) {
    if (c.isTwins()) return CandidateState.TWINS;
    if (o.asked() > 0) return CandidateState.NEEDS_YOU;
    if (!o.possible()) return CandidateState.IMPOSSIBLE;
    return c.known() ? CandidateState.COMBINES : CandidateState.PROPOSED;
  }

  private static FileVersion version(Bench bench, FileSide s) {
    String name = bench.nameOf(s.mod());
    if (s.mod() == Holdings.GAME && s.slot() < 0) name += " " + s.id().substring(1);
    else if (s.mod() == Holdings.GAME && !bench.gameVersion().orElse("").isEmpty())
      name += " " + bench.gameVersion().get();
    else if (s.mod() != Holdings.GAME && !bench.inUse(s.mod()))
      name += " " + bench.mods().get(s.mod()).card().shownVersion();
    return new FileVersion(s.id(), name, s.mod(), s.sha256());
  }

  /**
   * What some have at a place.
   *
   * @param of their ids
   * @param text absent where they removed it
   */
  record PlaceSide(List<String> of, @MayBeAbsent String text) {}

  /**
   * A place of the file that somebody changed.
   *
   * @param key by which a choice names it
   * @param where what to call it
   * @param base what stood there; absent where nothing did
   * @param outcome what comes out; absent where nothing stands there
   * @param from whose change that is
   * @param once whether it is a name that may stand only once; taking all sides leaves it so
   */
  record FilePlace(
      String key,
      String where,
      Place.How how,
      @MayBeAbsent String base,
      List<PlaceSide> sides,
      @MayBeAbsent String outcome,
      List<String> from,
      boolean once) {}

  /**
   * A stretch of the outcome.
   *
   * @param of whose it is; none for the base
   * @param place the number of its place, -1 where nobody changed it
   */
  record FilePiece(String text, List<String> of, int place) {}

  /**
   * A file on the board.
   *
   * @param as as which it is combined: {@code way}, or text where a version does not parse
   * @param pieces the outcome in stretches; of text only
   * @param shown the outcome as text, as far as it is not too long
   * @param remarks what else there is to know
   */
  record FileBoard(
      long revision,
      CandidateFile file,
      String as,
      List<FilePlace> places,
      int placesInAll,
      List<FilePiece> pieces,
      String shown,
      List<String> remarks) {}

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
    Bench bench = benches.get(workspace);
    return board(bench, require(bench, path, carry), carry);
  }

  private Contest require(Bench bench, String path, String carry) {
    return contests
        .at(bench.value(), path, Optional.ofNullable(carry))
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    path,
                    "No two mods change this file, or the game’s definition does not say how such"
                        + " files combine.",
                    "Choose one from the list."));
  }

  private FileBoard board(Bench bench, Contest c, String carry) {
    CombinedFile f = contests.combine(bench.value(), c);
    boolean whole = f.shown().length() <= LONGEST;
    return new FileBoard(
        bench.revision(),
        candidate(bench, files.mend(bench), c, carry),
        f.way().word(),
        f.places().stream().limit(MOST).map(CombinedFilesController::place).toList(),
        f.places().size(),
        whole
            ? f.pieces().stream().map(p -> new FilePiece(p.text(), p.of(), p.place())).toList()
            : List.of(),
        whole ? f.shown() : f.shown().substring(0, LONGEST),
        f.remarks().stream().map(r -> r.text()).toList());
  }

  private static FilePlace place(Place p) {
    return new FilePlace(
        p.key(),
        p.where(),
        p.how(),
        p.base().orElse(null),
        p.sides().stream().map(s -> new PlaceSide(s.of(), s.text().orElse(null))).toList(),
        p.outcome().orElse(null),
        p.from(),
        p.once());
  }

  /**
   * What the user wants at a place.
   *
   * @param place its key; absent to choose what all are measured against
   * @param take whose version, by id; several one behind another; none for the base's
   * @param text what is typed in instead; absent for none
   * @param forget whether an earlier choice is taken back
   */
  record ChoiceRequest(
      @MayBeAbsent String place,
      @MayBeAbsent List<String> take,
      @MayBeAbsent String text,
      @MayBeAbsent Boolean forget) {}

  /** Decides one place of a file, or takes the decision back. */
  @PutMapping("/choices")
  ResponseEntity<FileBoard> choose(
      @PathVariable long workspace,
      @RequestParam String path,
      @RequestParam(required = false) String carry,
      @RequestBody ChoiceRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Contest c = require(benches.get(workspace), path, carry);
    if (body.place() != null && body.place().length() > LONGEST_PLACE)
      throw IroningException.of(
          "too-long",
          body.place().substring(0, 40) + "…",
          "No place of a file has a key of more than " + LONGEST_PLACE + " characters.",
          "Name the place by the key that the board tells.");
    boolean forget = Boolean.TRUE.equals(body.forget());
    Choice choice =
        new Choice(body.take() == null ? List.of() : body.take(), Optional.ofNullable(body.text()));
    if (!forget) requireSides(c, choice, body.place() == null);
    Bench after =
        benches
            .change(
                workspace,
                Expected.of(ifMatch),
                b -> (forget ? "Took back a choice for " : "Settled a place of ") + c.path(),
                b -> {
                  Arrangement a = b.picture().arrangement();
                  return a.withFileChoices(c.path(), with(a.choicesOn(c.path()), body, choice));
                })
            .after();
    return ResponseEntity.ok()
        .eTag(Revision.etag(after.revision()))
        .body(board(after, require(after, path, carry), carry));
  }

  private static FileChoices with(FileChoices now, ChoiceRequest body, Choice choice) {
    boolean forget = Boolean.TRUE.equals(body.forget());
    return body.place() == null
        ? now.withBase(forget ? Optional.empty() : Optional.of(choice.take().get(0)))
        : now.with(body.place(), forget ? Optional.empty() : Optional.of(choice));
  }

  private static void requireSides(Contest c, Choice choice, boolean asBase) {
    if (asBase && choice.take().size() != 1)
      throw IroningException.of(
          "not-a-side",
          c.path(),
          "All are measured against one version, and " + choice.take().size() + " are named.",
          "Take one of those that the board tells.");
    for (String id : choice.take())
      if (c.bases().stream().noneMatch(s -> s.id().equals(id)))
        throw IroningException.of(
            "not-a-side",
            id,
            "No mod of this id changes " + c.path() + ".",
            "Take one of those that do, or type the text.");
  }

  /**
   * @param paths those to combine; absent for all that combine without a question
   * @param carry the id of the mod whose change is carried over there; absent to combine all
   */
  record CombineRequest(@MayBeAbsent List<String> paths, @MayBeAbsent String carry) {}

  /** Puts files into the mend that holds combined files; it is made if there is none yet. */
  @PostMapping
  ResponseEntity<Job> combine(
      @PathVariable long workspace,
      @RequestBody CombineRequest body,
      @RequestHeader(name = "Prefer", required = false) String prefer) {
    Bench bench = benches.get(workspace);
    Set<String> paths = new TreeSet<>();
    if (body.paths() != null) {
      for (String p : body.paths()) paths.add(require(bench, p, body.carry()).path());
    } else {
      List<Contest> all =
          body.carry() == null
              ? contests.all(bench.value())
              : contests.carried(bench.value(), body.carry());
      for (Contest c : all)
        if (state(c, contests.outline(bench.value(), c)) == CandidateState.COMBINES)
          paths.add(c.path());
    }
    return JobController.accepted(
        jobs, mends.combine(workspace, paths, Optional.ofNullable(body.carry())), prefer);
  }
}
