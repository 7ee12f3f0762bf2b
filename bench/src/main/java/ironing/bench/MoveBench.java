package ironing.bench;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.layers.Holdings;
import ironing.core.layers.HoldingsBuilder;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Picture;
import ironing.core.plugin.PluginFiles;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * One layer moved: the picture made from the one before, beside the picture made anew. The first
 * should follow the moved mod's files, the second all files of the workspace.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 2, time = 2)
@Measurement(iterations = 3, time = 2)
@Fork(1)
public class MoveBench {
  private static final int FILES_A_MOD = 200;
  private static final GameDefinition GAME =
      GameDefinitionReader.read(
              "game.yaml",
              """
              format: ironing/game@1
              id: plain
              title: Plain
              mounts: [ { id: all, at: ".", holds: [ "**" ] } ]
              """)
          .value();
  static final Picture.Headers NO_PLUGINS =
      new Picture.Headers() {
        @Override
        public Optional<byte[]> own(String path) {
          return Optional.empty();
        }

        @Override
        public Optional<byte[]> part(PluginFiles.Part part) {
          return Optional.empty();
        }

        @Override
        public Picture.NamedHeader document(PluginFiles files) {
          throw new IllegalStateException("no plugin of this game is text");
        }

        @Override
        public Picture.HeaderOrFlaw header(String name, long mod, String path, String sha256) {
          throw new IllegalStateException("this game has no plugins");
        }

        @Override
        public boolean isMend(long mod) {
          return false;
        }
      };

  @Param({"75", "300", "1200"})
  public int mods;

  private Holdings holdings;
  private Picture picture;
  private List<Arrangement.Layer> layers;
  private final Random random = new Random(3);

  @Setup
  public void world() {
    HoldingsBuilder files = new HoldingsBuilder(PathCase.INSENSITIVE);
    int game = files.source(Holdings.GAME, Optional.empty());
    for (int f = 0; f < 2_000; f++) files.file(game, shared(f), 100, LargeWorld.sha("game " + f));
    layers = new ArrayList<>();
    for (long mod = 1; mod <= mods; mod++) {
      int source = files.source(mod, Optional.empty());
      for (int f = 0; f < FILES_A_MOD; f++) {
        boolean contested = random.nextInt(5) == 0;
        String path = contested ? shared(random.nextInt(3_000)) : "mods/" + mod + "/" + f;
        files.file(source, path, 100, LargeWorld.sha(mod + " " + f));
      }
      layers.add(new Arrangement.Layer(mod, true));
    }
    holdings = files.build();
    picture = Picture.of(GAME, holdings, arrangement(layers), NO_PLUGINS);
  }

  private static String shared(int f) {
    return "textures/common/" + f % 50 + "/" + f + ".tex";
  }

  private static Arrangement arrangement(List<Arrangement.Layer> layers) {
    return new Arrangement(layers, List.of(), Map.of());
  }

  private Arrangement moved() {
    List<Arrangement.Layer> next = new ArrayList<>(layers);
    next.add(random.nextInt(mods), next.remove(random.nextInt(mods)));
    return arrangement(next);
  }

  @Benchmark
  public Picture fromTheOneBefore() {
    return picture.rearranged(moved());
  }

  @Benchmark
  public Picture madeAnew() {
    return Picture.of(GAME, holdings, moved(), NO_PLUGINS);
  }
}
