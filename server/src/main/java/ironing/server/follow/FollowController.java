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
import ironing.server.follow.FollowMapper.ListRow;
import ironing.server.follow.FollowMapper.NewList;
import ironing.server.layers.DifferenceView;
import ironing.server.layers.Layers;
import ironing.server.platform.Events;
import ironing.server.platform.Json;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workbench.Bench;
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
import java.util.TreeSet;
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
  private final FollowMapper db;
  private final Layers layers;
  private final Workbenches benches;
  private final Events events;
  private final Json json;

  FollowController(FollowMapper db, Layers layers, Workbenches benches, Events events, Json json) {
    this.db = db;
    this.layers = layers;
    this.benches = benches;
    this.events = events;
    this.json = json;
  }

  /**
   * @param away how many entries are missing here, of another version, to be switched or moved
   */
  record ListSummary(long id, String title, String at, int entries, int away) {}

  /**
   * @param number from 1, the lowest first
   * @param version that the list asks for; empty where it does not say
   * @param mod what stands for it here; absent when it is missing
   * @param hereVersion of that
   * @param otherVersion whether the list asks for another version than that
   * @param inLibrary another version of the mod that is here and is the one asked for
   * @param position its number among the layers now
   * @param to its number when all moves are made; absent where it does not move
   * @param switchTo absent where it is on or off as the list says
   * @param heldFast whether it is kept here against the list
   */
  record EntryView(
      int number,
      String id,
      String name,
      String version,
      String section,
      String note,
      boolean ticked,
      @MayBeAbsent Long mod,
      @MayBeAbsent String hereVersion,
      boolean otherVersion,
      @MayBeAbsent Long inLibrary,
      @MayBeAbsent Integer position,
      @MayBeAbsent Integer to,
      @MayBeAbsent Boolean switchTo,
      boolean heldFast) {
    boolean away() {
      return mod == null || otherVersion || to != null || switchTo != null;
    }
  }

  /** A layer of which the list does not speak. */
  record ExtraView(long mod, String name, int position, boolean on) {}

  /**
   * @param remarks what was not plain about the file
   * @param gone whether it is no longer followed
   */
  record FollowView(
      long revision,
      long id,
      String title,
      String at,
      List<String> remarks,
      boolean gone,
      List<EntryView> entries,
      List<ExtraView> extra) {}

  /**
   * What is taken of a list; both absent: all of it.
   *
   * @param moves mods that are moved
   * @param switches mods that are switched
   */
  record FollowRequest(
      @MayBeAbsent Optional<List<Long>> moves, @MayBeAbsent Optional<List<Long>> switches) {}

  record TickRequest(int number, boolean ticked) {}

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
    PublishedList list = ListReader.read(name, file);
    if (list.kind() != Kind.MODS) {
      throw IroningException.of(
          "bad-list", name, "It is an order of plugins.", "Bring it in under Load order.");
    }
    NewList row = new NewList();
    benches.note(
        workspace,
        "lists",
        "Brought in the list “" + list.title() + "”",
        () -> db.add(workspace, list.title(), json.write(list), row));
    return view(benches.get(workspace), row(workspace, row.id()));
  }

  /** The lists that are followed, the newest first. */
  @GetMapping
  List<ListSummary> lists(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    List<ListSummary> out = new ArrayList<>();
    for (ListRow row : db.all(workspace)) {
      if (row.isDeleted()) continue;
      FollowView view = view(bench, row);
      int away = (int) view.entries().stream().filter(EntryView::away).count();
      out.add(new ListSummary(row.id(), row.title(), row.at(), view.entries().size(), away));
    }
    return out;
  }

  @GetMapping("/{list}")
  ResponseEntity<FollowView> list(@PathVariable long workspace, @PathVariable long list) {
    Bench bench = benches.get(workspace);
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(view(bench, row(workspace, list)));
  }

  /** Follows a list no longer; it can be brought back. */
  @DeleteMapping("/{list}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void unfollow(@PathVariable long workspace, @PathVariable long list) {
    setDeleted(workspace, list, true, "No longer follows the list “");
  }

  @PostMapping("/{list}/back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void followAgain(@PathVariable long workspace, @PathVariable long list) {
    setDeleted(workspace, list, false, "Follows the list again: “");
  }

  private void setDeleted(long workspace, long list, boolean deleted, String said) {
    ListRow row = row(workspace, list);
    if (row.isDeleted() == deleted) return;
    benches.note(workspace, "lists", said + row.title() + "”", () -> db.delete(list, deleted));
  }

  /** Ticks the note of an entry off, or takes the tick back. */
  @PutMapping("/{list}/ticks")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void tick(@PathVariable long workspace, @PathVariable long list, @RequestBody TickRequest body) {
    ListRow row = row(workspace, list);
    int entries = published(row).entries().size();
    if (body.number() < 1 || body.number() > entries) {
      throw IroningException.of(
          "not-found",
          "Entry " + body.number(),
          "The list has entries from 1 to " + entries + ".",
          "Take the number from the list.");
    }
    Set<Integer> ticked = ticked(row);
    if (body.ticked()) ticked.add(body.number());
    else ticked.remove(body.number());
    db.tick(list, json.write(ticked));
    events.tell(workspace, "lists", Map.of());
  }

  /** Brings the layers to the list: all moves and switches, or some. */
  @PostMapping("/{list}/take")
  ResponseEntity<DifferenceView> takeList(
      @PathVariable long workspace,
      @PathVariable long list,
      @RequestBody FollowRequest body,
      @RequestParam(defaultValue = "false") boolean dryRun,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    ListRow row = row(workspace, list);
    PublishedList published = published(row);
    return layers
        .arrangeAndSwitch(
            workspace,
            Revision.expected(dryRun, ifMatch),
            Workbenches.Origin.IMPORT,
            said(row, body),
            b -> order(b, published, body),
            b -> switches(b, published, body),
            dryRun)
        .asAnswer();
  }

  private static boolean all(FollowRequest body) {
    return some(body.moves()).isEmpty() && some(body.switches()).isEmpty();
  }

  // a part that a request leaves out arrives as null
  private static Optional<List<Long>> some(Optional<List<Long>> part) {
    return part == null ? Optional.empty() : part;
  }

  private static String said(ListRow row, FollowRequest body) {
    String title = "“" + row.title() + "”";
    if (all(body)) return "Brought the layers to the list " + title;
    int steps =
        some(body.moves()).orElse(List.of()).size()
            + some(body.switches()).orElse(List.of()).size();
    return "Took " + (steps == 1 ? "1 step" : steps + " steps") + " of the list " + title;
  }

  private List<Long> order(Bench bench, PublishedList list, FollowRequest body) {
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
      Bench.Mod m = bench.mods().get(l.mod());
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

  private FollowView view(Bench bench, ListRow row) {
    PublishedList list = published(row);
    Set<Integer> ticked = ticked(row);
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
        row.isDeleted(),
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
        .map(Bench.Mod::id)
        .max(Long::compare)
        .orElse(null);
  }

  private PublishedList published(ListRow row) {
    return json.read(row.content(), PublishedList.class);
  }

  private Set<Integer> ticked(ListRow row) {
    return new TreeSet<>(List.of(json.read(row.ticked(), Integer[].class)));
  }

  private ListRow row(long workspace, long list) {
    benches.get(workspace);
    return db.all(workspace).stream()
        .filter(r -> r.id() == list)
        .findFirst()
        .orElseThrow(
            () ->
                IroningException.of(
                    "not-found",
                    "List " + list,
                    "There is no such list in this workspace.",
                    "Choose one of those that are followed."));
  }
}
