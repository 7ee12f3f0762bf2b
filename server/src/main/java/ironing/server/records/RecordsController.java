package ironing.server.records;

import ironing.core.IroningException;
import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.Collision;
import ironing.core.records.Combination.Cell;
import ironing.core.records.Combination.How;
import ironing.core.records.Combiner;
import ironing.core.records.RecordVersions.Odd;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.records.Shown.Words;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}/records")
class RecordsController {
  private final RecordIndex index;
  private final Workbenches benches;

  RecordsController(RecordIndex index, Workbenches benches) {
    this.index = index;
    this.benches = benches;
  }

  /**
   * @param key owner and id, such as Skerry.plug/420
   * @param title of its type
   * @param plugins that take sides, in load order
   * @param usedBy the plugin whose version the game uses now
   * @param lost how many fields of that version lack what somebody changed
   * @param asked how many places wait for the user
   */
  record CollisionView(
      String key,
      String title,
      String label,
      List<String> plugins,
      Collision.State state,
      String usedBy,
      int lost,
      int asked) {}

  /** A record that makes no sense, and is never combined. */
  record OddView(String key, String plugin, String reason) {}

  /**
   * @param records in all plugins that are on
   */
  record RecordsView(
      long revision,
      int records,
      int needYou,
      int combine,
      int settled,
      int nothingLost,
      List<CollisionView> collisions,
      List<OddView> odd) {}

  /**
   * What one plugin did to one place.
   *
   * @param added elements of a list that the plugin added to what was there before
   * @param removed elements that it took away
   * @param altered rows that it has with another content
   */
  record RecordChange(
      String plugin,
      long mod,
      String modName,
      Words value,
      List<String> added,
      List<String> removed,
      List<AlteredRow> altered) {}

  /** A row of a list, told apart by its key. */
  record AlteredRow(String name, String before, String after) {}

  /**
   * One field, or one field of one row.
   *
   * @param place the name by which decisions refer to it
   * @param title for people
   * @param pair a field that is usually changed together with this one
   * @param outcome absent while it is asked
   * @param used what the game reads now
   * @param lost whether what the game reads now lacks this outcome
   * @param why how the outcome came about
   * @param choice the user's, absent when there is none: a plugin, or /before
   */
  record PlaceView(
      String place,
      String title,
      @MayBeAbsent String pair,
      Words before,
      List<RecordChange> changes,
      How how,
      @MayBeAbsent Words outcome,
      Words used,
      boolean lost,
      String why,
      @MayBeAbsent String choice) {}

  /**
   * One record with all that is changed in it.
   *
   * @param base the plugin against whose version all are measured
   * @param same how many fields are the same everywhere
   */
  record Board(
      long revision,
      String key,
      String title,
      String label,
      String definedBy,
      String base,
      String usedBy,
      Collision.State state,
      List<PlaceView> places,
      int same) {}

  /**
   * @param choice a plugin that changed the place, or /before; absent to take a decision back
   */
  record DecisionRequest(String place, @MayBeAbsent String choice) {
    DecisionRequest {
      Objects.requireNonNull(place, "place");
    }
  }

  @GetMapping
  ResponseEntity<RecordsView> records(@PathVariable long workspace) {
    Bench bench = benches.get(workspace);
    RecordIndex.Records records = index.of(bench);
    Map<Collision.State, Integer> counts = new EnumMap<>(Collision.State.class);
    List<CollisionView> views = new ArrayList<>();
    for (Collision c : records.collisions().values()) {
      counts.merge(c.state(), 1, Integer::sum);
      views.add(view(c));
    }
    List<OddView> odd =
        records.versions().odd().stream()
            .map((Odd o) -> new OddView(o.key().toString(), o.plugin(), o.reason()))
            .toList();
    RecordsView view =
        new RecordsView(
            bench.revision(),
            records.versions().size(),
            counts.getOrDefault(Collision.State.NEEDS_YOU, 0),
            counts.getOrDefault(Collision.State.COMBINES, 0),
            counts.getOrDefault(Collision.State.SETTLED, 0),
            counts.getOrDefault(Collision.State.NOTHING_LOST, 0),
            views,
            odd);
    return ResponseEntity.ok().eTag(Revision.etag(bench.revision())).body(view);
  }

  private static CollisionView view(Collision c) {
    return new CollisionView(
        c.key().toString(),
        c.type().title(),
        c.label(),
        c.combination().leaves().stream().map(l -> l.plugin().name()).toList(),
        c.state(),
        c.used().plugin().name(),
        c.lost().size(),
        (int) c.combination().asked());
  }

