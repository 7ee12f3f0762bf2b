package ironing.server.mends;

import ironing.core.IroningException;
import ironing.core.combinedfiles.Choice;
import ironing.core.combinedfiles.CombinedFile;
import ironing.core.combinedfiles.FileChoices;
import ironing.core.combinedfiles.Place;
import ironing.core.layers.Holdings;
import ironing.core.mends.Contest;
import ironing.core.mends.Contests.Left;
import ironing.core.mends.Contests.Outline;
import ironing.core.mends.FileSide;
import ironing.server.mends.MendStore.Kept;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * What {@link CombinedFilesController} gives and takes, and how it is made of what the core says.
 */
final class CombinedFilesViews {
  private CombinedFilesViews() {}

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

  static FileLeft left(OpenWorkspace open, Left l) {
    String reason =
        l.ruled()
            ? "You have ruled whose file is in play."
            : "The game’s definition does not say how such files combine.";
    return new FileLeft(l.path(), reason, l.others().stream().map(open::nameOf).toList());
  }

  static boolean isFor(Kept k, Contest c, String carry) {
    return k.recipe().files().contains(c.path())
        && Objects.equals(k.recipe().carried().get(c.path()), carry);
  }

  static boolean has(Kept k, Contest c) {
    return k.made().files().stream().anyMatch(f -> f.path().equals(c.path()));
  }

  static CandidateState state(Contest c, Outline o) {
    if (c.isTwins()) return CandidateState.TWINS;
    if (o.asked() > 0) return CandidateState.NEEDS_YOU;
    if (!o.possible()) return CandidateState.IMPOSSIBLE;
    return c.known() ? CandidateState.COMBINES : CandidateState.PROPOSED;
  }

  static FileVersion version(OpenWorkspace open, FileSide s) {
    String name = open.nameOf(s.mod());
    if (s.mod() == Holdings.GAME && s.slot() < 0) name += " " + s.id().substring(1);
    else if (s.mod() == Holdings.GAME && !open.gameVersion().orElse("").isEmpty())
      name += " " + open.gameVersion().get();
    else if (s.mod() != Holdings.GAME && !open.inUse(s.mod()))
      name += " " + open.mods().get(s.mod()).card().shownVersion();
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

  static FilePlace place(Place p) {
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

  static FileChoices with(FileChoices now, ChoiceRequest body, Choice choice) {
    boolean forget = Boolean.TRUE.equals(body.forget());
    return body.place() == null
        ? now.withBase(forget ? Optional.empty() : Optional.of(choice.take().get(0)))
        : now.with(body.place(), forget ? Optional.empty() : Optional.of(choice));
  }

  /** Refuses a choice for a place that the file does not have: nobody would ever see it. */
  static void requirePlace(CombinedFile f, Contest c, String place) {
    if (f.places().stream().anyMatch(p -> p.key().equals(place))) return;
    throw IroningException.of(
        "not-found",
        place,
        "Nothing is changed at such a place of " + c.path() + ".",
        "Name the place by the key that the board tells.");
  }

  static void requireSides(Contest c, Choice choice, boolean asBase) {
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
}
