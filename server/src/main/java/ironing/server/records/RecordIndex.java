package ironing.server.records;

import ironing.core.path.PathCase;
import ironing.core.picture.Picture;
import ironing.core.plugin.Plugin;
import ironing.core.records.Collision;
import ironing.core.records.RecordVersions;
import ironing.server.workbench.Bench;
import ironing.server.workbench.ContentStore;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** All records of the active plugins of a workspace, kept while its load order stays the same. */
@Component
public class RecordIndex {
  private final ContentStore content;
  private final Map<Long, Known> known = new ConcurrentHashMap<>();

  private record Known(Bench bench, Records records) {}

  RecordIndex(ContentStore content) {
    this.content = content;
  }

  /**
   * @param order the plugins that are on and decode, in load order
   * @param patches folded names of those of them that are patches
   */
  public record Records(
      List<Plugin> order,
      Set<String> patches,
      RecordVersions versions,
      Map<String, Collision> collisions) {
    /** The plugins that a patch is made of. */
    public List<Plugin> withoutPatches() {
      return order.stream().filter(p -> !patches.contains(PathCase.fold(p.name()))).toList();
    }
  }

  public Records of(Bench bench) {
    Known k = known.get(bench.workspace());
    if (k != null && k.bench() == bench) return k.records();
    Records fresh = index(bench);
    known.put(bench.workspace(), new Known(bench, fresh));
    return fresh;
  }

  private Records index(Bench bench) {
    List<Plugin> order = content.active(bench);
    Set<String> patches =
        bench.picture().loadOrder().active().stream()
            .filter(e -> e.plugin().mend())
            .map(e -> PathCase.fold(e.name()))
            .collect(Collectors.toSet());
    RecordVersions versions = new RecordVersions(order);
    Map<String, Collision> collisions = new LinkedHashMap<>();
    Picture picture = bench.picture();
    for (Collision c :
        Collision.in(
            bench.game(), versions, patches, key -> picture.arrangement().decisionsOn(key))) {
      collisions.put(c.key().toString(), c);
    }
    return new Records(order, patches, versions, collisions);
  }

  /** All versions of all records under another arrangement of the same workspace. */
  public RecordVersions under(Bench bench, Picture other) {
    return new RecordVersions(content.active(bench.as(other)));
  }
}
