package ironing.core.choice;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * Why no set has all that is asked for: a smallest number of statements that cannot hold together,
 * and the smallest sets of statements of which giving up one set is enough.
 *
 * <p>The smallest is found from the other side: every set that has to be given up meets every
 * contradiction, so the smallest set that meets all that are known is either a contradiction, or
 * leads to one more that has to be met (an implicit hitting set).
 */
final class Contradiction {
  /** How many ways out are told. */
  static final int MOST_WAYS = 12;

  private final ClauseSolver solver;
  private final Map<Statement, Integer> selectors;
  private final Map<Integer, Statement> byVariable = new HashMap<>();
  private final long deadline;

  /**
   * @param deadline of {@link System#nanoTime()}
   */
  Contradiction(ChoiceQuestion question, Cone cone, long deadline) {
    this.deadline = deadline;
    solver = new Sat4jSolver(deadline);
    selectors = new Encoding(question, cone, solver, true).selectors();
    selectors.forEach((s, v) -> byVariable.put(v, s));
  }

  ChoiceAnswer.None find() {
    boolean smallest = true;
    Set<Statement> together = new TreeSet<>(selectors.keySet());
    List<List<Statement>> ways = List.of();
    try {
      if (solver.solve(literals(together))) throw new IllegalStateException("there is a set");
      together = smallestTogether(shrunk(ofReason()));
    } catch (ClauseSolver.GaveUp e) {
      smallest = false;
    }
    try {
      ways = waysOut();
    } catch (ClauseSolver.GaveUp e) {
      smallest = false;
    }
    return new ChoiceAnswer.None(List.copyOf(together), ways, smallest);
  }

  /** Leaves out what is not needed for a contradiction, one by one, wishes last. */
  private Set<Statement> shrunk(Set<Statement> contradiction) throws ClauseSolver.GaveUp {
    List<Statement> all = new ArrayList<>(contradiction);
    all.sort(Comparator.reverseOrder());
    Set<Statement> left = new TreeSet<>(all);
    for (Statement s : all) {
      left.remove(s);
      if (solver.solve(literals(left))) left.add(s);
    }
    return left;
  }

  /** The statements by which the solver has just said no. */
  private Set<Statement> ofReason() {
    Set<Statement> out = new TreeSet<>();
    for (int l : solver.reason()) out.add(byVariable.get(l));
    return out;
  }

  /**
   * A contradiction of the fewest statements.
   *
   * @param known some contradiction
   */
  private Set<Statement> smallestTogether(Set<Statement> known) throws ClauseSolver.GaveUp {
    ClauseSolver hitting = new Sat4jSolver(deadline);
    Map<Statement, Integer> picked = new TreeMap<>();
    for (Statement s : selectors.keySet()) picked.put(s, hitting.variable());
    int[] all = picked.values().stream().mapToInt(Integer::intValue).toArray();
    int size = 1;
    while (size < known.size()) {
      int guard = hitting.variable();
      hitting.atMost(all, Encoding.ones(all.length), size, guard);
      if (!hitting.solve(guard)) {
        hitting.clause(-guard);
        size++;
        continue;
      }
      Set<Statement> hit = new TreeSet<>();
      picked.forEach(
          (s, v) -> {
            if (hitting.holds(v)) hit.add(s);
          });
      hitting.clause(-guard);
      if (!solver.solve(literals(hit))) return hit;
      Set<Statement> given = new TreeSet<>(selectors.keySet());
      given.removeAll(grown(hit));
      hitting.clause(given.stream().mapToInt(picked::get).toArray());
    }
    return known;
  }

  /** As many statements as can hold together with some that do. */
  private Set<Statement> grown(Set<Statement> start) throws ClauseSolver.GaveUp {
    Set<Statement> hold = new TreeSet<>(selectors.keySet());
    List<Statement> given = new ArrayList<>();
    while (!solver.solve(literals(hold))) {
      Set<Statement> one = ofReason();
      one.removeAll(start);
      Statement last = new TreeSet<>(one).last();
      hold.remove(last);
      given.add(last);
    }
    for (Statement s : given) {
      hold.add(s);
      if (!solver.solve(literals(hold))) hold.remove(s);
    }
    return hold;
  }

  /** The smallest sets to give up: wishes first, then as {@link Statement.Kind} has them. */
  private List<List<Statement>> waysOut() throws ClauseSolver.GaveUp {
    List<List<Statement>> out = new ArrayList<>();
    int[] not = selectors.values().stream().mapToInt(v -> -v).toArray();
    if (!solver.solve()) return out;
    new Minimiser(solver, () -> {}).minimise(not, Encoding.ones(not.length));
    while (solver.solve()) {
      List<Statement> way = new ArrayList<>();
      selectors.forEach(
          (s, v) -> {
            if (!solver.holds(v)) way.add(s);
          });
      out.add(List.copyOf(way));
      solver.clause(literals(way));
    }
    out.sort(Contradiction::compareWays);
    return List.copyOf(out.subList(0, Math.min(MOST_WAYS, out.size())));
  }

  private static int compareWays(List<Statement> a, List<Statement> b) {
    for (int i = 0; i < Math.min(a.size(), b.size()); i++) {
      int c = a.get(i).compareTo(b.get(i));
      if (c != 0) return c;
    }
    return Integer.compare(a.size(), b.size());
  }

  private int[] literals(Collection<Statement> statements) {
    return statements.stream().mapToInt(selectors::get).toArray();
  }
}
