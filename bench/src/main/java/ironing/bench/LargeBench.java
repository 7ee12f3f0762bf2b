package ironing.bench;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinitionReader;
import ironing.core.layers.Holdings;
import ironing.core.layers.HoldingsBuilder;
import ironing.core.path.PathCase;
import ironing.core.picture.Arrangement;
import ironing.core.picture.Arrangement.Ruling;
import ironing.core.picture.Difference;
import ironing.core.picture.Picture;
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
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * The core at two thousand mods and a million files: all overlaps; one move, switch or ruling with
 * its difference.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgs = "-Xmx1g")
public class LargeBench {
  private static final GameDefinition GAME =
      GameDefinitionReader.read(
              "game.yaml",
              """
              format: ironing/game@1
              id: plain
              title: Plain
              pathCase: insensitive
              mounts: [ { id: all, at: ".", holds: [ "**" ] } ]
              """)
          .value();

  private Picture picture;
  private final Random random = new Random(3);
  private int[] contested;

  @Setup
  public void world() {
    HoldingsBuilder files = new HoldingsBuilder(PathCase.INSENSITIVE);
    List<Arrangement.Layer> layers = new ArrayList<>();
    int[] source = {-1};
    long[] last = {0};
    LargeWorld.files(
        (mod, path, size, sha) -> {
          if (mod != last[0]) {
            source[0] = files.source(mod, Optional.empty());
            layers.add(new Arrangement.Layer(mod, true));
            last[0] = mod;
          }
          files.file(source[0], path, size, sha);
        });
    picture =
        Picture.of(
            GAME,
            files.build(),
            new Arrangement(layers, List.of(), Map.of()),
            MoveBench.NO_PLUGINS);
    contested = picture.standing().contested();
  }

  @Benchmark
  public int allOverlaps() {
    int differing = 0;
    for (int p : picture.standing().contested()) if (picture.standing().differs(p)) differing++;
    return differing;
  }

  @Benchmark
  public Difference move() {
    List<Arrangement.Layer> next = new ArrayList<>(picture.arrangement().layers());
    next.add(random.nextInt(next.size()), next.remove(random.nextInt(next.size())));
    return differenceTo(picture.arrangement().withLayers(next));
  }

  @Benchmark
  public Difference switchOff() {
    List<Arrangement.Layer> next = new ArrayList<>(picture.arrangement().layers());
    int at = random.nextInt(next.size());
    next.set(at, next.get(at).withOn(false));
    return differenceTo(picture.arrangement().withLayers(next));
  }

  @Benchmark
  public Difference rule() {
    int path = contested[random.nextInt(contested.length)];
    List<Holdings.Source> holders = picture.holdings().sourcesOf(path);
    long mod = holders.get(random.nextInt(holders.size())).mod();
    return differenceTo(
        picture.arrangement().withRulings(List.of(new Ruling(picture.holdings().path(path), mod))));
  }

  private Difference differenceTo(Arrangement next) {
    return Difference.between(picture, picture.rearranged(next));
  }
}
