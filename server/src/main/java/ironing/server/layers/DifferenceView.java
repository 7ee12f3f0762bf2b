package ironing.server.layers;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing.Change;
import ironing.core.path.GamePath;
import ironing.core.picture.Difference;
import ironing.server.platform.MayBeAbsent;
import ironing.server.platform.Revision;
import ironing.server.workspace.Changed;
import ironing.server.workspace.OpenWorkspace;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.http.ResponseEntity;

/**
 * What a change of the install order changes in the game.
 *
 * @param revision of the arrangement as it is now: after the change, or before it when it was only
 *     asked what it would do
 * @param files how many paths would have another content, or come or go
 * @param sources from whom they would come, the largest first; what would be gone comes from nobody
 * @param samples the first paths of them
 */
public record DifferenceView(
    long revision,
    int files,
    List<From> sources,
    List<Sample> samples,
    List<String> pluginsCome,
    List<String> pluginsGo,
    boolean loadOrderChanges) {
  private static final int SAMPLES = 200;

  /**
   * Files that would come from one mod, or from nobody.
   *
   * @param mod 0 for the game; absent for files that would be gone
   * @param folders how many in which folder
   */
  public record From(@MayBeAbsent Long mod, String name, int files, Map<String, Integer> folders) {}

  /** One path; absent names where there is no file before or after. */
  public record Sample(String path, @MayBeAbsent String before, @MayBeAbsent String after) {}

  public static DifferenceView of(Changed changed) {
    return of(changed.after(), changed.difference());
  }

  public static DifferenceView of(OpenWorkspace open, Difference d) {
    Holdings holdings = open.picture().holdings();
    Map<Long, Map<String, Integer>> bySource = new LinkedHashMap<>();
    List<Sample> samples = new ArrayList<>();
    for (Change c : d.files()) {
      Long source = c.after() < 0 ? null : holdings.holderAt(c.after()).mod();
      String path = holdings.path(c.path());
      String folder = GamePath.folder(path).isEmpty() ? "." : GamePath.folder(path);
      bySource.computeIfAbsent(source, s -> new TreeMap<>()).merge(folder, 1, Integer::sum);
      if (samples.size() < SAMPLES) {
        samples.add(new Sample(path, holder(open, c.before()), holder(open, c.after())));
      }
    }
    List<From> sources = new ArrayList<>();
    bySource.forEach(
        (mod, folders) -> {
          String name = mod == null ? "nobody" : open.nameOf(mod);
          int files = folders.values().stream().mapToInt(Integer::intValue).sum();
          sources.add(new From(mod, name, files, folders));
        });
    sources.sort((a, b) -> b.files() - a.files());
    return new DifferenceView(
        open.revision(),
        d.files().size(),
        sources,
        samples,
        d.pluginsCome(),
        d.pluginsGo(),
        d.orderChanges());
  }

  /** As the answer to a change, with the revision to go on from. */
  public ResponseEntity<DifferenceView> asAnswer() {
    return ResponseEntity.ok().eTag(Revision.etag(revision)).body(this);
  }

  private static String holder(OpenWorkspace open, int slot) {
    return slot < 0 ? null : open.nameOf(open.picture().holdings().holderAt(slot).mod());
  }
}
