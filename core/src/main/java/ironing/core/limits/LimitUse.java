package ironing.core.limits;

import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinition.Counted;
import ironing.core.game.GameDefinition.Limit;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.picture.Picture;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongFunction;

/**
 * How much of a limit a picture uses.
 *
 * @param used what counts, the game's own among it
 * @param byMod how much of it each mod takes, the most first; the game is not among them
 */
public record LimitUse(Limit limit, long used, List<Share> byMod) {
  /** At this much of a limit it is told. */
  private static final double NEAR = 0.9;

  public record Share(long mod, long takes) {}

  /** How a limit stands. */
  public enum State {
    FAR,
    NEAR,
    PAST
  }

  public State state() {
    if (used > limit.max()) return State.PAST;
    return used >= Math.ceil(limit.max() * NEAR) ? State.NEAR : State.FAR;
  }

  /**
   * How much of a limit is used by what lies in the game folder now, as far as paths tell.
   *
   * @param laidOut by game path, the mod whose file lies there
   * @param own the paths of the game's own files that no mod has replaced
   */
  public static long inFolder(
      GameDefinition game, Limit limit, Map<String, LaidFile> laidOut, Collection<LaidFile> own) {
    if (limit.count() == Counted.MODS)
      return laidOut.values().stream().map(LaidFile::mod).filter(m -> m > 0).distinct().count();
    long used = 0;
    List<LaidFile> all = new ArrayList<>(laidOut.values());
    all.addAll(own);
    for (LaidFile f : all) {
      boolean counts =
          limit.count() == Counted.PLUGINS
              ? game.isPlugin(f.path())
              : limit.match().isEmpty() || game.matches(limit.match().get(), f.path());
      if (counts) used += limit.count() == Counted.BYTES ? f.size() : 1;
    }
    return used;
  }

  /** A file in the game folder. */
  public record LaidFile(String path, long mod, long size) {}

  /** In words: what counts, how much of it there is, and how much there may be. */
  public String words() {
    String of =
        switch (limit.count()) {
          case FILES -> "files" + limit.match().map(m -> " of “" + m + "”").orElse("");
          case BYTES -> "bytes" + limit.match().map(m -> " of “" + m + "”").orElse("");
          case PLUGINS -> "plugins";
          case MODS -> "mods";
        };
    return "%,d %s of %,d that the game can take".formatted(used, of, limit.max());
  }

  /** Who takes most of it, in words. */
  public String takers(LongFunction<String> nameOf) {
    List<String> most =
        byMod.stream()
            .limit(3)
            .map(s -> nameOf.apply(s.mod()) + " (" + "%,d".formatted(s.takes()) + ")")
            .toList();
    return most.isEmpty() ? "the game itself" : String.join(", ", most);
  }

  /** Of every limit of the game. Cost: all paths, for each that counts files or bytes. */
  public static List<LimitUse> of(Picture picture) {
    List<LimitUse> all = new ArrayList<>();
    for (Limit l : picture.game().limits()) all.add(of(picture, l));
    return List.copyOf(all);
  }

  private static LimitUse of(Picture picture, Limit limit) {
    Map<Long, Long> byMod = new HashMap<>();
    if (limit.count() == Counted.PLUGINS)
      for (Entry e : picture.loadOrder().active()) byMod.merge(e.plugin().mod(), 1L, Long::sum);
    else files(picture, limit, byMod);
    if (limit.count() == Counted.MODS) {
      byMod.remove(Holdings.GAME);
      byMod.replaceAll((mod, files) -> 1L);
    }
    long used = byMod.values().stream().mapToLong(Long::longValue).sum();
    List<Share> shares =
        byMod.entrySet().stream()
            .filter(e -> e.getKey() != Holdings.GAME)
            .map(e -> new Share(e.getKey(), e.getValue()))
            .sorted(Comparator.comparingLong(Share::takes).reversed().thenComparing(Share::mod))
            .toList();
    return new LimitUse(limit, used, shares);
  }

  private static void files(Picture picture, Limit limit, Map<Long, Long> byMod) {
    Holdings holdings = picture.holdings();
    for (int p = 0; p < holdings.pathCount(); p++) {
      int slot = picture.standing().inPlay(p);
      if (slot < 0 || holdings.holderAt(slot).pack().isPresent()) continue;
      if (picture.switchedOff().get(p)) continue;
      String path = holdings.path(p);
      if (limit.match().isPresent() && !picture.game().matches(limit.match().get(), path)) continue;
      long counts = limit.count() == Counted.BYTES ? holdings.sizeAt(slot) : 1;
      byMod.merge(holdings.holderAt(slot).mod(), counts, Long::sum);
    }
  }
}
