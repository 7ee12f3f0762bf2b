package ironing.server.overlaps;

import ironing.core.layers.Standing;
import ironing.core.path.PathCase;
import ironing.core.picture.PictureHash;
import ironing.server.overlaps.ContestedPaths.Filter;
import ironing.server.overlaps.ContestedPaths.FolderCount;
import ironing.server.overlaps.ContestedPaths.Kind;
import ironing.server.overlaps.PathViews.PathView;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.platform.Rows;
import ironing.server.workspace.OpenWorkspace;
import ironing.server.workspace.OpenWorkspaces;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
  private final OpenWorkspaces workspaces;

  OverlapsController(OpenWorkspaces workspaces) {
    this.workspaces = workspaces;
  }

  /**
   * A stretch of a list of paths, in the order of their names.
   *
   * @param total how many there are in all
   * @param next the offset of the stretch after this one, absent at the end
   */
  record PathPage(long revision, int total, @MayBeAbsent Integer next, List<PathView> paths) {}

  /**
   * One folder of the contested paths.
   *
   * @param folders directly in it
   * @param paths directly in it, the first of them
   * @param files how many paths lie directly in it
   * @param total of all contested paths that pass the filter
   * @param kinds how many of all contested paths are of each kind
   */
  record ContestedFolder(
      long revision,
      List<FolderCount> folders,
      List<PathView> paths,
      int files,
      int total,
      Map<Kind, Integer> kinds) {}

  /**
   * Paths that more than one layer brings.
   *
   * @param find part of a path, compared without case
   * @param kind all of which a path must be
   * @param mod all of which must bring it; 0 is the game
   */
  @GetMapping("/overlaps")
  ResponseEntity<PathPage> overlaps(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(defaultValue = "") Set<Kind> kind,
      @RequestParam(defaultValue = "") Set<Long> mod,
      @RequestParam(defaultValue = "0") @Min(0) @Max(Rows.MOST) int offset,
      @RequestParam(defaultValue = "500") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    return page(
        open, new ContestedPaths(open.picture()).matching(filter(find, kind, mod)), offset, limit);
  }

  private static Filter filter(String find, Set<Kind> kinds, Set<Long> mods) {
    return new Filter(PathCase.fold(find.strip()), kinds, mods);
  }

  /** One folder of the contested paths, with counts. */
  @GetMapping("/overlaps/folder")
  ResponseEntity<ContestedFolder> folder(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "") String folder,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(defaultValue = "") Set<Kind> kind,
      @RequestParam(defaultValue = "") Set<Long> mod,
      @RequestParam(defaultValue = "500") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    ContestedPaths contested = new ContestedPaths(open.picture());
    int[] all = contested.matching(filter(find, kind, mod));
    int[] direct = Arrays.stream(all).filter(p -> contested.isDirectlyIn(p, folder)).toArray();
    PathViews views = new PathViews(open);
    return ResponseEntity.ok()
        .eTag(Revision.etag(open.revision()))
        .body(
            new ContestedFolder(
                open.revision(),
                contested.foldersIn(all, folder),
                contested.byName(direct).stream()
                    .limit(Math.max(0, Math.min(limit, MOST_AT_ONCE)))
                    .map(views::of)
                    .toList(),
                direct.length,
                all.length,
                folder.isEmpty() ? kinds(open, contested) : Map.of()));
  }

  private static Map<Kind, Integer> kinds(OpenWorkspace open, ContestedPaths contested) {
    Map<Kind, Integer> counts = new EnumMap<>(Kind.class);
    int[] all = open.picture().standing().contested();
    for (Kind k : Kind.values())
      counts.put(k, (int) Arrays.stream(all).filter(p -> contested.is(k, p)).count());
    return counts;
  }

  /** The picture: every path that the game will see, with who is in play and who else holds it. */
  @GetMapping("/picture")
  ResponseEntity<PathPage> picture(
      @PathVariable long workspace,
      @RequestParam(defaultValue = "0") @Min(0) @Max(Rows.MOST) int offset,
      @RequestParam(defaultValue = "5000") @Min(0) @Max(Rows.MOST) int limit) {
    OpenWorkspace open = workspaces.get(workspace);
    Standing standing = open.picture().standing();
    int[] paths =
        IntStream.range(0, open.picture().holdings().pathCount())
            .filter(p -> standing.inPlay(p) >= 0)
            .toArray();
    return page(open, paths, offset, limit);
  }

  /**
   * One word for the whole picture.
   *
   * @param files how many paths the game will see
   * @param sha256 of a text with a line “HASH PATH” for each of them, in the order of their bytes
   */
  record PictureHashView(long revision, int files, String sha256) {}

  /** A hash of the whole picture: the same where the game would see the same. */
  @GetMapping("/picture/hash")
  ResponseEntity<PictureHashView> pictureHash(@PathVariable long workspace) {
    OpenWorkspace open = workspaces.get(workspace);
    Standing standing = open.picture().standing();
    int files =
        (int)
            IntStream.range(0, open.picture().holdings().pathCount())
                .filter(p -> standing.inPlay(p) >= 0)
                .count();
    return ResponseEntity.ok()
        .eTag(Revision.etag(open.revision()))
        .body(new PictureHashView(open.revision(), files, PictureHash.of(open.picture())));
  }

  private static ResponseEntity<PathPage> page(
      OpenWorkspace open, int[] paths, int offset, int limit) {
    int from = Math.max(0, Math.min(offset, paths.length));
    int to = Math.min(paths.length, from + Math.max(0, Math.min(limit, MOST_AT_ONCE)));
    PathViews views = new PathViews(open);
    List<PathView> stretch =
        new ContestedPaths(open.picture())
            .byName(paths).subList(from, to).stream().map(views::of).toList();
    return ResponseEntity.ok()
        .eTag(Revision.etag(open.revision()))
        .body(new PathPage(open.revision(), paths.length, to < paths.length ? to : null, stretch));
  }
}
