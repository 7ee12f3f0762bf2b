package ironing.server.choice;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.choice.ChoiceAnswer.Found;
import ironing.core.choice.ChoiceAnswer.Member;
import ironing.core.workspace.LookAhead;
import ironing.core.workspace.Mod;
import ironing.server.choice.AheadViews.AheadView;
import ironing.server.choice.Choices.Answered;
import ironing.server.choice.Choices.Choice;
import ironing.server.workspace.Changed;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.wrinkles.Wrinkles;
import ironing.server.wrinkles.Wrinkles.Wrinkle;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;

/** What following a choice would do, told before it is followed. */
@Component
class Ahead {
  private final Choices choices;
  private final Following following;
  private final Wrinkles wrinkles;

  Ahead(Choices choices, Following following, Wrinkles wrinkles) {
    this.choices = choices;
    this.following = following;
    this.wrinkles = wrinkles;
  }

  /**
   * Follows a choice on paper.
   *
   * @throws IroningException with code {@code choice-impossible}, or {@code choice-not-fetched} for
   *     each release that is not in the library
   */
  AheadView of(OpenWorkspace open, Choice choice) {
    Answered answered = choices.ask(open, choice);
    Found found = Getting.requireFound(answered);
    requireHere(answered, found);
    Changed changed = Changed.as(open, following.arranged(open, answered.candidates(), found));
    LookAhead ahead = LookAhead.between(open.value(), changed.after().value());
    List<Wrinkle> was = wrinkles.open(open), is = wrinkles.open(changed.after());
    return AheadViews.view(changed, ahead, without(is, was, open), without(was, is, open));
  }

  private static void requireHere(Answered answered, Found found) {
    List<Problem> missing = new ArrayList<>();
    for (Member m : found.members()) {
      if (m.candidate().isHere()) continue;
      missing.add(
          new Problem(
              "choice-not-fetched",
              answered.candidates().nameOf(m.candidate().mod()) + " " + m.candidate().version(),
              "It is not in the library yet, so what it would do is not known.",
              "Fetch it first; that changes nothing in the profile."));
    }
    if (!missing.isEmpty()) throw new IroningException(missing);
  }

  /** Those of a list that the other has not; versions of one mod count as one. */
  private static List<Wrinkle> without(
      List<Wrinkle> these, List<Wrinkle> those, OpenWorkspace open) {
    Set<List<Object>> known = new HashSet<>();
    for (Wrinkle w : those) known.add(sense(w, open));
    return these.stream().filter(w -> !known.contains(sense(w, open))).toList();
  }

  private static List<Object> sense(Wrinkle w, OpenWorkspace open) {
    return List.of(w.code(), w.title(), strand(w.mod(), open), strand(w.other(), open));
  }

  private static long strand(Long mod, OpenWorkspace open) {
    Mod m = mod == null ? null : open.mods().get(mod);
    return m == null ? 0 : m.strand();
  }
}
