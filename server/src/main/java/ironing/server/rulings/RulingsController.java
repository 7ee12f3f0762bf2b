package ironing.server.rulings;

import ironing.core.layers.Placements;
import ironing.core.order.Ordering.Move;
import ironing.core.order.Ordering.Outcome;
import ironing.core.picture.Arrangement.Ruling;
import ironing.server.layerrules.LayerRules;
import ironing.server.layers.DifferenceView;
import ironing.server.layers.Layers;
import ironing.server.rulings.RulingOrder.Found;
import ironing.server.rulings.RulingsViews.Contradiction;
import ironing.server.rulings.RulingsViews.RulingOrderView;
import ironing.server.rulings.RulingsViews.RulingsRequest;
import ironing.server.rulings.RulingsViews.RulingsView;
import ironing.server.rulings.RulingsViews.WishedMove;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import ironing.server.workspace.OpenWorkspaces.Origin;
import java.util.ArrayList;
import java.util.List;
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
  private final Layers layers;
  private final LayerRules rules;
  private final OpenWorkspaces workspaces;

  RulingsController(Layers layers, LayerRules rules, OpenWorkspaces workspaces) {
    this.layers = layers;
    this.rules = rules;
    this.workspaces = workspaces;
  }

  /** What was said of single paths and folders, whatever the layers say. */
  @GetMapping
  RulingsView rulings(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    return new RulingsView(open.revision(), RulingsViews.views(open));
  }

  /** Makes rulings; one of the same path, folder or pattern is replaced. */
  @PutMapping
  ResponseEntity<DifferenceView> rule(
      @PathVariable long workspace,
      @RequestBody RulingsRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    RulingsViews.refuseEmpty(open, body.rulings());
    List<Ruling> made =
        body.rulings().stream().map(r -> new Ruling(r.at().strip(), r.mod())).toList();
    UnaryOperator<List<Ruling>> change =
        all -> {
          List<Ruling> next = new ArrayList<>(all);
          next.removeIf(r -> made.stream().anyMatch(m -> RulingsViews.same(open, m.at(), r.at())));
          next.addAll(made);
          return next;
        };
    String said =
        made.size() == 1
            ? "Ruled " + made.get(0).at() + " to come from “" + open.nameOf(made.get(0).mod()) + "”"
            : "Made " + made.size() + " rulings";
    return layers.rulings(workspace, Expected.of(dryRun, ifMatch), said, change).asAnswer();
  }

  /** Takes rulings back: the order decides there again. */
  @DeleteMapping
  ResponseEntity<DifferenceView> takeBack(
      @PathVariable long workspace,
      @RequestParam List<String> at,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    OpenWorkspace open = workspaces.get(workspace);
    UnaryOperator<List<Ruling>> change =
        all ->
            all.stream()
                .filter(r -> at.stream().noneMatch(a -> RulingsViews.same(open, a, r.at())))
                .toList();
    String said =
        at.size() == 1
            ? "Took the ruling for " + at.get(0) + " back"
            : "Took " + at.size() + " rulings back";
    return layers.rulings(workspace, Expected.of(dryRun, ifMatch), said, change).asAnswer();
  }

  /** Which order would satisfy the rulings by itself, and which of them contradict one another. */
  @GetMapping("/order")
  RulingOrderView order(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    LayerRules.Ruled ruled = rules.of(open);
    Found found = RulingOrder.of(open, ruled);
    List<WishedMove> moves = new ArrayList<>();
    if (found.suggestion().outcome() instanceof Outcome.Sorted<Long> sorted) {
      for (Move<Long> m : sorted.moves()) {
        long mod = ruled.modOf().get(m.item());
        moves.add(
            new WishedMove(
                mod,
                open.nameOf(mod),
                m.from() + 1,
                m.to() + 1,
                RulingsViews.steps(open, ruled, m.because())));
      }
    }
    List<Contradiction> contradictions = new ArrayList<>();
    for (Placements.LeftOut l : found.suggestion().leftOut()) {
      for (String at : l.rule().map(found.supportedBy()::get).orElse(Set.of()))
        contradictions.add(
            new Contradiction(
                at,
                open.nameOf(ruled.modOf().get(l.layer())),
                RulingsViews.steps(open, ruled, l.ring())));
    }
    return new RulingOrderView(
        open.revision(),
        moves,
        found.needless(),
        contradictions,
        found.packed(),
        layers.arrange(
            workspace, Expected.DRY, Origin.PROPOSAL, "", b -> found.order(ruled.order())));
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
