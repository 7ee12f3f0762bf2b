package ironing.server.records;

import static ironing.core.workspace.Stages.COLLISIONS;

import ironing.core.game.RecordType.Field;
import ironing.core.game.RecordType.Kind;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Value;
import ironing.core.records.Collision;
import ironing.core.records.Collisions;
import ironing.core.records.Combination.Cell;
import ironing.core.records.Combination.How;
import ironing.core.records.Combiner;
import ironing.core.records.Decided;
import ironing.core.records.Decision;
import ironing.core.records.Decision.Outcome;
import ironing.core.records.FieldCheck;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordIndex.Odd;
import ironing.core.records.RecordSearch;
import ironing.core.records.Version;
import ironing.server.platform.MayBeAbsent;
import ironing.server.records.RecordsViews.RecordName;
import ironing.server.records.Shown.Words;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/** What {@link BoardController} gives and takes, and how it is made of what the core says. */
final class BoardViews {
  private static final int MOST_REFERRERS = 50;

  private BoardViews() {}

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
   * What may be written into a field.
   *
   * @param to the type of record that a reference leads to, absent for any
   * @param items what kind its items are of, absent where it is no list of such
   * @param itemsTo the type of record that references in it lead to
   */
  record FieldKind(
      Kind kind,
      @MayBeAbsent String unit,
      @MayBeAbsent Double min,
      @MayBeAbsent Double max,
      @MayBeAbsent String to,
      @MayBeAbsent Kind items,
      @MayBeAbsent String itemsTo) {
    static FieldKind of(Field f) {
      return new FieldKind(
          f.kind(),
          f.unit().orElse(null),
          f.min().isPresent() ? f.min().getAsDouble() : null,
          f.max().isPresent() ? f.max().getAsDouble() : null,
          f.to().orElse(null),
          f.of().map(Field::kind).orElse(null),
          f.of().flatMap(Field::to).orElse(null));
    }
  }

  /**
   * One field, or one field of one row.
   *
   * @param place the name by which decisions refer to it
   * @param title for people
   * @param pair a field that is usually changed together with this one
   * @param outcome absent while it is asked
   * @param text the outcome, or else what the game reads, in the text form of plugins; absent where
   *     it is not there
   * @param suggested what the changes of a sequence come to when they are laid into one another
   * @param used what the game reads now
   * @param lost whether what the game reads now lacks this outcome
   * @param why how the outcome came about
   * @param decision the user's, absent when there is none
   */
  record PlaceView(
      String place,
      String title,
      FieldKind kind,
      @MayBeAbsent String pair,
      Words before,
      List<RecordChange> changes,
      How how,
      @MayBeAbsent Words outcome,
      @MayBeAbsent String text,
      @MayBeAbsent Words suggested,
      Words used,
      boolean lost,
      String why,
      @MayBeAbsent DecisionView decision) {}

  /**
   * A field that nobody changed.
   *
   * @param text its value in the text form of plugins
   */
  record RestField(String place, String title, FieldKind kind, Words value, String text) {}

  /**
   * One plugin's version of the record.
   *
   * @param sees the plugin whose version it was made on; absent for the owner
   * @param counts whether no other stands for it
   * @param patch whether it was combined from the others
   */
  record BoardVersion(
      String plugin,
      long mod,
      String modName,
      @MayBeAbsent String sees,
      boolean counts,
      boolean removed,
      boolean patch) {}

  /**
   * A record that leads to this one.
   *
   * @param plugin whose version does so
   * @param used whether the game reads that version
   */
  record ReferrerView(String key, String label, String title, String plugin, boolean used) {}

  /**
   * One record with all that is changed in it.
   *
   * @param base the plugin against whose version all are measured
   * @param odd why nothing combines it, version by version; empty for all but odd records
   * @param patched whether a patch has to hold it
   * @param same the fields that are the same everywhere
   * @param refersTo the records that the version in use leads to
   * @param nowhere how many references lead to no record
   * @param referrers the first of those that lead to it; {@code referredBy} is how many there are
   */
  record Board(
      long revision,
      String key,
      String type,
      String title,
      String label,
      String definedBy,
      String base,
      String usedBy,
      Collision.State state,
      List<String> odd,
      boolean patched,
      boolean removed,
      List<PlaceView> places,
      List<RestField> same,
      List<BoardVersion> versions,
      List<RecordName> refersTo,
      int nowhere,
      List<ReferrerView> referrers,
      int referredBy,
      int decisions) {}

