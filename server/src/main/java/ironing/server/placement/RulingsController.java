package ironing.server.placement;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.layers.Holdings;
import ironing.core.layers.Placements;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.path.PathPattern;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.RuledPaths;
import ironing.server.layers.DifferenceView;
import ironing.server.layers.Layers;
import ironing.server.placement.RulingOrder.Found;
import ironing.server.platform.MayBeAbsent;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import ironing.server.workbench.Workbenches.Origin;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The user's word on whose file is in play, whatever the order says. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/rulings")
class RulingsController {
  /** No path of a game is longer. */
  private static final int LONGEST = 1_000;

  private final Layers layers;
  private final LayerRules rules;
  private final Workbenches benches;

  RulingsController(Layers layers, LayerRules rules, Workbenches benches) {
    this.layers = layers;
    this.rules = rules;
    this.benches = benches;
  }

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

  /** What was said of single paths and folders, whatever the layers say. */
  @GetMapping
  RulingsView rulings(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return new RulingsView(bench.revision(), views(bench));
  }

  private static List<RulingView> views(Bench bench) {
    List<Ruling> all = bench.picture().arrangement().rulings();
    List<RuledPaths.Count> counts = new RuledPaths(bench.picture()).counts();
    List<RulingView> views = new ArrayList<>();
    for (int i = 0; i < all.size(); i++) {
      Ruling r = all.get(i);
      RuledPaths.Count c = counts.get(i);
      views.add(
          new RulingView(
              r.at(),
              r.mod(),
              bench.nameOf(r.mod()),
              c.changing(),
              c.needless(),
              c.isIdle() ? idle(bench, r) : null));
    }
    return views;
  }

  private static String idle(Bench bench, Ruling r) {
    if (r.mod() != Holdings.GAME && !bench.mods().containsKey(r.mod()))
      return "The mod is not in the library any more.";
    boolean on =
        r.mod() == Holdings.GAME
            || bench.picture().arrangement().layers().stream()
                .anyMatch(l -> l.mod() == r.mod() && l.on());
    return on
        ? "It holds the file back, has none there, or another ruling speaks of the same paths."
        : "The mod is switched off.";
  }

  /** Makes rulings; one of the same path, folder or pattern is replaced. */
  @PutMapping
  ResponseEntity<DifferenceView> rule(
      @PathVariable long workspace,
      @RequestBody RulingsRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Bench bench = benches.get(workspace);
    refuseEmpty(bench, body.rulings());
    List<Ruling> made =
        body.rulings().stream().map(r -> new Ruling(r.at().strip(), r.mod())).toList();
    UnaryOperator<List<Ruling>> change =
        all -> {
          List<Ruling> next = new ArrayList<>(all);
          next.removeIf(r -> made.stream().anyMatch(m -> same(bench, m.at(), r.at())));
          next.addAll(made);
          return next;
        };
    String said =
        made.size() == 1
            ? "Ruled "
                + made.get(0).at()
                + " to come from “"
                + bench.nameOf(made.get(0).mod())
                + "”"
            : "Made " + made.size() + " rulings";
    return layers.rulings(workspace, Expected.of(dryRun, ifMatch), said, change).asAnswer();
  }

  private static boolean same(Bench bench, String a, String b) {
    return bench.game().pathCase().key(a).equals(bench.game().pathCase().key(b));
  }

  private static void refuseEmpty(Bench bench, List<RulingWish> wishes) {
    List<Problem> problems = new ArrayList<>();
    Holdings holdings = bench.picture().holdings();
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
                  w.mod(), PathPattern.of(w.at().strip(), bench.game().pathCase())::matches);
      if (!brings) {
        problems.add(
            new Problem(
                "ruling-empty",
                w.at(),
                bench.nameOf(w.mod()) + " brings no file there.",
                "Choose a mod that does, or another path."));
      }
    }
    if (wishes.isEmpty()) {
      problems.add(
          new Problem("ruling-empty", "The request", "It names no path.", "Name at least one."));
    }
    if (!problems.isEmpty()) throw new IroningException(problems);
  }

  /** Takes rulings back: the order decides there again. */
  @DeleteMapping
  ResponseEntity<DifferenceView> takeBack(
      @PathVariable long workspace,
      @RequestParam List<String> at,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Bench bench = benches.get(workspace);
    UnaryOperator<List<Ruling>> change =
        all ->
            all.stream().filter(r -> at.stream().noneMatch(a -> same(bench, a, r.at()))).toList();
    String said =
        at.size() == 1
            ? "Took the ruling for " + at.get(0) + " back"
            : "Took " + at.size() + " rulings back";
    return layers.rulings(workspace, Expected.of(dryRun, ifMatch), said, change).asAnswer();
  }

  /** Which order would satisfy the rulings by itself, and which of them contradict one another. */
  @GetMapping("/order")
  RulingOrderView order(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    LayerRules.Ruled ruled = rules.of(bench);
    Found found = RulingOrder.of(bench, ruled);
    List<WishedMove> moves = new ArrayList<>();
    if (found.suggestion().outcome() instanceof Outcome.Sorted<Long> sorted) {
      for (Move<Long> m : sorted.moves()) {
        long mod = ruled.modOf().get(m.item());
        moves.add(
            new WishedMove(
                mod,
                bench.nameOf(mod),
                m.from() + 1,
                m.to() + 1,
                steps(bench, ruled, m.because())));
      }
    }
    List<Contradiction> contradictions = new ArrayList<>();
    for (Placements.LeftOut l : found.suggestion().leftOut()) {
      for (String at : l.rule().map(found.supportedBy()::get).orElse(Set.of()))
        contradictions.add(
            new Contradiction(
                at, bench.nameOf(ruled.modOf().get(l.layer())), steps(bench, ruled, l.ring())));
    }
    return new RulingOrderView(
        bench.revision(),
        moves,
        found.needless(),
        contradictions,
        found.packed(),
        layers.arrange(
            workspace, Expected.DRY, Origin.PROPOSAL, "", b -> found.order(ruled.order())));
  }

  private static List<String> steps(
      Bench bench, LayerRules.Ruled ruled, List<Constraint<Long>> chain) {
    return chain.stream()
        .map(
            c ->
                bench.nameOf(ruled.modOf().get(c.later()))
                    + " above "
                    + bench.nameOf(ruled.modOf().get(c.earlier()))
                    + ": "
                    + c.reason())
        .toList();
  }

  /** Moves the layers so that the most rulings become needless, and takes those rulings back. */
  @PostMapping("/order")
  ResponseEntity<DifferenceView> takeOrder(
      @PathVariable long workspace,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers
        .arrangeWithout(
            workspace,
            Expected.of(ifMatch),
            "Moved layers so that rulings became needless",
            b -> {
              LayerRules.Ruled ruled = rules.of(b);
              return RulingOrder.of(b, ruled).order(ruled.order());
            },
            b -> Set.copyOf(RulingOrder.of(b, rules.of(b)).needless()))
        .asAnswer();
  }
}
