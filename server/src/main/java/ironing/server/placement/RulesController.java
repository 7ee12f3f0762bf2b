package ironing.server.placement;

import ironing.core.IroningException;
import ironing.core.layers.PlacementRule;
import ironing.core.layers.PlacementRule.Kind;
import ironing.core.layers.PlacementRule.Strength;
import ironing.core.layers.Placements;
import ironing.core.layers.Placements.LeftOut;
import ironing.core.layers.Placements.Suggestion;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Constraint;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.picture.Arrangement.Layer;
import ironing.server.layers.DifferenceView;
import ironing.server.layers.Layers;
import ironing.server.placement.LayerRules.Ruled;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import ironing.server.workbench.Workbenches.Origin;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Rules of placement, what mends one that is broken, and the order that would keep them all. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/layers")
class RulesController {
  private final Layers layers;
  private final LayerRules rules;
  private final Workbenches benches;

  RulesController(Layers layers, LayerRules rules, Workbenches benches) {
    this.layers = layers;
    this.rules = rules;
    this.benches = benches;
  }

  /**
   * @param other absent for TOP and BOTTOM
   * @param own whether the user made it, and can take it back
   * @param broken whether the order as it is breaks it
   */
  record RuleView(
      Kind kind,
      long mod,
      String name,
      @MayBeAbsent Long other,
      @MayBeAbsent String otherName,
      String reason,
      String from,
      boolean own,
      boolean broken) {}

  record RulesView(long revision, List<RuleView> rules) {}

  /**
   * @param other absent for TOP and BOTTOM
   * @param reason why, in the user's words; may be empty
   */
  record RuleRequest(
      Kind kind,
      long mod,
      @MayBeAbsent Optional<Long> other,
      @MayBeAbsent Optional<String> reason) {
    RuleRequest {
      Objects.requireNonNull(kind, "kind");
    }
  }

  /** A wish about two layers: the lower one is to be below the upper one. */
  record LayerReason(
      long lower, String lowerName, long upper, String upperName, String reason, String from) {}

  /**
   * @param from its number now, {@code to} its number in the suggestion
   * @param because a chain of reasons, each one's upper layer the next one's lower; empty when it
   *     only makes room
   */
  record LayerMove(long mod, String name, int from, int to, List<LayerReason> because) {}

  /**
   * What gave way.
   *
   * @param what in words
   * @param ring the shortest ring that it closed
   */
  record GaveWay(String what, List<LayerReason> ring) {}

  /**
   * @param order the mods from the lowest; empty where there is no way out
   * @param ring where the user's own rules contradict one another: the shortest ring of them
   * @param keptNumbers layers that are kept here and whose number would change all the same
   */
  record SuggestionView(
      long revision,
      List<Long> order,
      List<LayerMove> moves,
      List<LayerReason> ring,
      List<GaveWay> leftOut,
      List<LayerMove> keptNumbers,
      @MayBeAbsent DifferenceView difference) {}

  /**
   * @param mods whose moves are taken; absent: all
   */
  record TakeRequest(@MayBeAbsent Optional<List<Long>> mods) {}

  /** The rules of placement, with what they come to. */
  @GetMapping("/rules")
  RulesView rules(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Ruled ruled = rules.of(bench);
    Set<PlacementRule> broken = new HashSet<>(Placements.broken(ruled.order(), ruled.rules()));
    List<RuleView> views = new ArrayList<>();
    for (PlacementRule r : ruled.rules()) {
      Long mod = ruled.modOf().get(r.layer()), other = ruled.modOf().get(r.other());
      // a rule about a mod that is gone waits until it comes back
      if (mod == null || r.kind().hasOther() && other == null) continue;
      views.add(
          new RuleView(
              r.kind(),
              mod,
              bench.nameOf(mod),
              r.kind().hasOther() ? other : null,
              r.kind().hasOther() ? bench.nameOf(other) : null,
              r.reason(),
              r.from(),
              r.strength() == Strength.USER,
              broken.contains(r)));
    }
    return new RulesView(bench.revision(), views);
  }

  /** Adds a rule of placement. */
  @PostMapping("/rules")
  ResponseEntity<DifferenceView> addRule(
      @PathVariable long workspace,
      @RequestBody RuleRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Bench bench = benches.get(workspace);
    PlacementRule rule = asked(bench, body);
    return layers
        .rules(
            workspace,
            Expected.of(ifMatch),
            "Made a rule: " + words(bench, body),
            all -> {
              List<PlacementRule> next = new ArrayList<>(all);
              next.removeIf(r -> same(r, rule));
              next.add(rule);
              return next;
            })
        .asAnswer();
  }

