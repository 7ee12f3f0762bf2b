package ironing.server.choice;

import ironing.core.choice.Candidate;
import ironing.core.choice.ChoiceAnswer;
import ironing.core.choice.ChoiceAnswer.Becomes;
import ironing.core.choice.ChoiceAnswer.Found;
import ironing.core.choice.ChoiceAnswer.Member;
import ironing.core.choice.ChoiceAnswer.None;
import ironing.core.choice.ChoiceAnswer.WhichVariant;
import ironing.core.choice.ChoiceQuestion.Wish;
import ironing.core.choice.Statement;
import ironing.core.choice.Statement.Kind;
import ironing.server.choice.Candidates.ToFetch;
import ironing.server.choice.Choices.Answered;
import ironing.server.choice.Choices.Choice;
import ironing.server.platform.MayBeAbsent;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** What a choice brings with it, in the words of the API. */
final class ChoiceViews {
  private ChoiceViews() {}

  /**
   * A mod that shall be on.
   *
   * @param variant the one that is wished for; absent where nobody said one
   * @param release the key of the very release; absent for the newest that works
   */
  record WantedModRequest(String mod, @MayBeAbsent String variant, @MayBeAbsent String release) {
    WantedModRequest {
      Objects.requireNonNull(mod, "mod");
    }
  }

  /**
   * What is asked for.
   *
   * @param wishes in the order in which they were named
   * @param missing whether all that is on is to get what it needs; absent for no
   * @param givenUp statements that need not hold, as an answer has told them; absent for none
   */
  record WantedModsRequest(
      List<WantedModRequest> wishes,
      @MayBeAbsent Boolean missing,
      @MayBeAbsent List<StatementView> givenUp) {
    WantedModsRequest {
      Objects.requireNonNull(wishes, "wishes");
      givenUp = givenUp == null ? List.of() : givenUp;
    }

    Choice asked() {
      Set<Statement> given = new TreeSet<>();
      for (StatementView s : givenUp) given.add(s.statement());
      return new Choice(
          wishes.stream()
              .map(
                  w ->
                      new Wish(
                          w.mod(),
                          Optional.ofNullable(w.variant()),
                          Optional.ofNullable(w.release())))
              .toList(),
          Boolean.TRUE.equals(missing),
          given);
    }
  }

  /**
   * One sentence that has to hold.
   *
   * @param target the id of the mod that it speaks of; empty where it speaks of the game
   * @param versions the range that it speaks of; of a wish, the key of the release or empty
   * @param variant absent where any will do
   * @param text in words; need not be sent back
   */
  record StatementView(
      Kind kind,
      String owner,
      String target,
      String versions,
      @MayBeAbsent String variant,
      @MayBeAbsent String text) {
    StatementView {
      Objects.requireNonNull(kind, "kind");
      Objects.requireNonNull(owner, "owner");
      Objects.requireNonNull(target, "target");
      Objects.requireNonNull(versions, "versions");
    }

    Statement statement() {
      return new Statement(kind, owner, target, versions, Optional.ofNullable(variant));
    }
  }

  /** What an answer is. */
  enum AnswerKind {
    FOUND,
    NONE,
    WHICH_VARIANT
  }

  /**
   * What a choice brings with it.
   *
   * @param answer whether there is a set, or what is to be decided first
   * @param wanted the names of the mods that are wished for, in their order
   * @param notHeld the statements that need not hold
   * @param mark of what following it would do, to be sent back with it; empty where there is no set
   * @param members what is on afterwards of what the choice has to do with
   * @param off what has to go off
   * @param unmet what did not hold before and will not
   * @param sure whether it is known to be the best, or the smallest; false when the time was up
   * @param together where there is no set: statements that cannot hold together
   * @param waysOut sets of statements, each of which is enough to give up
   * @param variants of the mod that is asked about; empty but where a variant has to be chosen
   * @param variantOf that mod; absent else
   * @param bytesToFetch the size of all that is to be fetched
   */
  record ChoiceView(
      AnswerKind answer,
      List<String> wanted,
      List<StatementView> notHeld,
      String mark,
      List<MemberView> members,
      List<OffView> off,
      List<StatementView> unmet,
      boolean sure,
      List<StatementView> together,
      List<List<StatementView>> waysOut,
      List<String> variants,
      @MayBeAbsent String variantOf,
      long bytesToFetch) {}

