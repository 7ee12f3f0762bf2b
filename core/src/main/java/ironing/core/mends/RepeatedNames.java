package ironing.core.mends;

import ironing.core.combinedfiles.FileCombiner;
import ironing.core.combinedfiles.OnceNames;
import ironing.core.game.GameDefinition.Combine;
import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.text.DecodedText;
import ironing.core.workspace.Recent;
import ironing.core.workspace.Workspace;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/** Names that may stand only once in all files of a kind, and that what is in play has twice. */
public final class RepeatedNames {
  private static final int REMEMBERED = 20_000;
  private final Map<String, Map<String, Integer>> names = Recent.map(REMEMBERED);

  /**
   * A file in play.
   *
   * @param mod 0 for the game
   */
  public record Where(String path, long mod) implements Comparable<Where> {
    @Override
    public int compareTo(Where o) {
      return path.compareTo(o.path);
    }
  }

  /**
   * Names that stand more than once, and the files that they stand in.
   *
   * @param match of the definition, what files it is about
   */
  public record Repeated(List<String> names, String match, List<Where> files) {}

  /**
   * @param where the file in play; null where there is none any more
   * @param own names in what the unmodded game reads there
   */
  private record Found(
      Combine rule, Where where, Map<String, Integer> names, Map<String, Integer> own) {}

  /**
   * All of them that a mod has brought about, those in the same files together. What the unmodded
   * game has as often itself is none.
   */
  public List<Repeated> of(Workspace workspace) {
    if (workspace.game().combine().stream().allMatch(c -> c.once().isEmpty())) return List.of();
    Holdings holdings = workspace.picture().holdings();
    Standing standing = workspace.picture().standing();
    List<Found> found = new ArrayList<>();
    for (int path : workspace.get(CombinablePaths.STAGE).paths()) {
      Combine rule = workspace.game().combines(holdings.path(path)).orElseThrow();
      if (rule.once().isEmpty()) continue;
      int slot = standing.inPlay(path), unmodded = workspace.picture().unmodded(path);
      Where where =
          slot < 0
              ? null
              : new Where(workspace.picture().spelling().of(path), holdings.holderAt(slot).mod());
      found.add(
          new Found(
              rule,
              where,
              names(workspace, slot, rule.once().get()),
              names(workspace, unmodded, rule.once().get())));
    }
    return workspace.game().combine().stream()
        .flatMap(c -> repeated(c, found.stream().filter(f -> f.rule.equals(c)).toList()).stream())
        .toList();
  }

  private static List<Repeated> repeated(Combine rule, List<Found> found) {
    Map<String, Set<Where>> files = new TreeMap<>();
    Map<String, Integer> times = new TreeMap<>(), own = new TreeMap<>();
    for (Found f : found) {
      f.own.forEach((name, n) -> own.merge(name, n, Integer::sum));
      f.names.forEach(
          (name, n) -> {
            times.merge(name, n, Integer::sum);
            files.computeIfAbsent(name, k -> new TreeSet<>()).add(f.where);
          });
    }
    Map<List<Where>, List<String>> together = new LinkedHashMap<>();
    files.forEach(
        (name, in) -> {
          boolean modded = in.stream().anyMatch(w -> w.mod() != Holdings.GAME);
          if (modded && times.get(name) > Math.max(1, own.getOrDefault(name, 0)))
            together.computeIfAbsent(List.copyOf(in), k -> new ArrayList<>()).add(name);
        });
    List<Repeated> all = new ArrayList<>();
    together.forEach((in, n) -> all.add(new Repeated(n, rule.match().toString(), in)));
    return all;
  }

  private Map<String, Integer> names(Workspace workspace, int slot, String once) {
    if (slot < 0) return Map.of();
    String key = workspace.picture().holdings().shaAt(slot) + once;
    Map<String, Integer> known = names.get(key);
    if (known != null) return known;
    try {
      byte[] bytes = workspace.read(slot, FileCombiner.MOST_BYTES);
      Map<String, Integer> fresh = new OnceNames(once).in(DecodedText.of(bytes).text());
      names.put(key, fresh);
      return fresh;
    } catch (IOException away) {
      // not remembered: the drive may be connected again at the next look
      return Map.of();
    }
  }
}
