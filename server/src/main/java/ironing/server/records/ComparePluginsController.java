package ironing.server.records;

import static ironing.core.workspace.Stages.RECORDS;

import ironing.core.IroningException;
import ironing.core.plugin.RecordTable;
import ironing.core.records.RecordIndex;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Rows;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Two or more plugins compared as wholes. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/records/compare")
class ComparePluginsController {
  private static final int MOST_AT_ONCE = 1_000;
  private final OpenWorkspaces workspaces;

  ComparePluginsController(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /**
   * A record that some of them have.
   *
   * @param in the plugins that have it
   * @param same whether all that have it say the same
   * @param fields the names of those in which they differ
   */
  record ComparedRecord(
      String key, String label, String title, List<String> in, boolean same, List<String> fields) {}

  /**
   * @param only how many records a plugin alone has, by its name
   * @param same how many several have alike
   * @param different how many several have differently
   * @param records a stretch of those that were asked for
   */
  record PluginComparison(
      long revision,
      Map<String, Integer> only,
      int same,
      int different,
      int total,
      @MayBeAbsent Integer next,
      List<ComparedRecord> records) {}

  /** Which records are listed. */
  enum ComparedKind {
    DIFFERENT,
    SAME,
    ONLY
  }

  /**
   * Compares plugins that are on, record by record.
   *
   * @param plugin two or more file names
   */
  @GetMapping
  PluginComparison compare(
      @PathVariable long workspace,
      @RequestParam List<String> plugin,
      @RequestParam(defaultValue = "DIFFERENT") ComparedKind show,
      @RequestParam(defaultValue = "0") @Min(0) @Max(Rows.MOST) int offset,
      @RequestParam(defaultValue = "300") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    RecordIndex index = open.get(RECORDS).index();
    List<Integer> positions =
        plugin.stream().map(p -> RecordsViews.requirePlugin(index, p)).distinct().toList();
    if (positions.size() < 2)
      throw IroningException.of(
          "too-few", "The comparison", "It takes two plugins or more.", "Name another one.");
    Map<Integer, Map<Integer, Integer>> rows = new TreeMap<>();
    for (int p : positions)
      for (int row = 0; row < index.table(p).size(); row++) {
        int record = index.recordAt(p, row);
        if (record >= 0) rows.computeIfAbsent(record, r -> new TreeMap<>()).put(p, row);
      }
    Map<String, Integer> only = new TreeMap<>();
    positions.forEach(p -> only.put(index.name(p), 0));
    int same = 0, different = 0;
    List<Integer> listed = new ArrayList<>();
    for (Map.Entry<Integer, Map<Integer, Integer>> e : rows.entrySet()) {
      ComparedKind kind = kind(index, e.getValue());
      if (kind == ComparedKind.ONLY)
        only.merge(index.name(e.getValue().keySet().iterator().next()), 1, Integer::sum);
      else if (kind == ComparedKind.SAME) same++;
      else different++;
      if (kind == show) listed.add(e.getKey());
    }
    int from = Math.max(0, Math.min(offset, listed.size()));
    int to = Math.min(listed.size(), from + Math.max(0, Math.min(limit, MOST_AT_ONCE)));
    return new PluginComparison(
        open.revision(),
        only,
        same,
        different,
        listed.size(),
        to < listed.size() ? to : null,
        listed.subList(from, to).stream().map(r -> view(open, index, r, rows.get(r))).toList());
  }

  private static ComparedKind kind(RecordIndex index, Map<Integer, Integer> versions) {
    if (versions.size() == 1) return ComparedKind.ONLY;
    long prints =
        versions.entrySet().stream()
            .map(v -> index.table(v.getKey()).print(v.getValue()))
            .distinct()
            .count();
    return prints == 1 ? ComparedKind.SAME : ComparedKind.DIFFERENT;
  }

  private static ComparedRecord view(
      OpenWorkspace open, RecordIndex index, int record, Map<Integer, Integer> versions) {
    return new ComparedRecord(
        index.key(record).toString(),
        index.label(record),
        RecordsViews.titleOf(open, index.type(record)),
        versions.keySet().stream().map(index::name).toList(),
        kind(index, versions) != ComparedKind.DIFFERENT,
        List.copyOf(differing(index, versions)));
  }

  private static Set<String> differing(RecordIndex index, Map<Integer, Integer> versions) {
    Map<String, List<Long>> prints = new HashMap<>();
    versions.forEach(
        (p, row) -> {
          RecordTable t = index.table(p);
          for (int f = t.fieldFrom(row); f < t.fieldFrom(row + 1); f++)
            prints.computeIfAbsent(t.fieldName(f), n -> new ArrayList<>()).add(t.fieldPrint(f));
        });
    TreeSet<String> fields = new TreeSet<>();
    prints.forEach(
        (name, of) -> {
          if (of.size() < versions.size() || of.stream().distinct().count() > 1) fields.add(name);
        });
    return fields;
  }
}