  @GetMapping("/{owner}/{id}")
  ResponseEntity<Board> board(
      @PathVariable long workspace, @PathVariable String owner, @PathVariable int id) {
    Bench bench = benches.get(workspace);
    Board board = board(bench, require(bench, owner, id));
    return ResponseEntity.ok().eTag(Revision.etag(bench.revision())).body(board);
  }

  private Collision require(Bench bench, String owner, int id) {
    Collision c = index.of(bench).collisions().get(new Ref(owner, id).toString());
    if (c == null) {
      String folded = PathCase.fold(owner);
      c =
          index.of(bench).collisions().values().stream()
              .filter(x -> x.key().id() == id && PathCase.fold(x.key().owner()).equals(folded))
              .findFirst()
              .orElse(null);
    }
    if (c != null) return c;
    throw IroningException.of(
        "not-found",
        owner + "/" + id,
        "No plugins collide over such a record.",
        "Choose one from the list of records.");
  }

  private Board board(Bench bench, Collision c) {
    Shown shown = new Shown(bench.game(), index.of(bench).versions());
    Map<String, String> decisions = bench.picture().arrangement().decisionsOn(c.key().toString());
    List<PlaceView> places = new ArrayList<>();
    for (Cell cell : inReadingOrder(c)) places.add(place(bench, shown, c, cell, decisions));
    int fields = c.combination().base().fields().map(f -> f.map().size()).orElse(0);
    int changed =
        (int)
            c.combination().cells().stream()
                .filter(x -> x.place().indexOf('[') < 0 && x.before().isPresent())
                .count();
    return new Board(
        bench.revision(),
        c.key().toString(),
        c.type().title(),
        c.label(),
        c.versions().get(0).plugin().name(),
        c.combination().base().plugin().name(),
        c.used().plugin().name(),
        c.state(),
        places,
        Math.max(0, fields - changed));
  }

  /** What waits for the user first, then as the game's definition has the fields. */
  private static List<Cell> inReadingOrder(Collision c) {
    List<String> described = List.copyOf(c.type().fields().keySet());
    List<Cell> cells = new ArrayList<>(c.combination().cells());
    cells.sort(
        Comparator.comparing((Cell x) -> x.how() != How.ASKED)
            .thenComparing(
                x -> {
                  int at = described.indexOf(x.place().replaceFirst("\\[.*", ""));
                  return at < 0 ? described.size() : at;
                }));
    return cells;
  }

  private PlaceView place(
      Bench bench, Shown shown, Collision c, Cell cell, Map<String, String> decisions) {
    Field field = fieldAt(c.type(), cell.place());
    Words before = shown.of(cell.before(), field);
    List<RecordChange> changes = new ArrayList<>();
    cell.proposals()
        .forEach(
            (plugin, value) -> {
              long mod =
                  bench.picture().loadOrder().find(plugin).map(e -> e.plugin().mod()).orElse(0L);

              changes.add(
                  change(shown, cell.before(), value, field, plugin, mod, bench.nameOf(mod)));
            });
    boolean whole = cell.place().equals(Combiner.WHOLE_RECORD);
    boolean open = cell.how() == How.ASKED || cell.how() == How.JOINED && cell.outcome().isEmpty();
    Optional<Value> used =
        whole
            ? c.used().fields().map(f -> (Value) f)
            : c.used().fields().map(f -> f.map().get(cell.place()));
    return new PlaceView(
        cell.place(),
        whole ? "the whole record" : shown.place(cell.place()),
        field.pair().orElse(null),
        whole ? wholeWords(cell.before()) : before,
        whole ? changes.stream().map(x -> wholeChange(cell, x)).toList() : changes,
        cell.how(),
        open ? null : whole ? wholeWords(cell.outcome()) : shown.of(cell.outcome(), field),
        whole ? wholeWords(used) : shown.of(used, field),
        c.lost().contains(cell.place()),
        why(cell, changes),
        decisions.get(cell.place()));
  }

