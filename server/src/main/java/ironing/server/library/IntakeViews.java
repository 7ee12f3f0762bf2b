package ironing.server.library;

import ironing.core.Problem;
import ironing.core.archive.Unpacker.Unpacked;
import ironing.core.library.Choices;
import ironing.core.library.Condition;
import ironing.core.library.ContentLayout.Outcome;
import ironing.core.library.ContentLayout.Placed;
import ironing.core.library.Fitting;
import ironing.core.library.Fitting.Asked;
import ironing.core.library.Reading;
import ironing.core.path.GamePath;
import ironing.server.library.Installer.Part;
import ironing.server.library.Intake.FittingPlan;
import ironing.server.library.Intake.Plan;
import ironing.server.library.LibraryViews.Clash;
import ironing.server.library.LibraryViews.NeedView;
import ironing.server.library.ModStore.Place;
import ironing.server.library.Versions.Collision;
import ironing.server.library.Versions.FileOf;
import ironing.server.library.Versions.Replacement;
import ironing.server.platform.MayBeAbsent;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What {@link IntakeController} gives and takes, and how it is made of what the core says. */
final class IntakeViews {
  private IntakeViews() {}

  /**
   * One mod out of an archive.
   *
   * @param root the folder in which it begins; absent to have it recognised
   * @param leaveOut entries, and folders with {@code /} at the end, that stay out
   * @param sendTo entries and folders to the mount that they go to
   * @param answers question of the fitting to answers; a question that is not named gets what is
   *     offered
   * @param plain take it as it is: questions are left aside, and a card that cannot be read does
   *     not count
   * @param name what to call it when it has no card
   * @param instead the version whose layer it takes; what was chosen for that one is taken over
   *     where leaveOut, sendTo and answers are all absent
   * @param beside the version beside which it lies, unused
   * @param another whether it is another mod, though one of its id is here; refused without this
   *     word
   */
  record PartRequest(
      @MayBeAbsent String root,
      @MayBeAbsent List<String> leaveOut,
      @MayBeAbsent Map<String, String> sendTo,
      @MayBeAbsent Map<String, List<String>> answers,
      @MayBeAbsent Boolean plain,
      @MayBeAbsent String name,
      @MayBeAbsent Long instead,
      @MayBeAbsent Long beside,
      @MayBeAbsent Boolean another) {
    Part part() {
      Choices choices =
          new Choices(
              Optional.ofNullable(root),
              leaveOut,
              sendTo,
              answers,
              Boolean.TRUE.equals(plain),
              Optional.ofNullable(name).map(String::strip).filter(n -> !n.isEmpty()));
      boolean nothing = leaveOut == null && sendTo == null && answers == null;
      if (instead != null) return new Part(choices, new Place.InsteadOf(instead), nothing);
      if (beside != null) return new Part(choices, new Place.Beside(beside));
      return new Part(
          choices, Boolean.TRUE.equals(another) ? new Place.AnotherOnTop() : new Place.OnTop());
    }
  }

  /** A file that the game gets. */
  record Gets(String entry, String path, String mount, long sizeBytes) {}

  /**
   * A file that stays out.
   *
   * @param chosen the user left it out
   * @param reading what it is for its reader, absent when it is nothing to read
   */
  record StaysOut(
      String entry,
      String reason,
      long sizeBytes,
      boolean chosen,
      @MayBeAbsent Reading.Kind reading) {}

  record MountView(String id, String at) {}

  /**
   * @param image an entry of the archive, absent without one
   * @param why the condition that it is offered on, in words; absent when there is none
   */
  record AnswerView(
      String id,
      String say,
      String about,
      @MayBeAbsent String image,
      String cost,
      boolean offered,
      boolean taken,
      @MayBeAbsent String why) {}

  /**
   * @param amiss why the answers taken will not do, absent when they will
   */
  record QuestionView(
      String id,
      String chapter,
      String ask,
      int min,
      int max,
      @MayBeAbsent String amiss,
      List<AnswerView> answers) {}

  /** A version of the same mod that is here. */
  record Here(long mod, String version, boolean inUse) {}