  /**
   * @param decision absent to take the decision back
   */
  record DecisionRequest(String place, @MayBeAbsent DecisionView decision) {
    DecisionRequest {
      Objects.requireNonNull(place, "place");
    }
  }

  static List<BoardVersion> versions(
      OpenWorkspace open, RecordIndex index, int record, Collision c) {
    List<Version> all = index.versions(record);
    Set<String> leaves = new HashSet<>();
    c.combination().leaves().forEach(l -> leaves.add(l.plugin()));
    List<BoardVersion> views = new ArrayList<>();
    for (Version v : all) {
      long mod = modOf(open, v.plugin());
      views.add(
          new BoardVersion(
              v.plugin(),
              mod,
              open.nameOf(mod),
              v.position() == all.get(0).position() || c.state() == Collision.State.ODD
                  ? null
                  : Combiner.seenBy(v, c.versions()).plugin(),
              leaves.contains(v.plugin()),
              v.fields().isEmpty(),
              index.source(v.position()).mend()));
    }
    return views;
  }

  static long modOf(OpenWorkspace open, String plugin) {
    return open.picture().loadOrder().find(plugin).map(e -> e.plugin().mod()).orElse(0L);
  }

  static List<RestField> rest(Shown shown, Collision c) {
    Optional<Value.Fields> fields = c.combination().outcome().or(() -> c.used().fields());
    if (fields.isEmpty()) return List.of();
    Set<String> told = new HashSet<>();
    c.combination().cells().forEach(x -> told.add(x.place()));
    List<RestField> rest = new ArrayList<>();
    fields
        .get()
        .map()
        .forEach(
            (place, value) -> {
              if (told.contains(place)) return;
              Field field = c.type().field(place);
              rest.add(
                  new RestField(
                      place,
                      field.title().orElse(place),
                      FieldKind.of(field),
                      shown.of(Optional.of(value), field),
                      PluginText.node(value).toString()));
            });
    rest.sort(Comparator.comparingInt(r -> inDefinition(c, r.place())));
    return rest;
  }

  static int inDefinition(Collision c, String place) {
    int at = List.copyOf(c.type().fields().keySet()).indexOf(place.replaceFirst("\\[.*", ""));
    return at < 0 ? c.type().fields().size() : at;
  }

  /** What waits for the user first, then as the game's definition has the fields. */
  static List<Cell> inReadingOrder(Collision c) {
    List<Cell> cells = new ArrayList<>(c.combination().cells());
    cells.sort(
        Comparator.comparing((Cell x) -> x.how() != How.ASKED)
            .thenComparingInt(x -> inDefinition(c, x.place())));
    return cells;
  }

  static @MayBeAbsent String textOf(Optional<Value> value) {
    return value.map(v -> PluginText.node(v).toString()).orElse(null);
  }