  private static RecordChange change(
      Shown shown,
      Optional<Value> before,
      Optional<Value> value,
      Field field,
      String plugin,
      long mod,
      String modName) {
    List<String> was = shown.of(before, field).items();
    Words words = shown.of(value, field);
    Map<String, String> rowsBefore = shown.rows(before, field), rows = shown.rows(value, field);
    List<AlteredRow> altered = new ArrayList<>();
    List<String> added = new ArrayList<>(minus(words.items(), was));
    List<String> removed = new ArrayList<>(minus(was, words.items()));
    rows.forEach(
        (name, rest) -> {
          String restBefore = rowsBefore.get(name);
          if (restBefore == null || restBefore.equals(rest)) return;
          altered.add(new AlteredRow(name, restBefore, rest));
          added.remove((name + " " + rest).strip());
          removed.remove((name + " " + restBefore).strip());
        });
    return new RecordChange(plugin, mod, modName, words, added, removed, altered);
  }

  // a whole record is too long for a line: there it is, or it is removed
  private static Words wholeWords(Optional<Value> record) {
    return new Words(record.isPresent(), record.isPresent() ? "kept" : "removed", List.of());
  }

  private static RecordChange wholeChange(Cell cell, RecordChange c) {
    boolean there = cell.proposals().get(c.plugin()).isPresent();
    Words words = new Words(there, there ? "changed" : "removed", List.of());
    return new RecordChange(
        c.plugin(), c.mod(), c.modName(), words, List.of(), List.of(), List.of());
  }

  private static Field fieldAt(RecordType type, String place) {
    if (place.equals(Combiner.WHOLE_RECORD)) return type.asField();
    int open = place.indexOf('[');
    if (open < 0) return type.field(place);
    Field rows = type.field(place.substring(0, open));
    int dot = place.indexOf("].", open);
    return dot < 0 ? rows.row() : rows.fields().getOrDefault(place.substring(dot + 2), Field.WHOLE);
  }

  private static List<String> minus(List<String> a, List<String> b) {
    return a.stream().filter(x -> !b.contains(x)).toList();
  }

  private static String why(Cell cell, List<RecordChange> changes) {
    switch (cell.how()) {
      case ASKED:
        boolean removal = changes.stream().anyMatch(c -> !c.value().there());
        return removal
            ? "one removes it and another changes it"
            : changes.size() + " plugins changed it, in different ways";
      case DECIDED:
        return "you decided";
      case JOINED:
        return cell.outcome().isEmpty()
            ? "row by row; some rows were changed in different ways"
            : "all additions and removals together";
      default:
        return changes.size() == 1
            ? "only " + changes.get(0).modName() + " changed it"
            : "all changed it alike";
    }
  }

  /** Takes a decision for one place of a record, or takes it back. */
  @PutMapping("/{owner}/{id}/decisions")
  ResponseEntity<Board> decide(
      @PathVariable long workspace,
      @PathVariable String owner,
      @PathVariable int id,
      @RequestBody DecisionRequest body,
      @RequestHeader(name = "If-Match", required = false) String ifMatch) {
    Collision now = require(benches.get(workspace), owner, id);
    String key = now.key().toString();
    requireChoice(now, body);
    String said =
        (body.choice() == null ? "Took back a decision on “" : "Decided on “") + now.label() + "”";
    Bench after =
        benches.rearrange(
            workspace,
            Revision.fromIfMatch(ifMatch),
            b -> said,
            b -> {
              Arrangement a = b.picture().arrangement();
              Map<String, String> places = new TreeMap<>(a.decisionsOn(key));
              if (body.choice() == null) places.remove(body.place());
              else places.put(body.place(), body.choice());
              return a.withDecisions(key, places);
            });
    return ResponseEntity.ok()
        .eTag(Revision.etag(after.revision()))
        .body(board(after, require(after, owner, id)));
  }

  private static void requireChoice(Collision c, DecisionRequest body) {
    Optional<Cell> cell =
        c.combination().cells().stream().filter(x -> x.place().equals(body.place())).findFirst();
    if (cell.isEmpty()) {
      throw IroningException.of(
          "not-found",
          body.place(),
          "Nothing is changed at this place of " + c.key() + ".",
          "Take the places from the record’s board.");
    }
    if (body.choice() == null || body.choice().equals(Combiner.AS_BEFORE)) return;
    String wished = PathCase.fold(body.choice());
    if (cell.get().proposals().keySet().stream().anyMatch(p -> PathCase.fold(p).equals(wished))) {
      return;
    }
    throw IroningException.of(
        "choice-unknown",
        body.choice(),
        "It does not change “" + body.place() + "”.",
        "Choose one of: "
            + String.join(", ", cell.get().proposals().keySet())
            + "; or /before for what was there.");
  }
}