  /**
   * @param state laid out; several folders could be the mod; or nothing in it is for the game
   * @param root the folder in which the mod begins, and why there
   * @param roots the folders to choose from
   * @param leaveOut and {@code sendTo}, {@code answers}: the choices that this is the outcome of
   * @param inferred its name and version were guessed
   * @param gets the first of {@code getsInAll} files that the game gets, {@code getsBytes} in all
   * @param staysOut the first of {@code staysOutInAll} that it does not; those to be read first
   * @param hasQuestions it has a fitting, whether or not that was left aside
   * @param collisions who has files at the same paths
   * @param replaces what it would change in the place of the version that it is to replace
   * @param needs what its card says that it needs, and how far that is here
   * @param clashes the mods that its card says it does not go with, whether or not they are here
   * @param gameVersions the versions of the game that it is for
   */
  record IntakeView(
      long archive,
      String archiveName,
      State state,
      String root,
      String rootReason,
      List<String> roots,
      List<String> leaveOut,
      Map<String, String> sendTo,
      Map<String, List<String>> answers,
      String name,
      String version,
      String summary,
      boolean inferred,
      List<Problem> flaws,
      List<Problem> warnings,
      int getsInAll,
      long getsBytes,
      List<Gets> gets,
      int staysOutInAll,
      List<StaysOut> staysOut,
      List<MountView> mounts,
      boolean hasQuestions,
      List<QuestionView> questions,
      List<Collision> collisions,
      List<Here> here,
      @MayBeAbsent Replacement replaces,
      List<NeedView> needs,
      List<Clash> clashes,
      String gameVersions) {
    /** What came of reading its shape. */
    enum State {
      LAID,
      SEVERAL,
      NOTHING
    }
  }

  /** Which files are listed. */
  record Page(int limit, String below) {}

  static IntakeView.State state(Outcome outcome) {
    if (outcome instanceof Outcome.Laid) return IntakeView.State.LAID;
    return outcome instanceof Outcome.Several ? IntakeView.State.SEVERAL : IntakeView.State.NOTHING;
  }

  static List<StaysOut> staysOut(Plan plan, Outcome.Laid laid, Map<String, Long> sizes) {
    if (laid == null) {
      return plan.staged().entries().stream()
          .map(
              u ->
                  staysOut(
                      u.path(),
                      "No part of the game reads such a file at this place.",
                      u.sizeBytes(),
                      false))
          .toList();
    }
    return laid.leftOut().stream()
        .map(l -> staysOut(l.entry(), l.reason(), sizes.get(l.entry()), l.chosen()))
        .toList();
  }

  static StaysOut staysOut(String entry, String reason, long size, boolean chosen) {
    return new StaysOut(entry, reason, size, chosen, Reading.kind(entry).orElse(null));
  }

  static List<QuestionView> questions(FittingPlan f) {
    return f.asked().stream()
        .map(
            a ->
                new QuestionView(
                    a.question().id(),
                    a.question().chapter(),
                    a.question().ask(),
                    a.question().min(),
                    a.question().max(),
                    a.amiss().orElse(null),
                    a.question().answers().stream().map(x -> answer(f, a, x)).toList()))
        .toList();
  }

  static AnswerView answer(FittingPlan f, Asked asked, Fitting.Answer a) {
    String why = a.offer().filter(c -> !isConstant(c)).map(Condition::words).orElse(null);
    return new AnswerView(
        a.id(),
        a.say(),
        a.about(),
        a.image().map(i -> GamePath.join(f.folder(), i)).orElse(null),
        a.cost(),
        asked.offered().contains(a.id()),
        asked.taken().contains(a.id()),
        why);
  }

  // true and false as they are written in the file
  static boolean isConstant(Condition c) {
    return c instanceof Condition.All all && all.of().isEmpty()
        || c instanceof Condition.Any any && any.of().isEmpty();
  }

  static List<FileOf> files(Plan plan, List<Placed> placed) {
    Map<String, String> hashes = new HashMap<>();
    for (Unpacked u : plan.staged().entries()) hashes.put(u.path(), u.sha256());
    Path tree = plan.staged().tree();
    return placed.stream()
        .map(
            p -> new FileOf(p.gamePath(), hashes.get(p.entry()), GamePath.resolve(tree, p.entry())))
        .toList();
  }
}
