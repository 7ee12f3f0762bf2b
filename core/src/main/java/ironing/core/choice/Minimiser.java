package ironing.core.choice;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Makes sums of weights as small as can be, one after the other: what one has come to is kept to
 * when the next is made small.
 *
 * <p>It goes from below: all literals of a sum are assumed to be false; the reason why they cannot
 * raises what the sum has to be, and is let off by one, until the rest can hold. Reasons that have
 * nothing to do with one another so cost a step each, and not all of their combinations
 * (core-guided search: Fu and Malik 2006; with counts as in Morgado, Dodaro and Marques-Silva
 * 2014).
 */
final class Minimiser {
  /** Up to this size a reason is made as small as can be by trying. */
  private static final int TRIED = 40;

  private final ClauseSolver solver;
  private final Runnable keep;

  /** “At most so many of these hold”, as a literal that can be assumed. */
  private record Count(int[] literals, int most, int weight) {}

  /**
   * @param keep called after each outcome while the solver still has it
   */
  Minimiser(ClauseSolver solver, Runnable keep) {
    this.solver = solver;
    this.keep = keep;
  }

  /**
   * Makes a sum of weights as small as can be, and holds it there.
   *
   * @param weights above 0
   * @return what it comes to
   * @throws ClauseSolver.GaveUp when the time is up; what was kept last is the best so far
   */
  int minimise(int[] literals, int[] weights) throws ClauseSolver.GaveUp {
    Map<Integer, Integer> soft = new LinkedHashMap<>();
    Map<Integer, Count> counts = new HashMap<>();
    for (int i = 0; i < literals.length; i++) soft.merge(-literals[i], weights[i], Integer::sum);
    int least = 0;
    while (!soft.isEmpty()) {
      least += letOffSettled(soft, counts);
      if (solver.solve(assumed(soft))) {
        keep.run();
        break;
      }
      int[] reason = smaller(solver.reason());
      int weight = Arrays.stream(reason).map(soft::get).min().orElseThrow();
      least += weight;
      for (int l : reason) {
        if (soft.merge(l, -weight, Integer::sum) == 0) soft.remove(l);
        oneMore(l, soft, counts);
      }
      if (reason.length > 1) {
        count(Arrays.stream(reason).map(l -> -l).toArray(), 1, weight, soft, counts);
      } else {
        solver.clause(-reason[0]);
      }
    }
    for (int l : soft.keySet()) solver.clause(l);
    return least;
  }

  /** Lets off what cannot hold in any outcome, without asking for each. */
  private int letOffSettled(Map<Integer, Integer> soft, Map<Integer, Count> counts) {
    int least = 0;
    for (int l : assumed(soft)) {
      if (!solver.isSettled(-l)) continue;
      least += soft.remove(l);
      oneMore(l, soft, counts);
    }
    return least;
  }

  private void oneMore(int literal, Map<Integer, Integer> soft, Map<Integer, Count> counts) {
    Count count = counts.get(literal);
    if (count != null) count(count.literals, count.most + 1, count.weight, soft, counts);
  }

  private static int[] assumed(Map<Integer, Integer> soft) {
    return soft.keySet().stream().mapToInt(Integer::intValue).toArray();
  }

  private void count(
      int[] literals,
      int most,
      int weight,
      Map<Integer, Integer> soft,
      Map<Integer, Count> counts) {
    if (most >= literals.length) return;
    int guard = solver.variable();
    solver.atMost(literals, Encoding.ones(literals.length), most, guard);
    soft.put(guard, weight);
    counts.put(guard, new Count(literals, most, weight));
  }

  /** Leaves out of a reason what is not needed for it. */
  private int[] smaller(int[] reason) throws ClauseSolver.GaveUp {
    int[] now = reason;
    for (int before = now.length + 1; now.length > 1 && now.length < before; ) {
      before = now.length;
      if (!solver.solve(now)) now = solver.reason();
    }
    if (now.length > TRIED) return now;
    List<Integer> left = new ArrayList<>();
    for (int l : now) left.add(l);
    for (int i = left.size() - 1; i >= 0 && left.size() > 1; i--) {
      Integer l = left.remove(i);
      if (solver.solve(left.stream().mapToInt(Integer::intValue).toArray())) left.add(i, l);
    }
    return left.stream().mapToInt(Integer::intValue).toArray();
  }

  /** Takes the first of some literals that can hold, and holds it; none where none can. */
  void firstOf(int[] literals) throws ClauseSolver.GaveUp {
    for (int l : literals) {
      if (solver.solve(l)) {
        keep.run();
        solver.clause(l);
        return;
      }
      solver.clause(-l);
    }
  }
}
