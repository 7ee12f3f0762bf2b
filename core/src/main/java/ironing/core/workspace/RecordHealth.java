package ironing.core.workspace;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.plugin.Shapes;
import ironing.core.records.RecordFindings;
import ironing.core.records.RecordFindings.Finding;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/** What is wrong with single records. Cost: all paths in play, and see {@link RecordFindings}. */
public final class RecordHealth implements Stage<List<Finding>> {
  private static final long BYTES_OF_EACH = 300;

  RecordHealth() {}

  @Override
  public List<Finding> of(Workspace now) {
    long[] inPlay = inPlay(now);
    return RecordFindings.of(
        now.get(Stages.RECORDS).index(), print -> Arrays.binarySearch(inPlay, print) >= 0);
  }

  /**
   * The prints of all paths in play, sorted: from the game folder, and from the mount of plugins,
   * for a record may name a path from either.
   */
  private static long[] inPlay(Workspace now) {
    Shapes shapes = now.shapes();
    Holdings holdings = now.picture().holdings();
    String at = pluginMount(now.game());
    return IntStream.range(0, holdings.pathCount())
        .parallel()
        .filter(p -> now.picture().standing().inPlay(p) >= 0)
        .mapToObj(holdings::path)
        .flatMapToLong(
            path ->
                Arrays.stream(
                    !at.isEmpty() && path.startsWith(at)
                        ? new long[] {shapes.path(path), shapes.path(path.substring(at.length()))}
                        : new long[] {shapes.path(path)}))
        .sorted()
        .toArray();
  }

  /** Whether a file is in play at a path of a record. */
  public static boolean inPlay(Workspace now, String path) {
    for (String p : List.of(path, pluginMount(now.game()) + path)) {
      int id = now.picture().holdings().idOf(p);
      if (id >= 0 && now.picture().standing().inPlay(id) >= 0) return true;
    }
    return false;
  }

  private static String pluginMount(GameDefinition game) {
    String any = game.plugins().isPresent() ? game.pluginPath("x") : "x";
    return any.substring(0, any.length() - 1);
  }

  @Override
  public long bytes(List<Finding> value) {
    return BYTES_OF_EACH * value.size();
  }
}
