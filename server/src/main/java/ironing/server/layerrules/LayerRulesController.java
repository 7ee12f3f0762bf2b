package ironing.server.layerrules;

import ironing.core.IroningException;
import ironing.core.layers.PlacementRule;
import ironing.core.layers.PlacementRule.Kind;
import ironing.core.layers.PlacementRule.Strength;
import ironing.core.layers.Placements;
import ironing.core.layers.Placements.Suggestion;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.picture.Arrangement.Layer;
import ironing.server.layerrules.LayerRules.Ruled;
import ironing.server.layerrules.LayerRulesViews.LayerMove;
import ironing.server.layerrules.LayerRulesViews.RuleRequest;
import ironing.server.layerrules.LayerRulesViews.RuleView;
import ironing.server.layerrules.LayerRulesViews.RulesView;
import ironing.server.layerrules.LayerRulesViews.SuggestionView;
import ironing.server.layerrules.LayerRulesViews.TakeRequest;
import ironing.server.layers.DifferenceView;
import ironing.server.layers.Layers;
import ironing.server.platform.Revision;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.OpenWorkspaces.Origin;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
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
class LayerRulesController {
  private final Layers layers;
  private final LayerRules rules;
  private final OpenWorkspaces workspaces;

  LayerRulesController(Layers layers, LayerRules rules, OpenWorkspaces workspaces) {
    this.layers = layers;
    this.rules = rules;
    this.workspaces = workspaces;
  }

  /** The rules of placement, with what they come to. */
  @GetMapping("/rules")
  RulesView rules(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Ruled ruled = rules.of(open);
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
              open.nameOf(mod),
              r.kind().hasOther() ? other : null,
              r.kind().hasOther() ? open.nameOf(other) : null,
              r.reason(),
              r.from(),
              r.strength() == Strength.USER,
              broken.contains(r)));
    }
    return new RulesView(open.revision(), views);
  }

  /** Adds a rule of placement. */
  @PostMapping("/rules")
  ResponseEntity<DifferenceView> addRule(
      @PathVariable long workspace,
      @RequestBody RuleRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    PlacementRule rule = LayerRulesViews.asked(open, body);
    return layers
        .rules(
            workspace,
            Expected.of(ifMatch),
            "Made a rule: " + LayerRulesViews.words(open, body),
            all -> {
              List<PlacementRule> next = new ArrayList<>(all);
              next.removeIf(r -> LayerRulesViews.same(r, rule));
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
    OpenWorkspace open = workspaces.get(workspace);
    RuleRequest body = new RuleRequest(kind, mod, other, Optional.empty());
    PlacementRule rule = LayerRulesViews.asked(open, body);
    return layers
        .rules(
            workspace,
            Expected.of(ifMatch),
            "Took a rule back: " + LayerRulesViews.words(open, body),
            all -> all.stream().filter(r -> !LayerRulesViews.same(r, rule)).toList())
        .asAnswer();
  }

  /** Moves the fewest layers that make a broken rule hold and break none that holds. */
  @PostMapping("/rules/mend")
  ResponseEntity<DifferenceView> mend(
      @PathVariable long workspace,
      @RequestBody RuleRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    PlacementRule rule = LayerRulesViews.asked(open, body);
    return layers
        .arrange(
            workspace,
            Expected.of(dryRun, ifMatch),
            Origin.PROPOSAL,
            "Mended the rule: " + LayerRulesViews.words(open, body),
            b -> mended(b, rule))
        .asAnswer();
  }

  private List<Long> mended(OpenWorkspace open, PlacementRule asked) {
    Ruled ruled = rules.of(open);
    return ruled.rules().stream()
        .filter(r -> LayerRulesViews.same(r, asked))
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

  /** An order of the layers that keeps the rules with the fewest moves. */
  @GetMapping("/suggestion")
  ResponseEntity<SuggestionView> suggestion(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Ruled ruled = rules.of(open);
    Suggestion s = LayerRulesViews.suggest(open, ruled);
    SuggestionView view =
        s.outcome() instanceof Outcome.Sorted<Long> sorted
            ? view(workspace, open, ruled, s, sorted)
            : new SuggestionView(
                open.revision(),
                List.of(),
                List.of(),
                LayerRulesViews.reasons(open, ruled, ((Outcome.Ring<Long>) s.outcome()).ring()),
                LayerRulesViews.leftOut(open, ruled, s),
                List.of(),
                null);
    return ResponseEntity.ok().eTag(Revision.etag(open.revision())).body(view);
  }

  private SuggestionView view(
      long workspace, OpenWorkspace open, Ruled ruled, Suggestion s, Outcome.Sorted<Long> sorted) {
    List<LayerMove> moves = new ArrayList<>();
    for (Move<Long> m : sorted.moves()) {
      long mod = ruled.modOf().get(m.item());
      moves.add(
          new LayerMove(
              mod,
              open.nameOf(mod),
              m.from() + 1,
              m.to() + 1,
              LayerRulesViews.reasons(open, ruled, m.because())));
    }
    List<LayerMove> keptNumbers = new ArrayList<>();
    List<Layer> now = open.picture().arrangement().layers();
    for (int i = 0; i < now.size(); i++) {
      long mod = now.get(i).mod();
      int to = sorted.order().indexOf(open.mods().get(mod).strand());
      if (now.get(i).kept() && to != i)
        keptNumbers.add(new LayerMove(mod, open.nameOf(mod), i + 1, to + 1, List.of()));
    }
    DifferenceView difference =
        layers.arrange(workspace, Expected.DRY, Origin.PROPOSAL, "", b -> sorted.order());
    return new SuggestionView(
        open.revision(),
        sorted.order().stream().map(ruled.modOf()::get).toList(),
        moves,
        List.of(),
        LayerRulesViews.leftOut(open, ruled, s),
        keptNumbers,
        difference);
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
                ? "Took the proposed order"
                : "Took " + body.mods().get().size() + " moves of the proposed order",
            b -> taken(b, body))
        .asAnswer();
  }

  private List<Long> taken(OpenWorkspace open, TakeRequest body) {
    Ruled ruled = rules.of(open);
    if (!(LayerRulesViews.suggest(open, ruled).outcome() instanceof Outcome.Sorted<Long> sorted)) {
      throw IroningException.of(
          "no-way-out",
          "The proposal",
          "Your own rules contradict one another.",
          "Take one of them back; the proposal shows which.");
    }
    if (body.mods() == null || body.mods().isEmpty()) return sorted.order();
    Set<Long> chosen = new HashSet<>();
    for (long mod : body.mods().get()) chosen.add(open.required(mod).strand());
    return FewestMoves.some(ruled.order(), sorted, chosen);
  }
}
