package ironing.server.records;

import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.plugin.Shapes;
import ironing.core.records.RecordFindings;
import ironing.core.records.RecordFindings.Finding;
import ironing.core.records.RecordIndex;
import ironing.server.workbench.Bench;
import ironing.server.workbench.Memory;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/** What is wrong with single records; kept while the workspace stays as it is. */
@Component
class RecordHealth {
  private static final long BYTES_OF_EACH = 300;

  private final Records records;
  private final Memory.Kept<Known> known;

  private record Known(Bench bench, List<Finding> findings) {}

  RecordHealth(Records records, Memory memory) {
    this.records = records;
    this.known = memory.keeping(k -> BYTES_OF_EACH * k.findings().size());
  }

  @SuppressWarnings("ReferenceEquality")
  List<Finding> of(Bench bench) {
    return known
        .of(
            bench.workspace(),
            k -> k != null && k.bench() == bench ? k : new Known(bench, look(bench)))
        .findings();
  }

  private List<Finding> look(Bench bench) {
    long[] inPlay = inPlay(bench);
    RecordIndex index = records.of(bench).index();
    return RecordFindings.of(index, print -> Arrays.binarySearch(inPlay, print) >= 0);
  }

  /**
   * The prints of all paths in play, sorted: from the game folder, and from the mount of plugins,
   * for a record may name a path from either.
   */
  private long[] inPlay(Bench bench) {
    Shapes shapes = bench.shapes();
    Holdings holdings = bench.picture().holdings();
    String at = pluginMount(bench.game());
    return IntStream.range(0, holdings.pathCount())
        .parallel()
        .filter(p -> bench.picture().standing().inPlay(p) >= 0)
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
  static boolean inPlay(Bench bench, String path) {
    for (String p : List.of(path, pluginMount(bench.game()) + path)) {
      int id = bench.picture().holdings().idOf(p);
      if (id >= 0 && bench.picture().standing().inPlay(id) >= 0) return true;
    }
    return false;
  }

  private static String pluginMount(GameDefinition game) {
    String any = game.plugins().isPresent() ? game.pluginPath("x") : "x";
    return any.substring(0, any.length() - 1);
  }
}