  /**
   * A mod that is on afterwards.
   *
   * @param variant empty is the plain one
   * @param becomes what happens to it
   * @param from the version that it is here in now; absent where it stays or comes
   * @param path the names of the mods from a wish to this one, each needing the next
   * @param because why it changes though no wish needs it; absent else
   * @param here its number in the library; absent where it is to be fetched
   * @param catalogue where it is fetched from; absent where it is here
   * @param release the key of the release
   * @param sizeBytes of what is fetched; 0 where it is here
   */
  record MemberView(
      String mod,
      String name,
      String version,
      String variant,
      Becomes becomes,
      @MayBeAbsent String from,
      List<String> path,
      @MayBeAbsent StatementView because,
      @MayBeAbsent Long here,
      @MayBeAbsent String catalogue,
      String release,
      long sizeBytes) {}

  /**
   * A mod that has to go off.
   *
   * @param because what would not hold if it stayed; absent where the time was up
   */
  record OffView(long mod, String name, String version, @MayBeAbsent StatementView because) {}

  static ChoiceView view(Answered a) {
    ChoiceAnswer answer = a.answer();
    Candidates names = a.candidates();
    List<String> wanted = a.choice().wishes().stream().map(w -> names.nameOf(w.mod())).toList();
    List<StatementView> notHeld = words(names, List.copyOf(a.choice().givenUp()));
    if (answer instanceof WhichVariant w) {
      return new ChoiceView(
          AnswerKind.WHICH_VARIANT,
          wanted,
          notHeld,
          "",
          List.of(),
          List.of(),
          List.of(),
          true,
          List.of(),
          List.of(),
          w.variants(),
          w.mod(),
          0);
    }
    if (answer instanceof None n) {
      return new ChoiceView(
          AnswerKind.NONE,
          wanted,
          notHeld,
          "",
          List.of(),
          List.of(),
          List.of(),
          n.smallest(),
          words(names, n.together()),
          n.waysOut().stream().map(w -> words(names, w)).toList(),
          List.of(),
          null,
          0);
    }
    Found f = (Found) answer;
    List<MemberView> members = f.members().stream().map(m -> member(names, m)).toList();
    return new ChoiceView(
        AnswerKind.FOUND,
        wanted,
        notHeld,
        a.mark(),
        members,
        f.off().stream()
            .map(
                o ->
                    new OffView(
                        names.modOf(o.candidate()),
                        names.nameOf(o.candidate().mod()),
                        o.candidate().version().toString(),
                        o.because().map(s -> words(names, s)).orElse(null)))
            .toList(),
        words(names, f.unmet()),
        f.best(),
        List.of(),
        List.of(),
        List.of(),
        null,
        members.stream().mapToLong(MemberView::sizeBytes).sum());
  }

  private static MemberView member(Candidates names, Member m) {
    Candidate c = m.candidate();
    Optional<ToFetch> fetched = c.isHere() ? Optional.empty() : Optional.of(names.toFetch(c));
    return new MemberView(
        c.mod(),
        names.nameOf(c.mod()),
        c.version().toString(),
        c.variant(),
        m.becomes(),
        m.from().map(f -> f.version().toString()).orElse(null),
        m.path().stream().map(names::nameOf).toList(),
        m.because().map(s -> words(names, s)).orElse(null),
        c.isHere() ? names.modOf(c) : null,
        fetched.map(ToFetch::catalogueTitle).orElse(null),
        c.key(),
        fetched.map(t -> t.release().file().size()).orElse(0L));
  }

  private static List<StatementView> words(Candidates names, List<Statement> all) {
    return all.stream().map(s -> words(names, s)).toList();
  }

  private static StatementView words(Candidates names, Statement s) {
    String owner = names.nameOf(s.owner()), target = names.nameOf(s.target());
    String range = s.versions().equals("*") ? "" : " " + s.versions();
    String variant =
        s.variant().map(v -> v.isEmpty() ? ", plain" : ", variant “" + v + "”").orElse("");
    String text =
        switch (s.kind()) {
          case WISH -> "You want " + owner + variant;
          case NEED -> owner + " needs " + target + range + variant;
          case BRIDGE -> owner + " is only right together with " + target + range + variant;
          case CLASH -> owner + " does not go with " + target + range;
          case GAME -> owner + " is for the game in version " + s.versions();
        };
    return new StatementView(
        s.kind(),
        s.owner(),
        s.target(),
        s.kind() == Kind.WISH ? names.askedKey(s.versions()) : s.versions(),
        s.variant().orElse(null),
        text);
  }
}
