package ironing.core.workspace;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.plugin.PluginFiles;
import ironing.core.records.RecordIndex;
import ironing.core.records.RecordSearch;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/**
 * The records of the plugins that are on.
 *
 * @param plugins in load order
 */
public record ReadRecords(GameDefinition game, List<ReadPlugin> plugins, RecordIndex index) {
  /** The records that somebody looks for, by number; see {@link RecordSearch#find}. */
  public int[] find(String text) {
    return new RecordSearch(game, index).find(text, p -> plugins.get(p).whole());
  }

  /** The same plugins in the same order have the same records: none is indexed again. */
  static final class OfPluginsThatAreOn implements Stage<ReadRecords> {
    @Override
    public ReadRecords of(Workspace now) {
      return indexed(now, plugins(now));
    }

    @SuppressWarnings("ReferenceEquality")
    @Override
    public ReadRecords next(Workspace now, ReadRecords known) {
      List<ReadPlugin> plugins = plugins(now);
      boolean same = known.game() == now.game() && known.plugins().equals(plugins);
      return same ? known : indexed(now, plugins);
    }

    private static ReadRecords indexed(Workspace now, List<ReadPlugin> plugins) {
      RecordIndex index = RecordIndex.of(plugins.stream().map(ReadPlugin::source).toList());
      return new ReadRecords(now.game(), plugins, index);
    }

    private static List<ReadPlugin> plugins(Workspace now) {
      return now.picture().loadOrder().active().stream()
          .parallel()
          .flatMap(
              e -> {
                long mod = e.plugin().mod();
                String sha = e.plugin().sha256();
                boolean patch = mod != Holdings.GAME && now.mods().get(mod).isPatch();
                if (e.plugin().files().isPresent()) return ofText(now, e, patch);
                Path file = now.locate(mod, spelled(now, e.plugin().path()));
                return now
                    .files()
                    .tables()
                    .of(now.game(), sha, e.name(), now.shapes(), file)
                    .table()
                    .stream()
                    .map(t -> new ReadPlugin(e.name(), sha, patch, t, file));
              })
          .toList();
    }

    private static Stream<ReadPlugin> ofText(Workspace now, Entry e, boolean patch) {
      PluginFiles files = e.plugin().files().orElseThrow();
      Path manifest = now.locate(e.plugin().mod(), files.parts().get(0).spelled());
      return now
          .files()
          .tables()
          .of(files, now.game(), now.shapes(), now.files().documents())
          .table()
          .stream()
          .map(t -> new ReadPlugin(e.name(), e.plugin().sha256(), patch, t, manifest));
    }

    /** The path as the holder in play spells it, which is how it lies in the library. */
    private static String spelled(Workspace now, String path) {
      Holdings holdings = now.picture().holdings();
      int id = holdings.idOf(path);
      int slot = id < 0 ? -1 : now.picture().standing().inPlay(id);
      return slot < 0 ? path : holdings.spellingAt(slot);
    }

    @Override
    public long bytes(ReadRecords value) {
      return value.index().bytes();
    }
  }
}
