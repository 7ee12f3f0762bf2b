package ironing.server.layers;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.workspace.Mod;
import ironing.server.layers.LayersViews.Bar;
import ironing.server.layers.LayersViews.KeepRequest;
import ironing.server.layers.LayersViews.LayerView;
import ironing.server.layers.LayersViews.LayersView;
import ironing.server.layers.LayersViews.ModPaths;
import ironing.server.layers.LayersViews.MoveRequest;
import ironing.server.layers.LayersViews.OrderRequest;
import ironing.server.layers.LayersViews.RelationsView;
import ironing.server.layers.LayersViews.SectionView;
import ironing.server.layers.LayersViews.SwitchRequest;
import ironing.server.overlaps.PathViews;
import ironing.server.overlaps.PathViews.PathView;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.progress.KnownProgress;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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

@RestController
@RequestMapping("/api/workspaces/{workspace}/layers")
class LayersController {
  private final Layers layers;
  private final OpenWorkspaces workspaces;
  private final KnownProgress journeys;
  private final Contributions contributions;
  private final ModNotes notes;

  LayersController(
      Layers layers,
      OpenWorkspaces workspaces,
      KnownProgress journeys,
      Contributions contributions,
      ModNotes notes) {
    this.layers = layers;
    this.contributions = contributions;
    this.workspaces = workspaces;
    this.journeys = journeys;
    this.notes = notes;
  }

  /** The install order, the lowest layer first. */
  @GetMapping
  ResponseEntity<LayersView> layers(@PathVariable long workspace) {
    // the notes first: after a start the open workspace may still be on its way
    Map<Long, ModNotes.Note> told = notes.of(workspace);
    OpenWorkspace open = workspaces.get(workspace);
    Map<Long, Bar> bars = LayersViews.bars(open, contributions.contributed(open));
    KnownProgress.Ways ways = journeys.of(open);
    List<LayerView> views = new ArrayList<>();
    for (Arrangement.Layer l : open.picture().arrangement().layers()) {
      Mod m = open.mods().get(l.mod());
      Bar bar = bars.getOrDefault(l.mod(), Bar.NONE);
      views.add(
          new LayerView(
              m.id(),
              views.size() + 1,
              l.on(),
              l.section(),
              l.kept(),
              bar.covering() + bar.covered() + bar.contributing() + bar.twin(),
              open.picture().arrangement().heldBack().getOrDefault(m.id(), Set.of()).size(),
              told.getOrDefault(m.id(), ModNotes.Note.NONE).tags(),
              m.installedAt().toString(),
              m.card().name(),
              m.card().shownVersion(),
              m.card().id(),
              m.kind(),
              m.files(),
              m.sizeBytes(),
              m.plugins(),
              bar,
              ways.mod(m.id())));
    }
    return ResponseEntity.ok()
        .eTag(Revision.etag(open.revision()))
        .body(
            new LayersView(
                open.revision(),
                LayersViews.game(open, bars),
                views,
                open.picture().arrangement().sections().stream()
                    .map(s -> new SectionView(s.id(), s.name()))
                    .toList()));
  }

  /** Whom a layer covers, and by whom it is covered. */
  @GetMapping("/{mod}/relations")
  RelationsView relations(@PathVariable long workspace, @PathVariable long mod) {
    OpenWorkspace open = workspaces.get(workspace);
    LayersViews.requireMod(open, mod);
    Standing.Relations r = open.picture().standing().relationsOf(mod);
    Bar bar = LayersViews.bars(open, contributions.contributed(open)).getOrDefault(mod, Bar.NONE);
    return new RelationsView(
        mod,
        bar,
        bar.inPlay() + bar.covering(),
        LayersViews.related(open, r.covers()),
        LayersViews.related(open, r.coveredBy()));
  }

  /**
   * Paths of a mod with all who hold them.
   *
   * @param with only those that this other mod holds too; 0 is the game
   * @param contested only those that others hold too
   */
  @GetMapping("/{mod}/paths")
  ModPaths paths(
      @PathVariable long workspace,
      @PathVariable long mod,
      @RequestParam Optional<Long> with,
      @RequestParam(defaultValue = "true") boolean contested,
      @RequestParam(defaultValue = "200") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    LayersViews.requireMod(open, mod);
    Standing standing = open.picture().standing();
    Holdings holdings = open.picture().holdings();
    int[] paths =
        Arrays.stream(standing.pathsOfMod(mod))
            .filter(p -> !contested || standing.isContested(p))
            .filter(
                p ->
                    with.isEmpty()
                        || standing.holders(p).stream()
                            .anyMatch(s -> holdings.holderAt(s).mod() == with.get()))
            .toArray();
    PathViews views = new PathViews(open);
    List<PathView> first =
        Arrays.stream(paths)
            .boxed()
            .sorted((a, b) -> holdings.path(a).compareTo(holdings.path(b)))
            .limit(limit)
            .map(views::of)
            .toList();
    return new ModPaths(paths.length, first);
  }

  /** Moves layers; {@code to} is the number that the lowest of them is to have. */
  @PostMapping("/move")
  ResponseEntity<DifferenceView> moveLayers(
      @PathVariable long workspace,
      @RequestBody MoveRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers.move(workspace, Expected.of(dryRun, ifMatch), body.mods(), body.to()).asAnswer();
  }

  /** Switches layers on or off. */
  @PostMapping("/switch")
  ResponseEntity<DifferenceView> switchLayers(
      @PathVariable long workspace,
      @RequestBody SwitchRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers
        .switchTo(workspace, Expected.of(dryRun, ifMatch), body.mods(), body.on())
        .asAnswer();
  }

  /** Marks layers as kept here, or no longer. */
  @PostMapping("/keep")
  ResponseEntity<DifferenceView> keepLayers(
      @PathVariable long workspace,
      @RequestBody KeepRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    return layers.keep(workspace, Expected.of(ifMatch), body.mods(), body.kept()).asAnswer();
  }

  /** The mods that bring a file with this in its path. */
  @GetMapping("/holding")
  List<Long> holding(@PathVariable long workspace, @RequestParam String file) {
    OpenWorkspace open = workspaces.get(workspace);
    return open.picture().holdings().modsHolding(PathCase.fold(file.strip()));
  }

  /** Puts all layers in another order at once. */
  @PutMapping
  ResponseEntity<DifferenceView> setLayers(
      @PathVariable long workspace,
      @RequestBody OrderRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    List<Arrangement.Layer> order =
        body.layers().stream().map(l -> new Arrangement.Layer(l.mod(), l.on())).toList();
    return layers.set(workspace, Expected.of(dryRun, ifMatch), order).asAnswer();
  }
}
