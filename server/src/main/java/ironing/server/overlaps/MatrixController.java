package ironing.server.overlaps;

import ironing.core.layers.ClusteredOrder;
import ironing.server.overlaps.ContestedPaths.Count;
import ironing.server.overlaps.ContestedPaths.Filter;
import ironing.server.overlaps.ContestedPaths.Kind;
import ironing.server.overlaps.ContestedPaths.Pair;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Which mods collide with which, as a picture. */
@RestController
@RequestMapping("/api/workspaces/{workspace}/overlaps/matrix")
class MatrixController {
  private static final int MOST_MODS = 400;
  private final OpenWorkspaces workspaces;

  MatrixController(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /** A mod in the matrix. */
  record MatrixMod(long mod, String name, int position, int paths) {}

  /**
   * Two mods that bring the same paths.
   *
   * @param over the mod in play there; {@code under} one that it covers
   */
  record MatrixCell(long over, long under, int paths, int differs) {}

  /**
   * Who collides with whom.
   *
   * @param mods those that collide most, the highest first or those together that collide
   * @param more mods that collide and are not among them
   */
  record MatrixView(long revision, List<MatrixMod> mods, int more, List<MatrixCell> cells) {}

  /**
   * Who collides with whom, as a matrix of the mods that collide most.
   *
   * @param most how many mods it has at most, up to 400
   * @param grouped whether those that collide with one another stand together, instead of the
   *     highest first
   */
  @GetMapping
  ResponseEntity<MatrixView> matrix(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") Set<Kind> kind,
      @RequestParam(defaultValue = "30") @Min(0) @Max(Rows.MOST) int most,
      @RequestParam(defaultValue = "false") boolean grouped) {
    OpenWorkspace open = workspaces.get(workspace);
    ContestedPaths contested = new ContestedPaths(open.picture());
    Map<Pair, Count> pairs = contested.pairs(contested.matching(new Filter("", kind, Set.of())));
    Map<Long, Integer> paths = new HashMap<>();
    pairs.forEach(
        (pair, c) -> {
          paths.merge(pair.over(), c.paths(), Integer::sum);
          paths.merge(pair.under(), c.paths(), Integer::sum);
        });
    Map<Long, Integer> position = new HashMap<>(Map.of(0L, 0));
    open.picture().arrangement().layers().forEach(l -> position.put(l.mod(), position.size()));
    List<Long> shown =
        paths.keySet().stream()
            .sorted(Comparator.comparing((Long m) -> -paths.get(m)).thenComparing(m -> m))
            .limit(Math.max(2, Math.min(most, MOST_MODS)))
            .sorted(Comparator.comparing((Long m) -> -position.getOrDefault(m, 0)))
            .toList();
    Set<Long> among = new HashSet<>(shown);
    List<MatrixCell> cells = new ArrayList<>();
    pairs.forEach(
        (pair, c) -> {
          if (among.contains(pair.over()) && among.contains(pair.under()))
            cells.add(new MatrixCell(pair.over(), pair.under(), c.paths(), c.differs()));
        });
    List<MatrixMod> mods =
        (grouped ? together(shown, cells) : shown)
            .stream()
                .map(
                    m ->
                        new MatrixMod(m, open.nameOf(m), position.getOrDefault(m, 0), paths.get(m)))
                .toList();
    return ResponseEntity.ok()
        .eTag(Revision.etag(open.revision()))
        .body(new MatrixView(open.revision(), mods, paths.size() - mods.size(), cells));
  }

  private static List<Long> together(List<Long> mods, List<MatrixCell> cells) {
    Map<Long, Integer> index = new HashMap<>();
    mods.forEach(m -> index.put(m, index.size()));
    double[][] common = new double[mods.size()][mods.size()];
    for (MatrixCell c : cells) {
      int over = index.get(c.over()), under = index.get(c.under());
      common[over][under] += c.paths();
      common[under][over] += c.paths();
    }
    return ClusteredOrder.of(common).stream().map(mods::get).toList();
  }
}
