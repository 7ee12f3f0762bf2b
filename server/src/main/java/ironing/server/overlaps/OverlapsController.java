package ironing.server.overlaps;

import ironing.core.layers.Standing;
import ironing.core.path.PathCase;
import ironing.server.overlaps.PathViews.PathView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Workbenches;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/workspaces/{workspace}")
class OverlapsController {
  private static final int MOST_AT_ONCE = 5_000;
  private final Workbenches benches;

  OverlapsController(Workbenches benches) {
    this.benches = benches;
  }

  /**
   * A stretch of a list of paths, in the order of their names.
   *
   * @param total how many there are in all
   * @param next the offset of the stretch after this one, absent at the end
   */
  record PathPage(long revision, int total, @MayBeAbsent Integer next, List<PathView> paths) {}

  /**
   * Paths that more than one layer brings.
   *
   * @param find part of a path, compared without case
   * @param differs only those whose contents are not all the same
   */
  @GetMapping("/overlaps")
  ResponseEntity<PathPage> overlaps(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(defaultValue = "false") boolean differs,
      @RequestParam(defaultValue = "0") int offset,
      @RequestParam(defaultValue = "500") int limit) {
    Bench bench = benches.get(workspace);
    Standing standing = bench.picture().standing();
    String part = PathCase.fold(find.strip());
    int[] paths =
        Arrays.stream(standing.contested())
            .filter(p -> part.isEmpty() || PathCase.fold(path(bench, p)).contains(part))
            .filter(p -> !differs || standing.differs(p))
            .toArray();
    return page(bench, paths, offset, limit);
  }

  /** The picture: every path that the game will see, with who is in play and who else holds it. */
  @GetMapping("/picture")
  ResponseEntity<PathPage> picture(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "0") int offset,
      @RequestParam(defaultValue = "5000") int limit) {
    Bench bench = benches.get(workspace);
    Standing standing = bench.picture().standing();
    int[] paths =
        IntStream.range(0, bench.picture().holdings().pathCount())
            .filter(p -> standing.inPlay(p) >= 0)
            .toArray();
    return page(bench, paths, offset, limit);
  }

  private static String path(Bench bench, int path) {
    return bench.picture().holdings().path(path);
  }

  private static ResponseEntity<PathPage> page(Bench bench, int[] paths, int offset, int limit) {
    int from = Math.max(0, Math.min(offset, paths.length));
    int to = Math.min(paths.length, from + Math.max(0, Math.min(limit, MOST_AT_ONCE)));
    PathViews views = new PathViews(bench);
    List<PathView> stretch =
        Arrays.stream(paths)
            .boxed()
            .sorted((a, b) -> path(bench, a).compareTo(path(bench, b)))
            .skip(from)
            .limit(to - from)
            .map(views::of)
            .toList();
    return ResponseEntity.ok()
        .eTag(Revision.etag(bench.revision()))
        .body(new PathPage(bench.revision(), paths.length, to < paths.length ? to : null, stretch));
  }
}
