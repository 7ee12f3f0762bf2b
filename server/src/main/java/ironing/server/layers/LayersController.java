package ironing.server.layers;

import ironing.core.IroningException;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.layers.Standing.Way;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.workspace.Mod;
import ironing.server.journey.Journeys;
import ironing.server.journey.Journeys.ModJourney;
import ironing.server.layers.LayersMapper.ModNoteRow;
import ironing.server.overlaps.PathViews;
import ironing.server.overlaps.PathViews.PathView;
import ironing.server.platform.Json;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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
  private final Workbenches benches;
  private final Journeys journeys;
  private final Contributions contributions;
  private final LayersMapper db;
  private final Json json;

  LayersController(
      Layers layers,
      Workbenches benches,
      Journeys journeys,
      Contributions contributions,
      LayersMapper db,
      Json json) {
    this.layers = layers;
    this.contributions = contributions;
    this.benches = benches;
    this.journeys = journeys;
    this.db = db;
    this.json = json;
  }

  /**
   * How the files of a mod stand, packed ones among them.
   *
   * @param inPlay in play, and nobody else has them
   * @param covering in play, and covering another
   * @param contributing covered by a combined file that it went into
   * @param twin covered, with the same content as the one in play
   */
  record Bar(int inPlay, int covering, int covered, int contributing, int twin) {
    static final Bar NONE = new Bar(0, 0, 0, 0, 0);

    Bar with(int contributing) {
      return new Bar(inPlay, covering, covered - contributing, contributing, twin);
    }
  }

  /**
   * @param position 1 is the lowest
   * @param cardId the id on its card; several versions of a mod share it
   * @param kind archive, or what kind of mend it is
   * @param section 0 for none
   * @param kept whether a suggestion must leave it where it is
   * @param contested files of it that others bring too
   * @param heldBack paths that the user keeps out of the game
   * @param broughtAt when this version came into the library
   * @param files loose ones
   */
  record LayerView(
      long mod,
      int position,
      boolean on,
      long section,
      boolean kept,
      int contested,
      int heldBack,
      List<String> tags,
      String broughtAt,
      String name,
      String version,
      String cardId,
      String kind,
      int files,
      long sizeBytes,
      List<String> plugins,
      Bar bar,
      ModJourney journey) {}

  /** Layer 0: the unmodded game. */
  record GameLayer(String title, String version, int files, long sizeBytes, Bar bar) {}

  /** A named stretch of neighbouring layers. */
  record SectionView(long id, String name) {}

  /**
   * @param layers from the lowest
   */
  record LayersView(
      long revision, GameLayer game, List<LayerView> layers, List<SectionView> sections) {}

  record Related(long mod, String name, int position, int paths) {}

  /**
   * Whom a mod covers and who covers it.
   *
   * @param reach files of it that are in play
   * @param covers most paths first
   */
  record RelationsView(
      long mod, Bar bar, int reach, List<Related> covers, List<Related> coveredBy) {}

  /**
   * @param total of all such paths; {@code paths} holds the first of them
   */
  record ModPaths(int total, List<PathView> paths) {}

  record MoveRequest(List<Long> mods, int to) {
    MoveRequest {
      Objects.requireNonNull(mods, "mods");
    }
  }

  record SwitchRequest(List<Long> mods, boolean on) {
    SwitchRequest {
      Objects.requireNonNull(mods, "mods");
    }
  }

  record KeepRequest(List<Long> mods, boolean kept) {
    KeepRequest {
      Objects.requireNonNull(mods, "mods");
    }
  }

  record LayerWish(long mod, boolean on) {}

  /**
   * @param layers all of them, from the lowest
   */
  record OrderRequest(List<LayerWish> layers) {
    OrderRequest {
      Objects.requireNonNull(layers, "layers");
    }
  }

  /** The install order, the lowest layer first. */
  @GetMapping
  ResponseEntity<LayersView> layers(@PathVariable long workspace) {
    // the notes first: after a start the bench may still be on its way
    Map<Long, ModNoteRow> notes = new HashMap<>();
    for (ModNoteRow n : db.notes(workspace)) notes.put(n.modId(), n);
    Bench bench = benches.get(workspace);
    Map<Long, Bar> bars = bars(bench);
    Journeys.Ways ways = journeys.of(bench);
    List<LayerView> views = new ArrayList<>();
    for (Arrangement.Layer l : bench.picture().arrangement().layers()) {
      Mod m = bench.mods().get(l.mod());
      Bar bar = bars.getOrDefault(l.mod(), Bar.NONE);
      views.add(
          new LayerView(
              m.id(),
              views.size() + 1,
              l.on(),
              l.section(),
              l.kept(),
              bar.covering() + bar.covered() + bar.contributing() + bar.twin(),
              bench.picture().arrangement().heldBack().getOrDefault(m.id(), Set.of()).size(),
              notes.containsKey(m.id()) ? tags(notes.get(m.id())) : List.of(),
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
        .eTag(Revision.etag(bench.revision()))
        .body(
            new LayersView(
                bench.revision(),
                game(bench, bars),
                views,
                bench.picture().arrangement().sections().stream()
                    .map(s -> new SectionView(s.id(), s.name()))
                    .toList()));
  }

  private List<String> tags(ModNoteRow note) {
    return List.of(json.read(note.tags(), String[].class));
  }

  private static GameLayer game(Bench bench, Map<Long, Bar> bars) {
    Bar bar = bars.getOrDefault(Holdings.GAME, Bar.NONE);
    String version = bench.gameVersion().orElse("");
    return new GameLayer(
        bench.game().title(), version, bench.own().files(), bench.own().sizeBytes(), bar);
  }

  private Map<Long, Bar> bars(Bench bench) {
    Standing standing = bench.picture().standing();
    Map<Long, Bar> bars = new HashMap<>();
    for (Holdings.Source s : bench.picture().holdings().sources()) {
      Bar bar =
          new Bar(
              standing.count(s.id(), Way.IN_PLAY),
              standing.count(s.id(), Way.COVERING),
              standing.count(s.id(), Way.COVERED),
              0,
              standing.count(s.id(), Way.TWIN));
      bars.merge(
          s.mod(),
          bar,
          (a, b) ->
              new Bar(
                  a.inPlay() + b.inPlay(),
                  a.covering() + b.covering(),
                  a.covered() + b.covered(),
                  0,
                  a.twin() + b.twin()));
    }
    contributions
        .contributed(bench)
        .forEach((mod, files) -> bars.computeIfPresent(mod, (m, bar) -> bar.with(files)));
    return bars;
  }

  /** Whom a layer covers, and by whom it is covered. */
  @GetMapping("/{mod}/relations")
  RelationsView relations(@PathVariable long workspace, @PathVariable long mod) {
    Bench bench = benches.get(workspace);
    requireMod(bench, mod);
    Standing.Relations r = bench.picture().standing().relationsOf(mod);
    Bar bar = bars(bench).getOrDefault(mod, Bar.NONE);
    return new RelationsView(
        mod,
        bar,
        bar.inPlay() + bar.covering(),
        related(bench, r.covers()),
        related(bench, r.coveredBy()));
  }

  private static List<Related> related(Bench bench, Map<Long, Integer> paths) {
    Map<Long, Integer> positions = new HashMap<>();
    for (Arrangement.Layer l : bench.picture().arrangement().layers())
      positions.put(l.mod(), positions.size() + 1);
    return paths.entrySet().stream()
        .map(
            e ->
                new Related(
                    e.getKey(),
                    bench.nameOf(e.getKey()),
                    positions.getOrDefault(e.getKey(), 0),
                    e.getValue()))
        .sorted((a, b) -> b.paths() - a.paths())
        .toList();
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
    Bench bench = benches.get(workspace);
    requireMod(bench, mod);
    Standing standing = bench.picture().standing();
    Holdings holdings = bench.picture().holdings();
    int[] paths =
        Arrays.stream(standing.pathsOfMod(mod))
            .filter(p -> !contested || standing.isContested(p))
            .filter(
                p ->
                    with.isEmpty()
                        || standing.holders(p).stream()
                            .anyMatch(s -> holdings.holderAt(s).mod() == with.get()))
            .toArray();
    PathViews views = new PathViews(bench);
    List<PathView> first =
        Arrays.stream(paths)
            .boxed()
            .sorted((a, b) -> holdings.path(a).compareTo(holdings.path(b)))
            .limit(limit)
            .map(views::of)
            .toList();
    return new ModPaths(paths.length, first);
  }

  private static void requireMod(Bench bench, long mod) {
    if (mod == Holdings.GAME || bench.mods().containsKey(mod)) return;
    throw IroningException.of(
        "not-found",
        "Mod " + mod,
        "There is no such mod in this library.",
        "Choose one from the list.");
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
    Bench bench = benches.get(workspace);
    return bench.picture().holdings().modsHolding(PathCase.fold(file.strip()));
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
