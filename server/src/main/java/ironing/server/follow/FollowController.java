package ironing.server.follow;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import ironing.core.IroningException;
import ironing.core.lists.Following;
import ironing.core.lists.Following.Followed;
import ironing.core.lists.Following.Here;
import ironing.core.lists.ListReader;
import ironing.core.lists.PublishedList;
import ironing.core.lists.PublishedList.Entry;
import ironing.core.lists.PublishedList.Kind;
import ironing.core.order.FewestMoves;
import ironing.core.order.Ordering.Move;
import ironing.core.picture.Arrangement.Layer;
import ironing.core.workspace.Mod;
import ironing.server.follow.FollowView.EntryView;
import ironing.server.follow.FollowView.ExtraView;
import ironing.server.follow.FollowView.ListSummary;
import ironing.server.layers.DifferenceView;
import ironing.server.layers.Layers;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Expected;
import ironing.server.workbench.Workbenches;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
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
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Install orders that the user follows: brought in, compared, taken step by step or at once. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/lists")
class FollowController {
  private final FollowedLists lists;
  private final Layers layers;
  private final Workbenches benches;

  FollowController(FollowedLists lists, Layers layers, Workbenches benches) {
    this.lists = lists;
    this.layers = layers;
    this.benches = benches;
  }

  /**
   * What is taken of a list; both absent: all of it.
   *
   * @param moves mods that are moved
   * @param switches mods that are switched
   */
  record FollowRequest(
      @MayBeAbsent Optional<List<Long>> moves, @MayBeAbsent Optional<List<Long>> switches) {}

  /** Brings a list in; nothing is changed by it. */
  @PostMapping(consumes = "application/octet-stream")
  @ResponseStatus(HttpStatus.CREATED)
  @Operation(
      requestBody =
          @io.swagger.v3.oas.annotations.parameters.RequestBody(
              required = true,
              content =
                  @Content(
                      mediaType = "application/octet-stream",
                      schema = @Schema(type = "string", format = "binary"))))
  FollowView follow(
      @PathVariable long workspace,
      @RequestParam String name,
      @Parameter(hidden = true) HttpServletRequest request)
      throws IOException {
    byte[] file = request.getInputStream().readNBytes(ListReader.LARGEST + 1);
    return view(benches.get(workspace), lists.add(workspace, name, file, Kind.MODS));
  }

  /** The lists that are followed, the newest first. */
  @GetMapping
  List<ListSummary> lists(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    return lists.all(workspace, Kind.MODS).stream().map(l -> view(bench, l).summary()).toList();
  }

  /** One published list, compared with what is here. */
  @GetMapping("/{list}")
  ResponseEntity<FollowView> list(@PathVariable long workspace, @PathVariable long list) {
    Bench bench = benches.get(workspace);
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(view(bench, lists.get(workspace, list, Kind.MODS)));
  }

  /** Follows a list no longer; it can be brought back. */
  @DeleteMapping("/{list}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void unfollow(@PathVariable long workspace, @PathVariable long list) {
    lists.setGone(workspace, lists.get(workspace, list, Kind.MODS), true);
  }

  /** Goes back to following a list after leaving it in part. */
  @PostMapping("/{list}/back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void followAgain(@PathVariable long workspace, @PathVariable long list) {
    lists.setGone(workspace, lists.get(workspace, list, Kind.MODS), false);
  }

  /** Ticks the note of an entry off, or takes the tick back. */
  @PutMapping("/{list}/ticks")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void tick(
      @PathVariable long workspace,
      @PathVariable long list,
      @RequestBody FollowView.TickRequest body) {
    lists.tick(workspace, lists.get(workspace, list, Kind.MODS), body.number(), body.ticked());
  }

  /** Brings the layers to the list: all moves and switches, or some. */
  @PostMapping("/{list}/take")
  ResponseEntity<DifferenceView> takeList(
      @PathVariable long workspace,
      @PathVariable long list,
      @RequestBody FollowRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    FollowedLists.Followed followed = lists.get(workspace, list, Kind.MODS);
    PublishedList published = followed.list();
    return layers
        .arrangeAndSwitch(
            workspace,
            Expected.of(dryRun, ifMatch),
            Workbenches.Origin.IMPORT,
            said(published, body),
            b -> order(b, published, body),
            b -> switches(b, published, body))
        .asAnswer();
  }

  private static boolean all(FollowRequest body) {
    return some(body.moves()).isEmpty() && some(body.switches()).isEmpty();
  }

  // a part that a request leaves out arrives as null
  private static Optional<List<Long>> some(Optional<List<Long>> part) {
    return part == null ? Optional.empty() : part;
  }

  private static String said(PublishedList list, FollowRequest body) {
    String title = "“" + list.title() + "”";
    if (all(body)) return "Brought the layers to the list " + title;
    int steps =
        some(body.moves()).orElse(List.of()).size()
            + some(body.switches()).orElse(List.of()).size();
    return "Took " + (steps == 1 ? "1 step" : steps + " steps") + " of the list " + title;
  }

