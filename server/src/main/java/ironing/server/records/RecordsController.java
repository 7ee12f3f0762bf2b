package ironing.server.records;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.path.PathCase;
import ironing.core.records.Collision.State;
import ironing.core.records.RecordIndex;
import ironing.core.workspace.RecordQuery;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.records.RecordsViews.RecordLine;
import ironing.server.records.RecordsViews.RecordName;
import ironing.server.records.RecordsViews.RecordPage;
import ironing.server.records.RecordsViews.RecordPairs;
import ironing.server.records.RecordsViews.RecordsView;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.OptionalInt;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** All records of the plugins that are on: how many there are, which collide, and a search. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/records")
class RecordsController {
  private static final int MOST_AT_ONCE = 2_000;
  private final OpenWorkspaces workspaces;

  RecordsController(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /** How many records there are, and how they stand. */
  @GetMapping
  ResponseEntity<RecordsView> records(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    RecordsView view = RecordsViews.of(open);
    return ResponseEntity.ok().eTag(Revision.etag(open.revision())).body(view);
  }

  /**
   * Records, in load order of their owners and then by id; what waits for the user first, where
   * states are asked for.
   *
   * @param find part of a name, of a key or of a type's title, or a field and what it says, such as
   *     {@code speed > 10}
   * @param state any of which a record must be in; none for all
   * @param plugin all of which must have a version of it
   * @param losesOf a plugin of whose changes what the game reads lacks something
   * @param refersTo the key of a record that it must refer to
   * @param decided whether only those on which you have decided
   */
  @GetMapping("/list")
  ResponseEntity<RecordPage> list(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(defaultValue = "") Set<State> state,
      @RequestParam(defaultValue = "") String type,
      @RequestParam(defaultValue = "") List<String> plugin,
      @RequestParam(defaultValue = "") String losesOf,
      @RequestParam(defaultValue = "") String refersTo,
      @RequestParam(defaultValue = "false") boolean decided,
      @RequestParam(defaultValue = "0") @Min(0) @Max(Rows.MOST) int offset,
      @RequestParam(defaultValue = "300") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    RecordIndex index = open.get(RECORDS).index();
    RecordQuery query =
        new RecordQuery(
            find,
            // a blank in the list comes as a null
            state.stream().filter(Objects::nonNull).collect(Collectors.toSet()),
            type,
            plugin.stream()
                .filter(p -> !p.isEmpty())
                .map(p -> RecordsViews.requirePlugin(index, p))
                .toList(),
            losesOf.isEmpty()
                ? OptionalInt.empty()
                : OptionalInt.of(RecordsViews.requirePlugin(index, losesOf)),
            refersTo.isEmpty()
                ? OptionalInt.empty()
                : OptionalInt.of(RecordsViews.require(index, refersTo)),
            decided);
    int[] matching = query.matching(open.value());
    int from = Math.max(0, Math.min(offset, matching.length));
    int to = Math.min(matching.length, from + Math.max(0, Math.min(limit, MOST_AT_ONCE)));
    List<RecordLine> lines = RecordsViews.lines(open, Arrays.stream(matching, from, to));
    Integer next = to < matching.length ? to : null;
    RecordPage page = new RecordPage(open.revision(), matching.length, next, lines);
    return ResponseEntity.ok().eTag(Revision.etag(open.revision())).body(page);
  }

  /** Which plugins collide with which, those over most records first. */
  @GetMapping("/pairs")
  RecordPairs pairs(@PathVariable long workspace) {
    return RecordsViews.pairs(workspaces.get(workspace));
  }

  /** Records of a type by a part of their name: for a reference that is picked by name. */
  @GetMapping("/names")
  List<RecordName> names(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(defaultValue = "") String type,
      @RequestParam(defaultValue = "20") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    RecordIndex index = open.get(RECORDS).index();
    String part = PathCase.fold(find.strip());
    return IntStream.range(0, index.size())
        .filter(r -> type.isEmpty() || index.type(r).equals(type))
        .filter(
            r ->
                PathCase.fold(index.label(r)).contains(part)
                    || PathCase.fold(index.key(r).toString()).contains(part))
        .limit(Math.max(0, Math.min(limit, 100)))
        .mapToObj(
            r ->
                new RecordName(
                    index.key(r).toString(),
                    index.label(r),
                    RecordsViews.titleOf(open, index.type(r))))
        .toList();
  }
}
