package ironing.server.library;

import ironing.core.layers.Holdings;
import ironing.core.library.Facts;
import ironing.core.library.Needs;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import ironing.server.workspace.OpenWorkspace;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.springframework.util.function.SingletonSupplier;

/** What a fitting's conditions are asked of: a workspace as it is now, without some of its mods. */
final class BenchFacts implements Facts {
  private final Supplier<OpenWorkspace> open;
  private final Set<Long> without;
  private final Supplier<Map<String, List<Needs.Installed>>> installed;

  /**
   * @param open asked only when a condition is: loading one costs what the workspace holds
   * @param without all versions of the mod itself
   */
  BenchFacts(Supplier<OpenWorkspace> open, Set<Long> without) {
    this.open = open;
    this.without = without;
    this.installed = SingletonSupplier.of(() -> open.get().installed(without));
  }

  @Override
  public boolean modOn(String id, String versions) {
    VersionRange range = VersionRange.of(versions);
    return installed.get().getOrDefault(id, List.of()).stream()
        .anyMatch(i -> i.on() && range.contains(ModVersion.of(i.card().version())));
  }

  @Override
  public boolean gameIn(String versions) {
    return open.get()
        .gameVersion()
        .map(v -> VersionRange.of(versions).contains(ModVersion.of(v)))
        .orElse(false);
  }

  @Override
  public boolean inPicture(String gamePath) {
    Holdings holdings = open.get().picture().holdings();
    int path = holdings.idOf(gamePath);
    return path >= 0
        && open.get().picture().standing().holders(path).stream()
            .anyMatch(slot -> !without.contains(holdings.holderAt(slot).mod()));
  }
}
