package ironing.server.records;

import static ironing.core.workspace.Stages.FINDINGS;
import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.game.RecordType;
import ironing.core.game.RecordType.Field;
import ironing.core.plugin.PluginText;
import ironing.core.plugin.Value;
import ironing.core.plugin.Value.Ref;
import ironing.core.records.RecordFindings.Finding;
import ironing.core.records.RecordFindings.Kind;
import ironing.core.records.RecordIndex;
import ironing.core.records.Version;
import ironing.core.workspace.RecordHealth;
import ironing.server.platform.Rows;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Single records that something is wrong with, whoever else changes them. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/records/findings")
class FindingsController {
  private final OpenWorkspaces workspaces;

  FindingsController(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /**
   * @param plugin whose version of the record it is
   * @param places of the record that it is about, with what stands there
   * @param remedy what can be done
   */
  record FindingView(
      Kind kind,
      String key,
      String label,
      String title,
      String plugin,
      long mod,
      String modName,
      List<String> places,
      String remedy) {}

  /**
   * @param counts how many there are of each kind
   * @param findings the first of those of the kind that was asked for, or of all
   */
  record FindingsView(long revision, Map<Kind, Integer> counts, List<FindingView> findings) {}

  /**
   * What is wrong with single records.
   *
   * @param kind only these; all when absent
   */
  @GetMapping
  FindingsView findings(
      @PathVariable long workspace,
      @RequestParam(required = false) Kind kind,
      @RequestParam(defaultValue = "200") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    Map<Kind, Integer> counts = new EnumMap<>(Kind.class);
    for (Kind k : Kind.values()) counts.put(k, 0);
    List<Finding> all = open.get(FINDINGS);
    all.forEach(f -> counts.merge(f.kind(), 1, Integer::sum));
    List<FindingView> views =
        all.stream()
            .filter(f -> kind == null || f.kind() == kind)
            .limit(Math.max(0, Math.min(limit, 1_000)))
            .map(f -> view(open, f))
            .toList();
    return new FindingsView(open.revision(), counts, views);
  }

  private FindingView view(OpenWorkspace open, Finding f) {
    RecordIndex index = open.get(RECORDS).index();
    String plugin = index.name(f.position());
    long mod = open.picture().loadOrder().find(plugin).map(e -> e.plugin().mod()).orElse(0L);
    return new FindingView(
        f.kind(),
        index.key(f.record()).toString(),
        index.label(f.record()),
        RecordsViews.titleOf(open, index.type(f.record())),
        plugin,
        mod,
        open.nameOf(mod),
        f.kind() == Kind.ADDS_NOTHING ? List.of() : places(open, index, f),
        remedy(index, f));
  }

  private static String remedy(RecordIndex index, Finding f) {
    return switch (f.kind()) {
      case LEADS_NOWHERE ->
          "Pick another record on the board, or switch on the plugin that has it.";
      case PATH_NOT_IN_PLAY -> "Bring in the mod that has the file, or write another path.";
      case OUT_OF_RANGE -> "Write another number on the board.";
      case ADDS_NOTHING ->
          index.usedPosition(f.record()) == f.position() && index.versionCount(f.record()) > 2
              ? "It hides what others changed: a patch takes their changes."
              : "It can be dropped: without it the game reads the same.";
    };
  }

  private static List<String> places(OpenWorkspace open, RecordIndex index, Finding f) {
    Version v =
        IntStream.range(0, index.versionCount(f.record()))
            .filter(i -> index.positionOf(f.record(), i) == f.position())
            .mapToObj(i -> index.version(f.record(), i))
            .findFirst()
            .orElseThrow();
    RecordType type =
        open.game().records().getOrDefault(v.type(), RecordType.undescribed(v.type()));
    List<String> places = new ArrayList<>();
    v.fields()
        .ifPresent(
            fields ->
                fields
                    .map()
                    .forEach(
                        (name, value) ->
                            look(open, index, f.kind(), name, value, type.field(name), places)));
    return places;
  }

  private static void look(
      OpenWorkspace open,
      RecordIndex index,
      Kind kind,
      String place,
      Value v,
      Field field,
      List<String> into) {
    if (v instanceof Ref r && kind == Kind.LEADS_NOWHERE && index.find(r) < 0)
      into.add(place + ": " + r);
    boolean path = field.kind() == RecordType.Kind.PATH && v instanceof Value.Text;
    if (path
        && kind == Kind.PATH_NOT_IN_PLAY
        && !RecordHealth.inPlay(open.value(), ((Value.Text) v).value()))
      into.add(place + ": " + ((Value.Text) v).value());
    if (kind == Kind.OUT_OF_RANGE && field.kind() == RecordType.Kind.NUMBER && !admits(field, v))
      into.add(place + ": " + PluginText.node(v));
    if (v instanceof Value.Array a) {
      Field item =
          field.kind() == RecordType.Kind.ROWS ? field.row() : field.of().orElse(Field.WHOLE);
      a.items().forEach(i -> look(open, index, kind, place, i, item, into));
    } else if (v instanceof Value.Fields fields) {
      fields
          .map()
          .forEach(
              (name, i) ->
                  look(
                      open,
                      index,
                      kind,
                      place + ", " + name,
                      i,
                      field.fields().getOrDefault(name, Field.WHOLE),
                      into));
    }
  }

  private static boolean admits(Field field, Value v) {
    if (v instanceof Value.Int i) return field.admits((double) i.value());
    return !(v instanceof Value.Real r) || field.admits(r.value());
  }
}