  private static List<Long> order(Bench bench, PublishedList list, FollowRequest body) {
    Followed followed = compare(bench, list);
    if (all(body)) return followed.whole().order();
    Set<Long> chosen = new HashSet<>();
    for (long mod : some(body.moves()).orElse(List.of())) chosen.add(strand(bench, mod));
    return FewestMoves.some(here(bench).stream().map(Here::key).toList(), followed.whole(), chosen);
  }

  private static Map<Long, Boolean> switches(Bench bench, PublishedList list, FollowRequest body) {
    Set<Long> chosen = new HashSet<>(some(body.switches()).orElse(List.of()));
    Map<Long, Boolean> out = new LinkedHashMap<>();
    Followed followed = compare(bench, list);
    Map<Long, Long> modOf = modOf(bench);
    for (int i = 0; i < list.entries().size(); i++) {
      Optional<Here> here = followed.places().get(i);
      Optional<Boolean> on = list.entries().get(i).on();
      if (here.isEmpty() || on.isEmpty() || here.get().on() == on.get()) continue;
      long mod = modOf.get(here.get().key());
      if (all(body) || chosen.contains(mod)) out.put(mod, on.get());
    }
    return out;
  }

  private static long strand(Bench bench, long mod) {
    if (bench.mods().containsKey(mod)) return bench.mods().get(mod).strand();
    throw IroningException.of(
        "not-found",
        "Mod " + mod,
        "There is no such mod in this library.",
        "Take the numbers from the list.");
  }

  private static Followed compare(Bench bench, PublishedList list) {
    return Following.compare(list.title(), list.entries(), here(bench));
  }

  private static List<Here> here(Bench bench) {
    List<Here> here = new ArrayList<>();
    for (Layer l : bench.picture().arrangement().layers()) {
      Mod m = bench.mods().get(l.mod());
      here.add(
          new Here(
              m.strand(), m.card().id(), m.card().name(), m.card().version(), l.on(), l.kept()));
    }
    return here;
  }

  private static Map<Long, Long> modOf(Bench bench) {
    Map<Long, Long> modOf = new HashMap<>();
    for (Layer l : bench.picture().arrangement().layers())
      modOf.put(bench.mods().get(l.mod()).strand(), l.mod());
    return modOf;
  }

  private static FollowView view(Bench bench, FollowedLists.Followed row) {
    PublishedList list = row.list();
    Set<Integer> ticked = row.ticked();
    Followed followed = compare(bench, list);
    Map<Long, Move<Long>> moves = followed.moves();
    Map<Long, Long> modOf = modOf(bench);
    Map<Long, Integer> positions = new HashMap<>();
    for (Layer l : bench.picture().arrangement().layers())
      positions.put(l.mod(), positions.size() + 1);
    List<EntryView> entries = new ArrayList<>();
    for (Entry e : list.entries()) {
      int number = entries.size() + 1;
      Optional<Here> here = followed.places().get(number - 1);
      Long mod = here.map(h -> modOf.get(h.key())).orElse(null);
      Move<Long> move = here.map(h -> moves.get(h.key())).orElse(null);
      boolean other = here.filter(h -> Following.otherVersion(e, h)).isPresent();
      entries.add(
          new EntryView(
              number,
              e.id(),
              e.label(),
              e.version(),
              e.section(),
              e.note(),
              ticked.contains(number),
              mod,
              here.map(Here::version).orElse(null),
              other,
              other ? inLibrary(bench, e, here.get()) : null,
              mod == null ? null : positions.get(mod),
              move == null ? null : move.to() + 1,
              here.filter(h -> e.on().isPresent() && e.on().get() != h.on())
                  .map(h -> !h.on())
                  .orElse(null),
              here.filter(h -> followed.heldFast().contains(h.key())).isPresent()));
    }
    List<ExtraView> extra = new ArrayList<>();
    for (Here h : followed.extra()) {
      long mod = modOf.get(h.key());
      extra.add(new ExtraView(mod, h.name(), positions.get(mod), h.on()));
    }
    return new FollowView(
        bench.revision(),
        row.id(),
        row.title(),
        row.at(),
        list.remarks(),
        row.gone(),
        entries,
        extra);
  }

  /** Another version of the same mod that is in the library, and is the one asked for. */
  private static Long inLibrary(Bench bench, Entry e, Here here) {
    return bench.mods().values().stream()
        .filter(m -> m.strand() == here.key())
        .filter(
            m ->
                !Following.otherVersion(
                    e,
                    new Here(
                        m.strand(),
                        m.card().id(),
                        m.card().name(),
                        m.card().version(),
                        true,
                        false)))
        .map(Mod::id)
        .max(Long::compare)
        .orElse(null);
  }
}
