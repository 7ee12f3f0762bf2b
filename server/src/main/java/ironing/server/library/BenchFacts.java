package ironing.server.library;

import ironing.core.layers.Holdings;
import ironing.core.library.Facts;
import ironing.core.library.Needs;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.server.workbench.Bench;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.springframework.util.function.SingletonSupplier;

/** What a fitting's conditions are asked of: a workspace as it is now, without some of its mods. */
final class BenchFacts implements Facts {
  private final Supplier<Bench> bench;
  private final Set<Long> without;
  private final Supplier<Map<String, List<Needs.Installed>>> installed;

  /**
   * @param bench asked only when a condition is: loading one costs what the workspace holds
   * @param without all versions of the mod itself
   */
  BenchFacts(Supplier<Bench> bench, Set<Long> without) {
    this.bench = bench;
    this.without = without;
    this.installed = SingletonSupplier.of(() -> bench.get().installed(without));
  }

  @Override
  public boolean modOn(String id, String versions) {
    VersionRange range = VersionRange.of(versions);
    return installed.get().getOrDefault(id, List.of()).stream()
        .anyMatch(i -> i.on() && range.contains(ModVersion.of(i.card().version())));
  }

  @Override
  public boolean gameIn(String versions) {
    return bench
        .get()
        .gameVersion()
        .map(v -> VersionRange.of(versions).contains(ModVersion.of(v)))
        .orElse(false);
  }

  @Override
  public boolean inPicture(String gamePath) {
    Holdings holdings = bench.get().picture().holdings();
    int path = holdings.idOf(gamePath);
    return path >= 0
        && bench.get().picture().standing().holders(path).stream()
            .anyMatch(slot -> !without.contains(holdings.holderAt(slot).mod()));
  }
}
