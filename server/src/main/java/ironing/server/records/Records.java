package ironing.server.records;

import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.plugin.RecordTable;
import ironing.core.records.Collisions;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordSearch;
import ironing.server.workbench.Bench;
import ironing.server.workbench.ContentStore;
import ironing.server.workbench.ContentStore.Active;
import ironing.server.workbench.Memory;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import org.springframework.stereotype.Component;

/**
 * The records of the plugins that are on, workspace by workspace. What was found out is kept while
 * the plugins, their order and the decisions stay the same.
 */
@Component
public class Records {
  private final ContentStore content;
  private final Memory.Kept<Known> known;

  Records(ContentStore content, Memory memory) {
    this.content = content;
    this.known = memory.keeping(k -> k.index.bytes());
  }

  /** The records of one arrangement; collisions are looked for when they are first asked for. */
  public static final class Known {
    private final Bench bench;
    private final List<Active> plugins;
    private final RecordIndex index;
    private volatile Collisions collisions;

    private Known(Bench bench, List<Active> plugins, RecordIndex index, Collisions collisions) {
      this.bench = bench;
      this.plugins = plugins;
      this.index = index;
      this.collisions = collisions;
    }

    public RecordIndex index() {
      return index;
    }

    public Collisions collisions() {
      Collisions found = collisions;
      if (found != null) return found;
      synchronized (this) {
        if (collisions != null) return collisions;
        Collisions looked =
            Collisions.in(bench.game(), index, bench.picture().arrangement().decisions());
        // what could not be read may be readable at the next look
        if (looked.complete()) collisions = looked;
        return looked;
      }
    }

    @SuppressWarnings("ReferenceEquality")
    private boolean isOf(List<Active> others, Bench other) {
      return plugins.equals(others) && bench.game() == other.game();
    }
  }

  @SuppressWarnings("ReferenceEquality")
  public Known of(Bench bench) {
    return known.of(
        bench.workspace(),
        before -> before != null && before.bench == bench ? before : look(bench, before));
  }

  private Known look(Bench bench, Known before) {
    List<Active> plugins = content.active(bench);
    if (before == null || !before.isOf(plugins, bench))
      return new Known(bench, plugins, index(plugins), null);
    Arrangement was = before.bench.picture().arrangement(), is = bench.picture().arrangement();
    boolean sameWords = was.decisions().equals(is.decisions());
    return new Known(bench, plugins, before.index, sameWords ? before.collisions : null);
  }

  private static RecordIndex index(List<Active> plugins) {
    return RecordIndex.of(plugins.stream().map(Active::source).toList());
  }

  /** The records that somebody looks for, by number; see {@link RecordSearch#find}. */
  int[] find(Bench bench, String text) {
    Known k = of(bench);
    return new RecordSearch(bench.game(), k.index).find(text, p -> whole(k.plugins.get(p)));
  }

  private static RecordTable.Bytes whole(Active plugin) {
    try {
      return RecordTable.Bytes.of(Files.readAllBytes(plugin.file()));
    } catch (IOException e) {
      throw RecordIndex.unreadable(plugin.name(), e);
    }
  }

  /** The records under another arrangement of the same workspace. */
  public RecordIndex under(Bench bench, Picture other) {
    Bench as = bench.as(other);
    List<Active> plugins = content.active(as);
    return known
        .peek(bench.workspace())
        .filter(now -> now.isOf(plugins, as))
        .map(now -> now.index)
        .orElseGet(() -> index(plugins));
  }
}
