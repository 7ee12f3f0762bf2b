package ironing.server.layers;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.server.layers.LayersViews.Bar;
import ironing.server.layers.LayersViews.KeepRequest;
import ironing.server.layers.LayersViews.LayersSince;
import ironing.server.layers.LayersViews.LayersView;
import ironing.server.layers.LayersViews.ModPaths;
import ironing.server.layers.LayersViews.MoveRequest;
import ironing.server.layers.LayersViews.OrderRequest;
import ironing.server.layers.LayersViews.RelationsView;
import ironing.server.layers.LayersViews.SwitchRequest;
import ironing.server.overlaps.PathViews;
import ironing.server.overlaps.PathViews.PathView;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.workspace.Expected;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
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
  private final Contributions contributions;
  private final LayerList list;
  private final GivenLayers given;

  LayersController(
      Layers layers,
      OpenWorkspaces workspaces,
      Contributions contributions,
      LayerList list,
      GivenLayers given) {
    this.layers = layers;
    this.contributions = contributions;
    this.workspaces = workspaces;
    this.list = list;
    this.given = given;
  }

  /** The install order, the lowest layer first. */
  @GetMapping
  ResponseEntity<LayersView> layers(@PathVariable long workspace) {
    LayersView view = list.of(workspace);
    return ResponseEntity.ok().eTag(Revision.etag(view.revision())).body(view);
  }

  /**
   * The install order as far as it is not as it was given before.
   *
   * @param tag that came with what was given before; 0 for none
   */
  @GetMapping("/since/{tag}")
  LayersSince since(@PathVariable long workspace, @PathVariable long tag) {
    return given.since(workspace, tag, list.of(workspace));
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