  static RecordChange change(
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
  static Words wholeWords(Optional<Value> record) {
    return new Words(record.isPresent(), record.isPresent() ? "kept" : "removed", List.of());
  }

  static RecordChange wholeChange(Cell cell, RecordChange c) {
    boolean there = cell.proposals().get(c.plugin()).isPresent();
    Words words = new Words(there, there ? "changed" : "removed", List.of());
    return new RecordChange(
        c.plugin(), c.mod(), c.modName(), words, List.of(), List.of(), List.of());
  }

  static List<String> minus(List<String> a, List<String> b) {
    return a.stream().filter(x -> !b.contains(x)).toList();
  }

  static String why(Cell cell, List<RecordChange> changes, Optional<Decision> decided) {
    switch (cell.how()) {
      case ASKED:
        boolean removal = changes.stream().anyMatch(c -> !c.value().there());
        if (decided.isPresent()) return "you had decided, and it has changed since";
        if (removal) return "one removes it and another changes it";
        return changes.size() + " plugins changed it, in different ways";
      case DECIDED:
        if (decided.filter(d -> d instanceof Decision.Own).isPresent()) return "you wrote it";
        if (decided.equals(Optional.of(Outcome.MERGED)))
          return "you took both, laid into one another";
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

  static Board board(OpenWorkspace open, int record) {
    Collisions all = open.get(COLLISIONS);
    RecordIndex index = all.index();
    Collision c = all.of(record);
    Shown shown = new Shown(index);
    Map<String, Decided> decisions = all.decisionsOn(record);
    List<PlaceView> places = new ArrayList<>();
    for (Cell cell : inReadingOrder(c)) places.add(place(open, shown, c, cell, decisions));
    RecordSearch search = new RecordSearch(open.game(), index);
    int[] refers = search.references(index.usedPosition(record), index.usedRow(record));
    List<RecordSearch.Referrer> referrers = search.referrers(record);
    return new Board(
        open.revision(),
        c.key().toString(),
        c.typeName(),
        c.type().title(),
        c.label(),
        c.versions().get(0).plugin(),
        c.combination().base().plugin(),
        c.used().plugin(),
        c.state(),
        c.state() == Collision.State.ODD
            ? index.odd().stream().filter(o -> o.key().equals(c.key())).map(Odd::reason).toList()
            : List.of(),
        c.wantsPatch(open.game()),
        c.combination().removed(),
        places,
        rest(shown, c),
        versions(open, index, record, c),
        Arrays.stream(refers)
            .filter(r -> r >= 0)
            .mapToObj(
                r ->
                    new RecordName(
                        index.key(r).toString(),
                        index.label(r),
                        RecordsViews.titleOf(open, index.type(r))))
            .toList(),
        (int) Arrays.stream(refers).filter(r -> r < 0).count(),
        referrers.stream()
            .limit(MOST_REFERRERS)
            .map(
                r ->
                    new ReferrerView(
                        index.key(r.record()).toString(),
                        index.label(r.record()),
                        RecordsViews.titleOf(open, index.type(r.record())),
                        index.name(r.position()),
                        r.used()))
            .toList(),
        referrers.size(),
        decisions.size());
  }

  private static PlaceView place(
      OpenWorkspace open, Shown shown, Collision c, Cell cell, Map<String, Decided> decisions) {
    Field field = FieldCheck.fieldAt(c.type(), cell.place());
    Words before = shown.of(cell.before(), field);
    List<RecordChange> changes = new ArrayList<>();
    cell.proposals()
        .forEach(
            (plugin, value) -> {
              long mod = modOf(open, plugin);
              changes.add(
                  change(shown, cell.before(), value, field, plugin, mod, open.nameOf(mod)));
            });
    Optional<Decision> decided =
        Optional.ofNullable(decisions.get(cell.place())).map(Decided::decision);
    boolean whole = cell.place().equals(Combiner.WHOLE_RECORD);
    boolean undecided =
        cell.how() == How.ASKED || cell.how() == How.JOINED && cell.outcome().isEmpty();
    Optional<Value> used = c.usedAt(cell.place());
    return new PlaceView(
        cell.place(),
        whole
            ? "the whole record"
            : field
                .title()
                .filter(t -> cell.place().indexOf('[') < 0)
                .orElse(shown.place(cell.place())),
        FieldKind.of(field),
        field.pair().orElse(null),
        whole ? wholeWords(cell.before()) : before,
        whole ? changes.stream().map(x -> wholeChange(cell, x)).toList() : changes,
        cell.how(),
        undecided ? null : whole ? wholeWords(cell.outcome()) : shown.of(cell.outcome(), field),
        whole ? null : textOf(undecided ? used : cell.outcome()),
        cell.suggested().map(s -> shown.of(Optional.of(s), field)).orElse(null),
        whole ? wholeWords(used) : shown.of(used, field),
        c.lost().contains(cell.place()),
        why(cell, changes, decided),
        decided.map(DecisionView::of).orElse(null));
  }
}
