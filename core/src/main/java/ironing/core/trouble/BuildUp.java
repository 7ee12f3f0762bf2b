package ironing.core.trouble;

import ironing.core.library.ModCard;
import ironing.core.trouble.Members.Need;
import ironing.core.workspace.Mod;
import ironing.core.workspace.Workspace;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/**
 * The steps in which a set is built up: groundwork and fixes; then what needs only that; then the
 * large ones, one step each; then the rest, band by band. Nobody comes before what it needs.
 */
public final class BuildUp {
  /** How many of the largest mods have a step of their own. */
  private static final int LARGE_ONES = 5;

  /** A mod counts as large from so many files. */
  private static final int LARGE_FILES = 200;

  /** What comes in one step of the rest at most. */
  private static final int AT_ONCE = 12;

  private static final List<String> BOTTOM = List.of("groundwork", "fixes");

  private BuildUp() {}

  /**
   * The members that come with each step, each once.
   *
   * <p>Cost: O(mods · needs).
   */
  static List<List<Integer>> steps(Workspace workspace, List<Part> parts, List<Need> needs) {
    List<Mod> mods = parts.stream().map(p -> workspace.mods().get(p.mod())).toList();
    return steps(mods, new Members(parts.size(), needs));
  }

  static List<List<Integer>> steps(List<Mod> mods, Members members) {
    Steps steps = new Steps(members);
    List<Integer> all = IntStream.range(0, mods.size()).boxed().toList();
    steps.add(all.stream().filter(m -> isBottom(mods.get(m))).toList());
    BitSet ground = (BitSet) steps.placed.clone();
    steps.add(
        all.stream()
            .filter(
                m -> {
                  BitSet needed = members.withNeeds(m);
                  needed.clear(m);
                  if (needed.isEmpty()) return false;
                  needed.andNot(ground);
                  return needed.isEmpty();
                })
            .toList());
    all.stream()
        .filter(m -> mods.get(m).files() >= LARGE_FILES)
        .sorted(Comparator.comparingInt(m -> -mods.get(m).files()))
        .limit(LARGE_ONES)
        .forEach(m -> steps.add(List.of(m)));
    List<Integer> rest = new ArrayList<>(all);
    // they stand in layer order, and a sort keeps that within a band
    rest.sort(Comparator.comparingInt(m -> band(mods.get(m))));
    List<Integer> next = new ArrayList<>();
    for (int m : rest) {
      if (steps.placed.get(m)) continue;
      next.add(m);
      if (next.size() < AT_ONCE) continue;
      steps.add(next);
      next = new ArrayList<>();
    }
    steps.add(next);
    return List.copyOf(steps.out);
  }

  private static boolean isBottom(Mod mod) {
    return mod.card().band().map(BOTTOM::contains).orElse(false);
  }

  private static int band(Mod mod) {
    int plays = ModCard.BANDS.indexOf("plays");
    return mod.card().band().map(ModCard.BANDS::indexOf).orElse(plays);
  }

  private static final class Steps {
    private final Members members;
    private final BitSet placed = new BitSet();
    private final List<List<Integer>> out = new ArrayList<>();

    Steps(Members members) {
      this.members = members;
    }

    /** A step with these, and what they need that is not there yet. */
    void add(List<Integer> wanted) {
      BitSet step = new BitSet();
      for (int m : wanted) step.or(members.withNeeds(m));
      step.andNot(placed);
      if (step.isEmpty()) return;
      placed.or(step);
      out.add(step.stream().boxed().toList());
    }
  }
}