  /** Takes a rule of placement back. */
  @DeleteMapping("/rules")
  ResponseEntity<DifferenceView> dropRule(
      @PathVariable long workspace,
      @RequestParam Kind kind,
      @RequestParam long mod,
      @RequestParam Optional<Long> other,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Bench bench = benches.get(workspace);
    RuleRequest body = new RuleRequest(kind, mod, other, Optional.empty());
    PlacementRule rule = asked(bench, body);
    return layers
        .rules(
            workspace,
            Expected.of(ifMatch),
            "Took a rule back: " + words(bench, body),
            all -> all.stream().filter(r -> !same(r, rule)).toList())
        .asAnswer();
  }

  /** Moves the fewest layers that make a broken rule hold and break none that holds. */
  @PostMapping("/rules/mend")
  ResponseEntity<DifferenceView> mend(
      @PathVariable long workspace,
      @RequestBody RuleRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Bench bench = benches.get(workspace);
    PlacementRule rule = asked(bench, body);
    return layers
        .arrange(
            workspace,
            Expected.of(dryRun, ifMatch),
            Origin.PROPOSAL,
            "Mended the rule: " + words(bench, body),
            b -> mended(b, rule))
        .asAnswer();
  }

  private List<Long> mended(Bench bench, PlacementRule asked) {
    Ruled ruled = rules.of(bench);
    return ruled.rules().stream()
        .filter(r -> same(r, asked))
        .findFirst()
        .flatMap(r -> Placements.mend(ruled.order(), ruled.rules(), r))
        .map(Outcome.Sorted::order)
        .orElseThrow(
            () ->
                IroningException.of(
                    "no-way-out",
                    "This rule",
                    "Other rules that hold now stand against it.",
                    "Take one of them back, or this one."));
  }

  private static boolean same(PlacementRule a, PlacementRule b) {
    return a.kind() == b.kind() && a.layer() == b.layer() && a.other() == b.other();
  }

  private static PlacementRule asked(Bench bench, RuleRequest body) {
    long layer = strand(bench, body.mod());
    Optional<Long> other =
        body.kind().hasOther()
            ? (body.other() == null ? Optional.empty() : body.other())
            : Optional.empty();
    if (body.kind().hasOther() && (other.isEmpty() || other.get() == body.mod())) {
      throw IroningException.of(
          "bad-rule",
          bench.nameOf(body.mod()),
          "The rule names no other layer to stand against.",
          "Choose another layer.");
    }
    String reason = body.reason() == null ? "" : body.reason().orElse("").strip();
    return new PlacementRule(
        body.kind(),
        layer,
        other.map(o -> strand(bench, o)).orElse(0L),
        reason.isEmpty() ? "you said so" : reason,
        "you",
        Strength.USER);
  }

  private static long strand(Bench bench, long mod) {
    if (bench.mods().containsKey(mod)) return bench.mods().get(mod).strand();
    throw IroningException.of(
        "not-found",
        "Mod " + mod,
        "There is no such mod in this library.",
        "Take the numbers from the list of layers.");
  }

  private static String words(Bench bench, RuleRequest r) {
    String name = "“" + bench.nameOf(r.mod()) + "”";
    String other =
        r.other() == null ? "" : r.other().map(o -> " “" + bench.nameOf(o) + "”").orElse("");
    return switch (r.kind()) {
      case ABOVE -> name + " above" + other;
      case BELOW -> name + " below" + other;
      case DIRECTLY_ABOVE -> name + " directly above" + other;
      case DIRECTLY_BELOW -> name + " directly below" + other;
      case TOP -> name + " always on top";
      case BOTTOM -> name + " always lowest";
    };
  }

  /** An order of the layers that keeps the rules with the fewest moves. */
  @GetMapping("/suggestion")
  ResponseEntity<SuggestionView> suggestion(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    Ruled ruled = rules.of(bench);
    Suggestion s = suggest(bench, ruled);
    SuggestionView view =
        s.outcome() instanceof Outcome.Sorted<Long> sorted
            ? view(workspace, bench, ruled, s, sorted)
            : new SuggestionView(
                bench.revision(),
                List.of(),
                List.of(),
                reasons(bench, ruled, ((Outcome.Ring<Long>) s.outcome()).ring()),
                leftOut(bench, ruled, s),
                List.of(),
                null);
    return ResponseEntity.ok().eTag(Revision.etag(bench.revision())).body(view);
  }

