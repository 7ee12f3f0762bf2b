package ironing.server.rulings;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.layers.Holdings;
import ironing.core.order.Ordering.Constraint;
import ironing.core.path.PathPattern;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.RuledPaths;
import ironing.server.layerrules.LayerRules;
import ironing.server.layers.DifferenceView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/** What {@link RulingsController} gives and takes, and how it is made of what the core says. */
final class RulingsViews {
  private RulingsViews() {}

  /** No path of a game is longer. */
  static final int LONGEST = 1_000;

  /**
   * @param at a path, a folder with a slash at its end, or a pattern
   * @param mod 0 for the game
   */
  record RulingWish(String at, long mod) {
    RulingWish {
      Objects.requireNonNull(at, "at");
    }
  }

  record RulingsRequest(List<RulingWish> rulings) {
    RulingsRequest {
      Objects.requireNonNull(rulings, "rulings");
    }
  }

  /**
   * @param decides at how many paths it puts another file in play than the order would
   * @param needless at how many the order says the same
   * @param idle why it says nothing now, in words; absent when it speaks
   */
  record RulingView(
      String at, long mod, String name, int decides, int needless, @MayBeAbsent String idle) {}

  record RulingsView(long revision, List<RulingView> rulings) {}

  record WishedMove(long mod, String name, int from, int to, List<String> because) {}

  /**
   * @param ring why it cannot be satisfied together with the others, step by step
   */
  record Contradiction(String at, String name, List<String> ring) {}

  /**
   * The order that makes the most rulings needless.
   *
   * @param needless rulings that the order would then satisfy by itself
   * @param contradictions rulings that stand against others; they stay rulings
   * @param packed rulings for packed files, which no order can satisfy
   */
  record RulingOrderView(
      long revision,
      List<WishedMove> moves,
      List<String> needless,
      List<Contradiction> contradictions,
      List<String> packed,
      DifferenceView difference) {}

  static List<RulingView> views(OpenWorkspace open) {
    List<Ruling> all = open.picture().arrangement().rulings();
    List<RuledPaths.Count> counts = new RuledPaths(open.picture()).counts();
    List<RulingView> views = new ArrayList<>();
    for (int i = 0; i < all.size(); i++) {
      Ruling r = all.get(i);
      RuledPaths.Count c = counts.get(i);
      views.add(
          new RulingView(
              r.at(),
              r.mod(),
              open.nameOf(r.mod()),
              c.changing(),
              c.needless(),
              c.isIdle() ? idle(open, r) : null));
    }
    return views;
  }

  static String idle(OpenWorkspace open, Ruling r) {
    if (r.mod() != Holdings.GAME && !open.mods().containsKey(r.mod()))
      return "The mod is not in the library any more.";
    boolean on =
        r.mod() == Holdings.GAME
            || open.picture().arrangement().layers().stream()
                .anyMatch(l -> l.mod() == r.mod() && l.on());
    return on
        ? "It holds the file back, has none there, or another ruling speaks of the same paths."
        : "The mod is switched off.";
  }

  static boolean same(OpenWorkspace open, String a, String b) {
    return open.game().pathCase().key(a).equals(open.game().pathCase().key(b));
  }

  static void refuseEmpty(OpenWorkspace open, List<RulingWish> wishes) {
    List<Problem> problems = new ArrayList<>();
    Holdings holdings = open.picture().holdings();
    for (RulingWish w : wishes) {
      if (w.at().length() > LONGEST)
        throw IroningException.of(
            "too-long",
            w.at().substring(0, 40) + "…",
            "A ruling is for a path, a folder or a pattern, and none has more than "
                + LONGEST
                + " characters.",
            "Name a shorter one.");
      int path = holdings.idOf(w.at().strip());
      boolean brings =
          path >= 0
              ? holdings.slotOfMod(path, w.mod()) >= 0
              : holdings.holdsAny(
                  w.mod(), PathPattern.of(w.at().strip(), open.game().pathCase())::matches);
      if (!brings) {
        problems.add(
            new Problem(
                "ruling-empty",
                w.at(),
                open.nameOf(w.mod()) + " brings no file there.",
                "Choose a mod that does, or another path."));
      }
    }
    if (wishes.isEmpty()) {
      problems.add(
          new Problem("ruling-empty", "The request", "It names no path.", "Name at least one."));
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
  }

  static List<String> steps(
      OpenWorkspace open, LayerRules.Ruled ruled, List<Constraint<Long>> chain) {
    return chain.stream()
        .map(
            c ->
                open.nameOf(ruled.modOf().get(c.later()))
                    + " above "
                    + open.nameOf(ruled.modOf().get(c.earlier()))
                    + ": "
                    + c.reason())
        .toList();
  }
}
