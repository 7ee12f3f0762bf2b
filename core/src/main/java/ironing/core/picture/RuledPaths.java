package ironing.core.picture;

import ironing.core.layers.Holdings;
import ironing.core.layers.Standing;
import ironing.core.path.PathPattern;
import ironing.core.picture.Arrangement.Ruling;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Which of a picture's rulings speak at which paths. A ruling whose text is a path that somebody
 * holds speaks of that path alone; any other is a folder or a pattern.
 *
 * <p>Cost: at a path, as many looks as its mod has rulings for folders and patterns. Threads: any.
 */
public final class RuledPaths {
  private final Picture picture;
  private final List<Ruling> rulings;
  private final Map<Long, Map<Integer, List<Integer>>> exact = new HashMap<>();
  private final Map<Long, List<Wide>> wide = new HashMap<>();

  /**
   * A ruling for a folder or a pattern.
   *
   * @param number its place among the rulings
   */
  private record Wide(int number, PathPattern pattern) {}

  /**
   * At how many paths a ruling speaks.
   *
   * @param changing where another file would be in play without a ruling
   * @param needless where the order says the same
   */
  public record Count(int changing, int needless) {
    public boolean isIdle() {
      return changing + needless == 0;
    }
  }

  public RuledPaths(Picture picture) {
    this.picture = picture;
    this.rulings = picture.arrangement().rulings();
    for (int i = 0; i < rulings.size(); i++) {
      Ruling r = rulings.get(i);
      int path = picture.holdings().idOf(r.at());
      if (path >= 0)
        exact
            .computeIfAbsent(r.mod(), m -> new HashMap<>())
            .computeIfAbsent(path, p -> new ArrayList<>())
            .add(i);
      else
        wide.computeIfAbsent(r.mod(), m -> new ArrayList<>())
            .add(new Wide(i, PathPattern.of(r.at(), picture.game().pathCase())));
    }
  }

  /**
   * The ruling that decides at a path: the one of the very path, else the last that covers it.
   *
   * @param path at which a ruling decides; see {@link Standing#isRuled}
   */
  public Ruling deciding(int path) {
    List<Integer> speaking = speakingAt(path);
    if (speaking.isEmpty()) throw new IllegalArgumentException("no ruling speaks of path " + path);
    return rulings.get(speaking.get(0));
  }

  /**
   * By the places of the rulings, at how many paths each speaks. Cost: all paths that are ruled.
   */
  public List<Count> counts() {
    Standing standing = picture.standing();
    int[] changing = new int[rulings.size()], needless = new int[rulings.size()];
    int[] ruled = standing.ruled();
    for (int p = 0; p < ruled.length; p++) {
      if (!standing.isRuled(p)) continue;
      int[] counts = standing.aboveByOrder(p).isEmpty() ? needless : changing;
      for (int ruling : speakingAt(p)) counts[ruling]++;
    }
    List<Count> all = new ArrayList<>();
    for (int i = 0; i < changing.length; i++) all.add(new Count(changing[i], needless[i]));
    return all;
  }

  // the one that decides comes first
  private List<Integer> speakingAt(int path) {
    Holdings holdings = picture.holdings();
    long mod = holdings.holderAt(picture.standing().inPlay(path)).mod();
    List<Integer> speaking =
        new ArrayList<>(exact.getOrDefault(mod, Map.of()).getOrDefault(path, List.of()));
    List<Wide> covering = wide.getOrDefault(mod, List.of());
    for (int i = covering.size() - 1; i >= 0; i--)
      if (covering.get(i).pattern().matches(holdings.path(path)))
        speaking.add(covering.get(i).number());
    return speaking;
  }
}