  private static Suggestion suggest(Bench bench, Ruled ruled) {
    Set<Long> kept = new HashSet<>();
    for (Layer l : bench.picture().arrangement().layers())
      if (l.kept()) kept.add(bench.mods().get(l.mod()).strand());
    return Placements.suggest(ruled.order(), ruled.rules(), ruled.bands(), kept);
  }

  private SuggestionView view(
      long workspace, Bench bench, Ruled ruled, Suggestion s, Outcome.Sorted<Long> sorted) {
    List<LayerMove> moves = new ArrayList<>();
    for (Move<Long> m : sorted.moves()) {
      long mod = ruled.modOf().get(m.item());
      moves.add(
          new LayerMove(
              mod,
              bench.nameOf(mod),
              m.from() + 1,
              m.to() + 1,
              reasons(bench, ruled, m.because())));
    }
    List<LayerMove> keptNumbers = new ArrayList<>();
    List<Layer> now = bench.picture().arrangement().layers();
    for (int i = 0; i < now.size(); i++) {
      long mod = now.get(i).mod();
      int to = sorted.order().indexOf(bench.mods().get(mod).strand());
      if (now.get(i).kept() && to != i)
        keptNumbers.add(new LayerMove(mod, bench.nameOf(mod), i + 1, to + 1, List.of()));
    }
    DifferenceView difference =
        layers.arrange(workspace, Expected.DRY, Origin.PROPOSAL, "", b -> sorted.order());
    return new SuggestionView(
        bench.revision(),
        sorted.order().stream().map(ruled.modOf()::get).toList(),
        moves,
        List.of(),
        leftOut(bench, ruled, s),
        keptNumbers,
        difference);
  }

  private static List<GaveWay> leftOut(Bench bench, Ruled ruled, Suggestion s) {
    List<GaveWay> out = new ArrayList<>();
    for (LeftOut l : s.leftOut()) {
      String name = bench.nameOf(ruled.modOf().get(l.layer()));
      String what =
          l.rule()
              .map(
                  r ->
                      name
                          + (r.kind() == Kind.ABOVE ? " above " : " below ")
                          + bench.nameOf(ruled.modOf().get(r.other()))
                          + ": "
                          + r.reason())
              .orElse("The band of " + name);
      out.add(new GaveWay(what, reasons(bench, ruled, l.ring())));
    }
    return out;
  }

  private static List<LayerReason> reasons(Bench bench, Ruled ruled, List<Constraint<Long>> chain) {
    List<LayerReason> out = new ArrayList<>();
    for (Constraint<Long> c : chain) {
      long lower = ruled.modOf().get(c.earlier()), upper = ruled.modOf().get(c.later());
      out.add(
          new LayerReason(
              lower, bench.nameOf(lower), upper, bench.nameOf(upper), c.reason(), c.from()));
    }
    return out;
  }

  /** Takes the suggestion, all of it or some of its moves. */
  @PostMapping("/suggestion")
  ResponseEntity<DifferenceView> takeSuggestion(
      @PathVariable long workspace,
      @RequestBody TakeRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers
        .arrange(
            workspace,
            Expected.of(dryRun, ifMatch),
            Origin.PROPOSAL,
            body.mods() == null || body.mods().isEmpty()
                ? "Took the suggested order"
                : "Took " + body.mods().get().size() + " moves of the suggested order",
            b -> taken(b, body))
        .asAnswer();
  }

  private List<Long> taken(Bench bench, TakeRequest body) {
    Ruled ruled = rules.of(bench);
    if (!(suggest(bench, ruled).outcome() instanceof Outcome.Sorted<Long> sorted)) {
      throw IroningException.of(
          "no-way-out",
          "The suggestion",
          "Your own rules contradict one another.",
          "Take one of them back; the suggestion shows which.");
    }
    if (body.mods() == null || body.mods().isEmpty()) return sorted.order();
    Set<Long> chosen = new HashSet<>();
    for (long mod : body.mods().get()) chosen.add(strand(bench, mod));
    return FewestMoves.some(ruled.order(), sorted, chosen);
  }
}
